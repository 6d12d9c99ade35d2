import type { DriverPart, Lack } from "../../types";

/** Slower than this a bit of a strip takes longer than its lights wait, hertz. */
const LEAST_HZ = 8_000_000;
/** A chip of so little memory for programs keeps it for others, kB. */
const LEAST_KB = 2;

export const isStrip = (p: DriverPart): boolean => p.inst.part.bringup?.driver === "ws2812b";

/** Why plain C can't work a strip on this chip, or null. */
export function stripLacks(p: DriverPart): Lack | null {
  const { chip, clock_Hz, flash_kB } = p.board;
  if (flash_kB < LEAST_KB) return { kind: "memory", why: `${flash_kB} kB hold no program for its lights` };
  return clock_Hz < LEAST_HZ
    ? {
        kind: "capability",
        why: `at ${clock_Hz / 1e6} MHz ${chip} is too slow for the bits of its lights: 8 MHz and more do`,
      }
    : null;
}

/** Whole cycles of a bit's parts: a 0 is high for 0.375 us, a 1 for 0.8 us, all of it takes 1.25 us and may take more. */
function nops(clock_Hz: number) {
  const mhz = clock_Hz / 1e6;
  const zero = Math.max(3, Math.round(0.375 * mhz));
  const one = Math.max(zero + 3, Math.round(0.8 * mhz - 0.45));
  const all = Math.max(one + 5, Math.round(1.25 * mhz));
  return { first: zero - 2, second: one - zero - 1, last: all - one - 5 };
}
const repeated = (n: number) => (n > 0 ? `      "${Array<string>(n).fill("nop").join("\\n\\t")}\\n\\t"\n` : "");

/** What strips stand on: one byte on a pin, highest bit first. Nothing is kept of the lights: their bytes are made as they go out. */
export function stripHelpers(clock_Hz: number): string {
  const n = nops(clock_Hz);
  return `// One byte to a strip, with the timing of the WS2812B at ${clock_Hz / 1e6} MHz. Nothing comes between its bits; the clock's tick is served behind them.
#define stripByte(pin, byte) stripByte_(pin, byte)
#define stripByte_(P, N, byte) stripBits(_SFR_IO_ADDR(PORT##P), _BV(N), byte)
static inline __attribute__((always_inline)) void stripBits(const uint8_t port, const uint8_t mask, uint8_t byte) {
  uint8_t bits = 8, was = SREG;
  cli();
  // The other pins of the port stay as they are now.
  const uint8_t high = _SFR_IO8(port) | mask, low = _SFR_IO8(port) & (uint8_t)~mask;
  asm volatile(
      "1: out %[port], %[high]\\n\\t"
${repeated(n.first)}      "sbrs %[byte], 7\\n\\t"
      "out %[port], %[low]\\n\\t"
${repeated(n.second)}      "out %[port], %[low]\\n\\t"
      "lsl %[byte]\\n\\t"
${repeated(n.last)}      "dec %[bits]\\n\\t"
      "brne 1b\\n\\t"
      : [byte] "+r"(byte), [bits] "+r"(bits)
      : [port] "I"(port), [high] "r"(high), [low] "r"(low));
  SREG = was;
}
// Green, red, blue of a light.
typedef struct { uint8_t g, r, b; } Light;`;
}

const cap = (p: DriverPart) => Math.floor((p.vars.brightness ?? 1) * 255);
export const pixelsOf = (p: DriverPart) => p.vars.pixels ?? 1;
const scaled = (p: DriverPart, r: number, g: number, b: number) =>
  `(Light){${[g, r, b].map((v) => Math.floor((v * cap(p)) / 255)).join(", ")}}`;
const DARK = "(Light){0, 0, 0}";

/** One strip: so many of its lights in one colour, the others in another; and told how many are lit. */
export const stripText = (
  p: DriverPart,
): string => `// ${p.ref} ${p.label}: ${pixelsOf(p)} lights; \`n\` of them from \`from\` on are in one colour, the others in another.
static void __attribute__((noinline)) ${p.id}_show(uint16_t from, uint16_t n, Light in, Light out) {
  for (uint16_t i = 0; i < ${pixelsOf(p)}; i++) {
    Light c = (uint16_t)(i - from) < n ? in : out;
    stripByte(${p.pin("DIN")}, c.g);
    stripByte(${p.pin("DIN")}, c.r);
    stripByte(${p.pin("DIN")}, c.b);
  }
  _delay_us(300);
}
static void __attribute__((unused)) ${p.id}_tell(int32_t lit) {
  static int32_t was = -1;
  if (lit == was) return;
  was = lit;
  ${p.id}_show(0, lit, ${scaled(p, 255, 255, 160)}, ${DARK});
}`;

/** All red, green, blue, then dark. */
export const stripBringup = (p: DriverPart): string => `${[
  [255, 0, 0],
  [0, 255, 0],
  [0, 0, 255],
  [0, 0, 0],
]
  .map(([r, g, b]) => {
    const c = scaled(p, r!, g!, b!);
    return `${p.id}_show(0, ${pixelsOf(p)}, ${c}, ${c});\n_delay_ms(300);`;
  })
  .join("\n")}
say("YL1 strip ${p.ref} pin=${p.printed("DIN")} pixels=${pixelsOf(p)} cap=${cap(p)} info\\r\\n");`;

/** A light that runs along it, where nobody tells it anything. */
export const stripRuns = (p: DriverPart): string => `// ${p.ref}: a light runs along it.
static uint16_t step, place;
if ((uint16_t)(now() - step) >= 60) {
  step += 60;
  ${p.id}_show(place, 1, ${scaled(p, 255, 255, 160)}, ${scaled(p, 40, 60, 20)});
  if (++place >= ${pixelsOf(p)}) place = 0;
}`;
