import type { Driver, DriverPart, Lack } from "../types";
import { STRIP_SEND } from "./strip-send";

/** Brightness cap as 0..255. */
const cap = (p: DriverPart) => Math.floor((p.vars.brightness ?? 1) * 255);
const pixels = (p: DriverPart) => p.vars.pixels ?? 1;

/** At this clock the bits of an AVR's strip are counted, hertz. */
const AVR_HZ = 16_000_000;
/**
 * What the rest of a program takes of the memory, bytes: measured 506 with a display and a sensor (console, bus buffers, clock),
 * and room for the stack of its deepest call.
 */
const REST_B = 850;

const lacks = (kind: Lack["kind"], why: string): Lack => ({ kind, why });

/** Why this board can't work this strip, or null. */
function unfit(p: DriverPart): Lack | null {
  const { chip, ram_kB, family, clock_Hz } = p.board;
  const bytes = 3 * pixels(p);
  // Plain C makes the bytes as they go out, and says itself what it can't.
  if (p.target === "avr-c") return null;
  if (bytes + REST_B > ram_kB * 1024)
    return lacks(
      "memory",
      `${pixels(p)} lights need ${bytes} bytes of memory, and ${chip} has ${ram_kB * 1024} in all`,
    );
  if (p.target === "python") return lacks("capability", "a computer's pins can't keep the timing of its lights");
  if (p.target !== "sketch") return null;
  if (!STRIP_SEND[family])
    return lacks("capability", `the timing of its lights is not written for ${chip} in a sketch`);
  return family === "avr" && clock_Hz !== AVR_HZ
    ? lacks("capability", `the timing of its lights is written for 16 MHz, and ${chip} runs at ${clock_Hz / 1e6} MHz`)
    : null;
}

/** Addressable strip: colours are scaled to the planned brightness cap before they leave the chip. */
export const ws2812b: Driver = {
  id: "ws2812b",
  order: 50,
  unfit,
  lively: true,
  takes: (p) => ({ word: "number", unit: "lights", digits: 0, range: [0, pixels(p)], rest: 0, on: pixels(p) }),
  rules: {
    sketch: {
      tell: (p, v) => `if (${p.id}_lit != ${v}) {
  ${p.id}_lit = ${v};
  for (uint16_t i = 0; i < ${pixels(p)}; i++)
    if (i < ${p.id}_lit) ${p.id}.set(i, 255, 255, 160);
    else ${p.id}.set(i, 0, 0, 0);
  ${p.id}.show();
}`,
    },
    micropython: {
      tell: (p, v) => `if ${p.id}_at[0] != ${v}:
    ${p.id}_at[0] = ${v}
    for i in range(${pixels(p)}):
        ${p.id}.set(i, *((255, 255, 160) if i < ${p.id}_at[0] else (0, 0, 0)))
    ${p.id}.show()`,
    },
  },
  proof: () => ({ kind: "seen", question: "All lit red, then green, then blue?" }),
  sketch: {
    helpers: `@STRIP_SEND@

// A strip that never exceeds its planned brightness: every colour is scaled by cap / 255.
template <uint16_t COUNT> struct Strip {
  uint8_t pin, cap;
  uint8_t grb[COUNT * 3];
  void set(uint16_t i, uint8_t r, uint8_t g, uint8_t b) {
    grb[i * 3] = (uint16_t)g * cap / 255;
    grb[i * 3 + 1] = (uint16_t)r * cap / 255;
    grb[i * 3 + 2] = (uint16_t)b * cap / 255;
  }
  void fill(uint8_t r, uint8_t g, uint8_t b) {
    for (uint16_t i = 0; i < COUNT; i++) set(i, r, g, b);
  }
  void show() { stripSend(pin, grb, sizeof grb); }
};`,
    globals: (p) => `static Strip<${pixels(p)}> ${p.id} = {${p.pin("DIN")}, ${cap(p)}, {0}};`,
    state: (p) => (p.ruled ? `static int32_t ${p.id}_lit = 0;` : `static uint16_t ${p.id}_at = 0;`),
    setup: (p) => `pinMode(${p.pin("DIN")}, OUTPUT);\n${p.id}.show();`,
    bringup: (p) => `{
  const uint8_t steps[4][3] = {{255, 0, 0}, {0, 255, 0}, {0, 0, 255}, {0, 0, 0}};
  for (uint8_t i = 0; i < 4; i++) {
    ${p.id}.fill(steps[i][0], steps[i][1], steps[i][2]);
    ${p.id}.show();
    delay(300);
  }
  Serial.println(F("YL1 strip ${p.ref} pin=${p.printed("DIN")} pixels=${pixels(p)} cap=${cap(p)} info"));
}`,
    task: (p) =>
      p.ruled
        ? null
        : {
            every_ms: 60,
            body: `${p.id}.fill(40, 60, 20);
${p.id}.set(${p.id}_at, 255, 255, 160);
${p.id}.show();
if (++${p.id}_at >= ${pixels(p)}) ${p.id}_at = 0;`,
          },
  },
  micropython: {
    lib: {
      path: "lib/strip.py",
      text: `import machine

TIMING = (400, 850, 800, 450)  # ns: high and low of a 0, high and low of a 1


class Strip:
    """Addressable lights that never exceed their planned brightness."""

    def __init__(self, pin, count, cap):
        self.pin = machine.Pin(pin, machine.Pin.OUT, value=0)
        self.count = count
        self.cap = cap
        self.grb = bytearray(count * 3)

    def set(self, i, r, g, b):
        self.grb[i * 3] = g * self.cap // 255
        self.grb[i * 3 + 1] = r * self.cap // 255
        self.grb[i * 3 + 2] = b * self.cap // 255

    def fill(self, r, g, b):
        for i in range(self.count):
            self.set(i, r, g, b)

    def show(self):
        machine.bitstream(self.pin, 0, TIMING, self.grb)
`,
    },
    imports: ["from lib.strip import Strip"],
    setup: (p) => `${p.id} = Strip(pins.${p.pin("DIN")}, ${pixels(p)}, ${cap(p)})\n${p.id}_at = [0]`,
    bringup: (p) => `for r, g, b in ((255, 0, 0), (0, 255, 0), (0, 0, 255), (0, 0, 0)):
    ${p.id}.fill(r, g, b)
    ${p.id}.show()
    time.sleep_ms(300)
print("YL1 strip ${p.ref} pin=${p.printed("DIN")} pixels=${pixels(p)} cap=${cap(p)} info")`,
    task: (p) =>
      p.ruled
        ? null
        : {
            every_ms: 60,
            body: `${p.id}.fill(40, 60, 20)
${p.id}.set(${p.id}_at[0], 255, 255, 160)
${p.id}.show()
${p.id}_at[0] = (${p.id}_at[0] + 1) % ${pixels(p)}`,
          },
  },
};
