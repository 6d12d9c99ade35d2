/** An output pin as a device writes it: bytes in the order of the list. */
export interface OutPin {
  pin: string;
  /**
   * `switch`: one byte, 1 is away from the resting level, so that a part that is on while low needs no other program.
   * `level`: one byte, 1 is high. `duty`: one byte, 255 is always on. `pulse`: two bytes, microseconds of a high that comes again and again.
   * `tone`: two bytes, hertz, 0 is silence.
   */
  as: "switch" | "level" | "duty" | "pulse" | "tone";
  /** How often pulses come, where that is not 50 times a second. */
  Hz?: number;
}

/** How a part is reached. What goes over it is bytes, whatever the wires. */
export type Over =
  | { kind: "i2c" }
  /**
   * Its pins and its mode are those of the part's group. `idle`: what goes out while bytes come in, 0 when absent;
   * an answer then begins with the first of eight bytes that is not the same. `wake`: so many
   * bytes of clock that it needs before it is selected for the first time. `picture`: bytes of one picture, where they are many.
   */
  | { kind: "spi"; idle?: 0xff; wake?: number; picture?: number }
  | { kind: "onewire"; pin: string }
  /** One wire, the part answers with pulses of two lengths after the wire was held low: DHT22 and its kin. */
  | { kind: "pulses"; pin: string }
  /** Data that is clocked out, with so many clocks more to say what to measure next. One byte: whether it is ready. */
  | { kind: "clocked"; data: string; clock: string; more: number }
  /** A receiver of infrared light from a remote control: how many codes have come, whether the key is held, its remote, the key. */
  | { kind: "infrared"; pin: string }
  /** A pulse out, and how long its echo keeps another line high: two bytes, microseconds, 0 for none. */
  | { kind: "echo"; out: string; back: string }
  /** A shift register: bytes are clocked in or out, then taken over by a pulse of the latch. */
  | { kind: "shift"; data: string; clock: string; latch: string; way: "in" | "out" }
  /**
   * A serial port: frames of one length that begin alike, or the sentence of a receiver for satellites, as 13 bytes. One byte
   * tells whether a frame has come. `any`: three bytes, how many have come, the last of them, and nothing.
   */
  | { kind: "uart"; frame: { start: readonly number[]; n: number } | { sentence: "GGA" } | "any" }
  /** Sound as numbers, one channel of it: three bytes, how far its samples reach within some milliseconds, of 2^24. */
  | { kind: "i2s"; right: boolean }
  /** Keys on crossing lines: a bit for each, row by row, 1 is pressed; the first byte has the first rows. */
  | { kind: "matrix"; rows: readonly string[]; columns: readonly string[] }
  /** Plain pins: each input is two bytes, 0 or 1, or the voltage as a share of 65536. */
  | { kind: "pins"; out?: readonly OutPin[]; in?: readonly string[] };
