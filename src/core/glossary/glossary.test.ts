import { describe, expect, it } from "vitest";
import fc from "fast-check";
import { inPieces, TERMS, termOf, termsIn } from ".";

describe("the glossary", () => {
  it("has at least eighty words, each once, each in a line", () => {
    expect(TERMS.length).toBeGreaterThanOrEqual(80);
    const all = TERMS.flatMap((t) => [t.term, ...(t.also ?? [])]).map((w) => w.toLowerCase());
    expect(all.filter((w, i) => all.indexOf(w) !== i)).toEqual([]);
    for (const t of TERMS) {
      expect(t.gloss.length, t.term).toBeLessThanOrEqual(125);
      expect(t.gloss, t.term).toMatch(/\.$/);
      expect(t.gloss, t.term).not.toMatch(/!|\b(etc|e\.g|i\.e)\b/);
    }
  });
  it.each(["PWM", "bootloader", "strapping", "open drain", "chip select", "pull-up", "I2C", "debounce", "brownout"])(
    "knows %s",
    (w) => expect(termOf(w)).toBeDefined(),
  );
  it("finds words as wholes, the longest first, each at its first mention", () => {
    const terms = (t: string) => inPieces(t).flatMap((p) => (p.term ? [p.text] : []));
    expect(terms("An open-drain output needs a pull-up; the pull-up goes to 3V3.")).toEqual([
      "open-drain",
      "output",
      "pull-up",
    ]);
    expect(terms("ground plane, grounded, underground")).toEqual(["ground"]);
    expect(terms("the electrolytic capacitor")).toEqual(["electrolytic capacitor"]);
    // Words that mean something else as often as not are left alone.
    expect(terms("0.58 V short; the Rain-barrel gauge; a buck-boost thing converter")).toEqual([]);
    // Pins, references and numbers are not words.
    expect(terms("M1.SDA to B1.GND, cs1, TXD")).toEqual([]);
    expect(terms("its cs and tx")).toEqual([]);
    expect(terms("CS and TX")).toEqual(["CS", "TX"]);
  });
  it("gives the text back, whatever it is", () => {
    const word = fc.constantFrom(...TERMS.map((t) => t.term), "M1", "…", "<b>", " ", ",", "\n", "Ω", "open", "drain");
    fc.assert(
      fc.property(fc.array(fc.oneof(word, fc.string()), { maxLength: 12 }), (parts) => {
        const text = parts.join(" ");
        expect(
          inPieces(text)
            .map((p) => p.text)
            .join(""),
        ).toBe(text);
      }),
      { numRuns: 300 },
    );
  });
  it("lists what occurs by the alphabet", () => {
    expect(termsIn(["A servo and an LED", "the LED on its rail"]).map((t) => t.term)).toEqual(["LED", "rail", "servo"]);
  });
});
