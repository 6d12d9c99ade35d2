import type { BusPart } from "../../src/core/bench/models/types";
import type { Reply, WirePart } from "./types";

/** An SPI part between its four lines, in one of the four modes: the highest bit first. */
export function onWiresSpi(
  part: BusPart,
  pins: Readonly<Partial<Record<"cs" | "sck" | "mosi" | "miso", string>>>,
  mode: number,
  beside: readonly string[],
): WirePart {
  const spi = part.spi!;
  const late = (mode & 1) === 1;
  const idle = mode >> 1;
  // Without a select line it hears every byte.
  const bare = !pins.cs;
  let selected = bare;
  let mosi = 0;
  let clock = idle;
  let heard: number[] = [];
  let bits: number[] = [];
  let out: number[] = [];
  let woken = 0;
  const put = (us: number): Reply[] => {
    if (!pins.miso) return [];
    if (!out.length) {
      const byte = spi.reply(heard, us / 1000) & 0xff;
      out = [7, 6, 5, 4, 3, 2, 1, 0].map((k) => (byte >> k) & 1);
    }
    return [{ line: pins.miso, level: out.shift() as 0 | 1 }];
  };
  const take = (us: number) => {
    bits.push(mosi);
    if (bits.length < 8) return;
    heard.push(bits.reduce((s, b) => s * 2 + b, 0));
    bits = [];
    if (!bare) return;
    spi.end(heard, us / 1000);
    heard = [];
  };
  return {
    hears: [...(pins.cs ? [pins.cs] : []), pins.sck!, ...(pins.mosi ? [pins.mosi] : []), ...beside],
    start: () => [],
    change(line, level, us) {
      if (line === pins.mosi) mosi = level;
      else if (pins.cs && line === pins.cs) {
        if (level && selected) {
          // Bits that are no whole byte would shift everything: they count as one, and spoil it.
          if (bits.length) heard.push(0xee);
          spi.end(heard, us / 1000);
        }
        selected = level === 0;
        heard = [];
        bits = [];
        out = [];
        if (selected && clock !== idle) heard.push(0xee);
        if (selected && !late) return put(us);
      } else if (line === pins.sck && level !== clock) {
        clock = level;
        const leading = level !== idle;
        if (!selected) {
          if (leading && mosi) woken++;
          return [];
        }
        if (spi.wakes && woken < spi.wakes) throw new Error(`${woken} clocks before it was selected`);
        if (leading !== late) take(us);
        // After the last bit the first of the next byte would come: it is not asked of the part before it is clocked.
        else if (late || bits.length || heard.length) return put(us);
      } else part.pin?.(line, level, us / 1000);
      return [];
    },
  };
}
