import type { Problem } from "../problem";
import { solve, type Solution } from "./solve";

/** A part of all plans: some needs held to a pin, others kept off some. */
interface Piece {
  held: ReadonlyMap<number, number>;
  off: ReadonlyMap<number, ReadonlySet<number>>;
}

const narrowed = (p: Problem, { held, off }: Piece): Problem => ({
  ...p,
  needs: p.needs.map((n, i) =>
    held.has(i) || off.has(i)
      ? { ...n, choices: n.choices.filter((c) => (held.get(i) ?? c.pin) === c.pin && !off.get(i)?.has(c.pin)) }
      : n,
  ),
});

/** Choice indices of a narrowed problem, as indices of the whole one. */
function widened(p: Problem, q: Problem, s: Solution): Solution {
  return { ...s, choice: s.choice.map((k, n) => p.needs[n]!.choices.indexOf(q.needs[n]!.choices[k]!)) };
}

/** Parts of one kind are alike: swapping their pins is no other plan. `kindOf` names what a part is. */
const signature = (p: Problem, s: Solution, kindOf: (ref: string) => string) =>
  p.needs
    .map((n, i) => `${kindOf(n.ref)}.${n.id.split(".")[1]}@${n.choices[s.choice[i]!]!.pin}`)
    .sort()
    .join(" ");

/** The narrowings tried at most; plans that differ only by a swap use some up. */
const MOST_TRIED = 400;

/**
 * The `k` cheapest plans that really differ, the optimum first: every set of plans is split by where it first leaves the
 * best of it, and each piece is solved exactly, so none is missed. Fewer when there are no more, or the tries run out.
 */
export function bestPlans(p: Problem, k: number, kindOf: (ref: string) => string): Solution[] {
  const open: { piece: Piece; s: Solution }[] = [];
  let tried = 0;
  const put = (piece: Piece) => {
    if (tried++ >= MOST_TRIED) return;
    const q = narrowed(p, piece);
    const s = solve(q);
    if (s) open.push({ piece, s: widened(p, q, s) });
  };
  put({ held: new Map(), off: new Map() });
  const out: Solution[] = [];
  const seen = new Set<string>();
  while (open.length && out.length < k) {
    open.sort((a, b) => a.s.cost - b.s.cost);
    const { piece, s } = open.shift()!;
    const key = signature(p, s, kindOf);
    const fresh = !seen.has(key);
    seen.add(key);
    if (fresh) out.push(s);
    if (out.length >= k) break;
    const held = new Map(piece.held);
    const twins = new Set<string>();
    p.needs.forEach((n, i) => {
      if (piece.held.has(i)) return;
      const pin = n.choices[s.choice[i]!]!.pin;
      // Of alike parts that stand on alike terms only the first is asked to leave its pin.
      const look = `${kindOf(n.ref)}.${n.id.split(".")[1]} ${n.present} ${n.locked}`;
      const more = n.choices.some((c) => c.pin !== pin);
      if (more && !(n.group === null && n.present === null && twins.has(look)))
        put({ held: new Map(held), off: new Map(piece.off).set(i, new Set([...(piece.off.get(i) ?? []), pin])) });
      twins.add(look);
      held.set(i, pin);
    });
  }
  return out;
}
