import type { BusPart, Model, World } from "./types";

const SEGMENTS: Record<number, string> = {
  0x3f: "0",
  0x06: "1",
  0x5b: "2",
  0x4f: "3",
  0x66: "4",
  0x6d: "5",
  0x7d: "6",
  0x07: "7",
  0x7f: "8",
  0x6f: "9",
  0x40: "-",
  0x00: " ",
};
const shown = (text: string) => ({ shows: /^ *-?\d+ *$/.test(text) && !/-0/.test(text) ? Number(text) : NaN });
const numbers = (list: number[]) => () => list.map((v) => [v, { shows: v }] as const);

/** HT16K33: rubbish in its memory, clock off, dark; digits at 0, 2, 6 and 8, the colon at 4. */
export const ht16k33: Model = {
  part: "module/ht16k33-digits",
  worlds: [{}],
  within: { shows: 0 },
  wants: numbers([0, 7, -7, 42, -42, 1234, -999, 9999, 10, 100, 1000, -10, -100]),
  make() {
    const file = Array<number>(16).fill(0x55);
    let clock = false;
    let on = false;
    let bright = 15;
    let flashed = false;
    return {
      write(bytes) {
        const c = bytes[0]!;
        if (c < 0x10) bytes.slice(1).forEach((v, i) => (file[(c + i) % 16] = v));
        else if (c >> 4 === 2) clock = (c & 1) === 1;
        else if (c >> 4 === 8) {
          on = (c & 7) === 1;
          // What stood in its memory shows the moment it is switched on.
          flashed ||= file.some((v) => v !== 0);
        } else if (c >> 4 === 14) bright = c & 15;
        return true;
      },
      read: () => null,
      is: () => {
        const rest = [1, 3, 4, 5, 7, 9, 10, 11, 12, 13, 14, 15].every((i) => file[i] === 0);
        const text = [0, 2, 6, 8].map((i) => SEGMENTS[file[i]!] ?? "?").join("");
        return clock && on && !flashed && bright < 12 && rest ? shown(text) : { shows: NaN };
      },
    };
  },
};

/** HD44780 by four bits: what stands on its lines at the fall of E. It may be left in the middle of a byte by another program. */
function controller(columns = 16, starts: readonly number[] = [0, 64]) {
  let four = false;
  let half: number | null = null;
  let first = 0;
  let steps: { v: number; at: number }[] = [];
  let busy = 40;
  let twoLines = false;
  let on = false;
  let right = false;
  let broken = false;
  let place = 0;
  const memory = Array<string>(128).fill("?");
  const command = (v: number, now: number) => {
    if (now < busy) broken = true;
    busy = now + (v < 4 ? 1.52 : 0.037);
    if (v & 0x80) place = v & 0x7f;
    else if (v & 0x20) twoLines = (v & 8) !== 0 && (v & 0x10) === 0;
    else if (v & 0x08) on = (v & 7) === 4;
    else if (v & 0x04) right = (v & 3) === 2;
    else if (v & 0x01) {
      memory.fill(" ");
      place = 0;
    }
  };
  return {
    /** E falls. */
    take(rs: number, bits: number, now: number) {
      if (Number.isNaN(rs)) broken = true;
      if (!four) {
        // Still by eight bits: only the upper four are wired.
        const last = steps.at(-1);
        if (now < 40) broken = true;
        if (last && last.v === 3 && now - last.at < (steps.length === 1 ? 4.1 : 0.1)) broken = true;
        steps = [...steps, { v: bits, at: now }];
        if (rs) broken = true;
        if (bits === 2) {
          if (steps.slice(0, -1).filter((s) => s.v === 3).length < 3) broken = true;
          four = true;
          busy = now + 0.037;
        } else if (bits !== 3) broken = true;
        return;
      }
      if (half === null) {
        half = bits;
        first = rs;
        return;
      }
      // Both halves go to one register.
      if (rs !== first) broken = true;
      const v = (half << 4) | bits;
      half = null;
      if (!rs) command(v, now);
      else {
        if (now < busy) broken = true;
        busy = now + 0.037;
        memory[place] = String.fromCharCode(v);
        place++;
      }
    },
    is: () => {
      const row = (i: number) => memory.slice(starts[i], starts[i]! + columns).join("");
      const first = row(0);
      // What bring-up writes into the others.
      const alphabet = "abcdefghijklmnopqrstuvwxyz".slice(0, columns - 2);
      const letters = starts.every((_, i) => i === 0 || row(i) === `${i + 1} ${alphabet}`);
      return { ...(!broken && twoLines && on && right ? shown(first) : { shows: NaN }), letters: Number(letters) };
    },
  };
}
const LONG = [
  0, 7, -7, 42, -42, 12_345_678, -1_234_567, 10, 100, 1000, 10_000, 100_000, 1_000_000, 10_000_000, -10, -100, -1000,
  -10_000, -100_000, -1_000_000,
];

/** Behind a PCF8574: RS, RW, E, light, D4 to D7 from bit 0. The bus alone takes longer over a byte than the display. */
const glassI2c = (part: string, columns: number, starts: readonly number[]): Model => ({
  part,
  worlds: [{}],
  within: { shows: 0, light: 0, letters: 0 },
  wants: () => LONG.map((v) => [v, { shows: v, light: 1, letters: 1 }] as const),
  make(): BusPart {
    const lcd = controller(columns, starts);
    let last = 0;
    // What the bus has taken so far, which comes on top of the program's waits.
    let us = 0;
    return {
      write(bytes, now) {
        for (const b of bytes) {
          // Nine bits at 400 kHz, the fastest that it takes.
          us += 0.0225;
          // What is taken at the fall has stood on the lines before.
          if (last & 4 && !(b & 4)) lcd.take(last === (b | 4) ? b & 1 : NaN, b >> 4, now + us);
          last = b;
        }
        return true;
      },
      read: () => null,
      is: () => ({ ...lcd.is(), light: (last >> 3) & 1 }),
    };
  },
});
export const lcdI2c = glassI2c("module/lcd1602-i2c", 16, [0, 64]);
/** Four rows: the places of two rows of forty, cut in the middle. */
export const lcd2004 = glassI2c("module/lcd2004-i2c", 20, [0, 64, 20, 84]);

/** By plain pins: RS, E, D4 to D7. */
export const lcdParallel: Model = {
  part: "module/lcd1602-parallel",
  worlds: [{}],
  within: { shows: 0, letters: 0 },
  wants: () => LONG.map((v) => [v, { shows: v, letters: 1 }] as const),
  make(): BusPart {
    const lcd = controller();
    let e = 0;
    let stood = "";
    return {
      write([rs, now_e, ...data], now) {
        const lines = [rs, ...data].join("");
        // What is taken at the fall has stood on the lines before.
        if (e && !now_e)
          lcd.take(
            lines === stood ? rs! : NaN,
            data.reduce((s, b, i) => s + (b << i), 0),
            now,
          );
        e = now_e!;
        stood = lines;
        return true;
      },
      read: () => null,
      is: () => lcd.is(),
    };
  },
};

/** PCA9685: 25 MHz over 4096 and its divider; a change of the divider counts only asleep, and it runs 0.5 ms after waking. */
export const pca9685: Model = {
  part: "module/pca9685",
  worlds: [{}],
  within: { angle_deg: 0.65, let_out: 0, Hz: 0.02 },
  wants({ outs, rests = 0, pulsed }) {
    if (!outs) return [-1, 0, 90, 180, 37].map((v) => [v, { angle_deg: v, let_out: 1 }] as const);
    // One output after the other, with what the others were told before.
    const lanes = [...Array(16).keys()].filter((k) => outs & (1 << k));
    const now = new Map(lanes.map((k) => [`on_${k}`, rests & (1 << k) ? 4096 : 0]));
    return [307, 4096, 1, 0, 2457, 4095].flatMap((on) =>
      lanes.map((k) => {
        now.set(`on_${k}`, on);
        return [k * 8192 + on, { ...Object.fromEntries(now), let_out: 1, Hz: pulsed ? 50.03 : 1017.25 }] as const;
      }),
    );
  },
  make(_, { outs = 0 }): BusPart {
    const file = new Map<number, number>([
      // Awake, left by another program.
      [0x00, 0x21],
      [0xfe, 0x1e],
      [0xfc, 0x33],
      [0xfd, 0x01],
    ]);
    let pointer = 0;
    let out = 0;
    let woke = -1;
    let jumped = false;
    /** How many of 4096 counts an output is high: off wins over on. */
    const counts = (k: number) => {
      const at = (r: number) => ((file.get(6 + 4 * k + r + 1) ?? 0) << 8) | (file.get(6 + 4 * k + r) ?? 0);
      const [on, off] = [at(0), at(2)];
      return off & 0x1000 ? 0 : on & 0x1000 ? 4096 : (off - on) & 0xfff;
    };
    return {
      pin(label, level) {
        if (label !== "OE") return;
        out = 1 - level;
        // What another program left must not come out.
        if (out && !(file.get(0xfd)! & 0x10)) jumped = true;
      },
      write(bytes, now) {
        pointer = bytes[0]!;
        bytes.slice(1).forEach((v, i) => {
          const r = i === 0 || file.get(0)! & 0x20 ? pointer + i : pointer;
          if (r === 0xfe && !(file.get(0)! & 0x10)) return;
          if (r === 0 && file.get(0)! & 0x10 && !(v & 0x10)) woke = now;
          if (r === 0 && v & 0x10) woke = Infinity;
          // All outputs at once can only be written, and only while it is awake.
          if (r >= 0xfa && r <= 0xfd && now < woke + 0.5) return;
          file.set(r, v);
          // All outputs at once are each of them.
          if (r >= 0xfa && r <= 0xfd) for (let k = 0; k < 16; k++) file.set(6 + 4 * k + r - 0xfa, v);
        });
        return true;
      },
      read: (n) => Array.from({ length: n }, (_, i) => file.get(pointer + i) ?? 0),
      is: (): World => {
        const off = ((file.get(0xfd) ?? 0) << 8) | (file.get(0xfc) ?? 0);
        const from = ((file.get(0xfb) ?? 0) << 8) | (file.get(0xfa) ?? 0);
        const Hz = 25e6 / 4096 / (file.get(0xfe)! + 1);
        const us = ((off - from) / 4096 / Hz) * 1e6;
        const asleep = (file.get(0)! & 0x10) !== 0;
        const angle_deg = off & 0x1000 ? -1 : asleep || from || jumped ? NaN : (us - 1000) * 0.18;
        if (!outs) return { angle_deg, let_out: out };
        return {
          ...Object.fromEntries([...Array(16).keys()].map((k) => [`on_${k}`, asleep || jumped ? NaN : counts(k)])),
          let_out: out,
          Hz,
        };
      },
    };
  },
};
