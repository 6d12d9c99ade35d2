/** Projects that the cases of several rules are made of. */
import { ADAPTER12, ADAPTER5, AVR, CABLE, led, make, part, RP, USB, type Links } from "./build";

export const one = (board: object, ohm: number | null, id = "discrete/led-red", pin = "D7") =>
  make([board, USB, led("D1", ohm, id)], [CABLE, ["D1.A", `B1.${pin}`], ["D1.K", "B1.GND"]]);

export const rail = (ohm: number) => make([AVR, USB, led("D1", ohm)], [CABLE, ["D1.A", "B1.5V"], ["D1.K", "B1.GND"]]);

/** A pump on its own 5 V, switched by a transistor. */
export interface Stage {
  board?: object;
  q: string;
  legs: [string, string, string];
  q_with?: object;
  load?: object;
  flyback?: object | null;
  links?: Links;
  supply?: object;
  rail?: string;
}

export const pump = (ref = "MT1") => part(ref, "discrete/pump-5v");

export function stage(s: Stage) {
  const [control, high, low] = s.legs;
  const board = s.board ?? AVR;
  const load = {
    ...(s.load ?? pump()),
    companions: { flyback: s.flyback === undefined ? { part: "discrete/diode-1n4007" } : s.flyback },
  };
  const rail = s.rail ?? "S2.5V";
  const pin = board === RP ? "B1.GP7" : "B1.D7";
  const links: Links = s.links ?? [
    ["MT1.1", rail],
    ["MT1.2", `Q1.${high}`],
    [`Q1.${low}`, "S2.GND"],
  ];
  return make(
    [
      board,
      USB,
      s.supply ?? ADAPTER5,
      part("Q1", s.q, {}, s.q_with ?? { seriesResistor: { ohm: 330 }, pullDown: { ohm: 10_000 } }),
      load,
    ],
    [CABLE, ...links, ["S2.GND", "B1.GND"], [`Q1.${control}`, pin]],
  );
}

export const IRLZ: Pick<Stage, "q" | "legs"> = { q: "discrete/nmos-irlz44n", legs: ["G", "D", "S"] };

export const NPN = (ohm: number): Pick<Stage, "q" | "legs" | "q_with"> => ({
  q: "discrete/npn-2n2222",
  legs: ["B", "C", "E"],
  q_with: { seriesResistor: { ohm } },
});

export const coil = part("MT1", "discrete/relay-coil-12v");

export const relay = (q: Pick<Stage, "q" | "legs" | "q_with">, more: Partial<Stage> = {}): Stage => ({
  ...q,
  load: coil,
  supply: ADAPTER12,
  rail: "S2.12V",
  ...more,
});

export const coilLinks = (rail: string): Links => [
  ["MT1.1", rail],
  ["MT1.2", "Q1.C"],
  ["Q1.E", "S2.GND"],
];

export const bench = (V: number, limit_mA = 2000) => part("S2", "supply/bench", { output_V: V, limit_mA });
