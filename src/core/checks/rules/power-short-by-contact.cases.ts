import { ADAPTER12, AVR, CABLE, ESP, make, part, RP, USB, type Case, type Links } from "../cases/build";

const across = (board: object, id: string, up: string, turned: boolean, load: boolean) => {
  const [a, b] = turned ? ["SW1.2", "SW1.1"] : ["SW1.1", "SW1.2"];
  const light: Links = [
    [b, "D1.A"],
    ["D1.K", "B1.GND"],
  ];
  return make(
    [
      board,
      USB,
      part("SW1", id, {}, { pullUp: null }),
      ...(load ? [part("D1", "discrete/led-red", {}, { seriesResistor: { ohm: 470 } })] : []),
    ],
    [CABLE, [a, up], ...(load ? light : ([[b, "B1.GND"]] as Links))],
  );
};
const relay = (load: boolean) =>
  make(
    [
      AVR,
      USB,
      ADAPTER12,
      part("K1", "module/relay-1"),
      part("MT1", "discrete/motor-dc", { load_V: 12, load_mA: 200 }, { flyback: { part: "discrete/diode-1n4007" } }),
    ],
    [
      CABLE,
      ["K1.VCC", "B1.5V"],
      ["K1.GND", "B1.GND"],
      ["K1.IN", "B1.D7"],
      ["K1.COM", "S2.12V"],
      ["MT1.2", "S2.GND"],
      ["S2.GND", "B1.GND"],
      ...((load
        ? [["K1.NO", "MT1.1"]]
        : [
            ["K1.NO", "S2.GND"],
            ["MT1.1", "S2.12V"],
          ]) as Links),
    ],
  );
const row = (load: boolean) =>
  make(
    [
      RP,
      USB,
      part("SW1", "discrete/button", {}, { pullUp: null }),
      part("SW2", "discrete/toggle", {}, { pullUp: null }),
      part("D1", "discrete/led-red", {}, { seriesResistor: { ohm: 220 } }),
    ],
    [
      CABLE,
      ["SW1.1", "B1.3V3"],
      ["SW1.2", "SW2.1"],
      ["SW2.2", load ? "D1.A" : "B1.GND"],
      ["D1.K", "B1.GND"],
      ...((load ? [] : [["D1.A", "B1.3V3"]]) as Links),
    ],
  );

export const shortByContactCases: Case[] = [
  ...(
    [
      [AVR, "discrete/button", "B1.5V"],
      [RP, "discrete/toggle", "B1.3V3"],
      [ESP, "discrete/reed", "B1.5V"],
      [AVR, "discrete/limit-switch", "B1.3V3"],
    ] as const
  ).flatMap(([board, id, up], i): Case[] => [
    {
      rule: "power.short-by-contact",
      severity: "stop",
      says: `a ${id.split("/")[1]} from ${up.slice(3)} to ground`,
      bad: () => across(board, id, up, i % 2 === 1, false),
      near: () => across(board, id, up, i % 2 === 1, true),
      fix: "remove-wire",
    },
  ]),
  {
    rule: "power.short-by-contact",
    severity: "stop",
    says: "a relay's contact from 12 V to ground",
    bad: () => relay(false),
    near: () => relay(true),
    fix: "remove-wire",
  },
  {
    rule: "power.short-by-contact",
    severity: "stop",
    says: "two switches in a row across a supply",
    bad: () => row(false),
    near: () => row(true),
  },
];
