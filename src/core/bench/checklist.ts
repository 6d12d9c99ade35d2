import type { Circuit } from "../circuit";
import { houseRule } from "../project";

/** One thing to measure: between which points, what a sound build shows, and when. */
export interface CheckItem {
  id: string;
  when: "before power" | "after power";
  what: string;
  from: string;
  to: string;
  low: number | null;
  high: number | null;
  unit: "Ω" | "V" | "mA";
  why: string;
}

/** Longer than a wire and its contacts, shorter than anything that is a part: a meter in beep mode sounds. */
const BEEP_OHM = 5;
const SHORT_OHM = 100;

const r = (v: number) => Number(v.toFixed(2));

function continuity(c: Circuit): CheckItem[] {
  const touched = new Set(c.netlist.wires.flatMap((w) => [`${w.from.ref}.${w.from.pin}`, `${w.to.ref}.${w.to.pin}`]));
  return c.netlist.nets.flatMap((n): CheckItem[] => {
    const ends = n.ends.map((e) => `${e.ref}.${e.pin}`).filter((e) => touched.has(e));
    if (ends.length < 2) return [];
    const hub = ends.find((e) => c.netlist.expanded.hosts.some((h) => e.startsWith(`${h}.`))) ?? ends[0]!;
    return ends
      .filter((e) => e !== hub)
      .map((e) => ({
        id: `beep ${hub} ${e}`,
        when: "before power",
        what: `${n.name} beeps`,
        from: hub,
        to: e,
        low: 0,
        high: BEEP_OHM,
        unit: "Ω",
        why: "the wire is there and makes contact at both ends",
      }));
  });
}

function noShorts(c: Circuit): CheckItem[] {
  const end = (net: { ends: { ref: string; pin: string }[] }) => net.ends[0] && `${net.ends[0].ref}.${net.ends[0].pin}`;
  const grounds = c.netlist.nets.filter((n) => n.kind === "ground" && n.ends.length > 1);
  const ground = grounds[0] && end(grounds[0]);
  if (!ground) return [];
  return c.netlist.nets.flatMap((n): CheckItem[] => {
    const at = end(n);
    if (n.kind !== "supply" || !n.V || !at) return [];
    return [
      {
        id: `short ${n.name}`,
        when: "before power",
        what: `${n.name} to GND must not beep`,
        from: at,
        to: ground,
        low: SHORT_OHM,
        high: null,
        unit: "Ω",
        why: "a short here burns wires or the supply; capacitors may beep for a moment while they charge",
      },
    ];
  });
}

function rails(c: Circuit): CheckItem[] {
  const ground = c.netlist.nets.find((n) => n.kind === "ground" && n.ends.length > 1)?.ends[0];
  if (!ground) return [];
  return c.netlist.nets.flatMap((n): CheckItem[] => {
    const at = n.ends[0];
    if (n.kind !== "supply" || !n.V || !at || n.ends.length < 1) return [];
    return [
      {
        id: `volts ${n.name}`,
        when: "after power",
        what: `${n.name} reads`,
        from: `${at.ref}.${at.pin}`,
        to: `${ground.ref}.${ground.pin}`,
        low: r(n.V.min),
        high: r(n.V.max),
        unit: "V",
        why: "the rail is inside its tolerance",
      },
    ];
  });
}

function idleLevels(c: Circuit): CheckItem[] {
  const seen = new Set<string>();
  return c.levels.flatMap((v): CheckItem[] => {
    const at = `${v.receiver.ref}.${v.receiver.pin}`;
    if (v.driver.how !== "pull-up" || seen.has(v.net.name)) return [];
    seen.add(v.net.name);
    return [
      {
        id: `idle ${v.net.name}`,
        when: "after power",
        what: `${v.net.name} idles high`,
        from: at,
        to: "GND",
        low: r(v.high_V * 0.95),
        high: r(v.highest_V),
        unit: "V",
        why: "the pull-ups hold the line while nobody talks",
      },
    ];
  });
}

function supplyCurrent(c: Circuit): CheckItem[] {
  return c.power.limits
    .filter((l) => l.kind === "source" && l.flow.peak > 0)
    .map((l) => ({
      id: `current ${l.ref}`,
      when: "after power",
      what: `${l.ref} delivers`,
      from: l.ref,
      to: "",
      low: r(l.flow.idle * 1000 * 0.3),
      high: r(l.flow.peak * 1000 * 1.2),
      unit: "mA",
      why: "far less: something is not connected; far more: unplug at once and look for a short",
    }));
}

function contacts(c: Circuit): CheckItem[] {
  return c.netlist.elements
    .filter((e) => e.kind === "contact")
    .map((e) => {
      const pins = c.netlist.instance(e.ref)!.part.pins;
      const back = houseRule(c.project, "buttonPull") === "external-down" ? "the supply" : "ground";
      return {
        id: `press ${e.ref}`,
        when: "before power",
        what: `${c.netlist.instance(e.ref)!.label} beeps only while pressed`,
        from: `${e.ref}.${pins[0]!.label}`,
        to: `${e.ref}.${pins[1]!.label}`,
        low: 0,
        high: BEEP_OHM,
        unit: "Ω",
        why: `the contact closes to ${back}; it must be open at rest`,
      };
    });
}

/** Everything to measure at the bench, before power and after, with what a sound build shows. */
export function checklist(c: Circuit): CheckItem[] {
  return [...continuity(c), ...contacts(c), ...noShorts(c), ...rails(c), ...idleLevels(c), ...supplyCurrent(c)];
}

export type Reading = { ok: true; value: number } | { ok: false; message: string };

const PREFIX: Record<string, number> = { k: 1e3, M: 1e6, m: 1e-3, µ: 1e-6, u: 1e-6, "": 1 };

/**
 * Reads a meter's display as typed: `3.28`, `3,28 V`, `12k`, `0.08 A`, `OL` (over limit: no connection). A bare number is
 * in the unit that the check asks for.
 */
export function parseReading(text: string, unit: CheckItem["unit"]): Reading {
  const t = text.trim();
  if (unit === "Ω" && /^(ol|o\.l|overload|inf|∞|open)$/i.test(t)) return { ok: true, value: Infinity };
  const m = /^([+-]?\d+(?:[.,]\d+)?)\s*([kMmµu]?)\s*(V|A|Ω|ohms?)?$/.exec(t);
  if (!m) return { ok: false, message: `"${text}" is not a reading; type it as the meter shows it, like 3.28 or OL` };
  const bare = Number(m[1]!.replace(",", "."));
  const value = bare * PREFIX[m[2]!]!;
  if (unit === "mA") return { ok: true, value: m[2] || m[3] ? value * 1000 : bare };
  return { ok: true, value };
}

/** Whether a reading is what a sound build shows. */
export function judgeReading(item: CheckItem, value: number): boolean {
  return (item.low === null || value >= item.low) && (item.high === null || value <= item.high);
}
