import type { Circuit } from "../../circuit";
import { i2cBuses, oneWires, spiBuses, uartLinks } from "../../circuit/buses";
import type { Net } from "../../circuit/netlist";
import { crc8Low } from "../../firmware/devices/run";
import { formatSI } from "../../quantity";
import { count } from "../../quantity/count";
import { hearI2c, type I2cHeard } from "./decode/i2c";
import { hearOneWire, type OneWireTalk } from "./decode/one-wire";
import { hearPulses, hearStrip } from "./decode/pulses";
import { hearSpi } from "./decode/spi";
import { hearUart } from "./decode/uart";
import type { Match } from "./match";
import type { Channel } from "./types";

/** What a capture shows of something in the plan, and whether it is as planned. */
export interface Compared {
  /** Null: nothing can be said, as when nobody talked. */
  ok: boolean | null;
  about: string;
  says: string;
  at: readonly string[];
}

/** A clock may differ so much from the planned one: chips divide theirs. */
const CLOCK = { slow: 0.4, fast: 1.25 };
const BAUD_SHARE = 0.04;
/** A servo's pulses, seconds and hertz. */
const SERVO = { least: 0.4e-3, most: 2.6e-3, Hz: [40, 60] as const };
const STRIP_BIT = { least: 0.9e-6, most: 1.7e-6 };
const Hz = (v: number) => formatSI(v, "Hz");

type ChannelOf = (n: Net | null | undefined) => Channel | undefined;

const answeredOf = (h: I2cHeard) => new Set(h.messages.filter((m) => m.answered).map((m) => m.address));

function i2c(c: Circuit, of: ChannelOf): Compared[] {
  return i2cBuses(c).flatMap((bus): Compared[] => {
    const [sda, scl] = [of(bus.sda), of(bus.scl)];
    if (!sda || !scl) return [];
    const about = `${bus.sda.name} and ${bus.scl.name}`;
    const at = [bus.sda.name, bus.scl.name];
    const out: Compared[] = [];
    const say = (ok: boolean | null, says: string, more: string[] = []) =>
      out.push({ ok, about, says, at: [...at, ...more] });
    const heard = hearI2c(sda, scl);
    const other = hearI2c(scl, sda);
    const wanted = bus.members.flatMap((m) => m.addresses.map((a) => Number.parseInt(a, 16)));
    const known = (h: I2cHeard) => [...answeredOf(h)].filter((a) => wanted.includes(a)).length;
    const sense = (h: I2cHeard) => h.messages.length - 3 * h.broken;
    if (other.messages.length && (known(other) > known(heard) || sense(other) > sense(heard) + 2)) {
      say(
        false,
        "data and clock are swapped: what is called SDA is the clock. Exchange the two wires, or the two probes.",
      );
      return out;
    }
    for (const [line, level] of [
      [bus.sda.name, heard.idle.sda],
      [bus.scl.name, heard.idle.scl],
    ] as const)
      if (level === 0) say(false, `${line} rests low: its pull-up is missing, it touches ground, or a part holds it.`);
    if (!heard.messages.length) {
      say(null, "nobody talked on it while this was taken.");
      return out;
    }
    const answered = answeredOf(heard);
    const asked = new Set(heard.messages.map((m) => m.address));
    for (const m of bus.members)
      for (const text of m.addresses) {
        const a = Number.parseInt(text, 16);
        if (answered.has(a)) say(true, `${m.label} answers at ${text}.`, [m.ref]);
        else if (asked.has(a)) say(false, `${m.label} is asked at ${text} and does not answer.`, [m.ref]);
        else say(null, `${m.label} is not asked at ${text} while this was taken.`, [m.ref]);
      }
    for (const a of answered)
      if (!wanted.includes(a))
        say(
          false,
          `something answers at 0x${a.toString(16)} that the plan does not have: another strap, or another part.`,
        );
    for (const a of asked)
      if (!wanted.includes(a) && !answered.has(a) && asked.size < 20)
        say(
          false,
          `0x${a.toString(16)} is asked, which no part of the plan has: the program is of another plan, or a strap was meant otherwise.`,
        );
    if (heard.clock_Hz !== null) {
      const share = heard.clock_Hz / bus.clock_Hz;
      say(
        share >= CLOCK.slow && share <= CLOCK.fast,
        `its clock runs at ${Hz(heard.clock_Hz)}; planned are ${Hz(bus.clock_Hz)}.`,
      );
    }
    if (heard.broken > 0)
      say(
        heard.broken > heard.messages.length ? false : null,
        `${heard.broken} bytes stop in the middle: disturbed, or the probes share no ground.`,
      );
    return out;
  });
}

function spi(c: Circuit, of: ChannelOf): Compared[] {
  return spiBuses(c).flatMap((bus): Compared[] => {
    const sck = of(bus.sck);
    if (!sck) return [];
    return bus.members.flatMap((m): Compared[] => {
      const net = (pin: string | null) => (pin ? c.netlist.netOf(`${m.ref}.${pin}`) : undefined);
      const [mosi, miso, cs] = [of(net(m.mosi)), of(net(m.miso)), of(m.csNet)];
      // Of several parts on a clock only the one whose select was taken can be told apart.
      if ((!mosi && !miso) || (!cs && bus.members.length > 1)) return [];
      const about = m.label;
      const at = [m.ref, bus.sck.name];
      const out: Compared[] = [];
      const say = (ok: boolean | null, says: string) => out.push({ ok, about, says, at });
      const data = mosi ?? miso!;
      const heard = hearSpi(sck, data, cs ?? null);
      if (cs && cs.at.length === 0) {
        say(null, `its select never moves: it stays ${cs.first === 0 ? "low" : "high"}.`);
        if (cs.first !== 0) return out;
      }
      if (heard.mode === null && heard.bytes.length === 0) {
        say(null, "nothing was clocked while it was selected.");
        return out;
      }
      if (mosi && miso && mosi.at.length === 0 && miso.at.length > 0)
        say(null, "only its answer moves, the board's data never do: data in and data out may be swapped.");
      if (heard.mode !== null)
        say(
          heard.mode === m.mode,
          heard.mode === m.mode
            ? `mode ${m.mode}, as planned.`
            : `the clock is that of mode ${heard.mode}, the part wants mode ${m.mode}: set mode ${m.mode} for it.`,
        );
      if (heard.clock_Hz !== null)
        say(
          heard.clock_Hz <= m.max_Hz * 1.02,
          heard.clock_Hz <= m.max_Hz * 1.02
            ? `its clock runs at ${Hz(heard.clock_Hz)}; it takes ${Hz(m.max_Hz)}.`
            : `its clock runs at ${Hz(heard.clock_Hz)}, more than the ${Hz(m.max_Hz)} that it takes.`,
        );
      if (heard.odd > 0)
        say(
          heard.odd > heard.bytes.length ? false : null,
          `${heard.odd} bits make no whole bytes: a disturbed clock, or a select that comes late.`,
        );
      return out;
    });
  });
}

function uart(c: Circuit, of: ChannelOf): Compared[] {
  return uartLinks(c).flatMap((link): Compared[] =>
    link.lines.flatMap((l): Compared[] => {
      // Probed at the part, or at the board beyond a resistor between the two.
      const line = of(c.netlist.netOf(`${link.ref}.${l.pin}`)) ?? of(c.netlist.netOf(`${link.host}.${l.hostPin}`));
      if (!line) return [];
      const about = `${link.label}, ${l.pin}`;
      const at = [`${link.ref}.${l.pin}`];
      const heard = hearUart(line);
      const out: Compared[] = [];
      if (heard.idle === 0)
        out.push({
          ok: false,
          about,
          says: "rests low: a serial line rests high. Inverted, not connected, or its sender is off.",
          at,
        });
      if (heard.baud === null) return [...out, { ok: null, about, says: "nothing was sent while this was taken.", at }];
      const right = Math.abs(heard.baud / link.baud - 1) <= BAUD_SHARE;
      out.push({
        ok: right,
        about,
        says: right
          ? `${heard.baud} baud, as planned; ${heard.bytes.length} bytes, ${heard.bad} broken.`
          : `sends at ${heard.baud} baud, the program listens at ${link.baud}: set one of them to the other.`,
        at,
      });
      return out;
    }),
  );
}

/** Over a memory with its own checksum at the end: 0 when that is right. */
const checksum = (memory: readonly number[]) => crc8Low(memory, 0x8c, 0);
/** Commands of a one-wire line: to all or to one, then what of it. */
const WIRE = { skip: 0xcc, match: 0x55, readCode: 0x33, memory: 0xbe };
/** The nine bytes of a sensor's memory that were asked for in a talk; null: none, or cut off. */
function memoryOf({ bytes }: OneWireTalk): number[] | null {
  const rest = bytes[0] === WIRE.skip ? bytes.slice(1) : bytes[0] === WIRE.match ? bytes.slice(9) : [];
  return rest[0] === WIRE.memory && rest.length >= 10 ? rest.slice(1, 10) : null;
}
/** The code that a part is called by, or tells. */
const codeOf = ({ bytes }: OneWireTalk): number[] | null =>
  (bytes[0] === WIRE.match || bytes[0] === WIRE.readCode) && bytes.length >= 9 ? bytes.slice(1, 9) : null;
/** What it holds before its first measurement: 85 degrees. */
const UNMEASURED = [0x50, 0x05];

function oneWire(c: Circuit, of: ChannelOf): Compared[] {
  return oneWires(c).flatMap((wire): Compared[] => {
    const line = of(c.netlist.netOf(`${wire.host}.${wire.pin}`));
    if (!line) return [];
    const about = wire.parts.map((p) => p.label).join(", ");
    const at = [`${wire.host}.${wire.pin}`, ...wire.parts.map((p) => p.ref)];
    const out: Compared[] = [];
    const say = (ok: boolean | null, says: string) => out.push({ ok, about, says, at });
    const heard = hearOneWire(line);
    if (heard.idle === 0)
      say(false, "its line rests low: the pull-up is missing, it touches ground, or a part holds it.");
    if (heard.short > heard.talks.length)
      say(false, "its resets are shorter than 480 µs: the program's time is wrong, or the file's.");
    const { talks } = heard;
    if (!talks.length) {
      if (out.length === 0) say(null, "nobody talked on it while this was taken.");
      return out;
    }
    const answered = talks.filter((t) => t.present).length;
    if (answered === 0) {
      say(
        false,
        `asked ${count(talks.length, "time")}, and nothing answers: its data wire or its supply is open, it is the wrong way round, or the pull-up is missing.`,
      );
      return out;
    }
    say(
      answered === talks.length ? true : null,
      answered === talks.length
        ? `answers all of ${count(talks.length, "reset")}.`
        : `answers ${answered} of ${count(talks.length, "reset")}: a loose contact, or a supply that dips.`,
    );
    const read = talks.flatMap((t) => memoryOf(t) ?? []);
    const memories = Array.from({ length: read.length / 9 }, (_, i) => read.slice(9 * i, 9 * i + 9));
    const broken = memories.filter((m) => checksum(m) !== 0).length;
    if (memories.length)
      say(
        broken ? (broken * 2 > memories.length ? false : null) : true,
        broken
          ? `${broken} of ${count(memories.length, "reading")} with a wrong checksum: too weak a pull-up, too long a wire, or two that answer at once.`
          : `${count(memories.length, "reading")}, all with the right checksum.`,
      );
    const early = memories.filter((m) => checksum(m) === 0 && UNMEASURED.every((v, i) => m[i] === v)).length;
    if (early)
      say(
        early === memories.length ? false : null,
        `${early === memories.length ? "only" : count(early, "reading")} 85.0 °C, which it holds before it has measured: read too early, or its supply dips while it measures.`,
      );
    const codes = new Set(
      talks.flatMap(
        (t) =>
          codeOf(t)
            ?.map((v) => v.toString(16).padStart(2, "0"))
            .join("") ?? [],
      ),
    );
    if (codes.size > wire.parts.length)
      say(false, `${codes.size} different codes are called, and the plan has ${wire.parts.length} on this wire.`);
    return out;
  });
}

/** Lines whose shape says all: a servo's pulses, a strip's bits. */
function shapes(c: Circuit, of: ChannelOf): Compared[] {
  return [...c.netlist.expanded.instances.values()].flatMap((inst): Compared[] => {
    const driver = inst.part.bringup?.driver;
    const b = c.netlist.bindings.find((x) => x.ref === inst.ref);
    const line = b && of(c.netlist.netOf(`${b.ref}.${b.pin}`));
    if (!line) return [];
    const at = [`${inst.ref}.${b.pin}`];
    const none: Compared = { ok: null, about: inst.label, says: "its line never moves.", at };
    if (inst.part.id.startsWith("module/servo-")) {
      const p = hearPulses(line);
      if (!p.high || p.Hz === null) return [none];
      const ok = p.high.least >= SERVO.least && p.high.most <= SERVO.most && p.Hz >= SERVO.Hz[0] && p.Hz <= SERVO.Hz[1];
      return [
        {
          ok,
          about: inst.label,
          says: `pulses of ${formatSI(p.high.least, "s")} to ${formatSI(p.high.most, "s")}, ${Hz(p.Hz)}${ok ? "." : ": a servo wants 0.5 to 2.5 ms, 50 times a second."}`,
          at,
        },
      ];
    }
    if (driver === "ws2812b" || driver === "strip") {
      const s = hearStrip(line);
      if (s.bit_s === null) return [none];
      const pixels = inst.vars.pixels;
      const long = Math.max(0, ...s.bursts.map((x) => x.length));
      const fast = s.bit_s >= STRIP_BIT.least && s.bit_s <= STRIP_BIT.most;
      const whole = pixels === undefined || long === 0 || long >= pixels * 3;
      return [
        {
          ok: fast && whole,
          about: inst.label,
          says: `bits of ${formatSI(s.bit_s, "s")}, bursts of up to ${long} bytes${!fast ? ": a bit takes 1.25 µs" : !whole ? `: ${pixels} lights want ${pixels * 3}` : ""}.`,
          at,
        },
      ];
    }
    return [];
  });
}

/** A capture held against the plan: buses, lines and shapes, as far as their channels are there. */
export function compareCapture(c: Circuit, m: Match): Compared[] {
  const by = new Map<string, Channel>(m.matched.map((x) => [x.net.id, x.channel]));
  const of: ChannelOf = (n) => (n ? by.get(n.id) : undefined);
  return [...i2c(c, of), ...spi(c, of), ...uart(c, of), ...oneWire(c, of), ...shapes(c, of)];
}
