import fs from "node:fs";
import { beforeAll, describe, expect, it } from "vitest";
import { circuitOf, type Circuit } from "../../circuit";
import { readProject, type Project } from "../../project";
import { BOARD3, BOARD5, catalogue, fountain, make, planned, USB } from "../../testing";
import { readingOf } from "../../parts/catalogue";
import { seeded } from "../../plan/assign/random";
import { runSheet, wireList } from "../runsheet";
import {
  boardProblem,
  breadboardDrawing,
  footprintOf,
  holeAt,
  holeName,
  layoutOf,
  placeAll,
  propose,
  readHole,
  seat,
  SIZES,
  type Layout,
  type Spot,
  type Spots,
} from ".";
import { Occupancy } from "./occupancy";
import { usbReachable } from "./spots";

const demo = (name: string): Project => {
  const url = new URL(`../../../../demo/${name}.lattice.json`, import.meta.url);
  const r = readProject(fs.readFileSync(url, "utf8"), catalogue);
  if (!r.ok) throw new Error(JSON.stringify(r.problems));
  return r.project;
};
const many = () =>
  planned([
    BOARD3,
    USB,
    ...["bme280", "bh1750", "ssd1306-i2c", "mpu6050", "ds3231", "hc05", "pir", "ir-receiver-38k", "mcp3008"].map(
      (m, i) => ({
        ref: `M${i + 1}`,
        part: `module/${m}`,
      }),
    ),
    { ref: "SW1", part: "discrete/button" },
    { ref: "SW2", part: "discrete/button" },
    { ref: "D1", part: "discrete/led-red" },
    { ref: "D2", part: "discrete/led-green" },
    { ref: "R1", part: "discrete/ldr" },
  ]);
const PROJECTS: [string, () => Project][] = [
  ["moss terrarium", () => demo("moss-terrarium")],
  ["beehive scale", () => demo("beehive-scale")],
  ["rain barrel", () => demo("rain-barrel")],
  ["fifteen parts", many],
  [
    "a bare chip",
    () =>
      planned([
        { ref: "U1", part: "chip/attiny85-dip8" },
        { ref: "S1", part: "supply/aa-3" },
        { ref: "D1", part: "discrete/led-red" },
      ]),
  ],
  [
    "a wide board",
    () => planned([{ ref: "B1", part: "board/esp32-thirtyeight" }, USB, { ref: "M1", part: "module/bme280" }]),
  ],
];
const halfOf = (hole: string) => ("abcde".includes(hole.replace(/^\d:/, "")[0]!) ? "left" : "right");
const rowOf = (hole: string) => `${hole.match(/^(\d:)?/)![0]}${halfOf(hole)} ${hole.replace(/^(\d:)?[a-j]/, "")}`;
const isRail = (hole: string) => /[LR][+-]/.test(hole);

describe.each(PROJECTS)("placement of %s", (_name, project) => {
  let c: Circuit;
  let l: Layout;
  beforeAll(() => {
    c = circuitOf(project(), catalogue);
    l = propose(c);
  });
  it("has room for every part that fits a breadboard, and nothing to complain of", () => {
    expect(l.trouble).toEqual([]);
    expect(l.parts.map((p) => p.ref).sort()).toEqual(
      boardProblem(c)
        .items.map((i) => i.ref)
        .sort(),
    );
  });
  it("no hole is used twice, none lies under a body", () => {
    const used = [
      ...l.parts.flatMap((p) => [...p.holes.map((h) => h.hole), ...p.blind]),
      ...l.wires.flatMap((w) => [w.a.hole, w.b.hole].filter((h) => h !== null)),
    ];
    expect(new Set(used).size).toBe(used.length);
    const p = boardProblem(c);
    const under = new Set(
      p.items.flatMap((i) => {
        const spot = l.spots[i.ref]!;
        const at = seat(i, spot, l.sizes)!;
        return at.cells.flatMap((cell) =>
          [...(cell.alone ? "" : at.covers[cell.half]), ...(cell.covered ? [cell.letter] : [])].map((letter) =>
            holeName({ kind: "row", board: spot.board, letter, row: cell.row }),
          ),
        );
      }),
    );
    expect(used.filter((h) => under.has(h))).toEqual([]);
  });
  it("a row of five belongs to one net", () => {
    const p = boardProblem(c);
    const nets = new Map<string, string>();
    for (const part of l.parts) {
      for (const h of part.holes) {
        const net = p.netOf.get(`${part.ref}.${h.pin}`) ?? `${part.ref}.${h.pin}`;
        expect(nets.get(rowOf(h.hole)) ?? net, h.hole).toBe(net);
        nets.set(rowOf(h.hole), net);
      }
      for (const h of part.blind) expect(nets.has(rowOf(h)), h).toBe(false);
    }
    for (const w of l.wires)
      for (const e of [w.a, w.b])
        if (e.hole && !isRail(e.hole)) {
          expect(nets.get(rowOf(e.hole)) ?? w.net, `${e.at} ${e.hole}`).toBe(w.net);
          nets.set(rowOf(e.hole), w.net);
        }
  });
  it("joins each net fully, by rows, rails and wires, and no two nets", () => {
    const parent = new Map<string, string>();
    const find = (x: string): string => ((parent.get(x) ?? x) === x ? x : find(parent.get(x)!));
    const join = (a: string, b: string) => parent.set(find(a), find(b));
    const place = (hole: string) => (isRail(hole) ? hole.replace(/\d+$/, "") : rowOf(hole));
    for (const part of l.parts) for (const h of part.holes) join(`${part.ref}.${h.pin}`, place(h.hole));
    for (const w of l.wires) {
      const [a, b] = [w.a, w.b].map((e) => (e.hole ? place(e.hole) : e.at));
      join(a!, b!);
    }
    const roots = new Map<string, string>();
    for (const n of boardProblem(c).nets) {
      const ends = [...n.on, ...n.off];
      expect(new Set(ends.map(find)).size, n.name).toBe(1);
      const root = find(ends[0]!);
      expect(roots.get(root) ?? n.name).toBe(n.name);
      roots.set(root, n.name);
    }
  });
  it("leaves the USB end reachable", () => {
    for (const i of boardProblem(c).items) expect(usbReachable(i, l.spots[i.ref]!, l.sizes), i.ref).toBe(true);
  });
  it("no single part could go anywhere better, by the search's own price", () => {
    const p = boardProblem(c);
    const o = new Occupancy(p, l.sizes);
    const { spots } = placeAll(p, [...l.sizes]);
    for (const i of p.items) o.place(i, spots[i.ref]!);
    const best = o.cost;
    for (const item of p.items.filter((i) => i.print.kind === "strip" || i.print.kind === "legs")) {
      const was = o.take(item.ref)!;
      for (const [board, size] of l.sizes.entries())
        for (const half of ["left", "right"] as const)
          for (let row = 1; row <= SIZES[size].rows; row++)
            for (const turn of [false, true])
              for (const letter of half === "left" ? ["b", "d"] : ["g", "i"]) {
                const spot: Spot = { board, half, row, turn: item.print.kind === "legs" && turn, letter };
                if (!o.fits(item, spot)) continue;
                o.place(item, spot);
                const cost = o.cost;
                o.take(item.ref);
                expect(cost, `${item.ref} ${half} ${row}`).toBeGreaterThan(best - 1e-6);
              }
      o.place(item, was);
    }
  });
  it("is the same every time", () => {
    expect(propose(circuitOf({ ...project() }, catalogue))).toEqual(l);
  });
});

describe("the search", () => {
  it("finds the least cost that trying everything finds", () => {
    const c = circuitOf(
      make(
        [
          { ref: "U1", part: "chip/attiny85-dip8" },
          { ref: "S1", part: "supply/aa-3" },
          { ref: "D1", part: "discrete/led-red", companions: { seriesResistor: { ohm: 330 } } },
        ],
        [
          ["S1.+", "U1.VCC"],
          ["S1.-", "U1.GND"],
          ["D1.A", "U1.PB1"],
          ["D1.K", "U1.GND"],
        ],
      ),
      catalogue,
    );
    const p = boardProblem(c);
    const found = placeAll(p, ["170"]);
    const o = new Occupancy(p, ["170"]);
    const rigid = p.items.filter((i) => i.print.kind !== "bridge");
    const bridges = p.items.filter((i) => i.print.kind === "bridge");
    expect([rigid.length, bridges.length]).toEqual([2, 1]);
    let least = Infinity;
    const all = (k: number, list: typeof p.items): void => {
      const item = list[k];
      if (!item) {
        least = Math.min(least, o.cost);
        return;
      }
      const { print } = item;
      const spots: Spot[] = [];
      for (const half of ["left", "right"] as const)
        for (let row = 1; row <= 17; row++) {
          if (print.kind === "straddle") {
            if (half === "left") spots.push({ board: 0, half, row, turn: false, letter: "e" });
          } else if (print.kind === "bridge")
            for (const to of ["left", "right"] as const)
              for (let r = Math.max(1, row - print.most); r <= Math.min(17, row + print.most); r++) {
                const far = half === to ? Math.abs(r - row) : Math.hypot(3, r - row);
                if (far >= (half === to ? print.least : 0) && far <= print.most)
                  spots.push({ board: 0, half, row, turn: false, to: { half: to, row: r } });
              }
          else
            for (const turn of [false, true])
              for (const letter of half === "left" ? ["d"] : ["g"]) spots.push({ board: 0, half, row, turn, letter });
        }
      for (const s of spots) {
        if (!o.fits(item, s)) continue;
        o.place(item, s);
        all(k + 1, list);
        o.take(item.ref);
      }
    };
    // The chip at the top: where it stands along the board only breaks ties.
    const chip = p.items.find((i) => i.ref === "U1")!;
    o.place(chip, found.spots.U1!);
    all(0, [...rigid.filter((i) => i !== chip), ...bridges]);
    expect(found.cost).toBeLessThanOrEqual(least + 1e-6);
  });
  it("takes the smallest board that is enough, and more boards when one is not", () => {
    expect(propose(circuitOf(demo("rain-barrel"), catalogue)).sizes).toEqual(["170"]);
    const crowd = planned([
      BOARD3,
      USB,
      ...Array.from({ length: 14 }, (_, i) => ({
        ref: `M${i + 1}`,
        part: i % 2 ? "module/hc-sr04" : "module/ds3231",
      })).slice(0, 9),
    ]);
    const l = propose(circuitOf(crowd, catalogue));
    expect(l.sizes.length).toBeGreaterThan(1);
    expect(l.trouble).toEqual([]);
    expect(new Set(l.parts.flatMap((p) => p.holes.map((h) => h.hole.includes(":"))))).toEqual(new Set([true, false]));
  });
  it("keeps what was placed by hand", () => {
    const c = circuitOf(demo("beehive-scale"), catalogue);
    const first = propose(c);
    const given: Spots = { ...first.spots, M4: { ...first.spots.M4!, row: 40 } };
    const again = propose(c, first.sizes, { M4: given.M4! });
    expect(again.spots.M4).toEqual(given.M4);
  });
});

describe("a chip's own capacitor", () => {
  it("has a leg in the row of the supply pin that it is for, or two beside", () => {
    const c = circuitOf(
      planned([
        BOARD5,
        USB,
        { ref: "M1", part: "module/74hc595", companions: { decoupling: { F: 1e-7 } } },
        { ref: "M2", part: "module/mcp3008", companions: { decoupling: { F: 1e-7 } } },
      ]),
      catalogue,
    );
    const l = propose(c);
    // Holes of rows end in a column's letter and the number of the row.
    const rowOf = (ref: string, pin: string) =>
      Number(/[a-j](\d+)$/.exec(l.parts.find((p) => p.ref === ref)!.holes.find((h) => h.pin === pin)!.hole)![1]);
    const caps = [...c.netlist.expanded.instances.values()].filter((i) => i.inserted?.key === "decoupling");
    expect(caps.length).toBe(2);
    for (const cap of caps) {
      const parent = c.netlist.instance(cap.inserted!.by)!;
      const supply = parent.part.companions.find((x) => x.key === "decoupling")!.pin;
      const leg = c.netlist.netOf(`${parent.ref}.${supply}`).ends.find((e) => e.ref === cap.ref)!.pin;
      const away = Math.abs(rowOf(cap.ref, leg) - rowOf(parent.ref, supply));
      expect(away, `${cap.ref} at ${parent.ref}.${supply}`).toBeLessThanOrEqual(2);
    }
  });
});

describe("how parts sit", () => {
  const print = (id: string) => {
    const part = catalogue.get(id)!;
    return footprintOf({ ref: "X1", part, vars: {}, label: "x", reading: readingOf(part) });
  };
  it("knows dual-in-line parts, rows of pins, loose legs, and what only hangs on leads", () => {
    expect(print("chip/attiny85-dip8")).toMatchObject({
      kind: "straddle",
      apart: 3,
      left: ["RST", "PB3", "PB4", "GND"],
    });
    // 17.78 mm between the rows of the forty-pin board.
    expect(print("board/rp2040-forty")).toMatchObject({ kind: "straddle", apart: 7, usb: "top" });
    expect(print("board/esp8266-mini")).toMatchObject({ kind: "straddle", apart: 9, usb: "bottom" });
    expect(print("module/74hc595")).toMatchObject({
      right: ["VCC", "QA", "SER", "OE", "RCLK", "SRCLK", "SRCLR", "QH'"],
    });
    expect(print("module/bme280")).toMatchObject({ kind: "strip", pins: ["VCC", "GND", "SCL", "SDA"] });
    expect(print("discrete/resistor")).toMatchObject({ kind: "bridge", least: 3 });
    for (const id of [
      "module/nrf24l01",
      "module/servo-small",
      "board/atmega328p-long",
      "board/esp32-thirtyeight",
      "board/linux-forty",
      "supply/aa-3",
      "module/lcd1602-i2c",
    ])
      expect(print(id), id).toMatchObject({ kind: "off" });
  });
  it("a module with two rows of pins stands across the trench where its data tells their distance, counted as it is printed", () => {
    const print = (id: string) => {
      const c = circuitOf(make([BOARD3, { ref: "M1", part: id }]), catalogue);
      return footprintOf(c.netlist.instance("M1")!);
    };
    const driver = print("module/a4988");
    if (driver.kind !== "straddle") throw new Error(driver.kind);
    expect([driver.apart, driver.left[0], driver.left[7], driver.right[0], driver.right[7]]).toEqual([
      5,
      "EN",
      "DIR",
      "VMOT",
      "GND.2",
    ]);
    const player = print("module/mp3-player");
    if (player.kind !== "straddle") throw new Error(player.kind);
    // Counted up the right side: the last pin is opposite the first.
    expect([player.apart, player.left[0], player.right[0], player.right[7]]).toEqual([7, "VCC", "BUSY", "IO1"]);
    // Nothing is guessed where the distance is not known.
    expect(print("module/drv8833").kind).toBe("off");
    const c = circuitOf(
      planned([
        BOARD3,
        USB,
        { ref: "S2", part: "supply/adapter-12v-2a" },
        { ref: "M1", part: "module/a4988" },
        { ref: "M2", part: "module/mp3-player" },
      ]),
      catalogue,
    );
    const l = propose(c);
    expect(l.trouble).toEqual([]);
    const at = l.parts.find((p) => p.ref === "M1")!;
    expect(new Set(at.holes.map((h) => halfOf(h.hole))).size).toBe(2);
    // Rows 12.7 mm apart: five pitches, over the trench.
    const [step, vmot] = ["EN", "VMOT"].map((pin) => at.holes.find((h) => h.pin === pin)!.hole);
    expect(rowOf(step!).split(" ")[1]).toBe(rowOf(vmot!).split(" ")[1]);
  });
  it("turns a module's pins with the half, so that its front stays up", () => {
    const item = boardProblem(
      circuitOf(planned([BOARD3, USB, { ref: "M1", part: "module/bme280" }]), catalogue),
    ).items.find((i) => i.ref === "M1")!;
    const pins = (half: "left" | "right") =>
      seat(item, { board: 0, half, row: 10, turn: false }, ["400"])!.cells.flatMap((x) =>
        x.covered ? [] : [`${x.pin} ${x.letter}${x.row}`],
      );
    expect(pins("right")).toEqual(["VCC j10", "GND j11", "SCL j12", "SDA j13"]);
    expect(pins("left")).toEqual(["SDA a10", "SCL a11", "GND a12", "VCC a13"]);
  });
  it("a body hides the holes below it, for everybody: a large capacitor, a knob, the ends of a module", () => {
    const itemOf = (part: string, options: object = {}) =>
      boardProblem(circuitOf(planned([BOARD3, USB, { ref: "X1", part, options }]), catalogue)).items.find(
        (i) => i.ref === "X1",
      )!;
    const hides = (item: ReturnType<typeof itemOf>, spot: Spot) =>
      seat(item, spot, ["830"])!
        .cells.filter((x) => x.covered)
        .map((x) => `${x.letter}${x.row}`);
    const legs = {
      board: 0,
      half: "left" as const,
      row: 20,
      letter: "c",
      turn: false,
      to: { half: "left" as const, row: 22, letter: "c" },
    };
    // 10 mm across: two pitches to every side of its middle; 5 mm hides what lies between its legs only.
    const large = hides(itemOf("discrete/electrolytic", { capacitance_uF: 1000 }), legs);
    expect(large).toEqual(expect.arrayContaining(["c21", "b21", "d21", "b20", "d22"]));
    expect(hides(itemOf("discrete/electrolytic", { capacitance_uF: 10 }), legs)).not.toContain("b20");
    const knob = hides(itemOf("discrete/potentiometer"), { board: 0, half: "left", row: 20, letter: "d", turn: false });
    expect(knob).toEqual(expect.arrayContaining(["a22", "b21", "c24"]));
    // A display is longer than its row of pins: its own column is hidden above and below them.
    const glass = hides(itemOf("module/ssd1306-i2c"), { board: 0, half: "left", row: 20, turn: false });
    expect(glass.some((h) => h.startsWith("a"))).toBe(true);
  });
  it("what is on leads of 30 cm or more stands off the board", () => {
    const at = (wire_cm: number) =>
      boardProblem(circuitOf(planned([BOARD3, USB, { ref: "M1", part: "module/bme280", wire_cm }]), catalogue));
    expect(at(30).beside.find((b) => b.ref === "M1")!.why).toContain("30 cm away");
    expect(at(20).items.some((i) => i.ref === "M1")).toBe(true);
  });
  it("a button stands on four legs across the trench, two rows apart, on two of them that are diagonal", () => {
    const item = boardProblem(
      circuitOf(planned([BOARD3, USB, { ref: "SW1", part: "discrete/button" }]), catalogue),
    ).items.find((i) => i.ref === "SW1")!;
    const at = seat(item, { board: 0, half: "left", row: 10, letter: "e", turn: false }, ["400"])!;
    const says = (x: (typeof at.cells)[number]) => `${x.covered ? "covered" : (x.pin ?? "leg")} ${x.letter}${x.row}`;
    expect(at.cells.map(says)).toEqual(["1 e10", "covered e11", "leg e12", "leg f10", "covered f11", "2 f12"]);
  });
  it("reads and writes holes", () => {
    for (const h of ["c14", "L+12", "2:f30", "R-25"]) expect(holeName(readHole(h, ["400", "400"])!)).toBe(h);
    for (const bad of ["k3", "c0", "c31", "L+26", "3:a1", "L*2", ""])
      expect(readHole(bad, ["400", "400"]), bad).toBeNull();
  });
});

describe("placed by hand, what does not work is said", () => {
  const c = circuitOf(
    make(
      [BOARD3, USB, { ref: "M1", part: "module/bme280" }, { ref: "M2", part: "module/bh1750" }],
      [
        ["S1.USB", "B1.USB"],
        ["M1.VCC", "B1.3V3"],
        ["M1.GND", "B1.GND"],
        ["M1.SDA", "B1.GP4"],
        ["M1.SCL", "B1.GP5"],
      ],
    ),
    catalogue,
  );
  const p = boardProblem(c);
  const base: Spots = { B1: { board: 0, half: "left", row: 1, letter: "c", turn: false } };
  it("two nets in one row, by name", () => {
    const l = layoutOf(p, ["830"], { ...base, M1: { board: 0, half: "left", row: 4, turn: false } });
    expect(l.trouble.map((t) => t.says).join(" ")).toMatch(
      /M1\.SDA \(SDA\) and B1\.GP\d.* stand in one row, a4: the row joins them/,
    );
  });
  it("one part on another, outside the board, without a place", () => {
    const l = layoutOf(p, ["830"], {
      ...base,
      M1: { board: 0, half: "right", row: 30, turn: false },
      M2: { board: 0, half: "right", row: 34, turn: false },
    });
    const said = (x: Layout) => x.trouble.map((t) => t.says);
    expect(said(l)).toContain("M1 and M2 are in each other's way.");
    expect(said(layoutOf(p, ["400"], { B1: { ...base.B1!, row: 20 } }))).toContain(
      "B1 would stand outside the breadboard there.",
    );
    expect(said(layoutOf(p, ["830"], base))).toContain("M1 has no place on the breadboard yet.");
  });
});

describe("the run sheet of a placed project", () => {
  const p = demo("beehive-scale");
  const l = propose(circuitOf(p, catalogue));
  const c = circuitOf({ ...p, breadboard: { boards: l.sizes, at: l.spots } }, catalogue);
  const rows = runSheet(c);
  it("goes from hole to hole, with lengths to cut", () => {
    const sda = rows.find((r) => r.net === "SDA")!;
    expect(sda.holeA).toMatch(/^[a-j]\d+$/);
    expect(sda.fromWords).toContain(`hole ${sda.holeA}, in the row of`);
    const mm = l.wires.find((w) => w.a.hole === sda.holeA)!.apart_mm;
    expect(sda.length_cm).toBe(Math.ceil((mm + 20) / 10));
    expect([sda.endA, sda.endB]).toEqual(["pin", "pin"]);
  });
  it("says where each part goes, loose ones with their value", () => {
    const note = (ref: string) => rows.find((r) => r.id === `look-${ref}`)!.note;
    expect(note("RD1")).toMatch(/^RD1, 470 Ω resistor of Alive: 1 in [a-j]\d+, 2 in [a-j]\d+\./);
    expect(note("B1")).toMatch(/GP0 in c1/);
  });
  it("has a wire for each piece of rail, and ids of its own for each", () => {
    expect(new Set(rows.map((r) => r.id)).size).toBe(rows.length);
    expect(rows.some((r) => r.note.includes("two pieces of this rail"))).toBe(true);
  });
  it("still joins every net, for tools that read the list", () => {
    const parent = new Map<string, string>();
    const find = (x: string): string => ((parent.get(x) ?? x) === x ? x : find(parent.get(x)!));
    for (const r of wireList(c)) if (r.kind !== "cable") parent.set(find(r.from), find(r.to));
    for (const n of boardProblem(c).nets) expect(new Set([...n.on, ...n.off].map(find)).size, n.name).toBe(1);
  });
});

describe("rails", () => {
  it("two supplies get a rail each, and two grounds stay on rails of their own", () => {
    const c = circuitOf(demo("moss-terrarium"), catalogue);
    const l = propose(c);
    expect(l.rails.map((r) => `${r.name} ${r.half}${r.pole}`).sort()).toEqual(
      ["3V3 left+", "5V right+", "GND left-", "GND right-"].sort(),
    );
    const iso = circuitOf(
      make(
        [
          BOARD5,
          USB,
          { ref: "S2", part: "supply/adapter-5v-2a" },
          { ref: "M1", part: "module/optocoupler-pc817" },
          { ref: "M2", part: "module/bme280" },
          { ref: "M3", part: "module/ds3231" },
        ],
        [
          ["S1.USB", "B1.USB"],
          ["M1.A", "B1.D5"],
          ["M1.K", "B1.GND"],
          ["M2.VCC", "B1.5V"],
          ["M2.GND", "B1.GND"],
          ["M1.E", "S2.GND"],
          ["M3.GND", "S2.GND"],
          ["M3.VCC", "S2.5V"],
        ],
      ),
      catalogue,
    );
    const rails = propose(iso, ["830"]).rails.filter((r) => r.pole === "-");
    expect(new Set(rails.map((r) => r.net)).size).toBe(2);
    expect(new Set(rails.map((r) => r.half)).size).toBe(rails.length);
  });
  it("a gap in the middle is bridged only where both sides are in use, and not when the rails have none", () => {
    const c = circuitOf(demo("beehive-scale"), catalogue);
    const l = propose(c);
    const gaps = (x: Layout) => x.wires.filter((w) => w.kind === "bridge" && w.a.hole![0] === w.b.hole![0]);
    expect(gaps(l).length).toBeGreaterThan(0);
    for (const w of gaps(l)) {
      const [a, b] = [w.a.hole!, w.b.hole!].map((h) => Number(h.slice(2)));
      expect(a).toBeLessThanOrEqual(25);
      expect(b).toBeGreaterThan(25);
    }
    expect(gaps(layoutOf(boardProblem(c), l.sizes, l.spots, false))).toEqual([]);
  });
});

describe("the drawing", () => {
  const draw = (...parts: object[]) => {
    const c = circuitOf(planned([BOARD3, USB, ...parts]), catalogue);
    const l = propose(c);
    return { l, d: breadboardDrawing(c, l) };
  };
  const box = (t: { x: number; y: number; text: string; size: number; anchor?: string; turn?: number }) => {
    const w = t.text.length * t.size * 0.6;
    if (t.turn === -90) return { x1: t.x - 0.7 * t.size, x2: t.x, y1: t.y - w / 2, y2: t.y + w / 2 };
    const x = t.anchor === "middle" ? t.x - w / 2 : t.anchor === "end" ? t.x - w : t.x;
    return { x1: x, x2: x + w, y1: t.y - 0.7 * t.size, y2: t.y };
  };
  const LOOSE = ["led-red", "led-rgb-cc", "button", "potentiometer", "ldr", "thermistor-10k", "diode-1n4148", "toggle"];
  const MODULES = ["bme280", "74hc595", "ds18b20", "mcp3008", "hc-sr04", "max7219-digits", "sd-3v3"];
  it.each(Array.from({ length: process.env.ALL ? 60 : 12 }, (_, i) => i + 1))(
    "writes no name of a part on another's, or on a leg: list %i",
    (seed) => {
      const roll = seeded(seed);
      const some = (list: string[], n: number, room: string) =>
        Array.from({ length: n }, (_, i) => ({
          ref: `${room === "module" ? "M" : "X"}${i + 1}`,
          part: `${room}/${list[Math.floor(roll() * list.length)]}`,
        }));
      const { l, d } = draw(...some(LOOSE, 5, "discrete"), ...some(MODULES, 2, "module"));
      const refs = new Set(l.parts.map((p) => p.ref));
      const names = d.shapes.flatMap((s) => (s.kind === "text" && refs.has(s.text.split(" ")[0]!) ? [s] : []));
      expect(names.length).toBeGreaterThanOrEqual(l.parts.length - 1);
      for (const [i, a] of names.entries())
        for (const b of names.slice(i + 1)) {
          const [p, q] = [box(a), box(b)];
          const on = p.x1 < q.x2 - 0.05 && q.x1 < p.x2 - 0.05 && p.y1 < q.y2 - 0.05 && q.y1 < p.y2 - 0.05;
          expect(on, `${a.text} on ${b.text}`).toBe(false);
        }
      const legs = l.parts.flatMap((p) => p.holes.map((h) => holeAt(readHole(h.hole, l.sizes)!, l.sizes[0]!)));
      for (const a of names) {
        const p = box(a);
        const on = legs.filter((h) => h.x > p.x1 && h.x < p.x2 && h.y > p.y1 && h.y < p.y2);
        expect(on, `${a.text} on a leg`).toEqual([]);
      }
    },
  );
  it("marks the plus of a can and the ring of a diode at their own legs", () => {
    const at = (l: Layout, ref: string, pin: string) => {
      const hole = l.parts.find((p) => p.ref === ref)!.holes.find((h) => h.pin === pin)!.hole;
      return holeAt(readHole(hole, l.sizes)!, l.sizes[0]!);
    };
    const far = (a: { x: number; y: number }, b: { x: number; y: number }) => Math.hypot(a.x - b.x, a.y - b.y);
    const can = draw({ ref: "C1", part: "discrete/electrolytic" });
    const [plus] = can.d.shapes.flatMap((s) => (s.kind === "text" && s.text === "+" && s.size === 0.75 ? [s] : []));
    expect(far(plus!, at(can.l, "C1", "+"))).toBeLessThan(far(plus!, at(can.l, "C1", "-")));

    const c = circuitOf(fountain(), catalogue);
    const l = propose(c);
    const diodes = l.parts.filter((p) => p.lying && c.netlist.instance(p.ref)!.part.id.includes("diode"));
    expect(diodes).toHaveLength(1);
    const rings = breadboardDrawing(c, l).shapes.flatMap((s) =>
      s.kind === "path" && s.width === 0.95 && s.of === undefined ? [/^M([\d.-]+) ([\d.-]+)/.exec(s.d)!] : [],
    );
    expect(rings).toHaveLength(1);
    const ring = { x: Number(rings[0]![1]), y: Number(rings[0]![2]) };
    expect(far(ring, at(l, diodes[0]!.ref, "K"))).toBeLessThan(far(ring, at(l, diodes[0]!.ref, "A")));
  });
});
