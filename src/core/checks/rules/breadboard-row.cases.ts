import type { Case } from "../cases/build";
import { sensorAt } from "../cases/breadboard";

export const breadboardRowCases: Case[] = [
  {
    rule: "breadboard.row",
    severity: "stop",
    says: "a sensor's data pin in the row of another board pin",
    bad: () => sensorAt(20),
    also: ["fault breadboard.open"],
    near: () => sensorAt(24),
    fix: "place-M1",
  },
];
