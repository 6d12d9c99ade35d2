import type { Case } from "../cases/build";
import { soil } from "../cases/pins";

const radio = { ref: "B1", part: "board/esp32-thirtyeight", options: { radio: "true" } };

export const pinAdcRadioCases: Case[] = [
  {
    rule: "pin.adc-radio",
    severity: "fault",
    says: "a converter of the radio's while it runs",
    bad: () => soil(radio, "GPIO25"),
    near: () => soil(radio, "GPIO34"),
    fix: "move-pin",
  },
];
