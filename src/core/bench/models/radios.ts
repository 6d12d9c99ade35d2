import { onSpi } from "./on-spi";
import type { Model } from "./types";

/** NRF24L01: it hears nothing for 100 ms after power-on; reading answers its status first. Another program left packets in it. */
export const nrf24l01: Model = {
  part: "module/nrf24l01",
  worlds: [{ channel: 76, status: 0x0e }],
  within: { channel: 0, status: 0 },
  make() {
    const file = new Map([
      [0x00, 0x08],
      [0x05, 2],
      [0x06, 0x0f],
      [0x07, 0x4e],
      [0x17, 0x00],
    ]);
    let up = Infinity;
    const status = () => file.get(0x07)!;
    return onSpi({
      reply(heard, now) {
        if (now < 100) return 0xff;
        if (!heard.length) return status();
        const c = heard[0]!;
        if (c >> 5 !== 0) return 0;
        // Powered up, at 1 Mbit/s and 0 dBm, on air rates that the other side has as well.
        if (now < up + 4.5) return 0;
        const well = (file.get(0x00)! & 0x0b) === 0x0b && file.get(0x06) === 0x06;
        return well ? (file.get(c & 0x1f) ?? 0) : 0;
      },
      end(heard, now) {
        if (now < 100 || !heard.length) return;
        const [c, v] = heard as [number, number];
        if (c === 0xe1) file.set(0x17, file.get(0x17)! | 0x10);
        else if (c === 0xe2) file.set(0x17, file.get(0x17)! | 0x01);
        else if (c >> 5 === 1) {
          if ((c & 0x1f) === 0x07) file.set(0x07, 0x0e | (status() & 0x70 & ~v));
          else file.set(c & 0x1f, v);
          // Its crystal takes up to 4.5 ms.
          if ((c & 0x1f) === 0 && v & 2) up = Math.min(up, now);
        }
      },
    });
  },
};

/** RFM95: needs a reset first here; goes over to LoRa only while asleep. Strength is register value less 157 (upper bands). */
export const rfm95: Model = {
  part: "module/rfm95",
  worlds: [{ air_dBm: -92 }, { air_dBm: -41 }],
  within: { air_dBm: 0 },
  make(w, as) {
    // A sender on one channel of each band.
    const hz0 = { "868": 868.1e6, "915": 915e6, "433": 433.175e6 }[String(as.options?.band ?? 868)]!;
    let low = Infinity;
    let up = Infinity;
    let file = new Map<number, number>();
    const awake = (now: number) => now >= up + 5;
    return onSpi(
      {
        reply(heard, now) {
          if (!awake(now) || !heard.length) return 0;
          const r = (heard[0]! & 0x7f) + heard.length - 1;
          if (r === 0x42) return 0x12;
          if (r === 0x1b) {
            const f = (file.get(6)! << 16) | (file.get(7)! << 8) | file.get(8)!;
            const hz = (f * 32e6) / 2 ** 19;
            // Only a receiver in its band hears something, and only after it has settled.
            const hears = file.get(1) === 0x85 && Math.abs(hz - hz0) < 31 && now >= (file.get(-1) ?? Infinity) + 5;
            return hears ? w.air_dBm! + 157 : 0;
          }
          return file.get(r) ?? 0;
        },
        end(heard, now) {
          if (!awake(now) || !(heard[0]! & 0x80)) return;
          heard.slice(1).forEach((v, i) => {
            const r = (heard[0]! & 0x7f) + i;
            const mode = file.get(1) ?? 0x09;
            if (r !== 1) file.set(r, v);
            // The bit of LoRa changes asleep only.
            else if ((v ^ mode) & 0x80 && ((mode & 7) !== 0 || (v & 7) !== 0)) file.set(1, (v & 0x7f) | (mode & 0x80));
            else file.set(1, v);
            if (r === 1 && (v & 7) === 5) file.set(-1, now);
          });
        },
      },
      {
        pin(label, level, now) {
          if (label !== "RST") return;
          if (level === 0) {
            low = now;
            up = Infinity;
          } else if (now - low >= 0.1) {
            up = now;
            file = new Map();
          }
        },
      },
    );
  },
};
