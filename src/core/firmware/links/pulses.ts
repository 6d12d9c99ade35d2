import type { Link } from "./types";

/** A wire that the program holds low for a moment, and that the part then answers on with pulses: long is 1, short is 0. */
export const pulses: Link<"pulses"> = {
  c: ({ pin }) => ({
    helpers: `// Pulses of two lengths after the wire was held low. 26 to 28 us is 0, 70 us is 1; interrupts stay on: their few
// microseconds do not turn one into the other.
static bool __attribute__((unused)) pulseWhile(uint8_t pin, uint8_t level, uint8_t most) {
  uint32_t t = micros();
  while (digitalRead(pin) == level)
    if (micros() - t > most) return false;
  return true;
}
static bool __attribute__((unused)) pulseGet(uint8_t pin, uint8_t *to, uint8_t n) {
  pinMode(pin, INPUT);
  if (!pulseWhile(pin, HIGH, 200) || !pulseWhile(pin, LOW, 120) || !pulseWhile(pin, HIGH, 120)) return false;
  while (n--) {
    *to = 0;
    for (uint8_t bit = 0x80; bit; bit >>= 1) {
      if (!pulseWhile(pin, LOW, 100)) return false;
      uint32_t t = micros();
      if (!pulseWhile(pin, HIGH, 120)) return false;
      if (micros() - t > 48) *to |= bit;
    }
    to++;
  }
  return true;
}`,
    setup: (p) => `pinMode(${p.pin(pin)}, INPUT);`,
    write: (p) => `digitalWrite(${p.pin(pin)}, LOW);\npinMode(${p.pin(pin)}, OUTPUT);`,
    read: (p, n) => `pulseGet(${p.pin(pin)}, b, ${n})`,
  }),
  python: ({ pin }) => ({
    lib: {
      path: "lib/pulses.py",
      text: `from machine import Pin
from dht import DHTBase
from lib.part import Bad


class Pulses:
    """A wire that is held low for a moment, and answered on with pulses of two lengths."""

    def __init__(self, pin):
        self.wire = DHTBase(Pin(pin))

    def get(self):
        try:
            self.wire.measure()
        except OSError:
            raise
        except Exception:
            raise Bad()
        return bytes(self.wire.buf)
`,
    },
    imports: () => ["from lib.pulses import Pulses"],
    setup: (p) => `${p.id}_wire = Pulses(pins.${p.pin(pin)})`,
    // The module holds the wire low itself.
    write: () => "pass",
    read: (p) => `b = ${p.id}_wire.get()`,
  }),
};
