import type { Driver, DriverPart } from "../types";
import { FONT_5X7 } from "./font5x7";

const fontRows = FONT_5X7.split(" ").map((c) =>
  c
    .match(/../g)!
    .map((b) => `0x${b}`)
    .join(", "),
);

const shows = (
  all: DriverPart[],
  target: "sketch" | "micropython",
  showOf: (p: DriverPart, t: typeof target) => string | undefined,
) => all.flatMap((p) => showOf(p, target) ?? []).slice(0, 6);

/** Makes the display driver; `showOf` tells what every other part wants shown. */
export function ssd1306(showOf: (p: DriverPart, target: "sketch" | "micropython") => string | undefined): Driver {
  return {
    id: "ssd1306",
    order: 21,
    usesI2c: true,
    unfit: (p) =>
      p.target === "python"
        ? { kind: "capability", why: "its pictures are drawn with a module that Python on a computer has not" }
        : null,
    proof: () => ({ kind: "seen", question: "Bars and a line of text on it?" }),
    sketch: {
      includes: ["<avr/pgmspace.h>"],
      helpers: `static const uint8_t FONT[] PROGMEM = {
${fontRows.map((r) => `  ${r},`).join("\n")}
};

struct Ssd1306 {
  TwoWire &bus;
  uint8_t address;
  Ssd1306(TwoWire &b, uint8_t a) : bus(b), address(a) {}

  bool command(uint8_t c) {
    bus.beginTransmission(address);
    bus.write((uint8_t)0x00);
    bus.write(c);
    return bus.endTransmission() == 0;
  }
  bool begin() {
    static const uint8_t start[] PROGMEM = {0xAE, 0xD5, 0x80, 0xA8, 0x3F, 0xD3, 0x00, 0x40, 0x8D, 0x14, 0x20, 0x02,
                                            0xA1, 0xC8, 0xDA, 0x12, 0x81, 0x7F, 0xD9, 0xF1, 0xDB, 0x40, 0xA4, 0xA6, 0xAF};
    for (uint8_t i = 0; i < sizeof start; i++)
      if (!command(pgm_read_byte(start + i))) return false;
    return true;
  }
  bool at(uint8_t page, uint8_t column) {
    return command(0xB0 | page) && command(0x00 | (column & 15)) && command(0x10 | (column >> 4));
  }
  // Five characters of a line, blanks after its end: a short turn, so that nothing waits for a whole screen.
  bool piece(uint8_t page, const char *text, uint8_t from) {
    if (!at(page, from * 6)) return false;
    bus.beginTransmission(address);
    bus.write((uint8_t)0x40);
    uint8_t end = strlen(text);
    for (uint8_t k = from; k < from + 5 && k < 21; k++) {
      uint8_t c = k >= end || (uint8_t)text[k] < 32 || (uint8_t)text[k] > 126 ? 0 : (uint8_t)text[k] - 32;
      for (uint8_t i = 0; i < 5; i++) bus.write(pgm_read_byte(FONT + 5 * c + i));
      bus.write((uint8_t)0);
    }
    if (from == 20) {
      bus.write((uint8_t)0);
      bus.write((uint8_t)0);
    }
    return bus.endTransmission() == 0;
  }
  void columns(uint8_t value, uint8_t n) {
    while (n) {
      uint8_t now = n < 16 ? n : 16;
      bus.beginTransmission(address);
      bus.write((uint8_t)0x40);
      for (uint8_t i = 0; i < now; i++) bus.write(value);
      bus.endTransmission();
      n -= now;
    }
  }
  void clear() {
    for (uint8_t page = 0; page < 8; page++) {
      at(page, 0);
      columns(0, 128);
    }
  }
  // One line of text, padded with blanks to the right edge.
  void line(uint8_t page, const char *text) {
    at(page, 0);
    uint8_t used = 0;
    for (; *text && used < 21; text++, used++) {
      uint8_t c = (uint8_t)*text < 32 || (uint8_t)*text > 126 ? 0 : (uint8_t)*text - 32;
      bus.beginTransmission(address);
      bus.write((uint8_t)0x40);
      for (uint8_t i = 0; i < 5; i++) bus.write(pgm_read_byte(FONT + 5 * c + i));
      bus.write((uint8_t)0);
      bus.endTransmission();
    }
    columns(0, 128 - 6 * used);
  }
};`,
      globals: (p) => `static Ssd1306 ${p.id}(${p.bus}, ${p.address});`,
      state: (p) => `static bool ${p.id}_there = false;`,
      bringup: (p) => `{
  bool there = ${p.id}.begin();
  if (there) {
    for (uint8_t page = 0; page < 8; page++) {
      ${p.id}.at(page, 0);
      ${p.id}.columns(page & 1 ? 0xF0 : 0x0F, 128);
    }
    ${p.id}.line(3, "YL1 ${p.ref} ok");
  }
  Serial.print(F("YL1 display ${p.ref} addr=${p.address} pattern=bars "));
  // That it answers says nothing of its glass.
  if (there) Serial.println(F("info"));
  else verdict(false);
}`,
      task: (p, all) => {
        const list = shows(all, "sketch", showOf);
        return {
          every_ms: 10,
          body: `static char line[22];
static uint8_t row = 0, from = 0;
static uint32_t again = 0;
if (!${p.id}_there) {
  // Not there, or gone: it is begun anew twice a second.
  if ((int32_t)(millis() - again) < 0) return;
  again = millis() + 500;
  ${p.id}_there = ${p.id}.begin();
  row = from = 0;
  return;
}
if (from == 0) {
  line[0] = 0;
  switch (row) {
    case 0:
      snprintf(line, sizeof line, "%s", "${p.label.slice(0, 20)}");
      break;
${list.map((s, i) => `    case ${i + 2}: {\n${s.replace(/^/gm, "      ")}\n      break;\n    }`).join("\n")}
  }
}
${p.id}_there = ${p.id}.piece(row, line, from);
from += 5;
if (from > 20) {
  from = 0;
  row = (row + 1) % 8;
}`,
        };
      },
    },
    micropython: {
      lib: {
        path: "lib/ssd1306.py",
        text: `import framebuf
import time

START = b"\\xae\\xd5\\x80\\xa8\\x3f\\xd3\\x00\\x40\\x8d\\x14\\x20\\x00\\xa1\\xc8\\xda\\x12\\x81\\x7f\\xd9\\xf1\\xdb\\x40\\xa4\\xa6\\xaf"


class SSD1306(framebuf.FrameBuffer):
    """128 x 64 dots over I2C; draw with the FrameBuffer methods, then show()."""

    def __init__(self, i2c, address):
        self.i2c = i2c
        self.address = address
        self.dots = bytearray(1024)
        self.there = False
        self.page = 0
        self.again = 0
        super().__init__(self.dots, 128, 64, framebuf.MONO_VLSB)

    def begin(self):
        try:
            for c in START:
                self.i2c.writeto(self.address, bytes((0, c)))
            return True
        except OSError:
            return False

    def show_page(self, page):
        """An eighth of the picture: a short turn, so that nothing waits for all of it."""
        for c in (0x21, 0, 127, 0x22, page, page):
            self.i2c.writeto(self.address, bytes((0, c)))
        for at in range(page * 128, page * 128 + 128, 32):
            self.i2c.writeto(self.address, b"\\x40" + self.dots[at : at + 32])

    def show(self):
        for page in range(8):
            self.show_page(page)

    def turn(self, draw):
        """Shows a page; draws anew before the first. Not there, or gone: it is begun anew twice a second."""
        if not self.there:
            if time.ticks_diff(time.ticks_ms(), self.again) >= 0:
                self.again = time.ticks_add(time.ticks_ms(), 500)
                self.there = self.begin()
                self.page = 0
            return
        if self.page == 0:
            self.fill(0)
            draw(self)
        self.there = False
        self.show_page(self.page)
        self.there = True
        self.page = (self.page + 1) % 8
`,
      },
      imports: ["from lib.ssd1306 import SSD1306"],
      setup: (p) => `${p.id} = SSD1306(${p.bus}, ${p.address})`,
      bringup: (p) => `there = ${p.id}.begin()
if there:
    ${p.id}.fill(0)
    for row in range(0, 64, 8):
        ${p.id}.fill_rect(0, row, 128, 4, 1)
    ${p.id}.show()
print("YL1 display ${p.ref} addr=${p.address} pattern=bars %s" % ("info" if there else judge(False)))`,
      task: (p, all) => {
        const list = shows(all, "micropython", showOf);
        return {
          every_ms: 40,
          body: `def draw(screen):
    screen.text("${p.label.slice(0, 16)}", 0, 0)
${list.map((s, i) => `    screen.text(${s}, 0, ${(i + 2) * 8})`).join("\n")}

${p.id}.turn(draw)`,
        };
      },
    },
  };
}
