import type { FaultKind, Weighted } from "../types";
import { beside, exchanged, sameNet, standing, told, wiredPins } from "../around";

/** Pairs that are taken for each other because of what they are called, and how much more often. */
const ALIKE: readonly (readonly [RegExp, RegExp, number, string])[] = [
  [/^(TX|TXD|TXO)$/, /^(RX|RXD|RXI)$/, 4, "Transmit must lead to receive: the two are crossed on purpose."],
  [/^SDA$/, /^SCL$/, 3, "Data and clock of the bus."],
  [/^(MOSI|DI|SDI|DIN|COPI)$/, /^(MISO|DO|SDO|DOUT|CIPO)$/, 3, "Data in and data out."],
  [/^(DIN|DI|IN|DATA)$/, /^(DOUT|DO|OUT)$/, 3, "Data in and data out."],
  [/^TRIG$/, /^ECHO$/, 2, "Trigger and echo."],
  [/^(CLK|SCK)$/, /^(DT|DATA|DIO)$/, 2, "Clock and data."],
];

const alike = (a: string, b: string) => ALIKE.find(([x, y]) => (x.test(a) && y.test(b)) || (x.test(b) && y.test(a)));
const label = (end: string) => end.slice(end.indexOf(".") + 1);

export const swapped: FaultKind = {
  id: "swapped",
  name: "two wires swapped",
  often: 0.5,
  because: "neighbours on a part, or two with names that sound alike",
  minutes: 1,
  find: (laid) =>
    standing(laid).flatMap((inst): Weighted[] => {
      if (inst.part.pins.length < 3) return [];
      const pins = wiredPins(laid, inst.ref);
      return pins.flatMap((a, i) =>
        pins.slice(i + 1).flatMap((b): Weighted[] => {
          const pair = inst.part.board ? undefined : alike(label(a), label(b));
          if (sameNet(laid, a, b) || (!pair && !beside(laid, a).includes(b))) return [];
          return [
            {
              id: `${a} ${b}`,
              at: [a, b],
              says: `The wires at ${told(laid, a)} and ${told(laid, b)} are swapped`,
              mend: `Exchange those two ends. ${pair?.[3] ?? ""}`.trim(),
              times: pair?.[2] ?? 1,
              change: exchanged(
                laid,
                new Map([
                  [a, b],
                  [b, a],
                ]),
              ),
            },
          ];
        }),
      );
    }),
};
