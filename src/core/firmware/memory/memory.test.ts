import { describe, expect, it } from "vitest";
import { findings } from "../../checks";
import { circuitOf } from "../../circuit";
import { assign } from "../../plan/assign";
import { BOARD3, BOARD5, catalogue, make, USB } from "../../testing";
import { COSTS } from ".";
import { crowded, fullness, roomOf } from "./room";

const MANY = [
  "ads1115",
  "ds3231",
  "scd41",
  "ina219",
  "sht31",
  "lcd1602-i2c",
  "mcp23017",
  "ht16k33-digits",
  "at24c32",
  "pcf8563",
  "bmp280",
  "vl53l0x",
];
/** Parts that no AVR board has pins for: enough of them, a CAN port, a port for sound. */
const NOT_ON_AVR = new Set(["module/vfd-20x2-parallel", "module/sn65hvd230", "module/inmp441"]);
const planned = (board: object, ids: readonly string[]) => {
  const parts = ids.map((id, i) => ({ ref: `M${i + 1}`, part: `module/${id}` }));
  const a = assign(make([board as never, USB, ...parts]), catalogue);
  expect(a.status).not.toBe("infeasible");
  return circuitOf(a.project, catalogue);
};
const TINY = { ref: "B1", part: "chip/attiny84-dip14" };
const MEGA = { ref: "B1", part: "chip/atmega328p-dip28" };

describe("the memory of small chips", () => {
  it("was measured for every part, and grows with every piece", () => {
    for (const [target, costs] of Object.entries(COSTS))
      for (const p of catalogue.parts.filter((x) => !x.board && x.bringup && x.pins.some((y) => y.need)))
        if (!NOT_ON_AVR.has(p.id)) expect(costs.parts[p.id], `${target} ${p.id}`).toBeDefined();
    const used = (n: number) => roomOf(planned(MEGA, MANY.slice(0, n)), "B1", "avr-c")!.flash.used;
    for (let n = 1; n < MANY.length; n++) expect(used(n + 1)).toBeGreaterThan(used(n));
  });
  it("a program that is too large is a fault with its numbers; a larger chip is quiet", () => {
    const c = planned(TINY, MANY);
    expect(crowded(c).map(fullness)).toEqual(["full"]);
    const [f] = findings(c).filter((x) => x.rule === "firmware.memory");
    expect(f!.severity).toBe("fault");
    expect(f!.message).toMatch(
      /^The program for B1 takes about 1\d\.\d kB of flash, and 8 kB are free for it: it will not fit\./,
    );
    expect(crowded(planned(MEGA, MANY))).toEqual([]);
    expect(crowded(planned(BOARD5, MANY))).toEqual([]);
    expect(crowded(planned(TINY, MANY.slice(0, 5)))).toEqual([]);
  });
  it("the smallest chip with a light and a contact is quiet: a stack of its size, not of a larger one's", () => {
    const parts = [
      { ref: "B1", part: "chip/attiny13a-dip8" },
      { ref: "S1", part: "supply/aa-3" },
      { ref: "D1", part: "discrete/led-red" },
      { ref: "SW1", part: "discrete/button" },
    ];
    const c = circuitOf(assign(make(parts), catalogue).project, catalogue);
    expect(findings(c).filter((f) => f.rule === "firmware.memory")).toEqual([]);
  });
  it("what may just fit is a risk, and says so", () => {
    const c = planned(TINY, MANY.slice(0, 9));
    expect(crowded(c).map(fullness)).toEqual(["tight"]);
    const [f] = findings(c).filter((x) => x.rule === "firmware.memory");
    expect([f!.severity, f!.message.includes("it may not fit")]).toEqual(["risk", true]);
  });
  it("is not guessed where it was not measured", () => {
    expect(roomOf(planned(BOARD3, MANY.slice(0, 2)), "B1", "micropython")).toBeNull();
    expect(roomOf(planned(BOARD3, MANY.slice(0, 2)), "B1", "sketch")).toBeNull();
    expect(roomOf(planned(MEGA, MANY.slice(0, 2)), "B1", "sketch")).toBeNull();
  });
});
