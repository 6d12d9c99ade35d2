import type { Net, Netlist } from "../circuit/netlist";

/** Jumper colours that a person without a stated choice is taken to own. */
export const USUAL_COLOURS = ["black", "red", "orange", "yellow", "green", "blue", "violet", "grey", "white", "brown"];

/** Which colours suit a role, best first. Every wire also carries its net's name, so nothing rests on colour. */
const WISHES: [test: (n: Net) => boolean, colours: string[]][] = [
  [(n) => n.kind === "ground", ["black", "brown", "grey", "blue"]],
  [(n) => n.kind === "supply" && (n.V?.typ ?? 5) > 4, ["red", "orange", "brown"]],
  [(n) => n.kind === "supply", ["orange", "red", "yellow"]],
  [(n) => n.name.startsWith("SDA"), ["blue", "green", "white"]],
  [(n) => n.name.startsWith("SCL"), ["yellow", "white", "green"]],
];
const SIGNALS = ["green", "white", "violet", "grey", "brown", "blue", "yellow", "orange"];

/** The colour that a person gave all wires of a net, where they gave them one. */
export function givenColour(n: Netlist, net: Net): string | undefined {
  const colours = new Set(
    n.expanded.project.links.flatMap((l) => (n.netOf(l.from) === net || n.netOf(l.to) === net ? [l.colour] : [])),
  );
  return colours.size === 1 ? [...colours][0] : undefined;
}

/** A colour for every net from what the person owns: by role first, then round the signal colours. */
export function netColours(nets: readonly Net[], owned: readonly string[] = USUAL_COLOURS): Map<string, string> {
  const have = owned.length ? owned : USUAL_COLOURS;
  const out = new Map<string, string>();
  let next = 0;
  const signals = SIGNALS.filter((c) => have.includes(c));
  for (const n of nets) {
    const wish = WISHES.find(([test]) => test(n))?.[1];
    const colour = wish?.find((c) => have.includes(c)) ?? (wish ? have[0]! : undefined);
    if (colour) out.set(n.id, colour);
    else out.set(n.id, signals.length ? signals[next++ % signals.length]! : have[next++ % have.length]!);
  }
  return out;
}
