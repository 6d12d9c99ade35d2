import type { Circuit } from "../circuit";
import type { Instance } from "../circuit/netlist";
import type { BoardInfo } from "../parts/catalogue";
import type { UsbEvent } from "./usb/events";
import type { Quantity, Takes, Text } from "./devices/types";

/** A file of generated firmware; `path` is inside the target's folder. */
export interface FirmwareFile {
  path: string;
  text: string;
}

/** One pin constant: the same name in the code, the lattice and the run sheet. */
export interface PinConstant {
  name: string;
  ref: string;
  pin: string;
  host: string;
  hostPin: string;
  /** The pin's name in the target's code. */
  code: string;
  says: string;
}

/** Why a part is left out of a program: no room for it, or something that the chip or the language does not do. */
export interface Lack {
  kind: "memory" | "capability";
  why: string;
}

/** A line of another part; `on` is absent when that part has no code here. */
export interface Through {
  by: string;
  bit: number;
  on?: DriverPart;
  /** Its voltage is read there: which reading it is, and what that is at the full supply. */
  volts?: { reading: string; full: number };
  /** It is an output that makes shares of full power and pulses. */
  lane?: true;
}

/** A branch of a bus switch. */
export interface Via {
  address: string;
  channel: number;
  bus: string;
}

/** What a driver gets to write its code with. */
export interface DriverPart {
  inst: Instance;
  /** The board that works it, and what the program is written in. */
  board: BoardInfo;
  target: string;
  ref: string;
  /** Lower-case identifier made from the label: `low_lamp`. */
  id: string;
  label: string;
  /** Constant name of a pin of the part. */
  pin(label: string): string;
  /** Label of the host pin as printed, for bring-up lines. */
  printed(label: string): string;
  /** True when the plan wires this pin to the board; optional pins may stay free. */
  has(label: string): boolean;
  /** Pins that the chip's own pull-up holds. */
  pulled: ReadonlySet<string>;
  /** The part's options with defaults filled in. */
  options: Record<string, string | number>;
  vars: Record<string, number>;
  /** A rule tells it something: it does nothing by itself. */
  ruled?: boolean;
  /** Several hang on its one wire: its place among them, and what the first is called in the program. */
  mates?: { first: string; index: number; count: number };
  /** How many pieces stand in its chain, itself included. */
  chain: number;
  address: string | undefined;
  /** The leg of a two-legged part that faces the board. */
  leg: string;
  /** True when a press reads as 0 (contact to ground), and when a low lights (light to the supply). */
  activeLow: boolean;
  pull: "internal" | "external";
  /** A rule tells it how much: it is worked by pulses. `none`: its pin makes none. */
  dims?: "pulses" | "none";
  /** Bus object in the code: `Wire`, `Wire1`, `i2c0`. */
  bus: string;
  /** The chip's serial port behind the part's pins, and whether the console is on it. */
  port?: string;
  console?: boolean;
  /** The number of the chip's sound port behind the part's pins. */
  sound?: number;
  /** It hangs on a branch of a switch on the bus: the switch's address, and the bus that both are reached over. */
  via?: Via;
  /** Pins that hang on another part's lines: what that part is called in the program, and the bit. */
  through?: ReadonlyMap<string, Through>;
  /** For a part on whose lines others hang: the lines that are outputs, and which of them rest high, as bits. */
  outs?: number;
  rests?: number;
  /** The lines on which others hang whose voltage it reads, as bits. */
  ins?: number;
  /** Something on its lines wants pulses of a length, 50 a second. */
  pulsed?: boolean;
  /** What the part itself runs on, nominal millivolts, where that is known. */
  supply_mV?: number;
  /** It is no part but something that the board sends to the computer. */
  usb?: { event: UsbEvent; takes: Takes };
  /** No controller is behind its bus's pins. */
  soft: boolean;
  /** Half the clock of a bus that the program times, microseconds. */
  halfClock_us?: number;
  /** Why no driver can work it as it is wired. */
  unworked?: Lack;
}

/** Longer than a few waves of the mains, which an open input follows. */
export const STEADY_MS = 300;

/** How long a part shows each thing that it is told in bring-up. */
export const SHOWN_MS = 700;

/** Chips that draw a large glass slowly. */
const SLOW = new Set<DriverPart["board"]["family"]>(["avr", "esp8266"]);
/** The same for a part that says otherwise; `quick_ms` where the chip is not slow. */
export const shownFor_ms = (proof: { ms?: number; quick_ms?: number }, p: DriverPart): number =>
  (SLOW.has(p.board.family) ? undefined : proof.quick_ms) ?? proof.ms ?? SHOWN_MS;

/** What it takes to know that a part works. */
export type Proof =
  /** Its own test decides: an identity, a reading that can be true. */
  | { kind: "test" }
  /** A person sees it; the part does its turn, then this is asked. `careful`: it does so only when it is asked for by its number. */
  | { kind: "seen"; question: string; careful?: string }
  /**
   * It changes when a person does something: the difference that counts, and for how long it must stay. An input on which
   * nothing hangs wanders by itself, but does not stay.
   */
  | { kind: "watch"; act: string; by: number; steady_ms: number }
  /** Nothing here can prove it. */
  | { kind: "unproven"; why: string };

/** Work that comes again: in steps of its own length, or after as many milliseconds as its expression gives. */
export type Task = { every_ms: number; body: string } | { turn: string };

/**
 * Code of one kind of part for the `sketch` target. `helpers` is emitted once for all parts of the kind; the other pieces
 * once a part. `show` fills `line` (a `char[22]`) with the part's reading for a display.
 */
export interface SketchDriver {
  helpers?: string;
  /** The same, for what only some parts of the kind need. */
  helpersFor?(p: DriverPart): string[];
  globals?(p: DriverPart): string;
  /** Variables that only the starter's tasks need. */
  state?(p: DriverPart): string;
  setup?(p: DriverPart): string;
  bringup?(p: DriverPart): string;
  /** For a part that is proven by watching: a whole number that changes when it is used. */
  watch?(p: DriverPart): string;
  /** A function body that runs every `every_ms` without blocking. */
  task?(p: DriverPart, all: DriverPart[]): Task | null;
  show?(p: DriverPart): string;
}

/** The same for MicroPython. `lib` is a module file that goes into `lib/`. */
export interface PythonDriver {
  lib?: { path: string; text: string };
  /** Modules that only some parts of the kind need. */
  libsFor?(p: DriverPart): { path: string; text: string }[];
  imports?: string[];
  importsFor?(p: DriverPart): string[];
  /** Its pins as objects of the program, and nothing else. */
  pins?(p: DriverPart): string;
  setup?(p: DriverPart): string;
  bringup?(p: DriverPart): string;
  watch?(p: DriverPart): string;
  task?(p: DriverPart, all: DriverPart[]): Task | null;
  show?(p: DriverPart): string;
}

/** What rules are made of, as a language writes it. */
export interface RuleCode {
  /** A quantity's whole number, as an expression. */
  value?(p: DriverPart, q: Quantity): string;
  /** Whether there is a reading, as an expression; always when absent. */
  fresh?(p: DriverPart): string;
  /** Told to be something. */
  tell?(p: DriverPart, value: string): string;
}

/** Everything that knows how to talk to one kind of part: one file, one registry line. */
export interface Driver {
  id: string;
  /** Bring-up order: supply, bus, identity, function. */
  order: number;
  /** Why this board can't work this part with it, or null. */
  unfit?(p: DriverPart): Lack | null;
  /** How a person or the program knows that the part works; by its test when this is absent. */
  proof?(p: DriverPart): Proof;
  /** What the part is told, and what it gives, for rules. */
  takes?(p: DriverPart): Takes | null;
  gives?(p: DriverPart): readonly Quantity[];
  /** It shows letters: what the other parts say goes there. */
  text?(p: DriverPart): Text | null;
  /** A memory card: a rule can write lines to it. */
  logs?(p: DriverPart): boolean;
  /** Without a rule it does something by itself. */
  lively?: boolean;
  rules?: { sketch: RuleCode; micropython: RuleCode };
  sketch?: SketchDriver;
  micropython?: PythonDriver;
}

export interface FirmwareTarget {
  id: string;
  name: string;
  says: string;
  /** Null when the target fits a board of the project, else why not. */
  unfit(c: Circuit): string | null;
  /** Why its programs do not work a part that they get, or null; absent: they work all that have a driver. */
  leaves?(p: DriverPart): Lack | null;
  /** Boards of the project that this target writes nothing for, with the reason. */
  without(c: Circuit): BoardWithout[];
  /** The programs of all boards that it fits; with several boards in the project, each in its own folder. */
  files(c: Circuit): FirmwareFile[];
}

/** A board that gets no program, and why. */
export interface BoardWithout {
  host: string;
  why: string;
}
