import type { Circuit } from "../circuit";
import type { Instance } from "../circuit/netlist";
import { findPin, type Pin } from "../parts/catalogue";

/** What a person's words for a point come to: one pin, several that fit as well, or none, with the nearest names. */
export type Point = { kind: "one"; end: string } | { kind: "many"; ends: string[] } | { kind: "none"; near: string[] };

/** What people call pins, and the labels that are printed for it. Several words are matched as one. */
const CALLED: readonly [says: string, labels: RegExp][] = [
  ["data in", /^(DIN|DI|SDI|MOSI|IN|DATA|SER|RX)$/],
  ["data out", /^(DOUT|DO|SDO|MISO|OUT|DATA|TX)$/],
  ["chip select", /^(CS|SS|NSS|SDA\/CS)$/],
  ["serial out", /^(TX|TXD|DO)$/],
  ["serial in", /^(RX|RXD|DI)$/],
  ["transmit", /^(TX|TXD)$/],
  ["receive", /^(RX|RXD)$/],
  ["select", /^(CS|SS|NSS)$/],
  ["clock", /^(SCL|SCK|CLK|SRCLK)$/],
  ["data", /^(SDA|DATA|DAT|DIN|DOUT|OUT)$/],
  ["signal", /^(SIG|S|OUT|DO|AO|IN|DIN)$/],
  ["trigger", /^TRIG$/],
  ["reset", /^(RST|RES|RESET|NRST|RUN)$/],
  ["enable", /^(EN|OE|CE)$/],
  ["anode", /^A$/],
  ["cathode", /^K$/],
  ["wiper", /^2$/],
  ["gate", /^G$/],
  ["drain", /^D$/],
  ["source", /^S$/],
  ["base", /^B$/],
  ["collector", /^C$/],
  ["emitter", /^E$/],
  ["plus", /^(\+|VCC|VDD|VIN|5V|3V3|12V|9V)$/],
  ["minus", /^(-|GND|VSS)$/],
  ["ground", /^(GND|-|VSS|AGND)$/],
  ["gnd", /^(GND|-|VSS|AGND)$/],
  ["supply", /^(VCC|VDD|VIN|5V|3V3|12V|9V|\+)$/],
  ["power", /^(VCC|VDD|VIN|5V|3V3|12V|9V|\+)$/],
];
const ORDINALS = [
  "first",
  "second",
  "third",
  "fourth",
  "fifth",
  "sixth",
  "seventh",
  "eighth",
  "ninth",
  "tenth",
  "eleventh",
  "twelfth",
];
/** Words that say nothing. */
const FILLERS = new Set(["the", "a", "of", "pin", "pins", "my", "on", "at", "to", "leg", "header", "rail", "wire"]);
/** So many points are offered when a name fits several. */
const MOST = 8;

const plain = (text: string) =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9+./'_-]+/g, " ")
    .trim();
const base = (label: string) => label.replace(/\.\d+$/, "");

/** Parts that can be named, those of the project before those that the plan inserted. */
const instances = (c: Circuit): Instance[] => [...c.netlist.expanded.instances.values()].filter((i) => !i.inserted);

/** Words that name a part: reference, own name, what it is. */
function wordsOf(i: Instance): Set<string> {
  const text = `${i.ref} ${i.label} ${i.part.name} ${i.part.tags.join(" ")} ${i.part.id.split("/")[1]!.replace(/-/g, " ")} ${
    i.part.board ? "board" : ""
  }`;
  return new Set(plain(text).split(/[\s/]+/));
}

/** How well words name a part: own name and reference before what it is; 0 when a word does not fit. */
function names(i: Instance, words: readonly string[]): number {
  const own = new Set(plain(`${i.ref} ${i.label}`).split(" "));
  const all = wordsOf(i);
  let score = 1;
  for (const w of words) {
    if (own.has(w)) score += 3;
    else if (all.has(w)) score += 2;
    else if (w.length > 2 && [...all].some((x) => x.startsWith(w))) score += 1;
    else return 0;
  }
  return score;
}

/** How well words name a pin of a part; 0 when they do not. */
function pinScore(i: Instance, p: Pin, says: string): number {
  const labels = [p.label, ...(p.aliases ?? [])];
  const lower = says.toLowerCase();
  if (labels.some((l) => l.toLowerCase() === lower)) return 6;
  if (base(p.label).toLowerCase() === lower) return 5;
  const called = CALLED.find(([x]) => x === lower);
  if (called && called[1].test(base(p.label))) return 4;
  if (p.need && "role" in p.need && p.need.role === lower) return 4;
  if (lower === "ground" && p.role === "ground") return 4;
  if (plain(p.says ?? "") === lower) return 4;
  return 0;
}

const numberOf = (word: string): number | null => {
  const n = ORDINALS.indexOf(word);
  if (n >= 0) return n + 1;
  const m = /^(\d{1,2})(st|nd|rd|th)?$/.exec(word);
  return m ? Number(m[1]) : null;
};

/** "left header third pin", "third on the left": a place on a board. */
function byPlace(c: Circuit, words: string[]): string[] {
  const side = words.find((w) => ["left", "right", "top", "bottom"].includes(w));
  const index = words.map(numberOf).find((n) => n !== null);
  const rest = words.filter(
    (w) => w !== side && numberOf(w) === null && !FILLERS.has(w) && w !== "from" && w !== "usb",
  );
  // "left 1" may well be a part that somebody called Left.
  const isPlace = words.some(
    (w) => /^(header|pin|row|side)$/.test(w) || ORDINALS.includes(w) || /^\d+(st|nd|rd|th)$/.test(w),
  );
  if (!side || !index || !isPlace) return [];
  return instances(c)
    .filter((i) => i.part.board && (!rest.length || names(i, rest) > 0))
    .flatMap((i) => {
      const headers = i.part.board!.headers.filter((h) => h.side === side).map((h) => h.id);
      return i.part.pins
        .filter((p) => p.at && headers.includes(p.at.header) && p.at.index === index)
        .map((p) => `${i.ref}.${p.label}`);
    });
}

/** "5V rail", "3.3 volts", "12 V of the adapter": where a voltage is given. */
function byVolts(c: Circuit, text: string): string[] {
  const m = /^(\d+)(?:[.,v](\d))?\s*(?:v|volts?)?\s*(?:rail|supply)?(?:\s+of\s+(.+))?$/.exec(text);
  if (!m || !/v|rail|supply/.test(text)) return [];
  const V = Number(`${m[1]}.${m[2] ?? 0}`);
  const of = m[3]?.split(" ").filter((w) => !FILLERS.has(w));
  const found = instances(c).flatMap((i) =>
    i.part.pins.flatMap((p) => {
      if (p.role !== "supply-out" && p.role !== "supply-io") return [];
      if (of && !names(i, of)) return [];
      const s = i.part.supplies[p.supply ?? ""];
      const at = c.netlist.netOf(`${i.ref}.${p.label}`).V?.typ ?? (s ? Number(s.V.typ) : NaN);
      return Math.abs(at - V) < 0.25
        ? [
            {
              end: `${i.ref}.${p.label}`,
              board: i.part.board !== undefined,
              net: c.netlist.netOf(`${i.ref}.${p.label}`),
            },
          ]
        : [];
    }),
  );
  // Pins of one net are one rail: the board's own before others.
  const board = found.filter((x) => x.board);
  const list = board.length && !of ? board : found;
  return list.filter((x, i) => list.findIndex((y) => y.net === x.net) === i).map((x) => x.end);
}

function byGround(c: Circuit, text: string): string[] {
  const m = /^(?:ground|gnd|0 ?v|minus)(?:\s+(?:rail\s*)?of\s+(.+))?(?:\s+rail)?$/.exec(text);
  if (!m) return [];
  const of = m[1]?.split(" ").filter((w) => !FILLERS.has(w));
  const found = instances(c).flatMap((i) => {
    const pin = i.part.pins.find((p) => p.role === "ground");
    const fits = of ? names(i, of) > 0 : i.part.board || i.part.id.startsWith("supply/");
    return pin && fits ? [{ end: `${i.ref}.${pin.label}`, net: c.netlist.netOf(`${i.ref}.${pin.label}`) }] : [];
  });
  const first = found.filter((x, i) => found.findIndex((y) => y.net === x.net) === i);
  return first.map((x) => x.end);
}

/** "M1.SDA", "m1 sda", "GP4": a reference with a label, or a label that only one board prints. */
function byLabel(c: Circuit, raw: string): string[] {
  const dotted = /^\s*([A-Za-z]+\d+[A-Za-z]*)\s*[.\s:]\s*(\S+)\s*$/.exec(raw);
  if (dotted) {
    const inst = [...c.netlist.expanded.instances.values()].find(
      (i) => i.ref.toLowerCase() === dotted[1]!.toLowerCase(),
    );
    const exact = inst && findPin(inst.part, dotted[2]!);
    if (inst && exact) return [`${inst.ref}.${exact.label}`];
    const loose = inst?.part.pins.filter((p) => pinScore(inst, p, dotted[2]!) >= 5) ?? [];
    if (inst && loose.length) return loose.slice(0, 1).map((p) => `${inst.ref}.${p.label}`);
  }
  const label = raw.trim().toLowerCase();
  return instances(c)
    .filter((i) => i.part.board)
    .flatMap((i) =>
      i.part.pins
        .filter((p) => [p.label, ...(p.aliases ?? [])].some((l) => l.toLowerCase() === label))
        .slice(0, 1)
        .map((p) => `${i.ref}.${p.label}`),
    );
}

/** "display sda", "strip data in", "button 1": a part by its words, then a pin by its. */
function byWords(c: Circuit, words: string[]): string[] {
  const rated: { end: string; score: number }[] = [];
  for (let k = 1; k < words.length; k++) {
    const part = words.slice(0, k).filter((w) => !FILLERS.has(w));
    const pin = words.slice(k).filter((w) => !FILLERS.has(w));
    if (!part.length || !pin.length) continue;
    for (const i of instances(c)) {
      const named = names(i, part);
      if (!named) continue;
      for (const p of i.part.pins) {
        const score = pinScore(i, p, pin.join(" "));
        if (score) rated.push({ end: `${i.ref}.${p.label}`, score: named * 10 + score });
      }
    }
  }
  const best = Math.max(0, ...rated.map((r) => r.score));
  const top = [...new Set(rated.filter((r) => r.score === best).map((r) => r.end))];
  // Second grounds of one part are the same point.
  const nets = top.map((e) => c.netlist.netOf(e));
  return top.filter((_, i) => nets.indexOf(nets[i]!) === i || nets[i]!.kind === "signal");
}

/** What stands in a suggestion beside its endpoint. */
export interface Suggestion {
  end: string;
  label: string;
  says: string;
}

/**
 * Points that fit what has been typed so far, boards and parts in the order of the project, pins in printed order. Every word
 * has to fit the reference, the name, what the part is, or the pin.
 */
export function suggestPoints(c: Circuit, text: string, most = 12): Suggestion[] {
  const words = plain(text.replace(/\./g, " "))
    .split(" ")
    .filter((w) => w && !FILLERS.has(w));
  const found = findPoint(c, text);
  const exact = found.kind === "one" ? [found.end] : found.kind === "many" ? found.ends : [];
  const all = instances(c).flatMap((i) => {
    const part = wordsOf(i);
    return i.part.pins.flatMap((p): string[] => {
      if (p.role === "nc") return [];
      const own = [
        p.label,
        ...(p.aliases ?? []),
        ...CALLED.filter(([, re]) => re.test(base(p.label))).flatMap(([s]) => s.split(" ")),
      ].map((x) => x.toLowerCase());
      const fits = words.every((w) => own.some((x) => x.startsWith(w)) || [...part].some((x) => x.startsWith(w)));
      return fits ? [`${i.ref}.${p.label}`] : [];
    });
  });
  return [...new Set([...exact, ...all])].slice(0, most).map((end) => {
    const [ref, ...rest] = end.split(".");
    const i = c.netlist.instance(ref!)!;
    const pin = findPin(i.part, rest.join("."))!;
    return { end, label: i.label === i.ref ? i.part.name.split(" · ")[0]! : i.label, says: pin.says ?? "" };
  });
}

/** Letters that differ between two short words, to offer what was probably meant. */
function distance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, i) => i);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++)
      next[j] = Math.min(next[j - 1]! + 1, row[j]! + 1, row[j - 1]! + (a[i - 1] === b[j - 1] ? 0 : 1));
    row = next;
  }
  return row[b.length]!;
}

function nearest(c: Circuit, text: string): string[] {
  const wanted = text.trim().toLowerCase();
  const [ref] = wanted.split(/[.\s]/);
  const all = instances(c).flatMap((i) => i.part.pins.map((p) => `${i.ref}.${p.label}`));
  const part = all.filter((e) => e.split(".")[0]!.toLowerCase() === ref);
  return (part.length ? part : all)
    .map((end) => ({ end, d: distance(wanted, end.toLowerCase()) }))
    .sort((a, b) => a.d - b.d)
    .slice(0, part.length ? MOST : 3)
    .map((x) => x.end);
}

/**
 * The pin that is meant: an endpoint (`M1.SDA`), a label on the board (`GP4`), a rail (`5V rail`, `ground`), a part and a pin in
 * words (`display sda`, `strip data in`), a place on a header (`left header third pin`).
 */
export function findPoint(c: Circuit, text: string): Point {
  const lower = plain(text);
  if (!lower) return { kind: "none", near: [] };
  const words = lower.split(" ");
  for (const ends of [byLabel(c, text), byPlace(c, words), byGround(c, lower), byVolts(c, lower), byWords(c, words)]) {
    if (ends.length === 1) return { kind: "one", end: ends[0]! };
    if (ends.length > 1) return { kind: "many", ends: ends.slice(0, MOST) };
  }
  return { kind: "none", near: nearest(c, text) };
}

/** Why words are no point, in one sentence with what would be right; the point when they are one. */
export function pointOr(c: Circuit, text: string): { ok: true; end: string } | { ok: false; why: string } {
  const p = findPoint(c, text);
  if (p.kind === "one") return { ok: true, end: p.end };
  if (p.kind === "many") return { ok: false, why: `"${text}" may be ${p.ends.join(" or ")}; say which.` };
  return {
    ok: false,
    why: `There is no point "${text}" in this project.${p.near.length ? ` Near to it are ${p.near.join(", ")}.` : " Say a part and its pin, such as M1.SDA."}`,
  };
}
