import { describe, expect, it } from "vitest";
import { checklist, wanted } from "../bench";
import { deal } from "../bench/trainer/trainer";
import { runSheet } from "../build";
import { circuitOf, type Circuit } from "../circuit";
import { beginPattern, patternById, PATTERNS } from "../patterns";
import {
  applyEdit,
  LESSON_AIMS,
  LESSON_LEVELS,
  readProject,
  writeProject,
  type LessonAim,
  type LessonLevel,
} from "../project";
import { BOARD5, catalogue, planned, USB } from "../testing";
import { changesSince, itemsOf, lessonOf, questionsOf, type Lesson } from ".";

const AIMS = Object.keys(LESSON_AIMS) as LessonAim[];
const LEVELS = Object.keys(LESSON_LEVELS) as LessonLevel[];
const of = (id: string) => beginPattern(patternById(id, PATTERNS)!, catalogue).project;
const circuit = (id: string): Circuit => circuitOf(of(id), catalogue);
const all = (c: Circuit, level: LessonLevel = "11-14", minutes = 90) => lessonOf(c, { level, minutes, aims: AIMS });
const texts = (l: Lesson) =>
  [
    ...l.steps.flatMap((s) => [s.title, s.says, s.look]),
    ...l.questions.flatMap((q) => [q.ask, q.answer]),
    ...l.risks.flatMap((r) => [r.what, r.where, r.does]),
    ...l.extensions.map((e) => e.says),
  ].join("\n");

describe("a lesson on a plan", () => {
  it.each(PATTERNS.flatMap((p) => LEVELS.map((l) => [`${p.id}, ${l}`, p.id, l] as const)))(
    "%s: every step once, in words; every question answered",
    (_n, id, level) => {
      const c = circuit(id);
      const l = all(c, level);
      expect(l.steps.map((s) => s.step)).toEqual(
        runSheet(c)
          .filter((r) => r.kind !== "row")
          .map((r) => r.step),
      );
      for (const s of l.steps) expect(s.says.length, `step ${s.step}`).toBeGreaterThan(3);
      for (const q of questionsOf(c, level, AIMS)) {
        expect(q.ask, q.id).toMatch(/[?.]$/);
        expect(q.answer, q.id).toMatch(/\S/);
      }
      expect(texts(l)).not.toMatch(/undefined|NaN|Infinity|null|\[object/);
      expect(new Set(l.questions.map((q) => q.id)).size).toBe(l.questions.length);
      expect(l.questions[0]!.ask).toContain("must never beep");
      expect(all(c, level)).toEqual(l);
    },
  );
  it("time: what fits into a meeting, all of it, and no step parted", () => {
    for (const id of ["light-and-button", "logger-on-battery", "two-boards-talking"])
      for (const minutes of [30, 45, 90, 240]) {
        const l = all(circuit(id), "7-11", minutes);
        const steps = l.sessions.flatMap((s) => s.blocks.flatMap((b) => (b.steps ? [b.steps] : [])));
        expect(steps[0]![0]).toBe(1);
        expect(steps.at(-1)![1]).toBe(l.steps.at(-1)!.step);
        steps.slice(1).forEach(([from], i) => expect(from).toBeGreaterThan(steps[i]![1]));
        for (const s of l.sessions) {
          expect(s.minutes).toBe(s.blocks.reduce((n, b) => n + b.minutes, 0));
          // Only a single thing that takes longer than a meeting may go over; whole minutes may add one for each block.
          if (s.blocks.length > 3) expect(s.minutes).toBeLessThanOrEqual(minutes + s.blocks.length);
          expect(s.blocks[0]!.what).toMatch(/^unpack/);
          expect(s.blocks.at(-1)!.what).toMatch(/pack away$/);
        }
        expect(l.sessions.length).toBe(all(circuit(id), "7-11", minutes).sessions.length);
      }
    expect(all(circuit("light-and-button"), "14+", 240).sessions).toHaveLength(1);
    expect(all(circuit("logger-on-battery"), "7-11", 30).sessions.length).toBeGreaterThan(2);
  });
  it("asks of each aim that the plan has something of, and more when there is more time", () => {
    const c = circuit("knob-and-needle");
    const [short, long] = [30, 300].map((m) => lessonOf(c, { level: "14+", minutes: m, aims: ["circuit", "meter"] }));
    expect(new Set(short!.questions.slice(1).map((q) => q.aim))).toEqual(new Set(["circuit", "meter"]));
    expect(long!.questions.length).toBeGreaterThan(short!.questions.length);
    expect(lessonOf(c, { level: "14+", minutes: 90, aims: ["meter"] }).faults).toEqual([]);
  });
});

describe("numbers of the questions", () => {
  it("who adds up what is told gets the answer", () => {
    let sums = 0;
    for (const p of PATTERNS)
      for (const level of LEVELS)
        for (const q of questionsOf(circuit(p.id), level, AIMS))
          for (const [, left, right] of (q.working ?? "").matchAll(
            /((?:-?[\d.]+(?: (?:mA|V|Ω))? [-+/×] )+-?[\d.]+(?: (?:mA|V|Ω))?) = (-?[\d.]+)/g,
          )) {
            const [first, ...rest] = left!.replace(/ (mA|V|Ω)/g, "").split(/ ([-+/×]) /);
            let value = Number(first);
            for (let i = 0; i < rest.length; i += 2) {
              const x = Number(rest[i + 1]);
              value = { "+": value + x, "-": value - x, "/": value / x, "×": value * x }[rest[i] as "+"]!;
            }
            // Volts by ohms are amperes, told in thousandths.
            const told = left!.includes(" V / ") ? value * 1000 : value;
            expect(Math.abs(told - Number(right)), `${p.id}: ${q.working}`).toBeLessThanOrEqual(
              Math.abs(told) < 20 ? 0.051 : 0.51,
            );
            sums++;
          }
    expect(sums).toBeGreaterThan(100);
  });
  const ask = (id: string, level: LessonLevel, aim: LessonAim) => questionsOf(circuit(id), level, [aim]);
  it("series: Ohm's law at the lamp, worked by hand", () => {
    // 5 V less the 0.05 V of the cable, a red light's 2 V, 390 Ω before it: 2.95 V and 7.56 mA.
    const [first, twice] = ask("light-and-button", "11-14", "series-parallel");
    expect(first!.ask).toContain("4.95 V");
    expect(first!.ask).toContain("keeps 2 V");
    expect(first!.ask).toContain("390 Ω");
    expect(first!.answer).toBe("About 7.6 mA.");
    expect(twice!.answer).toBe("780 Ω together: about 3.8 mA.");
    const old = ask("light-and-button", "14+", "series-parallel")[1]!;
    expect(old.answer).toMatch(/^In series 780 Ω: 3\.8 mA\. In parallel 195 Ω: 15\.1 mA/);
  });
  it("debouncing: three presses of six closings, looks of 5 ms in 20 ms", () => {
    const [count, looks] = ask("light-and-button", "14+", "debouncing");
    expect(count!.answer).toBe("18, and 3: all closings lie within the wait.");
    expect(looks!.answer).toBe("25 ms: it may begin just after a look. At most 20 a second.");
  });
  it("a bus: nine bits of 10 µs, eighteen with the address", () => {
    expect(ask("logger-on-battery", "11-14", "bus").find((q) => q.id.includes("byte"))!.answer).toBe("90 µs.");
    expect(ask("logger-on-battery", "14+", "bus").find((q) => q.id.includes("byte"))!.answer).toMatch(/^180 µs/);
  });
  it("meter: the same as the bench expects", () => {
    for (const id of ["light-and-button", "parallel-display", "isolated-serial-line"]) {
      const list = checklist(circuit(id));
      for (const q of ask(id, "7-11", "meter")) {
        const item = list.find((i) => q.id === `meter: reads ${i.id}`)!;
        expect(q.answer.toLowerCase()).toBe(`${wanted(item).toLowerCase()}.`);
      }
    }
  });
  it("levels: a contact to ground is high when it is left alone", () => {
    expect(ask("light-and-button", "7-11", "levels")[0]!.answer).toMatch(/^Left alone: high.*Pressed: low/);
    const down = planned([BOARD5, USB, { ref: "SW1", part: "discrete/button", label: "Go" }], {
      houseRules: { buttonPull: "external-down" },
    });
    expect(questionsOf(circuitOf(down, catalogue), "7-11", ["levels"])[0]!.answer).toMatch(
      /^Left alone: low.*Pressed: high/,
    );
  });
  it("faults: the likeliest explains what is told", () => {
    for (const q of ask("light-and-button", "14+", "fault-finding")) expect(q.answer).toMatch(/Next: .*\? Sound: /);
  });
});

describe("what goes with a lesson", () => {
  it("risks: those of this plan, with where, and never without the rest", () => {
    const ids = (id: string, level: LessonLevel = "11-14") => all(circuit(id), level).risks.map((r) => r.id);
    expect(ids("strip-with-cap")).toEqual(expect.arrayContaining(["mains", "many-amperes", "bright"]));
    expect(ids("light-and-button")).not.toContain("mains");
    expect(ids("light-and-button", "7-11")).toContain("small");
    expect(ids("alternating-lamps")).toContain("magnet");
    expect(ids("two-servos")).toContain("moving");
    expect(ids("logger-on-battery")).toContain("solder");
    const lithium = applyEdit(of("light-and-button"), { type: "addPart", part: "supply/li-ion-1s" }, catalogue);
    expect(all(circuitOf(lithium, catalogue)).risks.map((r) => r.id)).toContain("lithium");
  });
  it("kits and faults for every bench; the key is what the trainer deals", () => {
    const p = applyEdit(of("keypad"), { type: "setKit", kit: { benches: 12 } }, catalogue);
    const c = circuitOf(p, catalogue);
    const l = all(c);
    expect(l.kits).toHaveLength(12);
    expect(l.kits[0]!.lines.find((k) => k.what.startsWith("Keypad"))!.number).toBe(1);
    expect(l.faults.map((f) => f.bench)).toEqual(Array.from({ length: 12 }, (_, i) => i + 1));
    expect(new Set(l.faults.map((f) => f.fault)).size).toBeGreaterThan(4);
    for (const f of l.faults) {
      const dealt = deal(c, f.level as "visible", f.seed)!;
      expect(f.fault).toBe(dealt.faults.map((x) => x.says).join("; and "));
      expect(f.best).toBeGreaterThan(0);
    }
  });
  it("a pattern's ways to go on come first", () => {
    const l = all(circuit("dry-plant"));
    expect(l.extensions.slice(0, 3).map((e) => e.says)).toEqual(
      patternById("dry-plant", PATTERNS)!.onward.map((o) => o.says),
    );
    expect(l.extensions.length).toBeGreaterThan(3);
  });
});

describe("what changed since it was printed", () => {
  const p = of("light-and-button");
  const printed = itemsOf(all(circuitOf(p, catalogue)));
  it("nothing, when nothing did", () => {
    expect(changesSince(printed, itemsOf(all(circuitOf({ ...p }, catalogue))))).toEqual([]);
  });
  it("a wire that moved is told with the sheets that it stands on", () => {
    const link = p.links.find((l) => [l.from, l.to].includes("SW1.1"))!;
    const from = link.from === "SW1.1" ? link.to : link.from;
    const moved = applyEdit(p, { type: "moveLink", end: "SW1.1", from, to: "B1.D11" }, catalogue);
    const list = changesSince(printed, itemsOf(all(circuitOf(moved, catalogue))));
    expect(list.some((x) => x.section === "learner sheets and slides" && x.says.includes("printed D11"))).toBe(true);
    expect(list.some((x) => x.section === "questions and answers")).toBe(true);
    expect(list.some((x) => x.section === "risk note")).toBe(false);
  });
  it("is kept in the project, goes through its file, and can be forgotten", () => {
    const made = { at: "2026-11-29T20:00:00Z", plan: "ABCDEFGH", items: printed };
    const kept = applyEdit(p, { type: "setLesson", lesson: { minutes: 45 }, made }, catalogue);
    expect(kept.lesson).toMatchObject({ level: "11-14", minutes: 45, made });
    const back = readProject(writeProject(kept), catalogue);
    expect(back.ok && back.project.lesson).toEqual(kept.lesson);
    const forgot = applyEdit(kept, { type: "setLesson", lesson: {}, made: null }, catalogue);
    expect(forgot.lesson).toEqual({ level: "11-14", minutes: 45, aims: ["circuit", "meter", "fault-finding"] });
  });
  it("hostile labels stay what they are", () => {
    const odd = applyEdit(p, { type: "setLabel", ref: "SW1", label: "__proto__ =1+1 ${x}" }, catalogue);
    const l = all(circuitOf(odd, catalogue));
    expect(texts(l)).toContain("__proto__ =1+1 ${x}");
    expect(Object.keys(itemsOf(l)).length).toBeGreaterThan(20);
  });
});
