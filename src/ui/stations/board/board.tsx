"use client";
import { useKept } from "@/ui/state/kept";
import { Tabs } from "@/ui/shared/tabs";
import type { ColumnDef } from "@tanstack/react-table";
import { useEffect, useMemo, useRef, useState } from "react";
import { toast } from "sonner";
import { Glossed } from "@/ui/shared/glossed";
import { later } from "@/ui/shared/later";
import { Table } from "@/ui/shared/table";
import { StationTitle } from "@/ui/shared/title";
import { asItComes } from "@/ui/state/as-it-comes";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";
import { nextJob } from "../pins/job";
import { PRICE, usbWords, type Trial } from "./words";
import { Checkbox } from "@/ui/shared/checkbox";
import { Hidden } from "@/ui/shared/hidden";

const SideBySide = later(() => import("./compare").then((m) => m.SideBySide));
const SavingPins = later(() => import("./saving").then((m) => m.SavingPins));

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

const mA = (A: number) => (A < 1 ? `${Math.round(A * 1000)} mA` : `${A.toFixed(2)} A`);

/** Why a board does not fit, or what it takes, in a few words; the whole sentence is in the details. */
function fitShort(t: Trial): string {
  if (!t.fits) return "the pins do not fit";
  if (t.lacks.length) return t.lacks[0]!;
  if (t.unfed.length) return `nothing feeds ${t.unfed[0]}`;
  return "fits";
}

const SEVERITY_RANK = { fine: 0, risk: 1, fault: 2, stop: 3 } as const;
const share = (t: Trial) => (t.supply.tightest ? t.supply.tightest.peak_A / t.supply.tightest.limit_A : -1);

/** What a row opens to: everything that one line has no room for. */
function Details({ t }: { t: Trial }) {
  return (
    <div className="grid gap-x-8 gap-y-1 py-1 text-sm lg:grid-cols-2">
      <p className="lg:col-span-2">
        {t.V} V, {usbWords(t.usb)}, {t.radio.length ? `${t.radio.join(" and ")}, ` : ""}
        {t.ram_kB >= 1024 ? `${Math.round(t.ram_kB / 1024)} MB` : `${t.ram_kB} kB`} memory, {t.mm[0]} × {t.mm[1]} mm
        {t.solder ? ", headers to solder" : ""}, {PRICE[t.price]}
      </p>
      <p className={t.fits && !t.lacks.length ? "" : "text-fault"}>
        <span className="text-soft">Pins: </span>
        <Glossed text={t.why} />
      </p>
      {t.fits && (
        <>
          <p className={t.supply.severity === "fine" ? "" : "text-fault"}>
            <span className="text-soft">Supply: </span>
            {t.supply.severity === "fine" && t.supply.tightest
              ? `${t.supply.tightest.says}: ${mA(t.supply.tightest.peak_A)} at peak of ${mA(t.supply.tightest.limit_A)}`
              : t.supply.says}
          </p>
          <p>
            <span className="text-soft">Left: </span>
            {t.left
              .filter((l) => l.pins.length)
              .map((l) => `${l.pins.length} ${l.name}`)
              .join(", ") || "nothing"}
          </p>
          <p>
            <span className="text-soft">Levels: </span>
            {t.shifters === 0
              ? "every signal as it is"
              : [t.overdriven && `${t.overdriven} too high`, t.short && `${t.short} too low`]
                  .filter(Boolean)
                  .join(", ")}
          </p>
        </>
      )}
    </div>
  );
}

const columns = (o: {
  marked: readonly string[];
  mark(id: string): void;
  use(id: string): void;
}): ColumnDef<Trial>[] => [
  {
    id: "compare",
    header: () => <Hidden>Compare</Hidden>,
    enableSorting: false,
    cell: ({ row: { original: t } }) => (
      <Checkbox label={`Compare ${t.name}`} checked={o.marked.includes(t.board)} onChange={() => o.mark(t.board)} />
    ),
  },
  {
    header: "Board",
    accessorKey: "name",
    cell: ({ row: { original: t } }) => (
      <>
        <strong className="sm:inline-block sm:min-w-44">{t.name}</strong>
        {(t.current || t.owned) && (
          <span className="ml-2 text-sm text-accent">
            {[t.current && "in use", t.owned && "in your drawer"].filter(Boolean).join(", ")}
          </span>
        )}
      </>
    ),
  },
  {
    header: "Does it fit?",
    accessorFn: (t) => Number(t.fits && !t.lacks.length),
    sortDescFirst: true,
    cell: ({ row: { original: t } }) => (
      <span className={t.fits && !t.lacks.length && !t.unfed.length ? "" : "text-fault"}>{fitShort(t)}</span>
    ),
  },
  {
    header: "Pins left",
    accessorFn: (t) => (t.fits ? t.spare : -1),
    sortDescFirst: true,
    meta: { className: "num text-right" },
    cell: ({ row: { original: t } }) => (t.fits ? t.spare : "–"),
  },
  {
    header: "Supply",
    accessorFn: (t) => (t.fits ? SEVERITY_RANK[t.supply.severity] * 10 + share(t) : 99),
    cell: ({ row: { original: t } }) =>
      !t.fits || !t.supply.tightest ? (
        "–"
      ) : (
        <span className={`whitespace-nowrap ${t.supply.severity === "fine" ? "" : "text-fault"}`}>
          <span className="num">{Math.round(share(t) * 100)} %</span>
          {t.supply.severity !== "fine" && <strong className="ml-2">{t.supply.severity}</strong>}
        </span>
      ),
  },
  {
    header: "Levels",
    accessorFn: (t) => (t.fits ? t.shifters : 99),
    cell: ({ row: { original: t } }) => (!t.fits ? "–" : t.shifters === 0 ? "fine" : `${t.shifters} to change`),
  },
  {
    header: "Program",
    accessorFn: (t) => t.targets.length,
    sortDescFirst: true,
    cell: ({ row: { original: t } }) => (
      <span className="whitespace-nowrap">{t.targets.length ? "written" : "your own"}</span>
    ),
  },
  {
    id: "use",
    header: () => <Hidden>Choose</Hidden>,
    enableSorting: false,
    meta: { className: "text-right" },
    cell: ({ row: { original: t } }) =>
      t.current ? null : (
        <button className="btn" onClick={() => o.use(t.board)} aria-label={`Use this board: ${t.name}`}>
          Use
        </button>
      ),
  },
];

const NOTHING: ReadonlySet<string> = new Set();
const AFTER_PRESS_ms = 300;

/** Every board tried for this parts list, by the same solver that plans the pins. */
function Trials() {
  const { project, run } = useProject();
  const [trials, setTrials] = useState<Trial[] | null>(null);
  const [done, setDone] = useState(false);
  const [asked, setAsked] = useKept<ReadonlySet<string>>("board asked", NOTHING);
  const [marked, setMarked] = useKept<string[]>("board marked", []);
  const [comparing, setComparing] = useState(false);
  const [held, setHeld] = useState<Trial[] | null>(null);
  const release = useRef<ReturnType<typeof setTimeout>>(undefined);
  // The list sorts itself while boards are tried: not under a finger that is pressing. What comes meanwhile is taken in
  // after the click, which a touch sends a moment after it lifts.
  const hold = () => {
    clearTimeout(release.current);
    setHeld((h) => h ?? trials);
  };
  useEffect(() => {
    const up = () => {
      clearTimeout(release.current);
      release.current = setTimeout(() => setHeld(null), AFTER_PRESS_ms);
    };
    window.addEventListener("pointerup", up);
    window.addEventListener("pointercancel", up);
    return () => {
      clearTimeout(release.current);
      window.removeEventListener("pointerup", up);
      window.removeEventListener("pointercancel", up);
    };
  }, []);
  useEffect(() => {
    let gone = false;
    const job = nextJob();
    setDone(false);
    void asItComes<Trial[]>(
      (sofar) => core().boards(project, job, sofar),
      (t) => {
        if (!gone) setTrials(t);
      },
    ).then(() => {
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
    () => (held ?? trials)?.filter((t) => ASKS.every((a) => !asked.has(a.id) || a.test(t))) ?? [],
    [held, trials, asked],
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
        <legend>
          <Hidden>It must have</Hidden>
        </legend>
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
      <div className="mt-2" onPointerDownCapture={hold}>
        <Table
          label="Boards"
          columns={columns({ marked, mark, use })}
          rows={shown}
          rowId={(t) => t.board}
          testId={(t) => `trial-${t.board}`}
          open={{ says: (t) => `More about ${t.name}`, show: (t) => <Details t={t} /> }}
        />
      </div>
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
  const [tab, setTab] = useKept<(typeof TABS)[number]["id"]>("board tab", "boards");
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
