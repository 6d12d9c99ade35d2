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
    expect(
      evidenceSentences({ rule: "level.low-high", evidence: { high_V: 3.1, VIH_V: 3.675, marginHigh_V: -0.575 } }),
    ).toEqual([
      "High is at least 3.1 V when it arrives.",
      "The input takes for high what is above 3.675 V.",
      "That leaves −0.575 V to spare at high.",
    ]);
    expect(evidenceSentences({ rule: "i2c.rise-time", evidence: { pullup_ohm: 10000, somethingNew_mA: 3 } })).toEqual([
      "The pull-ups come to 10 kΩ.",
      "something new: 3 mA.",
    ]);
  });

  it("does not say of a supply what it says of a signal", () => {
    const of = (rule: string) => evidenceSentences(all.find((f) => f.rule === rule)!).join(" ");
    expect(of("power.range")).toMatch(/^At the lowest .* V stand there\. At the highest .* V stand there\./);
    expect(of("power.brownout")).toContain("At the peak the supply falls to");
    for (const rule of ["power.range", "power.brownout"]) expect(of(rule)).not.toMatch(/when it arrives/);
    expect(of("led.no-resistor")).toContain("There is no resistor in its way.");
    expect(evidenceSentences({ rule: "load.base-drive", evidence: { forced_gain: "none" } })).toEqual([
      "No current reaches the base at all.",
    ]);
  });
});
