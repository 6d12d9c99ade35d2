import { ESP, type Case } from "../cases/build";
import { pot } from "../cases/buses";

export const adcRangeCases: Case[] = [
  {
    rule: "adc.range",
    severity: "risk",
    says: "3.3 V into a converter that reads full at 2.5 V",
    bad: () => pot({ ref: "B1", part: "board/esp32-c3-mini", options: { radio: "false" } }, "B1.3V3", "GPIO3"),
    near: () => pot(ESP, "B1.3V3", "GPIO34"),
  },
];
