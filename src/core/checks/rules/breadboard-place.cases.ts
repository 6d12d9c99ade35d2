import { changed, type Case } from "../cases/build";
import { sensorAt } from "../cases/breadboard";

export const breadboardPlaceCases: Case[] = [
  {
    rule: "breadboard.place",
    severity: "note",
    says: "a sensor that came after the placement",
    bad: () => changed(sensorAt(30), { type: "moveOnBoard", ref: "M1", spot: null }),
    near: () => sensorAt(30),
    fix: "place-M1",
  },
];
