import { describe, expect, it } from "vitest";
import { beginPattern, patternById, PATTERNS } from "../patterns";
import { applyEdit, HOUSE_RULES, readProject, writeProject } from "../project";
import { toSvg } from "../drawing";
import { catalogue, planned, BOARD5, USB } from "../testing";
import { choicesOf, effectsOf, RULE_KEYS, RULES, schoolOf, WORDS } from ".";

const bell = beginPattern(patternById("light-and-button", PATTERNS)!, catalogue).project;
const effect = (p: typeof bell, key: keyof typeof HOUSE_RULES, value: string) =>
  effectsOf(p, key, catalogue).find((e) => e.value === value)!;

describe("house rules, explained", () => {
  it.each(RULE_KEYS.map((k) => [k]))(
    "%s: every school with its costs, what it buys, and a picture of its own",
    (key) => {
      const list = choicesOf(key).map((x) => ({ ...x, school: schoolOf(key, x.value) }));
      expect(list.map((x) => x.value)).toEqual([...HOUSE_RULES[key]]);
      expect(list.length).toBeGreaterThan(1);
      const pictures = list.map(({ school }) => toSvg(school.picture(), "school"));
      expect(new Set(pictures).size).toBe(list.length);
      for (const { says, school } of list) {
        for (const t of [says, school.costs, school.buys, school.who]) expect(t.length).toBeGreaterThan(4);
        const d = school.picture();
        expect(d.shapes.length).toBeGreaterThan(3);
        // Nothing is drawn outside of the picture.
        for (const s of d.shapes)
          if (s.kind === "rect") {
            expect(s.x).toBeGreaterThanOrEqual(0);
            expect(s.x + s.w).toBeLessThanOrEqual(d.width);
            expect(s.y + s.h).toBeLessThanOrEqual(d.height);
          }
      }
      expect(WORDS[key].question).toMatch(/\?$/);
      expect(RULES[key].why).toMatch(/\.$/);
    },
  );
  it("what a choice changes here: a resistor for each button, two parts for each smoothed contact", () => {
    expect(effect(bell, "buttonPull", "internal-up")).toMatchObject({ now: true, says: "in force" });
    const down = effect(bell, "buttonPull", "external-down");
    const now = effect(bell, "buttonPull", "internal-up");
    expect(down.parts - now.parts).toBe(1);
    expect(down.says).toMatch(/^\+1 part/);
    const rc = effect(bell, "bounce", "rc");
    expect(rc.parts - now.parts).toBe(2);
    expect(rc.verdict).toBe("Ready to wire");
    expect(effect(bell, "ledResistorSide", "cathode").parts).toBe(now.parts);
    expect(effect(bell, "programStyle", "delays").says).toBe("changes nothing here");
  });
  it("leaves the project alone, and an empty one says so", () => {
    const before = writeProject(bell);
    effectsOf(bell, "sharing", catalogue);
    expect(writeProject(bell)).toBe(before);
    for (const e of effectsOf(planned([BOARD5, USB]), "strips", catalogue))
      expect(e.says).toMatch(/^(in force|changes nothing here)$/);
  });
});

describe("rules that a class has settled", () => {
  const fixed = applyEdit(
    bell,
    { type: "fixHouseRules", fixed: { by: "Class 7b", keys: ["buttonPull", "bounce"] } },
    catalogue,
  );
  it("stay as they are, whatever is changed along with them, until they are let free", () => {
    const tried = applyEdit(
      fixed,
      { type: "setHouseRules", rules: { buttonPull: "external-up", sharing: "splice" } },
      catalogue,
    );
    expect(tried.houseRules).toEqual({ ...bell.houseRules, sharing: "splice" });
    const free = applyEdit(tried, { type: "fixHouseRules", fixed: null }, catalogue);
    expect("fixedRules" in free).toBe(false);
    expect(
      applyEdit(free, { type: "setHouseRules", rules: { buttonPull: "external-up" } }, catalogue).houseRules.buttonPull,
    ).toBe("external-up");
  });
  it("go with the file", () => {
    const back = readProject(writeProject(fixed), catalogue);
    expect(back.ok && back.project.fixedRules).toEqual({ by: "Class 7b", keys: ["buttonPull", "bounce"] });
    const odd = JSON.parse(writeProject(fixed)) as { fixedRules: { keys: string[] } };
    odd.fixedRules.keys = ["taste"];
    const bad = readProject(JSON.stringify(odd), catalogue);
    expect(bad.ok ? [] : bad.problems.map((p) => p.path)).toEqual(["fixedRules/keys/0"]);
  });
});
