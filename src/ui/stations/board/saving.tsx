"use client";
import { useEffect, useState } from "react";
import { toast } from "sonner";
import type { Alike, Saving, Want } from "@/core/plan/savings";
import { columnsOf, Table } from "@/ui/shared/table";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";
import { Ghosts } from "./ghosts";
import { Select } from "@/ui/shared/select";
import { Tip } from "@/ui/shared/tip";
import { Label } from "@/ui/shared/label";
import { Hidden } from "@/ui/shared/hidden";

const WANTS: { id: Want; name: string }[] = [
  { id: "lights", name: "lights (LEDs)" },
  { id: "keys", name: "keys and contacts" },
  { id: "digits", name: "seven-segment digits" },
  { id: "sensors", name: "analogue sensors" },
];
const MOST = 256;

const percent = (x: number | null) => (x === null ? "" : `${Math.round(x * 100)} %`);
const rate = (hz: number | null) =>
  hz === null
    ? ""
    : hz >= 10_000
      ? `${Math.round(hz / 1000)} kHz`
      : hz >= 1000
        ? `${(hz / 1000).toFixed(1)} kHz`
        : `${Math.round(hz)} Hz`;
const parts = (s: Saving) => s.parts.map((p) => `${p.count} × ${p.name}`).join(", ") || "–";

function NumberField(o: { says: string; value: string; wrong: boolean; set(text: string): void }) {
  return (
    <Label>
      <span className="block text-sm text-soft">{o.says}</span>
      <input
        className="num w-20"
        inputMode="decimal"
        value={o.value}
        aria-invalid={o.wrong}
        onChange={(e) => o.set(e.target.value)}
      />
    </Label>
  );
}

const wayColumns = (lit: boolean, put: ((s: Saving) => void) | null) =>
  columnsOf<Saving>([
    {
      head: "Way",
      by: (s) => s.name,
      look: "min-w-80",
      show: (s) => (
        <>
          <strong>{s.name}</strong>
          <span className="block text-sm text-soft">
            {s.says}. Program: {s.code}
          </span>
          {s.minds.map((m) => (
            <span key={m} className="block text-sm text-risk">
              Mind: {m}
            </span>
          ))}
        </>
      ),
    },
    { head: "Pins", by: (s) => s.pins, show: (s) => s.pins, look: "num text-right text-lg font-bold" },
    { head: "Parts", show: parts, look: "text-sm" },
    { head: "Wires", by: (s) => s.wires, show: (s) => s.wires, look: "num text-right" },
    {
      head: (
        <Tip says="Every lead of every part, and both ends of every wire.">
          <span>Joints</span>
        </Tip>
      ),
      by: (s) => s.joints,
      show: (s) => s.joints,
      look: "num text-right",
    },
    lit && {
      head: "Brightness",
      by: (s) => s.brightness ?? 0,
      look: "num text-right",
      show: (s) => (
        <>
          {percent(s.brightness)}
          <span className="block text-sm text-soft">
            {s.duty !== null && s.duty < 1 ? `on 1/${Math.round(1 / s.duty)}` : ""}
          </span>
        </>
      ),
    },
    {
      head: lit ? "Refresh" : "Read",
      by: (s) => s.refresh_Hz ?? 0,
      show: (s) => rate(s.refresh_Hz),
      look: "num text-right",
    },
    {
      head: <Hidden>Put in</Hidden>,
      look: "text-right",
      show: (s) =>
        put &&
        s.builds && (
          <button className="btn" onClick={() => put(s)} aria-label={`Put it in: ${s.name}`}>
            Put it in
          </button>
        ),
    },
  ]);

/** Which pair of lines is which key or light, for the grids that are in the project. */
function Addresses() {
  const { view } = useProject();
  return view.addresses.map((g) => (
    <section key={g.ref} aria-label={`Addresses of ${g.name}`} className="mt-4 border-t border-ink pt-2">
      <h2 className="font-bold">
        Addresses of {g.name} ({g.ref})
      </h2>
      <p className="text-sm text-soft">Wiring, printed plan and program all use this table.</p>
      <ul className="mt-1 columns-3 gap-6 text-sm">
        {g.rows.map((r) => (
          <li key={r.name + r.a + r.b} className="flex justify-between gap-2 border-b border-line">
            <span className="truncate">{r.name}</span>
            <span className="num">
              {r.a} {r.b} <span className="text-soft">{r.pins}</span>
            </span>
          </li>
        ))}
      </ul>
    </section>
  ));
}

/** Saving pins: a calculator over every way to connect many alike things, and a remedy for the project. */
export function SavingPins() {
  const { project, run } = useProject();
  const [groups, setGroups] = useState<Alike[]>([]);
  const [facts, setFacts] = useState({ V: 5, pin_A: 0.02 });
  const [picked, setPicked] = useState<string | null>(null);
  const [want, setWant] = useState<Want>("lights");
  const [n, setN] = useState("20");
  const [mA, setMA] = useState("8");
  const [ways, setWays] = useState<Saving[]>([]);
  useEffect(() => {
    let gone = false;
    void core()
      .alike(project)
      .then((r) => {
        if (gone) return;
        setGroups(r.groups);
        setFacts({ V: r.V, pin_A: r.pin_A });
        setPicked((p) => (r.groups.some((g) => g.part === p) ? p : (r.groups[0]?.part ?? null)));
      });
    return () => {
      gone = true;
    };
  }, [project]);
  const group = groups.find((g) => g.part === picked);
  const count = Number(n);
  const current = Number(mA.replace(",", "."));
  const wrong = !group && (!Number.isInteger(count) || count < 1 || count > MOST);
  const wrongCurrent = !group && want === "lights" && !(current > 0 && current <= 100);
  useEffect(() => {
    if (wrong || wrongCurrent) return;
    let gone = false;
    void core()
      .savings(group?.ask ?? { want, n: count, I: current / 1000, ...facts })
      .then((w) => !gone && setWays(w));
    return () => {
      gone = true;
    };
  }, [group, want, count, current, facts, wrong, wrongCurrent]);
  const put = (s: Saving) =>
    void run(async (p) => {
      if (p !== project || !group) return null;
      const r = await core().save(p, group, s.id);
      if (!r.ok) {
        toast.error(`It does not fit: ${r.why}`);
        return null;
      }
      toast(r.step.says);
      return r.step;
    });
  const kind = group?.want ?? want;
  const lit = kind === "lights" || kind === "digits";
  return (
    <section aria-label="Saving pins" className="mt-3">
      <div className="flex flex-wrap items-end gap-x-5 gap-y-2">
        <Label>
          <span className="block text-sm text-soft">What takes the pins?</span>
          <Select
            label="What takes the pins?"
            value={picked ?? ""}
            options={[
              ...groups.map((g) => ({ value: g.part, name: `${g.refs.length} × ${g.name}, in this project` })),
              { value: "", name: "something else: just the sums" },
            ]}
            onChange={(v) => setPicked(v || null)}
          />
        </Label>
        {!group && (
          <>
            <NumberField says="How many" value={n} wrong={wrong} set={setN} />
            <Label>
              <span className="block text-sm text-soft">of what</span>
              <Select<Want>
                label="of what"
                value={want}
                options={WANTS.map((w) => ({ value: w.id, name: w.name }))}
                onChange={setWant}
              />
            </Label>
            {(want === "lights" || want === "digits") && (
              <NumberField says="Current of one light, mA" value={mA} wrong={wrongCurrent} set={setMA} />
            )}
          </>
        )}
        <p className="text-sm text-soft">
          Sums for {facts.V} V logic and {Math.round(facts.pin_A * 1000)} mA that a board pin likes.
        </p>
      </div>
      {(wrong || wrongCurrent) && (
        <p role="alert" className="mt-2 text-fault">
          {wrong ? `A whole number from 1 to ${MOST}, please.` : "A current from above 0 to 100 mA, please."}
        </p>
      )}
      <Table
        label="Ways"
        className="mt-3"
        rows={ways}
        rowId={(s) => s.id}
        testId={(s) => `way-${s.id}`}
        columns={wayColumns(lit, group ? put : null)}
      />
      {kind === "keys" && <Ghosts />}
      <Addresses />
    </section>
  );
}
