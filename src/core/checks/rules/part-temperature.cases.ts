import { planned, part, RP, USB, type Case } from "../cases/build";

const outdoors = (id: string, place: "room" | "shelter" | "sun") =>
  planned([RP, USB, part("M1", id)], { brief: { place } });

export const partTemperatureCases: Case[] = [
  {
    rule: "part.temperature",
    severity: "risk",
    says: "a simple humidity sensor in the frost",
    bad: () => outdoors("module/dht11", "shelter"),
    near: () => outdoors("module/dht22", "shelter"),
  },
  {
    rule: "part.temperature",
    severity: "risk",
    says: "a radio module in a closed box in the sun",
    bad: () => outdoors("module/hc05", "sun"),
    near: () => outdoors("module/hc05", "room"),
  },
];
