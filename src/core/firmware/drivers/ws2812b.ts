import type { Driver, DriverPart } from "../types";

/** Brightness cap as 0..255. */
const cap = (p: DriverPart) => Math.floor((p.vars.brightness ?? 1) * 255);
const pixels = (p: DriverPart) => p.vars.pixels ?? 1;

const AVR = `// Sends one strip's bytes with the timing of the WS2812B at 16 MHz: 20 cycles a bit, high for 6 or 13 of them.
static void stripSend(uint8_t pin, const uint8_t *bytes, uint16_t n) {
  volatile uint8_t *port = portOutputRegister(digitalPinToPort(pin));
  uint8_t mask = digitalPinToBitMask(pin);
  uint8_t sreg = SREG;
  cli();
  uint8_t high = *port | mask;
  uint8_t low = *port & ~mask;
  while (n--) {
    uint8_t byte = *bytes++;
    uint8_t bits = 8;
    asm volatile(
        "1: st %a[port], %[high]\\n\\t"
        "nop\\n\\tnop\\n\\tnop\\n\\t"
        "sbrs %[byte], 7\\n\\t"
        "st %a[port], %[low]\\n\\t"
        "nop\\n\\tnop\\n\\tnop\\n\\tnop\\n\\tnop\\n\\t"
        "st %a[port], %[low]\\n\\t"
        "lsl %[byte]\\n\\t"
        "nop\\n\\t"
        "dec %[bits]\\n\\t"
        "brne 1b\\n\\t"
        : [byte] "+r"(byte), [bits] "+r"(bits)
        : [port] "e"(port), [high] "r"(high), [low] "r"(low));
  }
  SREG = sreg;
  delayMicroseconds(300);
}`;

const RP2040 = `#include <hardware/clocks.h>
#include <hardware/gpio.h>
#include <hardware/sync.h>

// Sends one strip's bytes with the timing of the WS2812B: 0.4 or 0.8 us high in a bit of 1.25 us.
static void stripSend(uint8_t pin, const uint8_t *bytes, uint16_t n) {
  uint32_t mhz = clock_get_hz(clk_sys) / 1000000;
  uint32_t irq = save_and_disable_interrupts();
  while (n--) {
    uint8_t byte = *bytes++;
    for (uint8_t bit = 0; bit < 8; bit++, byte <<= 1) {
      uint32_t high = (byte & 0x80 ? 8 : 4) * mhz / 10;
      gpio_put(pin, 1);
      busy_wait_at_least_cycles(high > 10 ? high - 10 : 1);
      gpio_put(pin, 0);
      busy_wait_at_least_cycles(12 * mhz / 10 - high > 20 ? 12 * mhz / 10 - high - 20 : 1);
    }
  }
  restore_interrupts(irq);
  delayMicroseconds(300);
}`;

export const STRIP_SEND: Record<string, string> = { avr: AVR, rp2040: RP2040 };

/** Addressable strip: colours are scaled to the planned brightness cap before they leave the chip. */
export const ws2812b: Driver = {
  id: "ws2812b",
  order: 50,
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
    state: (p) => `static uint16_t ${p.id}_at = 0;`,
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
    task: (p) => ({
      every_ms: 60,
      body: `${p.id}.fill(40, 60, 20);
${p.id}.set(${p.id}_at, 255, 255, 160);
${p.id}.show();
if (++${p.id}_at >= ${pixels(p)}) ${p.id}_at = 0;`,
    }),
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
    task: (p) => ({
      every_ms: 60,
      body: `${p.id}.fill(40, 60, 20)
${p.id}.set(${p.id}_at[0], 255, 255, 160)
${p.id}.show()
${p.id}_at[0] = (${p.id}_at[0] + 1) % ${pixels(p)}`,
    }),
  },
};
