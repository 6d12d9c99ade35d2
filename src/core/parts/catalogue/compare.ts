import { evaluate, formatSI } from "../../quantity";
import { spreadWords } from "./describe";
import { flashWords } from "./flash";
import { cellVolts } from "./cells";
import { optionVars } from "./options";
import { printsOf, printText } from "./prints";
import { outputOf } from "./outputs";
import { MOST_COMPARED } from "./roles";
import type { Level, Part } from "./schema";
import { summarise } from "./summary";
import { talkWords } from "./talks";

export interface CompareRow {
  what: string;
  cells: string[];
  /** True when the parts differ in this. */
  differs: boolean;
}
const NOTHING = "–";

const near = (part: Part) => Object.values(part.supplies).filter((s) => s.mA || s.source)[0];

function logic(part: Part): Level | undefined {
  const used = part.pins.find((p) => p.level && (p.need || p.offers) && p.io !== "analog-out")?.level;
  return used ? part.levels[used] : undefined;
}

function threshold(part: Part, keys: ("VIH" | "VIL" | "VOH" | "VOL")[]): string {
  const l = logic(part);
  const s = l && part.supplies[l.supply];
  if (!l || !s) return NOTHING;
  const V = evaluate(s.V.typ, optionVars(part, {}));
  const rule = (k: (typeof keys)[number]) => (k === "VOH" || k === "VOL" ? outputOf(l, k) : l[k]);
  const list = keys.flatMap((k) =>
    rule(k) === undefined
      ? []
      : [`${k} ${Number(evaluate(rule(k)!, { ...optionVars(part, {}), V, I: 0 }).toFixed(2))} V`],
  );
  return list.length ? `${list.join(", ")} at ${V} V` : NOTHING;
}

function address(part: Part): string {
  const g = part.groups.find((x) => x.kind === "i2c" && x.address);
  if (!g) return NOTHING;
  const option = part.options.find((o) => o.key === "address");
  return option?.kind === "choice" ? option.choices.map((c) => c.value).join(", ") : g.address!;
}

const pulls = (part: Part) => {
  const list = part.elements.flatMap((e) =>
    e.kind === "resistor" && [e.a, e.b].some((x) => x.startsWith("supply:"))
      ? [evaluate(e.ohm, optionVars(part, {}))]
      : [],
  );
  return list.length ? formatSI(Math.min(...list), "Ω") : NOTHING;
};

const ROWS: [what: string, cell: (p: Part) => string][] = [
  ["does", (p) => p.does],
  ["measures", (p) => p.measures.map((m) => `${m.what} ${m.range}`).join("; ") || NOTHING],
  ["accuracy", (p) => p.measures.flatMap((m) => (m.accuracy ? [`${m.what} ${m.accuracy}`] : [])).join("; ") || NOTHING],
  ["resolution", (p) => p.measures.flatMap((m) => m.resolution ?? []).join("; ") || NOTHING],
  ["supply", (p) => (near(p) ? spreadWords(near(p)!.V, p) : NOTHING)],
  [
    "current",
    (p) => {
      const list = Object.values(p.supplies).flatMap((s) => s.mA ?? []);
      const vars = optionVars(p, {});
      const sum = (k: "idle" | "typ" | "peak") => list.reduce((t, m) => t + evaluate(m[k], vars), 0) / 1000;
      return list.length
        ? `${formatSI(sum("idle"), "A")} idle, ${formatSI(sum("typ"), "A")} typical, ${formatSI(sum("peak"), "A")} at most`
        : NOTHING;
    },
  ],
  ["takes as high and low", (p) => threshold(p, ["VIH", "VIL"])],
  ["drives", (p) => threshold(p, ["VOH", "VOL"])],
  ["talks by", (p) => summarise(p).talks.map(talkWords).join(", ") || NOTHING],
  ["I2C addresses", address],
  ["pull-ups on board", pulls],
  [
    "board pins",
    (p) => {
      const s = summarise(p);
      return p.board ? `offers ${s.pins}` : s.pins ? `takes ${s.pins}` : NOTHING;
    },
  ],
  [
    "cells",
    (p) => {
      const source = Object.values(p.supplies).find((s) => s.source?.chemistry)?.source;
      if (!source?.chemistry) return NOTHING;
      const n = source.cells ?? 1;
      const V = (used: number) => `${Number((n * cellVolts(source.chemistry!, used)).toFixed(2))} V`;
      const mAh = source.capacity_mAh === undefined ? "" : `, ${evaluate(source.capacity_mAh, optionVars(p, {}))} mAh`;
      return `${n} × ${source.chemistry}: ${V(0)} full, ${V(0.5)} half used, ${V(0.9)} near the end${mAh}`;
    },
  ],
  [
    "inner resistance",
    (p) => {
      const source = Object.values(p.supplies).find((s) => s.source?.rint_ohm !== undefined)?.source;
      return source ? formatSI(evaluate(source.rint_ohm!, optionVars(p, {})), "Ω") : NOTHING;
    },
  ],
  ["isolation", (p) => (p.isolation ? `tested with ${p.isolation.test_V / 1000} kV for a minute` : NOTHING)],
  ["speed across it", (p) => (p.isolation ? `${formatSI(p.isolation.most_bit_s, "bit/s")}` : NOTHING)],
  ["works in air of", (p) => (p.air_C ? `${String(p.air_C.min).replace("-", "−")} to ${p.air_C.max} °C` : NOTHING)],
  ["headers known", (p) => (printsOf(p).length ? printsOf(p).map(printText).join("; ") : NOTHING)],
  ["chip", (p) => (p.board ? `${p.board.chip}, ${p.board.clock_Hz / 1e6} MHz` : NOTHING)],
  ["memory", (p) => (p.board ? `${flashWords(p.board)}, ${p.board.ram_kB} kB RAM` : NOTHING)],
  ["USB", (p) => (p.board ? p.board.usb.kind : NOTHING)],
  ["radio", (p) => (p.board ? p.board.radio.join(", ") || "none" : NOTHING)],
  ["price class", (p) => p.board?.price ?? NOTHING],
  ["size", (p) => `${p.body.mm[0]} × ${p.body.mm[1]} mm`],
  ["soldering", (p) => p.body.solder],
  [
    "needs around it",
    (p) => p.companions.map((c) => c.key.replace(/([A-Z])/g, " $1").toLowerCase()).join(", ") || NOTHING,
  ],
  ["certainty of the data", (p) => p.certainty],
];

/** Up to four parts side by side. Rows in which no part has anything to say are left out. */
export function compareParts(parts: readonly Part[]): CompareRow[] {
  return ROWS.map(([what, cell]) => ({ what, cells: parts.slice(0, MOST_COMPARED).map(cell) }))
    .filter((r) => r.cells.some((c) => c !== NOTHING))
    .map((r) => ({ ...r, differs: new Set(r.cells).size > 1 }));
}
