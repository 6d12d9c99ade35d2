import { again, each, work, write } from "./steps";
import type { DeviceKind, Wired } from "./types";

/** Of 31 steps of brightness, and of 255 of colour, as many as the cap that the supply was planned for allows. */
function dimmed(w: Wired) {
  const cap = Math.min(1, Math.max(0, Number(w.options.brightness ?? 1)));
  const steps = Math.max(1, Math.floor(31 * cap));
  return { steps, colour: Math.min(255, Math.floor((255 * 31 * cap) / steps)) };
}
/** Which of blue, green and red are lit, by the brightest colour that was planned for. */
const LIT: Record<string, readonly [number, number, number]> = { white: [1, 1, 1], two: [0, 1, 1], one: [0, 1, 0] };

/** A strip with a clock: 32 zeros, then four bytes for each light, then as many clocks as the last one is late. Lights from the first on. */
export const apa102: DeviceKind = {
  id: "module/apa102-strip",
  cases: [
    { vars: { pixels: 5 }, options: { pixels: 5 } },
    { vars: { pixels: 40 }, options: { pixels: 40, brightness: 0.02, colour: "one" } },
  ],
  of(w) {
    const n = Math.round(w.vars.pixels ?? Number(w.options.pixels ?? 1));
    const { steps, colour } = dimmed(w);
    const [blue, green, red] = LIT[String(w.options.colour ?? "white")] ?? LIT.white!;
    return {
      id: "module/apa102-strip",
      over: { kind: "spi" },
      begin: [],
      read: [
        write(0, 0, 0, 0),
        each(
          "i",
          n,
          work("on", `i < want ? ${colour} : 0`),
          again(1, 0xe0 | steps, `on * ${blue}`, `on * ${green}`, `on * ${red}`),
        ),
        again(4 + Math.ceil(n / 16), 0),
      ],
      every: 50,
      out: [],
      takes: { word: "lights", unit: "", digits: 0, range: [0, n], rest: 0, on: n },
      proof: {
        kind: "seen",
        show: [Math.ceil(n / 2), n, 0],
        question: "Were half of them lit, then all, then none?",
        ...(n > 100 && { ms: 700 + 10 * n }),
      },
    };
  },
};
