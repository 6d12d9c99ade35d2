import { describe, expect, it } from "vitest";
import { circuitOf } from "../../circuit";
import { TARGETS } from "../index";
import { assign } from "../../plan/assign";
import { ruleProblems, RuleSchema } from "../../project";
import { catalogue, make, USB } from "../../testing";
import { eventId, eventOf, usageOf } from "./events";

describe("keys by the HID usage tables", () => {
  it.each([
    ["a", 0x04, false],
    ["Z", 0x1d, true],
    ["1", 0x1e, false],
    ["0", 0x27, false],
    ["!", 0x1e, true],
    ["enter", 0x28, false],
    [" ", 0x2c, false],
    ["-", 0x2d, false],
    ["_", 0x2d, true],
    ["\\", 0x31, false],
    [";", 0x33, false],
    ["?", 0x38, true],
    ["f1", 0x3a, false],
    ["f12", 0x45, false],
    ["up", 0x52, false],
  ])("%s is %i", (key, code, shift) => {
    expect(usageOf(key)).toEqual({ code, shift });
  });
  it("what is no key is said so", () => {
    for (const key of ["ä", "constructor", "f13", "€"]) {
      expect(usageOf(key), key).toBeNull();
      expect(eventOf({ ref: "B1", act: "send", send: { key } })).toMatch(/is no key here/);
    }
  });
  it("each has a name of its own", () => {
    const keys = [..."abcABC1!-_"].map((key) => eventId({ kind: "key", key }));
    expect(new Set(keys).size).toBe(keys.length);
    for (const k of keys) expect(k).toMatch(/^[a-z0-9_]+$/);
  });
});

describe("rules that send", () => {
  const problems = (when: object, send: object) =>
    ruleProblems([RuleSchema.parse({ when, do: { ref: "B1", act: "send", send } })], new Set(["B1", "SW1", "R1"]));
  it("a key needs a while, a controller a quantity", () => {
    expect(problems({ ref: "SW1", out: "pressed", is: 1 }, { key: "a" })).toEqual([]);
    expect(problems({ ref: "R1", out: "pct" }, { controller: 7 })).toEqual([]);
    expect(problems({ ref: "R1", out: "pct" }, { key: "a" })[0]!.message).toMatch(/while something holds/);
    expect(problems({ ref: "SW1", out: "pressed", is: 1 }, { axis: "x" })[0]!.message).toMatch(/follows a quantity/);
    expect(problems({ every_s: 2 }, { note: 60 })[0]!.message).toMatch(/is a moment/);
  });
});

describe("a board that is an output to its computer", () => {
  const boards = catalogue.parts.filter((p) => p.options?.some((o) => o.key === "usbRole"));
  const KEY = { ref: "SW1", part: "discrete/button", label: "Key" };
  it.each(boards.flatMap((b) => ["serial", "keyboard", "midi", "joystick"].map((role) => [b.id, role] as const)))(
    "%s as %s is written by every language that knows it, awake and with naps",
    (board, usbRole) => {
      for (const sleep of [undefined, { every_s: 60, awake_s: 5 }]) {
        const b = { ref: "B1", part: board, options: { usbRole }, ...(sleep && { sleep }) };
        const { project } = assign(make([b as never, USB, KEY]), catalogue);
        const c = circuitOf(project, catalogue);
        for (const target of TARGETS)
          if (target.unfit(c) === null)
            expect(target.files(c).length, `${target.id} ${sleep ? "naps" : ""}`).toBeGreaterThan(0);
      }
    },
  );
});
