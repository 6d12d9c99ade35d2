import { ADAPTER12, AVR, CABLE, ESP, make, part, R, RP, USB, type Case, type Links } from "../cases/build";

const NINE = { ref: "S2", part: "supply/battery-9v" };
const pinned = (board: object, links: Links, ...parts: object[]) => make([board, USB, ...parts], [CABLE, ...links]);
const nine = (pin: string): Links => [
  ["S2.+", pin],
  ["S2.-", "B1.GND"],
];
const BOARDS = [
  { board: AVR, name: "a 5 V board", digital: "B1.D8", analog: "B1.A0", five: "B1.5V", logic: "B1.5V" },
  { board: RP, name: "a 3.3 V board", digital: "B1.GP4", analog: "B1.GP26", five: "B1.VBUS", logic: "B1.3V3" },
  { board: ESP, name: "a radio board", digital: "B1.GPIO23", analog: "B1.GPIO34", five: "B1.5V", logic: "B1.3V3" },
] as const;

/** Two resistors from 12 V into an analogue pin that no part asks for. */
const divided = (board: object, pin: string, top: number, turned: boolean) =>
  pinned(
    board,
    [
      ["S2.12V", turned ? "R1.2" : "R1.1"],
      [turned ? "R1.1" : "R1.2", pin],
      [turned ? "R2.2" : "R2.1", pin],
      [turned ? "R2.1" : "R2.2", "B1.GND"],
      ["S2.GND", "B1.GND"],
    ],
    ADAPTER12,
    R("R1", top),
    R("R2", 10_000),
  );
const pot = (board: object, from: string, pin: string, turned: boolean) =>
  pinned(
    board,
    [
      [turned ? "R1.1" : "R1.3", from],
      ["R1.2", pin],
      [turned ? "R1.3" : "R1.1", "B1.GND"],
    ],
    part("R1", "discrete/potentiometer"),
  );
const light = (from: string) =>
  pinned(
    RP,
    [
      ["D1.A", from],
      ["D1.K", "B1.GP4"],
    ],
    part("D1", "discrete/led-red", {}, { seriesResistor: { ohm: 470 } }),
  );
/** A switch that lets a supply through to a pin, with a resistor that holds the pin low. */
const switched = (board: object, from: string, pin: string) =>
  pinned(
    board,
    [
      ["SW1.1", pin],
      ["SW1.2", from],
    ],
    part("SW1", "discrete/button", {}, { pullDown: { ohm: 10_000 } }),
  );
const second = (pin: string | null) =>
  make(
    [AVR, USB, { ref: "B2", part: "board/rp2040-forty" }, { ref: "S2", part: "supply/usb-port" }],
    [CABLE, ["S2.USB", "B2.USB"], ["B1.GND", "B2.GND"], ...(pin ? [["B1.5V", pin] as [string, string]] : [])],
  );

export const overdriveAnyCases: Case[] = [
  ...BOARDS.flatMap(({ board, name, digital, analog, five }): Case[] => [
    {
      rule: "level.overdrive",
      severity: "stop",
      says: `a 9 V block on a digital pin of ${name}`,
      bad: () => pinned(board, nine(digital), NINE),
      near: () => pinned(board, [], NINE),
      fix: "remove-wire",
    },
    {
      rule: "level.overdrive",
      severity: "stop",
      says: `12 V on an analogue pin of ${name}`,
      bad: () =>
        pinned(
          board,
          [
            ["S2.12V", analog],
            ["S2.GND", "B1.GND"],
          ],
          ADAPTER12,
        ),
      near: () => divided(board, analog, 47_000, false),
      fix: "remove-wire",
    },
    {
      rule: "level.overdrive",
      severity: "stop",
      says: `a divider from 12 V that leaves too much for ${name}`,
      bad: () => divided(board, analog, 6800, true),
      near: () => divided(board, analog, 47_000, true),
    },
    {
      rule: "level.overdrive",
      severity: "stop",
      says: `9 V through a resistor on a pin of ${name}`,
      bad: () =>
        pinned(
          board,
          [
            ["S2.+", "R1.2"],
            ["R1.1", digital],
            ["S2.-", "B1.GND"],
          ],
          NINE,
          R("R1", 10_000),
        ),
      near: () =>
        pinned(
          board,
          [
            ["R1.2", five],
            ["R1.1", "B1.GND"],
            ["S2.-", "B1.GND"],
          ],
          NINE,
          R("R1", 10_000),
        ),
    },
  ]),
  {
    rule: "level.overdrive",
    severity: "stop",
    says: "5 V on a pin of a second board that runs at 3.3 V",
    bad: () => second("B2.GP4"),
    near: () => second(null),
    fix: "remove-wire",
  },
  ...[RP, ESP].flatMap((board, i): Case[] => {
    const b = BOARDS[i + 1]!;
    return [
      {
        rule: "level.overdrive",
        severity: "stop",
        says: `a knob between 5 V and ground into ${b.name}, at its end`,
        bad: () => pot(board, b.five, b.analog, i === 0),
        near: () => pot(board, b.logic, b.analog, i === 1),
      },
      {
        rule: "level.overdrive",
        severity: "stop",
        says: `a button that closes 5 V onto a pin of ${b.name}`,
        bad: () => switched(board, b.five, b.digital),
        near: () => switched(board, b.logic, b.digital),
      },
    ];
  }),
  {
    rule: "level.overdrive",
    severity: "stop",
    says: "a light from 5 V that a 3.3 V pin is meant to sink",
    bad: () => light("B1.VBUS"),
    near: () => light("B1.3V3"),
  },
];
