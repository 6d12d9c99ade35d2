import { Union } from "../../circuit/netlist/union";
import type { At } from "../solder/carrier";
import type { PlugBoard } from "./types";

const key = (a: At) => `${a.row} ${a.column}`;
const words = (a: At) => `row ${a.row}, column ${a.column}`;
/** Wires that a joint holds. */
const MOST = 3;

/**
 * Follows the wires from hole to hole and tells what is open, joined, or in one another's way; knows nothing of how they were
 * laid. `groups`: ends that must be joined, and the net that they belong to.
 */
export function provePlug(
  b: Omit<PlugBoard, "trouble">,
  groups: readonly { net: string; name: string; ends: string[] }[],
): string[] {
  const out: string[] = [];
  const lead = new Map<string, string>();
  const take = (at: At, says: string) => {
    const other = lead.get(key(at));
    if (other) out.push(`${says} and ${other} would share the hole at ${words(at)}.`);
    lead.set(key(at), says);
    if (at.row < 1 || at.row > b.rows || at.column < 1 || at.column > b.columns)
      out.push(`${says} would stand beside the board, at ${words(at)}.`);
  };
  for (const h of b.header) take(h.at, `${b.host}.${h.pin ?? `${h.header}${h.index}`}`);
  for (const p of b.parts) for (const x of p.pins) take(x.at, x.end ?? `a leg of ${p.ref}`);
  for (const w of b.wires) if (w.through) take(w.through.at, `the wire from ${w.from} to ${w.to}`);
  for (const [i, p] of b.parts.entries())
    for (const q of b.parts.slice(i + 1))
      if (
        p.body.x1 < q.body.x2 - 1e-6 &&
        q.body.x1 < p.body.x2 - 1e-6 &&
        p.body.y1 < q.body.y2 - 1e-6 &&
        q.body.y1 < p.body.y2 - 1e-6
      )
        out.push(`${p.name} and ${q.name} would lie on one another.`);

  const u = new Union();
  const many = new Map<string, number>();
  for (const w of b.wires) {
    u.join(key(w.a), key(w.b));
    for (const at of [w.a, w.b]) many.set(key(at), (many.get(key(at)) ?? 0) + 1);
  }
  for (const [at, n] of many)
    if (n > MOST) out.push(`${n} wires would meet at ${lead.get(at)}: a joint holds ${MOST}.`);
  const holeOf = new Map<string, At>();
  for (const h of b.header) if (h.pin) holeOf.set(`${b.host}.${h.pin}`, h.at);
  for (const p of b.parts) for (const x of p.pins) if (x.end) holeOf.set(x.end, x.at);
  const netAt = new Map<string, { net: string; end: string }>();
  for (const g of groups) {
    const roots = new Set<string>();
    for (const e of g.ends) {
      const at = holeOf.get(e);
      if (!at) {
        out.push(`${e} has no hole on the board.`);
        continue;
      }
      const root = u.find(key(at));
      roots.add(root);
      const other = netAt.get(root);
      if (other && other.net !== g.net) out.push(`${e} and ${other.end} would be joined at ${words(at)}.`);
      netAt.set(root, { net: g.net, end: e });
    }
    if (roots.size > 1) out.push(`${g.ends.join(", ")} would not all be joined: ${g.name}.`);
  }
  // A leg that no group names must not hang on a wire.
  const named = new Set(groups.flatMap((g) => g.ends));
  for (const p of b.parts)
    for (const x of p.pins)
      if (many.has(key(x.at)) && !(x.end && named.has(x.end)))
        out.push(`A wire would end at ${x.end ?? `a leg of ${p.ref}`}.`);
  for (const h of b.header)
    if (many.has(key(h.at)) && !(h.pin && named.has(`${b.host}.${h.pin}`)))
      out.push(`A wire would end at ${b.host}.${h.pin ?? h.index}.`);
  return [...new Set(out)];
}
