import type { Circuit } from "../circuit";
import { pinConstants } from "../firmware";
import { fingerprint } from "../project";

/** One line of a pin map for a program of one's own. */
export interface MapRow {
  board: string;
  name: string;
  need: string;
  label: string;
  kind: string;
  pin: string;
  /** The pin's name in a sketch and in MicroPython, where the board has such. */
  sketch: string;
  micropython: string;
}

/** The plan's pins for another program: what is where, under the names that the programs here use. */
export function pinMap(c: Circuit): MapRow[] {
  return c.netlist.expanded.hosts.flatMap((host) => {
    const names = new Map(pinConstants(c, host, "sketch").map((k) => [`${k.ref}.${k.pin}`, k] as const));
    const byPin = new Map(pinConstants(c, host, "sketch").map((k) => [k.hostPin, k]));
    const python = new Map(pinConstants(c, host, "micropython").map((k) => [k.hostPin, k.code]));
    return c.netlist.bindings
      .filter((b) => b.host === host)
      .map((b): MapRow => {
        const k = names.get(`${b.ref}.${b.pin}`) ?? byPin.get(b.hostPin);
        return {
          board: host,
          name: k?.name ?? "",
          need: `${b.ref}.${b.pin}`,
          label: c.netlist.instance(b.ref)!.label,
          kind: `${b.need.kind}${b.need.role ? ` ${b.need.role}` : ""}`,
          pin: b.hostPin,
          sketch: k?.code ?? b.hostPin,
          micropython: python.get(b.hostPin) ?? b.hostPin,
        };
      });
  });
}

/** The pin map as lines that any program can take over. */
export function pinMapText(c: Circuit): string {
  const seen = new Set<string>();
  const lines = pinMap(c).flatMap((r) => {
    const key = `${r.name} ${r.pin}`;
    if (seen.has(key)) return [];
    seen.add(key);
    return [`${r.name} = ${r.pin}`];
  });
  return [`plan ${fingerprint(c.project)}`, ...lines, ""].join("\n");
}
