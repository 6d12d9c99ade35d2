import { EDGES } from "../drivers/edges";
import type { Link } from "./types";

/** No echo comes after so long, us: some 4 m there and back, and what the part holds its line high for when it heard nothing. */
const LONGEST_US = 25_000;

const PULSE = (out: string) => `digitalWrite(${out}, LOW);
delayMicroseconds(4);
digitalWrite(${out}, HIGH);
delayMicroseconds(10);
digitalWrite(${out}, LOW);`;
const inside = (text: string, by: string) => text.replace(/\n/g, `\n${by}`);

/** A pulse of 10 us out, the time until what comes back has ended: two bytes, microseconds, 0 when nothing came. */
export const echo: Link<"echo"> = {
  unfit: (target) => (target === "python" ? "a computer can't time its echo surely enough" : null),
  c: ({ out, back }) => ({
    stands: [EDGES],
    helpers: `// The length of an echo, by interrupts where the pin has one: nothing waits for it.
struct Echo {
  uint8_t out, back;
  bool timed, was;
  volatile uint32_t rose, us;
  void IRAM_ATTR edge() {
    bool now = digitalRead(back);
    if (now == was) return;
    was = now;
    if (now) rose = micros();
    else us = micros() - rose;
  }
  void pulse() {
    us = 0;
    ${inside(PULSE("out"), "    ")}
    if (!timed) us = pulseIn(back, HIGH, ${LONGEST_US}UL);
  }
  bool get(uint8_t *to) {
    noInterrupts();
    uint32_t t = us;
    interrupts();
    if (t > 65535UL) t = 0;
    to[0] = t >> 8;
    to[1] = t;
    return true;
  }
};`,
    globals: (p) => `static Echo ${p.id}_echo = {${p.pin(out)}, ${p.pin(back)}, false, false, 0, 0};
static void IRAM_ATTR ${p.id}_edge() { ${p.id}_echo.edge(); }`,
    setup: (p) => `pinMode(${p.pin(out)}, OUTPUT);
pinMode(${p.pin(back)}, INPUT);
${p.id}_echo.timed = watchEdges(${p.pin(back)}, ${p.id}_edge);`,
    write: (p) => `${p.id}_echo.pulse();`,
    read: (p) => `${p.id}_echo.get(b)`,
  }),
  plain: ({ out, back }) => ({
    helpers: `// The length of an echo in microseconds, 0 when none came.
static uint16_t __attribute__((unused)) echoOf(uint8_t out, uint8_t back) {
  ${inside(PULSE("out"), "  ")}
  uint32_t from = micros();
  while (!digitalRead(back))
    if (micros() - from > ${LONGEST_US}UL) return 0;
  from = micros();
  while (digitalRead(back))
    if (micros() - from > ${LONGEST_US}UL) return 0;
  return micros() - from;
}`,
    globals: (p) => `static uint16_t ${p.id}_us = 0;`,
    setup: (p) => `pinMode(${p.pin(out)}, OUTPUT);\npinMode(${p.pin(back)}, INPUT);`,
    write: (p) => `${p.id}_us = echoOf(${p.pin(out)}, ${p.pin(back)});`,
    read: (p) => `(b[0] = ${p.id}_us >> 8, b[1] = (uint8_t)${p.id}_us, true)`,
  }),
  python: ({ out, back }) => ({
    lib: {
      path: "lib/echo.py",
      text: `import machine
import time


class Echo:
    """A pulse of 10 us out, the length of the echo back."""

    def __init__(self, out, back):
        self.out = machine.Pin(out, machine.Pin.OUT, value=0)
        self.back = machine.Pin(back, machine.Pin.IN)
        self.us = 0

    def pulse(self):
        self.out.value(0)
        time.sleep_us(4)
        self.out.value(1)
        time.sleep_us(10)
        self.out.value(0)
        self.us = max(0, machine.time_pulse_us(self.back, 1, ${LONGEST_US}))

    def get(self):
        return bytes((self.us >> 8, self.us & 255))
`,
    },
    imports: () => ["from lib.echo import Echo"],
    setup: (p) => `${p.id}_echo = Echo(pins.${p.pin(out)}, pins.${p.pin(back)})`,
    write: (p) => `${p.id}_echo.pulse()`,
    read: (p) => `b = ${p.id}_echo.get()`,
  }),
};
