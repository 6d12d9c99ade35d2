import { parse, toPython } from "./expression";
import { AGAIN_MS } from "./run";
import type { Device, Step } from "./types";
import type { DriverPart } from "../types";

const bytesText = (list: readonly number[]) =>
  `b"${list.map((v) => `\\x${v.toString(16).padStart(2, "0")}`).join("")}"`;
const indent = (text: string, by = "    ") => text.replace(/^(?=.)/gm, by);

/** What every device stands on. */
export const PART_LIB = `class Bad(Exception):
    """What a part sent can't be right."""


class Part:
    """A part that is asked in turns: nothing waits, and one that does not answer is begun anew."""

    def __init__(self, steps):
        self.steps = steps
        self.run = None
        self.fresh = False

    def turn(self):
        """Does what is due; returns after how many milliseconds it wants to go on."""
        try:
            if self.run is None:
                self.run = self.steps(self)
            return next(self.run)
        except (OSError, Bad):
            self.run = None
            self.fresh = False
            return ${AGAIN_MS}


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


def bcd(b, i):
    return (b[i] >> 4) * 10 + (b[i] & 15)


def crc8(b, poly, crc):
    for x in b:
        crc ^= x
        for _ in range(8):
            crc = (crc << 1 ^ poly) & 255 if crc & 128 else crc << 1 & 255
    return crc


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

/** The steps of one part as a generator that yields how long to wait. */
export function stepsInPython(d: Device, p: DriverPart): string {
  const py = (text: string) => toPython(parse(text), "b", (n) => n);
  const get = (r: { n: number; from?: number | undefined }) =>
    r.from === undefined
      ? `${p.bus}.readfrom(${p.address}, ${r.n})`
      : `${p.bus}.readfrom_mem(${p.address}, 0x${r.from.toString(16).padStart(2, "0")}, ${r.n})`;
  const PRINT: { [K in Step["do"]]: (s: Extract<Step, { do: K }>) => string } = {
    write: (s) =>
      s.bytes.every((x) => typeof x === "number")
        ? `${p.bus}.writeto(${p.address}, ${bytesText(s.bytes)})`
        : `${p.bus}.writeto(${p.address}, bytes((${s.bytes.map((x) => (typeof x === "number" ? x : `(${py(x)}) & 255`)).join(", ")},)))`,
    read: (s) => `b = ${get(s)}`,
    wait: (s) => `yield ${s.ms}`,
    until: (s) => `for look in range(${s.most}):
    b = ${get(s.read)}
    if ${py(s.holds)}:
        break
    yield ${s.every}
else:
    need(False)`,
    crc: (s) =>
      `need(crc8(b[${s.from}:${s.from + s.n}], 0x${s.poly.toString(16)}, 0x${s.init.toString(16)}) == b[${s.from + s.n}])`,
    must: (s) => `need(${py(s.holds)})`,
    let: (s) => `${s.name} = ${py(s.is)}`,
  };
  const print = (s: Step) => (PRINT[s.do] as (s: Step) => string)(s);
  return `def ${p.id}_steps(me):
${indent(d.begin.map(print).join("\n"))}${d.begin.length ? "\n" : ""}    while True:
${indent(d.read.map(print).join("\n"), "        ")}
${d.out.map((q) => `        me.${q.name} = ${q.name}`).join("\n")}
        me.fresh = True
        yield ${d.every}


${p.id} = Part(${p.id}_steps)`;
}

/** The part's readings as one text, or two dashes while there is none. */
export const showInPython = (d: Device, p: DriverPart): string => {
  const text = d.out
    .map((q) => `${q.word ? `${q.word} ` : ""}%s${q.unit ? ` ${q.unit.replace("%", "%%")}` : ""}`)
    .join(" ");
  const values = d.out.map((q) => `fixed(${p.id}.${q.name}, ${q.digits}, ${q.shown ?? q.digits})`).join(", ");
  return `("${text}" % (${values},))[:21] if ${p.id}.fresh else "${p.label.slice(0, 16)} --"`;
};

/** A reading for bring-up: taken at once, judged by what can be true in a room. */
export const bringupInPython = (d: Device, p: DriverPart): string => `${p.id}.run = None
while True:
    ms = ${p.id}.turn()
    if ${p.id}.fresh or ${p.id}.run is None:
        break
    time.sleep_ms(ms)
if ${p.id}.fresh:
    ok = ${d.out.map((q) => `${q.room[0]} <= ${p.id}.${q.name} <= ${q.room[1]}`).join(" and ")}
    print("YL1 sensor ${p.ref} fresh=1 ${d.out.map((q) => `${q.name}=%d`).join(" ")} %s" % (${d.out.map((q) => `${p.id}.${q.name}`).join(", ")}, judge(ok)))
else:
    print("YL1 sensor ${p.ref} fresh=0 ${d.out.map((q) => `${q.name}=0`).join(" ")} %s" % judge(False))`;
