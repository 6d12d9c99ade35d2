import { restsWhere } from "./sketch";
import { parse, toPython } from "./expression";
import { AGAIN_MS } from "./run";
import { LANE_FULL, LANE_SHIFT, lanesInPython } from "./lanes";
import { draws, pattern } from "./text";
import type { Device, Step } from "./types";
import { pinName } from "../pins-in-code";
import { inPython } from "../links";
import { shownFor_ms, type DriverPart } from "../types";

const bytesText = (list: readonly number[]) =>
  `b"${list.map((v) => `\\x${v.toString(16).padStart(2, "0")}`).join("")}"`;
const indent = (text: string, by = "    ") => text.replace(/^(?=.)/gm, by);

/** What every device stands on. */
export const PART_LIB = `import time


class Bad(Exception):
    """What a part sent can't be right."""


class Part:
    """A part that is asked in turns: nothing waits, and one that does not answer is begun anew."""

    def __init__(self, steps, again=${AGAIN_MS}):
        self.steps = steps
        self.again = again
        self.run = None
        self.fresh = False
        self.want = self.told = 0
        self.due = time.ticks_ms()

    def turn(self):
        """Does what is due; returns after how many milliseconds it wants to go on."""
        try:
            if self.run is None:
                self.run = self.steps(self)
            return next(self.run)
        except (OSError, Bad):
            self.run = None
            self.fresh = False
            return self.again


    def now(self, name):
        """What it gives, read anew when it is due."""
        if time.ticks_diff(time.ticks_ms(), self.due) >= 0:
            pause = self.turn()
            self.due = time.ticks_add(time.ticks_ms(), pause)
        return getattr(self, name, 0)


class Bit:
    """A pin of another part: a bit of what it is told, or of what it reads; \`rest\` while it does not answer."""

    def __init__(self, part, bit, rest):
        self.part = part
        self.bit = bit
        self.rest = rest
        self.out = False

    def value(self, v=None):
        part = self.part
        if v is None:
            if self.out:
                return part.want >> self.bit & 1
            bits = part.now("bits")
            return bits >> self.bit & 1 if part.fresh else self.rest
        self.out = True
        was = part.want
        part.want = part.want | 1 << self.bit if v else part.want & ~(1 << self.bit)
        if part.want != was and part.fresh:
            part.turn()


class Lane:
    """An output of another part: a level, a share of full power, or pulses of a length, 50 a second."""

    def __init__(self, part, which):
        self.part = part
        self.which = which

    def put(self, on):
        part = self.part
        if part.lanes[self.which] == on:
            return
        part.lanes[self.which] = on
        part.want = self.which << ${LANE_SHIFT} | on
        if part.fresh:
            part.turn()
        else:
            part.run = None

    def value(self, v=None):
        if v is None:
            return 1 if self.part.lanes[self.which] else 0
        self.put(${LANE_FULL} if v else 0)

    def duty_u16(self, v):
        self.put(v + 8 >> 4)

    def duty_ns(self, v):
        self.put((v // 1000 * 128 + 312) // 625)


class Volts:
    """A voltage on a line of another part: one of its readings; \`full\`: the line at the supply."""

    def __init__(self, part, name, full):
        self.part = part
        self.name = name
        self.full = full

    def read_u16(self):
        line = self.part.now(self.name)
        if not self.part.fresh:
            raise OSError(5)
        return min(max(line, 0) * 1023 // self.full, 1023) << 6


def need(ok):
    if not ok:
        raise Bad()


def idiv(a, b):
    """Division towards zero, as in C."""
    q = abs(a) // abs(b)
    return q if (a < 0) == (b < 0) else -q


def imod(a, b):
    return a - idiv(a, b) * b


def u8(b, i):
    return b[i]


def s8(b, i):
    return b[i] - 256 if b[i] > 127 else b[i]


def u16be(b, i):
    return b[i] << 8 | b[i + 1]


def u16le(b, i):
    return b[i + 1] << 8 | b[i]


def s16be(b, i):
    v = u16be(b, i)
    return v - 65536 if v > 32767 else v


def s16le(b, i):
    v = u16le(b, i)
    return v - 65536 if v > 32767 else v


def u24be(b, i):
    return b[i] << 16 | b[i + 1] << 8 | b[i + 2]


def two(v):
    """A number as two bytes, the high one first."""
    return bytes((v >> 8, v & 255))


def seg7(digit):
    """A digit as segments, a the lowest bit; 10 is a minus, more is dark."""
    return b"\\x3f\\x06\\x5b\\x4f\\x66\\x6d\\x7d\\x07\\x7f\\x6f\\x40"[digit] if 0 <= digit <= 10 else 0


def bcd(b, i):
    return (b[i] >> 4) * 10 + (b[i] & 15)


def crc8(b, poly, crc):
    for x in b:
        crc ^= x
        for _ in range(8):
            crc = (crc << 1 ^ poly) & 255 if crc & 128 else crc << 1 & 255
    return crc


def crc8_low(b, poly, crc):
    for x in b:
        crc ^= x
        for _ in range(8):
            crc = crc >> 1 ^ poly if crc & 1 else crc >> 1
    return crc


def sum8(b, poly, crc):
    return sum(b) + crc & 255


def fixed(value, digits, shown):
    """A whole number of fractions as people read it."""
    cut = 10 ** (digits - shown)
    v = (abs(value) + cut // 2) // cut
    sign = "-" if value < 0 and v else ""
    if not shown:
        return sign + str(v)
    whole, part = divmod(v, 10**shown)
    return "%s%d.%s" % (sign, whole, ("0" * shown + str(part))[-shown:])
`;

const byteOf = (text: string) => (/^\w+$/.test(text) ? `${text} & 255` : `(${text}) & 255`);
const CRC = { high: "crc8", low: "crc8_low", sum: "sum8" } as const;

/** The steps of one part as a generator that yields how long to wait. */
export function stepsInPython(d: Device, p: DriverPart): string {
  const py = (text: string) => toPython(parse(text), "b", (n) => n);
  const link = inPython(d.over ?? { kind: "i2c" });
  const get = (r: { n: number; from?: number | readonly number[] | undefined }) =>
    link.read(p, r.n, r.from === undefined ? undefined : [r.from].flat());
  const PRINT: { [K in Step["do"]]: (s: Extract<Step, { do: K }>) => string } = {
    write: (s) =>
      link.write(
        p,
        s.bytes.every((x) => typeof x === "number")
          ? bytesText(s.bytes)
          : `bytes((${s.bytes.map((x) => (typeof x === "number" ? x : byteOf(py(x)))).join(", ")},))`,
        s.times,
      ),
    read: (s) => get(s),
    // A clock that counts in whole milliseconds may be about to go on.
    wait: (s) => `yield ${s.ms + 1}`,
    until: (s) => `for look in range(${s.most}):
${indent(get(s.read))}
    if ${py(s.holds)}:
        break
    yield ${s.every}
else:
    need(False)`,
    crc: (s) =>
      `need(${CRC[s.way ?? "high"]}(b[${s.from}:${s.from + s.n}], 0x${s.poly.toString(16)}, 0x${s.init.toString(16)}) == b[${s.from + s.n}])`,
    must: (s) => `need(${py(s.holds)})`,
    pin: (s) => (p.has(s.pin) ? `${pinName(p, s.pin)}.value(${s.level})` : "pass"),
    let: (s) => `${s.name} = ${py(s.is)}`,
    // Each round is a turn of its own.
    each: (s) =>
      `for ${s.name} in range(${s.n}):\n    if ${s.name}:\n        yield 0\n${indent(s.steps.map(print).join("\n"))}`,
  };
  function print(s: Step): string {
    return (PRINT[s.do] as (s: Step) => string)(s);
  }
  // Pulses and steps go on; anything else is told once, and again after it was gone.
  const news = !d.takes
    ? ""
    : `${d.always ? "" : `        while me.fresh and me.told == me.want${d.text ? " and not me.new" : ""}:\n            yield ${d.every}\n`}        ${d.text ? "me.number()" : "want = me.told = me.want"}\n`;
  return `

def ${p.id}_steps(me):
${indent(d.begin.map(print).join("\n"))}${d.begin.length ? "\n" : ""}    while True:
${news}${indent(d.read.map(print).join("\n"), "        ")}
${d.out.map((q) => `        me.${q.name} = ${q.name}`).join("\n")}
        me.fresh = True
        yield ${d.every}


${p.id} = ${d.text ? `Screen(${p.id}_steps, ${d.text.columns}, ${d.text.rows})` : `Part(${p.id}_steps${d.again === undefined ? "" : `, ${d.again}`})`}${d.takes && !d.text ? `\n${p.id}.want = ${d.takes.rest}` : ""}${d.lanes ? lanesInPython(p.id, d.lanes) : ""}`;
}

/** The part's readings as one text, or two dashes while there is none. */
export const showInPython = (d: Device, p: DriverPart): string => {
  const text = d.out
    .map(
      (q, i) =>
        `${i ? (q.after ?? " ") : ""}${q.word ? `${q.word} ` : ""}${q.after ? "%02d" : "%s"}${q.unit ? ` ${q.unit.replace("%", "%%")}` : ""}`,
    )
    .join("");
  const values = d.out
    .map((q) => (q.after ? `${p.id}.${q.name}` : `fixed(${p.id}.${q.name}, ${q.digits}, ${q.shown ?? q.digits})`))
    .join(", ");
  return `("${text}" % (${values},))[:21] if ${p.id}.fresh else "${p.label.slice(0, 16)} --"`;
};

/** Modules that its turns stand on beside its link. */
export const standsInPython = (d: Device): string[] => [
  ...(d.text ? ["from lib.text import Screen"] : []),
  ...(draws(d) ? ["from lib.font import glyph"] : []),
];

const rowsShown = (d: Device, p: DriverPart) =>
  d.text
    ? Array.from({ length: d.text.rows - 1 }, (_, r) => `${p.id}.line(${r + 1}, "${pattern(d.text!, r + 1)}")\n`).join(
        "",
      )
    : "";
const showingInPython = (
  d: Device,
  p: DriverPart,
  show: readonly number[],
  ms: number,
) => `${rowsShown(d, p)}for want in (${show.join(", ")},):
    ${p.id}.want = want
    end = time.ticks_add(time.ticks_ms(), ${ms})
    while time.ticks_diff(end, time.ticks_ms()) > 0:
        time.sleep_ms(${p.id}.turn())
print("YL1 act ${p.ref} told=${show.join(",")} fresh=%d %s" % (${p.id}.fresh, "info" if ${p.id}.fresh else judge(False)))`;

/** A part in bring-up: a reading taken at once and judged by what can be true in a room, or something shown. */
export const bringupInPython = (d: Device, p: DriverPart): string => {
  const proof = d.proof;
  if (proof?.kind === "seen") {
    const show = showingInPython(d, p, proof.show, shownFor_ms(proof, p));
    return proof.careful
      ? `if not alone[0]:\n    print("YL1 act ${p.ref}${restsWhere(d, p)} rests info")\nelse:\n${indent(show)}\n    shown[turn[0]] = True`
      : show;
  }
  return `${p.id}.run = None
${p.id}.fresh = False
while True:
    ms = ${p.id}.turn()
    if ${p.id}.fresh or ${p.id}.run is None:
        break
    time.sleep_ms(ms)
if ${p.id}.fresh:
    ok = ${d.out.map((q) => `${q.room[0]} <= ${p.id}.${q.name} <= ${q.room[1]}`).join(" and ") || "True"}
    print("YL1 sensor ${p.ref} fresh=1 ${d.out.map((q) => `${q.name}=%d `).join("")}%s" % (${d.out.map((q) => `${p.id}.${q.name}, `).join("")}${proof ? '"info" if ok else judge(False)' : "judge(ok)"},))
else:
    print("YL1 sensor ${p.ref} fresh=0 ${d.out.map((q) => `${q.name}=0 `).join("")}%s" % judge(False))`;
};

/** What changes when the part is used. */
export const watchInPython = (d: Device, p: DriverPart): string => `${p.id}.now("${d.out[0]!.name}")`;
