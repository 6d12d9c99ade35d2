import { escaped, hex, listInC, type Link, type LinkInC } from "./types";
import { softI2c } from "./soft-i2c";
import type { DriverPart } from "../types";

/** In a sketch a bus without a controller is two pins; everywhere else a name. */
const isSoft = (p: DriverPart) => p.soft && p.target === "sketch";
const to = (p: DriverPart) => `${isSoft(p) ? `&${p.id}_bus` : p.bus}, ${p.address}`;
/** A message to a part behind a bus switch: its branch is opened before, and closed again whatever comes of it. */
const reached = (p: DriverPart, message: string) =>
  p.via
    ? `(busBranch(${p.via.bus}, ${p.via.address}, ${1 << p.via.channel}) && busShut(${p.via.bus}, ${p.via.address}, ${message}))`
    : message;

const calls: Pick<LinkInC, "write" | "read"> = {
  write: (p, bytes) => listInC(bytes, (list, n) => `if (!${reached(p, `busPut(${to(p)}, ${list}, ${n})`)}) break;`),
  read: (p, n, from) =>
    reached(
      p,
      from === undefined
        ? `busGet(${to(p)}, b, ${n})`
        : from.length === 1
          ? `busAsk(${to(p)}, ${hex(from[0]!)}, b, ${n})`
          : `busAskAt(${to(p)}, "${escaped(from)}", ${from.length}, b, ${n})`,
    ),
};

const CONTROLLED = `// Messages to a part on a bus; false when it does not answer.
static bool __attribute__((unused)) busPut(TwoWire &bus, uint8_t address, const uint8_t *list, uint8_t n) {
  bus.beginTransmission(address);
  while (n--) bus.write(*list++);
  return bus.endTransmission() == 0;
}
static bool __attribute__((unused)) busGet(TwoWire &bus, uint8_t address, uint8_t *to, uint8_t n) {
  if (bus.requestFrom(address, n) != n) return false;
  while (n--) *to++ = bus.read();
  return true;
}
static bool __attribute__((unused)) busAsk(TwoWire &bus, uint8_t address, uint8_t reg, uint8_t *to, uint8_t n) {
  bus.beginTransmission(address);
  bus.write(reg);
  if (bus.endTransmission(false) != 0) return false;
  return busGet(bus, address, to, n);
}
static bool __attribute__((unused)) busAskAt(TwoWire &bus, uint8_t address, const char *list, uint8_t k, uint8_t *to, uint8_t n) {
  bus.beginTransmission(address);
  while (k--) bus.write((uint8_t)*list++);
  if (bus.endTransmission(false) != 0) return false;
  return busGet(bus, address, to, n);
}
// A branch of a bus switch, and none of them any more.
static bool __attribute__((unused)) busBranch(TwoWire &bus, uint8_t address, uint8_t branches) {
  return busPut(bus, address, &branches, 1);
}
static bool __attribute__((unused)) busShut(TwoWire &bus, uint8_t address, bool ok) {
  return busBranch(bus, address, 0) && ok;
}`;

/** A two-wire bus of the board's core; in plain C two pins are worked by the program. */
export const i2c: Link<"i2c"> = {
  c: () => ({
    helpers: "",
    standsFor: (p) => [isSoft(p) ? softI2c.helpers : CONTROLLED],
    globals: (p) => (isSoft(p) ? softI2c.globals!(p) : ""),
    ...calls,
  }),
  plain: () => ({ ...softI2c, ...calls }),
  python: () => ({
    write: (p, bytes) => `${p.bus}.writeto(${p.address}, ${bytes})`,
    read: (p, n, from) =>
      from === undefined
        ? `b = ${p.bus}.readfrom(${p.address}, ${n})`
        : from.length === 1
          ? `b = ${p.bus}.readfrom_mem(${p.address}, 0x${from[0]!.toString(16).padStart(2, "0")}, ${n})`
          : `${p.bus}.writeto(${p.address}, b"${escaped(from)}")\nb = ${p.bus}.readfrom(${p.address}, ${n})`,
  }),
};
