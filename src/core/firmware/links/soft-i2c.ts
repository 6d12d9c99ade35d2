import type { DriverPart } from "../types";
import type { LinkInC } from "./types";

const pinsOf = (p: DriverPart) => p.inst.part.groups.find((g) => g.kind === "i2c")!.pins;

/**
 * A two-wire bus worked by the program, for chips without a controller: its lines are only pulled low or let go, so that the
 * bus's own resistors lift them, and a part may hold the clock. The same calls as on a controller.
 */
export const softI2c: Pick<LinkInC, "helpers" | "globals" | "setup"> = {
  helpers: `// A two-wire bus on two pins: pulled low or let go, never driven high. us: half a clock at least.
typedef struct {
  uint8_t sda, scl, us;
} BusPins;
static void __attribute__((unused)) busFree(uint8_t pin) { pinMode(pin, INPUT); }
static void __attribute__((unused)) busDown(uint8_t pin) {
  digitalWrite(pin, LOW);
  pinMode(pin, OUTPUT);
}
// Lets the clock go; a part may hold it for a while, not for ever.
static bool __attribute__((unused)) busRise(const BusPins *bus) {
  busFree(bus->scl);
  delayMicroseconds(bus->us);
  for (uint16_t i = 0; digitalRead(bus->scl) == LOW; i++) {
    if (i == 2500) return false;
    delayMicroseconds(10);
  }
  return true;
}
static bool __attribute__((unused)) busStart(const BusPins *bus) {
  busFree(bus->sda);
  if (!busRise(bus)) return false;
  // Lines that stay low are no bus.
  if (digitalRead(bus->sda) == LOW) return false;
  busDown(bus->sda);
  delayMicroseconds(bus->us);
  busDown(bus->scl);
  return true;
}
static void __attribute__((unused)) busStop(const BusPins *bus) {
  busDown(bus->sda);
  delayMicroseconds(bus->us);
  busRise(bus);
  busFree(bus->sda);
  delayMicroseconds(bus->us);
}
// A bit out, and what stands on the line then: let go to read.
static uint8_t __attribute__((unused)) busBit(const BusPins *bus, uint8_t bit) {
  if (bit) busFree(bus->sda);
  else busDown(bus->sda);
  delayMicroseconds(bus->us);
  busRise(bus);
  uint8_t got = digitalRead(bus->sda);
  busDown(bus->scl);
  return got;
}
static bool __attribute__((unused)) busOut(const BusPins *bus, uint8_t out) {
  for (uint8_t bit = 0x80; bit; bit >>= 1) busBit(bus, out & bit);
  return !busBit(bus, 1);
}
static uint8_t __attribute__((unused)) busIn(const BusPins *bus, bool last) {
  uint8_t in = 0;
  for (uint8_t i = 0; i < 8; i++) in = in << 1 | busBit(bus, 1);
  busBit(bus, last);
  return in;
}
// A message up to where it turns round or ends; false when the part does not answer.
static bool __attribute__((unused)) busSend(const BusPins *bus, uint8_t first, const uint8_t *list, uint8_t n) {
  bool ok = busStart(bus) && busOut(bus, first);
  while (ok && n--) ok = busOut(bus, *list++);
  return ok;
}
static bool __attribute__((unused)) busPut(const BusPins *bus, uint8_t address, const uint8_t *list, uint8_t n) {
  bool ok = busSend(bus, address << 1, list, n);
  busStop(bus);
  return ok;
}
static bool __attribute__((unused)) busGet(const BusPins *bus, uint8_t address, uint8_t *to, uint8_t n) {
  bool ok = busSend(bus, address << 1 | 1, nullptr, 0);
  if (ok)
    while (n--) *to++ = busIn(bus, n == 0);
  busStop(bus);
  return ok;
}
// The bytes that say where, then the reading in the same message.
static bool __attribute__((unused)) busAskAt(const BusPins *bus, uint8_t address, const char *list, uint8_t k, uint8_t *to, uint8_t n) {
  if (!busSend(bus, address << 1, (const uint8_t *)list, k)) {
    busStop(bus);
    return false;
  }
  busFree(bus->sda);
  delayMicroseconds(bus->us);
  return busGet(bus, address, to, n);
}
static bool __attribute__((unused)) busAsk(const BusPins *bus, uint8_t address, uint8_t reg, uint8_t *to, uint8_t n) {
  return busAskAt(bus, address, (const char *)&reg, 1, to, n);
}`,
  globals: (p) =>
    `static const BusPins ${p.id}_bus = {${p.pin(pinsOf(p).sda!)}, ${p.pin(pinsOf(p).scl!)}, ${p.halfClock_us!}};`,
  setup: () => "",
};
