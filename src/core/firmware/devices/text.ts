import { FONT_5X7 } from "../drivers/font5x7";
import { plainSteps } from "./loops";
import type { Device, Text } from "./types";

/** Told so, no number stands in its first row. */
export const NO_NUMBER = -(2 ** 31);

/** What stands in a row below the first until something else is written there: bring-up shows it, so that every place is seen. */
export const pattern = ({ columns }: Text, row: number): string =>
  `${row + 1} abcdefghijklmnopqrstuvwxyz`.slice(0, columns);

const bytes = FONT_5X7.replace(/ /g, "").match(/../g)!;
/** A column of a letter, five to each, the lowest bit on top; what is no printable character is blank. */
export const glyph = (code: number, x: number): number =>
  code >= 32 && code <= 126 ? parseInt(bytes[(code - 32) * 5 + x]!, 16) : 0;

/** Whether a device draws its letters itself. */
export const draws = (d: Device): boolean => JSON.stringify(plainSteps([...d.begin, ...d.read])).includes("glyph(");

/** Rows of letters in C and C++. */
export const TEXT_IN_C = `// Rows of letters. No number stands in the first one until something is told.
#define NO_NUMBER (-2147483647L - 1)
// Writes into a row, blanks behind it; true when that is something new.
static bool __attribute__((unused)) textLine(char *to, uint8_t columns, const char *text) {
  bool is_new = false;
  while (columns--) {
    char c = *text ? *text++ : ' ';
    if (*to != c) is_new = true;
    *to++ = c;
  }
  return is_new;
}
// Nothing was written there yet: a blank.
static uint8_t __attribute__((unused)) textAt(const char *text, uint8_t i) { return text[i] ? (uint8_t)text[i] : ' '; }
// What bring-up shows in a row, so that every place is seen: its number, then letters.
static void __attribute__((unused)) textPattern(char *to, uint8_t columns, uint8_t row) {
  for (uint8_t i = 0; i < columns; i++) to[i] = i == 0 ? '1' + row : i == 1 ? ' ' : 'a' + i - 2;
}
static void __attribute__((unused)) textNumber(char *to, uint8_t columns, int32_t value) {
  char text[12];
  uint8_t k = sizeof text - 1;
  uint32_t v = value < 0 ? -(uint32_t)value : (uint32_t)value;
  text[k] = 0;
  do text[--k] = '0' + v % 10;
  while (v /= 10);
  if (value < 0) text[--k] = '-';
  textLine(to, columns, text + k);
}`;

/** Letters of 5 by 7 dots in C and C++. */
export const FONT_IN_C = `// Dot columns of printable characters, five to each, the lowest bit on top.
static const uint8_t FONT[] PROGMEM = {
${FONT_5X7.split(" ")
  .map(
    (c) =>
      `  ${c
        .match(/../g)!
        .map((b) => `0x${b}`)
        .join(", ")},`,
  )
  .join("\n")}
};
static uint8_t __attribute__((unused)) of_glyph(uint8_t c, uint8_t x) {
  return c >= 32 && c <= 126 ? pgm_read_byte(FONT + (c - 32) * 5 + x) : 0;
}`;

/** The rows of one part in C and C++. */
export const rowsInC = (id: string, { columns, rows }: Text): string => `static char ${id}_text[${columns * rows}];
static bool ${id}_new = true;
static void __attribute__((unused)) ${id}_line(uint8_t row, const char *text) {
  if (textLine(${id}_text + row * ${columns}, ${columns}, text)) ${id}_new = true;
}`;

/** The same in Python, with the letters for those that draw them. */
export const TEXT_LIB = `from lib.part import Part


class Screen(Part):
    """A display of letters: rows of them, and a number in the first one once it is told one."""

    def __init__(self, steps, columns, rows):
        super().__init__(steps)
        self.columns = columns
        self.text = bytearray(b" " * (columns * rows))
        self.new = True
        self.want = self.told = None

    def line(self, row, text):
        """Writes into a row, blanks behind it."""
        row_bytes = (text + " " * self.columns)[: self.columns].encode()[: self.columns]
        at = row * self.columns
        if self.text[at : at + self.columns] != row_bytes:
            self.text[at : at + self.columns] = row_bytes
            self.new = True

    def number(self):
        if self.want is not None:
            self.line(0, str(self.want))
        self.told = self.want
        self.new = False
`;

export const FONT_LIB = `FONT = b"${bytes.map((b) => `\\x${b}`).join("")}"


def glyph(code, x):
    """A column of a letter, five to each, the lowest bit on top."""
    return FONT[(code - 32) * 5 + x] if 32 <= code <= 126 else 0
`;
