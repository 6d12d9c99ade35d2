import { CABLE, CHARGER, make, part, RP, type Case, type Links } from "../cases/build";

const servo = (from: "board" | "source") =>
  make(
    [
      RP,
      CHARGER,
      { ref: "S2", part: "supply/adapter-5v-2a" },
      part("M1", "module/servo-small", {}, { bulkCapacitor: { F: 0.00047 } }),
    ],
    [
      CABLE,
      ["M1.SIG", "B1.GP2"],
      ...((from === "board"
        ? [
            ["M1.VCC", "B1.VBUS"],
            ["M1.GND", "B1.GND"],
          ]
        : [
            ["M1.VCC", "S2.5V"],
            ["M1.GND", "S2.GND"],
            ["S2.GND", "B1.GND"],
          ]) as Links),
    ],
  );

export const powerThroughBoardCases: Case[] = [
  {
    rule: "power.through-board",
    severity: "risk",
    says: "a servo fed through the board",
    bad: () => servo("board"),
    near: () => servo("source"),
    fix: "own-supply",
  },
];
