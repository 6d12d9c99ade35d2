import type { Case } from "../cases/build";
import { sensorAt } from "../cases/breadboard";

export const breadboardRoomCases: Case[] = [
  {
    rule: "breadboard.room",
    severity: "fault",
    says: "a sensor half over the end of the breadboard",
    bad: () => sensorAt(62),
    near: () => sensorAt(60),
    fix: "place-M1",
    also: ["fault breadboard.open"],
  },
];
