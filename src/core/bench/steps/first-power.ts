import { circuitOf, type Circuit } from "../../circuit";
import { findPin } from "../../parts/catalogue";
import type { PowerLimit } from "../../circuit/power";
import { count } from "../../quantity/count";
import { splitEnd } from "../../project";
import { keyOf, type Question } from "../reason/questions";
import { groundOfEnd } from "./before-power";
import type { CheckItem } from "./types";

const r = (v: number) => Number(v.toFixed(2));

/** A source that has free ends is measured by itself, before it is joined to anything. */
function polarity(c: Circuit): CheckItem[] {
  return [...c.netlist.expanded.instances.values()].flatMap((inst): CheckItem[] => {
    const plus = inst.part.pins.find((p) => p.role === "supply-out" && inst.part.supplies[p.supply!]?.source);
    const end = plus && `${inst.ref}.${plus.label}`;
    const ground = end && groundOfEnd(c, end);
    const wired =
      end && c.netlist.wires.some((w) => !w.cable && [w.from, w.to].some((e) => `${e.ref}.${e.pin}` === end));
    const net = end && c.netlist.netOf(end);
    if (!end || !ground || !wired || !net || !net.V || inst.part.board) return [];
    const q: Question = { kind: "volt", a: end, b: ground };
    return [
      {
        id: keyOf(q),
        when: "first power",
        what: `${inst.label} gives plus at ${plus.label}`,
        from: end,
        to: ground,
        low: r(net.V.min),
        high: r(net.V.max),
        word: null,
        unit: "V",
        why: "red probe first, with its wire to the rest still off: a minus sign means that it is the wrong way round",
        q,
      },
    ];
  });
}

/** One reading a rail: at the part that is farthest from where it comes, against that part's own ground. */
function rails(c: Circuit, done: ReadonlySet<string>): CheckItem[] {
  return c.netlist.nets.flatMap((n): CheckItem[] => {
    if (n.kind !== "supply" || !n.V) return [];
    const ends = n.ends.filter((e) => {
      const def = findPin(c.netlist.instance(e.ref)!.part, e.pin);
      return def?.role.startsWith("supply-") && groundOfEnd(c, `${e.ref}.${e.pin}`);
    });
    const far = ends.filter((e) => !c.netlist.instance(e.ref)!.part.board && e.as === "sink").at(-1) ?? ends[0];
    const at = far && `${far.ref}.${far.pin}`;
    const ground = at && groundOfEnd(c, at);
    // What stands on another ground is measured at another part: never across an isolation.
    if (!at || !ground || !c.netlist.netOf(ground).ends.length) return [];
    const q: Question = { kind: "volt", a: at, b: ground };
    if (done.has(keyOf(q))) return [];
    return [
      {
        id: keyOf(q),
        when: "first power",
        what: `${n.name} reads at ${splitEnd(at).ref}`,
        from: at,
        to: ground,
        low: r(n.V.min),
        high: r(n.V.max),
        word: null,
        unit: "V",
        why: "the rail arrives, and with the right volts",
        q,
      },
    ];
  });
}

function idleLevels(c: Circuit): CheckItem[] {
  const seen = new Set<string>();
  return c.levels.flatMap((v): CheckItem[] => {
    if (v.driver.how !== "pull-up" || v.net.kind !== "bus-line" || seen.has(v.net.name)) return [];
    const at = v.net.ends.find((e) => !c.netlist.instance(e.ref)!.part.board && e.def.need?.kind === "i2c");
    const ground = at && c.netlist.instance(at.ref)!.part.pins.find((p) => p.role === "ground")?.label;
    if (!at || !ground) return [];
    seen.add(v.net.name);
    const q: Question = { kind: "volt", a: `${at.ref}.${at.pin}`, b: `${at.ref}.${ground}` };
    return [
      {
        id: keyOf(q),
        when: "first power",
        what: `${v.net.name} idles high`,
        from: `${at.ref}.${at.pin}`,
        to: `${at.ref}.${ground}`,
        low: r(v.high_V * 0.95),
        high: r(v.highest_V),
        word: null,
        unit: "V",
        why: "the pull-ups hold the line while nobody talks",
        q,
      },
    ];
  });
}

/** What a build may draw at rest: so much less and more than the sum of the data sheets' idle currents. */
const BAND = { low: 0.4, high: 1.8, spare_mA: 10 };

const sum = (list: readonly number[]) => list.reduce((a, b) => a + b, 0);

/** What flows while every board is awake: between two naps one draws as much as if it never slept. */
function awake(c: Circuit): Circuit {
  const stays = c.project.parts.map(({ sleep: _sleep, ...p }) => p);
  return c.project.parts.some((p) => p.sleep) ? circuitOf({ ...c.project, parts: stays }, c.catalogue) : c;
}

const named = ({ ref, label }: { ref: string; label: string }) => (label === ref ? ref : `${label} (${ref})`);

/** So many steps are told; what draws the least comes in the last of them, together. */
const MOST_STEPS = 6;

/** What a source may give at most as modules are pushed in one after the other: boards first, then what draws little. */
function byModule(c: Circuit, limit: PowerLimit): string {
  const draws = new Map<string, number>();
  for (const { ref, flow } of limit.loads) draws.set(ref, (draws.get(ref) ?? 0) + flow.idle * 1000);
  const isBoard = (ref: string) => c.netlist.instance(ref)?.part.board !== undefined;
  const base = sum([...draws].flatMap(([ref, mA]) => (isBoard(ref) ? [mA] : [])));
  const modules = [...draws].filter(([ref]) => c.netlist.instance(ref)?.part.id.startsWith("module/"));
  if (modules.length < 2) return "";
  const rest = sum([...draws].flatMap(([ref, mA]) => (isBoard(ref) || modules.some(([m]) => m === ref) ? [] : [mA])));
  const most = (mA: number) => `${Math.round(mA * BAND.high + BAND.spare_mA)} mA`;
  const order = modules.sort(([a, x], [b, y]) => x - y || (a < b ? -1 : 1));
  const alone = order.slice(-(MOST_STEPS - 1));
  const first = order.slice(0, -(MOST_STEPS - 1));
  let so_far = base + rest;
  const steps = [`without modules at most ${most(so_far)}`];
  const step = (name: string, mA: number) => steps.push(`then ${name} ${most((so_far += mA))}`);
  if (first.length) step(`${count(first.length, "small module")}`, sum(first.map(([, mA]) => mA)));
  for (const [ref, mA] of alone) step(named(c.netlist.instance(ref)!), mA);
  return `. Pushed in one by one: ${steps.join(", ")}`;
}

/** What a source gives while everything rests: a band, not the range from asleep to everything at once. */
function supplyCurrent(c: Circuit): CheckItem[] {
  const { limits } = awake(c).power;
  return c.power.limits
    .filter((l) => l.kind === "source" && l.flow.peak > 0)
    .map((l): CheckItem => {
      const idle = l.flow.idle * 1000;
      const up = limits.find((x) => x.id === l.id) ?? l;
      return {
        id: `current ${l.ref}`,
        when: "first power",
        what: `${l.ref} delivers while everything rests`,
        from: l.ref,
        to: "",
        low: Math.round(idle * BAND.low),
        high: Math.round(up.flow.idle * 1000 * BAND.high + BAND.spare_mA),
        word: null,
        unit: "mA",
        why: `with a meter in the supply's wire or a USB meter; far more: unplug at once and look for a short${byModule(c, up)}`,
      };
    });
}

/** The first minute with power: what gives, by itself; then each rail; then what waits on the lines. */
export function firstPower(c: Circuit): CheckItem[] {
  const first = polarity(c);
  return [...first, ...rails(c, new Set(first.map((i) => i.id))), ...idleLevels(c), ...supplyCurrent(c)];
}
