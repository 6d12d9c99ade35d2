import { parse, toC } from "./expression";
import { AGAIN_MS } from "./run";
import { kept, lets } from "./stages";
import type { Device, Quantity, Step } from "./types";
import type { DriverPart } from "../types";

const hex = (v: number) => `0x${v.toString(16).toUpperCase().padStart(2, "0")}`;

/** What every device of a sketch stands on, once a program. */
export const SKETCH_HELPERS = `// Messages to a part on a bus; false when it does not answer.
static bool __attribute__((unused)) busPut(TwoWire &bus, uint8_t address, const uint8_t *list, uint8_t n) {
  bus.beginTransmission(address);
  while (n--) bus.write(*list++);
  return bus.endTransmission() == 0;
}
static bool __attribute__((unused)) busGet(TwoWire &bus, uint8_t address, uint8_t *to, uint8_t n) {
  if (bus.requestFrom(address, n) != n) return false;
  while (n--) *to++ = bus.read();
  return true;
}
static bool __attribute__((unused)) busAsk(TwoWire &bus, uint8_t address, uint8_t reg, uint8_t *to, uint8_t n) {
  bus.beginTransmission(address);
  bus.write(reg);
  if (bus.endTransmission(false) != 0) return false;
  return busGet(bus, address, to, n);
}

// Numbers out of bytes.
static int32_t __attribute__((unused)) of_u8(const uint8_t *b) { return b[0]; }
static int32_t __attribute__((unused)) of_s8(const uint8_t *b) { return (int8_t)b[0]; }
static int32_t __attribute__((unused)) of_u16be(const uint8_t *b) { return (uint16_t)((uint16_t)b[0] << 8 | b[1]); }
static int32_t __attribute__((unused)) of_u16le(const uint8_t *b) { return (uint16_t)((uint16_t)b[1] << 8 | b[0]); }
static int32_t __attribute__((unused)) of_s16be(const uint8_t *b) { return (int16_t)((uint16_t)b[0] << 8 | b[1]); }
static int32_t __attribute__((unused)) of_s16le(const uint8_t *b) { return (int16_t)((uint16_t)b[1] << 8 | b[0]); }
static int32_t __attribute__((unused)) of_u24be(const uint8_t *b) { return (int32_t)b[0] << 16 | (uint16_t)b[1] << 8 | b[2]; }
static int32_t __attribute__((unused)) of_bcd(const uint8_t *b) { return (b[0] >> 4) * 10 + (b[0] & 15); }
static uint8_t __attribute__((unused)) crc8(const uint8_t *b, uint8_t n, uint8_t poly, uint8_t crc) {
  while (n--) {
    crc ^= *b++;
    for (uint8_t i = 0; i < 8; i++) crc = crc & 0x80 ? (crc << 1) ^ poly : crc << 1;
  }
  return crc;
}

// Adds words, and a number with its point, to a line of 21 characters.
static void __attribute__((unused)) lineText(char *line, const char *text) {
  uint8_t n = strlen(line);
  while (*text && n < 21) line[n++] = *text++;
  line[n] = 0;
}
static void __attribute__((unused)) lineNumber(char *line, int32_t value, uint8_t digits, uint8_t shown) {
  uint32_t v = value < 0 ? -(uint32_t)value : value;
  uint32_t cut = 1, unit = 1;
  for (uint8_t i = shown; i < digits; i++) cut *= 10;
  for (uint8_t i = 0; i < shown; i++) unit *= 10;
  v = (v + cut / 2) / cut;
  char text[16];
  if (shown) snprintf(text, sizeof text, "%s%lu.%0*lu", value < 0 && v ? "-" : "", (unsigned long)(v / unit), shown, (unsigned long)(v % unit));
  else snprintf(text, sizeof text, "%s%lu", value < 0 && v ? "-" : "", (unsigned long)v);
  lineText(line, text);
}`;

/** The turns of one part: a switch over where it stands; nothing in it waits. */
export function turnInC(d: Device, p: DriverPart): string {
  const keep = kept(d);
  const own = (n: string) => (keep.has(n) ? `${p.id}_${n}` : n);
  const c = (text: string) => toC(parse(text), "b", own);
  const to = `${p.bus}, ${p.address}`;
  const most = Math.max(
    1,
    ...[...d.begin, ...d.read].map((s) => (s.do === "read" ? s.n : s.do === "until" ? s.read.n : 0)),
  );
  let label = 0;
  const get = (r: { n: number; from?: number | undefined }) =>
    r.from === undefined ? `busGet(${to}, b, ${r.n})` : `busAsk(${to}, ${hex(r.from)}, b, ${r.n})`;
  const here = (says = "") => `    // fall through${says}\n    case ${++label}:`;
  const PRINT: { [K in Step["do"]]: (s: Extract<Step, { do: K }>) => string } = {
    write: (s) => {
      const list = s.bytes.map((x) => (typeof x === "number" ? hex(x) : `(uint8_t)(${c(x)})`)).join(", ");
      return `      {\n        const uint8_t list[] = {${list}};\n        if (!busPut(${to}, list, sizeof list)) break;\n      }`;
    },
    read: (s) => `      if (!${get(s)}) break;`,
    wait: (s) => `      ${p.id}_at = ${label + 1};\n      return ${s.ms};\n    case ${++label}:`,
    until: (s) => `${here()}
      if (!${get(s.read)}) break;
      if (!(${c(s.holds)})) {
        if (++${p.id}_looks >= ${s.most}) break;
        ${p.id}_at = ${label};
        return ${s.every};
      }
      ${p.id}_looks = 0;`,
    crc: (s) =>
      `      if (crc8(b${s.from ? ` + ${s.from}` : ""}, ${s.n}, ${hex(s.poly)}, ${hex(s.init)}) != b[${s.from + s.n}]) break;`,
    must: (s) => `      if (!(${c(s.holds)})) break;`,
    let: (s) => `      ${own(s.name)} = ${c(s.is)};`,
  };
  const print = (s: Step) => (PRINT[s.do] as (s: Step) => string)(s);
  const begin = d.begin.map(print);
  const start = `${here(", and from here again for every reading")}`;
  const again = label;
  const read = d.read.map(print);
  const locals = [...lets(d)].filter((n) => !keep.has(n));
  const looks = [...d.begin, ...d.read].some((s) => s.do === "until");
  return `${[...keep].map((n) => `static int32_t ${p.id}_${n} = 0;`).join("\n")}
static bool ${p.id}_fresh = false;
static uint8_t ${p.id}_at = 0;
${looks ? `static uint8_t ${p.id}_looks = 0;\n` : ""}// ${p.ref} ${p.label}: does what is due, tells after how many milliseconds it wants to go on.
static uint16_t ${p.id}_turn() {
  uint8_t b[${most}];
${locals.length ? `  int32_t ${locals.map((n) => `${n} = 0`).join(", ")};\n` : ""}  switch (${p.id}_at) {
    case 0:
${begin.join("\n")}
${start}
${read.join("\n")}
      ${p.id}_fresh = true;
      ${p.id}_at = ${again};
      return ${d.every};
  }
  // No answer, or a wrong one: all over again in a while.
  ${p.id}_fresh = false;
  ${p.id}_at = 0;
${looks ? `  ${p.id}_looks = 0;\n` : ""}  return ${AGAIN_MS};
}`;
}

const shown = (q: Quantity) => q.shown ?? q.digits;

/** Fills `line` with the part's readings, or with two dashes while there is none. */
export const showInC = (d: Device, p: DriverPart): string => `if (${p.id}_fresh) {
${d.out
  .map(
    (q, i) =>
      `  lineText(line, "${i ? " " : ""}${q.word ? `${q.word} ` : ""}");\n  lineNumber(line, ${p.id}_${q.name}, ${q.digits}, ${shown(q)});\n  lineText(line, "${q.unit ? ` ${q.unit}` : ""}");`,
  )
  .join("\n")}
} else {
  lineText(line, "${p.label.slice(0, 16)} --");
}`;

/** A reading for bring-up: taken at once, judged by what can be true in a room. */
export const bringupInC = (d: Device, p: DriverPart): string => `{
  ${p.id}_at = 0;
  ${p.id}_fresh = false;
  do {
    uint16_t ms = ${p.id}_turn();
    if (!${p.id}_fresh && ${p.id}_at) delay(ms);
  } while (!${p.id}_fresh && ${p.id}_at);
  Serial.print(F("YL1 sensor ${p.ref} fresh="));
  Serial.print(${p.id}_fresh);
${d.out.map((q) => `  Serial.print(F(" ${q.name}="));\n  Serial.print((long)${p.id}_${q.name});`).join("\n")}
  Serial.print(' ');
  verdict(${p.id}_fresh${d.out.map((q) => ` && ${p.id}_${q.name} >= ${q.room[0]}L && ${p.id}_${q.name} <= ${q.room[1]}L`).join("")});
}`;
