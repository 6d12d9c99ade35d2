import type { DriverPart } from "../types";
import type { Link } from "./types";

const groupOf = (p: DriverPart) => p.inst.part.groups.find((g) => g.kind === "i2s")!;
const pinsOf = (p: DriverPart) => ["sck", "ws", "sdi"].map((r) => p.pin(groupOf(p).pins[r]!));
const WORKED = new Set(["esp32", "rp2040", "rp2350"]);
const rp = (p: DriverPart) => p.board.family !== "esp32";

/** Samples a second, and pairs of them in one reading: 16 ms of sound, a whole turn of all that a voice has. */
const RATE = 16_000;
const PAIRS = 256;

const SPAN = `// How far the samples of one channel reach, 24 bits of each; false where none differs from another: nobody is there.
static bool __attribute__((unused)) soundSpan(const int32_t *pairs, uint16_t n, uint8_t right, uint8_t *to) {
  int32_t low = INT32_MAX, high = INT32_MIN;
  for (uint16_t i = 0; i < n; i++) {
    int32_t s = pairs[2 * i + right] >> 8;
    if (s < low) low = s;
    if (s > high) high = s;
  }
  if (n == 0 || low == high) return false;
  uint32_t span = (uint32_t)high - (uint32_t)low;
  to[0] = span >> 16;
  to[1] = span >> 8;
  to[2] = span;
  return true;
}`;

const ESP32 = `#include <ESP_I2S.h>
// Pairs of samples, left and right, as the port of the chip brings them.
static bool __attribute__((unused)) soundGet(I2SClass *port, uint8_t right, uint8_t *to) {
  static int32_t pairs[2 * ${PAIRS}];
  size_t got = port->readBytes((char *)pairs, sizeof pairs);
  return soundSpan(pairs, got / 8, right, to);
}`;

const PICO = `#include <I2S.h>
// Pairs of samples, left and right, as the port of the chip brings them.
static bool __attribute__((unused)) soundGet(I2S *port, uint8_t right, uint8_t *to) {
  static int32_t pairs[2 * ${PAIRS}];
  uint16_t n = 0;
  while (n < ${PAIRS} && port->read32(&pairs[2 * n], &pairs[2 * n + 1])) n++;
  return soundSpan(pairs, n, right, to);
}`;

/** Sound as numbers, by the chip's own port: three bytes, how far the samples of ${RATE / 1000} ms reach, of 2^24. */
export const i2s: Link<"i2s"> = {
  unfit: (target) => (target === "python" ? "a computer's sound port belongs to its system" : null),
  unfitPart: (p) =>
    WORKED.has(p.board.family)
      ? null
      : `our programs work the sound port of ESP32 and RP chips only, not that of ${p.board.chip}`,
  c: ({ right }) => ({
    helpers: SPAN,
    moreFor: (p) => [rp(p) ? PICO : ESP32],
    globals: (p) => (rp(p) ? `static I2S ${p.id}_sound(INPUT);` : `static I2SClass ${p.id}_sound;`),
    setup: (p) => {
      const [sck, ws, sd] = pinsOf(p);
      return rp(p)
        ? // The word select is the pin after the bit clock's.
          `${p.id}_sound.setBCLK(${sck});\n${p.id}_sound.setDATA(${sd});\n${p.id}_sound.setBitsPerSample(32);\n${p.id}_sound.begin(${RATE});`
        : `${p.id}_sound.setPins(${sck}, ${ws}, -1, ${sd}, -1);\n${p.id}_sound.begin(I2S_MODE_STD, ${RATE}, I2S_DATA_BIT_WIDTH_32BIT, I2S_SLOT_MODE_STEREO);`;
    },
    write: () => "",
    read: (p) => `soundGet(&${p.id}_sound, ${Number(right)}, b)`,
  }),
  python: ({ right }) => ({
    lib: {
      path: "lib/sound.py",
      text: `from machine import I2S, Pin
import struct

PAIRS = ${PAIRS}


class Sound:
    """One channel of sound as numbers: how far its samples reach, of 2^24."""

    def __init__(self, port, sck, ws, sd, right):
        self.port = I2S(port, sck=Pin(sck), ws=Pin(ws), sd=Pin(sd), mode=I2S.RX, bits=32, format=I2S.STEREO, rate=${RATE}, ibuf=8 * PAIRS)
        self.right = right
        self.pairs = bytearray(8 * PAIRS)

    def get(self):
        n = self.port.readinto(self.pairs) // 8
        low, high = 1 << 23, -1 << 23
        for i in range(n):
            s = struct.unpack_from("<i", self.pairs, 8 * i + 4 * self.right)[0] >> 8
            low, high = min(low, s), max(high, s)
        # Where none differs from another, nobody is there.
        if low >= high:
            raise OSError("no sound")
        return (high - low).to_bytes(3, "big")
`,
    },
    imports: () => ["from lib.sound import Sound"],
    setup: (p) =>
      `${p.id}_sound = Sound(${[p.sound ?? 0, ...pinsOf(p).map((n) => `pins.${n}`), Number(right)].join(", ")})`,
    write: () => "pass",
    read: (p) => `b = ${p.id}_sound.get()`,
  }),
};
