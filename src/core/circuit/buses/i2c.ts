import type { Circuit } from "..";
import { i2cRise, i2cSpeed, pullUpWindow, type PullUpWindow } from "../formulas";
import type { Net } from "../netlist";
import type { Triple } from "../../quantity";
import { askedClock, busAt, lineLoad, type LineLoad } from "./wires";

export interface I2cMember {
  ref: string;
  label: string;
  sda: string;
  scl: string;
  address: string | undefined;
  /** Every address that it answers to, its own first. */
  addresses: string[];
  max_Hz: number;
}
export interface Pull {
  ref: string;
  ohm: number;
  V: Triple;
  rail: string;
  internal: boolean;
}
export interface I2cBus {
  id: string;
  host: string | null;
  bus: string | null;
  sda: Net;
  scl: Net;
  members: I2cMember[];
  pulls: Pull[];
  /** All pull-ups of the data line in parallel, ohms; Infinity when there is none. */
  ohm: number;
  V: number;
  load: LineLoad;
  clock_Hz: number;
  asked: boolean;
  slowest: I2cMember | null;
  window: PullUpWindow;
  rise_s: number;
  rise_max_s: number;
}

/** Without a wish the programs run the bus at this clock, hertz. */
export const I2C_CLOCK_HZ = 100_000;
/** What a part without a stated limit is held to: the standard mode that every part knows. */
const STANDARD_HZ = 100_000;

/** Resistors of a net to fed supplies. */
export function pullUpsOf(c: Circuit, net: Net): Pull[] {
  const rails = new Map(c.netlist.nets.filter((n) => n.kind === "supply").map((n) => [n.id, n]));
  return c.netlist.elements.flatMap((e) => {
    if (e.kind !== "resistor" || (e.a !== net.id && e.b !== net.id)) return [];
    const rail = rails.get(e.a === net.id ? e.b : e.a);
    return rail?.V ? [{ ref: e.ref, ohm: e.ohm!, V: rail.V, rail: rail.name, internal: e.internal ?? false }] : [];
  });
}

const memo = new WeakMap<Circuit["netlist"], I2cBus[]>();

/** Every I2C bus: who is on it, at what addresses, its pull-ups, capacitance, clock, and the window that these leave. */
export function i2cBuses(c: Circuit): I2cBus[] {
  const known = memo.get(c.netlist);
  if (known) return known;
  const lines = new Map<Net, I2cMember[]>();
  for (const inst of c.netlist.expanded.instances.values())
    for (const g of inst.part.groups) {
      if (g.kind !== "i2c" || !g.pins.sda || !g.pins.scl) continue;
      const sda = c.netlist.netOf(`${inst.ref}.${g.pins.sda}`);
      if (sda.ends.length < 2) continue;
      const addresses = [...(g.address ? [g.address] : []), ...(g.also ?? [])].map((a) => a.toLowerCase());
      lines.set(sda, [
        ...(lines.get(sda) ?? []),
        {
          ref: inst.ref,
          label: inst.label,
          sda: g.pins.sda,
          scl: g.pins.scl,
          address: g.address?.toLowerCase(),
          addresses,
          max_Hz: g.max_Hz ?? STANDARD_HZ,
        },
      ]);
    }
  const out = [...lines].map(([sda, members]): I2cBus => {
    const b = c.netlist.bindings.find(
      (x) => x.need.kind === "i2c" && x.need.role === "sda" && members.some((m) => m.ref === x.ref),
    );
    const host = b?.host ?? null;
    const bus = b ? busAt(c, b.host, b.hostPin, "i2c", "sda") : null;
    const pulls = pullUpsOf(c, sda);
    const ohm = pulls.length ? 1 / pulls.reduce((s, p) => s + 1 / p.ohm, 0) : Infinity;
    const rail = host ? c.netlist.netOf(`${host}:${c.netlist.instance(host)!.part.board?.logicSupply ?? ""}`)?.V : null;
    const V = pulls.length ? Math.max(...pulls.map((p) => p.V.max)) : (rail?.max ?? 3.3);
    const load = lineLoad(c, sda);
    const asked = askedClock(c, host, bus);
    const clock_Hz = asked ?? I2C_CLOCK_HZ;
    const slowest = [...members].sort((x, y) => x.max_Hz - y.max_Hz)[0] ?? null;
    return {
      id: `${host ?? members[0]!.ref}:${bus ?? sda.name}`,
      host,
      bus,
      sda,
      scl: c.netlist.netOf(`${members[0]!.ref}.${members[0]!.scl}`),
      members,
      pulls,
      ohm,
      V,
      load,
      clock_Hz,
      asked: asked !== null,
      slowest,
      window: pullUpWindow(V, load.total_F, clock_Hz),
      rise_s: i2cRise(ohm, load.total_F),
      rise_max_s: i2cSpeed(clock_Hz).rise_s,
    };
  });
  memo.set(c.netlist, out);
  return out;
}
