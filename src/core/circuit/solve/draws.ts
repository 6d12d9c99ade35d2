import type { NetElement, Netlist } from "../netlist/types";
import type { ExtraLoad } from "../power/tree";
import type { Flow, Solved } from "./solved";

/** Resistors that take less than this are signals, not loads, amperes. */
const WORTH_A = 5e-3;
/** Below this nothing flows, amperes. */
const NOTHING_A = 1e-6;

const eats = (e: NetElement) => e.kind === "led" || e.kind === "load";

/** What an element takes by state: a light what the solver found; a motor or coil its data's figures, less what stands in its way. */
function flowOf(f: Flow, row: NetElement[]): ExtraLoad["flow"] {
  const { A } = f.element;
  if (!A || !A.typ) return { idle: 0, typ: f.A.typ, peak: f.A.worst };
  if (!row.some((e) => e !== f.element && (e.kind === "resistor" || eats(e)))) return A;
  const scale = f.A.typ / A.typ;
  return { idle: A.idle * scale, typ: f.A.typ, peak: Math.max(A.peak * scale, f.A.typ) };
}

/**
 * What lights, motors, coils and resistors draw, and from which rail: the way their current comes by, through contacts,
 * shunts, transistors and pins. Everything in one row counts once.
 */
export function drawsOf(n: Netlist, solved: Solved): ExtraLoad[] {
  const seen = new Set<NetElement>();
  const out: ExtraLoad[] = [];
  const order = [...solved.flows.values()].sort((a, b) => Number(eats(b.element)) - Number(eats(a.element)));
  for (const f of order) {
    const el = f.element;
    const row = [el, ...f.from.passed, ...f.to.passed];
    // A part behind a switched ground is counted with its supply already.
    if (el.module) for (const e of row) seen.add(e);
    if (seen.has(el) || f.A.typ < NOTHING_A) continue;
    if (!eats(el) && (el.kind !== "resistor" || f.A.typ < WORTH_A)) continue;
    // A light without a resistor has no sensible current; its own rule speaks for it.
    if (el.kind === "led" && !row.some((e) => e.kind === "resistor")) continue;
    for (const e of row) if (eats(e) || e.kind === "resistor") seen.add(e);
    const label = n.instance(el.ref)?.label ?? el.ref;
    const { end } = f.from;
    if (end.kind === "rail" && end.net.kind === "supply")
      out.push({ net: end.net.id, node: (f.from.passed.at(-1) ?? el).ref, ref: el.ref, label, flow: flowOf(f, row) });
    else if (end.kind === "pin") {
      const node = `${end.driver.ref}:${end.driver.level.supply}`;
      out.push({ net: n.netOf(node).id, node, ref: el.ref, label, flow: flowOf(f, row) });
    }
  }
  return out;
}
