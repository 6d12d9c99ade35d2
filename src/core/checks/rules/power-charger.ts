import type { Circuit } from "../../circuit";
import type { Instance, Net } from "../../circuit/netlist";
import { sourcesOn, type SourceAt } from "../../circuit/power";
import { evaluate } from "../../quantity";
import { label, mA, round } from "../help";
import type { Found, Fix, Rule } from "../types";

type Charger = NonNullable<Instance["part"]["charger"]>;

/** Many cells name half of the most for every day, and some of them nothing above it. */
const DAILY_SHARE = 0.5;
/** A cell's full voltage may differ from the charger's by so much: tolerances of both, volts. */
const FULL_SLACK_V = 0.06;

const netOfSupply = (c: Circuit, inst: Instance, key: string): Net | undefined =>
  inst.part.pins
    .filter((p) => p.supply === key && p.role.startsWith("supply"))
    .map((p) => c.netlist.netOf(`${inst.ref}.${p.label}`))
    .find((n) => n.kind === "supply");

/** The charger at a current that the cell takes, where that can be set. */
function slower(inst: Instance, most_A: number): Fix[] {
  const o = inst.part.options.find((x) => x.key === "charge_mA");
  if (o?.kind !== "number" || inst.inserted) return [];
  const value = Math.floor((most_A * 1000) / o.step) * o.step;
  return value < o.min
    ? []
    : [
        {
          id: "charge-slower",
          label: `Change its resistor, so that it charges with ${value} mA`,
          edits: [{ type: "setOption", ref: inst.ref, key: "charge_mA", value }],
        },
      ];
}

/** What is wrong between a charger and what is on its cell terminals. */
function onCell(c: Circuit, inst: Instance, x: Charger, net: Net, s: SourceAt): Found[] {
  const { source } = s;
  const at = [inst.ref, s.ref];
  const found = (
    severity: "stop" | "fault",
    message: string,
    evidence: Found["evidence"],
    fixes: Fix[] = [],
  ): Found[] => [{ rule: "power.charger", severity, at, message, evidence, fixes }];
  if (source.charge_mA === undefined)
    return found(
      "stop",
      source.chemistry
        ? `${label(c, s.ref)} is not made to be charged, and ${label(c, inst.ref)} would charge it: such cells leak, burst or burn. Take cells that can be charged, of the kind that this charger is for.`
        : `${label(c, s.ref)} is no cell, and stands where ${label(c, inst.ref)} charges one: it belongs to the charger's input.`,
      { source: s.ref },
    );
  const full = evaluate(source.V.max, s.inst.vars);
  if (Math.abs(full - x.full_V) > FULL_SLACK_V)
    return found(
      "stop",
      `${label(c, inst.ref)} charges to ${x.full_V} V, but ${label(c, s.ref)} is full at ${round(full, 2)} V: ${full < x.full_V ? "overcharged, cells burn" : "it can't fill it, and more stands at its terminals than they are for"}. Take a charger for this kind and number of cells.`,
      { charges_to_V: x.full_V, full_V: round(full, 2) },
    );
  const most_A = evaluate(source.charge_mA, s.inst.vars) / 1000;
  const with_A = evaluate(x.mA, inst.vars) / 1000;
  if (with_A > most_A * 1.001)
    return found(
      "stop",
      `${label(c, inst.ref)} charges with ${mA(with_A)}, but ${label(c, s.ref)} takes at most ${mA(most_A)}: it gets hot, swells or burns.`,
      { charges_mA: round(with_A * 1000, 0), most_mA: round(most_A * 1000, 0) },
      [...slower(inst, most_A * DAILY_SHARE), ...slower(inst, most_A)].slice(0, 1),
    );
  return [...quick(c, inst, s, with_A, most_A), ...whileCharging(c, inst, x, net)];
}

/** Faster than every cell of the kind takes. */
function quick(c: Circuit, inst: Instance, s: SourceAt, with_A: number, most_A: number): Found[] {
  if (with_A <= most_A * DAILY_SHARE * 1.001) return [];
  return [
    {
      rule: "power.charger",
      severity: "note",
      at: [inst.ref, s.ref],
      message: `${label(c, inst.ref)} charges ${label(c, s.ref)} with ${mA(with_A)}: many cells take that, some only ${mA(most_A * DAILY_SHARE)}. Read the charging current on the cell or in its data sheet first.`,
      evidence: { charges_mA: round(with_A * 1000, 0), most_mA: round(most_A * DAILY_SHARE * 1000, 0) },
      fixes: slower(inst, most_A * DAILY_SHARE),
    },
  ];
}

/** A charger without a way of its own for the load sees the project's current, and never finds the end. */
function whileCharging(c: Circuit, inst: Instance, x: Charger, cell: Net): Found[] {
  const fed = netOfSupply(c, inst, x.from);
  if (x.shares || !fed?.V) return [];
  const stops_A = evaluate(x.stops_mA, inst.vars) / 1000;
  const draws_A = c.power.limits.find((l) => l.kind === "source" && l.net === cell.id)?.flow.typ ?? 0;
  if (draws_A <= stops_A) return [];
  return [
    {
      rule: "power.charger",
      severity: "note",
      at: [inst.ref],
      message: `${label(c, inst.ref)} ends when its current falls to ${mA(stops_A)}, but while it charges the project draws ${mA(draws_A)} through it: it never ends, and the cell stays at its highest voltage, which wears it. Switch the project off while charging, or take a charger that feeds both.`,
      evidence: { draws_mA: round(draws_A * 1000, 0), stops_mA: round(stops_A * 1000, 0) },
      fixes: [],
    },
  ];
}

export const powerCharger: Rule = {
  rule: "power.charger",
  says: "A charger fits its cells: their kind and number, the current that they take, and what else hangs on them while they fill.",
  check: (c) =>
    [...c.netlist.expanded.instances.values()].flatMap((inst): Found[] => {
      const x = inst.part.charger;
      const net = x && netOfSupply(c, inst, x.cell);
      return net ? sourcesOn(c.netlist, net).flatMap((s) => onCell(c, inst, x, net, s)) : [];
    }),
};
