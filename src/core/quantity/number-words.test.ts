import { describe, expect, it } from "vitest";
import { countInWords } from "../parts/lists/names";
import { NUMBER_WORDS, numberOf } from ".";

describe("counts in words", () => {
  it("are what they say, and nothing else is a count", () => {
    expect(["7", "one", "sixteen", "twenty four", "a dozen", "both"].map(numberOf)).toEqual([7, 1, 16, 24, 12, 2]);
    for (const odd of ["", "ten one", "-3", "many", "constructor"]) expect(numberOf(odd), odd).toBeNaN();
    // The longer stands first, or "twenty four" would be twenty.
    expect(new RegExp(`^(?:${NUMBER_WORDS})`).exec("twenty four lights")![0]).toBe("twenty four");
  });
  it("stand before parts", () => {
    expect(countInWords("a pair of servos")).toEqual({ quantity: 2, rest: "servos" });
    expect(countInWords("a dozen LEDs")).toEqual({ quantity: 12, rest: "LEDs" });
    expect(countInWords("A buzzer")).toEqual({ quantity: 1, rest: "buzzer" });
    expect(countInWords("tennis ball")).toBeNull();
  });
});
