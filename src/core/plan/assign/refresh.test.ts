import { describe, expect, it } from "vitest";
import { circuitOf } from "../../circuit";
import { applyEdit, type Project } from "../../project";
import { BOARD3, BOARD5, catalogue, check, make, planned, USB } from "../../testing";
import { refreshStraps } from ".";

const choose = (p: Project, ref: string, key: string, value: string): Project => {
  const next = applyEdit(p, { type: "setOption", ref, key, value }, catalogue);
  return refreshStraps(p, next, ref, catalogue);
};
const where = (p: Project, end: string) => circuitOf(p, catalogue).netlist.netOf(end);
const wires = (p: Project, end: string) => p.links.filter((l) => l.from === end || l.to === end).length;

describe("a strap follows the address that is chosen", () => {
  it.each([
    ["module/mpu6050", "AD0", "0x69", "0x68"],
    ["module/ads1115", "ADDR", "0x49", "0x48"],
    ["module/bh1750", "ADDR", "0x5c", "0x23"],
  ])("%s: %s", (part, pin, other, usual) => {
    for (const board of [BOARD3, BOARD5]) {
      const p = planned([board, USB, { ref: "M1", part }]);
      const end = `M1.${pin}`;
      const moved = choose(p, "M1", "address", other);
      expect(where(moved, end).kind).toBe("supply");
      expect(wires(moved, end)).toBe(1);
      // And back: the plan is as it was.
      const back = choose(moved, "M1", "address", usual);
      expect(back.links.map((l) => [l.from, l.to]).sort()).toEqual(p.links.map((l) => [l.from, l.to]).sort());
      expect(check(moved).map((f) => f.rule)).not.toContain("part.unwired");
    }
  });
  it("a wire that a person laid stays, and a part without wires waits for the plan", () => {
    const p = planned([BOARD3, USB, { ref: "M1", part: "module/mpu6050", options: { address: "0x69" } }]);
    const hand: Project = {
      ...p,
      links: p.links.map((l) => (l.from === "M1.AD0" || l.to === "M1.AD0" ? { ...l, by: "hand" as const } : l)),
    };
    expect(choose(hand, "M1", "address", "0x68").links.filter((l) => l.by === "hand")).toHaveLength(1);
    const bare = make([BOARD3, USB, { ref: "M1", part: "module/mpu6050" }]);
    expect(choose(bare, "M1", "address", "0x69").links).toEqual(bare.links);
  });
});
