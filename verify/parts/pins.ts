import type { BusPart } from "../../src/core/bench/models/types";
import type { OutPin } from "../../src/core/firmware/links";
import type { Reply, WirePart } from "./types";

/** Supply of the board's converter, millivolts. */
const FULL_MV = 5000;

/** A part at plain pins: what the program drives goes to it as its list of bytes, what it gives comes as levels and voltages. */
export function onPins(
  part: BusPart,
  outs: readonly OutPin[],
  ins: readonly { line: string; analogue: boolean }[],
  rests: ReadonlyMap<string, 0 | 1>,
): WirePart {
  const bytes = new Map<string, number[]>(
    outs.map((o) => [
      o.pin,
      o.as === "pulse" || o.as === "tone" ? [0, 0] : [o.as === "switch" ? 0 : (rests.get(o.pin) ?? 0)],
    ]),
  );
  const rose = new Map<string, number>();
  const feel = (us: number): Reply[] => {
    if (!ins.length) return [];
    const got = part.read(2 * ins.length, us / 1000)!;
    return ins.map(({ line, analogue }, i) => {
      const v = (got[2 * i]! << 8) | got[2 * i + 1]!;
      return analogue ? { line, mV: Math.ceil((v >> 6) * (FULL_MV / 1023)) } : { line, level: v as 0 | 1 };
    });
  };
  const tell = (us: number) => part.write([...bytes.values()].flat(), us / 1000);
  const first = ins[0]?.line;
  return {
    hears: outs.map((o) => o.pin),
    start: () => (tell(0), [...feel(0), ...(first ? [{ line: first, look_us: 1000 }] : [])]),
    look: (line, _v, us) => [...feel(us), { line, look_us: 1000 }],
    change(line, level, us) {
      const o = outs.find((x) => x.pin === line)!;
      if (o.as === "pulse") {
        if (level) rose.set(line, us);
        else if (rose.has(line)) {
          const wide = Math.round(us - rose.get(line)!);
          bytes.set(line, [wide >> 8, wide & 255]);
        }
      } else if (o.as === "switch") bytes.set(line, [level === (rests.get(line) ?? 0) ? 0 : 1]);
      else if (o.as === "level") bytes.set(line, [level]);
      else return [];
      tell(us);
      return feel(us);
    },
    pulsed(line, Hz, duty, us) {
      const o = outs.find((x) => x.pin === line)!;
      const wide = Math.round((duty / 65536) * (1e6 / Hz));
      if (o.as === "pulse") bytes.set(line, [wide >> 8, wide & 255]);
      else if (o.as === "tone") bytes.set(line, duty ? [Hz >> 8, Hz & 255] : [0, 0]);
      else bytes.set(line, [Math.round(duty / 257)]);
      tell(us);
    },
  };
}
