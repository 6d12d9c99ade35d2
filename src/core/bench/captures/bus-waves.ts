import type { Circuit } from "../../circuit";
import { I2C_CLOCK_HZ, i2cBuses } from "../../circuit/buses";

/** What a program and a part said to each other in one go; `answered`: the part was there. Times are milliseconds since the start. */
export interface Message {
  at: number;
  ref: string;
  out: readonly number[];
  in: readonly number[];
  /** How many bytes were wanted back. */
  wanted: number;
  answered: boolean;
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
type Bus = TwoWire | FourWire;

/** A program that clocks bits out of its own hand is no faster, hertz. */
const SPI_HZ = 1_000_000;

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
  if (!spi || !sck || !cs) return null;
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

/**
 * What an analyser would have seen of the messages on the two-wire and SPI buses of a plan: edges in the order of time. A bus does
 * one after the other; what comes while it is busy waits. Parts on other links, or behind other parts, are left out.
 */
export function busWaves(c: Circuit, messages: readonly Message[]): Edge[] {
  const buses = new Map<string, Bus | null>();
  const pens = new Map<string, Pen>();
  for (const m of messages) {
    let bus = buses.get(m.ref);
    if (bus === undefined) buses.set(m.ref, (bus = busOf(c, m.ref)));
    if (!bus) continue;
    const key = bus.kind === "i2c" ? bus.scl : bus.sck;
    let pen = pens.get(key);
    if (!pen) pens.set(key, (pen = new Pen()));
    pen.t = Math.max(pen.t, m.at * 1e6);
    if (bus.kind === "i2c") onTwoWires(pen, bus, m);
    else onFourWires(pen, bus, m);
  }
  return [...pens.values()].flatMap((p) => p.edges).sort((a, b) => a.at_ns - b.at_ns);
}
