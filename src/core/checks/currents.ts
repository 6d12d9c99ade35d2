import { recommendedCompanions } from "../plan/assign";
import type { Circuit } from "../circuit";
import type { Part } from "../parts/catalogue";
import type { NetElement } from "../circuit/netlist";
import type { Extreme, LedPath } from "../circuit/solve";
import { splitEnd } from "../project";
import { formatOhm, nextUp } from "../quantity";
import { label, mA, owner, round } from "./help";
import { switchesOf } from "./loads";
import type { Finding, Fix, Rule } from "./types";

/** A fresh resistor of the right value for a light, whatever stands there now. */
function resistorFix(c: Circuit, ref: string, id = "series-resistor"): Fix[] {
  const entry = c.project.parts.find((p) => p.ref === owner(c, ref));
  if (!entry) return [];
  const { seriesResistor: _old, ...others } = entry.companions ?? {};
  const host = c.netlist.instance(entry.ref)?.host;
  const value = recommendedCompanions(c.project, { ...entry, companions: others }, c.catalogue, host).seriesResistor;
  if (!value || value === "internal") return [];
  return [
    {
      id,
      label: `Put ${value.ohm} Ω in series with ${label(c, entry.ref)}`,
      edits: [{ type: "setCompanion", ref: entry.ref, key: "seriesResistor", value }],
    },
  ];
}

const pathPins = (p: LedPath) => [p.high, p.low].flatMap((e) => (e.kind === "pin" ? [e.end] : []));

const noResistor: Rule = {
  rule: "led.no-resistor",
  says: "An LED without a resistor takes whatever the supply gives until it or the pin fails.",
  check: (c) =>
    c.leds
      .filter((p) => p.I && p.R === 0 && p.V && p.V.max > p.Vf.min)
      .map((p): Finding => ({
        rule: "led.no-resistor",
        severity: "stop",
        at: [p.ref, ...pathPins(p).map((e) => `${e.ref}.${e.pin}`)],
        message: `${label(c, p.ref)} has no series resistor: ${p.V!.typ.toFixed(1)} V drives a ${p.Vf.typ.toFixed(1)} V light with nothing to limit the current.`,
        evidence: { supply_V: round(p.V!.typ), Vf_V: round(p.Vf.typ), R_ohm: 0 },
        fixes: resistorFix(c, p.ref),
      })),
};

interface PinLoad {
  ref: string;
  pin: string;
  /** What it delivers and what it takes, amperes. */
  source_A: number;
  sink_A: number;
  paths: LedPath[];
  refs: string[];
}

/** From here on a pin is shorted: its own resistance decides, of which only the usual value is known. */
const SHORT_A = 0.5;
const sane = (e: Extreme | null): number => (!e ? 0 : e.worst > SHORT_A ? Math.min(e.worst, 3 * e.typ) : e.worst);

const pinMemo = new WeakMap<Circuit["netlist"], Map<string, PinLoad>>();
/** The worst-case current of every driving pin: as the circuit was solved, and of light grids by their wires. */
function pinLoads(c: Circuit): Map<string, PinLoad> {
  const known = pinMemo.get(c.netlist);
  if (known) return known;
  const out = new Map<string, PinLoad>();
  const at = (key: string): PinLoad => {
    const { ref, pin } = splitEnd(key);
    const there = out.get(key) ?? { ref, pin, source_A: 0, sink_A: 0, paths: [], refs: [] };
    out.set(key, there);
    return there;
  };
  // A light without a resistor is told as such; what it would do to the pin is no second finding.
  const bare = new Set(c.leds.flatMap((p) => (p.I && p.R === 0 ? p.leds : [])));
  for (const [key, x] of c.solved.pins) {
    if (x.by.some((ref) => bare.has(ref)) || (!x.source && !x.sink)) continue;
    const load = at(key);
    load.source_A = sane(x.source);
    load.sink_A = sane(x.sink);
    load.refs.push(...x.by);
  }
  for (const p of c.leds) {
    if (!p.I || p.R === 0) continue;
    const grid = c.netlist.instance(p.ref)?.part.addresses !== undefined;
    for (const [e, side] of [
      [p.high, "source_A"],
      [p.low, "sink_A"],
    ] as const)
      if (e.kind === "pin") {
        const load = at(`${e.end.ref}.${e.end.pin}`);
        load.paths.push(p);
        if (!grid) continue;
        load[side] += p.I.max;
        load.refs.push(p.ref);
      }
  }
  pinMemo.set(c.netlist, out);
  return out;
}

const pinCurrent: Rule = {
  rule: "current.pin",
  says: "A pin has a current that is good for it and one that may never be passed.",
  check: (c) =>
    [...pinLoads(c)].flatMap(([key, s]): Finding[] => {
      const I = Math.max(s.source_A, s.sink_A);
      const limits = c.netlist.level(s.ref, s.pin)?.pin_mA;
      if (!limits || I * 1000 <= limits.recommended) return [];
      const stop = limits.absMax !== undefined && I * 1000 > limits.absMax;
      const most = limits.absMax === undefined ? "" : ` (absolute maximum ${limits.absMax} mA)`;
      return [
        {
          rule: "current.pin",
          severity: stop ? "stop" : "risk",
          at: [key, ...s.refs],
          message: `${key} may have to carry ${mA(I)}; ${stop ? `its absolute maximum is ${limits.absMax} mA. Do not power this.` : `${limits.recommended} mA is recommended${most}.`}`,
          evidence: {
            worst_mA: round(I * 1000, 1),
            recommended_mA: limits.recommended,
            ...(limits.absMax !== undefined && { absMax_mA: limits.absMax }),
          },
          fixes: s.paths
            .flatMap((p) => [...resistorFix(c, p.ref), ...lessCurrent(c, p, limits.recommended)])
            .concat(s.paths.length ? [] : baseFix(c, s, limits.recommended))
            .slice(0, 2),
        },
      ];
    }),
};

/** A base resistor that keeps a pin within what it likes. */
function baseFix(c: Circuit, s: PinLoad, limit_mA: number): Fix[] {
  const q = switchesOf(c).find((x) => s.refs.includes(x.el.ref) && x.gate);
  if (!q?.gate || q.def.kind !== "bjt" || !c.project.parts.some((p) => p.ref === q.el.ref)) return [];
  const ohm = nextUp(
    (q.gate.V.max - Number(q.def.Vbe.min)) / (limit_mA / 1000) / 0.95,
    "E12",
    c.project.drawer.resistors_ohm,
  );
  return [
    {
      id: "base-resistor",
      label: `Put ${formatOhm(ohm)} at the base of ${label(c, q.el.ref)}`,
      edits: [{ type: "setCompanion", ref: q.el.ref, key: "seriesResistor", value: { ohm } }],
    },
  ];
}

const ledCurrent: Rule = {
  rule: "current.led",
  says: "A light has a largest current of its own, whatever the pin can give.",
  check: (c) =>
    c.leds.flatMap((p): Finding[] =>
      p.I && p.R > 0 && p.I.max > p.max_A * 1.001
        ? [
            {
              rule: "current.led",
              severity: p.I.max > p.max_A * 1.5 ? "stop" : "risk",
              at: [p.ref],
              message: `${label(c, p.ref)} may get ${mA(p.I.max)}; it takes ${mA(p.max_A)} at most.`,
              evidence: { worst_mA: round(p.I.max * 1000, 1), max_mA: round(p.max_A * 1000, 1), R_ohm: p.R },
              fixes: resistorFix(c, p.ref),
            },
          ]
        : [],
    ),
};

interface ChipGroup {
  says: string;
  /** Null: all pins. */
  pins: string[] | null;
  source_mA: number;
  sink_mA: number;
}

/** What a board's chip, or a register, expander or driver, may pass through its pins together. */
function chipGroups(part: Part): ChipGroup[] {
  const all = "all pins together";
  const { board, chipLimits } = part;
  if (board)
    return [{ says: all, pins: null, source_mA: board.chip_mA, sink_mA: board.chip_mA }, ...(board.portGroups ?? [])];
  if (!chipLimits) return [];
  const { source_mA, sink_mA, groups } = chipLimits;
  return [{ says: all, pins: null, source_mA, sink_mA }, ...groups];
}

/** Over this share of what a chip may pass in all there is no room for the chip itself. */
const CHIP_ROOM = 0.8;

const chipCurrent: Rule = {
  rule: "current.chip",
  says: "The currents of all pins add up in the chip's supply pins, and those of a port in its own: both have a limit.",
  check: (c) =>
    [...c.netlist.expanded.instances.values()].flatMap((inst): Finding[] => {
      const host = inst.ref;
      const mine = [...pinLoads(c).values()].filter((s) => s.ref === host);
      if (!mine.length) return [];
      const sum = (list: PinLoad[], side: "source_A" | "sink_A") => list.reduce((t, s) => t + s[side], 0) * 1000;
      const groups = chipGroups(inst.part);
      // The tightest group speaks for the chip.
      const over = groups
        .flatMap((g) => {
          const list = g.pins ? mine.filter((s) => g.pins!.includes(s.pin)) : mine;
          return (["source", "sink"] as const).map((side) => {
            const I = sum(list, `${side}_A`);
            return { g, side, I, limit: g[`${side}_mA`], share: I / g[`${side}_mA`], list };
          });
        })
        .sort((a, b) => b.share - a.share)[0];
      if (!over || over.share <= CHIP_ROOM) return [];
      const stop = over.share > 1;
      const worst = [...over.list].sort((a, b) => b.source_A + b.sink_A - a.source_A - a.sink_A);
      return [
        {
          rule: "current.chip",
          severity: stop ? "stop" : "risk",
          at: [host, ...worst.slice(0, 4).map((s) => `${host}.${s.pin}`)],
          message: `${label(c, host)}: ${over.g.says} may have to ${over.side === "source" ? "give" : "take"} ${over.I.toFixed(0)} mA, ${stop ? "over" : "close to"} the ${over.limit} mA that the chip stands${stop ? ". Do not power this" : ""}.`,
          evidence: { worst_mA: round(over.I, 1), limit_mA: over.limit, pins: over.list.length },
          fixes: worst.flatMap((s) => s.paths).slice(0, 6).length
            ? [
                {
                  id: "dim-all",
                  label: `Run the ${worst.flatMap((s) => s.paths).length} lights with less current each`,
                  edits: worst
                    .flatMap((s) => s.paths)
                    .flatMap((p) => lessCurrent(c, p, (worstOf(p) * 0.7) / over.share)[0]?.edits ?? []),
                },
              ].filter((f) => f.edits.length)
            : [],
        },
      ];
    }),
};

/** What a light gets at worst, mA. */
const worstOf = (p: LedPath) => (p.I?.max ?? 0) * 1000;

/** Less than this over the resistor and the current hangs on the light's own scatter. */
const HEADROOM_V = 0.5;
const HEADROOM_SHARE = 0.2;

const headroom: Rule = {
  rule: "led.headroom",
  says: "A series resistor sets the current only when enough voltage is left for it: a fifth of the supply, half a volt at least.",
  check: (c) =>
    c.leds.flatMap((p): Finding[] => {
      if (!p.V || p.V.typ <= 0 || p.R === 0 || !p.I) return [];
      const left = p.V.typ - p.Vf.typ;
      const least = Math.max(HEADROOM_V, p.V.typ * HEADROOM_SHARE);
      if (left >= least) return [];
      return [
        {
          rule: "led.headroom",
          severity: "risk",
          at: [p.ref],
          message: `${p.V.typ.toFixed(1)} V less ${p.Vf.typ.toFixed(1)} V of ${p.leds.length > 1 ? `${p.leds.length} lights in a row` : label(c, p.ref)} leaves ${Math.max(0, left).toFixed(2)} V for the resistor: brightness differs from piece to piece, or it stays dark.`,
          evidence: { left_V: round(left), wanted_V: round(least), supply_V: round(p.V.typ), Vf_V: round(p.Vf.typ) },
          fixes: [],
        },
      ];
    }),
};

/** The side of a light that no resistor stands at: where it ends, by net. */
function bareSide(c: Circuit, p: LedPath): string | null {
  const flow = c.solved.flows.get(p.element);
  if (!flow) return null;
  const has = (list: readonly NetElement[]) => list.some((e) => e.kind === "resistor");
  const side = has(flow.from.passed) ? p.low : has(flow.to.passed) ? p.high : null;
  return side && !(has(flow.from.passed) && has(flow.to.passed)) ? side.net.id : null;
}

/** So many lights in one part make a digit or a bar: several of them on common lines are lit in turn. */
const SCANNED = 7;

const parallel: Rule = {
  rule: "led.parallel",
  says: "Lights side by side on one resistor share its current by chance: each needs its own.",
  check: (c) => {
    const groups = new Map<string, LedPath[]>();
    for (const p of c.leds) {
      const part = c.netlist.instance(p.ref)?.part;
      if (!p.I || p.I.typ <= 0 || !p.resistors.length || part?.addresses || bareSide(c, p) === null) continue;
      const digit = (part?.elements.filter((e) => e.kind === "led").length ?? 0) >= SCANNED;
      const key = `${[...p.resistors].sort().join()}${digit ? ` ${p.ref}` : ""}`;
      groups.set(key, [...(groups.get(key) ?? []), p]);
    }
    return [...groups.values()].flatMap((list): Finding[] => {
      const rows = new Set(list.map((p) => p.row));
      if (rows.size < 2) return [];
      const refs = [...new Set(list.map((p) => p.ref))];
      const shared = c.netlist.elements.find((e) => e.kind === "resistor" && e.ref === list[0]!.resistors[0])!;
      const inst = c.netlist.instance(shared.ref);
      return [
        {
          rule: "led.parallel",
          severity: "risk",
          at: [...refs, shared.ref],
          message: `${rows.size} lights (${refs.map((r) => label(c, r)).join(", ")}) share one resistor${inst?.inserted ? "" : ` (${shared.ref})`}: the one with the lowest voltage takes most of the current${refs.length === 1 ? ", and brightness jumps with what is shown" : ""}.`,
          evidence: { lights: rows.size, R_ohm: shared.ohm ?? 0 },
          fixes: ownResistors(c, refs, shared),
        },
      ];
    });
  },
};

/** Takes the shared resistor out of the wires and gives every light one of its own. */
function ownResistors(c: Circuit, refs: string[], shared: NetElement): Fix[] {
  const pins = c.netlist.instance(shared.ref)?.part.pins.map((p) => `${shared.ref}.${p.label}`) ?? [];
  const links = c.project.links.filter((l) => pins.includes(l.from) || pins.includes(l.to));
  const far = (pin: string) =>
    links.filter((l) => l.from === pin || l.to === pin).map((l) => (l.from === pin ? l.to : l.from));
  const [one, two] = [far(pins[0] ?? ""), far(pins[1] ?? "")];
  const lightEnds = [...one, ...two].filter((e) => refs.includes(splitEnd(e).ref));
  const source = [...one, ...two].find((e) => !refs.includes(splitEnd(e).ref));
  if (!source || !lightEnds.length || c.netlist.instance(shared.ref)?.inserted) return [];
  const all = refs.every((r) => lightEnds.some((e) => splitEnd(e).ref === r)) ? lightEnds : [];
  if (!all.length) return [];
  return [
    {
      id: "own-resistors",
      label: `Give each light its own ${formatOhm(shared.ohm ?? 330)}`,
      edits: [
        { type: "removePart", ref: shared.ref },
        ...all.map((e) => ({ type: "addLink" as const, link: { from: e, to: source } })),
        ...refs.map((ref) => ({
          type: "setCompanion" as const,
          ref,
          key: "seriesResistor" as const,
          value: { ohm: shared.ohm ?? 330 },
        })),
      ],
    },
  ];
}

/** When the light is meant to be too bright for the pin: a larger resistor that keeps the worst case inside. */
function lessCurrent(c: Circuit, p: LedPath, limit_mA: number): Fix[] {
  const entry = c.project.parts.find((x) => x.ref === owner(c, p.ref));
  const now = c.netlist.instance(p.ref)?.vars.current_mA;
  if (!entry || now === undefined || p.V === null) return [];
  const wanted = Math.max(0.5, Math.floor(limit_mA * 0.7 * 2) / 2);
  if (wanted >= now) return [];
  const { seriesResistor: _old, ...others } = entry.companions ?? {};
  const next = { ...entry, options: { ...entry.options, current_mA: wanted }, companions: others };
  const value = recommendedCompanions(c.project, next, c.catalogue, c.netlist.instance(entry.ref)?.host).seriesResistor;
  if (!value) return [];
  return [
    {
      id: "less-current",
      label: `Run ${label(c, entry.ref)} at ${wanted} mA`,
      edits: [
        { type: "setOption", ref: entry.ref, key: "current_mA", value: wanted },
        { type: "setCompanion", ref: entry.ref, key: "seriesResistor", value },
      ],
    },
  ];
}

export const currentRules: Rule[] = [noResistor, pinCurrent, ledCurrent, chipCurrent, headroom, parallel];
