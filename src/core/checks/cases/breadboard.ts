import type { Project } from "../../project";
import { CABLE, changed, make, part, RP, USB, type Case } from "./build";

/** An air sensor on a large breadboard below the board, its data line at the given row; the board covers rows 1 to 20. */
const sensorAt = (row: number, half: "left" | "right" = "left"): Project =>
  make(
    [RP, USB, part("M1", "module/bme280")],
    [CABLE, ["M1.VCC", "B1.3V3"], ["M1.GND", "B1.GND"], ["M1.SDA", "B1.GP4"], ["M1.SCL", "B1.GP5"]],
    {
      breadboard: {
        boards: ["830"],
        at: {
          B1: { board: 0, half: "left", row: 1, letter: "c", turn: false },
          M1: { board: 0, half, row, turn: false },
        },
      },
    },
  );

export const breadboardCases: Case[] = [
  {
    rule: "breadboard.row",
    severity: "stop",
    says: "a sensor's data pin in the row of another board pin",
    bad: () => sensorAt(20),
    also: ["fault breadboard.open"],
    near: () => sensorAt(24),
    fix: "place-M1",
  },
  {
    rule: "breadboard.room",
    severity: "fault",
    says: "a sensor half over the end of the breadboard",
    bad: () => sensorAt(62),
    near: () => sensorAt(60),
    fix: "place-M1",
    also: ["fault breadboard.open"],
  },
  {
    rule: "breadboard.open",
    severity: "fault",
    says: "a sensor whose last pins stand in no row, so that no wire reaches them",
    bad: () => sensorAt(61),
    near: () => sensorAt(59),
    fix: "place-M1",
    also: ["fault breadboard.room"],
  },
  {
    rule: "breadboard.place",
    severity: "note",
    says: "a sensor that came after the placement",
    bad: () => changed(sensorAt(30), { type: "moveOnBoard", ref: "M1", spot: null }),
    near: () => sensorAt(30),
    fix: "place-M1",
  },
];
