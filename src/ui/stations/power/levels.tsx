"use client";
import { Toggle } from "@/ui/shared/picks";
import { columnsOf, Table } from "@/ui/shared/table";
import { useKept } from "@/ui/state/kept";
import { useState } from "react";
import type { LevelView } from "@/workers/view";
import type { PowerView } from "@/workers/power-view";
import { useAnswer } from "@/ui/shared/answer";
import { Place } from "@/ui/shared/place";
import { useLit } from "@/ui/state/lit";
import { useProject } from "@/ui/state/project";
import { Ladder } from "./ladder";
import { Steps } from "./ways";
import { volts } from "./words";
import { ScrollArea } from "@/ui/shared/scroll-area";
import { Switch } from "@/ui/shared/switch";
import { Radios } from "@/ui/shared/radios";

const worstOf = (v: LevelView) => Math.min(v.marginHigh, v.marginLow, v.ceiling - v.highest_V);
const tone = (m: number) => (m < 0 ? "font-bold text-stop" : m < 0.2 ? "font-bold text-risk" : "");
const margin = (m: number) => (Number.isFinite(m) ? volts(m) : "–");
const HOW = {
  "push-pull": "",
  "pull-up": " (by its pull-up)",
  contact: " (through its contact)",
  diode: " (through what lies between)",
} as const;
const POLICIES = [
  { id: "thresholds", says: "by thresholds with margin: what the data sheets guarantee decides" },
  { id: "same-nominal", says: "only when nominal voltages match: simpler to reason about, more level shifters" },
] as const;

function Policy() {
  const { project, edit } = useProject();
  const [now, setNow] = useAnswer(
    project.houseRules.levelPolicy ?? "thresholds",
    (v) => void edit({ type: "setHouseRules", rules: { levelPolicy: v } }),
  );
  return (
    <div className="mb-2">
      <p className="text-sm text-soft" id="policy">
        House rule: is 3.3 V into a 5 V input all right?
      </p>
      <Radios
        labelledBy="policy"
        inline
        value={now}
        options={POLICIES.map((p) => ({ value: p.id, name: p.says }))}
        onChange={setNow}
      />
    </div>
  );
}

const room = (v: LevelView) => v.ceiling - v.highest_V;

function Pairs({ list, shown, pick }: { list: LevelView[]; shown: LevelView | undefined; pick(id: string): void }) {
  const { light } = useProject();
  const lit = useLit();
  return (
    <Table
      label="Drivers and receivers"
      rows={list}
      rowId={(v) => v.id}
      row={(v) => ({
        className: `cursor-pointer ${v.id === shown?.id || lit.has(v.driver) || lit.has(v.receiver) ? "bg-wash" : ""}`,
        onClick: () => pick(v.id),
        onMouseEnter: () => light([v.driver, v.receiver]),
        onMouseLeave: () => light([]),
      })}
      columns={columnsOf<LevelView>([
        {
          head: "net",
          by: (v) => v.net,
          show: (v) => (
            <Toggle className="quiet text-left" label={v.net} on={v.id === shown?.id} turn={() => pick(v.id)}>
              {v.net}
            </Toggle>
          ),
        },
        { head: "from", by: (v) => v.driver, show: (v) => <Place of={v.driver} />, look: "num" },
        { head: "to", by: (v) => v.receiver, show: (v) => <Place of={v.receiver} />, look: "num" },
        {
          head: "high margin",
          by: (v) => v.marginHigh,
          show: (v) => (v.analog ? "analogue" : margin(v.marginHigh)),
          look: (v) => `num ${tone(v.marginHigh)}`,
        },
        {
          head: "low margin",
          by: (v) => v.marginLow,
          show: (v) => (v.analog ? "" : margin(v.marginLow)),
          look: (v) => `num ${tone(v.marginLow)}`,
        },
        {
          head: "under ceiling",
          by: room,
          show: (v) => volts(room(v)),
          look: (v) => `num ${room(v) < 0 ? "font-bold text-stop" : ""}`,
        },
      ])}
    />
  );
}

/** The supplies that a pair's levels stand on: how the volts come to either part. */
function Behind({ v, ways }: { v: LevelView; ways: PowerView["ways"] }) {
  const refs = [...new Set([v.driver, v.receiver].map((end) => end.split(".")[0]))];
  const mine = refs.flatMap((ref) => ways.find((w) => w.ref === ref) ?? []);
  if (!mine.length) return null;
  return (
    <dl className="text-sm" aria-label="The supplies behind it">
      {mine.map((w) => (
        <div key={w.ref} className="mt-1">
          <dt className="text-soft">{w.label} is fed from</dt>
          <dd>
            <Steps w={w} />
          </dd>
        </div>
      ))}
    </dl>
  );
}

const STATE = { high: "held high", low: "held low", open: "open", own: "its own" } as const;

type BootPin = PowerView["boot"][number];
const wrong = (b: BootPin) => b.wants !== null && (b.state === "high" || b.state === "low") && b.state !== b.wants;
const BOOT_COLUMNS = columnsOf<BootPin>([
  { head: "part", by: (b) => `${b.ref}.${b.pin}`, show: (b) => `${b.ref}.${b.pin}`, look: "num" },
  { head: "pin", by: (b) => `${b.host}.${b.hostPin}`, show: (b) => `${b.host}.${b.hostPin}`, look: "num" },
  {
    head: "sees",
    by: (b) => STATE[b.state],
    show: (b) => STATE[b.state],
    look: (b) => (wrong(b) || (b.matters && b.state === "open") ? "font-bold text-risk" : ""),
  },
  { head: "by", by: (b) => b.by, show: (b) => b.by },
  {
    head: "matters",
    by: (b) => (b.wants ? 0 : b.matters ? 1 : 2),
    show: (b) => (b.wants ? `the chip wants it ${b.wants}` : b.matters ? "must not float" : "no"),
  },
]);
const DEAD_COLUMNS = columnsOf<PowerView["dead"][number]>([
  { head: "off", by: (d) => d.into, show: (d) => d.into },
  { head: "from", by: (d) => d.driver, show: (d) => d.driver, look: "num" },
  { head: "into", by: (d) => d.receiver, show: (d) => d.receiver, look: "num" },
  {
    head: "flows",
    by: (d) => d.into_mA,
    show: (d) => `${d.into_mA.toFixed(0)} mA`,
    look: (d) => `num ${d.into_mA > d.limit_mA ? "font-bold text-risk" : ""}`,
  },
  { head: "stands", by: (d) => d.limit_mA, show: (d) => `${d.limit_mA} mA`, look: "num" },
]);

function Boot({ list }: { list: PowerView["boot"] }) {
  if (!list.length) return null;
  return (
    <section aria-label="While the board starts" className="mt-5">
      <h2 className="text-lg">While the board starts</h2>
      <p className="text-sm text-soft">From power-on until the program sets its pins, this is what each part sees.</p>
      <Table label="While the board starts" rows={list} rowId={(b) => `${b.ref}.${b.pin}`} columns={BOOT_COLUMNS} />
    </section>
  );
}

function Dead({ list }: { list: PowerView["dead"] }) {
  if (!list.length) return null;
  return (
    <section aria-label="While one supply is off" className="mt-5">
      <h2 className="text-lg">While one supply is off</h2>
      <p className="text-sm text-soft">Signals from parts that are on flow into the inputs of parts that are off.</p>
      <Table label="While one supply is off" rows={list} rowId={(d) => d.receiver} columns={DEAD_COLUMNS} />
    </section>
  );
}

/** Every net's margins, the worst first or as planned, one of them as a ladder; and what parts see without power or program. */
export function Levels({ power }: { power: PowerView }) {
  const { view } = useProject();
  const [picked, setPicked] = useState<string | null>(null);
  const [close, setClose] = useKept("close margins", false);
  const worst = [...view.levels].sort((a, b) => worstOf(a) - worstOf(b));
  const list = close ? worst.filter((v) => worstOf(v) < 0.5) : worst;
  const shown = view.levels.find((v) => v.id === picked) ?? worst[0];
  if (!view.levels.length)
    return <p>No driver meets a receiver yet. Once parts are wired, every output is held against every input here.</p>;
  return (
    <>
      <Policy />
      <div className="grid gap-x-8 gap-y-3 2xl:grid-cols-[1fr_400px]">
        <div className="min-w-0">
          <Switch className="text-sm" on={close} turn={setClose}>
            only margins under 0.5 V ({worst.filter((v) => worstOf(v) < 0.5).length})
          </Switch>
          <ScrollArea label="Pairs of driver and receiver" viewport="max-h-[55vh]">
            <Pairs list={list} shown={shown} pick={setPicked} />
          </ScrollArea>
        </div>
        {shown && (
          <figure className="max-2xl:order-first">
            <figcaption>
              <strong>{shown.net}</strong>: what {shown.driver} guarantees
              {HOW[shown.how]}, left; what {shown.receiver} needs, right.
            </figcaption>
            <Ladder v={shown} />
            <Behind v={shown} ways={power.ways} />
          </figure>
        )}
      </div>
      <Dead list={power.dead} />
      <Boot list={power.boot} />
    </>
  );
}
