import { findPin } from "../catalogue";
import type { Netlist } from "../netlist";
import { capabilityCounts } from "./capability";
import type { Problem, ProblemNeed } from "./problem";

const KIND_WORDS: Record<string, string> = {
  "digital-out": "a digital output",
  "digital-in": "a digital input",
  "digital-io": "a pin for both directions",
  pwm: "a PWM pin",
  adc: "an analogue input",
  dac: "an analogue output",
  interrupt: "an interrupt pin",
};

/** What a need asks for, in words: "the I2C data line (SDA)". */
export function needWords(n: Pick<ProblemNeed, "need">): string {
  const { kind, role, require } = n.need;
  const base = KIND_WORDS[kind] ?? `${kind.toUpperCase()} ${role?.toUpperCase() ?? ""}`.trim();
  return require?.length ? `${base} with ${require.join(" and ")}` : base;
}

/**
 * A sentence for the choice that was made, from its own prices and the prices of what was passed over. `standing`: told
 * of a plan that stands, where nothing is about to move.
 */
export function whyChosen(p: Problem, n: ProblemNeed, choice: number, sharing: string[], standing = false): string {
  const c = n.choices[choice]!;
  const label = p.pins[c.pin]!.label;
  if (n.locked) return `${label}: locked by you`;
  const parts: string[] = [];
  const usual = c.bus && !c.prices.some((x) => x.reason === "bus");
  if (c.bus) parts.push(`${label} is ${usual ? "the usual" : "a"} ${needWords(n)} pin of ${c.bus}`);
  else parts.push(`${label} can be ${needWords(n)}`);
  if (sharing.length) parts.push(`shared with ${sharing.join(" and ")}`);
  if (n.present === label && !standing) parts.push("the wire stays where it is");
  const spent = c.prices.filter((x) => x.reason === "scarcity");
  if (!c.bus && !spent.length) parts.push("it spends nothing rare");
  for (const cap of n.need.prefer ?? [])
    if (!c.prices.some((x) => x.reason === "preference")) parts.push(`it has the ${cap} that this pin prefers`);
  const better = n.choices.some((x) => x.cost < c.cost && x.pin !== c.pin);
  for (const x of c.prices.filter((x) => x.reason === "hazard" || x.reason === "preference"))
    parts.push(`mind: ${x.says}`);
  if (better) parts.push("cheaper pins serve other parts");
  return parts.join("; ");
}

/** Why a set of needs can't all be met, in words, with what the board has. */
export function clashWords(p: Problem, core: ProblemNeed[], netlist: Netlist): string {
  const board = netlist.instance(p.host)!;
  const labels = (list: ProblemNeed[]) => [...new Set(list.map((n) => n.id))].join(", ");
  const broken = core.filter((n) => n.locked && !n.choices.length);
  if (broken.length) {
    const n = broken[0]!;
    const pin = findPin(board.part, n.locked!);
    return `${n.id} is locked to ${p.host}.${n.locked}, which can't serve as ${needWords(n)}${pin?.hazards?.[0] ? ` (${pin.hazards[0].says})` : ""}. Unlock it or lock it to a pin that can.`;
  }
  const locked = core.filter((n) => n.locked);
  if (locked.length > 1 && new Set(locked.map((n) => n.locked)).size < locked.length)
    return `${labels(locked)} are locked to the same pin, and they can't share one.`;
  const clash = p.clashes.find(([a, b]) => core.some((n) => n.group === a) && core.some((n) => n.group === b));
  if (clash) {
    const kind = p.groups[clash[0]]!.kind.toUpperCase();
    const buses = new Set(p.needs.flatMap((n) => (n.group === clash[0] ? n.choices.map((c) => c.bus) : [])));
    const refs = [...new Set(core.filter((n) => n.group !== null).map((n) => n.ref))];
    return `${refs.join(", ")} each want a ${kind} bus of their own (${clash[2]}), and this board has ${buses.size}.`;
  }
  const kinds = new Map<string, ProblemNeed[]>();
  for (const n of core) kinds.set(needWords(n), [...(kinds.get(needWords(n)) ?? []), n]);
  const counts = capabilityCounts(board.part);
  const usable = new Set(core.flatMap((n) => n.choices.map((c) => c.pin))).size;
  const asks = [...kinds].map(([w, list]) => `${list.length} × ${w} (${labels(list)})`).join(" and ");
  const special = core.every((n) => n.need.kind === core[0]!.need.kind) ? counts.get(core[0]!.need.kind) : undefined;
  return `${asks} can't all be met: ${board.label} has ${special ?? usable} pin${(special ?? usable) === 1 ? "" : "s"} that would do for ${core.length === 1 ? "it" : "these"}.`;
}
