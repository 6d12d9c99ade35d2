import type { BusPart, Model } from "./types";

/** A part that sends by itself or when it was asked: what has come out of it up to now is heard once. */
function sender(o: {
  /** What comes out at a time, and when the next comes. */
  sends(now: number): readonly number[] | null;
  hears?(bytes: readonly number[], now: number): void;
  /** A whole frame as the port's reader hands it on. */
  frame(raw: readonly number[]): readonly number[];
}): BusPart {
  let waiting: readonly number[] | null = null;
  let taken: readonly number[] | null = null;
  const look = (now: number) => (waiting ??= o.sends(now));
  return {
    write(bytes, now) {
      o.hears?.(bytes, now);
      return true;
    },
    read(n, now) {
      const raw = look(now);
      if (n === 1) return [raw ? 1 : 0];
      waiting = null;
      taken = raw;
      return raw ? o.frame(raw) : null;
    },
    raw() {
      const last = taken;
      taken = null;
      return last;
    },
    serial(now) {
      const raw = look(now);
      waiting = null;
      return raw ?? [];
    },
  };
}
const big = (v: number) => [(v >> 8) & 255, v & 255];
const sum = (list: readonly number[]) => list.reduce((s, b) => s + b, 0);

/** PMS5003: BM, length 28, thirteen words, their sum. It sends every 0.9 s; the first words are for its works. */
export const pms5003: Model = {
  part: "module/pms5003",
  worlds: [
    { dust1: 5, dust25: 12, dust10: 21 },
    { dust1: 180, dust25: 300, dust10: 555 },
  ],
  within: { dust1: 0, dust25: 0, dust10: 0 },
  make(w) {
    let next = 700;
    return sender({
      sends(now) {
        if (now < next) return null;
        next = now + 900;
        const words = [28, 3, 9, 17, w.dust1!, w.dust25!, w.dust10!, 1200, 350, 60, 11, 4, 2, 0x9700];
        const body = [0x42, 0x4d, ...words.flatMap(big)];
        return [...body, ...big(sum(body))];
      },
      frame: (raw) => raw,
    });
  },
};

/** MH-Z19B: answers a question for its gas, and no other; what its data sheet leaves open is anything. */
export const mhz19b: Model = {
  part: "module/mhz19b",
  worlds: [{ co2_ppm: 612 }, { co2_ppm: 2431 }],
  within: { co2_ppm: 0 },
  make(w) {
    let due: number | null = null;
    return sender({
      hears(b, now) {
        const right = b.length === 9 && b[0] === 0xff && b[1] === 1 && b[2] === 0x86 && (sum(b.slice(1)) & 255) === 0;
        const zeros = b.slice(3, 8).every((x) => x === 0);
        if (right && zeros) due = now + 20;
      },
      sends(now) {
        if (due === null || now < due) return null;
        due = null;
        const body = [0x86, ...big(w.co2_ppm!), 0x3f, 0x40, 0x12, 0x34];
        return [0xff, ...body, (256 - (sum(body) & 255)) & 255];
      },
      frame: (raw) => raw,
    });
  },
};

const pad = (v: number, n: number) => String(v).padStart(n, "0");
/** Degrees and minutes to four places, as the sentences have them. */
const minutes = (degrees: number, n: number) => {
  const a = Math.abs(degrees);
  const m = Math.round((a % 1) * 60 * 1e4);
  return `${pad(Math.floor(a), n)}${pad(Math.floor(m / 1e4), 2)}.${pad(m % 1e4, 4)}`;
};
const checked = (text: string) => {
  const x = [...text].reduce((s, c) => s ^ c.charCodeAt(0), 0);
  return `$${text}*${x.toString(16).toUpperCase().padStart(2, "0")}\r\n`;
};
const ascii = (text: string) => [...text].map((c) => c.charCodeAt(0));
const four = (v: number) => [(v >> 24) & 255, (v >> 16) & 255, (v >> 8) & 255, v & 255];

/** A receiver for satellites: several sentences a second, one of them spoilt on the way. */
export const gps: Model = {
  part: "module/gps-neo6m",
  worlds: [
    { fix: 1, sats: 8, north: 52.51627, east: 13.37771, hour: 7, minute: 45, second: 38 },
    { fix: 1, sats: 11, north: -33.86, east: -151.2094, hour: 23, minute: 0, second: 5 },
    { fix: 0, sats: 0, north: 0, east: 0, hour: 1, minute: 2, second: 3 },
  ],
  within: { fix: 0, sats: 0, north: 0.00002, east: 0.00002, hour: 0, minute: 0, second: 0 },
  make(w) {
    let next = 300;
    const time = `${pad(w.hour!, 2)}${pad(w.minute!, 2)}${pad(w.second!, 2)}.00`;
    const place = w.fix
      ? `${minutes(w.north!, 2)},${w.north! < 0 ? "S" : "N"},${minutes(w.east!, 3)},${w.east! < 0 ? "W" : "E"}`
      : ",,,";
    const gga = (t: string, sats: number) => `GPGGA,${t},${place},${w.fix},${pad(sats, 2)},1.01,48.2,M,46.9,M,,`;
    return sender({
      sends(now) {
        if (now < next) return null;
        next = now + 1000;
        const spoilt = checked(gga("999999.00", 3)).replace("99", "98");
        return ascii(spoilt + checked(`GPRMC,${time},A,${place},0.0,,281126,,,A`) + checked(gga(time, w.sats!)));
      },
      frame: () => [
        w.fix!,
        w.sats!,
        w.hour!,
        w.minute!,
        w.second!,
        ...four(Math.round(w.north! * 1e5)),
        ...four(Math.round(w.east! * 1e5)),
      ],
    });
  },
};
