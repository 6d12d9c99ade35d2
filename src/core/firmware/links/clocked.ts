import { TOO_FINE } from "./onewire";
import type { Link } from "./types";

/** Data clocked out of a part whose clock may not stay high for longer than 60 us: it would fall asleep. */
export const clocked: Link<"clocked"> = {
  unfit: (target) => (target === "python" ? TOO_FINE : null),
  c: ({ data, clock, more }) => ({
    helpers: `// Bits clocked out of a part; its clock may not stay high for longer than 60 us.
static uint8_t __attribute__((unused)) clockedBit(uint8_t data, uint8_t clock) {
  noInterrupts();
  digitalWrite(clock, HIGH);
  delayMicroseconds(1);
  digitalWrite(clock, LOW);
  interrupts();
  delayMicroseconds(1);
  return digitalRead(data) ? 1 : 0;
}
static bool __attribute__((unused)) clockedGet(uint8_t data, uint8_t clock, uint8_t more, uint8_t *to, uint8_t n) {
  if (n == 1) {
    *to = digitalRead(data) ? 0 : 1;
    return true;
  }
  while (n--) {
    *to = 0;
    for (uint8_t i = 0; i < 8; i++) *to = *to << 1 | clockedBit(data, clock);
    to++;
  }
  while (more--) clockedBit(data, clock);
  return true;
}`,
    write: () => "",
    read: (p, n) => `clockedGet(${p.pin(data)}, ${p.pin(clock)}, ${more}, b, ${n})`,
  }),
  python: ({ data, clock, more }) => ({
    lib: {
      path: "lib/clocked.py",
      text: `from machine import Pin, disable_irq, enable_irq


class Clocked:
    """Bits clocked out of a part; its clock may not stay high for longer than 60 us."""

    def __init__(self, data, clock, more):
        self.data = Pin(data, Pin.IN)
        self.clock = Pin(clock, Pin.OUT, value=0)
        self.more = more

    def bit(self):
        state = disable_irq()
        self.clock.value(1)
        self.clock.value(0)
        enable_irq(state)
        return self.data.value()

    def get(self, n):
        if n == 1:
            return bytes((1 - self.data.value(),))
        got = bytearray(n)
        for i in range(n):
            for _ in range(8):
                got[i] = got[i] << 1 & 255 | self.bit()
        for _ in range(self.more):
            self.bit()
        return bytes(got)
`,
    },
    imports: () => ["from lib.clocked import Clocked"],
    setup: (p) => `${p.id}_wire = Clocked(pins.${p.pin(data)}, pins.${p.pin(clock)}, ${more})`,
    write: () => "pass",
    read: (p, n) => `b = ${p.id}_wire.get(${n})`,
  }),
};
