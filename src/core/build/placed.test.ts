import { describe, expect, it } from "vitest";
import { circuitOf } from "../circuit";
import { findings } from "../checks";
import { planAll } from "../plan/advice";
import { applyEdit, type Project } from "../project";
import { BOARD3, catalogue, planned, USB } from "../testing";
import { boardProblem, keptPlaced, placedAsBuilt } from ".";

const LIST = [BOARD3, USB, { ref: "M1", part: "module/bme280" }, { ref: "LED1", part: "discrete/led-red" }];
const placed = placedAsBuilt(planned(LIST), catalogue);
const complaints = (p: Project) => findings(circuitOf(p, catalogue)).filter((f) => f.rule.startsWith("breadboard."));
/** What an act in the app does: the edit, its wires, and the placement that goes along. */
const acted = (p: Project, ...edits: Parameters<typeof applyEdit>[1][]) =>
  keptPlaced(
    planAll(
      edits.reduce((q, e) => applyEdit(q, e, catalogue), p),
      catalogue,
    ).project,
    catalogue,
  );

describe("a placement that the planner made", () => {
  it("comes with the plan of a breadboard build, and of no other", () => {
    expect(placed.breadboard).toMatchObject({ by: "plan" });
    expect(complaints(placed)).toEqual([]);
    for (const houseRules of [{ firstBuild: "solder" as const }, { sharing: "splice" as const }])
      expect(placedAsBuilt({ ...planned(LIST), houseRules }, catalogue).breadboard).toBeUndefined();
  });
  it("stays as it is while it holds", () => {
    expect(keptPlaced(placed, catalogue)).toBe(placed);
  });
  it("takes in what comes, on larger boards where there is no room, and what stands stays where there is", () => {
    const one = acted(placed, { type: "addPart", part: "discrete/button", ref: "SW1" });
    expect(one.breadboard!.at.SW1).toBeDefined();
    expect(one.breadboard!.at.M1).toEqual(placed.breadboard!.at.M1);
    expect(complaints(one)).toEqual([]);
    const many = acted(
      one,
      ...["sht31", "ds3231", "ssd1306-i2c", "bh1750"].map((m, i) => ({
        type: "addPart" as const,
        part: `module/${m}`,
        ref: `M${i + 2}`,
      })),
    );
    expect(complaints(many)).toEqual([]);
    const at = Object.keys(many.breadboard!.at);
    for (const { ref } of boardProblem(circuitOf(many, catalogue)).items) expect(at).toContain(ref);
  });
  it.each(["esp32-c3-mini", "atmega328p-compact", "stm32f411-forty", "esp8266-mini", "esp32-thirtyeight"])(
    "goes along with another board: %s",
    (id) => {
      expect(complaints(acted(placed, { type: "changePart", ref: "B1", part: `board/${id}` }))).toEqual([]);
    },
  );
  it("is the person's as soon as they move anything", () => {
    const spot = { ...placed.breadboard!.at.M1!, row: placed.breadboard!.at.M1!.row + 1 };
    const mine = applyEdit(placed, { type: "moveOnBoard", ref: "M1", spot }, catalogue);
    expect(mine.breadboard!.by).toBeUndefined();
    expect(keptPlaced(mine, catalogue)).toBe(mine);
    const off = applyEdit(mine, { type: "moveOnBoard", ref: "LED1", spot: null }, catalogue);
    expect(acted(off, { type: "addPart", part: "discrete/button", ref: "SW1" }).breadboard!.at.LED1).toBeUndefined();
  });
});
