import { DEVICES } from "../../devices";
import { restsWhere, NUMBER_HELPERS, rowsShownInC, standsInC, turnInC } from "../../devices/sketch";
import type { Device, Quantity } from "../../devices/types";
import { inPlainC, unfitLink, type LinkInC, type Over } from "../../links";
import { findPin } from "../../../parts/catalogue";
import { shownFor_ms, type DriverPart } from "../../types";
import { SWITCHES } from "./switches";
import type { Chip } from "./chips";

/** A part that a chip's program talks to, as its data say. */
export interface Talk {
  /** Its pins as the links write them: a port and a bit in one number, or the converter's channel. */
  p: DriverPart;
  device: Device;
}

const overOf = (d: Device): Over => d.over ?? { kind: "i2c" };
const kinds = new Map(DEVICES.map((d) => [d.id, d]));
const indent = (text: string) => text.replace(/^(?=.)/gm, "  ");

/** What only reads or sets its pins is worked by them; more than one pin that is told something needs its data. */
const needsData = (d: Device, p: DriverPart) =>
  overOf(d).kind !== "pins" || (d.takes !== undefined && !SWITCHES.has(p.inst.part.id));

/** A chip of so little memory holds no program for a part that is talked to. */
const LEAST_KB = 2;
export const hasRoom = (p: DriverPart): boolean => p.board.flash_kB >= LEAST_KB;
/** A part whose pins can be worked one by one all the same. */
export const byItsPins = (p: DriverPart): boolean => {
  const kind = kinds.get(p.inst.part.id);
  return !kind || overOf(kind.of(p)).kind === "pins";
};

/** The part as a chip's program talks to it, or null where its pins alone say what to do. `ruled`: a rule speaks of it, which goes by its data. */
export function talkOf(part: DriverPart, channelOf: (label: string) => number | null, ruled = false): Talk | null {
  const kind = kinds.get(part.inst.part.id);
  if (!kind || part.via || part.through || !hasRoom(part)) return null;
  const p: DriverPart = {
    ...part,
    bus: `&${part.id}_bus`,
    pin: (label) => {
      const channel = findPin(part.inst.part, label)?.need?.kind === "adc" ? channelOf(label) : null;
      return channel === null ? `at(${part.pin(label)})` : String(channel);
    },
  };
  const device = kind.of(p);
  return (ruled || needsData(device, p)) && unfitLink(overOf(device), p) === null ? { p, device } : null;
}

/** What it is told while a contact says so. */
export const onOf = ({ device: d }: Talk): number | null =>
  d.takes ? (d.takes.on ?? (d.proof?.kind === "seen" ? d.proof.show[0]! : d.takes.range[1])) : null;

/** What the parts stand on: pins by number, and times. The words are those of the sketches, so that the same text works both. */
const base = (chip: Chip) => `// Pins by number, for parts that share their code: a port and a bit.
#define HIGH 1
#define LOW 0
#define INPUT 0
#define OUTPUT 1
#define nullptr ((void *)0)
#define at(pin) at_(pin)
#define at_(P, N) (uint8_t)(_SFR_IO_ADDR(PIN##P) << 3 | N)
// The register of a pin's port: 0 reads, 1 is its direction, 2 its level.
#define portOf(at, k) (&_SFR_IO8((at) >> 3) + (k))
#define bitOf(at) (uint8_t)(1 << ((at) & 7))
static void __attribute__((unused)) pinMode(uint8_t at, uint8_t mode) {
  uint8_t was = SREG;
  cli();
  if (mode == OUTPUT) *portOf(at, 1) |= bitOf(at);
  else {
    *portOf(at, 1) &= (uint8_t)~bitOf(at);
    *portOf(at, 2) &= (uint8_t)~bitOf(at);
  }
  SREG = was;
}
static void __attribute__((unused)) digitalWrite(uint8_t at, uint8_t level) {
  uint8_t was = SREG;
  cli();
  if (level) *portOf(at, 2) |= bitOf(at);
  else *portOf(at, 2) &= (uint8_t)~bitOf(at);
  SREG = was;
}
static uint8_t __attribute__((unused)) digitalRead(uint8_t at) { return *portOf(at, 0) & bitOf(at) ? HIGH : LOW; }
#define analogRead(channel) measure(channel)
#define portOutputRegister(at) portOf(at, 2)
#define digitalPinToPort(at) (at)
#define digitalPinToBitMask(at) bitOf(at)
#define noInterrupts() cli()
#define interrupts() sei()
// At least so long: four cycles a round.
static inline void delayMicroseconds(uint16_t us) {
  if (us) _delay_loop_2(us * ((F_CPU + 3999999UL) / 4000000UL));
}
static void __attribute__((unused)) pause(uint16_t ms) {
  while (ms--) _delay_ms(1);
}
// Microseconds in steps of the timer's.
static uint32_t __attribute__((unused)) micros(void) {
  uint8_t was = SREG;
  cli();
  uint16_t ms = ticks;
  uint8_t count = TCNT0;
  if (${chip.pending} && count < 60) ms++;
  SREG = was;
  return ms * 1000UL + count * (64000000UL / F_CPU);
}`;

const TELL = `// A number with its sign, and with its point.
static void __attribute__((unused)) sayLong(int32_t v) {
  if (v < 0) say("-");
  uint32_t u = v < 0 ? -(uint32_t)v : (uint32_t)v;
  uint32_t unit = 1;
  while (u / unit >= 10) unit *= 10;
  for (; unit; unit /= 10) sayNumber(u / unit % 10);
}
static void __attribute__((unused)) sayValue(int32_t v, uint8_t digits, uint8_t shown) {
  uint32_t u = v < 0 ? -(uint32_t)v : (uint32_t)v;
  uint32_t cut = 1, unit = 1;
  for (uint8_t i = shown; i < digits; i++) cut *= 10;
  for (uint8_t i = 0; i < shown; i++) unit *= 10;
  u = (u + cut / 2) / cut;
  if (v < 0 && u) say("-");
  sayLong(u / unit);
  if (!shown) return;
  say(".");
  for (unit /= 10; unit; unit /= 10) sayNumber(u / unit % 10);
}`;

/** The turns of a part. Nobody watches it: a program that hears nothing has nobody to ask. */
const turnsOf = ({ device, p }: Talk, link: LinkInC): string =>
  turnInC(
    device.proof?.kind === "watch" ? { ...device, proof: { kind: "unproven", why: "" } } : device,
    p,
    link,
  ).replace(`static uint16_t ${p.id}_turn()`, `static uint16_t __attribute__((unused)) ${p.id}_turn(void)`);

/** Everything that the two programs share of the parts that they talk to. */
export function partsText(chip: Chip, talks: readonly Talk[]): string {
  const links = talks.map((t) => inPlainC(overOf(t.device)));
  const helpers = [
    ...new Set(links.flatMap((l, i) => [...(l.stands ?? []), l.helpers, ...(l.moreFor?.(talks[i]!.p) ?? [])])),
  ].filter(Boolean);
  return [
    `#include <stdbool.h>\n#include <stdlib.h>\n#include <string.h>\n#include <util/delay_basic.h>\n#include "board.h"`,
    base(chip),
    TELL,
    NUMBER_HELPERS,
    ...new Set(talks.flatMap((t) => standsInC(t.device))),
    ...helpers,
    ...talks.map((t, i) => turnsOf(t, links[i]!)),
  ].join("\n\n");
}

/** What the link needs before the first turn. */
export const setupOf = (t: Talk): string => inPlainC(overOf(t.device)).setup?.(t.p) ?? "";

const judged = (q: readonly Quantity[], id: string) =>
  [`${id}_fresh`, ...q.map((x) => `${id}_${x.name} >= ${x.room[0]}L && ${id}_${x.name} <= ${x.room[1]}L`)].join(" && ");

/** The part in the bring-up: read and judged by what can be true in a room, or told something that a person sees. */
export function bringupOf({ device: d, p }: Talk): string {
  const proof = d.proof;
  if (proof?.kind === "seen" && proof.careful) return `say("YL1 act ${p.ref}${restsWhere(d, p)} rests info\\r\\n");`;
  if (proof?.kind === "seen")
    return `{
${rowsShownInC(d, p)}  static const int32_t list[] = {${proof.show.join(", ")}};
  for (uint8_t k = 0; k < ${proof.show.length}; k++) {
    ${p.id}_want = list[k];
    for (uint16_t from = now(); (uint16_t)(now() - from) < ${shownFor_ms(proof, p)};) pause(${p.id}_turn());
  }
  say("YL1 act ${p.ref} told=${proof.show.join(",")} fresh=");
  sayNumber(${p.id}_fresh);
  if (${p.id}_fresh) say(" info\\r\\n");
  else {
    say(" fail\\r\\n");
    failed++;
  }
}`;
  const verdict = proof
    ? `if (${judged(d.out, p.id)}) say(" info\\r\\n");`
    : `if (${judged(d.out, p.id)}) {
    say(" ok\\r\\n");
    proven++;
  }`;
  return `{
  ${p.id}_at = 0;
  ${p.id}_fresh = false;
  do {
    uint16_t ms = ${p.id}_turn();
    if (!${p.id}_fresh && ${p.id}_at) pause(ms);
  } while (!${p.id}_fresh && ${p.id}_at);
  say("YL1 sensor ${p.ref} fresh=");
  sayNumber(${p.id}_fresh);
${d.out.map((q) => `  say(" ${q.name}=");\n  sayLong(${p.id}_${q.name});`).join("\n")}
  ${verdict} else {
    say(" fail\\r\\n");
    failed++;
  }
}`;
}

/** The part in the starter: its turn when it is due. */
export const taskOf = ({ p }: Talk): string => `// ${p.ref}: its turn, when it is due.
static uint16_t due;
if ((int16_t)(now() - due) >= 0) {
  uint16_t ms = ${p.id}_turn();
  due = now() + ms;
}`;

/** Its readings on the console. */
export const valuesOf = ({ device: d, p }: Talk): string =>
  d.out.length
    ? `say(" ${p.ref}=");
if (${p.id}_fresh) {
${indent(
  d.out
    .map(
      (q, i) =>
        `${i ? `say("${q.after ?? " "}");\n` : ""}${q.after ? `if (${p.id}_${q.name} < 10) say("0");\n` : ""}sayValue(${p.id}_${q.name}, ${q.digits}, ${q.shown ?? q.digits});${q.unit ? `\nsay(" ${q.unit}");` : ""}`,
    )
    .join("\n"),
)}
} else say("--");`
    : "";
