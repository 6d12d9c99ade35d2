/** Captures of logic analysers: read as they come, matched to the plan's nets, decoded and compared. */
import { csvReader } from "./read-csv";
import { vcdReader } from "./read-vcd";
import type { CaptureReader } from "./types";

export { compareCapture, type Compared } from "./compare";
export { matchChannels, type Match } from "./match";
export { busWaves, type Message } from "./bus-waves";
export { writeVcd } from "./write-vcd";
export type { Capture, CaptureReader, Channel } from "./types";

/** A reader for a file, by its beginning: a value change dump begins with a word behind a dollar sign. */
export const readerFor = (beginning: string): CaptureReader => (/^\s*\$/.test(beginning) ? vcdReader() : csvReader());
