import type { Circuit } from "../circuit";
import { optionVars } from "../parts/catalogue";
import type { Instance } from "../circuit/netlist";
import { SIZE_IDS, SIZES } from "./breadboard/sizes";
import { valueOf } from "./names";
import { isFinePitch } from "./solder/heights";
import { spareKind, sparesFor } from "./lists/spares";
import { substitutes } from "./lists/substitutes";
import { wireTable } from "./lists/wires";

export interface BomRow {
  quantity: number;
  spares: number;
  part: string;
  name: string;
  value: string;
  refs: string[];
  note: string;
  /** How many of them are in the drawer; values count as owned in full. */
  owned: number;
  /** What is to be bought, spares included. */
  buy: number;
  /** A value of the person's resistor or capacitor box: as many as are needed. */
  boxed: boolean;
  /** What may be taken instead, as sentences. */
  instead: string[];
}

/** The parts that a grid is made of, each as one of its own. */
function* madeOf(c: Circuit, grid: Instance): Generator<Pick<Instance, "ref" | "part" | "vars">> {
  for (const { part, count } of grid.part.contains ?? []) {
    const def = c.catalogue.get(part) ?? c.project.customParts.find((p) => p.id === part);
    for (let k = 0; def && k < count; k++) yield { ref: grid.ref, part: def, vars: optionVars(def, {}) };
  }
}

/** A row for something that is no part of the circuit: a breadboard, a cable. */
const plain = (part: string, name: string, quantity: number, refs: string[], note: string): BomRow => ({
  quantity,
  spares: 0,
  part,
  name,
  value: "",
  refs,
  note,
  owned: 0,
  buy: quantity,
  boxed: false,
  instead: [],
});

/** The breadboards that the placement stands on, the largest first. */
function breadboards(c: Circuit): BomRow[] {
  const boards = c.project.breadboard?.boards ?? [];
  return SIZE_IDS.filter((s) => boards.includes(s))
    .reverse()
    .map((s) => {
      const { points, mm, railHoles } = SIZES[s];
      const rails = railHoles ? "rails on both sides" : "no rails";
      const n = boards.filter((b) => b === s).length;
      return plain("breadboard", `Breadboard, ${points} points`, n, [], `${mm[0]} × ${mm[1]} mm, ${rails}`);
    });
}

/** Adapter boards for parts whose pads are too close together for wires. */
function adapters(c: Circuit): BomRow[] {
  const rows = new Map<string, string[]>();
  for (const i of c.netlist.expanded.instances.values()) {
    if (!isFinePitch(i)) continue;
    const { pins, pitch_mm } = i.part.body.header!;
    const name = `Adapter board, ${pins} pads ${pitch_mm} mm apart to pins 2.54 mm apart`;
    rows.set(name, [...(rows.get(name) ?? []), i.ref]);
  }
  return [...rows].map(([name, refs]) =>
    plain("adapter", name, refs.length, refs, "soldered onto it before anything else"),
  );
}

/** The cables that are plugged in, by their two plugs. */
function cables(c: Circuit): BomRow[] {
  const rows = new Map<string, string[]>();
  for (const w of c.netlist.wires) {
    if (!w.cable) continue;
    const plug = [w.from, w.to].flatMap((e) => c.netlist.instance(e.ref)?.part.board?.usb.connector ?? [])[0];
    const name = plug ? `USB cable, USB-A to ${plug}` : "USB cable";
    rows.set(name, [...(rows.get(name) ?? []), `${w.from.ref}.${w.from.pin}~${w.to.ref}.${w.to.pin}`]);
  }
  return [...rows].map(([name, refs]) =>
    plain("cable", name, refs.length, refs, "one that carries data, not a charging cable"),
  );
}

/** The bill of materials: like parts together, companions included, then breadboards and cables, wires by colour and length at the end. */
export function partsList(c: Circuit): BomRow[] {
  const rows = new Map<string, BomRow>();
  const { drawer } = c.project;
  const has = (list: readonly number[], v: number) => list.some((x) => Math.abs(x / v - 1) < 0.001);
  const owned = (id: string, vars: Record<string, number>): number => {
    const F = (vars.capacitance_uF ?? 0) * 1e-6;
    if (id === "discrete/resistor" && has(drawer.resistors_ohm, vars.resistance_ohm ?? 0)) return Infinity;
    if (/capacitor|electrolytic/.test(id) && has(drawer.capacitors_F, F)) return Infinity;
    return drawer.parts[id] ?? 0;
  };
  const left = new Map<string, number>();
  const instances = [...c.netlist.expanded.instances.values()].flatMap((i) =>
    i.part.contains ? [...madeOf(c, i)] : [i],
  );
  for (const i of instances) {
    const value = valueOf(i);
    const key = `${i.part.id}|${value}`;
    const row = rows.get(key) ?? {
      quantity: 0,
      spares: 0,
      part: i.part.id,
      name: i.part.name,
      value,
      refs: [],
      note: "",
      owned: 0,
      buy: 0,
      boxed: false,
      instead: [],
    };
    row.quantity += 1;
    if (row.refs.at(-1) !== i.ref) row.refs.push(i.ref);
    row.spares = sparesFor(spareKind(i.part.id), row.quantity, c.project.kit);
    row.instead = substitutes(c, i);
    const stock = left.get(i.part.id) ?? owned(i.part.id, i.vars);
    if (owned(i.part.id, i.vars) === Infinity) {
      row.boxed = true;
      row.owned = row.quantity + row.spares;
    } else if (stock > 0) {
      row.owned += 1;
      left.set(i.part.id, stock - 1);
    }
    row.buy = Math.max(0, row.quantity + row.spares - row.owned);
    if (i.part.body.solder !== "none") row.note = `solder: ${i.part.body.solder}`;
    rows.set(key, row);
  }
  const wires = wireTable(c).map((w): BomRow => ({
    quantity: w.quantity,
    spares: w.spares,
    part: "wire",
    name: w.kind === "jumper wire" ? "Jumper wire" : `Wire, ${w.kind}`,
    value: `${w.colour}, ${w.length_cm} cm, ${w.ends}`,
    refs: w.nets,
    note: "",
    owned: 0,
    buy: w.quantity + w.spares,
    boxed: false,
    instead: [],
  }));
  return [...rows.values(), ...adapters(c), ...breadboards(c), ...cables(c), ...wires];
}
