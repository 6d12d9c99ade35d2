import type { Case } from "../cases/build";
import { sensorAt } from "../cases/breadboard";

export const breadboardOpenCases: Case[] = [
  {
    rule: "breadboard.open",
    severity: "fault",
    says: "a sensor whose last pins stand in no row, so that no wire reaches them",
    bad: () => sensorAt(61),
    near: () => sensorAt(59),
    fix: "place-M1",
    also: ["fault breadboard.room"],
  },
];
