import { bjtStage, fetStage, reservoir } from "../circuit/formulas";
import { formatOhm, formatSI, formatV, type Triple } from "../quantity";
import { dot, ground, pin, rail, two, wire, type Drawing, type Item } from "./drawing";
import { ratingFor } from "./led";
import type { Sum } from "./types";

const drive = (V: number): Triple => ({ min: V * 0.95 - 0.1, typ: V, max: V * 1.05 });
/** What a diode across a coil stands: the coil's current, and twice the supply. */
const flyback = (A: number) => (A <= 0.2 ? "1N4148" : A <= 1 ? "1N4007" : "a Schottky diode for that current");

/** Low-side switch: load between rail and transistor, diode across it, control resistor from the pin. */
function stageDrawing(
  kind: "npn" | "nmos",
  o: { V: string; R: string; pull?: string; load: string; coil: boolean },
): Drawing {
  const items: Item[] = [
    rail(8.5, 1, o.V),
    two(o.coil ? "coil" : "resistor", [8.5, 1], [8.5, 4], "load", o.load),
    wire([8.5, 4], [8.5, 5]),
    { kind: kind, at: [8.5, 6], name: kind === "npn" ? "NPN" : "MOSFET" },
    wire([8.5, 7], [8.5, 8]),
    ground(8.5, 8),
    pin(1, 6, "pin"),
    wire([1, 6], [2, 6]),
    two("resistor", [2, 6], [5, 6], kind === "npn" ? "base" : "gate", o.R),
    wire([5, 6], [7.5, 6]),
  ];
  if (o.coil)
    items.push(
      wire([8.5, 1], [12, 1]),
      two("diode", [12, 4], [12, 1], "flyback", ""),
      wire([12, 4], [8.5, 4]),
      dot(8.5, 4),
      dot(8.5, 1),
    );
  if (o.pull) items.push(dot(5, 6), two("resistor", [5, 6], [5, 9], "pull-down", o.pull), ground(5, 9));
  return {
    width: 13.5,
    height: 10.5,
    says: `The load sits between ${o.V} and the ${kind === "npn" ? "collector; the emitter goes to ground, the base through" : "drain; the source goes to ground, the gate through"} ${o.R} to the pin${o.coil ? "; a diode lies across the load, its ring at the plus" : ""}.`,
    items,
  };
}

const COIL = [
  { value: 1, label: "a coil or motor" },
  { value: 0, label: "a lamp or heater" },
];

/** NPN transistor as a switch. */
export const bjtSum: Sum = {
  id: "transistor",
  name: "Transistor (NPN) that switches a load",
  says: "Base resistor, current from the pin, heat, and the diode for a coil.",
  does: "A small current into the base lets a larger one flow from collector to emitter. A tenth to a twentieth of the load's current keeps it fully on.",
  without:
    "The load straight on the pin draws more than the pin gives; with too large a base resistor the transistor stays half open and gets hot.",
  fields: [
    { key: "V", label: "Pin voltage", unit: "V", value: 5, min: 1.5, max: 15 },
    { key: "load_V", label: "Supply of the load", unit: "V", value: 12, min: 1, max: 60 },
    { key: "load_A", label: "Current of the load", unit: "A", value: 0.04, min: 0.001, max: 3 },
    { key: "hFE", label: "Smallest gain in the data sheet", unit: "", value: 35, min: 5, max: 1000 },
    { key: "pin_A", label: "What the pin may give", unit: "A", value: 0.02, min: 0.001, max: 0.1 },
    { key: "coil", label: "The load is", unit: "", value: 1, min: 0, max: 1, choices: COIL },
  ],
  compute(v, owned) {
    const s = bjtStage({
      V: drive(v.V!),
      Vbe: { min: 0.6, typ: 0.7, max: 1 },
      hFE_min: v.hFE!,
      VCEsat_V: 0.3,
      load_A: v.load_A!,
      owned: owned.resistors_ohm,
    });
    if (!s)
      return {
        ok: false,
        message: `${formatV(v.V!)} leaves nothing for the base (it takes up to 1 V). Take a higher pin voltage.`,
      };
    const warnings: string[] = [];
    if (s.pin_A > v.pin_A!)
      warnings.push(
        `The base takes ${formatSI(s.pin_A, "A")}, more than the pin's ${formatSI(v.pin_A!, "A")}: take a MOSFET or a driver chip.`,
      );
    if (s.beta > v.hFE!) warnings.push(`Its gain is only sure to be ${v.hFE}: it may not switch fully on.`);
    if (v.coil && v.load_A!) warnings.push(`A coil needs a diode across it: ${flyback(v.load_A!)}, ring at the plus.`);
    return {
      ok: true,
      answers: [
        { key: "ohm", label: "Base resistor", value: s.ohm, unit: "Ω", main: true },
        { key: "pin_A", label: "From the pin, at most", value: s.pin_A, unit: "A" },
        { key: "beta", label: "Load over base current", value: s.beta, unit: "" },
        { key: "W", label: "Heat in the transistor", value: s.W, unit: "W" },
      ],
      steps: [
        `IB = IC / 15 = ${formatSI(v.load_A! / 15, "A")}`,
        `R = (VOH − VBE) / IB = (${(v.V! * 0.95 - 0.1).toFixed(2)} V − 1.00 V) / ${formatSI(v.load_A! / 15, "A")} = ${formatOhm(s.exact)}`,
        `next value down: ${formatOhm(s.ohm)}; it carries ${formatSI(s.R_W, "W")}, take ${ratingFor(s.R_W)} W`,
        `P = IC·VCE(sat) + IB·VBE = ${formatSI(s.W, "W")}`,
      ],
      warnings,
      drawing: stageDrawing("npn", {
        V: formatV(v.load_V!),
        R: formatOhm(s.ohm),
        load: formatSI(v.load_A!, "A"),
        coil: v.coil === 1,
      }),
    };
  },
};

/** N-channel MOSFET as a switch. */
export const fetSum: Sum = {
  id: "mosfet",
  name: "MOSFET that switches a load",
  says: "Whether the pin opens it, its drop and heat, gate resistor and pull-down.",
  does: "Voltage at the gate opens a path of a few hundredths of an ohm from drain to source. It takes no current to stay open.",
  without:
    "Without the pull-down the load runs while the board starts; without the gate resistor each switching knocks the pin with a short current.",
  fields: [
    { key: "V", label: "Pin voltage", unit: "V", value: 3.3, min: 1.2, max: 15 },
    { key: "load_V", label: "Supply of the load", unit: "V", value: 12, min: 1, max: 60 },
    { key: "load_A", label: "Current of the load", unit: "A", value: 1, min: 0.001, max: 60 },
    { key: "Vgs", label: "Gate voltage of the data sheet's on-resistance", unit: "V", value: 2.5, min: 1, max: 12 },
    { key: "on_ohm", label: "On-resistance at that gate voltage", unit: "Ω", value: 0.048, min: 0.0005, max: 20 },
    { key: "Qg", label: "Gate charge", unit: "nC", value: 12, min: 0.1, max: 500 },
    { key: "pin_A", label: "What the pin likes to give", unit: "A", value: 0.008, min: 0.001, max: 0.1 },
    { key: "coil", label: "The load is", unit: "", value: 1, min: 0, max: 1, choices: COIL },
  ],
  compute(v, owned) {
    const V = drive(v.V!);
    const s = fetStage({
      V,
      on: [{ Vgs: v.Vgs!, ohm: v.on_ohm! }],
      load_A: v.load_A!,
      pin_A: v.pin_A!,
      Qg_nC: v.Qg!,
      owned: owned.resistors_ohm,
    });
    if (!s)
      return {
        ok: false,
        message: `The pin gives at least ${formatV(V.min)}; the data sheet promises its on-resistance only from ${formatV(v.Vgs!)} on. Take a transistor specified at a lower gate voltage.`,
      };
    const warnings: string[] = [];
    if (s.W > 1) warnings.push(`${formatSI(s.W, "W")} of heat wants a heat sink or a better transistor.`);
    if (v.coil) warnings.push(`A coil needs a diode across it: ${flyback(v.load_A!)}, ring at the plus.`);
    return {
      ok: true,
      answers: [
        { key: "gate_ohm", label: "Gate resistor", value: s.gate_ohm, unit: "Ω", main: true },
        { key: "pull_ohm", label: "Gate pull-down", value: s.pull_ohm, unit: "Ω", main: true },
        { key: "drop_V", label: "Lost in the transistor", value: s.drop_V, unit: "V" },
        { key: "W", label: "Heat in it", value: s.W, unit: "W" },
        { key: "switch_s", label: "Time to switch", value: s.switch_s ?? 0, unit: "s" },
      ],
      steps: [
        `gate drive ${formatV(V.min)} ≥ ${formatV(v.Vgs!)}: on-resistance ${formatOhm(s.ohm)} is guaranteed; 1.5 times that when hot`,
        `Rgate = V / I = ${formatV(V.max)} / ${formatSI(v.pin_A!, "A")}, next value up ${formatOhm(s.gate_ohm)}`,
        `P = I²·R·1.5 = ${formatSI(s.W, "W")}`,
        `t = Q / (V / 2 / R) = ${formatSI(s.switch_s ?? 0, "s")}`,
      ],
      warnings,
      drawing: stageDrawing("nmos", {
        V: formatV(v.load_V!),
        R: formatOhm(s.gate_ohm),
        pull: formatOhm(s.pull_ohm),
        load: formatSI(v.load_A!, "A"),
        coil: v.coil === 1,
      }),
    };
  },
};

/** A gauge or relay coil for another voltage: driver stage and, where needed, the resistor that takes the rest. */
export const coilSum: Sum = {
  id: "coil",
  name: "12 V gauge or relay coil",
  says: "Its current, the transistor stage for it, and a resistor when the supply is higher than the coil's voltage.",
  does: "The transistor connects the coil to ground when the pin is high. Board and coil keep their own supplies and share ground.",
  without:
    "A 5 V or 3.3 V pin neither reaches the coil's voltage nor gives its current; switching off without a diode kills the transistor.",
  fields: [
    { key: "V", label: "Pin voltage", unit: "V", value: 5, min: 1.5, max: 15 },
    { key: "supply_V", label: "Supply of the coil", unit: "V", value: 12, min: 3, max: 60 },
    { key: "coil_V", label: "Coil made for", unit: "V", value: 12, min: 3, max: 60 },
    { key: "coil_ohm", label: "Resistance of the coil", unit: "Ω", value: 400, min: 5, max: 20_000 },
  ],
  compute(v, owned) {
    const A = v.coil_V! / v.coil_ohm!;
    const over = v.supply_V! - v.coil_V!;
    const s = bjtStage({
      V: drive(v.V!),
      Vbe: { min: 0.6, typ: 0.7, max: 1 },
      hFE_min: 35,
      VCEsat_V: 0.3,
      load_A: A,
      owned: owned.resistors_ohm,
    });
    if (over < -v.coil_V! * 0.2)
      return {
        ok: false,
        message: `${formatV(v.supply_V!)} is too little for a ${formatV(v.coil_V!)} coil; it wants at least ${formatV(v.coil_V! * 0.8)}.`,
      };
    if (!s) return { ok: false, message: `${formatV(v.V!)} leaves nothing for the transistor's base.` };
    const series = over > v.coil_V! * 0.1 ? over / A : 0;
    const W = series ? A * A * series : 0;
    return {
      ok: true,
      answers: [
        { key: "ohm", label: "Base resistor", value: s.ohm, unit: "Ω", main: true },
        ...(series
          ? [{ key: "series_ohm", label: "Resistor before the coil", value: series, unit: "Ω", main: true }]
          : []),
        { key: "load_A", label: "Current of the coil", value: A, unit: "A" },
        { key: "pin_A", label: "From the pin, at most", value: s.pin_A, unit: "A" },
      ],
      steps: [
        `I = V / R = ${formatV(v.coil_V!)} / ${formatOhm(v.coil_ohm!)} = ${formatSI(A, "A")}`,
        ...(series
          ? [
              `Rseries = (${v.supply_V} − ${v.coil_V}) V / I = ${formatOhm(series)}, ${formatSI(W, "W")}: take ${ratingFor(W)} W`,
            ]
          : []),
        `base resistor for IC/15: ${formatOhm(s.exact)}, next value down ${formatOhm(s.ohm)}`,
      ],
      warnings: [
        `A diode lies across the coil, ring at the plus: ${flyback(A)}.`,
        "The grounds of the coil's supply and of the board must be joined.",
      ],
      drawing: stageDrawing("npn", {
        V: formatV(v.supply_V!),
        R: formatOhm(s.ohm),
        load: formatOhm(v.coil_ohm!),
        coil: true,
      }),
    };
  },
};

/** Capacitors at a supply: the fast one and the large one. */
export const decouplingSum: Sum = {
  id: "decoupling",
  name: "Capacitors at a supply",
  says: "How much capacitance bridges a current step until the supply follows.",
  does: "A capacitor beside the part gives current at once; the wires from the supply are too slow for sudden steps.",
  without: "The voltage dips at every step: chips restart, lights flicker, readings jump.",
  fields: [
    { key: "I", label: "Current step", unit: "A", value: 1, min: 0.0001, max: 50 },
    { key: "t", label: "Time until the supply follows", unit: "s", value: 0.0001, min: 1e-9, max: 0.1 },
    { key: "dV", label: "Allowed dip", unit: "V", value: 0.2, min: 0.005, max: 5 },
    { key: "V", label: "Supply voltage", unit: "V", value: 5, min: 1, max: 60 },
  ],
  compute(v, owned) {
    const exact = reservoir(v.I!, v.t!, v.dV!);
    const list = [
      1e-8, 4.7e-8, 1e-7, 2.2e-7, 4.7e-7, 1e-6, 2.2e-6, 4.7e-6, 1e-5, 2.2e-5, 4.7e-5, 1e-4, 2.2e-4, 4.7e-4, 1e-3,
      2.2e-3, 4.7e-3, 1e-2,
    ];
    const mine = [...owned.capacitors_F].filter((x) => x >= exact && x <= exact * 5).sort((a, b) => a - b)[0];
    const F = mine ?? list.find((x) => x >= exact * 0.999) ?? exact;
    const rated = [6.3, 10, 16, 25, 35, 50, 63, 100].find((x) => x >= v.V! * 1.5) ?? v.V! * 2;
    return {
      ok: true,
      answers: [
        { key: "F", label: "Capacitor", value: F, unit: "F", main: true },
        { key: "rated", label: "Voltage printed on it, at least", value: rated, unit: "V" },
      ],
      steps: [
        `C = I·t / ΔV = ${formatSI(v.I!, "A")} · ${formatSI(v.t!, "s")} / ${formatV(v.dV!)} = ${formatSI(exact, "F")}`,
        `next value up: ${formatSI(F, "F")}, for ${rated} V or more`,
      ],
      warnings:
        F >= 1e-6
          ? [
              "An electrolytic capacitor has a plus and a minus: the stripe marks the minus. The wrong way round it bursts.",
            ]
          : [],
      drawing: {
        width: 8,
        height: 6,
        says: `${formatSI(F, "F")} from ${formatV(v.V!)} to ground, as close to the part as can be.`,
        items: [
          rail(2, 1, formatV(v.V!)),
          wire([2, 1], [6, 1]),
          dot(3, 1),
          two("capacitor", [3, 1], [3, 4], "C", formatSI(F, "F")),
          ground(3, 4),
          pin(6, 1, "part's supply", "right"),
        ],
      },
    };
  },
};
