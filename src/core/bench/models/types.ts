/** What a part feels: by quantity, in the unit that its name ends with. */
export type World = Readonly<Record<string, number>>;

/** A part on a bus, as it answers by its data sheet; null or false: it does not acknowledge. `now` is in milliseconds. */
export interface BusPart {
  write(bytes: readonly number[], now: number): boolean;
  read(n: number, now: number): readonly number[] | null;
}

/** One kind of part, written from its data sheet alone: it shares nothing with what talks to it. */
export interface Model {
  part: string;
  /** Worlds that, taken together, show whether what talks to it is right: signs, small and large values. */
  worlds: readonly World[];
  /** How far what is read may be off, by quantity, for the part's own steps. */
  within: World;
  make(world: World): BusPart;
}
