import type { Nap } from ".";

/** The watchdog's shortest piece, ms, and how often it can be doubled: up to 8 seconds. */
const PIECE_MS = 16;
const DOUBLED = 9;

interface Avr {
  register: string;
  wakes: string;
  /** Before it falls asleep, and what brings the program's own count of time forward by `piece` milliseconds. */
  before?: string;
  count: string;
}

/** Power-down in pieces, each ended by the watchdog's interrupt; nothing else wakes it for good. */
const avr = ({ register, wakes, before, count }: Avr) => `#include <avr/sleep.h>
#include <avr/wdt.h>

// The chip's watchdog wakes it, in pieces of ${PIECE_MS} ms that are doubled up to 8 s. Its own clock may be a tenth off.
static volatile uint8_t rang;
ISR(WDT_vect) { rang = 1; }
static void nap(uint32_t ms) {
${before ? `  ${before}\n` : ""}  // Neither converter nor timer: the time is counted by the watchdog's pieces.
  uint8_t converter = ADCSRA, timer = TCCR0B;
  ADCSRA = 0;
  TCCR0B = 0;
  set_sleep_mode(SLEEP_MODE_PWR_DOWN);
  while (ms >= ${PIECE_MS}) {
    uint8_t k = ${DOUBLED};
    while (k && (${PIECE_MS}UL << k) > ms) k--;
    uint16_t piece = ${PIECE_MS}U << k;
    uint8_t set = _BV(${wakes}) | (k & 8 ? _BV(WDP3) : 0) | (k & 7);
    rang = 0;
    cli();
    wdt_reset();
    MCUSR &= ~_BV(WDRF);
    ${register} = _BV(WDCE) | _BV(WDE);
    ${register} = set;
    sei();
    while (!rang) sleep_mode();
    cli();
    ${register} = _BV(WDCE) | _BV(WDE);
    ${register} = 0;
    ${count}
    sei();
    ms -= piece;
  }
  TCCR0B = timer;
  ADCSRA = converter;
}
`;

/** Rules wait for what they go by, first lines of their task. */
export const holdInC = (ms: number) => (ms ? `if (millis() - woke < ${ms}UL) return;\n` : "");
export const holdInPython = (ms: number) =>
  ms ? `if time.ticks_diff(time.ticks_ms(), woke) < ${ms}:\n    return\n` : "";

/** A function that sleeps, by the family of a core. */
const SKETCH: Readonly<Record<string, string>> = {
  avr: `// The core's count of milliseconds stands still while the chip sleeps.
extern volatile unsigned long timer0_millis;
${avr({ register: "WDTCSR", wakes: "WDIE", before: "Serial.flush();", count: "timer0_millis += piece;" })}`,
  esp32: `#include <esp_sleep.h>

// Light sleep: the program goes on where it stood, its pins keep their levels.
static void nap(uint32_t ms) {
  Serial.flush();
  esp_sleep_enable_timer_wakeup(1000ULL * ms);
  esp_light_sleep_start();
}
`,
};
export const napInSketch = (family: string) =>
  `// When this round began.\nstatic uint32_t woke = 0;\n${SKETCH[family] ?? ""}`;

/** The same in plain C, whose ticks stand still; what counts whole seconds and milliseconds is told. */
export const napInPlainC = (watchdog: { register: string; wakes: string }) =>
  `// Milliseconds that it has slept: its ticks stand still meanwhile.
static volatile uint32_t slept;
${avr({ ...watchdog, count: "slept += piece;" })}`;

/** At the end of the loop, while `rest` holds: when a round's time awake is over, it sleeps for the rest of it. `before`: what is not left on. */
export const turnInC = (
  { awake_ms, asleep_ms }: Nap,
  before: readonly string[],
  rest: string | null,
) => `// The rest of the round is slept: pins keep their levels, nothing is heard.
if (${rest ? `${rest} && ` : ""}millis() - woke >= ${awake_ms}UL) {
${before.map((b) => `  ${b}\n`).join("")}  nap(${asleep_ms}UL);
  woke = millis();
}`;

export const turnInPython = (
  { awake_ms, asleep_ms }: Nap,
  before: readonly string[],
  rest: string | null,
) => `if ${rest ? `${rest} and ` : ""}time.ticks_diff(time.ticks_ms(), woke) >= ${awake_ms}:
    # The rest of the round is slept: pins keep their levels, nothing is heard.
${before.map((b) => `    ${b}\n`).join("")}    lightsleep(${asleep_ms})
    woke = time.ticks_ms()`;
