import { evaluate, formatSI } from "../../quantity";
import { findPin } from "./catalogue";
import { optionVars } from "./options";
import type { Standing } from "./certainty";
import { standingOf } from "./standing";
import { outputOf } from "./outputs";
import type { Print } from "./print-schema";
import { asksPrint, printedPins, printsOf, printText, readingOf, type Reading } from "./prints";
import type { Level, Offer, Part, Pin } from "./schema";

const num = (v: number) => String(Number(v.toPrecision(4)));
const volts = (v: number) => `${num(v)} V`;

const OFFER: Record<Offer["kind"], (o: never) => string> = {
  digital: (o: { in: boolean; out: boolean; pull: string[] }) =>
    `${o.in && o.out ? "in and out" : o.in ? "input only" : "output only"}${o.pull.length ? `, pull-${o.pull.join(" and pull-")}` : ""}`,
  pwm: (o: { timer: string; channel: string }) => `PWM ${o.timer} ${o.channel}`,
  adc: (o: { channel: number }) => `analogue in ${o.channel}`,
  dac: (o: { channel: number; span?: { low: number; high: number } }) =>
    `analogue out ${o.channel}${o.span ? `, from ${Math.round(o.span.low * 100)} to ${Math.round(o.span.high * 100)} % of its supply` : ""}`,
  interrupt: (o: { line: string }) => `interrupt ${o.line}`,
  i2c: (o: { bus: string; role: string }) => `${o.bus} ${o.role.toUpperCase()}`,
  spi: (o: { bus: string; role: string }) => `${o.bus} ${o.role.toUpperCase()}`,
  uart: (o: { bus: string; role: string }) => `${o.bus} ${o.role.toUpperCase()}`,
  can: (o: { bus: string; role: string }) => `${o.bus} ${o.role.toUpperCase()}`,
  i2s: (o: { bus: string; role: string }) => `${o.bus} ${o.role.toUpperCase()}`,
  bridge: (o: { bus: string; role: string }) => `bridge ${o.bus}, ${o.role.toUpperCase()}`,
  touch: (o: { channel: number }) => `touch ${o.channel}`,
  program: (o: { role: string }) => `programming ${o.role.toUpperCase()}`,
};

const NEED: Record<string, string> = {
  "digital-out": "input: the board drives it",
  "digital-in": "output: the board reads it",
  "digital-io": "both ways",
  pwm: "input for PWM",
  adc: "analogue output: the board measures it",
  dac: "analogue input",
  interrupt: "output: the board counts its edges",
};
const ROLE: Record<Pin["role"], string> = {
  "supply-in": "supply, in",
  "supply-out": "supply, out",
  "supply-io": "supply, in or out",
  ground: "ground",
  signal: "signal",
  passive: "terminal",
  cable: "socket",
  reference: "reference voltage",
  nc: "not used",
};

/** What a pin is, in words a beginner can use. */
export function pinWhat(part: Part, p: Pin): string {
  if (p.need) {
    const base =
      NEED[p.need.kind] ?? `${p.need.kind.toUpperCase()} ${(p.need.role ?? "").toUpperCase()} of the bus`.trim();
    return p.need.optional ? `${base}; may stay free` : base;
  }
  const supply = p.supply ? part.supplies[p.supply] : undefined;
  if (supply && p.role.startsWith("supply"))
    return `${ROLE[p.role]}, ${spreadWords(supply.V, part)}${p.optional ? "; may stay free" : ""}`;
  if (p.role === "signal" && !p.offers?.length)
    return p.io === "in" ? "input" : p.io === "out" ? "output" : p.io === "open-drain" ? "open-drain line" : "signal";
  return p.offers?.length ? (part.board ? "board pin" : "extra pin for other parts") : ROLE[p.role];
}

/** `2.7 to 5.5 V, usually 3.3 V`, with the part's options as they are by default. */
export function spreadWords(V: { min: number | string; typ: number | string; max: number | string }, part: Part) {
  const vars = optionVars(part, {});
  const [min, typ, max] = [V.min, V.typ, V.max].map((x) => evaluate(x, vars)) as [number, number, number];
  return min === max ? volts(typ) : `${num(min)} to ${volts(max)}, usually ${volts(typ)}`;
}

export interface PinRow {
  label: string;
  aliases: string[];
  what: string;
  can: string[];
  hazards: string[];
  says: string;
  header: string;
  index: number;
}
export interface HeaderRow {
  side: "left" | "right" | "top" | "bottom";
  says: string;
  /** `power`: which holes must not be exchanged. */
  pins: { label: string; index: number; power?: "supply" | "ground" }[];
}
export interface ThresholdRow {
  name: string;
  /** `sure`: in words, where it is another thing than what is said of the whole part. */
  rows: { what: string; rule: string; at: string; sure?: string }[];
  /** Points of its outputs that the data sheet names, in words. */
  points: string[];
}
/** A known print as a page shows it. */
export interface PrintRow {
  id: string;
  says: string;
  /** `GND VCC SCL SDA`, two rows with a bar between them. */
  text: string;
  certainty: Print["certainty"];
  headers: HeaderRow[];
}
export interface PartDescription {
  prints: PrintRow[];
  pins: PinRow[];
  headers: HeaderRow[];
  thresholds: ThresholdRow[];
  supplies: { name: string; V: string; mA: string; absMax: string }[];
  /** What else there is to say of how it is fed and what it charges or amplifies, in sentences. */
  facts: string[];
}

const SIDES = { bottom: ["bottom"], top: ["top"], sides: ["left", "right"], ends: ["bottom", "top"] } as const;

/** A header as it is read, drawn: each row at its side, pin 1 the first of the first. */
export const readingRows = (part: Part, r: Pick<Reading, "rows" | "edge">): HeaderRow[] =>
  r.rows.map((row, i) => ({
    side: SIDES[r.edge][i] ?? "bottom",
    says: "",
    pins: row.map((h, k) => {
      const role = h.pin === null ? undefined : findPin(part, h.pin)?.role;
      const power = role === "ground" ? "ground" : role?.startsWith("supply") ? "supply" : undefined;
      return { label: h.printed, index: i === 0 ? k + 1 : k + 1 + r.rows[0]!.length, ...(power && { power }) };
    }),
  }));

/** The commonest print, and pins that are somewhere else on the board whatever the print. */
function printedRows(part: Part): HeaderRow[] {
  const reading = readingOf(part);
  const rows = readingRows(part, reading);
  const known = printedPins(part);
  const elsewhere = part.pins.filter((p) => !known.has(p.label));
  if (!elsewhere.length) return rows;
  const free = rows.some((r) => r.side === "top") ? "bottom" : "top";
  const count = rows.reduce((n, r) => n + r.pins.length, 0);
  const pins = elsewhere.map((p, k) => ({ label: p.label, index: count + k + 1 }));
  return [...rows, { side: free, says: "elsewhere on the board", pins }];
}

/** The header as seen from the top: rows of pins in printed order, two rows for boards and chips. */
export function headerRows(part: Part): HeaderRow[] {
  if (printsOf(part).length) return printedRows(part);
  const placed = part.pins.filter((p) => p.at);
  if (part.board && placed.length)
    return part.board.headers.map((h) => ({
      side: h.side,
      says: h.says,
      pins: placed
        .filter((p) => p.at!.header === h.id)
        .sort((a, b) => a.at!.index - b.at!.index)
        .map((p) => ({ label: p.label, index: p.at!.index })),
    }));
  if (placed.length)
    return (["L", "R"] as const).map((id) => ({
      side: id === "L" ? "left" : "right",
      says: id === "L" ? "pin 1 at the notch" : "",
      pins: placed
        .filter((p) => p.at!.header === id)
        .sort((a, b) => a.at!.index - b.at!.index)
        .map((p) => ({ label: p.label, index: part.pins.indexOf(p) + 1 })),
    }));
  const pins = part.pins.map((p, i) => ({ label: p.label, index: i + 1 }));
  const count = part.body.header?.pins ?? pins.length;
  const first = pins.slice(0, count);
  const rest = pins.slice(count);
  return [
    { side: "bottom", says: "", pins: first },
    ...(rest.length ? [{ side: "top" as const, says: "", pins: rest }] : []),
  ];
}

const RULES: [key: "VIH" | "VIL" | "VOH" | "VOL" | "absMax", what: string][] = [
  ["VIH", "sees a high from (VIH)"],
  ["VIL", "sees a low up to (VIL)"],
  ["VOH", "drives a high of at least (VOH)"],
  ["VOL", "drives a low of at most (VOL)"],
  ["absMax", "absolute maximum"],
];

const SURE: Record<Standing, string> = {
  high: "sure",
  medium: "well known",
  low: "not sure",
  assumed: "a rule of thumb",
};

function thresholdRow(part: Part, name: string, l: Level): ThresholdRow {
  const vars = optionVars(part, {});
  const s = part.supplies[l.supply];
  const V = s ? evaluate(s.V.typ, vars) : NaN;
  return {
    name,
    rows: RULES.flatMap(([key, what]) => {
      const rule = key === "VOH" || key === "VOL" ? outputOf(l, key) : l[key];
      if (rule === undefined) return [];
      const { certainty, source } = standingOf(part, `levels/${name}/${l[key] === undefined ? "points" : key}`);
      const sure = source ?? (certainty === part.certainty ? undefined : SURE[certainty]);
      return [
        {
          what,
          rule: String(rule),
          at: `${volts(evaluate(rule, { ...vars, V, I: 0 }))} at ${volts(V)}`,
          ...(sure && { sure }),
        },
      ];
    }),
    points: (l.points ?? []).map(
      (p) =>
        `${volts(p.V)} and ${formatSI(p.mA / 1000, "A")}: ${[p.VOH !== undefined && `high ${volts(p.VOH)}`, p.VOL !== undefined && `low ${volts(p.VOL)}`].filter(Boolean).join(", ")}`,
    ),
  };
}

/** The known prints of a part, drawn. */
export const printRows = (part: Part): PrintRow[] =>
  printsOf(part).map((p) => ({
    id: p.id,
    says: p.says,
    text: printText(p),
    certainty: p.certainty,
    headers: readingRows(part, readingOf(part, { id: p.id })),
  }));

/** A pin's number in its row; 0 where boards of the kind differ, or it is somewhere else: then its label is all that helps. */
function placeOf(part: Part, pin: Pin, i: number): number {
  if (!printsOf(part).length) return i + 1;
  if (asksPrint(part)) return 0;
  const { rows } = readingOf(part);
  return rows.flat().findIndex((h) => h.pin === pin.label) + 1;
}

/** What a part says of charging, of switching itself off and of bridges, with its usual options. */
function factsOf(part: Part): string[] {
  const vars = optionVars(part, {});
  const mA = (x: number | string) => formatSI(evaluate(x, vars) / 1000, "A");
  const { charger, bridge } = part;
  return [
    ...Object.values(part.supplies).flatMap((s) => [
      ...(s.keeps_mA === undefined
        ? []
        : [`Switches itself off when less than ${mA(s.keeps_mA)} is drawn for a while.`]),
      ...(s.source?.charge_mA === undefined ? [] : [`May be charged with up to ${mA(s.source.charge_mA)}.`]),
    ]),
    ...(charger
      ? [
          `Charges with ${mA(charger.mA)} up to ${volts(charger.full_V)}, and stops at ${mA(charger.stops_mA)}${charger.shares ? "; meanwhile it feeds the project from its input" : "; what the project draws meanwhile hides the end"}.`,
        ]
      : []),
    ...(bridge?.is === "sensor"
      ? [
          `Gives ${evaluate(bridge.mV_per_V, vars)} mV for each volt of its feed at ${evaluate(bridge.full, vars)} ${bridge.unit}.`,
        ]
      : bridge
        ? [`Takes up to ${bridge.full_mV_per_V} mV for each volt of a bridge's feed.`]
        : []),
  ];
}

/** Everything that a part page shows, as plain data. */
export function describePart(part: Part): PartDescription {
  const vars = optionVars(part, {});
  const mA = (x: number | string) => formatSI(evaluate(x, vars) / 1000, "A");
  return {
    prints: printRows(part),
    pins: part.pins.map((p, i) => ({
      label: p.label,
      aliases: p.aliases ?? [],
      what: pinWhat(part, p),
      can: (p.offers ?? []).map((o) => OFFER[o.kind](o as never)),
      hazards: (p.hazards ?? []).map((h) => h.says),
      says: p.says ?? "",
      header: p.at?.header ?? "",
      index: p.at?.index ?? placeOf(part, p, i),
    })),
    headers: headerRows(part),
    facts: factsOf(part),
    thresholds: Object.entries(part.levels).map(([name, l]) => thresholdRow(part, name, l)),
    supplies: Object.values(part.supplies).map((s) => ({
      name: s.label,
      V: spreadWords(s.V, part),
      mA: s.mA
        ? `${s.mA.asleep === undefined ? "" : `${mA(s.mA.asleep)} asleep, `}${mA(s.mA.idle)} idle, ${mA(s.mA.typ)} typical, ${mA(s.mA.peak)} at most`
        : s.source
          ? `gives up to ${mA(s.source.limit_mA)}`
          : "",
      absMax: s.absMax_V === undefined ? "" : volts(s.absMax_V),
    })),
  };
}
