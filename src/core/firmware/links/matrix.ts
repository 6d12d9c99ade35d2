import { pinName } from "../pins-in-code";
import type { Link } from "./types";

/** Keys on crossing lines: one row low after the other, the others let go, so that two pressed keys never join two outputs. */
export const matrix: Link<"matrix"> = {
  c: ({ rows, columns }) => ({
    helpers: `// Keys on crossing lines: one row low after the other, the others let go. A bit for each key, row by row.
static bool __attribute__((unused)) matrixGet(const uint8_t *rows, uint8_t r, const uint8_t *columns, uint8_t c, uint8_t *to) {
  uint8_t bit = 0;
  for (uint8_t i = 0; i < r; i++) {
    digitalWrite(rows[i], LOW);
    pinMode(rows[i], OUTPUT);
    delayMicroseconds(10);
    for (uint8_t k = 0; k < c; k++) {
      if (bit == 0) *to = 0;
      if (digitalRead(columns[k]) == LOW) *to |= 1 << bit;
      if (++bit == 8) {
        bit = 0;
        to++;
      }
    }
    pinMode(rows[i], INPUT);
  }
  return true;
}`,
    globals: (p) => `static const uint8_t ${p.id}_rows[] = {${rows.map((l) => p.pin(l)).join(", ")}};
static const uint8_t ${p.id}_cols[] = {${columns.map((l) => p.pin(l)).join(", ")}};`,
    write: () => "",
    read: (p) => `matrixGet(${p.id}_rows, ${rows.length}, ${p.id}_cols, ${columns.length}, b)`,
  }),
  python: ({ rows, columns }) => ({
    lib: {
      path: "lib/matrix.py",
      text: `from machine import Pin
import time


def matrix(rows, columns):
    """Keys on crossing lines: one row low after the other, the others let go. A bit for each key, row by row."""
    got = bytearray((len(rows) * len(columns) + 7) // 8)
    n = 0
    for row in rows:
        row.init(Pin.OUT, value=0)
        time.sleep_us(10)
        for column in columns:
            if not column.value():
                got[n >> 3] |= 1 << (n & 7)
            n += 1
        row.init(Pin.IN)
    return bytes(got)
`,
    },
    imports: () => ["from lib.matrix import matrix"],
    write: () => "pass",
    read: (p) =>
      `b = matrix((${rows.map((l) => pinName(p, l)).join(", ")},), (${columns.map((l) => pinName(p, l)).join(", ")},))`,
  }),
};
