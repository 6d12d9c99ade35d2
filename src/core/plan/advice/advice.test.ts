import { describe, expect, it } from "vitest";
import { assign, isPlanned, latticeView, cellOf, alternatives, planDiff, moveNeed } from "../assign";
import { circuitOf } from "../../circuit";
import { applyEdit, loadProject, type Project } from "../../project";
import { BOARD3, BOARD5, catalogue, find, make, planned, rules, USB } from "../../testing";
import { rankBoards, rankBoardsSlowly, remedies, remediesSlowly } from ".";

const many = (part: string, letters: string, n: number, more: object = {}) =>
  Array.from({ length: n }, (_, i) => ({ ref: `${letters}${i + 1}`, part, ...more }));
const helps = (p: Project) => {
  const a = assign(p, catalogue);
  expect(a.status).toBe("infeasible");
  const list = remedies(p, catalogue, a);
  for (const r of list) {
    const again = assign(r.project, catalogue);
    expect(isPlanned(again), r.id).toBe(true);
    expect(planDiff(r.project, again.project, catalogue), r.id).toEqual([]);
  }
  return { a, list, ids: list.map((r) => r.id) };
};

describe("when nothing fits", () => {
  it("two displays on one address: another strap comes first, a bus switch and other boards after", () => {
    const { a, list, ids } = helps(make([BOARD5, USB, ...many("module/lcd1602-i2c", "M", 2)]));
    expect(a.clash).toContain("each want an I2C bus of their own (both answer to address 0x27)");
    expect(ids[0]).toMatch(/^strap-M\d-0x/);
    expect(list[0]).toMatchObject({ adds: [], stops: 0, faults: 0 });
    expect(ids).toContain("add-tca9548a-1");
    expect(list.find((r) => r.kind === "board")).toMatchObject({ adds: [{ count: 1, owned: 0 }] });
  });
  it("four receivers that each want a serial port: as many in software as it takes", () => {
    const p = make([BOARD5, USB, ...many("module/gps-neo6m", "M", 4)]);
    const { a, list } = helps(p);
    expect(a.clash).toBe(
      "M1, M2, M3 and M4 each want a serial port (UART) of their own, and this board has one that reaches the header.",
    );
    const soft = list.find((r) => r.kind === "software")!;
    expect(soft.project.parts.filter((x) => x.software?.length)).toHaveLength(3);
    const b = assign(soft.project, catalogue);
    // Two lines of three ports, 30 each.
    expect(b.costBy.filter((x) => x.reason === "software").reduce((s, x) => s + x.cost, 0)).toBe(180);
    expect(rules(soft.project, "fault").some((r) => r.includes("pin.") || r.includes("uart."))).toBe(false);
  });
  it("more lights than pins: chips, with what they cost in parts", () => {
    const { list, ids } = helps(
      make([BOARD5, USB, ...many("discrete/led-red", "D", 24, { options: { current_mA: 3 } })]),
    );
    expect(ids).toEqual(expect.arrayContaining(["add-74hc595-1", "add-mcp23017-1"]));
    const chip = list.find((r) => r.id === "add-74hc595-1")!;
    expect(chip.adds).toEqual([
      { part: "module/74hc595", name: expect.stringContaining("74HC595"), count: 1, owned: 0 },
    ]);
    expect(chip).toMatchObject({ stops: 0, faults: 0 });
    // Weak-high outputs are no help for lights.
    expect(ids).not.toContain("add-pcf8574-1");
    expect(rules(chip.project, "fault")).toEqual([]);
  });
  it("what is in the drawer is nothing to buy", () => {
    const drawer = { parts: { "module/mcp23017": 1 } };
    const { list } = helps(
      make([BOARD5, USB, ...many("discrete/led-red", "D", 22, { options: { current_mA: 3 } })], [], { drawer }),
    );
    expect(list[0]).toMatchObject({ id: "add-mcp23017-1", adds: [{ owned: 1 }] });
  });
  it("a lock in the way is taken off, an optional pin is left", () => {
    const locked = make([BOARD5, USB, { ref: "M1", part: "module/bme280" }], [], {
      links: [{ from: "M1.SDA", to: "B1.D7", locked: true }],
    });
    expect(helps(locked).ids).toContain("unlock-M1.SDA");
    const full = make([
      BOARD5,
      USB,
      ...many("discrete/led-red", "D", 17, { options: { current_mA: 2 } }),
      { ref: "M1", part: "module/ds3231", wanted: ["SQW", "32K"] },
    ]);
    expect(helps(full).ids).toEqual(expect.arrayContaining(["drop-M1-SQW", "drop-M1-32K"]));
  });
  it("two notes on one timer are told apart from two on different ones", () => {
    const two = many("discrete/speaker", "LS", 2);
    const { a } = helps(make([BOARD5, USB, ...two]));
    expect(a.clash).toContain("can only be served from timer2");
    expect(assign(make([BOARD3, USB, ...two]), catalogue).status).toBe("optimal");
  });
  it("can be stopped between two tries, with what was found so far", () => {
    const p = make([BOARD5, USB, ...many("module/lcd1602-i2c", "M", 2)]);
    const run = remediesSlowly(p, catalogue, assign(p, catalogue));
    let r = run.next();
    for (let i = 0; i < 2 && !r.done; i++) r = run.next(i === 1);
    expect(r.done && r.value.length).toBeLessThan(4);
    const boards = rankBoardsSlowly(p, catalogue);
    boards.next();
    expect(boards.next(true).done).toBe(true);
  });
});

describe("pins behind other parts", () => {
  it("are taken when the board runs out, not before, and never for what is fast", () => {
    const a = assign(
      make([BOARD5, USB, { ref: "M1", part: "module/mcp23017" }, ...many("discrete/led-red", "D", 4)]),
      catalogue,
    );
    expect(
      a.links.filter((l) => l.from.startsWith("D") && l.from.endsWith(".A")).every((l) => l.to.startsWith("B1.")),
    ).toBe(true);
    const fast = assign(
      make([BOARD5, USB, { ref: "M1", part: "module/mcp23017" }, ...many("module/hc-sr04", "X", 9)]),
      catalogue,
    );
    expect(fast.status).toBe("optimal");
    expect(fast.links.filter((l) => /TRIG|ECHO/.test(l.from)).every((l) => l.to.startsWith("B1."))).toBe(true);
  });
  it("stand in the lattice with their part, and say why something fast can't go there", () => {
    const c = circuitOf(
      planned([
        BOARD5,
        USB,
        { ref: "M1", part: "module/mcp23017" },
        { ref: "M2", part: "module/hc-sr04" },
        { ref: "D1", part: "discrete/led-red" },
      ]),
      catalogue,
    );
    const view = latticeView(c, "B1");
    const at = (id: string, end: string) =>
      cellOf(
        view,
        view.rows.find((r) => r.id === id)!,
        view.columns.findIndex((x) => x.end === end),
      );
    expect(at("D1.A", "M1.PA0").state).toBe("fits");
    expect(at("M2.ECHO", "M1.PA0")).toEqual({
      state: "cannot",
      why: "M1.PA0 is behind M1, which is too slow for this",
    });
    const m = moveNeed(c.project, catalogue, "D1.A", "M1.PA0");
    if (!m.ok) throw new Error(m.why);
    expect(m.moved).toEqual([{ need: "D1.A", from: expect.stringMatching(/^B1\./), to: "M1.PA0" }]);
    expect(assign(m.project, catalogue).project.links).toEqual(m.project.links);
  });
});

describe("wishes", () => {
  it("an optional pin is planned when it is wanted", () => {
    const p = make([BOARD3, USB, { ref: "M1", part: "module/mpu6050" }]);
    const end = (q: Project) => q.links.some((l) => [l.from, l.to].includes("M1.INT"));
    expect(end(assign(p, catalogue).project)).toBe(false);
    const wanted = applyEdit(p, { type: "setWanted", ref: "M1", pin: "INT", wanted: true }, catalogue);
    const q = assign(wanted, catalogue).project;
    expect(end(q)).toBe(true);
    expect(end(applyEdit(q, { type: "setWanted", ref: "M1", pin: "INT", wanted: false }, catalogue))).toBe(false);
  });
  it("wishes that the part can't have are refused with a sentence", () => {
    const load = (more: object) =>
      loadProject(
        {
          format: "young-lattice-project",
          version: 1,
          title: "t",
          parts: [BOARD3, { ref: "M1", part: "module/mpu6050", ...more }],
        },
        catalogue,
      );
    expect(load({ wanted: ["SDA"] })).toMatchObject({ ok: false, problems: [{ path: "parts/1/wanted/0" }] });
    expect(load({ software: ["uart"] })).toMatchObject({ ok: false, problems: [{ path: "parts/1/software/0" }] });
    expect(load({ software: [catalogue.get("module/mpu6050")!.groups[0]!.id] })).toMatchObject({ ok: true });
  });
  it("parts on a chosen board get that board's pins", () => {
    const p = make([
      BOARD3,
      { ref: "B2", part: "board/atmega328p-long" },
      USB,
      { ref: "D1", part: "discrete/led-red" },
    ]);
    const q = assign(p, catalogue).project;
    const moved = assign(applyEdit(q, { type: "setHost", ref: "D1", host: "B2" }, catalogue), catalogue).project;
    const at = (r: Project) => r.links.find((l) => l.from === "D1.A")!.to;
    expect(at(q)).toMatch(/^B1\./);
    expect(at(moved)).toMatch(/^B2\./);
  });
  it("with the radio on, analogue pins that go silent are not used", () => {
    const parts = [USB, ...many("discrete/potentiometer", "R", 7)];
    const board = (radio: boolean) => ({ ref: "B1", part: "board/esp32-thirtyeight", options: { radio } });
    const quiet = assign(make([board(false), ...parts]), catalogue);
    const loud = assign(make([board(true), ...parts]), catalogue);
    expect(quiet.status).toBe("optimal");
    expect(loud.status).toBe("infeasible");
    const six = make([board(true), USB, ...many("discrete/potentiometer", "R", 1)], [["R1.2", "B1.GPIO25"]]);
    expect(find(six, "pin.adc-radio")).toMatchObject({ severity: "fault" });
    expect(
      find(
        make([board(false), USB, ...many("discrete/potentiometer", "R", 1)], [["R1.2", "B1.GPIO25"]]),
        "pin.adc-radio",
      ),
    ).toBeUndefined();
  });
  it("5 V go to a pin that takes them, where there is one", () => {
    const a = assign(
      make([{ ref: "B1", part: "board/stm32f103-forty" }, USB, { ref: "M1", part: "module/hc-sr04" }]),
      catalogue,
    );
    const at = a.links.find((l) => l.from === "M1.ECHO")!.to.split(".")[1]!;
    expect(catalogue.get("board/stm32f103-forty")!.pins.find((p) => p.label === at)!.level).toBe("ft");
  });
});

describe("timers and lines as they stand", () => {
  it("a servo and a note on one slice are found, side by side slices are fine", () => {
    const on = (pin: string) =>
      make(
        [BOARD3, USB, { ref: "M1", part: "module/servo-small" }, { ref: "LS1", part: "discrete/speaker" }],
        [
          ["M1.SIG", "B1.GP0"],
          ["LS1.1", `B1.${pin}`],
        ],
      );
    expect(find(on("GP1"), "pin.timer-conflict")).toMatchObject({ severity: "risk", at: ["M1.SIG", "LS1.1"] });
    expect(find(on("GP2"), "pin.timer-conflict")).toBeUndefined();
  });
});

describe("other plans and differences", () => {
  it("the next best plans differ, cost what they say, and the difference names every wire", () => {
    const p = planned([BOARD3, USB, { ref: "M1", part: "module/bme280" }, { ref: "D1", part: "discrete/led-red" }]);
    const list = alternatives(p, catalogue, 4);
    expect(list).toHaveLength(4);
    expect(list[0]!.differs).toEqual([]);
    for (const [i, x] of list.entries()) {
      expect(x.more).toBe(x.cost - list[0]!.cost);
      if (!i) continue;
      expect(x.more).toBeGreaterThanOrEqual(list[i - 1]!.more);
      expect(planDiff(list[0]!.project, x.project, catalogue)).toEqual(x.differs);
      expect(x.differs.length).toBeGreaterThan(0);
    }
  });
  it("adding a part moves no wire when there is room", () => {
    const p = planned([
      BOARD5,
      USB,
      { ref: "M1", part: "module/ssd1306-i2c" },
      { ref: "M2", part: "module/hc-sr04" },
      { ref: "SW1", part: "discrete/button" },
    ]);
    const q = assign(
      { ...p, parts: [...p.parts, { ref: "D1", part: "discrete/led-red" }, { ref: "LS1", part: "discrete/speaker" }] },
      catalogue,
    ).project;
    expect(planDiff(p, q, catalogue).filter((m) => m.from)).toEqual([]);
  });
});

describe("boards", () => {
  const list = rankBoards(
    make([
      { ref: "B1", part: "board/rp2040-forty", options: { usbRole: "midi" } },
      USB,
      { ref: "M1", part: "module/hc-sr04" },
      { ref: "M2", part: "module/ws2812b-strip", options: { pixels: 700 } },
    ]),
    catalogue,
  );
  const of = (id: string) => list.find((b) => b.board === id)!;
  it("know what the project asks for beyond pins", () => {
    expect(of("board/atmega328p-long").lacks).toEqual([
      "no native USB, so it can't be a midi",
      expect.stringContaining("2 kB of memory is too little for 2.1 kB"),
    ]);
    expect(of("board/rp2040-forty").lacks).toEqual([]);
    expect(of("board/rp2040-forty")).toMatchObject({ current: true, usb: "native", V: 3.3 });
  });
  it("for a prototype, what needs no iron comes before what does; for good it does not matter", () => {
    const order = (stage: "prototype" | "keep") =>
      rankBoards(make([USB, { ref: "D1", part: "discrete/led-red" }], [], { brief: { stage } }), catalogue)
        .filter((b) => b.fits && !b.stops && !b.faults && b.board.startsWith("board/"))
        .map((b) => b.solder);
    const first = order("prototype");
    expect(first).toEqual([...first].sort((a, b) => Number(a) - Number(b)));
    expect(order("keep")).not.toEqual(first);
  });
  it("without an iron, boards that come soldered are first, for good too", () => {
    const list = rankBoards(
      make([USB, { ref: "D1", part: "discrete/led-red" }], [], { brief: { stage: "keep", iron: false } }),
      catalogue,
    ).filter((b) => b.fits && !b.stops && !b.faults);
    const order = list.map((b) => Number(b.solder));
    expect(order).toEqual([...order].sort());
    expect(new Set(order).size).toBe(2);
  });
  it("count levels to change, pins left by kind, and the supply", () => {
    expect(of("board/rp2040-forty").overdriven).toBe(1);
    expect(of("board/rp2040-forty").left.find((l) => l.can === "adc")!.pins).toHaveLength(3);
    expect(of("board/rp2040-forty").supply.severity).toBe("stop");
    for (const b of list.filter((x) => x.fits)) expect(b.project, b.board).toBeDefined();
  });
});
