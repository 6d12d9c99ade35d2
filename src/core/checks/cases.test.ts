import fs from "node:fs";
import { describe, expect, it } from "vitest";
import { applyEdit } from "../project";
import { catalogue, check } from "../testing";
import { RULES } from ".";
import { cases, quiet } from "./cases";
import { FIX_PARTS } from "./fix-parts";
import { handbook } from "./handbook";
import type { Project } from "../project";

const loud = (p: Project) => check(p).filter((f) => f.severity !== "note");
const names = (p: Project) => [...new Set(loud(p).map((f) => `${f.severity} ${f.rule}`))];

describe("sound projects are quiet", () => {
  it.each(quiet.map((q) => [q.name, q.project] as const))("%s", (_name, project) => {
    const p = project();
    // Everything is wired: silence must not come from missing wires.
    expect(check(p).filter((f) => f.rule === "part.unwired")).toEqual([]);
    expect(loud(p).map((f) => `${f.severity} ${f.rule}: ${f.message}`)).toEqual([]);
  });
});

describe("a planted mistake is found, and nothing else is said", () => {
  it.each(cases.map((c) => [c.rule, c.says, c] as const))("%s: %s", (_rule, _says, c) => {
    const found = check(c.bad()).filter((f) => f.rule === c.rule);
    expect(found.map((f) => f.severity)).toContain(c.severity);
    const own = c.severity === "note" ? [] : [`${c.severity} ${c.rule}`];
    expect(names(c.bad()).sort()).toEqual([...own, ...(c.also ?? [])].sort());
    // Every finding says where, in words, and with its numbers.
    for (const f of found) {
      expect(f.at.length).toBeGreaterThan(0);
      expect(f.message.length).toBeGreaterThan(20);
      expect(f.message).not.toMatch(/undefined|NaN|Infinity|\[object/);
      expect(Object.keys(f.evidence).length).toBeGreaterThan(0);
    }
  });
});

describe("the same project with the mistake just not made", () => {
  it.each(cases.map((c) => [c.rule, c.says, c] as const))("%s: not %s", (_rule, _says, c) => {
    expect(check(c.near()).filter((f) => f.rule === c.rule)).toEqual([]);
    expect(names(c.near())).toEqual([]);
  });
});

describe("fixes mend what they are offered for", () => {
  it.each(cases.filter((c) => c.fix).map((c) => [c.rule, c.fix!, c] as const))("%s: %s", (_rule, id, c) => {
    const p = c.bad();
    const fix = check(p)
      .find((f) => f.rule === c.rule)!
      .fixes.find((x) => x.id.startsWith(id));
    expect(fix, `no fix ${id}`).toBeDefined();
    const mended = fix!.edits.reduce((q, e) => applyEdit(q, e, catalogue), p);
    expect(check(mended).filter((f) => f.rule === c.rule)).toEqual([]);
    expect(names(mended)).toEqual([]);
  });
});

describe("the collection of cases", () => {
  it("has one for every rule", () => {
    const known = new Set(cases.map((c) => c.rule));
    expect([...new Set(RULES.map((r) => r.rule))].filter((r) => !known.has(r))).toEqual([]);
  });
  it("has twelve sound projects, and forty faulty ones with one finding above a note", () => {
    expect(quiet.length).toBeGreaterThanOrEqual(12);
    expect(cases.filter((c) => c.severity !== "note" && !c.also?.length).length).toBeGreaterThanOrEqual(40);
  });
  it("knows every part that a fix may bring in", () => {
    const brought = cases.flatMap((c) =>
      check(c.bad()).flatMap((f) =>
        f.fixes.flatMap((x) =>
          x.edits.flatMap((e) =>
            e.type === "addPart" || e.type === "changePart"
              ? [e.part]
              : e.type === "setCompanion" && typeof e.value === "object" && e.value?.part
                ? [e.value.part]
                : [],
          ),
        ),
      ),
    );
    expect(brought.length).toBeGreaterThan(5);
    for (const id of new Set(brought)) expect(FIX_PARTS, id).toContain(id);
  });
  it("is what the handbook page is written from", () => {
    const page = fs.readFileSync(new URL("../../../docs/rules.md", import.meta.url), "utf8");
    expect(page).toBe(handbook(RULES, cases));
    for (const r of RULES) expect(page).toContain(`### \`${r.rule}\``);
  });
});
