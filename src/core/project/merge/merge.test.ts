import fc from "fast-check";
import fs from "node:fs";
import { describe, expect, it } from "vitest";
import { assign } from "../../plan/assign";
import { BOARD3, catalogue, make, planned, USB } from "../../testing";
import { applyEdit } from "../edits";
import { loadProject, readProject } from "../load";
import type { Project } from "../schema";
import { mergeProjects } from ".";
import { canon } from "./three-way";

const demo = (name: string): Project => {
  const r = readProject(
    fs.readFileSync(new URL(`../../../../demo/${name}.lattice.json`, import.meta.url), "utf8"),
    catalogue,
  );
  if (!r.ok) throw new Error(name);
  return r.project;
};
const lamps = () =>
  planned([
    BOARD3,
    USB,
    { ref: "SW1", part: "discrete/button", label: "Go" },
    { ref: "LED1", part: "discrete/led-red", label: "Lamp" },
    { ref: "M1", part: "module/bme280", label: "Air" },
  ]);
/** The same whatever order its lists have. */
const loose = (p: Project) => {
  const sorted = <T>(list: readonly T[]) => list.map(canon).sort();
  return canon({
    ...p,
    parts: sorted(p.parts),
    links: sorted(p.links),
    bench: sorted(p.bench),
    acknowledged: sorted(p.acknowledged),
    isolated: sorted(p.isolated),
    rules: p.rules && sorted(p.rules),
  });
};
const accepted = (p: Project) => {
  const r = loadProject(JSON.parse(JSON.stringify(p)), catalogue);
  expect(r.ok ? [] : r.problems).toEqual([]);
};

/** Changes that have nothing to do with one another. */
const CHANGES: ((p: Project) => Project)[] = [
  (p) => ({ ...p, title: "Another title" }),
  (p) => ({ ...p, brief: { ...p.brief, goal: "To see it in the dark" } }),
  (p) => ({ ...p, brief: { ...p.brief, notes: "Bench three" } }),
  (p) => ({ ...p, houseRules: { ...p.houseRules, strips: "careful" as never } }),
  (p) => ({ ...p, parts: p.parts.map((x) => (x.ref === "SW1" ? { ...x, label: "Start" } : x)) }),
  (p) => ({ ...p, parts: p.parts.map((x) => (x.ref === "LED1" ? { ...x, label: "Signal" } : x)) }),
  (p) => ({ ...p, parts: p.parts.map((x) => (x.ref === "LED1" ? { ...x, wire_cm: 40 } : x)) }),
  (p) => ({
    ...p,
    parts: p.parts.map((x) => (x.ref === "M1" ? { ...x, options: { ...x.options, address: "0x77" } } : x)),
  }),
  (p) => ({ ...p, parts: [...p.parts, { ref: "M7", part: "module/ds3231" }] }),
  (p) => ({ ...p, parts: [...p.parts, { ref: "R9", part: "discrete/ldr" }] }),
  (p) => ({
    ...p,
    links: p.links.map((l) => (l.from === "LED1.A" || l.to === "LED1.A" ? { ...l, colour: "violet" } : l)),
  }),
  (p) => ({ ...p, code: { ...p.code, sketch: { ...p.code.sketch, loop: "blink();" } } }),
  (p) => ({ ...p, code: { ...p.code, sketch: { ...p.code.sketch, setup: "begin();" } } }),
  (p) => ({ ...p, bench: [...p.bench, { at: "2026-11-01T10:00:00.000Z", list: "wires", id: "w1", done: true }] }),
  (p) => ({
    ...p,
    bench: [...p.bench, { at: "2026-11-01T10:01:00.000Z", list: "log", id: "c1", done: true, reading: "3.3 V" }],
  }),
  (p) => ({ ...p, drawer: { ...p.drawer, parts: { ...p.drawer.parts, "module/bme280": 4 } } }),
  (p) => ({ ...p, drawer: { ...p.drawer, resistors_ohm: [...p.drawer.resistors_ohm, 333] } }),
  (p) => ({ ...p, acknowledged: [...p.acknowledged, { rule: "net.float", at: ["SW1.1"], reason: "seen" }] }),
  (p) => ({ ...p, kit: { benches: 6, spares_percent: {} } }),
  (p) => ({ ...p, rules: [{ when: { ref: "SW1", out: "pressed", is: 1 }, do: { ref: "LED1", act: "on" } }] }),
];
const all = (p: Project, list: readonly number[]) => list.reduce((q, i) => CHANGES[i]!(q), p);

describe("two changes of one project, made apart", () => {
  it("come together whole, in either order, whatever the two sides changed, and nothing has to be asked", () => {
    const base = lamps();
    const places = CHANGES.map((_, i) => i);
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom("mine", "theirs", "neither"), { minLength: places.length, maxLength: places.length }),
        (who) => {
          const [a, b] = ["mine", "theirs"].map((s) => places.filter((i) => who[i] === s)) as [number[], number[]];
          const [mine, theirs] = [all(base, a), all(base, b)];
          const r = mergeProjects(base, mine, theirs);
          expect(r.clashes).toEqual([]);
          expect(loose(r.project)).toBe(loose(all(base, [...a, ...b])));
          expect(loose(mergeProjects(base, theirs, mine).project)).toBe(loose(r.project));
        },
      ),
      { numRuns: 150 },
    );
  });
  it.each(["rain-barrel", "moss-terrarium", "beehive-scale"])(
    "%s: one side alone is that side; the same twice is the same",
    (name) => {
      const base = demo(name);
      const gone = base.parts.find((p) => p.part.startsWith("module/"))!.ref;
      const changed = applyEdit({ ...base, title: "Other" }, { type: "removePart", ref: gone }, catalogue);
      for (const [m, t] of [
        [changed, base],
        [base, changed],
        [changed, changed],
      ] as const) {
        const r = mergeProjects(base, m, t);
        expect(r.clashes).toEqual([]);
        expect(loose(r.project)).toBe(loose(changed));
        accepted(r.project);
      }
    },
  );
  it("the same value changed on both sides is asked for, and the choice counts", () => {
    const base = lamps();
    const [mine, theirs] = [
      { ...base, title: "A" },
      { ...base, title: "B" },
    ];
    const r = mergeProjects(base, mine, theirs);
    expect(r.clashes).toEqual([{ key: "title", what: "the title", mine: "A", theirs: "B" }]);
    expect(r.project.title).toBe("B");
    expect(mergeProjects(base, mine, theirs, { title: "mine" }).project.title).toBe("A");
    expect(mergeProjects(base, mine, theirs, { title: "theirs" }).project.title).toBe("B");
  });
  it("two pins for the same wire are never both wired", () => {
    const base = lamps();
    const moved = (to: string): Project => ({
      ...base,
      links: base.links.map((l) => (l.from.startsWith("LED1.A") ? { ...l, to } : l)),
    });
    const wire = base.links.find((l) => l.from === "LED1.A")!;
    expect(wire).toBeDefined();
    const r = mergeProjects(base, moved("B1.GP14"), moved("B1.GP15"));
    expect(r.clashes).toMatchObject([{ what: "the wires of LED1.A", mine: "to B1.GP14", theirs: "to B1.GP15" }]);
    expect(r.project.links.filter((l) => l.from === "LED1.A")).toHaveLength(1);
    expect(mergeProjects(base, moved("B1.GP14"), base).clashes).toEqual([]);
  });
  it("a wire is the same whichever way it is written, and two boards' pins on one part's pin are asked for", () => {
    const open: Project = { ...lamps(), links: [] };
    const wired = (from: string, to: string): Project => ({ ...open, links: [{ from, to }] });
    const same = mergeProjects(open, wired("LED1.A", "B1.GP14"), wired("B1.GP14", "LED1.A"));
    expect([same.clashes, same.project.links]).toEqual([[], [{ from: "LED1.A", to: "B1.GP14" }]]);
    // One that only one side has stays as it was written there.
    expect(mergeProjects(open, open, wired("B1.GP14", "LED1.A")).project.links).toEqual([
      { from: "B1.GP14", to: "LED1.A" },
    ]);
    const two = mergeProjects(open, wired("LED1.A", "B1.GP14"), wired("B1.GP15", "LED1.A"));
    expect(two.clashes.map((c) => [c.mine, c.theirs])).toEqual([["to B1.GP14", "to B1.GP15"]]);
    expect(two.project.links).toHaveLength(1);
  });
  it("parts of the same reference that were put in on both sides both stay, with all that hangs on them", () => {
    const base = lamps();
    const withPart = (part: string, label: string): Project => {
      const p = assign({ ...base, parts: [...base.parts, { ref: "M2", part, label }] }, catalogue).project;
      return { ...p, acknowledged: [{ rule: "x.y", at: ["M2.SDA"], reason: "M2 stays M2 in words" }] };
    };
    const r = mergeProjects(base, withPart("module/ds3231", "Clock"), withPart("module/bh1750", "Light"));
    const [clock, light] = ["Clock", "Light"].map((l) => r.project.parts.find((p) => p.label === l)!);
    expect(light).toMatchObject({ ref: "M2", part: "module/bh1750" });
    expect(clock).toMatchObject({ ref: "M3", part: "module/ds3231" });
    expect(r.project.links.some((l) => l.from === "M3.SDA")).toBe(true);
    expect(r.project.acknowledged.find((a) => a.at[0] === "M3.SDA")!.reason).toBe("M2 stays M2 in words");
    expect(r.notes).toEqual(["M2 was put in on both sides: the one from here is M3 now."]);
    accepted(r.project);
  });
  it("a part that was taken out here and changed there is asked for; a wire to it goes with it", () => {
    const base = lamps();
    const out = (p: Project): Project => ({
      ...p,
      parts: p.parts.filter((x) => x.ref !== "M1"),
      links: p.links.filter((l) => !l.from.startsWith("M1.") && !l.to.startsWith("M1.")),
    });
    const changed: Project = { ...base, parts: base.parts.map((p) => (p.ref === "M1" ? { ...p, wire_cm: 90 } : p)) };
    const r = mergeProjects(base, out(base), changed);
    expect(r.clashes.map((c) => [c.key, c.mine])).toEqual([["part M1", "taken out"]]);
    const gone = mergeProjects(base, out(base), changed, { "part M1": "mine" });
    expect(gone.project.parts.some((p) => p.ref === "M1")).toBe(false);
    accepted(gone.project);
    // Wired anew there, and the part is gone here.
    const wired: Project = { ...base, links: [...base.links, { from: "SW1.1", to: "M1.SDA" }] };
    const left = mergeProjects(base, out(base), wired);
    expect(left.project.links.some((l) => l.to === "M1.SDA")).toBe(false);
    expect(left.notes.join(" ")).toContain("SW1.1 to M1.SDA: left out");
    accepted(left.project);
  });
  it("sentences: new ones of both sides stay, one that both changed is asked for", () => {
    const rule = (n: number) => ({ when: { every_s: n }, do: { ref: "LED1", act: "toggle" } }) as const;
    const base: Project = { ...lamps(), rules: [rule(1)] };
    const both = mergeProjects(base, { ...base, rules: [rule(1), rule(2)] }, { ...base, rules: [rule(3), rule(1)] });
    expect(both.clashes).toEqual([]);
    expect(both.project.rules).toHaveLength(3);
    const r = mergeProjects(base, { ...base, rules: [rule(4)] }, { ...base, rules: [rule(5)] }, { rules: "mine" });
    expect(r.clashes.map((c) => c.key)).toEqual(["rules"]);
    expect(r.project.rules).toEqual([rule(4)]);
  });
  it("names of every object are names like any other", () => {
    const base = make([BOARD3]);
    const odd = (k: string): Project => ({
      ...base,
      drawer: { ...base.drawer, parts: JSON.parse(`{"${k}": 1}`) as Record<string, number> },
    });
    const r = mergeProjects(base, odd("constructor"), odd("__proto__"));
    expect(Object.keys(r.project.drawer.parts).sort()).toEqual(["__proto__", "constructor"]);
    expect(r.clashes).toEqual([]);
    expect(({} as Record<string, unknown>).polluted).toBeUndefined();
  });
  it("changes nothing of what it is given", () => {
    const base = lamps();
    const [mine, theirs] = [all(base, [0, 4, 8]), all(base, [1, 5, 9])];
    const before = canon([base, mine, theirs]);
    mergeProjects(base, mine, theirs, { title: "mine" });
    expect(canon([base, mine, theirs])).toBe(before);
  });
});
