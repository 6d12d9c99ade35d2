import type { Circuit } from "../../circuit";
import type { Instance } from "../../circuit/netlist";
import { Union } from "../../circuit/netlist/union";
import { joinEnd } from "../../project";
import { halfOf, readHole, SIZES, type Layout, type Trouble } from "../breadboard";
import { nameOf, type Stretch } from "./sharing";

/** The metal clip that a hole belongs to: five holes of a row, or a rail as far as it is one piece. */
function clipOf(l: Layout, hole: string, split: boolean): string {
  const h = readHole(hole, l.sizes);
  if (!h) return `no hole ${hole}`;
  if (h.kind === "row") return `row ${h.board} ${halfOf(h.letter)} ${h.row}`;
  const middle = SIZES[l.sizes[h.board]!].railHoles / 2;
  const piece = split && l.sizes[h.board] === "830" ? (h.n <= middle ? "upper" : "lower") : "whole";
  return `rail ${h.board} ${h.half} ${h.pole} ${piece}`;
}

/** Pins of a part that its own copper joins: several pins of one supply, or of one ground. */
function joinInside(u: Union, i: Instance) {
  const first = new Map<string, string>();
  for (const p of i.part.pins) {
    const supply = p.supply && p.role.startsWith("supply") ? p.supply : "";
    const key = p.role === "ground" ? `ground ${p.domain ?? "gnd"}` : supply;
    if (!key) continue;
    const end = `${i.ref}.${p.label}`;
    const known = first.get(key);
    if (known) u.join(known, end);
    else first.set(key, end);
  }
}

/**
 * Builds the circuit from its own wires, hole by hole: clips of the breadboards (rails in two pieces where such boards are
 * split), legs in holes, wires from hole to hole and from contact to contact. Whatever is then open or joined that should not
 * be is told with its place. What is only claimed to be joined by a row is not believed. Without breadboards: the same, from
 * contact to contact.
 */
export function proveBuild(
  c: Circuit,
  nets: readonly { stretches: readonly Stretch[] }[],
  layout: Layout | null,
): Trouble[] {
  const split = layout?.split ?? true;
  const u = new Union();
  const hole = new Map<string, string>();
  for (const i of c.netlist.expanded.instances.values()) joinInside(u, i);
  for (const p of layout?.parts ?? [])
    for (const h of p.holes) {
      hole.set(`${p.ref}.${h.pin}`, h.hole);
      u.join(`${p.ref}.${h.pin}`, clipOf(layout!, h.hole, split));
    }
  const node = (at: Stretch["a"], h: string | null | undefined) =>
    h && layout ? clipOf(layout, h, split) : nameOf(at);
  for (const { stretches } of nets)
    for (const s of stretches) if (!s.joined) u.join(node(s.a, s.holes?.[0]), node(s.b, s.holes?.[1]));
  const wired = new Set(c.netlist.wires.filter((w) => !w.cable).flatMap((w) => [joinEnd(w.from), joinEnd(w.to)]));
  const where = (end: string) => (hole.has(end) ? `${end} (hole ${hole.get(end)})` : end);
  const out: Trouble[] = [];
  const owner = new Map<string, { net: string; end: string }>();
  for (const net of c.netlist.nets) {
    const groups = new Map<string, string[]>();
    for (const e of net.ends.map(joinEnd).filter((x) => wired.has(x))) {
      const root = u.find(e);
      groups.set(root, [...(groups.get(root) ?? []), e]);
      const other = owner.get(root);
      if (other && other.net !== net.id)
        out.push({
          kind: "joins",
          says: `${where(e)} and ${where(other.end)} belong to different nets, but the build joins them.`,
          at: [e, other.end],
        });
      else owner.set(root, { net: net.id, end: e });
    }
    const [main, ...rest] = [...groups.values()].sort((a, b) => b.length - a.length);
    for (const g of rest)
      out.push({
        kind: "apart",
        says: `${g.map(where).join(", ")} of ${net.name} ${g.length > 1 ? "are" : "is"} not joined to ${where(main![0]!)}: no wire, row or rail leads there.`,
        at: [...g, main![0]!],
      });
  }
  return out;
}
