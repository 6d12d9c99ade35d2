import { describe, expect, it } from "vitest";
import { circuitOf } from "../src/core/circuit";
import { gaps } from "../src/core/firmware/gaps";
import { micropython } from "../src/core/firmware/targets/micropython";
import { sketch } from "../src/core/firmware/targets/sketch";
import { assign } from "../src/core/plan/assign";
import { catalogue, make, USB } from "../src/core/testing";
import { runOnHost } from "./host/compile";

const BOARDS = [
  "board/esp32-thirtyeight",
  "board/esp32-s3-fortyfour",
  "board/esp32-c3-mini",
  "board/rp2040-forty",
  "board/rp2350-forty",
];
const heard = (board: string, side: "left" | "right") => {
  const mic = { ref: "M1", part: "module/inmp441", label: "Ear", options: { side } };
  const a = assign(make([{ ref: "B1", part: board }, USB, mic]), catalogue);
  expect(a.clash).toBeNull();
  return circuitOf(a.project, catalogue);
};
const lineOf = (lines: readonly string[]) => lines.find((l) => l.startsWith("YL1 sensor M1"));

describe("a microphone that gives numbers, by the sound port of the chip", () => {
  it.each(BOARDS)("%s: the sketch hears the left half, and nobody in the right one", (board) => {
    const { family } = catalogue.get(board)!.board!;
    // The stand-in for the port speaks in the left half: from -1000 to 1000 of 2^24.
    const left = runOnHost(sketch.files(heard(board, "left")), "bringup", 4000, "", [], family);
    expect(lineOf(left)).toBe("YL1 sensor M1 fresh=1 loud_c=1 info");
    const right = runOnHost(sketch.files(heard(board, "right")), "bringup", 4000, "", [], family);
    expect(lineOf(right)).toBe("YL1 sensor M1 fresh=0 loud_c=0 fail");
  });
  it.each(BOARDS)("%s: bit clock and word select are the planned pins, on RP chips side by side", (board) => {
    const c = heard(board, "left");
    const at = (pin: string) => {
      const b = c.netlist.bindings.find((x) => x.ref === "M1" && x.pin === pin)!;
      return c.netlist.instance("B1")!.part.pins.find((p) => p.label === b.hostPin)!.gpio!;
    };
    if (board.includes("rp2")) expect(at("WS")).toBe(at("SCK") + 1);
    const files = micropython.files(c);
    const made = files.find((f) => f.path === "bringup.py")!.text;
    expect(made).toMatch(
      /m1_sound = Sound\([01], pins\.\w*SCK, pins\.\w*WS, pins\.\w*SD, 0\)|ear_sound = Sound\([01], /,
    );
    expect(files.map((f) => f.path)).toContain("lib/sound.py");
    expect(gaps(c)).toEqual([]);
  });
  it("boards whose port no program of ours works say so", () => {
    for (const board of ["board/samd21-compact", "board/imxrt1062-compact"])
      expect(gaps(heard(board, "left"))[0]!.why).toContain("sound port");
  });
});
