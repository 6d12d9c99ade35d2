import { evaluate } from "../../quantity";
import { optionVars, withOptions } from "./options";
import { partKind } from "./kind";
import type { Part, PartKind } from "./schema";

/** What lists, search and facets need of a part: small, so that the whole catalogue travels at once. */
export interface PartSummary {
  id: string;
  kind: PartKind;
  name: string;
  does: string;
  tags: string[];
  certainty: Part["certainty"];
  /** Ways of talking: `i2c`, `spi`, `uart`, `one-wire`, `analogue`, `pwm`, `digital`. */
  talks: string[];
  /** Usual supply voltages that the part takes, in any of its versions. */
  volts: string[];
  /** Board pins that it takes; for boards and chips, pins that it offers. */
  pins: number;
  solder: Part["body"]["solder"];
  price?: "low" | "medium" | "high";
  measures: string[];
  group: string;
}

const USUAL = [1.8, 3.3, 5, 6, 9, 12, 24];
export const voltWord = (v: number) => `${v}v`;

/** What a part is for, by its tags: the first row that shares a tag decides. */
const GROUPS: [group: string, tags: string[]][] = [
  ["switching", ["relay"]],
  ["touch and keys", ["keypad", "button", "knob", "joystick", "encoder", "contact"]],
  [
    "pins and levels",
    ["shifter", "shift register", "expander", "multiplexer", "isolation", "isolator", "buffer", "dac"],
  ],
  ["sensing", ["sensor"]],
  ["switching", ["mosfet", "transistor", "diode"]],
  ["light", ["strip", "addressable"]],
  ["display", ["display", "digit", "digits", "lcd", "oled", "gauge"]],
  ["movement", ["motor", "servo", "stepper", "pump", "solenoid"]],
  ["sound", ["sound", "buzzer", "speaker", "audio", "microphone"]],
  [
    "radio and network",
    ["radio", "wifi", "bluetooth", "lora", "network", "ethernet", "can", "rs-485", "gps", "rfid", "uart"],
  ],
  ["memory and clock", ["memory", "eeprom", "clock", "rtc", "card", "sd"]],
  ["pins and levels", ["adc", "converter", "analog"]],
  ["light", ["led", "light"]],
  ["power", ["supply", "power", "regulator", "battery", "charger"]],
];

function groupOf(part: Part): string {
  const kind = partKind(part.id);
  if (kind === "board" || kind === "chip") return "controllers";
  if (kind === "supply") return "power";
  if (kind === "connector") return "plugs and terminals";
  return GROUPS.find(([, tags]) => tags.some((t) => part.tags.includes(t)))?.[0] ?? "loose parts";
}

const TALK: Record<string, string> = {
  i2c: "i2c",
  spi: "spi",
  uart: "uart",
  can: "can",
  bridge: "bridge",
  i2s: "i2s",
  adc: "analogue",
  dac: "analogue",
  pwm: "pwm",
};

function talksOf(part: Part): string[] {
  const out = new Set(part.groups.flatMap((g) => (g.kind === "onewire" ? ["one-wire"] : (TALK[g.kind] ?? []))));
  const offers = part.board ? part.pins.flatMap((p) => p.offers ?? []) : [];
  for (const o of offers) if (TALK[o.kind]) out.add(TALK[o.kind]!);
  for (const p of part.pins) if (p.need && TALK[p.need.kind]) out.add(TALK[p.need.kind]!);
  if (!out.size && part.pins.some((p) => p.need)) out.add("digital");
  return [...out];
}

/** Each version that a single choice makes, the usual one first. */
function versions(part: Part): { part: Part; vars: Record<string, number> }[] {
  const vars = optionVars(part, {});
  const others = part.options.flatMap((o) =>
    o.kind === "choice" && o.choices.some((c) => c.patch.some((p) => p.path.startsWith("/supplies")))
      ? o.choices.map((c) => withOptions(part, { [o.key]: c.value }))
      : [],
  );
  return [withOptions(part, {}), ...others].map((p) => ({ part: p, vars }));
}

function voltsOf(part: Part): string[] {
  const out = new Set<number>();
  for (const v of versions(part))
    for (const [key, s] of Object.entries(v.part.supplies)) {
      const own = part.board ? key === part.board.logicSupply : s.source || v.part.pins.some((p) => p.supply === key);
      if (!own) continue;
      const [min, typ, max] = [s.V.min, s.V.typ, s.V.max].map((x) => evaluate(x, v.vars)) as [number, number, number];
      if (s.source || part.board) out.add(USUAL.find((u) => Math.abs(u - typ) < 0.3) ?? typ);
      else for (const u of USUAL) if (u >= min - 1e-9 && u <= max + 1e-9) out.add(u);
    }
  return [...out].sort((a, b) => a - b).map(voltWord);
}

/** How many pins the headers of a board have: people tell boards apart by it. */
function pinWords(part: Part): string[] {
  const n = (part.board?.headers ?? []).reduce((sum, h) => sum + h.count, 0);
  return n ? [`${n}-pin`] : [];
}

/** The summary of one part. */
export function summarise(part: Part): PartSummary {
  return {
    id: part.id,
    kind: partKind(part.id),
    name: part.name,
    does: part.does,
    tags: [...part.tags, ...pinWords(part)],
    certainty: part.certainty,
    talks: talksOf(part),
    volts: voltsOf(part),
    pins: part.board
      ? part.pins.filter((p) => p.offers?.length).length
      : part.pins.filter((p) => p.need && !p.need.optional).length,
    solder: part.body.solder,
    ...(part.board && { price: part.board.price }),
    measures: part.measures.map((m) => m.what),
    group: groupOf(part),
  };
}
