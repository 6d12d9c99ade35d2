import type { Circuit } from "../../circuit";
import { separateGrounds, type Instance, type Net } from "../../circuit/netlist";
import { formatOhm, formatV } from "../../quantity";
import { findPin, printLine } from "../../parts/catalogue";
import { joinEnd } from "../../project";
import { benchName } from "../names";
import { isSupply } from "./ends";
import type { PhaseId } from "./phases";

/** A stop in the run sheet: what to measure before going on, and whether it stands before or after the wires of its group. */
export interface Checkpoint {
  id: string;
  phase: PhaseId;
  at: string;
  says: string;
  before: boolean;
}

/** So many ends are named; who measures these has the idea. */
const MOST = 8;
const few = (list: readonly string[]) =>
  list.length > MOST ? `${list.slice(0, MOST).join(", ")} and ${list.length - MOST} more` : list.join(", ");

/** What to read on parts whose header nobody has confirmed, before anything is live. */
function unread(c: Circuit): Checkpoint[] {
  return [...c.netlist.expanded.instances.values()].flatMap((i): Checkpoint[] => {
    if (i.inserted || i.reading.confirmed) return [];
    const ends = i.part.pins.filter((p) => p.role === "ground" || p.role.startsWith("supply")).map((p) => p.label);
    const wired = ends.filter((l) =>
      c.netlist.wires.some((w) => [w.from, w.to].some((e) => e.ref === i.ref && e.pin === l)),
    );
    if (!wired.length) return [];
    return [
      {
        id: `check-print-${i.ref}`,
        phase: "source",
        at: i.ref,
        says: `${benchName(i)}, header not confirmed: read what is printed on it. Often ${printLine(i.reading)}; yours may differ. Its wires must end at ${wired.map((l) => `the hole printed ${i.reading.rows.flat().find((h) => h.pin === l)?.printed ?? l}`).join(" and at ")}.`,
        before: true,
      },
    ];
  });
}

const known = new WeakMap<Circuit, Map<Net, string[]>>();

/** The ends of every net that have a wire; worked out once a circuit. */
function allWiredEnds(c: Circuit): Map<Net, string[]> {
  const there = known.get(c);
  if (there) return there;
  const wired = new Set(c.netlist.wires.filter((w) => !w.cable).flatMap((w) => [joinEnd(w.from), joinEnd(w.to)]));
  const ends = new Map(c.netlist.nets.map((n) => [n, n.ends.map(joinEnd).filter((e) => wired.has(e))]));
  known.set(c, ends);
  return ends;
}
const wiredEnds = (c: Circuit, n: Net): string[] => allWiredEnds(c).get(n)!;

/** The end that one probe stays at: the board's, else the first. */
function hubOf(c: Circuit, ends: readonly string[]): string {
  return ends.find((e) => c.netlist.instance(e.split(".")[0]!)?.part.board) ?? ends[0]!;
}

const beeps = (c: Circuit, n: Net): string | null => {
  const ends = wiredEnds(c, n);
  if (ends.length < 2) return null;
  const hub = hubOf(c, ends);
  return `${n.name}: ${hub} beeps with ${few(ends.filter((e) => e !== hub))}.`;
};

function grounds(c: Circuit): string[] {
  const nets = c.netlist.nets.filter((n) => n.kind === "ground" && wiredEnds(c, n).length > 1);
  const apart = separateGrounds(c.netlist);
  const kept = nets.filter((n) => apart.has(n.id));
  return [
    ...nets.flatMap((n) => beeps(c, n) ?? []),
    ...(kept.length > 1
      ? [`${kept.map((n) => n.name).join(" and ")} must not beep with each other: they stay apart.`]
      : []),
  ];
}

function supplies(c: Circuit): string[] {
  const ground = c.netlist.nets.find((n) => n.kind === "ground" && wiredEnds(c, n).length > 1);
  const zero = ground && hubOf(c, wiredEnds(c, ground));
  return c.netlist.nets
    .filter((n) => n.kind === "supply" && wiredEnds(c, n).length > 1)
    .flatMap((n) => {
      const hub = hubOf(c, wiredEnds(c, n));
      return [...(zero ? [`${hub} to ${zero} must not beep (a short chirp is a capacitor).`] : []), beeps(c, n) ?? ""];
    })
    .filter(Boolean);
}

/** Pull-ups of a bus as the meter reads them: all of a line in parallel, through the supply's own parts too. */
function pulls(c: Circuit): string[] {
  return c.netlist.nets.flatMap((n): string[] => {
    if (n.kind !== "bus-line") return [];
    const list = c.netlist.elements.flatMap((e) => {
      const far = e.a === n.id ? e.b : e.b === n.id ? e.a : null;
      const rail = far && c.netlist.nets.find((x) => x.id === far && x.kind === "supply");
      return e.kind === "resistor" && !e.internal && rail ? [{ ohm: e.ohm!, rail }] : [];
    });
    const [first] = list;
    if (!first || list.some((x) => x.rail !== first.rail)) return [];
    const ohm = 1 / list.reduce((s, x) => s + 1 / x.ohm, 0);
    const [a, b] = [hubOf(c, wiredEnds(c, n)), hubOf(c, wiredEnds(c, first.rail))];
    return a && b
      ? [`${n.name}: between ${a} and ${b} the meter reads about ${formatOhm(Number(ohm.toPrecision(2)))}.`]
      : [];
  });
}

/** Pins side by side whose wires belong to different nets: the slip that happens most. */
function neighbours(c: Circuit, kinds: readonly Net["kind"][]): string[] {
  const of = new Map(c.netlist.nets.flatMap((n) => wiredEnds(c, n).map((e) => [e, n] as const)));
  const pairs: string[] = [];
  for (const i of c.netlist.expanded.instances.values()) {
    if (i.inserted || i.part.pins.length < 3) continue;
    const rows = i.part.board
      ? i.part.board.headers.map((h) =>
          i.part.pins.filter((p) => p.at?.header === h.id).sort((a, b) => a.at!.index - b.at!.index),
        )
      : i.reading.rows.map((r) => r.map((h) => (h.pin ? findPin(i.part, h.pin) : undefined)));
    for (const row of rows)
      row.forEach((p, k) => {
        const next = row[k + 1];
        if (!p || !next) return;
        const [a, b] = [of.get(`${i.ref}.${p.label}`), of.get(`${i.ref}.${next.label}`)];
        // Of two supplies side by side the supply's own check speaks.
        if (!a || !b || a === b || !(kinds.includes(a.kind) || kinds.includes(b.kind))) return;
        const joined = c.netlist.elements.some(
          (e) => e.kind === "contact" && [e.a, e.b].includes(a.id) && [e.a, e.b].includes(b.id),
        );
        if (!joined) pairs.push(`${i.ref}.${p.label} and ${next.label}`);
      });
  }
  return pairs.length ? [`Neighbours that must not beep: ${few(pairs)}.`] : [];
}

/** Cells: nobody can switch them off, with their last wire the build is live. */
export const staysOn = (i: Instance | undefined): boolean =>
  i !== undefined && isSupply(i) && Object.values(i.part.supplies).some((s) => s.source?.capacity_mAh !== undefined);

function sources(c: Circuit): Checkpoint[] {
  return [...c.netlist.expanded.instances.values()].flatMap((i): Checkpoint[] => {
    const pin = i.part.pins.find((p) => p.role === "supply-out");
    const V = pin && c.netlist.netOf(`${i.ref}.${pin.label}`).V;
    const wired = pin && c.netlist.wires.some((w) => !w.cable && [w.from, w.to].some((e) => e.ref === i.ref));
    if (!isSupply(i) || !pin || !V || !wired) return [];
    const late = staysOn(i) ? " It can't be switched off: it is joined last of all." : "";
    return [
      {
        id: `check-${i.ref}`,
        phase: "source",
        at: i.ref,
        says: `${benchName(i)} alone, before it is joined: the meter shows ${formatV(V.min)} to ${formatV(V.max)}, plus at ${i.ref}.${pin.label}.${late}`,
        before: true,
      },
    ];
  });
}

/**
 * Where the run sheet stops to measure: after each group what must beep and what must not, before the sources what must be
 * sure before anything is live, and each source by itself before it is joined.
 */
export function checkpoints(c: Circuit, phases: ReadonlySet<PhaseId>): Checkpoint[] {
  const after = (phase: PhaseId, list: string[]): Checkpoint[] =>
    phases.has(phase) && list.length
      ? [
          {
            id: `check-${phase}`,
            phase,
            at: "everything",
            says: `Checkpoint, with the meter: ${list.join(" ")}`,
            before: false,
          },
        ]
      : [];
  const shorts = supplies(c).filter((s) => s.includes("must not beep"));
  return [
    ...after("ground", grounds(c)),
    ...after("supply", supplies(c)),
    ...after("bus", [...pulls(c), ...neighbours(c, ["bus-line"])]),
    ...after("signal", neighbours(c, ["signal"])),
    ...after("load", shorts),
    ...(phases.has("source") ? unread(c) : []),
    ...(phases.has("source") && shorts.length
      ? [
          {
            id: "check-before-power",
            phase: "source" as const,
            at: "everything",
            says: `Before any source is joined: ${shorts.join(" ")} Every check before power is done.`,
            before: true,
          },
        ]
      : []),
    ...sources(c),
  ];
}
