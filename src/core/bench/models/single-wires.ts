import { low } from "./registers";
import type { Model, World } from "./types";

/** CRC of Dallas parts: x8 + x5 + x4 + 1, the low bit first. */
function crc(bytes: readonly number[]): number {
  let c = 0;
  for (const b of bytes)
    for (let k = 0; k < 8; k++) {
      const mix = (c ^ (b >> k)) & 1;
      c >>= 1;
      if (mix) c ^= 0x8c;
    }
  return c;
}

/** DS18B20 alone on its wire, left at 9 bits by another program: 750 ms a measurement at 12 bits, 85 degrees before the first. */
export const ds18b20: Model = {
  part: "module/ds18b20",
  worlds: [{ t_C: 21.4375 }, { t_C: -10.125 }, { t_C: 84.9375 }],
  within: { t_C: 0.01 },
  make(w) {
    let set = [0x00, 0x05, 0x1f];
    let held = 0x0550;
    let done: number | null = null;
    let asked = false;
    let dipped = false;
    const measure = (now: number) => {
      // Its supply dips once in the middle of a measurement: it begins anew.
      if (!dipped && now > 4000 && done !== null) {
        dipped = true;
        set = [0x4b, 0x46, 0x7f];
        held = 0x0550;
        done = null;
      }
      if (done === null || now < done) return;
      const cut = 3 - ((set[2]! >> 5) & 3);
      held = (Math.round(w.t_C! * 16) >> cut) << cut;
      done = null;
    };
    return {
      write(bytes, now) {
        measure(now);
        asked = false;
        if (bytes[0] !== 0xcc) return true;
        if (bytes[1] === 0x44) done = now + 750 / 2 ** (3 - ((set[2]! >> 5) & 3));
        if (bytes[1] === 0x4e && bytes.length === 5) set = bytes.slice(2);
        asked = bytes[1] === 0xbe;
        return true;
      },
      read(n, now) {
        measure(now);
        const data = [...low(held), ...set, 0xff, 0x0c, 0x10];
        return asked ? [...data, crc(data)].slice(0, n) : Array<number>(n).fill(0xff);
      },
    };
  },
};

/** What answers once the line was held low as long as it asks, at most so often; asked too soon it tells its last reading. */
function answering(a: {
  held_ms: [least: number, most: number];
  every_ms: number;
  /** When it measured last as it starts. */
  since_ms: number;
  soon: number[];
  data(): number[];
}): ReturnType<Model["make"]> {
  let low_at: number | null = null;
  let last = a.since_ms;
  return {
    write(_b, now) {
      low_at = now;
      return true;
    },
    read(_n, now) {
      const held = low_at === null ? 0 : now - low_at;
      low_at = null;
      if (held < a.held_ms[0] || held > a.held_ms[1]) return null;
      const soon = now - last < a.every_ms;
      last = now;
      if (soon) return a.soon;
      const data = a.data();
      return [...data, data.reduce((s, x) => s + x, 0) & 0xff];
    },
  };
}

/** DHT11: answers after a low of 18 ms at least, at most every second, from a second after power-on; tenths behind whole numbers. */
export const dht11: Model = {
  part: "module/dht11",
  worlds: [
    { t_C: 21, rh_pct: 48 },
    // Its sum has the bit that stands for the sign elsewhere.
    { t_C: 45.4, rh_pct: 90 },
    { t_C: -5.2, rh_pct: 35 },
  ],
  within: { t_C: 0.001, rh_pct: 0.001 },
  make(w) {
    return answering({
      held_ms: [18, 30],
      every_ms: 1000,
      since_ms: 0,
      soon: [50, 0, 10, 0, 60],
      data: () => {
        const tenths = Math.round(Math.abs(w.t_C!) * 10);
        const rh = Math.round(w.rh_pct! * 10);
        return [Math.floor(rh / 10), rh % 10, Math.floor(tenths / 10), (tenths % 10) | (w.t_C! < 0 ? 0x80 : 0)];
      },
    });
  },
};

/** DHT22: answers after a low of a millisecond, at most every two seconds, from a second after power-on; sign and size apart. */
export const dht22: Model = {
  part: "module/dht22",
  worlds: [
    { t_C: 21.3, rh_pct: 48.7 },
    { t_C: -10.1, rh_pct: 91.2 },
    { t_C: 30.5, rh_pct: 7.4 },
  ],
  within: { t_C: 0.001, rh_pct: 0.001 },
  make(w) {
    return answering({
      held_ms: [1, 20],
      every_ms: 2000,
      since_ms: -1000,
      soon: [1, 244, 0, 100, 1 + 244 + 100 - 256],
      data: () => {
        const t = Math.round(Math.abs(w.t_C!) * 10) | (w.t_C! < 0 ? 0x8000 : 0);
        return [...low(Math.round(w.rh_pct! * 10)).reverse(), ...low(t).reverse()];
      },
    });
  },
};

/** HX711, ten a second, settled after 400 ms: data low while a conversion waits, its 24 bits in two's complement. */
export const hx711: Model = {
  part: "module/hx711",
  worlds: [{ raw: 123_456 }, { raw: -98_765 }, { raw: 1 }, { raw: -8_000_000 }],
  within: { raw: 0, m: 2 },
  // Calibrated: a straight line through both of its points.
  feels(w, { options: o }): World {
    const [zero, loaded, weight] = [o?.zero, o?.loaded, o?.weight_g].map((v) => Number(v ?? 0)) as [
      number,
      number,
      number,
    ];
    return weight ? { m: ((w.raw! - zero) / (loaded - zero)) * weight } : { raw: w.raw! };
  },
  make(w) {
    let next = 400;
    return {
      write: () => true,
      read(n, now) {
        if (n === 1) return [now >= next ? 1 : 0];
        if (now < next) return Array<number>(n).fill(0xff);
        next = now + 100;
        return low(w.raw!, 3).reverse();
      },
    };
  },
};
