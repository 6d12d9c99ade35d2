import { describe, expect, it } from "vitest";
import { centimetres, nameUpTo, numberIn, oneField, pinName, textUpTo, wholeIn } from "./schemas";

const says = (r: { success: boolean; error?: { issues: { message: string }[] } }) => r.error?.issues[0]?.message;

describe("what fields take", () => {
  it("numbers with comma or point, between limits, and one sentence for everything else", () => {
    const V = numberIn("The pin", 0.1, 60, "V");
    expect(V.parse(" 3,3 ")).toBe(3.3);
    expect(V.parse("0.1")).toBe(0.1);
    for (const bad of ["60.1", "0", "-3", "x", "3 V", "Infinity", "NaN"])
      expect(says(V.safeParse(bad)), bad).toBe("The pin takes 0.1 to 60 V");
    expect(says(wholeIn("How many", 1, 50).safeParse("2.5"))).toBe("How many: a whole number from 1 to 50.");
    expect(wholeIn("How many", 1, 50).parse("50")).toBe(50);
  });

  it("an empty length is no length", () => {
    expect(centimetres.parse("  ")).toBe(null);
    expect(centimetres.parse("12,5")).toBe(12.5);
    for (const bad of ["0", "2001", "-1", "long"]) expect(centimetres.safeParse(bad).success, bad).toBe(false);
  });

  it("texts without the blanks around them, as long as they may be", () => {
    expect(textUpTo(3).parse(" abc ")).toBe("abc");
    expect(textUpTo(3).safeParse("abcd").success).toBe(false);
    expect(says(nameUpTo(9, "A project has a name.").safeParse("  "))).toBe("A project has a name.");
    expect(pinName.parse(" IN 1  a ")).toBe("IN_1_a");
  });

  it("a form of one field gives its value or the sentence", async () => {
    const ask = (v: string) =>
      oneField(wholeIn("Benches", 1, 60))({ v }, undefined, { fields: {}, shouldUseNativeValidation: false });
    expect((await ask("7")).values).toEqual({ v: 7 });
    expect((await ask("0")).errors).toMatchObject({ v: { message: "Benches: a whole number from 1 to 60." } });
  });
});
