import { code } from "../words";
import { findPin, optionValues, type BoardInfo } from "../parts/catalogue";
import type { Circuit } from "../circuit";
import { busOfPin, I2C_CLOCK_HZ, i2cBuses } from "../circuit/buses";
import { isDimmed, isWorked, type Instance } from "../circuit/netlist";
import { houseRule } from "../project";
import { CARRIERS, LANES, MOST_BITS, VOLTAGES, worksAnywhere } from "./carriers";
import { restOf } from "./rest";
import { isReserved } from "./reserved";
import type { DriverPart, PinConstant, Through } from "./types";

/** An identifier from anything that a person typed: ASCII letters, digits and _, never empty, never a digit first. */
export function identifier(text: string, fallback: string): string {
  const plain = text
    .normalize("NFKD")
    .replace(/[^A-Za-z0-9]+/g, "_")
    .replace(/^_+|_+$/g, "")
    .slice(0, 24);
  if (!plain) return fallback;
  return /^\d/.test(plain) ? `P_${plain}` : plain;
}

/** A label made safe for a comment or string literal in generated code: one line, printable ASCII, no quote or escape. */
export const codeText = (text: string): string => code(text);

/** For every part that a program works: a name from its label, each once. */
function ids(c: Circuit): Map<string, string> {
  const out = new Map<string, string>();
  const taken = new Set<string>();
  const all = [...c.netlist.expanded.instances.values()];
  const driven = new Set(all.flatMap((i) => (i.inserted?.key === "driver" ? [i.inserted.by] : [])));
  for (const i of all) {
    if (driven.has(i.ref)) continue;
    // A transistor that stands in a load's wire is worked under the load's name.
    if (!isWorked(i)) continue;
    const named = i.inserted ? (c.netlist.instance(i.inserted.by) ?? i) : i;
    const base = identifier(named.label, i.ref).toLowerCase();
    const id = taken.has(base) ? `${base}_${i.ref.toLowerCase()}` : base;
    taken.add(id);
    out.set(i.ref, id);
  }
  return out;
}

const begins = (name: string, other: string) => name === other || name.startsWith(`${other}_`);

/**
 * The same as names of variables. A word of the language or of the core, a name that another part has, and one that begins like
 * another part's (whose variables are called `lamp_on`, `lamp_state` …), gets the part's reference in front; where even that
 * begins like another, a number before it.
 */
function variables(c: Circuit): Map<string, string> {
  const plain = [...ids(c)].map(([ref, name]) => {
    const tail = `_${ref.toLowerCase()}`;
    return { ref, base: name.endsWith(tail) ? name.slice(0, -tail.length) : name };
  });
  const out = new Map<string, string>();
  for (const p of plain) {
    const taken = [...out.values()];
    const others = plain.filter((q) => q !== p).map((q) => q.base);
    // A plain name may be what others begin with: those give way. One that was made up gives way to all.
    const free = (id: string, made: boolean) =>
      !isReserved(id) &&
      !taken.some((t) => begins(id, t) || begins(t, id)) &&
      !others.some((o) => (made ? begins(id, o) || begins(o, id) : id !== o && begins(id, o)));
    let id = p.base;
    for (let n = 0; !free(id, id !== p.base); n++) id = `${n ? `p${n}_` : ""}${p.ref.toLowerCase()}_${p.base}`;
    out.set(p.ref, id);
  }
  return out;
}

/** Names that the cores for these boards have taken: a constant of ours would be another pin, or would not compile. */
const TAKEN =
  /^PIN_(A\d+|D\d+|GP\d+|GPIO_?\d+|P[A-Z]_?\d+|SPI\d*_?(SS|CS|MOSI|MISO|SCK|TX|RX)?|WIRE\d*_?(SDA|SCL)?|SERIAL\d*_?(TX|RX)?|I2S.*|LED(_?(RX|TX|RXL|TXL|13|BUILTIN))?|[A-Z]*PIXELS?|DAC\d*|USB.*|EXT_.*|QSPI.*|PDM.*|BUTTON\d*|VBAT|AREF)$/;
/** Cores for these chips number their own lights the same way. */
const NUMBERS_LEDS = /^(nrf|samd)/;
const ownName = (name: string, family: string) =>
  TAKEN.test(name) || (NUMBERS_LEDS.test(family) && /^PIN_LED\d$/.test(name))
    ? name.replace(/^PIN_(.*)$/, "$1_PIN")
    : name;

const needCount = (c: Circuit, ref: string) => c.netlist.bindings.filter((b) => b.ref === ref).length;

/** A constant for every planned pin of a host. Shared bus lines get one constant: `PIN_SDA`. */
export function pinConstants(c: Circuit, host: string, target: string): PinConstant[] {
  const names = ids(c);
  const board = c.netlist.instance(host)!.part;
  const out = new Map<string, PinConstant>();
  for (const b of c.netlist.bindings) {
    // A piece further down a chain has no pin of its own.
    if (b.host !== host || b.chainedAfter) continue;
    const pin = findPin(board, b.hostPin)!;
    const busName =
      b.need.kind === "i2c" || b.need.kind === "spi" ? (busOfPin(c, host, b.hostPin, b.need.kind) ?? null) : null;
    const id = names.get(b.ref)!.toUpperCase();
    const called = findPin(c.netlist.instance(b.ref)!.part, b.pin)?.called;
    const name = busName
      ? `PIN_${busName.toUpperCase()}_${(b.need.role ?? "").toUpperCase()}`
      : ownName(
          needCount(c, b.ref) > 1 || called
            ? `PIN_${id}_${identifier(called ?? b.pin, "X").toUpperCase()}`
            : `PIN_${id}`,
          board.board?.family ?? "",
        );
    const known = out.get(`${name}|${b.hostPin}`);
    const says = `${b.ref}.${b.pin} ${called ? `${codeText(called)} ` : ""}${codeText(c.netlist.instance(b.ref)!.label)}`;
    if (known) known.says += `, ${says}`;
    else
      out.set(`${name}|${b.hostPin}`, {
        name,
        ref: b.ref,
        pin: b.pin,
        host,
        hostPin: b.hostPin,
        // Where a voltage is read, some cores call the pin otherwise.
        code: (b.need.kind === "adc" && pin.names?.[`${target}-analog`]) || (pin.names?.[target] ?? pin.label),
        says,
      });
  }
  return [...out.values()];
}

/** `1` of `i2c1`. */
export const busNumber = (bus: string) => /\d*$/.exec(bus)![0];

/** The first piece of the chain that a piece belongs to. */
function chainHead(c: Circuit, ref: string): string {
  const seen = new Set<string>();
  for (let here = ref; ;) {
    const before = c.netlist.bindings.find((b) => b.ref === here && b.chainedAfter)?.chainedAfter;
    if (!before || seen.has(before)) return here;
    seen.add(here);
    here = before;
  }
}

/** Counts that add up along a chain: lights of strips, modules of digits. */
const CHAIN_COUNTS = ["pixels", "chain", "digits"];

/** How many pieces stand before one in its chain. */
function chainPlace(c: Circuit, ref: string): number {
  let n = 0;
  const seen = new Set<string>();
  for (let here = ref; ; n++) {
    const before = c.netlist.bindings.find((b) => b.ref === here && b.chainedAfter)?.chainedAfter;
    if (!before || seen.has(before)) return n;
    seen.add(here);
    here = before;
  }
}

/** The pieces behind the first of a chain. */
const chainOf = (c: Circuit, ref: string) =>
  [...c.netlist.expanded.instances.values()].filter((i) => i.ref !== ref && chainHead(c, i.ref) === ref);

function chainVars(c: Circuit, ref: string, vars: Record<string, number>): Record<string, number> {
  const followers = chainOf(c, ref);
  if (!followers.length) return vars;
  const sums = CHAIN_COUNTS.filter((k) => vars[k] !== undefined).map((k) => [
    k,
    followers.reduce((s, f) => s + (f.vars[k] ?? 0), vars[k]!),
  ]);
  return { ...vars, ...(Object.fromEntries(sums) as Record<string, number>) };
}

/** Whether a low means pressed or lit, by where the other leg of the part leads; by what is planned where it is still open. */
function isActiveLow(c: Circuit, inst: Instance, leg: string): boolean {
  const light = inst.part.elements.find((e) => e.kind === "led");
  if (light && inst.part.pins.length === 2) return light.kind === "led" && light.b === leg;
  const other = inst.part.pins.find((p) => p.label !== leg);
  const kind = other && inst.part.pins.length === 2 ? c.netlist.netOf(`${inst.ref}.${other.label}`).kind : undefined;
  if (kind === "supply" || kind === "ground") return kind === "ground";
  const entry = c.project.parts.find((p) => p.ref === inst.ref);
  return entry?.companions?.pullDown == null && houseRule(c.project, "buttonPull") !== "external-down";
}

/** A bus switch between the board and a part: the switch, its branch, and where the part's lines hang on it. */
function switchOf(c: Circuit, host: string, inst: Instance) {
  const lines = c.netlist.bindings.filter((b) => b.ref === inst.ref && b.need.kind === "i2c" && b.host !== host);
  const mux = lines[0] && c.netlist.instance(lines[0].host);
  if (!mux || mux.part.board || lines.some((b) => b.host !== mux.ref)) return null;
  const offer = findPin(mux.part, lines[0]!.hostPin)?.offers?.find((o) => o.kind === "i2c");
  const own = mux.part.groups.find((g) => g.kind === "i2c" && g.address);
  const at = c.netlist.bindings.find((b) => b.ref === mux.ref && b.host === host && b.pin === own?.pins.sda);
  if (offer?.kind !== "i2c" || !own?.address || !at) return null;
  const sda = at.hostPin;
  return { mux, lines, sda, address: own.address, channel: Number(busNumber(offer.bus) || 0) };
}

/** A line of a part that carries others: which part answers for it, and the bit; null for any other line. */
function bitOf(c: Circuit, host: string, end: { host: string; hostPin: string }, volts: boolean) {
  const id = c.netlist.instance(end.host)?.part.id ?? "";
  const bit = volts ? VOLTAGES[id]?.line(end.hostPin) : CARRIERS[id]?.(end.hostPin);
  if (bit === null || bit === undefined) return null;
  const head = chainHead(c, end.host);
  if (!c.netlist.bindings.some((b) => b.ref === head && b.host === host)) return null;
  const all = bit + 8 * chainPlace(c, end.host);
  return all < MOST_BITS ? { head, bit: all } : null;
}

/** Everything that hangs on lines of parts which this board works: on what, by which bit. */
const carried = (c: Circuit, host: string) =>
  c.netlist.bindings.flatMap((b) => {
    const inst = c.netlist.instance(b.ref)!;
    const volts = b.need.kind === "adc";
    if (b.host === host || !inst.part.bringup) return [];
    const lane = LANES.has(c.netlist.instance(b.host)!.part.id);
    if (!worksAnywhere(inst.part, b.pin, volts ? "voltage" : lane ? "share" : "level")) return [];
    const at = bitOf(c, host, b, volts);
    return at ? [{ b, inst, ...at }] : [];
  });

/** What a part runs on, nominal millivolts. */
function supplyOf(c: Circuit, { ref, part }: Instance): number | undefined {
  const pin = part.pins.find((p) => p.role === "supply-in");
  const V = pin && c.netlist.netOf(`${ref}.${pin.label}`).V;
  return V ? Math.round(V.typ * 1000) : undefined;
}

/** How the voltage of a line is read by the part that it hangs on. */
function voltsOf(c: Circuit, head: string, line: number): NonNullable<Through["volts"]> {
  const inst = c.netlist.instance(head)!;
  const reader = VOLTAGES[inst.part.id]!;
  return { reading: reader.reading(line), full: reader.full ?? supplyOf(c, inst) ?? UNKNOWN_SUPPLY_MV };
}
/** Where nothing feeds a part yet, its plan is not done: any supply lets the program be written. */
const UNKNOWN_SUPPLY_MV = 3300;

/** Shorter than this a program's half clock is not made, longer neither, microseconds. */
const HALF_CLOCK_US = { least: 5, most: 255 };

/** Half a clock of a bus that the program times: as was chosen, and never faster than its slowest part takes. */
function halfClock(c: Circuit, host: string, ref: string): number {
  const bus = i2cBuses(c).find((b) => b.host === host && b.members.some((m) => m.ref === ref));
  const Hz = Math.min(bus?.clock_Hz ?? I2C_CLOCK_HZ, bus?.slowest?.max_Hz ?? I2C_CLOCK_HZ);
  return Math.min(HALF_CLOCK_US.most, Math.max(HALF_CLOCK_US.least, Math.ceil(500_000 / Hz)));
}

const isOneWire = (need: { kind: string; role?: string | undefined }) => need.role === "onewire";
/** Parts on one wire that carries several: each is told which of them it is. */
function shareWires(c: Circuit, host: string, parts: readonly DriverPart[]): void {
  const wires = new Map<string, DriverPart[]>();
  for (const p of parts)
    for (const b of c.netlist.bindings)
      if (b.ref === p.inst.ref && b.host === host && isOneWire(b.need))
        wires.set(b.hostPin, [...(wires.get(b.hostPin) ?? []), p]);
  // A computer's kernel reads one such wire, and does not tell which of several a probe hangs on.
  if (wires.size > 1)
    for (const p of [...wires.values()].flat())
      if (p.target === "python")
        p.unworked = { kind: "capability", why: "a computer reads one such wire: hang all of them on the same pin" };
  for (const list of wires.values())
    if (list.length > 1)
      for (const [index, p] of list.entries()) p.mates = { first: list[0]!.id, index, count: list.length };
}

/** Targets whose language times a two-wire bus on any pins. */
const SOFT_I2C = new Set(["micropython", "avr-c"]);

/** The parts that a host's firmware talks to, in netlist order, with what their drivers need. */
export function driverParts(c: Circuit, host: string, target: string, busNames: (bus: string) => string): DriverPart[] {
  const constants = pinConstants(c, host, target);
  const names = variables(c);
  const board = c.netlist.instance(host)!.part;
  const carries = carried(c, host);
  const parts = [...c.netlist.expanded.instances.values()].flatMap((inst): DriverPart[] => {
    const branch = switchOf(c, host, inst);
    const mine = [
      ...c.netlist.bindings.filter((b) => b.ref === inst.ref && b.host === host),
      ...(branch?.lines ?? []),
      ...carries.flatMap((x) => (x.inst === inst ? [x.b] : [])),
    ];
    const through = carries.filter((x) => x.inst === inst);
    const onIt = carries.filter((x) => x.head === inst.ref);
    const outs = onIt.filter((x) => x.b.need.kind === "digital-out" || x.b.need.kind === "pwm");
    const ins = onIt.filter((x) => x.b.need.kind === "adc");
    const supply_mV = supplyOf(c, inst);
    const mask = (list: typeof onIt) => list.reduce((m, x) => m | (1 << x.bit), 0);
    if (!inst.part.bringup || !mine.length || mine.some((b) => b.chainedAfter)) return [];
    // A part that is only half planned gets no code: half a bus can't work.
    const needed = inst.part.pins.filter((p) => p.need && !p.need.optional);
    if (needed.some((p) => !mine.some((b) => b.pin === p.label))) return [];
    const at = (label: string) => mine.find((b) => b.pin === label);
    const constant = (label: string) => {
      const b = at(label)!;
      return constants.find((k) => k.hostPin === b.hostPin)!.name;
    };
    // A bus that its part has and that is not wired is no bus here.
    const i2c = inst.part.groups.find((g) => g.kind === "i2c" && (branch || at(g.pins.sda!)));
    const busPin = branch?.sda ?? (i2c && at(i2c.pins.sda!)!.hostPin);
    const bus = i2c && (busOfPin(c, host, busPin!, "i2c") ?? null);
    // No controller is behind those pins: the program times the bus itself, where its language has that.
    const soft = i2c !== undefined && !bus;
    const softName = soft && SOFT_I2C.has(target) ? `soft_${identifier(busPin!, "bus").toLowerCase()}` : "";
    const reach = bus ? busNames(bus) : softName;
    // In Python a branch is an object that is used like a bus.
    const called = branch && target !== "sketch" ? `${names.get(branch.mux.ref)}_ch${branch.channel}` : reach;
    const serial = inst.part.groups
      .filter((g) => g.kind === "uart")
      .flatMap((g) => Object.values(g.pins))
      .flatMap((label) => {
        const need = findPin(inst.part, label)?.need;
        const b = at(label);
        return need?.kind === "uart" && b ? [{ pin: findPin(board, b.hostPin)! }] : [];
      });
    const port = serial.map(({ pin }) => busOfPin(c, host, pin.label, "uart"))[0] ?? undefined;
    const heard = inst.part.groups.find((g) => g.kind === "i2s" && at(g.pins.sck!));
    const soundBus = heard && busOfPin(c, host, at(heard.pins.sck!)!.hostPin, "i2s");
    const entry = c.project.parts.find((p) => p.ref === inst.ref);
    const makesPulses = (label: string) => {
      const b = at(label)!;
      const pin = findPin(c.netlist.instance(b.host)!.part, b.hostPin);
      return LANES.has(c.netlist.instance(b.host)!.part.id) || (pin?.offers ?? []).some((o) => o.kind === "pwm");
    };
    const leg = (inst.part.pins.find((p) => p.need && at(p.label)) ?? inst.part.pins.find((p) => at(p.label)))!.label;
    return [
      {
        inst,
        board: board.board!,
        target,
        // A load's transistor answers under the load's name: that is what the person looks at.
        ref: inst.inserted?.key === "driver" ? inst.inserted.by : inst.ref,
        id: names.get(inst.ref)!,
        label: codeText(inst.label),
        pin: constant,
        printed: (label) =>
          at(label)!.host === host ? at(label)!.hostPin : `${at(label)!.host}.${at(label)!.hostPin}`,
        has: (label) => at(label) !== undefined,
        pulled: new Set(
          inst.part.pins.map((p) => p.label).filter((l) => c.netlist.expanded.internalPulls.has(`${inst.ref}.${l}`)),
        ),
        options: optionValues(inst.part, entry?.options ?? {}),
        vars: chainVars(c, inst.ref, inst.vars),
        chain: chainOf(c, inst.ref).length + 1,
        address: i2c?.address,
        leg,
        activeLow: isActiveLow(c, inst, leg),
        ...(isDimmed(c.netlist, inst) && { dims: makesPulses(leg) ? ("pulses" as const) : ("none" as const) }),
        pull: entry?.companions?.pullUp === "internal" ? "internal" : "external",
        bus: called,
        ...(branch && { via: { address: branch.address, channel: branch.channel, bus: reach } }),
        ...(port !== undefined && { port }),
        ...(soundBus && { sound: Number(/\d+$/.exec(soundBus)?.[0] ?? 0) }),
        ...(serial.some((x) => x.pin.hazards?.some((h) => h.kind === "console")) && { console: true }),
        soft,
        ...(i2c && (soft || target === "avr-c") && { halfClock_us: halfClock(c, host, inst.ref) }),
        ...(through.length > 0 && {
          through: new Map(
            through.map((x) => [
              x.b.pin,
              {
                by: names.get(x.head)!,
                bit: x.bit,
                ...(LANES.has(c.netlist.instance(x.head)!.part.id) && { lane: true as const }),
                ...(x.b.need.kind === "adc" && { volts: voltsOf(c, x.head, x.bit) }),
              },
            ]),
          ),
        }),
        ...(onIt.some((x) => x.b.need.kind === "pwm" && x.b.need.use === "servo") && { pulsed: true }),
        ...(supply_mV !== undefined && { supply_mV }),
        ...(ins.length > 0 && { ins: mask(ins) }),
        ...(onIt.length > 0 && {
          outs: mask(outs),
          // A light at the supply rests high; so does what says so of itself.
          rests: mask(
            outs.filter((x) =>
              x.inst.part.bringup!.driver === "led"
                ? isActiveLow(c, x.inst, x.b.pin)
                : restOf({ inst: x.inst }, x.b.pin) === 1,
            ),
          ),
        }),
        ...(soft &&
          !softName &&
          target !== "sketch" && {
            unworked: {
              kind: "capability" as const,
              why: "its bus has no controller on these pins, and a program on a computer does not time one by itself",
            },
          }),
      },
    ];
  });
  const called = new Map(parts.map((p) => [p.id, p]));
  for (const p of parts)
    for (const at of p.through?.values() ?? []) {
      const on = called.get(at.by);
      if (on) at.on = on;
    }
  shareWires(c, host, parts);
  // What hangs on another part comes after it.
  return [...parts.filter((p) => !p.through), ...parts.filter((p) => p.through)];
}

/** Slower than this no bus is run, hertz: the dividers of the controllers end somewhere near. */
const ANY_CLOCK = { least: 10_000, most: Infinity };
/**
 * What a family's controller can do, hertz, from the chip's own clock. AVR: SCL = clock / (16 + 2 * TWBR), TWBR 0 to 255, and at
 * most 400 kHz (data sheets of ATmega328P, 2560, 32U4: two-wire interface). A divider that is out of range would wrap to a far
 * faster clock.
 */
const CLOCKS: Partial<Record<BoardInfo["family"], (clock_Hz: number) => { least: number; most: number }>> = {
  avr: (clock_Hz) => ({ least: Math.ceil(clock_Hz / (16 + 2 * 255)), most: 400_000 }),
};

/**
 * Hertz at which the program runs a bus, which is what the checks hold it to: the clock that was chosen, else the usual one,
 * and never more than its slowest part takes. `name` is the bus in the code, `busNames` as for `driverParts`.
 */
export function busClock(c: Circuit, host: string, name: string, busNames: (bus: string) => string): number {
  const bus = i2cBuses(c).find((b) => b.host === host && b.bus !== null && busNames(b.bus) === name);
  const asked = Math.min(bus?.clock_Hz ?? I2C_CLOCK_HZ, bus?.slowest?.max_Hz ?? I2C_CLOCK_HZ);
  const { family, clock_Hz } = c.netlist.instance(host)!.part.board!;
  const { least, most } = CLOCKS[family]?.(clock_Hz) ?? ANY_CLOCK;
  return Math.round(Math.min(most, Math.max(least, asked)));
}

/** What a place for own code is called in the project: with the board in front where there are several. */
export const regionKey = (c: Circuit, host: string, name: string) =>
  c.netlist.expanded.hosts.length > 1 ? `${host}.${name}` : name;

/** The person's own code of a place in a board's program. Without a board in front it belongs to the first. */
export function region(c: Circuit, host: string, target: string, name: string): string {
  const list = c.project.code[target] ?? {};
  const plain = host === c.netlist.expanded.hosts[0] ? list[name] : undefined;
  return list[`${host}.${name}`] ?? plain ?? "";
}

/**
 * Whether nothing at all hangs on a pin of a board: no need that is planned there and no wire, whatever it leads to. Only such a
 * pin may be driven unasked: on another board's output it would burn one of the two.
 */
export const isBare = (c: Circuit, host: string, label: string): boolean =>
  !c.netlist.bindings.some((b) => b.host === host && b.hostPin === label) &&
  c.netlist.netOf(`${host}.${label}`).ends.length < 2;

/** The board's own light, as a target writes its pin, and the level that lights it; null where anything hangs on that pin. */
export function ownLight(c: Circuit, host: string, target: string): { code: string; lit: 0 | 1 } | null {
  const board = c.netlist.instance(host)!.part;
  const apart = board.board!.targets[target]?.led;
  if (apart) return { code: apart, lit: 1 };
  const pin = board.pins.find((p) => p.hazards?.some((h) => h.lit));
  const code = pin?.names?.[target];
  if (!pin || !code || !isBare(c, host, pin.label)) return null;
  return { code, lit: pin.hazards!.some((h) => h.lit === "low") ? 0 : 1 };
}
