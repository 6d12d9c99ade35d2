import { AVR, CABLE, ESP, make, part, RP, USB, type Case } from "../cases/build";

const lit = (board: object, pin: string, rail: string | null) =>
  make(
    [board, USB, part("D1", "discrete/led-red", {}, { seriesResistor: { ohm: 470 } })],
    [
      CABLE,
      ["D1.A", `B1.${pin}`],
      ["D1.K", "B1.GND"],
      ...(rail ? [[`B1.${pin}`, `B1.${rail}`] as [string, string]] : []),
    ],
  );
const strap = (to: string | null) => make([AVR, USB], [CABLE, ...(to ? [["B1.D8", to] as [string, string]] : [])]);

export const contentionRailCases: Case[] = [
  ...(
    [
      [AVR, "D8", "GND"],
      [AVR, "D8", "5V"],
      [RP, "GP15", "3V3"],
      [ESP, "GPIO23", "GND"],
    ] as const
  ).map(([board, pin, rail]): Case => ({
    rule: "net.contention",
    severity: "stop",
    says: `a light's pin ${pin} that is also wired to ${rail}`,
    bad: () => lit(board, pin, rail),
    near: () => lit(board, pin, null),
    fix: "remove-wire",
  })),
  {
    rule: "net.contention",
    severity: "note",
    says: "a pin on a rail that nothing asks for",
    bad: () => strap("B1.5V"),
    near: () => strap(null),
  },
];
