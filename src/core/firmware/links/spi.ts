import type { DriverPart } from "../types";
import { escaped, listInC, type Link } from "./types";

const groupOf = (p: DriverPart) => p.inst.part.groups.find((g) => g.kind === "spi")!;
const ROLES = ["cs", "sck", "mosi", "miso"] as const;
/** The part's lines in that order, as they are called in the program; those that it has not, or are not wired, by another name. */
const lines = (p: DriverPart, pin: (name: string) => string, none: string) =>
  ROLES.map((r) => {
    const label = groupOf(p).pins[r];
    return label && p.has(label) ? pin(p.pin(label)) : none;
  });
/** Half a clock of a card, microseconds: until it is awake it takes 400 kHz at most. */
const WAKING_US = 2;
/** Bytes of a picture that pins of a computer bring over within a second or so. */
const MOST_FROM_COMPUTER = 5000;
const mode = (p: DriverPart) => groupOf(p).mode ?? 0;

/**
 * SPI timed by the program, on the planned pins and no others: a controller takes its lines whole, and would drive pins that the
 * plan gave to something else. At most 500 kHz, which all parts of the catalogue take.
 */
export const spi: Link<"spi"> = {
  unfitPart: (p, over) =>
    p.target === "python" && (over.picture ?? 0) > MOST_FROM_COMPUTER
      ? "a computer's pins are too slow for so many dots, one bit after the other"
      : null,
  c: (over) => ({
    helpers: `// SPI timed by the program: it touches the planned pins and no others. 255: no such line; us: half a clock at least.
typedef struct {
  uint8_t cs, sck, mosi, miso, mode, us;
} SpiPins;
static void __attribute__((unused)) spiSelect(const SpiPins *s, uint8_t level) {
  if (s->cs != 255) digitalWrite(s->cs, level);
}
static void __attribute__((unused)) spiBegin(const SpiPins *s) {
  spiSelect(s, HIGH);
  if (s->cs != 255) pinMode(s->cs, OUTPUT);
  digitalWrite(s->sck, s->mode & 2 ? HIGH : LOW);
  pinMode(s->sck, OUTPUT);
  if (s->mosi != 255) pinMode(s->mosi, OUTPUT);
  if (s->miso != 255) pinMode(s->miso, INPUT);
}
static uint8_t __attribute__((unused)) spiByte(const SpiPins *s, uint8_t out) {
  uint8_t idle = s->mode & 2 ? HIGH : LOW;
  uint8_t in = 0;
  for (uint8_t bit = 0x80; bit; bit >>= 1) {
    if (s->mode & 1) digitalWrite(s->sck, !idle);
    if (s->mosi != 255) digitalWrite(s->mosi, out & bit ? HIGH : LOW);
    delayMicroseconds(s->us);
    digitalWrite(s->sck, s->mode & 1 ? idle : !idle);
    if (s->miso != 255 && digitalRead(s->miso)) in |= bit;
    delayMicroseconds(s->us);
    if (!(s->mode & 1)) digitalWrite(s->sck, idle);
  }
  return in;
}
// One message: bytes out, then bytes in, \`idle\` going out beside them.
static bool __attribute__((unused)) spiSwap(const SpiPins *s, const uint8_t *list, uint8_t k, uint8_t *to, uint8_t n, uint8_t idle) {
  digitalWrite(s->sck, s->mode & 2 ? HIGH : LOW);
  spiSelect(s, LOW);
  delayMicroseconds(1);
  while (k--) spiByte(s, *list++);
  // Of a part that answers late the first byte that says anything.
  uint8_t first = n ? spiByte(s, idle) : 0;
  for (uint8_t i = 1; idle && n && first == idle && i <= 8; i++) first = spiByte(s, idle);
  for (uint8_t i = 0; i < n; i++) to[i] = i ? spiByte(s, idle) : first;
  spiSelect(s, HIGH);
  return true;
}
// The same bytes over and over in one message, as fast as pins go: dots of a picture. Only out, and only in mode 0.
static void __attribute__((unused)) spiFill(const SpiPins *s, const uint8_t *list, uint8_t k, uint16_t times) {
  digitalWrite(s->sck, LOW);
  spiSelect(s, LOW);
#ifdef __AVR__
  volatile uint8_t *sck = portOutputRegister(digitalPinToPort(s->sck));
  volatile uint8_t *mosi = portOutputRegister(digitalPinToPort(s->mosi));
  const uint8_t clock = digitalPinToBitMask(s->sck), data = digitalPinToBitMask(s->mosi);
#endif
  for (; times; times--)
    for (uint8_t i = 0; i < k; i++)
      for (uint8_t bit = 0x80; bit; bit >>= 1) {
#ifdef __AVR__
        // Other pins of the port may be changed by an interrupt.
        uint8_t was = SREG;
        cli();
        if (list[i] & bit) *mosi |= data;
        else *mosi &= ~data;
        *sck |= clock;
        *sck &= ~clock;
        SREG = was;
#else
        digitalWrite(s->mosi, list[i] & bit ? HIGH : LOW);
        digitalWrite(s->sck, HIGH);
#if F_CPU > 200000000
        delayMicroseconds(1);
#endif
        digitalWrite(s->sck, LOW);
#endif
      }
  spiSelect(s, HIGH);
}`,
    globals: (p) =>
      `static const SpiPins ${p.id}_spi = {${lines(p, (n) => n, "255").join(", ")}, ${mode(p)}, ${over.wake ? WAKING_US : 1}};`,
    setup: (p) =>
      over.wake
        ? `spiBegin(&${p.id}_spi);\nfor (uint8_t i = 0; i < ${over.wake}; i++) spiByte(&${p.id}_spi, 255);`
        : `spiBegin(&${p.id}_spi);`,
    write: (p, bytes, times) =>
      listInC(bytes, (list, n) =>
        times !== undefined
          ? `spiFill(&${p.id}_spi, ${list}, ${n}, ${times});`
          : `spiSwap(&${p.id}_spi, ${list}, ${n}, nullptr, 0, 0);`,
      ),
    read: (p, n, from) =>
      `spiSwap(&${p.id}_spi, ${from === undefined ? "nullptr, 0" : `(const uint8_t *)"${escaped(from)}", ${from.length}`}, b, ${n}, ${over.idle ?? 0})`,
  }),
  python: (over) => ({
    lib: {
      path: "lib/spi.py",
      text: `from machine import Pin
import time


class Spi:
    """SPI timed by the program: it touches the planned pins and no others. None: no such line."""

    def __init__(self, cs, sck, mosi, miso, mode):
        self.idle = mode >> 1
        self.late = mode & 1
        self.cs = None if cs is None else Pin(cs, Pin.OUT, value=1)
        self.sck = Pin(sck, Pin.OUT, value=self.idle)
        self.mosi = None if mosi is None else Pin(mosi, Pin.OUT, value=0)
        self.miso = None if miso is None else Pin(miso, Pin.IN)
        self.soft = None

    def select(self, level):
        if self.cs:
            self.cs.value(level)

    def byte(self, out):
        got = 0
        for k in range(7, -1, -1):
            if self.late:
                self.sck.value(1 - self.idle)
            if self.mosi:
                self.mosi.value(out >> k & 1)
            time.sleep_us(1)
            self.sck.value(self.idle if self.late else 1 - self.idle)
            if self.miso:
                got |= self.miso.value() << k
            time.sleep_us(1)
            if not self.late:
                self.sck.value(self.idle)
        return got

    def swap(self, data, n, idle=0):
        """One message: bytes out, then bytes in, \`idle\` going out beside them."""
        self.sck.value(self.idle)
        self.select(0)
        for x in data:
            self.byte(x)
        got = []
        late = 8 if idle else 0
        while len(got) < n:
            x = self.byte(idle)
            # Of a part that answers late the first byte that says anything.
            if got or x != idle or not late:
                got.append(x)
            else:
                late -= 1
        self.select(1)
        return bytes(got)

    def fill(self, data, times):
        """The same bytes over and over in one message, as fast as pins go: dots of a picture."""
        if self.soft is None:
            from machine import SoftSPI

            # Nothing is read: where there is no line for it, that of the data out stands in, and is an output again.
            self.soft = SoftSPI(baudrate=4000000, polarity=self.idle, phase=self.late, sck=self.sck, mosi=self.mosi, miso=self.miso or self.mosi)
            if not self.miso:
                self.mosi.init(Pin.OUT)
        self.select(0)
        self.soft.write(bytes(data) * times)
        self.select(1)
`,
    },
    imports: () => ["from lib.spi import Spi"],
    setup: (p) =>
      `${p.id}_spi = Spi(${[...lines(p, (n) => `pins.${n}`, "None"), mode(p)].join(", ")})${over.wake ? `\nfor _ in range(${over.wake}):\n    ${p.id}_spi.byte(255)` : ""}`,
    write: (p, bytes, times) =>
      times !== undefined ? `${p.id}_spi.fill(${bytes}, ${times})` : `${p.id}_spi.swap(${bytes}, 0)`,
    read: (p, n, from) => `b = ${p.id}_spi.swap(b"${escaped(from ?? [])}", ${n}${over.idle ? `, ${over.idle}` : ""})`,
  }),
};
