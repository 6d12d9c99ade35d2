/** For the rules: loads, what switches them, and stronger switches. */
import type { Circuit } from "../circuit";
import { fetStage } from "../circuit/formulas";
import type { Element } from "../parts/catalogue";
import type { NetElement } from "../circuit/netlist";
import { driveOf, type Drive } from "../circuit/solve";
import { evaluate, type Triple } from "../quantity";
import { splitEnd, type BasicEdit } from "../project";
import { netById, seriesOhm } from "./graph";
import type { Fix } from "./types";

export type Bjt = Extract<Element, { kind: "bjt" }>;

export type Fet = Extract<Element, { kind: "fet" }>;

export interface LoadAt {
  el: NetElement;
  V: Triple;
  A: { idle: number; typ: number; peak: number };
}

/** A transistor, what hangs on its switched side, and the board pin that works it. */
export interface SwitchAt {
  el: NetElement;
  def: Bjt | Fet;
  loads: LoadAt[];
  /** Amperes that it has to switch. */
  peak_A: number;
  gate: { ref: string; pin: string; drive: Drive; V: Triple; ohm: number; series: number } | null;
}

export const triple = (
  x: { min: number | string; typ: number | string; max: number | string },
  vars: Record<string, number>,
): Triple => ({
  min: evaluate(x.min, vars),
  typ: evaluate(x.typ, vars),
  max: evaluate(x.max, vars),
});

export function loadsOf(c: Circuit): LoadAt[] {
  return c.netlist.elements.flatMap((el) => {
    if (el.kind !== "load" || !el.A) return [];
    const inst = c.netlist.instance(el.ref)!;
    const def = el.module ? el.def : inst.part.elements.find((x) => x.kind === "load");
    return def?.kind === "load" ? [{ el, V: triple(def.V, inst.vars), A: el.A }] : [];
  });
}

/** How a transistor is worked, as the solved circuit has it; the pin's own range is what a base resistor is chosen by. */
export function gateOf(c: Circuit, el: NetElement): SwitchAt["gate"] {
  const drive = driveOf(c.solved, el);
  if (!drive) return null;
  const { driver } = drive;
  return {
    ref: driver.ref,
    pin: driver.pin,
    drive,
    V: el.kind === "fet" ? drive.on_V : driver.high,
    ohm: evaluate(driver.level.outTyp_ohm ?? 0, c.netlist.instance(driver.ref)!.vars),
    series: seriesOhm(c, driver.net, el.control!) ?? 0,
  };
}

/** Loads whose current passes a transistor, through contacts, shunts and other parts as well. */
export function loadsThrough(c: Circuit, el: NetElement, loads: LoadAt[]): LoadAt[] {
  // Only the switched side counts: what merely shares the rail or the ground with the transistor is not switched by it.
  const node = [el.a, el.b].filter((id) => !c.solved.scene.held.has(id));
  return loads.filter((l) => {
    if (l.el.a === l.el.b) return false;
    if ([l.el.a, l.el.b].some((id) => node.includes(id))) return true;
    const f = c.solved.flows.get(l.el);
    return f !== undefined && [...f.from.passed, ...f.to.passed].includes(el);
  });
}

export const memo = new WeakMap<Circuit["netlist"], SwitchAt[]>();

export function switchesOf(c: Circuit): SwitchAt[] {
  const known = memo.get(c.netlist);
  if (known) return known;
  const loads = loadsOf(c);
  const out = c.netlist.elements.flatMap((el): SwitchAt[] => {
    if ((el.kind !== "bjt" && el.kind !== "fet") || !el.control) return [];
    const defs = c.netlist.instance(el.ref)!.part.elements.filter((x): x is Bjt | Fet => x.kind === el.kind);
    const pinNet = (pin: string) => c.netlist.netOf(`${el.ref}.${pin}`)?.id;
    const def = defs.find((d) => pinNet(d.kind === "bjt" ? d.b : d.g) === el.control) ?? defs[0]!;
    const mine = loadsThrough(c, el, loads);
    return [
      {
        el,
        def,
        loads: mine,
        peak_A: mine.reduce((s, l) => s + l.A.peak, 0),
        gate: gateOf(c, el),
      },
    ];
  });
  memo.set(c.netlist, out);
  return out;
}

/** Whether the load stands between a switch's emitter or source and ground, so that it only gets what the gate leaves. */
export const isFollower = (c: Circuit, s: SwitchAt, l: LoadAt) => {
  const low = s.el.b;
  const far = [l.el.a, l.el.b].find((id) => id !== low);
  return (
    [l.el.a, l.el.b].includes(low) &&
    netById(c, low)?.kind !== "ground" &&
    far !== undefined &&
    netById(c, far)?.kind === "ground" &&
    (s.def.type === "npn" || s.def.type === "n")
  );
};

export const FETS = ["discrete/nmos-ao3400", "discrete/nmos-irlz44n"];

/** What a MOSFET without a heat sink gets rid of, watts; the default is a TO-220 in free air (62 °C/W). */
export const bareHeat = (def: Fet) => (def.Ptot_mW ?? 1000) / 1000;

/** Of that, so much is planned for when a part is offered unasked. */
export const HEAT_SHARE = 0.5;

/**
 * The MOSFET of the catalogue that is guaranteed on at this drive, carries the load without a heat sink, and stands its
 * supply; the smallest first.
 */
export function fetFor(c: Circuit, V: Triple, load_A: number, supply_V: number): string | null {
  return (
    FETS.find((id) => {
      const def = c.catalogue.get(id)?.elements.find((e) => e.kind === "fet");
      const stage = def?.kind === "fet" ? fetStage({ V, on: def.on, load_A, pin_A: 1 }) : null;
      if (def?.kind !== "fet" || !stage) return false;
      return def.Id_mA / 1000 >= load_A * 1.2 && def.Vds >= supply_V * 1.2 && stage.W <= bareHeat(def) * HEAT_SHARE;
    }) ?? null
  );
}

/** The highest voltage that a switch has to hold off, volts. */
export const railOf = (c: Circuit, loads: readonly LoadAt[]) =>
  Math.max(0, ...loads.flatMap((l) => [l.el.a, l.el.b].map((id) => netById(c, id)?.V?.max ?? 0)));

export const swapFix = (c: Circuit, s: SwitchAt, part: string): Fix[] => {
  const entry = c.project.parts.find((p) => p.ref === s.el.ref);
  const inserted = c.netlist.instance(s.el.ref)?.inserted;
  if (inserted) {
    const value = c.project.parts.find((p) => p.ref === inserted.by)?.companions?.driver;
    return typeof value === "object" && value
      ? [
          {
            id: "swap",
            label: `Take ${c.catalogue.get(part)?.name ?? part}`,
            edits: [{ type: "setCompanion", ref: inserted.by, key: "driver", value: { ...value, part } }],
          },
        ]
      : [];
  }
  if (!entry || entry.part === part || !entry.part.startsWith("discrete/")) return [];
  const links = c.project.links.filter((l) => [l.from, l.to].some((e) => splitEnd(e).ref === s.el.ref));
  return [
    {
      id: "swap",
      label: `Take ${c.catalogue.get(part)?.name ?? part} instead`,
      edits: [
        { type: "changePart", ref: s.el.ref, part },
        ...links.map((link): BasicEdit => ({ type: "addLink", link })),
      ],
    },
  ];
};

/** A MOSFET in place of a bipolar transistor: gate where the base was, drain for collector, source for emitter. */
export function swapFixBjt(c: Circuit, s: SwitchAt, part: string): Fix[] {
  const entry = c.project.parts.find((p) => p.ref === s.el.ref);
  if (!entry) return [];
  const TO: Record<string, string> = { B: "G", C: "D", E: "S" };
  const move = (end: string) =>
    splitEnd(end).ref === s.el.ref ? `${s.el.ref}.${TO[splitEnd(end).pin] ?? splitEnd(end).pin}` : end;
  const links = c.project.links.filter((l) => [l.from, l.to].some((e) => splitEnd(e).ref === s.el.ref));
  return [
    {
      id: "swap",
      label: `Take a MOSFET instead: ${c.catalogue.get(part)?.name ?? part}`,
      edits: [
        { type: "changePart", ref: s.el.ref, part },
        { type: "setCompanion", ref: s.el.ref, key: "seriesResistor", value: { ohm: 220 } },
        { type: "setCompanion", ref: s.el.ref, key: "pullDown", value: { ohm: 10_000 } },
        ...links.map((l): BasicEdit => ({ type: "addLink", link: { ...l, from: move(l.from), to: move(l.to) } })),
      ],
    },
  ];
}
