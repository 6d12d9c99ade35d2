import type { Circuit } from "../circuit";
import { BETA_MAX, bjtStage, fetStage } from "../circuit/formulas";
import type { Element } from "../parts/catalogue";
import type { Instance, NetElement } from "../circuit/netlist";
import { driveOf, type Drive } from "../circuit/solve";
import { evaluate, formatOhm, formatV, type Triple } from "../quantity";
import { nextRef, splitEnd, type BasicEdit } from "../project";
import { elementsAt, isRail, netById, otherEnd, seriesOhm } from "./graph";
import { label, mA, round } from "./help";
import type { Finding, Fix, Rule } from "./types";

type Bjt = Extract<Element, { kind: "bjt" }>;
type Fet = Extract<Element, { kind: "fet" }>;

interface LoadAt {
  el: NetElement;
  V: Triple;
  A: { idle: number; typ: number; peak: number };
}

/** A transistor, what hangs on its switched side, and the board pin that works it. */
interface SwitchAt {
  el: NetElement;
  def: Bjt | Fet;
  loads: LoadAt[];
  /** Amperes that it has to switch. */
  peak_A: number;
  gate: { ref: string; pin: string; drive: Drive; V: Triple; ohm: number; series: number } | null;
}

const triple = (
  x: { min: number | string; typ: number | string; max: number | string },
  vars: Record<string, number>,
): Triple => ({
  min: evaluate(x.min, vars),
  typ: evaluate(x.typ, vars),
  max: evaluate(x.max, vars),
});

function loadsOf(c: Circuit): LoadAt[] {
  return c.netlist.elements.flatMap((el) => {
    if (el.kind !== "load" || !el.A) return [];
    const inst = c.netlist.instance(el.ref)!;
    const def = el.module ? el.def : inst.part.elements.find((x) => x.kind === "load");
    return def?.kind === "load" ? [{ el, V: triple(def.V, inst.vars), A: el.A }] : [];
  });
}

/** How a transistor is worked, as the solved circuit has it; the pin's own range is what a base resistor is chosen by. */
function gateOf(c: Circuit, el: NetElement): SwitchAt["gate"] {
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
function loadsThrough(c: Circuit, el: NetElement, loads: LoadAt[]): LoadAt[] {
  // Only the switched side counts: what merely shares the rail or the ground with the transistor is not switched by it.
  const node = [el.a, el.b].filter((id) => !c.solved.scene.held.has(id));
  return loads.filter((l) => {
    if (l.el.a === l.el.b) return false;
    if ([l.el.a, l.el.b].some((id) => node.includes(id))) return true;
    const f = c.solved.flows.get(l.el);
    return f !== undefined && [...f.from.passed, ...f.to.passed].includes(el);
  });
}

const memo = new WeakMap<Circuit["netlist"], SwitchAt[]>();
function switchesOf(c: Circuit): SwitchAt[] {
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
const isFollower = (c: Circuit, s: SwitchAt, l: LoadAt) => {
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

/** The board pins on either side of a load. */
const pinsAt = (c: Circuit, l: LoadAt) =>
  [l.el.a, l.el.b].flatMap((id) =>
    isRail(netById(c, id))
      ? []
      : (netById(c, id)?.ends ?? []).filter((e) => e.def.offers?.length && c.netlist.instance(e.ref)?.part.board),
  );

/** From here on a load gets a supply of its own rather than the board's. */
const HEAVY_A = 0.3;

/** Where a load is fed from: an outlet that is there, or an adapter of its own for it, with the edits that this takes. */
function feedFor(c: Circuit, l: LoadAt, host: string): { to: string; words: string; edits: BasicEdit[] } | null {
  const there = outletFor(c, l);
  const own = there !== null && c.netlist.instance(splitEnd(there).ref)?.part.id.startsWith("supply/");
  if (there && (own || l.A.peak <= HEAVY_A)) return { to: there, words: there, edits: [] };
  const [part, pin] = l.V.min <= 5 && l.V.max >= 5 ? ["supply/adapter-5v-2a", "5V"] : ["supply/adapter-12v-2a", "12V"];
  const ground = c.netlist.instance(host)?.part.pins.find((p) => p.role === "ground")?.label;
  if (!ground || !c.catalogue.get(part) || l.A.peak > 2 || (pin === "12V" && (l.V.min > 12 || l.V.max < 12)))
    return null;
  const ref = nextRef(c.project, part);
  return {
    to: `${ref}.${pin}`,
    words: `a ${pin.replace("V", " V")} adapter of its own`,
    edits: [
      { type: "addPart", part, ref },
      { type: "addLink", link: { from: `${ref}.GND`, to: `${host}.${ground}` } },
    ],
  };
}

/** An outlet for a load: a board's or a supply's pin whose voltage lies in the load's range. */
function outletFor(c: Circuit, l: LoadAt): string | null {
  const ok = (V: Triple | null) => V && V.typ >= l.V.min && V.typ <= Math.max(l.V.max, l.V.typ * 1.1);
  const linked = new Set(c.project.links.flatMap((x) => [x.from, x.to]));
  // A USB port has one socket: with the cable in it there is no bare lead.
  const plugged = (i: Instance) =>
    !i.part.board && i.part.pins.some((p) => p.role === "cable" && linked.has(`${i.ref}.${p.label}`));
  const all = [...c.netlist.expanded.instances.values()].filter((i) => !i.inserted && !plugged(i));
  const out = all.flatMap((i) =>
    i.part.pins
      .filter(
        (p) => (p.role === "supply-out" || p.role === "supply-io") && ok(c.netlist.netOf(`${i.ref}.${p.label}`).V),
      )
      .map((p) => ({
        end: `${i.ref}.${p.label}`,
        own: i.part.id.startsWith("supply/"),
        V: c.netlist.netOf(`${i.ref}.${p.label}`).V!,
      })),
  );
  const far = (V: Triple) => Math.abs(V.typ - l.V.typ);
  return [...out].sort((x, y) => far(x.V) - far(y.V) || Number(y.own) - Number(x.own))[0]?.end ?? null;
}

const FETS = ["discrete/nmos-ao3400", "discrete/nmos-irlz44n"];

/** What a MOSFET without a heat sink gets rid of, watts; the default is a TO-220 in free air (62 °C/W). */
const bareHeat = (def: Fet) => (def.Ptot_mW ?? 1000) / 1000;
/** Of that, so much is planned for when a part is offered unasked. */
const HEAT_SHARE = 0.5;

/**
 * The MOSFET of the catalogue that is guaranteed on at this drive, carries the load without a heat sink, and stands its
 * supply; the smallest first.
 */
function fetFor(c: Circuit, V: Triple, load_A: number, supply_V: number): string | null {
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
const railOf = (c: Circuit, loads: readonly LoadAt[]) =>
  Math.max(0, ...loads.flatMap((l) => [l.el.a, l.el.b].map((id) => netById(c, id)?.V?.max ?? 0)));

const flybackFix = (c: Circuit, ref: string): Fix[] =>
  c.project.parts.some((p) => p.ref === ref)
    ? [
        {
          id: "flyback",
          label: `Put a diode across ${label(c, ref)}`,
          edits: [{ type: "setCompanion", ref, key: "flyback", value: { part: "discrete/diode-1n4007" } }],
        },
      ]
    : [];

function driverFix(c: Circuit, l: LoadAt, host: string): Fix[] {
  const inst = c.netlist.instance(host)!;
  const pins = pinsAt(c, l);
  const V = c.netlist.netOf(`${host}:${inst.part.board!.logicSupply}`).V;
  const level = pins[0] && c.netlist.level(pins[0].ref, pins[0].pin);
  if (!V || !level || pins.length !== 1 || !c.project.parts.some((p) => p.ref === l.el.ref)) return [];
  const high = (volts: number) => evaluate(level.VOH ?? "V", { ...inst.vars, V: volts, I: 0 });
  const drive = { min: high(V.min), typ: high(V.typ), max: V.max };
  const part = fetFor(c, drive, l.A.peak, l.V.max);
  const def = part ? c.catalogue.get(part)?.elements.find((e) => e.kind === "fet") : undefined;
  const stage =
    def?.kind === "fet"
      ? fetStage({ V: drive, on: def.on, load_A: l.A.peak, pin_A: (level.pin_mA?.recommended ?? 8) / 1000 })
      : null;
  const feed = feedFor(c, l, host);
  if (!part || !stage || !feed) return [];
  // The load's other pin goes to the supply: the transistor then switches the ground side.
  const other = c.netlist
    .instance(l.el.ref)!
    .part.pins.find(
      (p) =>
        p.role === "passive" &&
        c.netlist.netOf(`${l.el.ref}.${p.label}`) !== c.netlist.netOf(`${pins[0]!.ref}.${pins[0]!.pin}`),
    );
  if (!other) return [];
  const end = `${l.el.ref}.${other.label}`;
  const edits: BasicEdit[] = [
    ...c.project.links
      .filter((x) => x.from === end || x.to === end)
      .map((x): BasicEdit => ({ type: "removeLink", from: x.from, to: x.to })),
    ...feed.edits,
    { type: "addLink", link: { from: end, to: feed.to } },
    { type: "setCompanion", ref: l.el.ref, key: "driver", value: { part, ohm: [stage.gate_ohm, stage.pull_ohm] } },
  ];
  if (l.el.inductive)
    edits.push({ type: "setCompanion", ref: l.el.ref, key: "flyback", value: { part: "discrete/diode-1n4007" } });
  return [
    {
      id: "driver",
      label: `Switch ${label(c, l.el.ref)} with a MOSFET, ${stage.gate_ohm} Ω at its gate, fed from ${feed.words}${l.el.inductive ? ", with a flyback diode" : ""}`,
      edits,
    },
  ];
}

const needsDriver: Rule = {
  rule: "load.needs-driver",
  says: "A pin gives a few milliamperes and stands no kick from a coil: motors, coils and lamps need a transistor or driver.",
  check: (c) =>
    loadsOf(c).flatMap((l): Finding[] => {
      const pin = pinsAt(c, l)[0];
      if (!pin) return [];
      const limit = c.netlist.level(pin.ref, pin.pin)?.pin_mA;
      if (!l.el.inductive && l.A.peak * 1000 <= (limit?.recommended ?? 8)) return [];
      return [
        {
          rule: "load.needs-driver",
          severity: "stop",
          at: [l.el.ref, `${pin.ref}.${pin.pin}`],
          message: `${label(c, l.el.ref)} draws up to ${mA(l.A.peak)}${l.el.inductive ? " and is a coil" : ""}; ${pin.ref}.${pin.pin} may give ${limit?.recommended ?? 8} mA. It needs a transistor or driver in between. Do not power this.`,
          evidence: { peak_mA: round(l.A.peak * 1000, 1), pin_mA: limit?.recommended ?? 8 },
          fixes: driverFix(c, l, pin.ref),
        },
      ];
    }),
};

/** Diodes across a load, each with whether it lets the coil's current circle (and not the supply through). */
function diodesAcross(c: Circuit, l: LoadAt, switched: string) {
  const other = l.el.a === switched ? l.el.b : l.el.a;
  const up = netById(c, other)?.kind !== "ground";
  return elementsAt(c, switched)
    .filter((el) => el.kind === "diode" && otherEnd(el, switched) === other)
    .map((el) => ({ el, right: (el.a === switched) === up }));
}

const noFlyback: Rule = {
  rule: "load.no-flyback",
  says: "A coil that is switched off drives its current on at any voltage: a diode across it gives that current a way.",
  check: (c) =>
    switchesOf(c).flatMap((s) =>
      s.loads.flatMap((l): Finding[] => {
        if (!l.el.inductive) return [];
        const node = [s.el.a, s.el.b].find((id) => id === l.el.a || id === l.el.b)!;
        if (diodesAcross(c, l, node).length) return [];
        return [
          {
            rule: "load.no-flyback",
            severity: "stop",
            at: [l.el.ref, s.el.ref],
            message: `${label(c, l.el.ref)} is a coil switched by ${label(c, s.el.ref)} without a flyback diode: switching off kills the transistor. Do not power this.`,
            evidence: { peak_mA: round(l.A.peak * 1000, 1) },
            fixes: flybackFix(c, l.el.ref),
          },
        ];
      }),
    ),
};

const swapFix = (c: Circuit, s: SwitchAt, part: string): Fix[] => {
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

/** A module that comes with another transistor: the choice that a smaller drive switches on. */
const typeFix = (c: Circuit, s: SwitchAt): Fix[] => {
  const option = c.netlist.instance(s.el.ref)?.part.options.find((o) => o.key === "type");
  const entry = c.project.parts.find((p) => p.ref === s.el.ref);
  if (option?.kind !== "choice" || !entry || (entry.options?.type ?? option.default) === option.default) return [];
  return [
    {
      id: "type",
      label: `Take the kind with a ${option.choices.find((x) => x.value === option.default)?.label ?? option.default}`,
      edits: [{ type: "setOption", ref: s.el.ref, key: "type", value: option.default }],
    },
  ];
};

const gateDrive: Rule = {
  rule: "load.gate-drive",
  says: "A MOSFET is on for certain only at a gate voltage for which its data sheet gives an on-resistance.",
  check: (c) =>
    switchesOf(c).flatMap((s): Finding[] => {
      if (s.def.kind !== "fet" || s.def.type !== "n" || !s.gate || s.loads.some((l) => isFollower(c, s, l))) return [];
      const least = Math.min(...s.def.on.map((x) => x.Vgs));
      if (s.gate.V.min >= least - 1e-9) return [];
      const better = fetFor(c, s.gate.V, s.peak_A, railOf(c, s.loads));
      return [
        {
          rule: "load.gate-drive",
          severity: "fault",
          at: [s.el.ref, `${s.gate.ref}.${s.gate.pin}`],
          message: `${label(c, s.el.ref)} is only sure to switch on with ${formatV(least)} at its gate; ${s.gate.ref}.${s.gate.pin} gives at least ${formatV(s.gate.V.min)}. It would stay half open and get hot.`,
          evidence: { gate_V: round(s.gate.V.min), needs_V: least },
          fixes: [...(better ? swapFix(c, s, better) : []), ...typeFix(c, s)],
        },
      ];
    }),
};

const baseDrive: Rule = {
  rule: "load.base-drive",
  says: "A transistor is a closed switch only with enough base current: a tenth to a twentieth of what it carries.",
  check: (c) =>
    switchesOf(c).flatMap((s): Finding[] => {
      if (s.def.kind !== "bjt" || s.def.type !== "npn" || !s.gate || s.peak_A === 0) return [];
      if (s.loads.some((l) => isFollower(c, s, l)) || s.gate.series === 0) return [];
      const ask = { V: s.gate.V, Vbe: triple(s.def.Vbe, {}), pin_ohm: s.gate.ohm };
      const Ib = Math.max(0, s.gate.drive.base_A.min);
      const beta = Ib > 0 ? s.peak_A / Ib : Infinity;
      if (beta <= Math.min(BETA_MAX, s.def.hFE_min)) return [];
      const fault = beta > s.def.hFE_min;
      const stage = bjtStage({ ...ask, hFE_min: s.def.hFE_min, VCEsat_V: s.def.VCEsat_V, load_A: s.peak_A });
      const limit = c.netlist.level(s.gate.ref, s.gate.pin)?.pin_mA?.recommended ?? 8;
      const fits = stage && stage.pin_A * 1000 <= limit && c.project.parts.some((p) => p.ref === s.el.ref);
      const fet = fetFor(c, s.gate.V, s.peak_A, railOf(c, s.loads));
      return [
        {
          rule: "load.base-drive",
          severity: fault ? "fault" : "risk",
          at: [s.el.ref, `${s.gate.ref}.${s.gate.pin}`],
          message: `${label(c, s.el.ref)} carries ${mA(s.peak_A)} and gets ${mA(Ib)} of base current, ${beta === Infinity ? "nothing" : `1 to ${Math.round(beta)}`}; ${fault ? `its gain is only sure to be ${s.def.hFE_min}, so it would not switch on` : "1 to 10 to 20 keeps it fully on"}.`,
          evidence: {
            load_mA: round(s.peak_A * 1000, 1),
            base_mA: round(Ib * 1000, 2),
            forced_gain: Number.isFinite(beta) ? round(beta, 1) : "none",
          },
          fixes: [
            ...(fits
              ? [
                  {
                    id: "base-resistor",
                    label: `Take ${formatOhm(stage.ohm)} at the base: ${mA(stage.pin_A)} from the pin`,
                    edits: [
                      {
                        type: "setCompanion" as const,
                        ref: s.el.ref,
                        key: "seriesResistor" as const,
                        value: { ohm: stage.ohm },
                      },
                    ],
                  },
                ]
              : []),
            ...(!fits && fet ? swapFixBjt(c, s, fet) : []),
          ],
        },
      ];
    }),
};

/** A MOSFET in place of a bipolar transistor: gate where the base was, drain for collector, source for emitter. */
function swapFixBjt(c: Circuit, s: SwitchAt, part: string): Fix[] {
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

const follower: Rule = {
  rule: "load.follower",
  says: "A load at the emitter or source only gets the base or gate voltage less what the transistor needs itself.",
  check: (c) =>
    switchesOf(c).flatMap((s) =>
      s.loads.flatMap((l): Finding[] => {
        if (!isFollower(c, s, l) || !s.gate) return [];
        const [top, low] = l.el.a === s.el.b ? [l.el.a, l.el.b] : [l.el.b, l.el.a];
        const reaches = Math.max(0, s.gate.drive.on(top, low).min);
        const drive_V = s.gate.drive.driver.high.min;
        if (reaches >= l.V.min) return [];
        return [
          {
            rule: "load.follower",
            severity: "fault",
            at: [s.el.ref, l.el.ref],
            message: `${label(c, l.el.ref)} hangs at the ${s.def.kind === "bjt" ? "emitter" : "source"} of ${label(c, s.el.ref)} and gets ${formatV(reaches)} only (${formatV(drive_V)} less ${formatV(drive_V - reaches)}); it wants ${formatV(l.V.min)}. Put it between the supply and the ${s.def.kind === "bjt" ? "collector" : "drain"}.`,
            evidence: { reaches_V: round(reaches), wants_V: round(l.V.min), drive_V: round(drive_V) },
            fixes: followerFix(c, s, l),
          },
        ];
      }),
    ),
};

/** Swaps ends: the load between supply and collector, the emitter to ground. */
function followerFix(c: Circuit, s: SwitchAt, l: LoadAt): Fix[] {
  const [top, low] = s.def.kind === "bjt" ? [s.def.c, s.def.e] : [s.def.d, s.def.s];
  const ends = (ref: string, pin: string) =>
    c.project.links.filter((x) => x.from === `${ref}.${pin}` || x.to === `${ref}.${pin}`);
  const t = s.el.ref;
  const hot = ends(t, top).map((x) => (splitEnd(x.from).ref === t ? x.to : x.from))[0];
  const load = c.netlist.instance(l.el.ref)?.part.pins.filter((p) => p.role === "passive") ?? [];
  const atGround = load.find((p) => c.netlist.netOf(`${l.el.ref}.${p.label}`).kind === "ground");
  const atLow = load.find((p) => c.netlist.netOf(`${l.el.ref}.${p.label}`).id === s.el.b);
  const cold =
    atGround && ends(l.el.ref, atGround.label).map((x) => (splitEnd(x.from).ref === l.el.ref ? x.to : x.from))[0];
  if (!hot || !cold || !atGround || !atLow) return [];
  const gone = [...ends(t, top), ...ends(t, low), ...ends(l.el.ref, atGround.label), ...ends(l.el.ref, atLow.label)];
  const unique = [...new Map(gone.map((x) => [`${x.from}|${x.to}`, x])).values()];
  return [
    {
      id: "low-side",
      label: `Put ${label(c, l.el.ref)} between ${hot} and ${t}.${top}, ${t}.${low} to ground`,
      edits: [
        ...unique.map((x): BasicEdit => ({ type: "removeLink", from: x.from, to: x.to })),
        { type: "addLink", link: { from: `${l.el.ref}.${atGround.label}`, to: hot } },
        { type: "addLink", link: { from: `${l.el.ref}.${atLow.label}`, to: `${t}.${top}` } },
        { type: "addLink", link: { from: `${t}.${low}`, to: cold } },
      ],
    },
  ];
}

/** Heat in a switch at the lasting current, and what its case gets rid of, watts. */
function lastingHeat(s: SwitchAt): { W: number; most: number } {
  const A = s.loads.reduce((sum, l) => sum + l.A.typ, 0);
  if (s.def.kind === "bjt") return { W: A * s.def.VCEsat_V, most: s.def.Ptot_mW / 1000 };
  const stage = s.gate && fetStage({ V: s.gate.V, on: s.def.on, load_A: A, pin_A: 1 });
  return { W: stage?.W ?? 0, most: bareHeat(s.def) };
}

const switchLimit: Rule = {
  rule: "load.switch-limit",
  says: "A transistor has a largest current, a largest voltage, and a heat that its case gets rid of.",
  check: (c) =>
    switchesOf(c).flatMap((s): Finding[] => {
      if (!s.peak_A) return [];
      const most = (s.def.kind === "bjt" ? s.def.Ic_mA : s.def.Id_mA) / 1000;
      const top = railOf(c, s.loads);
      const Vmax = s.def.kind === "bjt" ? s.def.Vceo : s.def.Vds;
      const heat = lastingHeat(s);
      const over = s.peak_A > most || top > Vmax;
      if (!over && heat.W <= heat.most) return [];
      const what =
        s.peak_A > most
          ? `${mA(s.peak_A)} over a limit of ${mA(most)}`
          : top > Vmax
            ? `${formatV(top)} over a limit of ${formatV(Vmax)}`
            : `${heat.W.toFixed(2)} W of heat; ${heat.most} W is what it gets rid of${s.def.kind === "fet" ? " without a heat sink" : ""}`;
      const better = s.gate ? fetFor(c, s.gate.V, s.peak_A, top) : null;
      return [
        {
          rule: "load.switch-limit",
          // A heat sink helps a MOSFET; nothing helps a transistor past its rating.
          severity: over || s.def.kind === "bjt" ? "stop" : "risk",
          at: [s.el.ref, ...s.loads.map((l) => l.el.ref)],
          message: `${label(c, s.el.ref)} would have to carry ${what} for ${s.loads.map((l) => label(c, l.el.ref)).join(", ")}. Take a stronger one.`,
          evidence: {
            load_mA: round(s.peak_A * 1000, 1),
            limit_mA: round(most * 1000, 0),
            supply_V: round(top),
            limit_V: Vmax,
            heat_W: round(heat.W, 2),
          },
          fixes: better && s.def.kind === "fet" ? swapFix(c, s, better) : better ? swapFixBjt(c, s, better) : [],
        },
      ];
    }),
};

/** Loads whose supply voltage is not what they are made for. */
const loadRange: Rule = {
  rule: "load.voltage",
  says: "A motor, coil or lamp is made for a voltage: far less and it does not move, far more and it burns.",
  check: (c) =>
    loadsOf(c).flatMap((l): Finding[] => {
      const rails = [l.el.a, l.el.b].flatMap((id) => {
        const n = netById(c, id);
        return n?.kind === "supply" && n.V ? [n] : [];
      });
      const V = rails[0]?.V;
      if (!V || rails.length !== 1) return [];
      const over = V.min > l.V.max;
      if (!over && V.max >= l.V.min) return [];
      return [
        {
          rule: "load.voltage",
          severity: over ? "stop" : "fault",
          at: [l.el.ref],
          message: `${label(c, l.el.ref)} is made for ${formatV(l.V.min)} to ${formatV(l.V.max)} and hangs at ${formatV(V.typ)}.`,
          evidence: { supply_V: round(V.typ), min_V: round(l.V.min), max_V: round(l.V.max) },
          fixes: [],
        },
      ];
    }),
};

export { switchesOf };
export const loadRules: Rule[] = [needsDriver, noFlyback, gateDrive, baseDrive, follower, switchLimit, loadRange];
