import { findPin, isPointToPoint } from "../../parts/catalogue";
import type { Netlist } from "../../circuit/netlist";
import { endOn, splitEnd } from "../../project";
import { capabilityCounts } from "./capability";
import { endOf, type Problem, type ProblemNeed } from "./problem";

const KIND_WORDS: Record<string, string> = {
  "digital-out": "a digital output",
  "digital-in": "a digital input",
  "digital-io": "a pin for both directions",
  pwm: "a PWM pin",
  adc: "an analogue input",
  dac: "an analogue output",
  interrupt: "an interrupt pin",
};
const PORT_WORDS: Record<string, string> = {
  uart: "serial port (UART)",
  can: "CAN port",
  bridge: "bridge amplifier",
  i2s: "port for sound (I2S)",
  i2c: "I2C bus",
  spi: "SPI bus",
};

/** What a need asks for, in words: "the I2C data line (SDA)". */
export function needWords(n: Pick<ProblemNeed, "need">): string {
  const { kind, role, require, use } = n.need;
  if (kind === "program") return `the ${role?.toUpperCase()} pin for programming`;
  if (kind === "bridge") return `a bridge amplifier's ${role?.toUpperCase()}`;
  if (kind === "pwm" && use) return `pulses for a ${use}`;
  const base = KIND_WORDS[kind] ?? `${kind.toUpperCase()} ${role?.toUpperCase() ?? ""}`.trim();
  return require?.length ? `${base} with ${require.join(" and ")}` : base;
}

/** A pin of the problem as people name it: the label alone on the host, with the part elsewhere. */
const pinWords = (p: Problem, pin: number) => endOn(p.host, endOf(p, pin));

/**
 * A sentence for the choice that was made, from its own prices and the prices of what was passed over. `standing`: told
 * of a plan that stands, where nothing is about to move.
 */
export function whyChosen(p: Problem, n: ProblemNeed, choice: number, sharing: string[], standing = false): string {
  const c = n.choices[choice]!;
  const label = pinWords(p, c.pin);
  if (n.locked) return `${label}: locked by you`;
  const parts: string[] = [];
  const usual = c.bus && !c.prices.some((x) => x.reason === "bus");
  if (c.prices.some((x) => x.reason === "software"))
    parts.push(`${label} can be ${needWords(n)} in software: no controller is free for it`);
  else if (c.bus) parts.push(`${label} is ${usual ? "the usual" : "a"} ${needWords(n)} pin of ${c.bus}`);
  else parts.push(`${label} can be ${needWords(n)}`);
  if (sharing.length) parts.push(`shared with ${sharing.join(" and ")}`);
  if (n.present === endOf(p, c.pin) && !standing) parts.push("the wire stays where it is");
  const spent = c.prices.filter((x) => x.reason === "scarcity");
  if (!c.bus && !spent.length) parts.push("it spends nothing rare");
  for (const cap of n.need.prefer ?? [])
    if (!c.prices.some((x) => x.reason === "preference")) parts.push(`it has the ${cap} that this pin prefers`);
  for (const u of c.uses) {
    const r = p.resources[u.resource]!;
    if (n.need.kind === "pwm" || u.slot !== null)
      parts.push(`${r.says} runs ${u.mode}`.replace("runs watched", "watches it"));
  }
  const better = n.choices.some((x) => x.cost < c.cost && x.pin !== c.pin);
  for (const x of c.prices.filter((x) => ["hazard", "preference", "level"].includes(x.reason)))
    parts.push(`mind: ${x.says}`);
  if (better) parts.push("cheaper pins serve other parts");
  return parts.join("; ");
}

const many = (n: number, one: string) => `${n} ${one}${n === 1 ? "" : one.endsWith("s") ? "es" : "s"}`;
const list = (items: readonly string[]) =>
  items.length > 1 ? `${items.slice(0, -1).join(", ")} and ${items.at(-1)}` : (items[0] ?? "");

/** A part by the name that the person gave it, with its reference. */
const partWords = (netlist: Netlist, ref: string) => {
  const label = netlist.instance(ref)?.label;
  return label && label !== ref ? `${label} (${ref})` : ref;
};

/** One need for which there is no pin at all. */
function brokenWords(p: Problem, n: ProblemNeed, netlist: Netlist): string {
  const board = netlist.instance(p.host)!;
  if (!n.locked) return `${n.id} wants ${needWords(n)}, and ${board.label} has no pin that could be it.`;
  const { ref, pin: label } = splitEnd(n.locked);
  const pin = findPin(netlist.instance(ref)!.part, label);
  return `${n.id} is locked to ${n.locked}, which can't serve as ${needWords(n)}${pin?.hazards?.[0] ? ` (${pin.hazards[0].says})` : ""}. Unlock it or lock it to a pin that can.`;
}

/** Groups that can't all get a bus. */
function busWords(p: Problem, core: ProblemNeed[], netlist: Netlist): string | null {
  const clash = p.clashes.find(([a, b]) => core.some((n) => n.group === a) && core.some((n) => n.group === b));
  if (!clash) return null;
  const kind = p.groups[clash[0]]!.kind;
  const members = core.filter((n) => n.group !== null && p.groups[n.group]!.kind === kind);
  const buses = new Set(members.flatMap((n) => n.choices.map((c) => c.bus).filter((b) => !b?.startsWith("software "))));
  // A port takes one: whoever else wants one belongs into the sentence, though two are enough to clash.
  const clashing = (g: number) => p.clashes.some(([a, b, why]) => why === clash[2] && (a === g || b === g));
  const kin = p.groups.filter((g) => g.kind === kind && clashing(g.id) && p.needs.some((n) => n.group === g.id));
  const refs = [...new Set(kin.map((g) => partWords(netlist, g.ref)))];
  const port = PORT_WORDS[kind]!;
  if (isPointToPoint(kind))
    return `${list(refs)} each want a ${port} of their own, and this board has ${buses.size === 0 ? "none" : buses.size === 1 ? "one" : buses.size} that ${buses.size === 1 ? "reaches" : "reach"} the header.`;
  return `${list(refs)} each want an ${port} of their own (${clash[2].replace("both", refs.length > 2 ? "all" : "both")}), and this board has ${buses.size}.`;
}

/** Needs that can only be served from timers or lines that are too few, or run at another rate. */
function sharedWords(p: Problem, core: ProblemNeed[]): string | null {
  if (!core.every((n) => n.choices.length && n.choices.every((c) => c.uses.length))) return null;
  const used = [...new Set(core.flatMap((n) => n.choices.flatMap((c) => c.uses.map((u) => u.resource))))];
  const rates = core.map((n) => `${n.id} (${[...new Set(n.choices.flatMap((c) => c.uses.map((u) => u.mode)))][0]})`);
  const names = used.map((r) => p.resources[r]!.says);
  const shown =
    names.length > 4 ? `${many(names.length, "shared resource")} (${names.slice(0, 3).join(", ")} …)` : list(names);
  return `${list(rates)} can only be served from ${shown}, and ${names.length === 1 ? "it can't" : "those can't"} do all of that at once.`;
}

/** Why a set of needs can't all be met, in words, with what the board has. */
export function clashWords(p: Problem, core: ProblemNeed[], netlist: Netlist): string {
  const board = netlist.instance(p.host)!;
  const ids = (needs: ProblemNeed[]) => [...new Set(needs.map((n) => n.id))].join(", ");
  const broken = core.find((n) => !n.choices.length);
  if (broken) return brokenWords(p, broken, netlist);
  const locked = core.filter((n) => n.locked);
  if (locked.length > 1 && new Set(locked.map((n) => n.locked)).size < locked.length)
    return `${ids(locked)} are locked to the same pin, and they can't share one.`;
  const said = busWords(p, core, netlist) ?? sharedWords(p, core);
  if (said) return said;
  const kinds = new Map<string, ProblemNeed[]>();
  for (const n of core) kinds.set(needWords(n), [...(kinds.get(needWords(n)) ?? []), n]);
  const usable = new Set(core.flatMap((n) => n.choices.map((c) => c.pin))).size;
  const asks = [...kinds].map(([w, needs]) => `${needs.length} × ${w} (${ids(needs)})`).join(" and ");
  const alike = core.every((n) => n.need.kind === core[0]!.need.kind);
  const special =
    alike && !p.pins.some((x) => x.ref !== p.host) ? capabilityCounts(board.part).get(core[0]!.need.kind) : undefined;
  return `${asks} can't all be met: ${board.label} has ${many(special ?? usable, "pin")} that would do for ${core.length === 1 ? "it" : "these"}.`;
}
