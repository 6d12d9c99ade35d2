import { circuitOf, type Circuit } from "../circuit";
import type { Binding } from "../circuit/netlist";
import { findPin, type Catalogue, type Pin } from "../parts/catalogue";
import { effectiveNeed, waysToServe, hostFacts } from "../plan/assign";
import { farOf, linksAt, splitEnd, type BasicEdit, type Project } from "../project";

/** A line that prescribes a pin: what it calls it, and which pin. */
export interface GivenPin {
  line: number;
  name: string;
  token: string;
}

/** What became of a given pin. `served`: it is locked; everything else says why not. */
export interface GivenRow extends GivenPin {
  /** The board's pin, as an endpoint. */
  pin: string | null;
  need: string | null;
  state: "served" | "there already" | "no such pin" | "no such need" | "may be several" | "can't" | "clash";
  says: string;
  /** Needs that fit the name as well, to choose from. */
  choices: string[];
}

const FORMS: readonly RegExp[] = [
  /^\s*#define\s+(\w+)\s+\(?\s*([A-Za-z]*\d*\w*)\s*\)?\s*(?:\/\/.*|\/\*.*)?$/,
  /^\s*(?:static\s+)?(?:constexpr|const)\s+(?:static\s+)?(?:unsigned\s+)?\w+\s+(\w+)\s*(?:=|\{)\s*\(?([A-Za-z]*\d*\w*)\)?\s*\}?\s*;/,
  /^\s*(?:static\s+)?(?:u?int\d*(?:_t)?|byte|short|long|int|auto)\s+(\w+)\s*=\s*([A-Za-z]*\d*\w*)\s*;/,
  /^\s*(\w+)\s*=\s*(?:machine\.)?Pin\(\s*["']?(\w+)["']?/,
  /^\s*(\w+)\s*=\s*(?:board|microcontroller\.pin)\.(\w+)\s*(?:#.*)?$/,
  /^\s*(\w+)\s*=\s*["']?([A-Za-z]*\d+|[A-Za-z]+\d\w*)["']?\s*(?:#.*|\/\/.*|;.*)?$/,
  /^\s*["']?([A-Za-z][\w .-]*?)["']?\s*[:,;\t|]\s*["']?([A-Za-z]*\d+\w*)["']?\s*(?:[,;\t|].*)?$/,
  /^\s*\|\s*([A-Za-z][\w .-]*?)\s*\|\s*([A-Za-z]*\d+\w*)\s*\|.*$/,
];
const LINES = 2000;

/** Lines of a program, a table or a list that give a name a pin; everything else is passed over. */
export function readGiven(text: string): GivenPin[] {
  return text
    .slice(0, 400_000)
    .split(/\r?\n/)
    .slice(0, LINES)
    .flatMap((line, i) => {
      for (const form of FORMS) {
        const m = form.exec(line.slice(0, 300));
        if (m?.[1] && m[2] && /\d/.test(m[2])) return [{ line: i + 1, name: m[1].trim(), token: m[2] }];
      }
      return [];
    });
}

/** The board's pin that a token of a program means: as printed, by another name, or by its number in one of the targets. */
function pinOf(c: Circuit, host: string, token: string): Pin | null {
  const part = c.netlist.instance(host)?.part;
  if (!part) return null;
  const exact = findPin(part, token) ?? findPin(part, token.toUpperCase());
  if (exact?.offers) return exact;
  const named = part.pins.find((p) => p.offers && Object.values(p.names ?? {}).some((n) => n === token));
  if (named) return named;
  const number = /^(?:GPIO_?(?:NUM_)?|GP|IO|D|PIN_?)?(\d+)$/i.exec(token);
  if (!number) return null;
  const n = Number(number[1]);
  return (
    part.pins.find((p) => p.offers && p.gpio === n) ??
    part.pins.find((p) => p.offers && new RegExp(`^(D|GP|GPIO|IO)?${n}$`).test(p.label)) ??
    null
  );
}

/** Words of a program's name: LED_PIN, ledPin, kLed1, "status led". */
const wordsOf = (name: string): string[] =>
  name
    .replace(/([a-z])([A-Z])/g, "$1 $2")
    .replace(/([A-Za-z])(\d)/g, "$1 $2")
    .toLowerCase()
    .split(/[^a-z0-9]+/)
    // Whatever a program calls its coloured lights, it ends so.
    .map((w) => (/pixels?$/.test(w) ? "pixel" : w))
    .filter((w) => w && !["pin", "k", "p", "gpio", "io", "port", "number", "num", "no"].includes(w));

/** Names of signals that programs use for what is printed otherwise. */
const SAME: Record<string, string[]> = {
  ss: ["cs"],
  cs: ["cs", "ss"],
  clk: ["sck", "scl", "clk"],
  clock: ["sck", "scl", "clk"],
  sck: ["sck", "clk"],
  miso: ["miso", "do", "so", "dout"],
  mosi: ["mosi", "di", "din", "si"],
  data: ["din", "dat", "data", "sda", "out"],
  trigger: ["trig"],
  button: ["button", "push", "switch"],
  btn: ["button"],
  switch: ["button", "toggle", "switch"],
  pot: ["potentiometer"],
  knob: ["potentiometer"],
  dht: ["dht22", "dht11"],
  pixel: ["strip", "ws2812b", "pixels"],
  strip: ["strip"],
  buzzer: ["buzzer", "speaker"],
  speaker: ["speaker", "buzzer"],
  motor: ["motor", "pump"],
  lamp: ["led", "lamp"],
};

interface Target {
  need: string;
  ref: string;
  pin: string;
  words: Set<string>;
  own: Set<string>;
  single: boolean;
}

function targets(c: Circuit, host: string): Target[] {
  return [...c.netlist.expanded.instances.values()].flatMap((i) => {
    if (i.inserted || i.host !== host || i.part.board) return [];
    const needs = i.part.pins.filter((p) => p.need);
    const words = wordsOf(`${i.part.name} ${i.part.tags.join(" ")} ${i.part.id.split("/")[1]!.replace(/-/g, " ")}`);
    return needs.map((p) => ({
      need: `${i.ref}.${p.label}`,
      ref: i.ref,
      pin: p.label,
      words: new Set([...words, ...wordsOf(p.label)]),
      own: new Set([...wordsOf(`${i.ref} ${i.label}`), p.label.toLowerCase()]),
      single: needs.length === 1,
    }));
  });
}

function score(t: Target, words: readonly string[]): number {
  let sum = 0;
  let named = false;
  for (const w of words) {
    const like = [w, ...(SAME[w] ?? [])];
    if (like.some((x) => t.pin.toLowerCase() === x)) {
      sum += 4;
      named = true;
    } else if (like.some((x) => t.own.has(x))) sum += 3;
    else if (like.some((x) => t.words.has(x))) sum += 2;
    else if (/^\d+$/.test(w)) sum -= 1;
    else sum -= 1;
  }
  // A part with several pins has to be named by the pin.
  return t.single || named ? sum : sum - 3;
}

/** Numbers in names tell alike parts apart in their order: LED1 and LED2, button a and button b. */
function byOrder(found: Target[], words: readonly string[]): Target[] {
  const n = Number(words.find((w) => /^\d+$/.test(w)));
  if (!n || found.length < 2) return found;
  const exact = found.filter((t) => new RegExp(`\\D${n}$`).test(t.ref));
  return exact.length === 1 ? exact : found;
}

/**
 * Pins that a program, a plug or a schematic prescribes, matched with the needs of a board's parts: what is clear becomes a locked
 * wire, everything else says why not. `chosen` names the need for lines that fit several, by their name.
 */
export function takeGiven(
  project: Project,
  catalogue: Catalogue,
  given: readonly GivenPin[],
  chosen: Readonly<Record<string, string>> = {},
  at?: string,
): { rows: GivenRow[]; edits: BasicEdit[] } {
  const c = circuitOf(project, catalogue);
  const host = at ?? c.netlist.expanded.hosts[0];
  const rows: GivenRow[] = [];
  const edits: BasicEdit[] = [];
  const takenNeed = new Map<string, string>();
  const takenPin = new Map<string, { need: string; name: string; share: string }>();
  if (!host) return { rows, edits };
  const all = targets(c, host);
  for (const g of given) {
    const row = (state: GivenRow["state"], says: string, more: Partial<GivenRow> = {}) =>
      rows.push({ ...g, pin: null, need: null, choices: [], state, says, ...more });
    const pin = pinOf(c, host, g.token);
    if (!pin) {
      row("no such pin", `${c.netlist.instance(host)!.label} has no pin ${g.token} that a program can use.`);
      continue;
    }
    const end = `${host}.${pin.label}`;
    const words = wordsOf(g.name);
    const rated = all.map((t) => ({ t, s: score(t, words) })).filter((x) => x.s > 0);
    const best = Math.max(0, ...rated.map((x) => x.s));
    const fitting = byOrder(
      rated.filter((x) => x.s === best).map((x) => x.t),
      words,
    );
    const free = fitting.filter((t) => !takenNeed.has(t.need));
    const wish = chosen[g.name];
    const pick = wish ? all.find((t) => t.need === wish) : free.length === 1 ? free[0] : undefined;
    if (!pick) {
      if (!free.length)
        row("no such need", `Nothing in this project is called ${g.name}.`, {
          pin: end,
          choices: all.map((t) => t.need),
        });
      else
        row("may be several", `${g.name} may be ${free.map((t) => t.need).join(" or ")}.`, {
          pin: end,
          choices: free.map((t) => t.need),
        });
      continue;
    }
    const inst = c.netlist.instance(pick.ref)!;
    const def = findPin(inst.part, pick.pin)!;
    const need = effectiveNeed(c.netlist, pick.ref, def);
    const group = inst.part.groups.find((x) => x.kind === need.kind && Object.values(x.pins).includes(pick.pin));
    const ways = waysToServe(pin, need, hostFacts(project, c.netlist, host, pick.ref, group?.id));
    if (!ways.some((w) => w.ok)) {
      const why = ways.find((w) => !w.ok);
      row("can't", `${pick.need} can't be at ${pin.label}: ${why && !why.ok ? why.why : "the pin does not do it"}.`, {
        pin: end,
        need: pick.need,
      });
      continue;
    }
    const share =
      need.kind === "i2c" || need.kind === "spi" ? `${need.kind} ${"role" in need ? need.role : ""}` : pick.need;
    const there = takenPin.get(end);
    if (there && there.share !== share) {
      row(
        "clash",
        `${there.name} and ${g.name} are both given ${pin.label}; one pin can't serve ${there.need} and ${pick.need}.`,
        { pin: end, need: pick.need },
      );
      continue;
    }
    takenNeed.set(pick.need, g.name);
    takenPin.set(end, { need: pick.need, name: g.name, share });
    const old = bindingOf(c, pick.need);
    const kept = linksAt(project, pick.need).find((l) => farOf(l, pick.need) === end);
    if (kept) edits.push({ type: "lock", from: kept.from, to: kept.to, locked: true });
    else {
      for (const l of linksAt(project, pick.need))
        if (splitEnd(farOf(l, pick.need)).ref === host) edits.push({ type: "removeLink", from: l.from, to: l.to });
      edits.push({ type: "addLink", link: { from: pick.need, to: end, locked: true, by: "hand" } });
    }
    row(
      kept ? "there already" : "served",
      kept
        ? `${pick.need} is at ${pin.label}, and is kept there.`
        : `${pick.need} goes to ${pin.label}${old ? ` instead of ${old.hostPin}` : ""}, and is kept there.`,
      { pin: end, need: pick.need },
    );
  }
  // What stood on a given pin without being given one itself has to go: it is planned anew.
  for (const l of project.links)
    for (const end of [l.from, l.to]) {
      const t = takenPin.get(end);
      const far = farOf(l, end);
      const other = all.find((x) => x.need === far);
      if (!t || !other || takenNeed.has(far) || l.locked) continue;
      const need = findPin(c.netlist.instance(other.ref)!.part, other.pin)!.need!;
      const share =
        need.kind === "i2c" || need.kind === "spi" ? `${need.kind} ${"role" in need ? need.role : ""}` : far;
      if (share !== t.share) edits.push({ type: "removeLink", from: l.from, to: l.to });
    }
  return { rows, edits: unique(edits) };
}

const bindingOf = (c: Circuit, need: string): Binding | undefined =>
  c.netlist.bindings.find((b) => `${b.ref}.${b.pin}` === need);
const unique = (edits: BasicEdit[]) =>
  edits.filter((e, i) => edits.findIndex((x) => JSON.stringify(x) === JSON.stringify(e)) === i);
