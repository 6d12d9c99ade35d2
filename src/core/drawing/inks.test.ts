import { describe, expect, it } from "vitest";
import { inkOf, patternOf } from "./inks";

describe("wire colours", () => {
  it("are a person's words: what no table has is drawn plain, whatever it is called", () => {
    for (const word of ["constructor", "__proto__", "toString", "hasOwnProperty", "turquoise", ""]) {
      expect(inkOf(word), word).toBe(inkOf("black"));
      expect(patternOf(word), word).toEqual([]);
    }
    expect(inkOf("red")).not.toBe(inkOf("black"));
  });
});
