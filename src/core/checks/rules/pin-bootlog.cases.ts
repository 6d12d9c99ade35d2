import type { Case } from "../cases/build";
import { at } from "../cases/pins";

const mini = { ref: "B1", part: "board/esp32-c3-mini" };

export const pinBootlogCases: Case[] = [
  {
    rule: "pin.bootlog",
    severity: "risk",
    says: "a light on the pin that prints the start-up log",
    bad: () => at(mini, "GPIO21"),
    near: () => at(mini, "GPIO10"),
    fix: "move-pin",
  },
];
