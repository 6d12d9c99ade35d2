import { describe, expect, it } from "vitest";
import Papa from "papaparse";
import { circuitOf, type Circuit } from "../../circuit";
import { plainNetlist, plugCsv } from "../../formats/plan";
import { denseList } from "../../plan/assign/dense";
import { assign, isPlanned } from "../../plan/assign";
import { BOARD3, BOARD5, CABLE, catalogue, Metal, make, planned, USB } from "../../testing";
import { readingOf } from "../../parts/catalogue";
import { footprintOf, LETTER_X, seat } from "../breadboard";
import { headerOf } from "./headers";
import { plugBoard, plugDrawing, plugSteps } from ".";
import { shapesOf } from "./shapes";
import { treeOf } from "./wires";

type Row = Record<string, string>;
const read = (csv: string) => Papa.parse<Row>(csv, { header: true, skipEmptyLines: true }).data;

/** Builds from plugboard.csv alone, beside it the wires that never touch the board, and compares with the netlist. */
function build(c: Circuit, says: string) {
  const rows = read(plugCsv(c));
  const hole = (r: Row, to = "") => `${r[`${to}row`]}/${r[`${to}column`]}`;
  const stands = rows.filter((r) => ["header", "leg", "lead"].includes(r.kind!));
  expect(new Set(stands.map((r) => hole(r))).size, `${says}: one lead a hole`).toBe(stands.length);
  const metal = new Metal();
  for (const r of stands) if (r.what) metal.join(r.what, hole(r));
  const many = new Map<string, number>();
  for (const r of rows) {
    if (r.kind === "direct") metal.join(r.what!, r.to!);
    if (r.kind !== "wire" && r.kind !== "bare") continue;
    metal.join(hole(r), hole(r, "to_"));
    for (const h of [hole(r), hole(r, "to_")]) many.set(h, (many.get(h) ?? 0) + 1);
    expect(Number(r.cut_mm), says).toBeGreaterThan(2);
  }
  expect(Math.max(0, ...many.values()), `${says}: wires at a joint`).toBeLessThanOrEqual(3);
  // A place beside the board takes all the leads that are named after it.
  for (const r of stands) {
    const hub = /^(.* (?:bus strip|bus wire|splice))\.\d+$/.exec(r.what ?? "")?.[1];
    if (hub) metal.join(r.what!, hub);
  }
  const owner = new Map<string, string>();
  for (const n of plainNetlist(c).nets) {
    const inside = new Map<string, string>();
    for (const { end } of n.ends) {
      const [ref = "", pin = ""] = end.split(/\.(.*)/s);
      const def = c.netlist.instance(ref)!.part.pins.find((p) => p.label === pin)!;
      if (!["ground", "supply-in", "supply-out", "supply-io"].includes(def.role)) continue;
      const key = `${ref} ${def.role === "ground" ? (def.domain ?? "") : def.supply}`;
      if (inside.has(key)) metal.join(inside.get(key)!, end);
      else inside.set(key, end);
    }
    const ends = c.netlist.wires
      .filter((w) => !w.cable)
      .flatMap((w) => [w.from, w.to].map((e) => `${e.ref}.${e.pin}`))
      .filter((e) => n.ends.some((x) => x.end === e));
    const roots = new Set(ends.map((e) => metal.root(e)));
    expect(roots.size, `${says}: ${n.name} open: ${ends.join(" ")}`).toBeLessThanOrEqual(1);
    for (const r of roots) {
      expect(owner.get(r) ?? n.name, `${says}: joined`).toBe(n.name);
      owner.set(r, n.name);
    }
  }
}

const LOOSE = ["button", "led-red", "potentiometer", "resistor", "electrolytic", "ds18b20", "ldr"].flatMap((x) =>
  catalogue.get(`discrete/${x}`) ? [`discrete/${x}`] : [],
);

describe("random lists as plug-on boards", () => {
  it.each(Array.from({ length: process.env.ALL ? 200 : 8 }, (_, i) => i + 1))("list %i", (seed) => {
    const list = denseList(seed * 7, catalogue);
    let plan: ReturnType<typeof assign> | null = null;
    for (;;) {
      plan = assign(make([...list.parts, { ref: "Z1", part: LOOSE[seed % LOOSE.length] }]), catalogue);
      if (isPlanned(plan) || !list.shorten()) break;
    }
    if (!isPlanned(plan)) return;
    const c = circuitOf(plan.project, catalogue);
    const b = plugBoard(c);
    if (!b) {
      expect(c.netlist.instance("B1")!.part.board!.headers.every((h) => !h.at_mm)).toBe(true);
      return;
    }
    expect(b.trouble).toEqual([]);
    build(c, list.parts.map((p) => p.part).join(" "));
    expect(plugDrawing(b, "back").shapes.length).toBe(plugDrawing(b, "parts").shapes.length);
    expect(plugSteps(c, b).length).toBeGreaterThan(2);
  });
});

describe("where headers are", () => {
  const header = (id: string, ...wired: string[]) =>
    headerOf({ ref: "B1", part: catalogue.get(id)! } as never, new Set(wired))!;
  const at = (h: ReturnType<typeof header>, pin: string) => {
    const p = h.pins.find((x) => x.pin === pin);
    return p && [p.x, p.y];
  };
  it("two rows of twenty, seven steps apart", () => {
    const h = header("board/rp2040-forty");
    expect([at(h, "GP0"), at(h, "VBUS"), at(h, "GP16")]).toEqual([
      [0, 0],
      [7, 0],
      [7, 19],
    ]);
    expect(h.seating).toBe("below");
    expect(h.covers[0]!.x2 - h.covers[0]!.x1).toBeCloseTo(21 / 2.54, 1);
  });
  it("sockets with wider steps: nineteen across, and the row that stands beside the grid is told", () => {
    const h = header("board/atmega328p-long", "D2", "A0");
    // 8 positions, a step of two, 6 more; digital 7 to 0 begins a step above the eighth of the left header.
    expect(at(h, "A0")).toEqual([0, 9]);
    expect(at(h, "D7")).toEqual([19, 7]);
    expect(at(h, "D0.1") ?? at(h, "D0")).toEqual([19, 14]);
    expect(at(h, "D13")).toBeUndefined();
    expect(h.missing.map((m) => m.why)).toEqual(["1.0 mm beside the grid of the other rows"]);
    expect(h.missing[0]!.pins).toContain("D13");
  });
  it("goes by the other grid when only its pins are wired", () => {
    const h = header("board/atmega328p-long", "D8", "D9", "D10", "D11", "D12", "D13");
    expect(at(h, "D13")).toBeDefined();
    expect(at(h, "A0")).toBeUndefined();
  });
  it("a double row is one step wide, and keeps a hole beside it free", () => {
    const h = header("board/linux-forty");
    expect(h.seating).toBe("pins");
    expect(Math.max(...h.pins.map((p) => p.x))).toBe(1);
    expect(Math.min(...h.covers.map((c) => c.x1))).toBeLessThanOrEqual(-2.5);
  });
  it("what has no place in the data is left out with the reason", () => {
    expect(header("board/rp2040-mini").missing[0]!.why).toMatch(/not in the data/);
  });
});

describe("which way round a part lies", () => {
  // Looked at from above a part can be turned, never mirrored: which side its body is on, seen along its row of pins, is fixed.
  const side = (first: At, last: At, body: { x1: number; x2: number; y1: number; y2: number }) => {
    const [dx, dy] = [last.x - first.x, last.y - first.y];
    const [bx, by] = [(body.x1 + body.x2) / 2 - first.x, (body.y1 + body.y2) / 2 - first.y];
    return Math.sign(dx * by - dy * bx);
  };
  type At = { x: number; y: number };
  const strips = catalogue.parts.flatMap((part) => {
    const inst = { ref: "M1", part, label: "M1", vars: {}, reading: readingOf(part) } as never;
    const print = footprintOf(inst);
    return print.kind === "strip" && print.pins.length > 1 ? [{ ref: "M1", inst, print }] : [];
  });
  it("as on the breadboard, for every module with a row of pins, in all four turns", () => {
    expect(strips.length).toBeGreaterThan(25);
    expect(new Set(strips.map((s) => s.print.down)).size).toBe(2);
    for (const item of strips) {
      const id = (item.inst as { part: { id: string } }).part.id;
      const { pins } = item.print;
      for (const half of ["left", "right"] as const) {
        const at = seat(item, { board: 0, half, row: 3, turn: false }, ["830"])!;
        const hole = (pin: string) => {
          const cell = at.cells.find((x) => x.pin === pin)!;
          return { x: LETTER_X[cell.letter]!, y: cell.row };
        };
        const ours = shapesOf(item).map((s) => {
          const find = (pin: string) => s.holes.find((h) => h.pin === pin)!;
          return side(find(pins[0]!), find(pins.at(-1)!), s.body);
        });
        expect(ours, id).toEqual([0, 0, 0, 0].map(() => side(hole(pins[0]!), hole(pins.at(-1)!), at.body!)));
      }
    }
  });
  it("and parts with two rows keep their right row on the right", () => {
    const items = catalogue.parts.flatMap((part) => {
      const inst = { ref: "M1", part, label: "M1", vars: {}, reading: readingOf(part) } as never;
      const print = footprintOf(inst);
      return print.kind === "straddle" ? [{ ref: "M1", inst, print, id: part.id }] : [];
    });
    expect(items.length).toBeGreaterThan(20);
    for (const item of items) {
      const [top, low, other] = [
        item.print.left.find(Boolean)!,
        [...item.print.left].reverse().find(Boolean)!,
        item.print.right.find(Boolean)!,
      ];
      if (top === low) continue;
      for (const s of shapesOf(item)) {
        const find = (pin: string) => s.holes.find((h) => h.pin === pin)!;
        const right = find(other);
        // Seen down the left row with y growing downwards, the right row lies to the left hand: a negative turn.
        expect(side(find(top), find(low), { x1: right.x, x2: right.x, y1: right.y, y2: right.y }), item.id).toBe(-1);
      }
    }
  });
});

describe("wires from joint to joint", () => {
  it("take two at a joint, and cost little more than the shortest tree", () => {
    let s = 7;
    const roll = () => (s = (s * 16807) % 2147483647) / 2147483647;
    let [ours, least] = [0, 0];
    for (let k = 0; k < 60; k++) {
      const n = 2 + Math.floor(roll() * 14);
      const spots = Array.from({ length: n }, (_, i) => ({
        end: `e${i}`,
        x: Math.floor(roll() * 30),
        y: Math.floor(roll() * 20),
        takes: 2,
      }));
      const tree = treeOf(spots);
      expect(tree).toHaveLength(n - 1);
      for (const p of spots) expect(tree.filter((w) => w.includes(p)).length).toBeLessThanOrEqual(2);
      const d = (a: (typeof spots)[number], b: (typeof spots)[number]) => Math.hypot(a.x - b.x, a.y - b.y);
      ours += tree.reduce((sum, [a, b]) => sum + d(a, b), 0);
      // The shortest tree, by Prim.
      const inTree = [spots[0]!];
      while (inTree.length < n) {
        const next = spots
          .filter((p) => !inTree.includes(p))
          .map((p) => ({ p, far: Math.min(...inTree.map((q) => d(p, q))) }))
          .sort((a, b) => a.far - b.far)[0]!;
        least += next.far;
        inTree.push(next.p);
      }
    }
    expect(ours / least).toBeLessThan(1.3);
  });
  it("an end that takes one wire is never passed through while others are left", () => {
    const spots = ["a", "b", "c", "d"].map((end, i) => ({ end, x: i, y: 0, takes: end < "c" ? 1 : 2 }));
    const tree = treeOf(spots);
    expect(tree).toHaveLength(3);
    for (const p of spots.slice(0, 2)) expect(tree.filter((w) => w.includes(p))).toHaveLength(1);
  });
});

describe("plug-on boards by case", () => {
  it("wires to pins from below come up through the hole beside", () => {
    const c = circuitOf(
      planned([{ ref: "B1", part: "board/linux-forty" }, USB, { ref: "D1", part: "discrete/led-red" }]),
      catalogue,
    );
    const b = plugBoard(c)!;
    expect(b.trouble).toEqual([]);
    const up = b.wires.filter((w) => w.through);
    expect(up.length).toBeGreaterThan(0);
    for (const w of up) {
      const end = w.through!.end === "a" ? w.a : w.b;
      expect(w.through!.at.row).toBe(end.row);
      expect(b.header.some((h) => h.at.row === w.through!.at.row && h.at.column === w.through!.at.column)).toBe(false);
    }
  });
  it("a bare chip stands in a socket", () => {
    const c = circuitOf(
      planned([
        { ref: "B1", part: "chip/attiny85-dip8" },
        { ref: "S1", part: "supply/aa-3" },
        { ref: "D1", part: "discrete/led-red" },
        { ref: "SW1", part: "discrete/button" },
      ]),
      catalogue,
    );
    const b = plugBoard(c)!;
    expect(b.seating).toBe("socket");
    expect(b.trouble).toEqual([]);
    build(c, "bare chip");
  });
  it("over sockets that no hole meets the board is cut away, and nothing stands there", () => {
    const many = Array.from({ length: 12 }, (_, i) => ({ ref: `D${i + 1}`, part: "discrete/led-red" }));
    const c = circuitOf(planned([BOARD5, USB, ...many]), catalogue);
    const b = plugBoard(c)!;
    expect(b.trouble).toEqual([]);
    expect(b.parts.some((p) => p.ref === "B1" && p.leads)).toBe(true);
    expect(b.cuts).toHaveLength(1);
    const [cut] = b.cuts;
    const inside = (at: { row: number; column: number }) =>
      at.column > cut!.x1 && at.column < cut!.x2 && at.row > cut!.y1 && at.row < cut!.y2;
    for (const p of b.parts) for (const x of p.pins) expect(inside(x.at), `${p.ref}.${x.pin}`).toBe(false);
    for (const h of b.header) expect(inside(h.at), h.pin ?? "").toBe(false);
    const steps = plugSteps(c, b);
    expect(steps[0]!.rows.join()).toMatch(/^cut away rows \d+ to \d+ in columns \d+ to \d+/);
    expect(steps.flatMap((s) => s.rows).join()).toContain("insulating tape");
    // Where they are not used, nothing is cut.
    const lamp = make(
      [BOARD5, USB, { ref: "D1", part: "discrete/led-red" }],
      [CABLE, ["D1.A", "B1.D3"], ["D1.K", "B1.GND"]],
    );
    const few = plugBoard(circuitOf(lamp, catalogue))!;
    expect(few.cuts).toEqual([]);
  });
  it("parts in the front of a box hang on leads", () => {
    const p = planned([BOARD3, USB, { ref: "SW1", part: "discrete/toggle" }, { ref: "M1", part: "module/bme280" }]);
    const b = plugBoard(circuitOf({ ...p, box: { w_mm: 100, h_mm: 60, d_mm: 40, at: {} } }, catalogue))!;
    expect(b.parts.find((x) => x.ref === "SW1")!.leads).toBe(true);
    expect(b.parts.find((x) => x.ref === "M1")!.leads).toBe(false);
  });
  it("nothing wired, or no board: no plan", () => {
    expect(plugBoard(circuitOf(make([BOARD5]), catalogue))).toBeNull();
    expect(plugBoard(circuitOf(make([{ ref: "D1", part: "discrete/led-red" }]), catalogue))).toBeNull();
  });
});
