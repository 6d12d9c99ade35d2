import { describe, expect, it } from "vitest";
import { findings } from "../../checks";
import { circuitOf } from "../../circuit";
import { assign } from "../../plan/assign";
import type { Rule } from "../../project";
import { BOARD3, BOARD5, catalogue, make, USB } from "../../testing";
import { roomOf } from "../memory/room";
import { driverParts } from "../pins";
import { rulesView } from "../rules/view";
import { columnsOf } from ".";

const planned = (board: object, card: string, label: string, rules?: Rule[]) => {
  const parts = [
    { ref: "M1", part: "module/aht20", label },
    { ref: "M2", part: card, label: "Card" },
    { ref: "M3", part: "module/ds3231", label: "Clock" },
    { ref: "SW1", part: "discrete/button", label: "Go" },
  ];
  const a = assign(make([board as never, USB, ...parts]), catalogue);
  return circuitOf({ ...a.project, ...(rules && { rules }) }, catalogue);
};
const LOG: Rule[] = [{ when: { every_s: 5 }, do: { ref: "M2", act: "log" } }];

describe("lines of a log", () => {
  it("have the time of a clock, then all readings by name and unit; the card itself is none", () => {
    const c = planned(BOARD3, "module/sd-3v3", "Air");
    const { head, clock } = columnsOf(driverParts(c, "B1", "micropython", (b) => b));
    expect(clock?.ref).toBe("M3");
    expect(head).toBe("s,time,Air t C,Air rh %,Go pressed");
  });
  it("no label becomes a formula or another column", () => {
    for (const label of ['=1+1","x', "@SUM(A1)", "-2;3\n4", "+x", "\t=y"]) {
      const c = planned(BOARD3, "module/sd-3v3", label);
      const { head } = columnsOf(driverParts(c, "B1", "micropython", (b) => b));
      expect(head.split(","), label).toHaveLength(5);
      expect(head, label).not.toMatch(/["\n\r;]/);
      for (const cell of head.split(",")) expect(cell, label).not.toMatch(/^[=+\-@\t]/);
    }
  });
  it("are suggested where there is memory for a file system, and can be asked for elsewhere", () => {
    const says = (c: ReturnType<typeof planned>) => rulesView(c).rules.map((r) => r.says);
    expect(says(planned(BOARD3, "module/sd-3v3", "Air"))).toContain("Every 60 s, Card gets a line.");
    expect(says(planned(BOARD5, "module/sd-shifted", "Air"))).not.toContain("Every 60 s, Card gets a line.");
    const asked = planned(BOARD5, "module/sd-shifted", "Air", LOG);
    expect(rulesView(asked).rules[0]).toMatchObject({ says: "Every 5 s, Card gets a line.", why: null });
    // The file system and a block of the card are counted.
    const without = roomOf(planned(BOARD5, "module/sd-shifted", "Air", []), "B1", "sketch")!;
    const room = roomOf(asked, "B1", "sketch")!;
    expect(room.flash.used - without.flash.used).toBeGreaterThan(3000);
    expect(room.ram.used - without.ram.used).toBeGreaterThanOrEqual(512);
  });
  it("go to a card, and to nothing else", () => {
    const wrong = planned(BOARD3, "module/sd-3v3", "Air", [{ when: { every_s: 5 }, do: { ref: "M1", act: "log" } }]);
    expect(findings(wrong).find((f) => f.rule === "firmware.rule")!.message).toContain("Air is no memory card");
  });
});
