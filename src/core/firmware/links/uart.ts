import type { DriverPart } from "../types";
import { EDGES } from "../drivers/edges";
import { SOFT_MOST, SOFT_PORT } from "./soft-port";
import { escaped, listInC, type Link, type Over } from "./types";

const SENTENCE_BYTES = 13;
const groupOf = (p: DriverPart) => p.inst.part.groups.find((g) => g.kind === "uart")!;
/** The board's pins: `rx` hears the part, `tx` speaks to it. */
const pinOf = (p: DriverPart, role: "rx" | "tx", none: string) => {
  const label = groupOf(p).pins[role];
  return label && p.has(label) ? p.pin(label) : none;
};
const number = (p: DriverPart) => Number(/\d*$/.exec(p.port ?? "")![0] || 0);
const baud = (p: DriverPart) => Number(p.options.baud ?? 9600);

/** What a core calls the port of a chip, and how it is begun there. */
const PORTS: Partial<Record<DriverPart["board"]["family"], { name(n: number): string; begin(p: DriverPart): string }>> =
  {
    avr: { name: (n) => `Serial${n}`, begin: (p) => `.begin(${baud(p)});` },
    sam3x: { name: (n) => `Serial${n}`, begin: (p) => `.begin(${baud(p)});` },
    samd: { name: (n) => `Serial${n}`, begin: (p) => `.begin(${baud(p)});` },
    imxrt: { name: (n) => `Serial${n}`, begin: (p) => `.begin(${baud(p)});` },
    kl26: { name: (n) => `Serial${n}`, begin: (p) => `.begin(${baud(p)});` },
    esp32: {
      name: (n) => `Serial${n}`,
      begin: (p) => `.begin(${baud(p)}, SERIAL_8N1, ${pinOf(p, "rx", "-1")}, ${pinOf(p, "tx", "-1")});`,
    },
    rp2040: { name: (n) => `Serial${n + 1}`, begin: () => "" },
    // Its first port of its own is number 1 in the chip and in its core; it takes any two pins.
    nrf52: {
      name: (n) => `Serial${n || 1}`,
      begin: (p) => `.setPins(${pinOf(p, "rx", "-1")}, ${pinOf(p, "tx", "-1")});`,
    },
    stm32: { name: () => "", begin: (p) => `.begin(${baud(p)});` },
  };
/** A core that makes a port of any two pins: it has no name of its own there. */
const MAKES_PORTS = new Set<DriverPart["board"]["family"]>(["stm32"]);
const portIn = (p: DriverPart) => PORTS[p.board.family === "rp2350" ? "rp2040" : p.board.family];
/** No port of the chip is behind its pins: the program times it. */
const isSoft = (p: DriverPart) => p.port === undefined;
const portName = (p: DriverPart) =>
  isSoft(p) || MAKES_PORTS.has(p.board.family) ? `${p.id}_serial` : portIn(p)!.name(number(p));
const softInC = (p: DriverPart) =>
  `static SoftPort ${p.id}_serial(${pinOf(p, "rx", "255")}, ${pinOf(p, "tx", "255")}, ${baud(p)});${
    pinOf(p, "rx", "") ? `\nstatic void IRAM_ATTR ${p.id}_edge() { ${p.id}_serial.edge(); }` : ""
  }`;
const madeInC = (p: DriverPart) =>
  isSoft(p)
    ? softInC(p)
    : MAKES_PORTS.has(p.board.family)
      ? `static HardwareSerial ${p.id}_serial(${pinOf(p, "rx", "NUM_DIGITAL_PINS")}, ${pinOf(p, "tx", "NUM_DIGITAL_PINS")});`
      : "";
function beginInC(p: DriverPart): string {
  if (isSoft(p)) {
    const rx = pinOf(p, "rx", "");
    return `${p.id}_serial.begin();${rx ? `\n${p.id}_serial.hears = watchEdges(${rx}, ${p.id}_edge);` : ""}`;
  }
  const name = portName(p);
  if (p.board.family === "nrf52") return `${name}${portIn(p)!.begin(p)}\n${name}.begin(${baud(p)});`;
  if (p.board.family !== "rp2040" && p.board.family !== "rp2350") return `${name}${portIn(p)!.begin(p)}`;
  return [
    ...(["rx", "tx"] as const).flatMap((r) => {
      const pin = pinOf(p, r, "");
      return pin ? [`${name}.set${r.toUpperCase()}(${pin});`] : [];
    }),
    `${name}.begin(${baud(p)});`,
  ].join("\n");
}

const FRAMES = `// Frames from a part on a serial port: they begin as they must and have one length. Nothing waits.
static bool __attribute__((unused)) frameCame(Stream &port, uint8_t *frame, uint8_t &have, const char *start, uint8_t k, uint8_t n) {
  while (have < n && port.available()) {
    uint8_t c = port.read();
    if (have < k && c != (uint8_t)start[have]) have = 0;
    if (have >= k || c == (uint8_t)start[have]) frame[have++] = c;
  }
  return have == n;
}`;
const SENTENCES = `// Sentences of a receiver for satellites: of the one that tells where it is, as bytes: whether it knows, how many satellites,
// hour, minute, second, and a hundred thousand times the degrees north and east.
static int32_t __attribute__((unused)) degreesOf(const char *text, char side) {
  // ddmm.mmmm or dddmm.mmmm: minutes are the two digits before the point and what follows.
  const char *dot = strchr(text, '.');
  if (!dot || dot - text < 3) return 0;
  int32_t degrees = 0, minutes = 0;
  for (const char *c = text; c < dot - 2; c++) degrees = degrees * 10 + (*c - '0');
  for (const char *c = dot - 2; c < dot; c++) minutes = minutes * 10 + (*c - '0');
  for (uint8_t i = 1; i <= 4; i++) minutes = minutes * 10 + (dot[i] >= '0' && dot[i] <= '9' ? dot[i] - '0' : 0);
  int32_t all = degrees * 100000 + minutes / 6;
  return side == 'S' || side == 'W' ? -all : all;
}
static bool __attribute__((unused)) sentenceRead(char *line, uint8_t *to) {
  if (strlen(line) < 12 || line[0] != '$' || strncmp(line + 3, "GGA,", 4) != 0) return false;
  char *star = strchr(line, '*');
  if (!star) return false;
  uint8_t sum = 0;
  for (char *c = line + 1; c < star; c++) sum ^= *c;
  if (strtol(star + 1, nullptr, 16) != sum) return false;
  char *field[8];
  uint8_t n = 0;
  for (char *c = line; *c && n < 8; c++)
    if (*c == ',') {
      *c = 0;
      field[n++] = c + 1;
    }
  if (n < 8) return false;
  *strchr(field[7], ',') = 0;
  uint8_t digits = strlen(field[0]);
  to[0] = field[5][0] != '0' && field[5][0] != 0;
  to[1] = atoi(field[6]);
  for (uint8_t i = 0; i < 3; i++) to[2 + i] = digits < 6 ? 0 : (field[0][2 * i] - '0') * 10 + field[0][2 * i + 1] - '0';
  int32_t north = degreesOf(field[1], field[2][0]), east = degreesOf(field[3], field[4][0]);
  for (uint8_t i = 0; i < 4; i++) {
    to[5 + i] = (uint32_t)north >> (24 - 8 * i);
    to[9 + i] = (uint32_t)east >> (24 - 8 * i);
  }
  return true;
}
static bool __attribute__((unused)) sentenceCame(Stream &port, char *line, uint8_t &have, uint8_t *to, bool &whole) {
  while (!whole && port.available()) {
    char c = port.read();
    if (c == '$') have = 0;
    if (have < 84) line[have++] = c;
    if (c == '\\n') {
      line[have] = 0;
      have = 0;
      whole = sentenceRead(line, to);
    }
  }
  return whole;
}`;

const LIB = `from lib.part import Bad


class Frames:
    """Frames from a part on a serial port: they begin as they must and have one length. Nothing waits."""

    def __init__(self, port, start, n):
        self.port, self.start, self.n = port, start, n
        self.frame = bytearray()

    def put(self, data):
        self.port.write(data)

    def get(self, n):
        while len(self.frame) < self.n and self.port.any():
            c = self.port.read(1)[0]
            k = len(self.frame)
            if k < len(self.start) and c != self.start[k]:
                self.frame = bytearray()
                k = 0
            if k >= len(self.start) or c == self.start[k]:
                self.frame.append(c)
        if n == 1:
            return bytes((1 if len(self.frame) == self.n else 0,))
        got = bytes(self.frame)
        self.frame = bytearray()
        return got


class Bytes:
    """Anything that comes over a serial port: how many bytes, and the last of them."""

    def __init__(self, port):
        self.port = port
        self.count = self.last = 0

    def put(self, data):
        self.port.write(data)

    def get(self, n):
        while self.port.any():
            self.last = self.port.read(1)[0]
            self.count = self.count + 1 & 255
        return bytes((self.count, self.last, 0))[:n]


def degrees(text, side):
    """A hundred thousand times the degrees of ddmm.mmmm or dddmm.mmmm."""
    dot = text.find(".")
    if dot < 3:
        return 0
    minutes = int((text[dot - 2 : dot] + text[dot + 1 : dot + 5] + "0000")[:6])
    v = int(text[: dot - 2]) * 100000 + minutes // 6
    return -v if side in "SW" else v


class Sentences:
    """Of a receiver's sentences the one that tells where it is: whether it knows, satellites, time, degrees north and east."""

    def __init__(self, port):
        self.port = port
        self.line = b""
        self.got = None

    def put(self, data):
        self.port.write(data)

    def read(self, line):
        star = line.find(b"*")
        if line[:1] != b"$" or line[3:7] != b"GGA," or star < 0:
            return None
        have = 0
        for c in line[1:star]:
            have ^= c
        try:
            if int(line[star + 1 : star + 3], 16) != have:
                return None
            f = line[:star].decode().split(",")
            time = [int(f[1][i : i + 2]) for i in (0, 2, 4)] if len(f[1]) >= 6 else [0, 0, 0]
            place = [degrees(f[2], f[3]), degrees(f[4], f[5])]
            out = bytes([1 if f[6] not in ("", "0") else 0, int(f[7] or 0)] + time)
        except (ValueError, IndexError):
            return None
        for v in place:
            out += bytes(v >> s & 255 for s in (24, 16, 8, 0))
        return out

    def get(self, n):
        while self.got is None and self.port.any():
            c = self.port.read(1)
            self.line = c if c == b"$" else self.line[:84] + c
            if c == b"\\n":
                self.got = self.read(self.line)
        if n == 1:
            return bytes((0 if self.got is None else 1,))
        got, self.got = self.got, None
        if got is None:
            raise Bad()
        return got
`;

type Frame = Extract<Over, { kind: "uart" }>["frame"];
type Kind = "frames" | "sentences" | "any";
const kindOf = (f: Frame): Kind => (f === "any" ? "any" : "sentence" in f ? "sentences" : "frames");

const ANY = `// Anything that comes over a serial port: how many bytes, and the last of them.
static void __attribute__((unused)) bytesCame(Stream &port, uint8_t &count, uint8_t &last) {
  while (port.available()) {
    last = port.read();
    count++;
  }
}`;
const HELPERS: Record<Kind, string> = { frames: FRAMES, sentences: SENTENCES, any: ANY };

/** What takes bytes off the port, handed on as the part's device reads them. */
const TAKES: Record<Kind, (p: DriverPart, f: Frame) => string> = {
  any: (p) => `static uint8_t ${p.id}_count = 0, ${p.id}_last = 0;
static bool __attribute__((unused)) ${p.id}_take(uint8_t *to, uint8_t n) {
  bytesCame(${portName(p)}, ${p.id}_count, ${p.id}_last);
  const uint8_t list[] = {${p.id}_count, ${p.id}_last, 0};
  memcpy(to, list, n);
  return true;
}`,
  sentences: (
    p,
  ) => `static char ${p.id}_line[86];\nstatic uint8_t ${p.id}_have = 0, ${p.id}_frame[${SENTENCE_BYTES}];\nstatic bool ${p.id}_whole = false;
static bool __attribute__((unused)) ${p.id}_take(uint8_t *to, uint8_t n) {
  bool came = sentenceCame(${portName(p)}, ${p.id}_line, ${p.id}_have, ${p.id}_frame, ${p.id}_whole);
  if (n == 1) {
    *to = came;
    return true;
  }
  memcpy(to, ${p.id}_frame, n);
  ${p.id}_whole = false;
  return came;
}`,
  frames: (p, f) => {
    const { start, n } = f as { start: readonly number[]; n: number };
    return `static uint8_t ${p.id}_have = 0, ${p.id}_frame[${n}];
static bool __attribute__((unused)) ${p.id}_take(uint8_t *to, uint8_t n) {
  bool came = frameCame(${portName(p)}, ${p.id}_frame, ${p.id}_have, "${escaped(start)}", ${start.length}, ${n});
  if (n == 1) {
    *to = came;
    return true;
  }
  memcpy(to, ${p.id}_frame, n);
  ${p.id}_have = 0;
  return came;
}`;
  },
};
const CLASS: Record<Kind, string> = { frames: "Frames", sentences: "Sentences", any: "Bytes" };

/** A serial port of the chip, not the console's. Reading one byte tells whether a whole frame has come; reading it takes it. */
export const uart: Link<"uart"> = {
  unfitPart: (p) => {
    // A computer tells what it has to tell elsewhere: its port is free once nobody logs in over it.
    if (p.target === "python") return p.port ? null : "no serial port of the computer is behind its pins";
    if (p.target === "avr-c")
      return "plain C reads no serial port but its own console's: what comes there is for your own code";
    if (p.console) return "its pins are the console's: what it sends would mix with what the program tells";
    if (!p.port && p.target !== "sketch") return "no serial port of the chip is behind its pins";
    const most = p.board.family === "avr" ? SOFT_MOST.avr : SOFT_MOST.other;
    if (!p.port)
      return baud(p) > most
        ? `a program times ${most} baud at most on plain pins of ${p.board.chip}, not ${baud(p)}`
        : null;
    return p.target === "sketch" && !portIn(p)
      ? `which of its ports the core of ${p.board.chip} takes for the console is not known here`
      : null;
  },
  c: (o) => ({
    standsFor: (p) => (isSoft(p) ? [EDGES, SOFT_PORT] : []),
    helpers: HELPERS[kindOf(o.frame)],
    globals: (p) => [madeInC(p), TAKES[kindOf(o.frame)](p, o.frame)].filter(Boolean).join("\n"),
    setup: beginInC,
    write: (p, bytes) => listInC(bytes, (list, n) => `${portName(p)}.write(${list}, ${n});`),
    read: (p, n) => `${p.id}_take(b, ${n})`,
  }),
  python: (o) => ({
    lib: { path: "lib/serial.py", text: LIB },
    imports: () => ["from machine import UART", `from lib.serial import ${CLASS[kindOf(o.frame)]}`],
    setup: (p) => {
      const pins = (["tx", "rx"] as const).flatMap((r) => {
        const pin = pinOf(p, r, "");
        return pin ? [`${r}=Pin(pins.${pin})`] : [];
      });
      const port = `UART(${[number(p), `baudrate=${baud(p)}`, ...pins, "rxbuf=256"].join(", ")})`;
      const more = typeof o.frame === "object" && "n" in o.frame ? `, b"${escaped(o.frame.start)}", ${o.frame.n}` : "";
      return `${p.id}_port = ${CLASS[kindOf(o.frame)]}(${port}${more})`;
    },
    write: (p, bytes) => `${p.id}_port.put(${bytes})`,
    read: (p, n) => `b = ${p.id}_port.get(${n})`,
  }),
};
