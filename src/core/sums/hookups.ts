import { i2cBuses } from "../circuit/buses";
import { switchesOf, triple } from "../checks/loads";
import type { Circuit } from "../circuit";
import { bjtAt } from "../circuit/formulas";
import { evaluate } from "../quantity";
import type { CompanionKey } from "../project";
import type { Hookup } from "./take";

/** The house value of a button's pull, ohms. */
const PULL_OHM = 10_000;
const round = (v: number) => Number(v.toPrecision(4));
const companion = (c: Circuit, ref: string, key: CompanionKey) => {
  const v = c.project.parts.find((p) => p.ref === ref)?.companions?.[key];
  return v === undefined
    ? "nothing yet"
    : v === null
      ? "left out"
      : v === "internal"
        ? "the chip's own"
        : [v.ohm && `${[v.ohm].flat().join(" Ω and ")} Ω`, v.F && `${round(v.F * 1e6)} µF`]
            .filter(Boolean)
            .join(", ") || "planned";
};
const mine = (c: Circuit, ref: string) => c.project.parts.some((p) => p.ref === ref);
const logicOf = (c: Circuit, ref: string) => {
  const host = c.netlist.instance(c.netlist.instance(ref)?.host ?? "");
  return host ? (c.netlist.netOf(`${host.ref}:${host.part.board?.logicSupply ?? ""}`)?.V?.typ ?? 3.3) : 3.3;
};

function lights(c: Circuit): Hookup[] {
  const seen = new Set<string>();
  return c.leds.flatMap((p) => {
    const inst = c.netlist.instance(p.ref);
    const ref = inst?.inserted?.by ?? p.ref;
    if (!p.V || seen.has(ref) || !mine(c, ref)) return [];
    seen.add(ref);
    const end = [p.high, p.low].find((e) => e.kind === "pin");
    const level = end?.kind === "pin" ? c.netlist.level(end.end.ref, end.end.pin) : undefined;
    return [
      {
        id: `light-${ref}`,
        ref,
        label: c.netlist.instance(ref)!.label,
        sum: "light",
        now: companion(c, ref, "seriesResistor"),
        values: {
          V: round(p.V.typ),
          Vf: round(p.Vf.typ / p.leds.length),
          n: p.leds.length,
          I: (inst?.vars.current_mA ?? 8) / 1000,
          pin_ohm: level ? evaluate(level.outTyp_ohm ?? 0, inst?.vars) : 0,
        },
      },
    ];
  });
}

function switches(c: Circuit): Hookup[] {
  return switchesOf(c).flatMap((s): Hookup[] => {
    if (!s.gate || !s.loads.length || !mine(c, s.el.ref)) return [];
    const rail = s.loads
      .flatMap((l) => [l.el.a, l.el.b])
      .flatMap((id) => c.netlist.nets.find((n) => n.id === id && n.kind === "supply")?.V ?? [])[0];
    const limit = (c.netlist.level(s.gate.ref, s.gate.pin)?.pin_mA?.recommended ?? 8) / 1000;
    const common = {
      V: round(s.gate.V.typ),
      load_V: round(rail?.typ ?? 5),
      load_A: round(s.peak_A),
      pin_A: limit,
      coil: s.loads.some((l) => l.el.inductive) ? 1 : 0,
    };
    const base = {
      id: `switch-${s.el.ref}`,
      ref: s.el.ref,
      label: c.netlist.instance(s.el.ref)!.label,
      now: companion(c, s.el.ref, "seriesResistor"),
    };
    // The sum is that of a single transistor; a pair in one case has other voltages.
    if (s.def.kind === "bjt" && s.def.saturated) return [];
    if (s.def.kind === "bjt")
      return [
        {
          ...base,
          sum: "transistor",
          values: { ...common, hFE: bjtAt({ ...s.def, Vbe: triple(s.def.Vbe, {}) }, s.peak_A).hFE_min },
        },
      ];
    const on = [...s.def.on].filter((x) => x.Vgs <= s.gate!.V.min).at(-1) ?? s.def.on[0]!;
    return [
      {
        ...base,
        sum: "mosfet",
        values: { ...common, Vgs: on.Vgs, on_ohm: on.ohm, ...(s.def.Qg_nC && { Qg: s.def.Qg_nC }) },
      },
    ];
  });
}

/** Signals that arrive too high: the divider that the level rules would offer. */
const signals = (c: Circuit): Hookup[] =>
  c.levels
    .filter(
      (v) => v.driver.how === "push-pull" && mine(c, v.driver.ref) && c.netlist.instance(v.receiver.ref)?.part.board,
    )
    .filter((v) => v.highest_V > v.ceiling || c.project.parts.find((p) => p.ref === v.driver.ref)?.companions?.divider)
    .map((v) => ({
      id: `divider-${v.driver.ref}.${v.driver.pin}`,
      ref: v.driver.ref,
      label: `${c.netlist.instance(v.driver.ref)!.label}, ${v.driver.pin}`,
      sum: "divider",
      now: companion(c, v.driver.ref, "divider"),
      values: {
        V: round(v.driver.V.typ),
        tol: round(((v.driver.V.max - v.driver.V.typ) / v.driver.V.typ) * 100),
        VIH: round(v.VIH),
        ceiling: round(v.ceiling),
      },
      pin: v.driver.pin,
    }));

function contacts(c: Circuit): Hookup[] {
  return [...c.netlist.expanded.instances.values()].flatMap((i): Hookup[] => {
    const rule = i.part.companions.find((x) => x.compute === "button-pull");
    if (!rule || !mine(c, i.ref)) return [];
    const V = round(logicOf(c, i.ref));
    const level = c.netlist.instance(i.host ?? "")?.part.levels.main;
    const at = (x: number | string | undefined, or: number) => round(x === undefined ? or : evaluate(x, { V, I: 0 }));
    return [
      {
        id: `pull-${i.ref}`,
        ref: i.ref,
        label: i.label,
        sum: "pull",
        now: companion(c, i.ref, "pullUp"),
        values: { V, I: V / PULL_OHM },
      },
      {
        id: `debounce-${i.ref}`,
        ref: i.ref,
        label: i.label,
        sum: "debounce",
        now: companion(c, i.ref, "filter"),
        values: { V, VIH: at(level?.VIH, V * 0.7), VIL: at(level?.VIL, V * 0.3) },
        pin: rule.pin,
      },
    ];
  });
}

function sensors(c: Circuit): Hookup[] {
  return [...c.netlist.expanded.instances.values()].flatMap((i): Hookup[] => {
    const el = i.part.elements.find((e) => e.kind === "resistor");
    if (!/^discrete\/(ldr|thermistor)/.test(i.part.id) || !el || !mine(c, i.ref)) return [];
    const mid = i.vars.resistance_ohm ?? 10_000;
    const V = round(logicOf(c, i.ref));
    const bits = c.netlist.instance(i.host ?? "")?.part.board?.analog?.bits ?? 10;
    return [
      {
        id: `sensor-${i.ref}`,
        ref: i.ref,
        label: i.label,
        sum: "sensor",
        now: companion(c, i.ref, "pullDown"),
        values: { V, min_ohm: mid / 10, max_ohm: mid * 10, bits, full_V: V },
      },
    ];
  });
}

const supplies = (c: Circuit): Hookup[] =>
  [...c.netlist.expanded.instances.values()].flatMap((i): Hookup[] => {
    const rule = i.part.companions.find((x) => x.key === "bulkCapacitor");
    const V = rule && c.netlist.netOf(`${i.ref}.${rule.pin}`)?.V;
    const load = c.power.limits.flatMap((l) => l.loads).find((l) => l.ref === i.ref);
    if (!rule || !V || !mine(c, i.ref)) return [];
    return [
      {
        id: `bulk-${i.ref}`,
        ref: i.ref,
        label: i.label,
        sum: "decoupling",
        now: companion(c, i.ref, "bulkCapacitor"),
        values: { I: round(load?.flow.peak ?? 0.1), V: round(V.typ) },
      },
    ];
  });

const buses = (c: Circuit): Hookup[] =>
  i2cBuses(c).map((b) => ({
    id: `i2c-${b.id}`,
    ref: b.members[0]!.ref,
    label: `I2C bus with ${b.members.map((m) => m.label).join(", ")}`,
    sum: "i2c-pull-up",
    now: Number.isFinite(b.ohm) ? `${Math.round(b.ohm)} Ω in all` : "nothing yet",
    values: {
      V: round(b.V / 1.05),
      C: round(b.load.total_F),
      clock: b.clock_Hz <= 100_000 ? 100_000 : b.clock_Hz <= 400_000 ? 400_000 : 1_000_000,
    },
  }));

/** Every place in a project where one of the sums applies. */
export const hookupsOf = (c: Circuit): Hookup[] => [
  ...lights(c),
  ...switches(c),
  ...signals(c),
  ...contacts(c),
  ...sensors(c),
  ...supplies(c),
  ...buses(c),
];
