import { levelAt, type Channel } from "../types";

/** What was said after one reset: the bytes in their order, whether a part answered the reset. */
export interface OneWireTalk {
  at: number;
  present: boolean;
  bytes: number[];
  /** Bits left over that make no byte, as when a search asks for codes. */
  odd: number;
}

export interface OneWireHeard {
  talks: OneWireTalk[];
  idle: 0 | 1;
  /** Resets that were shorter than parts want, though meant as such. */
  short: number;
}

/** Low times at standard speed, seconds: a reset, one that is too short for it, the answer to it, and up to where a slot is a one. */
const RESET_S = 480e-6;
const NEARLY_S = 240e-6;
const ANSWER_S = { within: 65e-6, least: 50e-6, most: 260e-6 };
const ONE_S = 16e-6;
/** A line that rests low for so long is no reset any more. */
const STUCK_S = 5e-3;
/** Timed by programs and sampled by analysers: so much less still counts. */
const SLACK = 0.95;
const MOST_TALKS = 20_000;

/** Hears a one-wire line: resets with or without an answer, then slots of bits, lowest bit first. */
export function hearOneWire(line: Channel): OneWireHeard {
  const talks: OneWireTalk[] = [];
  let bits: number[] = [];
  let short = 0;
  /** When the line was let go after the last reset; an answer may follow. */
  let reset: number | null = null;
  const close = () => {
    const talk = talks.at(-1);
    if (talk) {
      for (let i = 0; i + 8 <= bits.length; i += 8)
        talk.bytes.push(bits.slice(i, i + 8).reduce((v, b, k) => v | (b << k), 0));
      talk.odd = bits.length % 8;
    }
    bits = [];
  };
  for (let k = 0; k + 1 < line.at.length; k++) {
    if (line.to[k] !== 0) continue;
    const [down, up] = [line.at[k]!, line.at[k + 1]!];
    const low = up - down;
    if (low >= RESET_S * SLACK && low < STUCK_S) {
      close();
      if (talks.length === MOST_TALKS) break;
      talks.push({ at: down, present: false, bytes: [], odd: 0 });
      reset = up;
    } else if (reset !== null && down - reset <= ANSWER_S.within && low >= ANSWER_S.least && low <= ANSWER_S.most) {
      talks.at(-1)!.present = true;
      reset = null;
    } else if (low > NEARLY_S && low < RESET_S) short++;
    else if (talks.length && low < STUCK_S) {
      bits.push(low <= ONE_S ? 1 : 0);
      reset = null;
    }
  }
  close();
  return { talks, idle: levelAt(line, Infinity), short };
}
