import type { Circuit } from "../../circuit";
import { I2C_CLOCK_HZ, i2cBuses, oneWires, uartLinks } from "../../circuit/buses";
import { crc8Low } from "../../firmware/devices/run";

/** What a program and a part said to each other in one go; `answered`: the part was there. Times are milliseconds since the start. */
export interface Message {
  at: number;
  ref: string;
  out: readonly number[];
  in: readonly number[];
  /** How many bytes were wanted back. */
  wanted: number;
  answered: boolean;
  /** What came over the wire for it, where the program made something else of that: a serial part's sentences. */
  raw?: readonly number[];
}

/** A pin of a board that changes; nanoseconds since the start. */
export interface Edge {
  at_ns: number;
  hostPin: string;
  level: 0 | 1;
}

/** Draws levels of some pins as time goes on: only what changes is an edge. */
class Pen {
  readonly edges: Edge[] = [];
  private readonly now = new Map<string, 0 | 1>();
  t = 0;
  /** Until when the last message took. */
  free = 0;
  put(hostPin: string | undefined, level: 0 | 1, later_ns = 0) {
    if (hostPin === undefined || this.now.get(hostPin) === level) return;
    this.now.set(hostPin, level);
    this.edges.push({ at_ns: Math.round(this.t + later_ns), hostPin, level });
  }
}
const bitsOf = (byte: number) => [7, 6, 5, 4, 3, 2, 1, 0].map((k) => ((byte >> k) & 1) as 0 | 1);

interface TwoWire {
  kind: "i2c";
  sda: string;
  scl: string;
  address: number;
  bit_ns: number;
}
interface FourWire {
  kind: "spi";
  sck: string;
  mosi?: string | undefined;
  miso?: string | undefined;
  cs: string;
  mode: number;
  bit_ns: number;
}
interface Serial {
  kind: "uart";
  /** The board's pins: `tx` speaks to the part, `rx` hears it. */
  tx?: string | undefined;
  rx?: string | undefined;
  bit_ns: number;
}
interface OneLine {
  kind: "onewire";
  line: string;
  /** Several on one wire are called by their codes; null: alone there. */
  code: readonly number[] | null;
}
type Bus = TwoWire | FourWire | Serial | OneLine;

/** A program that clocks bits out of its own hand is no faster, hertz. */
const SPI_HZ = 1_000_000;

/** Codes of the simulated probes of a wire: the family, a number of its own, and the check. */
const codeOf = (index: number): number[] => {
  const body = [0x28, index + 1, 0, 0, 0, 0, 0];
  return [...body, crc8Low(body, 0x8c, 0)];
};

/** A part on a line of its own, or on a shared one that knows parts by their codes. */
function lineOf(c: Circuit, ref: string): Serial | OneLine | null {
  const board = (pin: string) => (c.netlist.instance(pin.split(".")[0]!)?.part.board ? pin : undefined);
  const link = uartLinks(c).find((l) => l.ref === ref);
  if (link) {
    const at = (role: "rx" | "tx") => {
      const b = c.netlist.bindings.find((x) => x.ref === ref && x.need.kind === "uart" && x.need.role === role);
      return b && board(`${b.host}.${b.hostPin}`);
    };
    return { kind: "uart", tx: at("tx"), rx: at("rx"), bit_ns: 1e9 / link.baud };
  }
  const wire = oneWires(c).find((w) => w.parts.some((p) => p.ref === ref));
  const line = wire && board(`${wire.host}.${wire.pin}`);
  if (!line) return null;
  const index = wire.parts.findIndex((p) => p.ref === ref);
  return { kind: "onewire", line, code: wire.parts.length > 1 ? codeOf(index) : null };
}

/** The pins of its board that a part talks over; null where that is another link, or a line of another part. */
function busOf(c: Circuit, ref: string): Bus | null {
  const inst = c.netlist.instance(ref);
  const at = (pin: string | undefined) => {
    const b = pin && c.netlist.bindings.find((x) => x.ref === ref && x.pin === pin);
    return b && c.netlist.instance(b.host)?.part.board ? `${b.host}.${b.hostPin}` : undefined;
  };
  const i2c = inst?.part.groups.find((g) => g.kind === "i2c");
  if (i2c) {
    const [sda, scl] = [at(i2c.pins.sda), at(i2c.pins.scl)];
    const bus = i2cBuses(c).find((b) => b.members.some((m) => m.ref === ref));
    if (!sda || !scl || !i2c.address) return null;
    return { kind: "i2c", sda, scl, address: parseInt(i2c.address, 16), bit_ns: 1e9 / (bus?.clock_Hz ?? I2C_CLOCK_HZ) };
  }
  const spi = inst?.part.groups.find((g) => g.kind === "spi");
  const [sck, cs] = [at(spi?.pins.sck), at(spi?.pins.cs)];
  if (!spi) return lineOf(c, ref);
  if (!sck || !cs) return null;
  return {
    kind: "spi",
    sck,
    cs,
    mosi: at(spi.pins.mosi),
    miso: at(spi.pins.miso),
    mode: spi.mode ?? 0,
    bit_ns: 1e9 / Math.min(SPI_HZ, spi.max_Hz ?? SPI_HZ),
  };
}

/** One message on two wires: a start, the address, bytes and who acknowledges them, a stop; both ways in one with a start between. */
function onTwoWires(pen: Pen, b: TwoWire, m: Message): void {
  const T = b.bit_ns;
  const bit = (level: 0 | 1) => {
    pen.put(b.sda, level);
    pen.put(b.scl, 1, T / 4);
    pen.put(b.scl, 0, (3 * T) / 4);
    pen.t += T;
  };
  const byte = (v: number, acknowledged: boolean) => {
    for (const level of bitsOf(v)) bit(level);
    bit(acknowledged ? 0 : 1);
  };
  const start = () => {
    pen.put(b.sda, 1);
    pen.put(b.scl, 1, T / 4);
    pen.put(b.sda, 0, T / 2);
    pen.put(b.scl, 0, (3 * T) / 4);
    pen.t += T;
  };
  if (m.out.length || !m.wanted) {
    start();
    byte(b.address << 1, m.answered);
    if (m.answered) for (const v of m.out) byte(v, true);
  }
  if (m.wanted && (m.answered || !m.out.length)) {
    start();
    byte((b.address << 1) | 1, m.answered);
    // The last one is not acknowledged: that ends it.
    for (const [i, v] of m.in.entries()) byte(v, i + 1 < m.in.length);
  }
  pen.put(b.sda, 0);
  pen.put(b.scl, 1, T / 4);
  pen.put(b.sda, 1, T / 2);
  pen.t += T;
}

/** One message to a selected part: what goes out beside what comes in, in its mode. */
function onFourWires(pen: Pen, b: FourWire, m: Message): void {
  const T = b.bit_ns;
  const idle = (b.mode & 2 ? 1 : 0) as 0 | 1;
  const busy = (1 - idle) as 0 | 1;
  pen.put(b.sck, idle);
  pen.put(b.cs, 0, T / 2);
  pen.t += T;
  const out = [...m.out, ...Array<number>(m.wanted).fill(0)];
  // What a part says while it listens is nothing.
  const back = [...m.out.map(() => 0), ...m.in];
  for (const [i, v] of out.entries()) {
    const answer = bitsOf(back[i] ?? 0);
    for (const [k, level] of bitsOf(v).entries()) {
      if (b.mode & 1) pen.put(b.sck, busy);
      pen.put(b.mosi, level);
      pen.put(b.miso, answer[k]!);
      pen.put(b.sck, b.mode & 1 ? idle : busy, T / 2);
      pen.t += T;
      if (!(b.mode & 1)) pen.put(b.sck, idle);
    }
  }
  pen.put(b.cs, 1, T / 2);
  pen.t += T;
}

/** Bytes on a serial line: a start, eight bits from the lowest, a stop. The line rests high. */
function onSerial(pen: Pen, b: Serial, m: Message): void {
  const send = (pin: string | undefined, bytes: readonly number[]) => {
    if (pin === undefined) return;
    pen.put(pin, 1);
    for (const v of bytes) {
      pen.put(pin, 0);
      for (const [k, level] of bitsOf(v).reverse().entries()) pen.put(pin, level, (k + 1) * b.bit_ns);
      pen.put(pin, 1, 9 * b.bit_ns);
      pen.t += 10 * b.bit_ns;
    }
  };
  send(b.tx, m.out);
  // What has been heard by now has come before.
  const back = m.raw ?? [];
  pen.t -= Math.min(back.length * 10 * b.bit_ns, pen.t - pen.free);
  send(b.rx, back);
}

/** A one-wire line at its usual speed, nanoseconds: a reset, the answer to it, and slots. */
const SLOT = { reset: 500e3, waits: 30e3, answers: 120e3, rests: 400e3, one: 6e3, zero: 60e3, all: 75e3 };

/** A reset, who answers it, then bytes from the lowest bit; what the part says it says by holding the line longer. */
function onOneLine(pen: Pen, b: OneLine, m: Message): void {
  pen.put(b.line, 1);
  pen.put(b.line, 0);
  pen.put(b.line, 1, SLOT.reset);
  pen.t += SLOT.reset;
  if (m.answered) {
    pen.put(b.line, 0, SLOT.waits);
    pen.put(b.line, 1, SLOT.waits + SLOT.answers);
  }
  pen.t += SLOT.rests;
  const [first, ...rest] = m.out;
  const called = b.code && first === SKIP ? [MATCH, ...b.code, ...rest] : m.out;
  for (const v of m.answered ? [...called, ...m.in] : [])
    for (const level of bitsOf(v).reverse()) {
      pen.put(b.line, 0);
      pen.put(b.line, 1, level ? SLOT.one : SLOT.zero);
      pen.t += SLOT.all;
    }
}
/** To all on the wire, and to one of them by its code. */
const [SKIP, MATCH] = [0xcc, 0x55];

const DRAW: { [K in Bus["kind"]]: (pen: Pen, b: Extract<Bus, { kind: K }>, m: Message) => void } = {
  i2c: onTwoWires,
  spi: onFourWires,
  uart: onSerial,
  onewire: onOneLine,
};
/** Parts that share a pen wait for one another. */
const keyOf = (b: Bus, ref: string): string =>
  b.kind === "i2c" ? b.scl : b.kind === "spi" ? b.sck : b.kind === "onewire" ? b.line : ref;

/**
 * What an analyser would have seen of the messages on the two-wire, SPI, serial and one-wire lines of a plan: edges in the order
 * of time. A bus does one after the other; what comes while it is busy waits. Parts on other links, or behind other parts, are
 * left out.
 */
export function busWaves(c: Circuit, messages: readonly Message[]): Edge[] {
  const buses = new Map<string, Bus | null>();
  const pens = new Map<string, Pen>();
  for (const m of messages) {
    let bus = buses.get(m.ref);
    if (bus === undefined) buses.set(m.ref, (bus = busOf(c, m.ref)));
    if (!bus) continue;
    // Whether something has come in is asked of the port, not over the line.
    if (bus.kind === "uart" && !m.out.length && !m.raw) continue;
    const key = keyOf(bus, m.ref);
    let pen = pens.get(key);
    if (!pen) pens.set(key, (pen = new Pen()));
    pen.free = pen.t;
    pen.t = Math.max(pen.t, m.at * 1e6);
    (DRAW[bus.kind] as (pen: Pen, b: Bus, m: Message) => void)(pen, bus, m);
  }
  return [...pens.values()].flatMap((p) => p.edges).sort((a, b) => a.at_ns - b.at_ns);
}
