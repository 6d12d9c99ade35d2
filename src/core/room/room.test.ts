import { describe, expect, it } from "vitest";
import {
  applyTell,
  codeFrom,
  CODE_LETTERS,
  EventSchema,
  foldBench,
  FREE,
  readCode,
  TellSchema,
  urgency,
  type Did,
  type Kept,
} from ".";

const STEPS = [1, 2, 3].map((n) => ({ id: `w${n}`, title: `Step ${n}`, sign: n === 3 }));
const at = (s: number) => new Date(1_800_000_000_000 + 1000 * s).toISOString();
const kept = (s: number, did: Did): Kept => ({ id: `event-${s}-${did.kind}`, at: at(s), did });
const wire = (s: number, of: string, done = true) => kept(s, { kind: "tick", list: "wires", of, done });
const check = (s: number, of: string, done: boolean, reading: string) =>
  kept(s, { kind: "tick", list: "checks", of, done, reading });

describe("how far a bench is", () => {
  it("counts steps, names the first that is open, and since when", () => {
    const s = foldBench(STEPS, [wire(5, "w1"), wire(9, "w3")]);
    expect(s).toMatchObject({ done: 2, of: 3, at: { step: 2, title: "Step 2", id: "w2" }, since: at(9) });
    expect(foldBench(STEPS, []).at).toMatchObject({ step: 1 });
    expect(
      foldBench(
        STEPS,
        STEPS.map((x, i) => wire(i, x.id)),
      ).at,
    ).toBeNull();
    expect(foldBench(STEPS, [wire(1, "w1"), wire(2, "w1", false)])).toMatchObject({ done: 0, since: at(1) });
    expect(foldBench(STEPS, [wire(1, "of another plan")])).toMatchObject({ done: 0, since: null });
  });
  it("what comes late is put where it belongs, and the same is not counted twice", () => {
    const early = check(3, "volt A B", false, "0.2 V");
    const late = check(20, "volt A B", true, "3.3 V");
    for (const list of [
      [early, late],
      [late, early],
      [late, early, late],
    ]) {
      const s = foldBench(STEPS, list);
      expect([s.good, s.wrong]).toEqual([1, []]);
    }
    expect(foldBench(STEPS, [early]).wrong).toEqual([{ of: "volt A B", reading: "0.2 V" }]);
    expect(foldBench(STEPS, [early]).entries).toEqual([
      { at: at(3), list: "checks", id: "volt A B", done: false, reading: "0.2 V" },
    ]);
  });
  it("a hand that stays up keeps its time", () => {
    const up = (s: number, why: string) => kept(s, { kind: "hand", up: true, why });
    expect(foldBench(STEPS, [up(4, "help"), up(9, "help me")]).hand).toEqual({ why: "help me", since: at(4) });
    expect(foldBench(STEPS, [up(4, "help"), kept(9, { kind: "hand", up: false, why: "" })]).hand).toBeNull();
  });
  it("who needs the teacher first", () => {
    const a = foldBench(STEPS, [wire(50, "w1")]);
    const b = foldBench(STEPS, [wire(40, "w1"), check(41, "x", false, "1 V")]);
    const c = foldBench(STEPS, [kept(60, { kind: "hand", up: true, why: "" })]);
    const d = foldBench(STEPS, [kept(45, { kind: "hand", up: true, why: "" })]);
    expect([a, b, c, d].sort(urgency)).toEqual([d, c, b, a]);
  });
});

describe("what the teacher tells", () => {
  const tell = (c: typeof FREE, d: unknown, bench = 1) =>
    applyTell(c, TellSchema.parse({ bench, do: d }).do, bench, at(1));
  it("holds until something else is told, each with a number of its own", () => {
    const one = tell(FREE, { kind: "hint", text: " look at ground " });
    expect(one).toMatchObject({ rev: 1, hint: { text: "look at ground" } });
    const two = tell(tell(one, { kind: "freeze", on: true }), { kind: "sign", step: "w3" });
    expect(two).toMatchObject({ rev: 3, frozen: true, signed: ["w3"] });
    expect(tell(two, { kind: "sign", step: "w3" }).signed).toEqual(["w3"]);
    expect(tell(two, { kind: "hint", text: "" }).hint).toBeNull();
  });
  it("one fault for all, or each its own", () => {
    const same = [1, 2, 3].map((n) => tell(FREE, { kind: "fault", fault: { level: "visible", seed: 7 } }, n).fault);
    expect(same).toEqual([1, 2, 3].map(() => ({ level: "visible", seed: 7 })));
    const each = [1, 2, 3].map((n) =>
      tell(FREE, { kind: "fault", fault: { level: "visible", seed: 7, each: true } }, n),
    );
    expect(new Set(each.map((c) => c.fault!.seed)).size).toBe(3);
    expect(tell(each[0]!, { kind: "fault", fault: null }).fault).toBeNull();
  });
  it("is refused where it is nothing that is told", () => {
    for (const bad of [
      { bench: 0, do: { kind: "freeze", on: true } },
      { bench: "all", do: { kind: "shout" } },
      { bench: 1, do: { kind: "hint", text: "x".repeat(301) } },
      { bench: 1, do: { kind: "sign", step: "" }, more: 1 },
    ])
      expect(TellSchema.safeParse(bad).success).toBe(false);
    expect(EventSchema.safeParse({ id: "short", ago_ms: 0, did: { kind: "hand", up: true, why: "" } }).success).toBe(
      false,
    );
    expect(
      EventSchema.safeParse({ id: "12345678", ago_ms: -1, did: { kind: "hand", up: true, why: "" } }).success,
    ).toBe(false);
  });
});

describe("codes", () => {
  it("are five letters, each alike likely, and are read as people type them", () => {
    let n = 0;
    const codes = Array.from({ length: 4000 }, () =>
      codeFrom(() => Uint8Array.from({ length: 8 }, () => ((n = (n * 1103515245 + 12345) & 0x7fffffff) >> 16) & 255)),
    );
    for (const c of codes) expect(readCode(c)).toBe(c);
    const counts = new Map<string, number>();
    for (const ch of codes.join("")) counts.set(ch, (counts.get(ch) ?? 0) + 1);
    expect(counts.size).toBe(CODE_LETTERS.length);
    expect(Math.max(...counts.values()) / Math.min(...counts.values())).toBeLessThan(1.4);
    expect(readCode(" kq-tmz ")).toBe("KQTMZ");
    for (const bad of ["", "KQTM", "KQTMZZ", "KQTAE", "KQTM1", "<b>xx"]) expect(readCode(bad)).toBeNull();
  });
});
