import fs from "node:fs";
import { beforeAll, describe, expect, it } from "vitest";
import { circuitOf, type Circuit } from "../../circuit";
import { applyEdit, readProject, type Project } from "../../project";
import { BOARD5, catalogue, planned, USB } from "../../testing";
import { layOutHere } from "./elk";
import { loom, loomDrawing, type Loom } from ".";

const demo = (name: string): Project => {
  const url = new URL(`../../../../demo/${name}.lattice.json`, import.meta.url);
  const r = readProject(fs.readFileSync(url, "utf8"), catalogue);
  if (!r.ok) throw new Error(JSON.stringify(r.problems));
  return r.project;
};
const PROJECTS: [string, () => Project, number][] = [
  ["moss terrarium", () => demo("moss-terrarium"), 2],
  ["beehive scale", () => demo("beehive-scale"), 6],
  ["rain barrel", () => demo("rain-barrel"), 2],
  ["from part to part", () => ({ ...demo("beehive-scale"), houseRules: { sharing: "daisy-chain" } }), 200],
  ["two boards", () => planned([...twoBoards()]), 20],
  ["nothing but a board", () => planned([{ ref: "B1", part: "board/esp32-thirtyeight" }]), 0],
];
const twoBoards = () => [
  { ref: "B1", part: "board/rp2040-forty" },
  { ref: "B2", part: "board/atmega328p-long" },
  USB,
  { ref: "M1", part: "module/bme280" },
  { ref: "M2", part: "module/hc-sr04", host: "B2" },
  { ref: "D1", part: "discrete/led-red" },
];
type Area = { name: string; x: number; y: number; w: number; h: number };
const apart = (a: Area, b: Area) => a.x + a.w <= b.x || b.x + b.w <= a.x || a.y + a.h <= b.y || b.y + b.h <= a.y;
const boxAreas = (l: Loom): Area[] => l.boxes.map((b) => ({ name: b.ref, x: b.x, y: b.y, w: b.w, h: b.h }));
/** Where the words stand: beside their pin, level with it or above a wire. */
const tagAreas = (l: Loom): Area[] =>
  l.tags.map((t) => ({
    name: `${t.end} ${t.text}`,
    // A flag's words begin after its bars, a name's after the pin.
    x: t.side === "left" ? t.x - t.width : t.x + (t.flag ? 16 : 5),
    y: t.y - t.rise - 7.5,
    w: t.width - (t.flag ? 16 : 5),
    h: 8,
  }));
const areaOf = (name: string, [x1, y1]: [number, number], [x2, y2]: [number, number]): Area => ({
  name,
  x: Math.min(x1, x2),
  y: Math.min(y1, y2),
  w: Math.abs(x1 - x2),
  h: Math.abs(y1 - y2),
});
const points = (path: string) =>
  path
    .split("M")
    .filter(Boolean)
    .map((p) => p.split("L").map((xy) => xy.split(" ").map(Number) as [number, number]));

describe.each(PROJECTS)("%s", (_name, project, mostCrossings) => {
  let c: Circuit;
  let l: Loom;
  beforeAll(async () => {
    c = circuitOf(project(), catalogue);
    l = await loom(c, layOutHere);
  });
  it("has every part once, apart from the others and inside the sheet", () => {
    expect(l.boxes.map((b) => b.ref).sort()).toEqual([...c.netlist.expanded.instances.keys()].sort());
    const areas = boxAreas(l);
    for (const a of areas) {
      expect(Math.min(a.x, a.y)).toBeGreaterThanOrEqual(0);
      expect(a.x + a.w).toBeLessThanOrEqual(l.width);
      expect(a.y + a.h).toBeLessThanOrEqual(l.height);
      for (const b of areas) if (a.name < b.name) expect(apart(a, b), `${a.name} ${b.name}`).toBe(true);
    }
  });
  it("no name lies on another name or on a part", () => {
    const tags = tagAreas(l);
    for (const [i, a] of tags.entries()) {
      for (const b of tags.slice(i + 1)) expect(apart(a, b), `${a.name} on ${b.name}`).toBe(true);
      for (const b of boxAreas(l)) expect(apart(a, b), `${a.name} on ${b.name}`).toBe(true);
    }
  });
  it("wires run level or upright, end at their pins, and cross no part", () => {
    const pins = new Map(l.boxes.flatMap((b) => b.pins.map((p) => [`${p.x} ${p.y}`, p.end] as const)));
    for (const n of l.nets)
      for (const line of points(n.strands.map((s) => s.path).join(""))) {
        for (const [x, y] of [line[0]!, line.at(-1)!]) expect(n.ends).toContain(pins.get(`${x} ${y}`));
        for (const [k, [x2, y2]] of line.entries()) {
          const [x1, y1] = line[k - 1] ?? [x2, y2];
          expect(Math.min(Math.abs(x1 - x2), Math.abs(y1 - y2)), `${n.name} ${line.join(" ")}`).toBeLessThan(0.5);
          const s = areaOf(n.name, [x1, y1], [x2, y2]);
          for (const b of boxAreas(l))
            expect(apart(s, { ...b, x: b.x + 1, y: b.y + 1, w: b.w - 2, h: b.h - 2 }), `${n.name} on ${b.name}`).toBe(
              true,
            );
        }
      }
  });
  it("the head of a box fits its width", () => {
    for (const b of l.boxes) {
      if (!b.inline) expect(b.title.length * 6.6, `${b.title} in ${b.w}`).toBeLessThan(b.w - 4);
      expect(b.title.startsWith(b.ref)).toBe(true);
    }
  });
  it("no wire runs through a name", () => {
    const tags = tagAreas(l);
    for (const n of l.nets)
      for (const line of points(n.strands.map((s) => s.path).join("")))
        for (const [k, [x2, y2]] of line.entries()) {
          const [x1, y1] = line[k - 1] ?? [x2, y2];
          const s = areaOf(n.name, [x1, y1], [x2, y2]);
          for (const t of tags) expect(apart(s, t), `${n.name} through ${t.name}`).toBe(true);
        }
  });
  it("has few crossings", () => {
    expect(l.crossings).toBeLessThanOrEqual(mostCrossings);
  });
  it("draws every wire, or names the rail that it goes to", () => {
    const drawn = new Set([
      ...l.tags.filter((t) => t.flag).map((t) => t.end),
      ...l.nets.flatMap((n) => (n.strands.map((s) => s.path).join("") ? n.ends : [])),
      ...l.cables.flatMap((w) => [w.from, w.to]),
    ]);
    const wired = c.netlist.wires.flatMap((w) => [`${w.from.ref}.${w.from.pin}`, `${w.to.ref}.${w.to.pin}`]);
    expect(wired.filter((e) => !drawn.has(e))).toEqual([]);
  });
  it("is the same every time", async () => {
    expect(await loom(circuitOf({ ...project() }, catalogue), layOutHere)).toEqual(l);
  });
});

describe("a contact that holds two wires", () => {
  it("names both places on its flag", async () => {
    const strips = [1, 2].map((i) => ({ ref: `M${i}`, part: "module/ws2812b-strip", options: { pixels: 40 } }));
    const p = planned([
      { ref: "B1", part: "board/rp2040-forty" },
      USB,
      { ref: "S2", part: "supply/adapter-5v-10a" },
      ...strips,
      { ref: "M3", part: "module/bme280" },
    ]);
    const l = await loom(circuitOf(p, catalogue), layOutHere);
    expect(l.tags.find((t) => t.end === "S2.GND")!.text).toBe("GND bus strip, rail (−)");
  });
});

describe("true to the board", () => {
  it("draws header pins in order, counted from the top", async () => {
    const l = await loom(circuitOf(demo("moss-terrarium"), catalogue), layOutHere);
    const board = l.boxes.find((b) => b.kind === "board")!;
    const side = (s: string) =>
      board.pins
        .filter((p) => p.side === s && p.label !== "USB")
        .sort((a, b) => a.y - b.y)
        .map((p) => p.label);
    expect(side("left").slice(0, 6)).toEqual(["GP0", "GP1", "GND", "GP2", "GP3", "GP4"]);
    expect(side("right")[0]).toBe("VBUS");
  });
});

describe("put somewhere by hand", () => {
  const p = demo("beehive-scale");
  it("stays at that height, and the others keep their order", async () => {
    const before = await loom(circuitOf(p, catalogue), layOutHere);
    const box = before.boxes.find((b) => b.ref === "M4")!;
    const moved = applyEdit(p, { type: "moveBox", ref: "M4", at: { side: "left", y: box.y + 400 } }, catalogue);
    const after = await loom(circuitOf(moved, catalogue), layOutHere);
    const now = after.boxes.find((b) => b.ref === "M4")!;
    expect(now.fixed).toBe(true);
    expect(now.y).toBeCloseTo(box.y + 400, 0);
    const order = (l: Loom) =>
      l.boxes
        .filter((b) => b.x < l.width / 3 && b.ref !== "M4")
        .sort((a, b) => a.y - b.y)
        .map((b) => b.ref);
    expect(order(after)).toEqual(order(before));
  });
  it("goes over to the other side of the board, its pins facing the board", async () => {
    const moved = applyEdit(p, { type: "moveBox", ref: "M4", at: { side: "right", y: 40 } }, catalogue);
    const l = await loom(circuitOf(moved, catalogue), layOutHere);
    const [box, board] = ["M4", "B1"].map((ref) => l.boxes.find((b) => b.ref === ref)!);
    expect(box!.x).toBeGreaterThan(board!.x + board!.w);
    expect(new Set(box!.pins.map((x) => x.side))).toEqual(new Set(["left"]));
  });
  it("never hangs, whatever is put wherever", async () => {
    const refs = ["B1", "S1", "M1", "M2", "M5", "SW1", "D1", "RD1", "CM5"];
    let now = p;
    for (const [k, ref] of refs.entries()) {
      const at = { side: k % 2 ? ("left" as const) : ("right" as const), y: (k * 379) % 900 };
      now = applyEdit(now, { type: "moveBox", ref, at }, catalogue);
      const l = await loom(circuitOf(now, catalogue), layOutHere);
      expect(l.boxes.length).toBe(13);
    }
  });
  it("is forgotten for one part or for all", () => {
    const once = applyEdit(p, { type: "moveBox", ref: "M4", at: { side: "left", y: 10 } }, catalogue);
    const twice = applyEdit(once, { type: "moveBox", ref: "M1", at: { side: "right", y: 10 } }, catalogue);
    expect(Object.keys(twice.drawing!.loom)).toEqual(["M4", "M1"]);
    expect(applyEdit(twice, { type: "moveBox", ref: "M4", at: null }, catalogue).drawing!.loom).toEqual({
      M1: { side: "right", y: 10 },
    });
    expect(applyEdit(twice, { type: "moveBox", at: null }, catalogue).drawing).toBeUndefined();
  });
});

describe("one wire of a net in a colour of its own", () => {
  it("is drawn in it, the others keep the net's", async () => {
    const p = planned([BOARD5, USB, { ref: "M1", part: "module/bme280" }, { ref: "M2", part: "module/sht31" }]);
    const link = p.links.find((l) => [l.from, l.to].includes("M1.SDA"))!;
    const pink = { ...p, links: p.links.map((l) => (l === link ? { ...l, colour: "pink" } : l)) };
    const l = await loom(circuitOf(pink, catalogue), layOutHere);
    const sda = l.nets.find((n) => n.name === "SDA")!;
    expect(sda.strands.map((s) => s.colour).sort()).toEqual(["blue", "pink"]);
    expect(l.nets.find((n) => n.name === "SCL")!.strands).toHaveLength(1);
    const inks = loomDrawing(l).shapes.flatMap((s) =>
      s.kind === "path" && s.of === "SDA" && typeof s.stroke === "object" ? [s.stroke.wire] : [],
    );
    expect(inks.sort()).toEqual(["blue", "pink"]);
  });
});
