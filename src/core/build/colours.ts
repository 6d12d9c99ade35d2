import type { Circuit } from "../circuit";
import { linkBehind, separateGrounds, type Net } from "../circuit/netlist";

/** Jumper colours that a person without a stated choice is taken to own. */
export const USUAL_COLOURS = ["black", "red", "orange", "yellow", "green", "blue", "violet", "grey", "white", "brown"];

/** Which colours suit a role, best first. Every wire also carries its net's name, so nothing rests on colour. */
const GROUND = ["black", "brown", "grey", "blue"];
const HIGH_SUPPLY = ["red", "orange", "brown"];
const LOW_SUPPLY = ["orange", "red", "yellow"];
const BUS: [name: string, colours: string[]][] = [
  ["SDA", ["blue", "green", "white"]],
  ["SCL", ["yellow", "white", "green"]],
];
const SIGNALS = ["green", "white", "violet", "grey", "brown", "blue", "yellow", "orange"];
/** From here on a supply is red rather than orange, volts. */
const HIGH_V = 4;

/** The first colour of the wishes that is owned and free; else any owned and free one; else the first free wish, to be got. */
function choose(wishes: readonly string[], owned: readonly string[], taken: ReadonlySet<string>): string {
  const free = (list: readonly string[]) => list.filter((c) => !taken.has(c));
  const mine = free(owned);
  return (
    wishes.find((c) => mine.includes(c)) ??
    mine[0] ??
    free(wishes)[0] ??
    free([...SIGNALS, ...USUAL_COLOURS])[0] ??
    wishes[0]!
  );
}

/**
 * A colour for every net from what the person owns: grounds and supplies first, which never share one, then signals, which
 * never wear a supply's or a ground's. Grounds that must stay apart (`apart`) differ from each other. Where too few colours are
 * owned, one is named that has to be got.
 */
export function netColours(
  nets: readonly Net[],
  owned: readonly string[] = USUAL_COLOURS,
  apart: ReadonlySet<string> = new Set(),
): Map<string, string> {
  const have = owned.length ? owned : USUAL_COLOURS;
  const out = new Map<string, string>();
  const grounds = new Set<string>();
  for (const n of nets) {
    if (n.kind !== "ground") continue;
    const common = !apart.has(n.id) && [...grounds][0];
    const colour = common || choose(GROUND, have, apart.has(n.id) ? grounds : new Set());
    grounds.add(colour);
    out.set(n.id, colour);
  }
  const rails = new Set<string>();
  for (const n of nets) {
    if (n.kind !== "supply") continue;
    const colour = choose((n.V?.typ ?? 5) > HIGH_V ? HIGH_SUPPLY : LOW_SUPPLY, have, grounds);
    rails.add(colour);
    out.set(n.id, colour);
  }
  const taken = new Set([...grounds, ...rails]);
  const rest = SIGNALS.filter((c) => have.includes(c) && !taken.has(c));
  const others = have.filter((c) => !taken.has(c));
  const round = rest.length ? rest : others.length ? others : [choose(SIGNALS, [], taken)];
  let next = 0;
  for (const n of nets) {
    if (out.has(n.id)) continue;
    const wish = BUS.find(([name]) => n.name.startsWith(name))?.[1].find((c) => have.includes(c) && !taken.has(c));
    out.set(n.id, wish ?? round[next++ % round.length]!);
  }
  return out;
}

const memo = new WeakMap<Circuit, Map<string, string>>();

/** The colours of a circuit's nets, by id. Remembered for the circuit. */
export function coloursOf(c: Circuit): Map<string, string> {
  const known = memo.get(c);
  if (known) return known;
  const made = netColours(c.netlist.nets, c.project.houseRules.wireColours, separateGrounds(c.netlist));
  memo.set(c, made);
  return made;
}

/** The colour of one wire between two places, as the table names them: what the person gave this wire, else its net's. */
export const wireColour = (c: Circuit, net: string, a: string, b: string): string =>
  linkBehind(c.netlist, a, b)?.colour ?? coloursOf(c).get(net) ?? "black";
