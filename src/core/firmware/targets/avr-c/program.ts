import type { Circuit } from "../../../circuit";
import { pinConstants } from "../../pins";
import type { Resolved } from "../../rules/resolve";
import { told } from "../../rules/resolve";
import { rulesInC } from "../../rules/sketch";
import { hold_ms, readers, settle_ms, watchedOf, type Nap } from "../../sleep";
import { napInPlainC } from "../../sleep/print";
import { place } from "../../own/marks";
import type { Programmer } from "../../programmer";
import type { DriverPart, FirmwareFile, RuleCode } from "../../types";
import type { Chip } from "./chips";
import { bringupOf, onOf, partsText, setupOf, taskOf, valuesOf, type Talk } from "./devices";
import type { Line } from "./parts";
import { pixelsOf, stripBringup, stripHelpers, stripRuns, stripText } from "./strips";

/** What the programs of one chip are written from. */
export interface Ctx {
  c: Circuit;
  host: string;
  chip: Chip;
  clock_Hz: number;
  flash_kB: number;
  lines: readonly Line[];
  /** Parts that are talked to. */
  talks: readonly Talk[];
  title: string;
  plan: string;
  /** Free pin that the console's text leaves from, where the chip has no serial port; null: nothing is told. */
  console: string | null;
  /** What it does when; null: nobody has said anything, and it does something of its own. */
  rules: readonly Resolved[] | null;
  /** Lines of a comment about sentences that this program does not follow; none when it follows all. */
  left: string;
  /** It sleeps between readings. */
  nap: Nap | null;
  /** What writes it, and the signature that the chip answers with. */
  programmer: Programmer;
  signature: string | null;
}

const indent = (text: string) => text.replace(/^(?=.)/gm, "  ");
const banner = (x: Ctx, what: string) =>
  `// ${x.title}: ${what}\n// Written from wiring plan ${x.plan}. Change the plan, not the pin numbers here.\n`;
const portBit = (code: string) => `${code[1]}, ${code.slice(2)}`;
const talks = (x: Ctx) => x.chip.uart !== null || x.console !== null;
/** A chip of a kilobyte has room for text in one program: the bring-up. */
export const starterTalks = (x: Ctx) => talks(x) && x.flash_kB > 1;
const voltages = (x: Ctx) => x.lines.some((l) => l.kind === "voltage") || x.talks.length > 0;
/** What the programs include: the parts' own text stands on the chip's. */
const included = (x: Ctx) => (hasParts(x) ? "parts.h" : "board.h");
const stripsOf = (x: Ctx) => x.lines.flatMap((l) => (l.kind === "strip" ? [l.p] : []));
/** Parts that share text of their own: those that are talked to, and strips. */
const hasParts = (x: Ctx) => x.talks.length > 0 || stripsOf(x).length > 0;

/** The pins as port and bit, for the words of `board.h`. */
export function pinsFile(x: Ctx): FirmwareFile {
  const lines = pinConstants(x.c, x.host, "avr-c").map(
    (p) => `#define ${p.name} ${portBit(p.code)}  // ${p.hostPin}: ${p.says}`,
  );
  const text = x.console
    ? [`#define PIN_CONSOLE ${portBit(x.console)}  // free: its text leaves here at 9600 baud`]
    : [];
  return { path: "pins.h", text: `${banner(x, "pins")}#pragma once\n\n${[...lines, ...text].join("\n")}\n` };
}

/** Pins, time, voltages and the console of this chip. */
export function boardFile(x: Ctx): FirmwareFile {
  const send = x.chip.uart
    ? `static inline void sayStart(void) {
${indent(x.chip.uart.begin)}
}
static void sayChar(char c) {
${indent(x.chip.uart.send)}
}`
    : `static inline void sayStart(void) {
  high(PIN_CONSOLE);
  output(PIN_CONSOLE);
}
// One character at 9600 baud, timed by the clock: nothing may come between.
static void sayChar(char c) {
  uint16_t bits = (uint16_t)(uint8_t)c << 1 | 0x200;
  uint8_t was = SREG;
  cli();
  for (uint8_t i = 0; i < 10; i++, bits >>= 1) {
    if (bits & 1) high(PIN_CONSOLE);
    else low(PIN_CONSOLE);
    _delay_us(1000000.0 / 9600 - 16e6 / F_CPU);
  }
  SREG = was;
}`;
  const say = talks(x)
    ? `${send}
static void __attribute__((unused)) sayText(const char *text) {
  for (char c; (c = pgm_read_byte(text)); text++) sayChar(c);
}
#define say(text) sayText(PSTR(text))
static void __attribute__((unused)) sayNumber(uint16_t v) {
  if (v >= 10) sayNumber(v / 10);
  sayChar('0' + v % 10);
}`
    : `// No pin is free for a console: nothing is told.
static inline void sayStart(void) {}
#define say(text) ((void)0)
#define sayNumber(v) ((void)(v))`;
  return {
    path: "board.h",
    text: `${banner(x, "the chip")}#pragma once
#include <avr/interrupt.h>
#include <avr/io.h>
#include <avr/pgmspace.h>
#include <stdint.h>
#include <util/delay.h>
#include "pins.h"

// A pin is a port and a bit: output(PIN_LAMP); high(PIN_LAMP);
#define output(pin) output_(pin)
#define output_(P, N) (DDR##P |= _BV(N))
#define input(pin) input_(pin)
#define input_(P, N) (DDR##P &= (uint8_t)~_BV(N))
#define high(pin) high_(pin)
#define high_(P, N) (PORT##P |= _BV(N))
#define low(pin) low_(pin)
#define low_(P, N) (PORT##P &= (uint8_t)~_BV(N))
#define read(pin) read_(pin)
#define read_(P, N) (PIN##P >> N & 1)

// Milliseconds since the start; they begin anew after 65 seconds, which differences do not mind.
static volatile uint16_t ticks;
ISR(${x.chip.vector}) { ticks++; }
static uint16_t __attribute__((unused)) now(void) {
  uint8_t was = SREG;
  cli();
  uint16_t t = ticks;
  SREG = was;
  return t;
}
static inline void startClock(void) {
${indent(x.chip.timer)}
  sei();
}
${
  voltages(x)
    ? `
// A voltage in steps of 1/1024 of the supply.
static uint16_t __attribute__((unused)) measure(uint8_t channel) {
  ADMUX = ${x.chip.admux} | channel;
  ADCSRA = _BV(ADEN) | _BV(ADSC) | _BV(ADPS2) | _BV(ADPS1);
  while (ADCSRA & _BV(ADSC)) {
  }
  return ADC;
}
`
    : ""
}
${say}
`,
  };
}

const pinOf = (l: Line) => l.p.pin(l.label);

/** Resting levels and directions: the level first, so that nothing twitches. */
function setup(x: Ctx): string {
  return x.lines
    .flatMap((l): string[] => {
      const pin = pinOf(l);
      if (l.kind === "strip") return [`low(${pin});`, `output(${pin});`];
      if (l.kind === "light" || l.kind === "load") return [`${l.lit ? "low" : "high"}(${pin});`, `output(${pin});`];
      if (l.kind === "contact") return [`input(${pin});`, ...(l.pull ? [`high(${pin});`] : [])];
      if (l.kind === "rest" && l.level !== "float") return [`${l.level ? "high" : "low"}(${pin});`, `output(${pin});`];
      if (l.kind === "quiet" && l.level === "pull") return [`input(${pin});`, `high(${pin});`];
      if (l.kind === "quiet") return [`${l.level ? "high" : "low"}(${pin});`, `output(${pin});`];
      return [];
    })
    .concat(x.talks.map(setupOf).filter(Boolean))
    .join("\n");
}
const turn = (l: Extract<Line, { kind: "light" | "load" }>, on: boolean) =>
  `${on === (l.lit === 1) ? "high" : "low"}(${pinOf(l)});`;

const turned = (l: Extract<Line, { kind: "light" | "load" }>) => ({
  ref: l.p.ref,
  on: turn(l, true),
  off: turn(l, false),
});

/** The parts that are talked to, shared by both programs; null where there are none. */
export function partsFile(x: Ctx): FirmwareFile | null {
  if (!hasParts(x)) return null;
  const strips = stripsOf(x);
  const text = [
    x.talks.length ? partsText(x.chip, x.talks) : `#include "board.h"`,
    ...(strips.length ? [stripHelpers(x.clock_Hz), ...strips.map(stripText)] : []),
  ];
  return { path: "parts.h", text: `${banner(x, "the parts")}#pragma once\n${text.join("\n\n")}\n` };
}

/** Every part by itself, told over the console where there is one, shown by the lights everywhere. */
export function bringup(x: Ctx): FirmwareFile {
  const tests = x.lines.flatMap((l) => {
    if (l.kind === "quiet") return [];
    const says = `${l.p.ref} pin=${l.p.printed(l.label)}`;
    if (l.kind === "light")
      return `for (uint8_t i = 0; i < 3; i++) {
  ${turn(l, true)}
  _delay_ms(150);
  ${turn(l, false)}
  _delay_ms(150);
}
say("YL1 gpio ${says} blink=3 info\\r\\n");`;
    if (l.kind === "strip") return stripBringup(l.p);
    if (l.kind === "contact")
      return `say("YL1 gpio ${says} level=");\nsayNumber(read(${pinOf(l)}));\nsay(" info\\r\\n");`;
    if (l.kind === "voltage")
      return `say("YL1 adc ${says} raw=");\nsayNumber(measure(${l.channel}));\nsay(" info\\r\\n");`;
    return `say("YL1 gpio ${says} rests=${l.kind === "load" ? 1 - l.lit : l.level} info\\r\\n");`;
  });
  tests.push(...x.talks.map(bringupOf));
  const refs = new Set([...x.lines, ...x.talks].map((l) => l.p.ref)).size;
  const done = x.talks.length
    ? `say("YL1 done parts=${refs} proven=");
    sayNumber(proven);
    say(" failed=");
    sayNumber(failed);
    say(" unproven=");
    sayNumber(${refs} - proven - failed);
    if (failed) say(" fail\\r\\n");
    else if (proven == ${refs}) say(" ok\\r\\n");
    else say(" info\\r\\n");`
    : `say("YL1 done parts=${refs} proven=0 failed=0 unproven=${refs} info\\r\\n");`;
  return {
    path: "bringup.c",
    text: `${banner(x, "bring-up, each part by itself, again and again")}#include "${included(x)}"

int main(void) {
${x.talks.length ? "  startClock();\n" : ""}${indent(setup(x))}
  sayStart();
  for (;;) {
    say("YL1 hello ${x.host} plan=${x.plan} info\\r\\n");
${x.talks.length ? "    uint8_t proven = 0, failed = 0;\n" : ""}${indent(indent(tests.join("\n")))}
    // What is lit, pressed or turned is for a person to see: nothing here can prove it.
    ${done}
    _delay_ms(2000);
  }
}
`,
  };
}

/** A part of two legs whose other leg is at ground: where it resists more, in the dark or in the cold, the voltage is higher. */
export function grounded(x: Ctx, l: Line): boolean {
  const other = l.p.inst.part.pins.length === 2 && l.p.inst.part.pins.find((q) => q.label !== l.label);
  return other ? x.c.netlist.netOf(`${l.p.inst.ref}.${other.label}`).kind === "ground" : false;
}

/** What rules stand on: milliseconds that do not begin anew after a minute, and what is due. */
const clock = (nap: Nap | null) => `// Milliseconds in 32 bits; asked far more often than once a minute.
static uint32_t millis(void) {
  static uint32_t ms;
  static uint16_t last;
  uint16_t n = now();
  ms += (uint16_t)(n - last);
  last = n;
  return ms${nap ? " + slept" : ""};
}
#define due(next, every) due_(&(next), every)
static bool __attribute__((unused)) due_(uint32_t *next, uint32_t every) {
  uint32_t t = millis();
  if ((int32_t)(t - *next) < 0) return false;
  *next += every;
  if ((int32_t)(t - *next) >= 0) *next = t + every;
  return true;
}
#define constrain(v, least, most) ((v) < (least) ? (least) : (v) > (most) ? (most) : (v))`;

/** How often rules look, ms: contacts have stopped to bounce between two looks. */
const RULES_MS = 20;

/** What a part is to a rule: its data where it is talked to, else its pin. */
const ruleCode =
  (x: Ctx) =>
  (p: DriverPart): RuleCode | undefined => {
    if (x.talks.some((t) => t.p.inst.ref === p.inst.ref))
      return {
        value: (_, q) => `${p.id}_${q.name}`,
        fresh: () => `${p.id}_fresh`,
        tell: (_, v) => `${p.id}_want = ${v};`,
      };
    const line = x.lines.find((l) => l.p.inst.ref === p.inst.ref);
    if (line?.kind === "contact") return { value: () => `(read(${pinOf(line)}) == ${line.pressed})` };
    if (line?.kind === "strip") return { tell: (_, v) => `${p.id}_tell(${v});` };
    if (line?.kind === "light") return { tell: (_, v) => `if (${v}) ${turn(line, true)}\nelse ${turn(line, false)}` };
    return undefined;
  };

/** At the end of the loop: after so many seconds awake the rest of the round is slept, with the lights off that only blink. */
function rest(
  x: Ctx,
  { awake_ms, asleep_ms }: Nap,
  blinking: readonly Extract<Line, { kind: "light" }>[],
  held: number,
  keeps: readonly string[],
): string {
  const before = [
    ...blinking.map((l) => turn(l, false)),
    // What was read is no reading of the next round.
    ...readers(x.talks.map((t) => t.p)).map((p) => `${p.id}_fresh = false;`),
    // The last letters leave its serial port.
    ...(x.chip.uart && starterTalks(x) ? ["_delay_ms(3);"] : []),
  ];
  return `// The rest of the round is slept: pins keep their levels, nothing is heard.
static uint16_t second, awake;
${keeps.length ? `// What works something is never left alone.\nif (${keeps.join(" || ")}) awake = 0;\n` : ""}${held ? `if (held && (uint16_t)(now() - woke) >= ${held}) held = 0;\n` : ""}if ((uint16_t)(now() - second) >= 1000) {
  second += 1000;
  if (++awake >= ${awake_ms / 1000}) {
    awake = 0;
${before.map((b) => `    ${b}\n`).join("")}    nap(${asleep_ms}UL);
${starterTalks(x) ? `    seconds += ${asleep_ms / 1000}UL;\n` : ""}${held ? "    woke = now();\n    held = 1;\n" : ""}  }
}`;
}

/** Does something at once: contacts work lights, then what switches something; the first voltage the first light where there is no contact, the rest blink. */
export function main(x: Ctx): FirmwareFile {
  const lights = x.lines.filter((l) => l.kind === "light");
  const contacts = x.lines.filter((l) => l.kind === "contact");
  const strips = x.lines.filter((l) => l.kind === "strip");
  const [volt] = x.lines.filter((l) => l.kind === "voltage");
  const body: string[] = [];
  const worked = [
    ...lights.map(turned),
    ...x.lines.flatMap((l) => (l.kind === "load" ? [turned(l)] : [])),
    ...strips.map(({ p }) => ({ ref: p.ref, on: `${p.id}_tell(${pixelsOf(p)});`, off: `${p.id}_tell(0);` })),
    ...x.talks.flatMap((t) => {
      const on = onOf(t);
      return on === null
        ? []
        : [{ ref: t.p.ref, on: `${t.p.id}_want = ${on};`, off: `${t.p.id}_want = ${t.device.takes!.rest};` }];
    }),
  ];
  // What somebody has said counts instead.
  const ruled = x.rules && new Set(x.rules.flatMap((r) => told(r).map((a) => a.part.inst.ref)));
  const rules = x.rules && rulesInC(x.rules, ruleCode(x), x.nap && watchedOf(x.rules));
  /** After waking they wait for what they go by. */
  const held =
    x.nap && rules
      ? hold_ms(
          x.nap,
          x.rules!,
          x.talks.map((t) => t.p),
        )
      : 0;
  const settle = x.rules ? settle_ms(x.rules) : 0;
  const keeps = x.nap && settle ? [`millis() - rules_busy < ${settle}UL`] : [];
  const pairs = ruled ? [] : contacts.slice(0, worked.length);
  for (const [i, k] of pairs.entries())
    body.push(`// ${k.p.ref} works ${worked[i]!.ref}.
if (read(${pinOf(k)}) == ${k.pressed}) ${worked[i]!.on}
else ${worked[i]!.off}`);
  keeps.push(...pairs.map((k) => `read(${pinOf(k)}) == ${k.pressed}`));
  body.push(...x.talks.map(taskOf));
  if (rules)
    body.push(`// What happens when.
static uint32_t look;
if (${held ? "!held && " : ""}due(look, ${RULES_MS})) {
${indent(rules.body)}
}`);
  // A light that is told how bright it is, which plain C can't, stays dark: blinking would say that it is nobody's.
  let free = ruled ? lights.filter((l) => !ruled.has(l.p.inst.ref) && !l.p.dims) : lights.slice(pairs.length);
  if (!ruled && !contacts.length && volt && free[0]) {
    const up = grounded(x, volt);
    body.push(`// ${free[0].p.ref} is on while ${volt.p.ref} is ${up ? "above" : "below"} the middle, with a little room against flicker.
static uint8_t on;
uint16_t v = measure(${volt.channel});
if (v < 480) on = ${up ? 0 : 1};
else if (v > 544) on = ${up ? 1 : 0};
if (on) ${turn(free[0], true)}
else ${turn(free[0], false)}`);
    free = free.slice(1);
  }
  const running = strips.filter(({ p }) => !ruled?.has(p.inst.ref) && !pairs.some((_, i) => worked[i]!.ref === p.ref));
  body.push(...running.map(({ p }) => stripRuns(p)));
  const timed =
    x.nap !== null || running.length > 0 || rules !== null || free.length > 0 || starterTalks(x) || x.talks.length > 0;
  if (free.length)
    body.push(`static uint16_t blink;
static uint8_t lit;
if ((uint16_t)(now() - blink) >= 500) {
  blink += 500;
  lit = !lit;
  if (lit) {
${indent(indent(free.map((l) => turn(l, true)).join("\n")))}
  } else {
${indent(indent(free.map((l) => turn(l, false)).join("\n")))}
  }
}`);
  if (starterTalks(x)) {
    const values = [
      ...contacts.map((k) => `say(" ${k.p.ref}=");\nsayNumber(read(${pinOf(k)}));`),
      ...x.lines.flatMap((l) =>
        l.kind === "voltage" ? [`say(" ${l.p.ref}=");\nsayNumber(measure(${l.channel}));`] : [],
      ),
      ...x.talks.map(valuesOf).filter(Boolean),
      // A display that no contact works counts the seconds.
      ...x.talks.flatMap(({ p, device: { takes } }) =>
        (takes?.word === "number" || takes?.word === "digit") &&
        !ruled?.has(p.inst.ref) &&
        !pairs.some((_, i) => worked[i]!.ref === p.ref)
          ? [`${p.id}_want = seconds % ${Math.min(takes.range[1], 9999) + 1};`]
          : [],
      ),
    ];
    body.push(`static uint16_t told${x.nap ? "" : ", seconds"};
if ((uint16_t)(now() - told) >= 1000) {
  told += 1000;
  say("running ");
  sayNumber(++seconds);
  say(" s");
${indent(values.join("\n"))}
  say("\\r\\n");
}`);
  }
  if (x.nap) body.push(rest(x, x.nap, free, held, keeps));
  return {
    path: "main.c",
    text: `${banner(x, "starter; nothing in the loop waits")}${x.left ? `${x.left}\n` : ""}#include "${included(x)}"
${x.nap ? `\n${starterTalks(x) ? "static uint16_t seconds;\n" : ""}${held ? "// Since when it is awake, and whether rules still wait for readings.\nstatic uint16_t woke;\nstatic uint8_t held = 1;\n" : ""}${napInPlainC(x.chip.watchdog!)}` : ""}${rules ? `#include <stdbool.h>\n\n${clock(x.nap)}\n\n${rules.state}\n` : ""}${place("globals")}

int main(void) {
${timed ? "  startClock();\n" : ""}${indent(setup(x))}
${starterTalks(x) ? `  sayStart();\n  say("YL1 plan ${x.host} id=${x.plan} info\\r\\n");\n` : ""}${indent(place("setup"))}
  for (;;) {
${indent(indent(body.map((b) => `{\n${indent(b)}\n}`).join("\n")))}
${indent(indent(place("loop")))}
  }
}
`,
  };
}

/** Compiling, fuses for the planned clock, and writing over the programmer. */
export function makefile(x: Ctx): FirmwareFile {
  const fuses = Object.entries(x.chip.fuses).map(([k, v]) => `-U ${k}:w:${v}:m`);
  return {
    path: "Makefile",
    text: `# ${x.title}, plan ${x.plan}. The programmer's name: change it to yours${x.programmer.port ? ", and its port" : ""}.
PROGRAMMER = ${x.programmer.tool}
${x.programmer.port ? `PORT = /dev/ttyUSB0\n` : ""}${x.programmer.paced ? `# Microseconds a bit: a chip as sold runs at 1 MHz and wants more than 4. Less is faster once the fuses are set.\nBITCLOCK = 10\n` : ""}
MCU = ${x.chip.mcu}
F_CPU = ${x.clock_Hz}UL
CC = avr-gcc
CFLAGS = -mmcu=$(MCU) -DF_CPU=$(F_CPU) -Os -std=gnu11 -Wall -Wextra -ffunction-sections -fdata-sections -Wl,--gc-sections
DUDE = avrdude -c $(PROGRAMMER)${x.programmer.port ? ` -P $(PORT)${x.programmer.port}` : ""}${x.programmer.paced ? " -B $(BITCLOCK)" : ""} -p ${x.chip.part}

all: bringup.hex main.hex

%.elf: %.c board.h pins.h${hasParts(x) ? " parts.h" : ""}
\t$(CC) $(CFLAGS) -o $@ $<
\tavr-size $@

%.hex: %.elf
\tavr-objcopy -O ihex -R .eeprom $< $@

# Whether the six wires are right: the chip says who it is${x.signature ? `, ${x.signature}` : ""}. Nothing is written.
signature:
\t$(DUDE) -n

# Once for each chip: ${x.chip.fusesSay}.
fuses:
\t$(DUDE) ${fuses.join(" ")}

bringup: bringup.hex
\t$(DUDE) -U flash:w:bringup.hex:i

flash: main.hex
\t$(DUDE) -U flash:w:main.hex:i

clean:
\trm -f *.elf *.hex

.PHONY: all signature fuses bringup flash clean
.PRECIOUS: %.elf
`,
  };
}
