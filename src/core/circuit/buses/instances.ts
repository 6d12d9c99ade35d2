import type { Circuit } from "..";
import { isBusKind } from "../../parts/catalogue";

/** Pins of a board that belong to one bus, and what each of them does on it. */
interface Cluster {
  host: string;
  kind: string;
  pins: Map<string, string>;
}

const key = (host: string, hostPin: string, kind: string) => `${host} ${hostPin} ${kind}`;

/** Bus pins that belong together: those of one part's bus, and all that share a pin with them. */
function clusters(c: Circuit): Cluster[] {
  const out: Cluster[] = [];
  for (const b of c.netlist.bindings) {
    if (!isBusKind(b.need.kind) || !b.need.role || b.chainedAfter) continue;
    const group = c.netlist
      .instance(b.ref)
      ?.part.groups.findIndex((g) => g.kind === b.need.kind && Object.values(g.pins).includes(b.pin));
    const mates = c.netlist.bindings.filter(
      (x) =>
        x.ref === b.ref &&
        x.host === b.host &&
        x.need.kind === b.need.kind &&
        c.netlist
          .instance(x.ref)
          ?.part.groups.findIndex((g) => g.kind === x.need.kind && Object.values(g.pins).includes(x.pin)) === group,
    );
    const mine = new Map(mates.flatMap((x) => (x.need.role ? [[x.hostPin, x.need.role] as const] : [])));
    const joined = out.filter(
      (k) => k.host === b.host && k.kind === b.need.kind && [...mine.keys()].some((p) => k.pins.has(p)),
    );
    for (const k of joined) {
      for (const [p, r] of k.pins) mine.set(p, r);
      out.splice(out.indexOf(k), 1);
    }
    out.push({ host: b.host, kind: b.need.kind, pins: mine });
  }
  return out;
}

/** Buses of the board by which all pins of a cluster can do what they do. */
function candidates(c: Circuit, k: Cluster): string[] {
  const board = c.netlist.instance(k.host)?.part;
  const lists = [...k.pins].map(([pin, role]) =>
    (board?.pins.find((p) => p.label === pin)?.offers ?? []).flatMap((o) =>
      o.kind === k.kind && "role" in o && "bus" in o && o.role === role ? [o.bus] : [],
    ),
  );
  return [...new Set(lists[0] ?? [])].filter((bus) => lists.every((l) => l.includes(bus)));
}

/** To each cluster one of its buses, no bus twice on a board where that can be; the earlier ones of a pin are preferred. */
function distinct(lists: readonly (readonly string[])[]): string[] | null {
  const taken: string[] = [];
  const go = (i: number): boolean => {
    if (i === lists.length) return true;
    for (const bus of lists[i]!) {
      if (taken.includes(bus)) continue;
      taken.push(bus);
      if (go(i + 1)) return true;
      taken.pop();
    }
    return false;
  };
  return go(0) ? taken : null;
}

const memo = new WeakMap<Circuit["netlist"], Map<string, string | null>>();

/**
 * Which bus instance every planned bus pin belongs to, by board, pin and kind; null: none of the chip's. Where pins can be lines
 * of several buses, two lines that are not joined are two buses.
 */
export function busInstances(c: Circuit): ReadonlyMap<string, string | null> {
  const known = memo.get(c.netlist);
  if (known) return known;
  const out = new Map<string, string | null>();
  const all = clusters(c);
  const by = new Map<string, Cluster[]>();
  for (const k of all) by.set(`${k.host} ${k.kind}`, [...(by.get(`${k.host} ${k.kind}`) ?? []), k]);
  for (const group of by.values()) {
    const lists = group.map((k) => candidates(c, k));
    const hard = lists.flatMap((l, i) => (l.length ? [i] : []));
    const chosen = distinct(hard.map((i) => lists[i]!));
    group.forEach((k, i) => {
      const at = hard.indexOf(i);
      const bus = at < 0 ? null : (chosen?.[at] ?? lists[i]![0]!);
      for (const pin of k.pins.keys()) out.set(key(k.host, pin, k.kind), bus);
    });
  }
  memo.set(c.netlist, out);
  return out;
}

/** The bus of a planned pin; undefined where nothing of the kind is planned. */
export const busOfPin = (c: Circuit, host: string, hostPin: string, kind: string) =>
  busInstances(c).get(key(host, hostPin, kind));
