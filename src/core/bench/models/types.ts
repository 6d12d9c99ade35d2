/** What a part feels: by quantity, in the unit that its name ends with. */
export type World = Readonly<Record<string, number>>;

/** A part on SPI, byte by byte: what it sends beside the next one, and what it does when it is let go. */
export interface SpiPart {
  /** So many clocks, with ones on its data, it needs before it is selected for the first time; wire by wire. */
  wakes?: number;
  /** `heard`: the bytes that came since it was selected. */
  reply(heard: readonly number[], now: number): number;
  end(heard: readonly number[], now: number): void;
}

/** A part as it answers by its data sheet; null or false: it does not acknowledge. `now` is in milliseconds. */
export interface BusPart {
  write(bytes: readonly number[], now: number): boolean;
  read(n: number, now: number): readonly number[] | null;
  /** Bytes out and bytes in as one message, where that is something else than one after the other. */
  ask?(bytes: readonly number[], n: number, now: number): readonly number[] | null;
  /** A pin of its own beside the bus. */
  pin?(label: string, level: 0 | 1, now: number): void;
  /** What it does in the world, for a part that acts. */
  is?(now: number): World;
  /** What a serial part has sent since it was last heard. */
  serial?(now: number): readonly number[];
  /** What came over the line for the last frame that was read; told once. */
  raw?(): readonly number[] | null;
  /** The same part wire by wire. */
  spi?: SpiPart;
}

/** How a part is wired and set, where that counts. */
export interface As {
  chain?: number;
  options?: Readonly<Record<string, string | number>>;
  /** Its lines that are outputs for others, and which of them rest high, as bits. */
  outs?: number;
  rests?: number;
  /** Something on its lines wants pulses. */
  pulsed?: boolean;
  /** Its pin gets pulses: so much of full power, as a byte. */
  dims?: "pulses" | "none";
  /** What a memory card holds, by block of 512 bytes; what is not there is zeros. */
  blocks?: Map<number, Uint8Array>;
}

/** One kind of part, written from its data sheet alone: it shares nothing with what talks to it. */
export interface Model {
  part: string;
  /** Worlds that, taken together, show whether what talks to it is right: signs, small and large values. */
  worlds: readonly World[];
  /** How far what is read, or what it does, may be off, by quantity, for the part's own steps. */
  within: World;
  /** For a part that acts: what it is told, and what it then does. */
  wants?(as: As): readonly (readonly [number, World])[];
  /** What of a world reaches the part as it is wired; all when absent. */
  feels?(world: World, as: As): World;
  /** Readings count from then on, ms: the part has to be moved first. */
  settles?: number;
  /** How long it takes until it does what it is told, ms, where that is more than a moment. */
  acts?: number;
  make(world: World, as: As): BusPart;
}
