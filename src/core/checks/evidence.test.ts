import { describe, expect, it } from "vitest";
import { check } from "../testing";
import { cases } from "./cases";
import { evidenceSentences, hasSentence } from "./evidence";

describe("numbers in sentences", () => {
  const all = cases.flatMap((c) => check(c.bad()));

  it("has a sentence for every number that a finding brings", () => {
    const bare = new Set(
      all.flatMap((f) =>
        Object.keys(f.evidence)
          .filter((k) => !hasSentence(k))
          .map((k) => `${f.rule} ${k}`),
      ),
    );
    expect([...bare]).toEqual([]);
  });

  it("writes the value with its unit, and begins and ends like a sentence", () => {
    for (const f of all)
      for (const s of evidenceSentences(f)) {
        expect(s).toMatch(/^[A-Z0-9−-].*\.$/);
        expect(s).not.toMatch(/[{}]|undefined|_(V|mA|A|ohm|W|C|uF|nF|pF|ns|cm|kHz|MHz|pct)\b/);
      }
    expect(evidenceSentences({ evidence: { high_V: 3.1, VIH_V: 3.675, marginHigh_V: -0.575 } })).toEqual([
      "High is at least 3.1 V when it arrives.",
      "The input takes for high what is above 3.675 V.",
      "That leaves -0.575 V to spare at high.",
    ]);
    expect(evidenceSentences({ evidence: { pullup_ohm: 10000, somethingNew_mA: 3 } })).toEqual([
      "The pull-ups come to 10 kΩ.",
      "something new: 3 mA.",
    ]);
  });
});
