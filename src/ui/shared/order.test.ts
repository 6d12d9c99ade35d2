import { describe, expect, it } from "vitest";
import { inOrder } from "./order";

describe("the order of a column", () => {
  it("numbers by size, with signs, decimals and no end", () => {
    expect([0.3, -0.58, 12, 0.25, Infinity, -2, Infinity, 3].sort(inOrder)).toEqual([
      -2,
      -0.58,
      0.25,
      0.3,
      3,
      12,
      Infinity,
      Infinity,
    ]);
  });
  it("texts as people count in them, without a value first", () => {
    expect(["M10.SDA", "M2.SDA", "B1", null, "b1"].sort(inOrder)).toEqual([null, "b1", "B1", "M2.SDA", "M10.SDA"]);
  });
});
