import fs from "node:fs";
import { describe, expect, it } from "vitest";
import { circuitOf, type Circuit } from "../../circuit";
import { assign, isPlanned } from "../../plan/assign";
import { denseList } from "../../plan/assign/dense";
import { readProject } from "../../project";
import { BOARD3, BOARD5, catalogue, make, planned, USB } from "../../testing";
import { propose, type Layout } from "../breadboard";
import { carrierPlans } from "./carrier";

const demo = (name: string): Circuit => {
  const url = new URL(`../../../../demo/${name}.lattice.json`, import.meta.url);
  const r = readProject(fs.readFileSync(url, "utf8"), catalogue);
  if (!r.ok) throw new Error(JSON.stringify(r.problems));
  return circuitOf(r.project, catalogue);
};
const list = (...parts: object[]) => circuitOf(planned([BOARD3, USB, ...parts]), catalogue);
const CASES: [string, () => Circuit][] = [
  ["moss terrarium", () => demo("moss-terrarium")],
  ["beehive scale", () => demo("beehive-scale")],
  ["rain barrel", () => demo("rain-barrel")],
  ["lights", () => list({ ref: "D1", part: "discrete/led-rgb-cc" }, { ref: "D2", part: "discrete/led-red" })],
  [
    "a chip, a knob and a button on another board",
    () =>
      circuitOf(
        planned([
          BOARD5,
          USB,
          { ref: "M1", part: "module/74hc165" },
          { ref: "M2", part: "discrete/potentiometer" },
          { ref: "SW1", part: "discrete/button" },
        ]),
        catalogue,
      ),
  ],
];

/** A second look by hand: walks each strip from hole to hole and collects which nets stand on it. */
function netsOnPieces(c: Circuit, l: Layout) {
  const [plan] = carrierPlans(c, l);
  const cut = new Set(plan!.cuts.map((x) => `${x.row} ${x.column}`));
  return plan!.parts.flatMap((p) =>
    p.pins.map(({ pin, at }) => {
      let left = at.column;
      while (left > 1 && !cut.has(`${at.row} ${left - 1}`)) left--;
      return { strip: `${at.row} ${left}`, net: c.netlist.netOf(`${p.ref}.${pin}`).id };
    }),
  );
}

describe.each(CASES)("boards to solder: %s", (_name, circuit) => {
  const c = circuit();
  const l = propose(c);
  const plans = carrierPlans(c, l);
  it("every net is joined and nothing else, as followed over the copper", () => {
    expect(l.trouble).toEqual([]);
    expect(plans.flatMap((p) => p.trouble)).toEqual([]);
    const nets = new Map<string, string>();
    for (const { strip, net } of netsOnPieces(c, l))
      expect(nets.set(strip, nets.get(strip) ?? net).get(strip)).toBe(net);
  });
  it("cuts no strip at a hole in use, and every leg of the breadboard has its hole", () => {
    for (const p of plans) {
      const used = new Set(p.parts.flatMap((x) => x.pins.map((y) => `${y.at.row} ${y.at.column}`)));
      for (const w of p.wires) for (const e of [w.a, w.b]) if (e) used.add(`${e.row} ${e.column}`);
      for (const x of p.cuts) expect(used.has(`${x.row} ${x.column}`)).toBe(false);
      for (const x of [...p.cuts, ...p.parts.flatMap((q) => q.pins.map((y) => y.at))])
        expect(x.column >= 1 && x.column <= p.columns && x.row >= 1 && x.row <= p.rows).toBe(true);
    }
    const legs = (list: { holes?: unknown[]; pins?: unknown[] }[]) =>
      list.reduce((n, p) => n + (p.holes ?? p.pins ?? []).length, 0);
    expect(legs(plans.flatMap((p) => p.parts))).toBe(legs(l.parts));
  });
});

describe("boards to solder of random lists", () => {
  const COUNT = process.env.ALL === "1" ? 60 : 8;
  it.each(Array.from({ length: COUNT }, (_, i) => i + 1))(
    "list %i: proven, and one lead a hole",
    (seed) => {
      const list = denseList(seed, catalogue);
      let a = assign(make(list.parts), catalogue);
      while (!isPlanned(a) && list.shorten()) a = assign(make(list.parts), catalogue);
      const c = circuitOf(a.project, catalogue);
      const l = propose(c);
      if (l.trouble.length) return expect(l.trouble.every((t) => t.kind !== "joins")).toBe(true);
      for (const p of carrierPlans(c, l)) {
        expect(p.trouble).toEqual([]);
        const holes = [
          ...p.parts.flatMap((x) => x.pins.map((y) => y.at)),
          ...p.wires.flatMap((w) => [w.a, w.b].flatMap((x) => x ?? [])),
          ...p.rails.flatMap((r) => r.rows.map((row) => ({ row, column: r.column }))),
        ].map((x) => `${x.row} ${x.column}`);
        expect(new Set(holes).size).toBe(holes.length);
      }
    },
    30_000,
  );
});

describe("the proof of a board to solder", () => {
  const c = demo("moss-terrarium");
  const l = propose(c);
  it("tells of a jumper that is missing", () => {
    const at = l.wires.findIndex((w) => w.kind === "jumper");
    const without = { ...l, wires: l.wires.filter((_, i) => i !== at) };
    expect(carrierPlans(c, without)[0]!.trouble.join(" ")).toContain("would not be joined");
  });
  it("tells of a wire in the wrong row", () => {
    const at = l.wires.findIndex((w) => w.kind === "jumper" && /^[a-j]\d+$/.test(w.a.hole ?? ""));
    const other = l.parts
      .flatMap((p) => p.holes)
      .find((h) => c.netlist.netOf(l.wires[at]!.a.at)?.ends.every((e) => `${e.ref}.${e.pin}` !== h.pin))!;
    const hole = `${/^[a-e]/.test(other.hole) ? "a" : "j"}${other.hole.slice(1)}`;
    const wrong = { ...l, wires: l.wires.map((w, i) => (i === at ? { ...w, a: { ...w.a, hole } } : w)) };
    expect(carrierPlans(c, wrong)[0]!.trouble.length).toBeGreaterThan(0);
  });
});
