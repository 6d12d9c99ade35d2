import { inC, type LinkInC, type Over } from "../links";
import { hex } from "../links/types";
import { parse, toC } from "./expression";
import { AGAIN_MS } from "./run";
import { lanesInC, lanesStateInC } from "./lanes";
import { plainSteps } from "./loops";
import { kept, lets } from "./stages";
import { draws, FONT_IN_C, rowsInC, TEXT_IN_C } from "./text";
import type { Device, Quantity, Step } from "./types";
import { shownFor_ms, type DriverPart } from "../types";

const overOf = (d: Device): Over => d.over ?? { kind: "i2c" };
const indent = (text: string, by: string) => text.replace(/^(?=.)/gm, by);

/** Numbers and checksums, in words that C and C++ share. */
export const NUMBER_HELPERS = `// Numbers out of bytes.
static int32_t __attribute__((unused)) of_u8(const uint8_t *b) { return b[0]; }
static int32_t __attribute__((unused)) of_s8(const uint8_t *b) { return (int8_t)b[0]; }
static int32_t __attribute__((unused)) of_u16be(const uint8_t *b) { return (uint16_t)((uint16_t)b[0] << 8 | b[1]); }
static int32_t __attribute__((unused)) of_u16le(const uint8_t *b) { return (uint16_t)((uint16_t)b[1] << 8 | b[0]); }
static int32_t __attribute__((unused)) of_s16be(const uint8_t *b) { return (int16_t)((uint16_t)b[0] << 8 | b[1]); }
static int32_t __attribute__((unused)) of_s16le(const uint8_t *b) { return (int16_t)((uint16_t)b[1] << 8 | b[0]); }
static int32_t __attribute__((unused)) of_u24be(const uint8_t *b) { return (int32_t)b[0] << 16 | (uint16_t)b[1] << 8 | b[2]; }
static int32_t __attribute__((unused)) of_bcd(const uint8_t *b) { return (b[0] >> 4) * 10 + (b[0] & 15); }
// A digit as segments, a the lowest bit; 10 is a minus, more is dark.
static int32_t __attribute__((unused)) of_seg7(int32_t digit) {
  static const uint8_t segments[] PROGMEM = {0x3F, 0x06, 0x5B, 0x4F, 0x66, 0x6D, 0x7D, 0x07, 0x7F, 0x6F, 0x40};
  return digit >= 0 && digit <= 10 ? pgm_read_byte(segments + digit) : 0;
}
static uint8_t __attribute__((unused)) crc8(const uint8_t *b, uint8_t n, uint8_t poly, uint8_t crc) {
  while (n--) {
    crc ^= *b++;
    for (uint8_t i = 0; i < 8; i++) crc = crc & 0x80 ? (crc << 1) ^ poly : crc << 1;
  }
  return crc;
}
static uint8_t __attribute__((unused)) crc8Low(const uint8_t *b, uint8_t n, uint8_t poly, uint8_t crc) {
  while (n--) {
    crc ^= *b++;
    for (uint8_t i = 0; i < 8; i++) crc = crc & 1 ? (crc >> 1) ^ poly : crc >> 1;
  }
  return crc;
}
static uint8_t __attribute__((unused)) sum8(const uint8_t *b, uint8_t n, uint8_t poly, uint8_t sum) {
  (void)poly;
  while (n--) sum += *b++;
  return sum;
}`;

/** What every device of a sketch stands on, once a program. */
export const SKETCH_HELPERS = `${NUMBER_HELPERS}

// Adds words, and a number with its point, to a line of 21 characters.
static void __attribute__((unused)) lineText(char *line, const char *text) {
  uint8_t n = strlen(line);
  while (*text && n < 21) line[n++] = *text++;
  line[n] = 0;
}
static void __attribute__((unused)) lineNumber(char *line, int32_t value, uint8_t digits, uint8_t shown) {
  uint32_t v = value < 0 ? -(uint32_t)value : value;
  uint32_t cut = 1;
  for (uint8_t i = shown; i < digits; i++) cut *= 10;
  v = (v + cut / 2) / cut;
  if (value < 0 && v) lineText(line, "-");
  // From its last digit to its first: the point stands before those that are shown behind it.
  char text[16];
  uint8_t k = sizeof text - 1, n = 0;
  text[k] = 0;
  do {
    if (shown && n == shown) text[--k] = '.';
    text[--k] = '0' + v % 10;
    v /= 10;
    n++;
  } while (v || n <= shown);
  lineText(line, text + k);
}`;

/** Which helper works a checksum out. */
const CRC = { high: "crc8", low: "crc8Low", sum: "sum8" } as const;

/** What hangs on its lines: a bit that is told goes out at once, one that is read is a few milliseconds old at most. */
const gives = (d: Device, name: string) => d.out.some((q) => q.name === name);
const linesInC = (d: Device, p: DriverPart): string =>
  [
    d.lanes && lanesInC(p.id),
    d.takes &&
      !d.lanes &&
      `static void ${p.id}_put(uint8_t bit, bool level) {
  int32_t was = ${p.id}_want;
  if (level) ${p.id}_want |= 1L << bit;
  else ${p.id}_want &= ~(1L << bit);
  if (${p.id}_want != was && ${p.id}_fresh) ${p.id}_turn();
}`,
    gives(d, "bits") &&
      `static uint8_t __attribute__((unused)) ${p.id}_get(uint8_t bit, uint8_t rest) {
  static uint32_t looked = 0;
  if (${p.id}_fresh && millis() - looked >= 4) {
    looked = millis();
    ${p.id}_turn();
  }
  return ${p.id}_fresh ? ${p.id}_bits >> bit & 1 : rest;
}`,
    p.ins &&
      `// A voltage on a line of its own in 1024 steps, some milliseconds old at most; \`full\`: the line at the supply.
static uint16_t __attribute__((unused)) ${p.id}_volts(const int32_t &line, int32_t full) {
  static uint32_t looked = 0;
  if (!${p.id}_fresh || millis() - looked >= 20) {
    looked = millis();
    ${p.id}_turn();
  }
  return line <= 0 ? 0 : line >= full ? 1023 : line * 1023 / full;
}`,
  ]
    .filter(Boolean)
    .map((x) => `\n${x as string}`)
    .join("");

/** The turns of one part: a switch over where it stands; nothing in it waits. */
export function turnInC(d: Device, p: DriverPart, link: LinkInC = inC(overOf(d))): string {
  const keep = kept(d);
  const own = (n: string) =>
    n === "want" ? `${p.id}_told` : n === "text" || n === "lanes" || keep.has(n) ? `${p.id}_${n}` : n;
  const c = (text: string) => toC(parse(text), "b", own);
  const all = plainSteps([...d.begin, ...d.read]);
  const most = Math.max(1, ...all.map((s) => (s.do === "read" ? s.n : s.do === "until" ? s.read.n : 0)));
  let label = 0;
  const get = (r: { n: number; from?: number | readonly number[] | undefined }) =>
    link.read(p, r.n, r.from === undefined ? undefined : [r.from].flat());
  const here = (says = "") => `    // fall through${says && ` - ${says}`}\n    case ${++label}:`;
  const PRINT: { [K in Step["do"]]: (s: Extract<Step, { do: K }>) => string } = {
    write: (s) =>
      indent(
        link.write(
          p,
          s.bytes.map((x) => (typeof x === "number" ? hex(x) : `(uint8_t)(${c(x)})`)),
          s.times,
        ),
        "      ",
      ),
    read: (s) => `      if (!${get(s)}) break;`,
    wait: (s) => `      ${p.id}_at = ${label + 1};\n      return ${s.ms + 1};\n    case ${++label}:`,
    until: (s) => `${here()}
      if (!${get(s.read)}) break;
      if (!(${c(s.holds)})) {
        if (++${p.id}_looks >= ${s.most}) break;
        ${p.id}_at = ${label};
        return ${s.every};
      }
      ${p.id}_looks = 0;`,
    crc: (s) =>
      `      if (${CRC[s.way ?? "high"]}(b${s.from ? ` + ${s.from}` : ""}, ${s.n}, ${hex(s.poly)}, ${hex(s.init)}) != b[${s.from + s.n}]) break;`,
    must: (s) => `      if (!(${c(s.holds)})) break;`,
    pin: (s) => (p.has(s.pin) ? `      digitalWrite(${p.pin(s.pin)}, ${s.level ? "HIGH" : "LOW"});` : ""),
    let: (s) => `      ${own(s.name)} = ${c(s.is)};`,
    each: (s) => {
      const name = own(s.name);
      const head = `      ${name} = 0;\n${here("from here again for every round")}`;
      const at = label;
      return `${head}\n${s.steps.map(print).join("\n")}
      if (++${name} < ${s.n}) {
        ${p.id}_at = ${at};
        return 0;
      }`;
    },
  };
  function print(s: Step): string {
    return (PRINT[s.do] as (s: Step) => string)(s);
  }
  const begin = d.begin.map(print);
  const start = `${here("from here again for every reading")}`;
  const again = label;
  // Pulses and steps go on; anything else is told once, and again after it was gone.
  const news = !d.takes
    ? ""
    : `${d.always ? "" : `      if (${p.id}_fresh && ${p.id}_told == ${p.id}_want${d.text ? ` && !${p.id}_new` : ""}) return ${d.every};\n`}      ${p.id}_told = ${p.id}_want;\n${d.text ? `      if (${p.id}_told != NO_NUMBER) textNumber(${p.id}_text, ${d.text.columns}, ${p.id}_told);\n      ${p.id}_new = false;\n` : ""}`;
  const read = d.read.map(print);
  const locals = [...lets(d)].filter((n) => !keep.has(n));
  const reads = all.some((s) => s.do === "read" || s.do === "until");
  const looks = all.some((s) => s.do === "until");
  const others = [...keep].filter((n) => n !== "want");
  return `${link.globals?.(p) ?? ""}
${d.lanes ? lanesStateInC(p.id, d.lanes) : ""}${d.text ? `${rowsInC(p.id, d.text)}\n` : ""}${d.takes ? `static int32_t ${p.id}_want = ${d.text ? "NO_NUMBER" : d.takes.rest};\nstatic int32_t ${p.id}_told = 0;\n` : ""}${others.map((n) => `static int32_t ${p.id}_${n} = 0;`).join("\n")}
static bool ${p.id}_fresh = false;
static uint8_t ${p.id}_at = 0;
${looks ? `static uint8_t ${p.id}_looks = 0;\n` : ""}// ${p.ref} ${p.label}: does what is due, tells after how many milliseconds it wants to go on.
static uint16_t ${p.id}_turn() {
${reads ? `  uint8_t b[${most}] = {0};\n` : ""}${locals.length ? `  int32_t ${locals.map((n) => `${n} = 0`).join(", ")};\n` : ""}  switch (${p.id}_at) {
    case 0:
${begin.join("\n")}
${start}
${news}${read.join("\n")}
      ${p.id}_fresh = true;
      ${p.id}_at = ${again};
      return ${d.every};
  }
  // No answer, or a wrong one: all over again in a while.
  ${p.id}_fresh = false;
  ${p.id}_at = 0;
${looks ? `  ${p.id}_looks = 0;\n` : ""}  return ${d.again ?? AGAIN_MS};
}${
    d.proof?.kind === "watch"
      ? `
// What it gives, read anew when it is due.
static long __attribute__((unused)) ${p.id}_watched() {
  static uint32_t next = 0;
  if ((int32_t)(millis() - next) >= 0) {
    uint16_t pause = ${p.id}_turn();
    next = millis() + pause;
  }
  return ${p.id}_${d.out[0]!.name};
}`
      : ""
  }${p.outs === undefined ? "" : linesInC(d, p)}`;
}

const shown = (q: Quantity) => q.shown ?? q.digits;

/** Fills `line` with the part's readings, or with two dashes while there is none. */
export const showInC = (d: Device, p: DriverPart): string => `if (${p.id}_fresh) {
${d.out
  .map(
    (q, i) =>
      `  lineText(line, "${i ? (q.after ?? " ") : ""}${q.word ? `${q.word} ` : ""}");\n${q.after ? `  if (${p.id}_${q.name} < 10) lineText(line, "0");\n` : ""}  lineNumber(line, ${p.id}_${q.name}, ${q.digits}, ${shown(q)});\n  lineText(line, "${q.unit ? ` ${q.unit}` : ""}");`,
  )
  .join("\n")}
} else {
  lineText(line, "${p.label.slice(0, 16)} --");
}`;

/** Takes its turns until it has read, or does not answer. */
const readingInC = (p: DriverPart) => `  ${p.id}_at = 0;
  ${p.id}_fresh = false;
  do {
    uint16_t ms = ${p.id}_turn();
    if (!${p.id}_fresh && ${p.id}_at) delay(ms);
  } while (!${p.id}_fresh && ${p.id}_at);`;
const roomInC = (d: Device, p: DriverPart) =>
  d.out.map((q) => ` && ${p.id}_${q.name} >= ${q.room[0]}L && ${p.id}_${q.name} <= ${q.room[1]}L`).join("");

/** What a device's turns stand on beside its link. */
export const standsInC = (d: Device): string[] => [...(d.text ? [TEXT_IN_C] : []), ...(draws(d) ? [FONT_IN_C] : [])];

/** Something in every row below the first, which numbers stand in. */
export const rowsShownInC = (d: Device, p: DriverPart): string =>
  d.text
    ? `  for (uint8_t row = 1; row < ${d.text.rows}; row++) textPattern(${p.id}_text + row * ${d.text.columns}, ${d.text.columns}, row);\n  ${p.id}_new = true;\n`
    : "";

/** Told one thing after the other, each for a while. */
const showingInC = (
  d: Device,
  p: DriverPart,
  show: readonly number[],
  ms: number,
) => `${rowsShownInC(d, p)}  static const int32_t list[] = {${show.join(", ")}};
  for (uint8_t k = 0; k < ${show.length}; k++) {
    ${p.id}_want = list[k];
    for (uint32_t t = millis(); millis() - t < ${ms};) delay(${p.id}_turn());
  }
  Serial.print(F("YL1 act ${p.ref} told=${show.join(",")} fresh="));
  Serial.print(${p.id}_fresh);
  Serial.println(${p.id}_fresh ? F(" info") : F(" fail"));
  if (!${p.id}_fresh) known[turn] = 2;`;

/** The pins that are held at rest, as they are printed on the board. */
export const restsWhere = (d: Device, p: DriverPart): string => {
  const outs = d.over?.kind === "pins" ? (d.over.out ?? []).filter((o) => p.has(o.pin)) : [];
  return outs.length ? ` pin=${outs.map((o) => p.printed(o.pin)).join(",")}` : "";
};

/** A part in bring-up: a reading taken at once and judged by what can be true in a room, or something shown. */
export const bringupInC = (d: Device, p: DriverPart): string => {
  const proof = d.proof;
  if (proof?.kind === "seen") {
    const show = showingInC(d, p, proof.show, shownFor_ms(proof, p));
    return proof.careful
      ? `if (!alone) {\n  Serial.println(F("YL1 act ${p.ref}${restsWhere(d, p)} rests info"));\n} else {\n${show}\n  shown[turn] = true;\n}`
      : `{\n${show}\n}`;
  }
  const judged = proof
    ? `  if (${p.id}_fresh${roomInC(d, p)}) Serial.println(F("info"));\n  else verdict(false);`
    : `  verdict(${p.id}_fresh${roomInC(d, p)});`;
  return `{
${readingInC(p)}
  Serial.print(F("YL1 sensor ${p.ref} fresh="));
  Serial.print(${p.id}_fresh);
${d.out.map((q) => `  Serial.print(F(" ${q.name}="));\n  Serial.print((long)${p.id}_${q.name});`).join("\n")}
  Serial.print(' ');
${judged}
}`;
};

/** What changes when the part is used. */
export const watchInC = (d: Device, p: DriverPart): string => `${p.id}_watched()`;
