"use client";
import { Tabs } from "@/ui/shared/tabs";
import { proxy } from "comlink";
import { useEffect, useMemo, useState } from "react";
import { toast } from "sonner";
import { StationTitle } from "@/ui/shared/title";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";
import { nextJob } from "../pins/job";
import { SideBySide } from "./compare";
import { SavingPins } from "./saving";
import { PRICE, usbWords, type Trial } from "./words";
import { Checkbox } from "@/ui/shared/checkbox";

/** Questions that people ask before they buy: each narrows the list. */
const ASKS: { id: string; name: string; test(t: Trial): boolean }[] = [
  { id: "fits", name: "the pins fit", test: (t) => t.fits && !t.lacks.length },
  { id: "mine", name: "in my drawer", test: (t) => t.owned || t.current },
  { id: "usb", name: "native USB (keyboard, MIDI, joystick)", test: (t) => t.usb === "native" },
  { id: "radio", name: "radio", test: (t) => t.radio.length > 0 },
  { id: "five", name: "5 V logic", test: (t) => t.V > 4 },
  { id: "three", name: "3.3 V logic", test: (t) => t.V < 4 },
  { id: "nosolder", name: "no soldering", test: (t) => !t.solder },
  { id: "bread", name: "sits on a breadboard", test: (t) => t.breadboard },
  { id: "code", name: "we write its program", test: (t) => t.targets.length > 0 },
];

const left = (t: Trial, can: string) => t.left.find((l) => l.can === can)?.pins.length ?? 0;

function Row({ t, marked, mark, use }: { t: Trial; marked: boolean; mark(): void; use(): void }) {
  const fine = t.fits && !t.lacks.length;
  return (
    <tr data-testid={`trial-${t.board}`}>
      <td>
        <Checkbox label={`Compare ${t.name}`} checked={marked} onChange={mark} />
      </td>
      <td className="min-w-80">
        <strong>{t.name}</strong>
        {(t.current || t.owned) && (
          <span className="ml-2 text-accent">
            {[t.current && "in use", t.owned && "in your drawer"].filter(Boolean).join(", ")}
          </span>
        )}
        <span className="block text-sm text-soft">
          {t.V} V, {usbWords(t.usb)}, {t.radio.length ? `${t.radio.join(" and ")}, ` : ""}
          {t.ram_kB >= 1024 ? `${Math.round(t.ram_kB / 1024)} MB` : `${t.ram_kB} kB`} memory, {t.mm[0]} × {t.mm[1]} mm
          {t.solder ? ", headers to solder" : ""}, {PRICE[t.price]}
        </span>
      </td>
      <td className={fine ? "" : "text-fault"}>{t.why}</td>
      <td className="num">
        {t.fits ? (
          <>
            {t.spare}
            <span className="block font-sans text-sm text-soft">
              {left(t, "adc")} analogue, {left(t, "pwm")} PWM
            </span>
          </>
        ) : (
          "–"
        )}
      </td>
      <td>
        {!t.fits ? "–" : t.shifters === 0 ? "fine" : `${t.shifters} to change`}
        {t.fits && t.shifters > 0 && (
          <span className="block text-sm text-soft">
            {[t.overdriven && `${t.overdriven} too high`, t.short && `${t.short} too low`].filter(Boolean).join(", ")}
          </span>
        )}
      </td>
      <td className={t.supply.severity === "fine" ? "" : "text-fault"}>
        {!t.fits ? (
          "–"
        ) : t.supply.severity === "fine" ? (
          "holds"
        ) : (
          <>
            <strong>{t.supply.severity}</strong>
            <span className="block max-w-52 text-sm">{t.supply.says}</span>
          </>
        )}
      </td>
      <td className="text-right">
        {!t.current && (
          <button className="btn" onClick={use} aria-label={`Use this board: ${t.name}`}>
            Use
          </button>
        )}
      </td>
    </tr>
  );
}

/** Every board tried for this parts list, by the same solver that plans the pins. */
function Trials() {
  const { project, run } = useProject();
  const [trials, setTrials] = useState<Trial[] | null>(null);
  const [done, setDone] = useState(false);
  const [asked, setAsked] = useState<ReadonlySet<string>>(new Set());
  const [marked, setMarked] = useState<string[]>([]);
  const [comparing, setComparing] = useState(false);
  useEffect(() => {
    let gone = false;
    const job = nextJob();
    setDone(false);
    const show = (t: Trial[]) => {
      if (!gone) setTrials(t);
    };
    void core()
      .boards(project, job, proxy(show))
      .then((t) => {
        show(t);
        if (!gone) setDone(true);
      });
    return () => {
      gone = true;
      void core().drop(job);
    };
  }, [project]);
  const use = (id: string) =>
    void run(async (p) => {
      const s = await core().board(p, id);
      if (s.clash) toast.error(`The pins do not fit on this board: ${s.clash}`, { duration: 12_000 });
      else if (s.leftOpen) toast.warning(s.leftOpen, { duration: 20_000 });
      return s;
    });
  const shown = useMemo(
    () => trials?.filter((t) => ASKS.every((a) => !asked.has(a.id) || a.test(t))) ?? [],
    [trials, asked],
  );
  const ask = (id: string) => {
    const next = new Set(asked);
    if (!next.delete(id)) next.add(id);
    setAsked(next);
  };
  const mark = (id: string) => setMarked((m) => (m.includes(id) ? m.filter((x) => x !== id) : [...m, id].slice(-2)));
  const pair = marked.flatMap((id) => trials?.find((t) => t.board === id) ?? []);
  return (
    <>
      <fieldset className="mt-3 flex flex-wrap gap-x-4 gap-y-1 text-sm">
        <legend className="sr-only">It must have</legend>
        <span className="text-soft">It must have:</span>
        {ASKS.map((a) => (
          <Checkbox key={a.id} checked={asked.has(a.id)} onChange={() => ask(a.id)}>
            {a.name}
            {trials && <span className="num text-soft">{trials.filter((t) => a.test(t)).length}</span>}
          </Checkbox>
        ))}
        <button className="btn ml-auto" disabled={pair.length !== 2} onClick={() => setComparing(true)}>
          Compare two
        </button>
      </fieldset>
      <table className="plain mt-2">
        <thead>
          <tr>
            <th>
              <span className="sr-only">Compare</span>
            </th>
            <th>Board</th>
            <th>Does it fit?</th>
            <th>Pins left</th>
            <th>Levels</th>
            <th>Supply</th>
            <th>
              <span className="sr-only">Choose</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {shown.map((t) => (
            <Row
              key={t.board}
              t={t}
              marked={marked.includes(t.board)}
              mark={() => mark(t.board)}
              use={() => use(t.board)}
            />
          ))}
        </tbody>
      </table>
      {!done && (
        <p className="mt-2 text-soft" role="status">
          Trying every board…{trials ? ` ${trials.length} done` : ""}
        </p>
      )}
      {done && !shown.length && <p className="mt-2">No board has all of that. Take one of the wishes off.</p>}
      <p className="mt-4 max-w-2xl text-soft">
        Changing the board keeps the parts and their options. Wires to the old board are planned anew; undo brings
        everything back.
      </p>
      {comparing && pair.length === 2 && (
        <SideBySide a={pair[0]!} b={pair[1]!} close={() => setComparing(false)} use={use} />
      )}
    </>
  );
}

const TABS = [
  { id: "boards", name: "Boards" },
  { id: "saving", name: "Saving pins" },
] as const;

/** Board: which board fits, and how to get by with fewer pins. */
export function Board() {
  const { project } = useProject();
  const [tab, setTab] = useState<(typeof TABS)[number]["id"]>("boards");
  return (
    <>
      <StationTitle
        name="Board"
        says={
          tab === "boards"
            ? `Each board was really planned with this parts list. Best first${!project.brief.iron ? "; without a soldering iron, those that come soldered before the others" : project.brief.stage === "prototype" ? "; for a prototype, soldered headers before loose ones" : ""}.`
            : "Many lights, keys, digits or sensors with fewer pins: what each way costs and gives."
        }
      ></StationTitle>
      <Tabs<(typeof TABS)[number]["id"]> label="Board" tabs={TABS} tab={tab} go={setTab}>
        {tab === "boards" ? <Trials /> : <SavingPins />}
      </Tabs>
    </>
  );
}
