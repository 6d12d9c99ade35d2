import fc from "fast-check";
import fs from "node:fs";
import jsQR from "jsqr";
import { deflateSync, strToU8 } from "fflate";
import { describe, expect, it } from "vitest";
import type { Drawing } from "../drawing";
import { beginPattern, PATTERNS } from "../patterns";
import { readProject } from "../project";
import { catalogue } from "../testing";
import { codeOf, fromLetters, MARK, MOST_LETTERS, packPlan, planOnly, toLetters, unpackPlan } from ".";

const SCALE = 4;
/** The code as a camera would have it: black and white points. */
function photo(d: Drawing): { data: Uint8ClampedArray; side: number } {
  const side = d.width * SCALE;
  const data = new Uint8ClampedArray(side * side * 4).fill(255);
  const path = d.shapes.find((s) => s.kind === "path")!;
  for (const m of (path.kind === "path" ? path.d : "").matchAll(/M(\d+) (\d+)h(\d+)/g))
    for (let y = Number(m[2]) * SCALE; y < (Number(m[2]) + 1) * SCALE; y++)
      for (let x = Number(m[1]) * SCALE; x < (Number(m[1]) + Number(m[3])) * SCALE; x++)
        data.fill(0, 4 * (y * side + x), 4 * (y * side + x) + 3);
  return { data, side };
}
const read = (d: Drawing) => {
  const { data, side } = photo(d);
  return jsQR(data, side, side)?.data;
};

describe("a plan as text", () => {
  it("letters by hand, and both ways; none that a message changes", () => {
    // 0x4142 = 16706 = 19 + 38·41 + 9·41²; 0x21 = 33.
    expect(toLetters(strToU8("AB"))).toBe("J.9");
    expect(toLetters(strToU8("!"))).toBe("X0");
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 200 }), (b) => {
        const text = toLetters(b);
        expect(text).toMatch(/^[0-9A-Z$./:-]*$/);
        expect(fromLetters(text)).toEqual(b);
      }),
    );
    for (const bad of ["a", "GG ", ":::", "A", "ab", "::"]) expect(fromLetters(bad), bad).toBeNull();
  });
  it("any one letter that is other, or two that changed places, is told and never another plan", () => {
    const text = packPlan(beginPattern(PATTERNS[0]!, catalogue).project);
    for (let i = MARK.length; i < text.length; i += 7) {
      const other = text[i] === "A" ? "B" : "A";
      expect(unpackPlan(text.slice(0, i) + other + text.slice(i + 1), catalogue).ok, `letter ${i}`).toBe(false);
      if (text[i] !== text[i + 1] && i + 1 < text.length)
        expect(
          unpackPlan(text.slice(0, i) + text[i + 1] + text[i] + text.slice(i + 2), catalogue).ok,
          `letters ${i} and the next`,
        ).toBe(false);
    }
  });
  it.each(PATTERNS.map((p) => [p.id, p] as const))("%s: comes back whole, and fits a code that is read", (_n, p) => {
    const { project } = beginPattern(p, catalogue);
    const text = packPlan(project);
    const back = unpackPlan(text, catalogue);
    expect(back.ok && back.project).toEqual(planOnly(project));
    expect(text.length).toBeLessThan(MOST_LETTERS / 2);
    expect(read(codeOf(text)!)).toBe(text);
  });
  it("demos fit, too, and what belongs to one bench stays at home", () => {
    for (const f of fs.readdirSync(new URL("../../../demo", import.meta.url))) {
      const r = readProject(fs.readFileSync(new URL(`../../../demo/${f}`, import.meta.url), "utf8"), catalogue);
      if (!r.ok) throw new Error(f);
      const kept = { ...r.project, bench: [{ at: "x", list: "log" as const, id: "a", done: true, reading: "5" }] };
      const back = unpackPlan(packPlan(kept), catalogue);
      expect(back.ok && back.project.bench).toEqual([]);
      expect(back.ok && back.project.links).toEqual(r.project.links);
      expect(codeOf(packPlan(kept))).not.toBeNull();
    }
  });
  it("line breaks that a message puts in do no harm; a cut, a wrong letter, another text are told", () => {
    const text = packPlan(beginPattern(PATTERNS[0]!, catalogue).project);
    const broken = ` \n${text.replace(/(.{60})/g, "$1\r\n")}\n`;
    expect(unpackPlan(broken, catalogue).ok).toBe(true);
    expect(unpackPlan(text.toLowerCase().replace(/(.{9})/g, "$1  "), catalogue).ok).toBe(true);
    const why = (t: string) => {
      const r = unpackPlan(t, catalogue);
      return r.ok ? "" : r.problems[0]!.message;
    };
    expect(why(text.slice(0, -30))).toMatch(/cut off|missing/);
    expect(why(`${text.slice(0, 50)}é${text.slice(51)}`)).toMatch(/missing or other/);
    expect(why("hello")).toBe(`a plan as text begins with ${MARK}`);
    expect(why(MARK)).toMatch(/cut off/);
  });
  it("a few letters that claim to hold gigabytes are refused without being laid out", () => {
    const bomb = MARK + toLetters(deflateSync(new Uint8Array(30_000_000), { level: 9 }));
    const t = performance.now();
    expect(unpackPlan(bomb, catalogue).ok).toBe(false);
    expect(performance.now() - t).toBeLessThan(2000);
    expect(unpackPlan(MARK + toLetters(deflateSync(strToU8('{"format":1}'))), catalogue).ok).toBe(false);
  });
  it("what is too long has no code", () => {
    expect(codeOf("A".repeat(MOST_LETTERS))).not.toBeNull();
    expect(codeOf("A".repeat(MOST_LETTERS + 1))).toBeNull();
  });
});
