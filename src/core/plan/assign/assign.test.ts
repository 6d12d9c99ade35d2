import { describe, expect, it } from "vitest";
import fc from "fast-check";
import { assign, refreshCompanions, waysToServe } from ".";
import { findPin } from "../../parts/catalogue";
import { applyEdit, splitEnd, type Edit, type Project } from "../../project";
import { BOARD3, BOARD5, catalogue, make, planned, rules, USB } from "../../testing";
import { cheapestMatching, NEVER } from "./solver/matching";
import { solve, type Problem } from ".";
import { bruteForce, randomProblem } from "./random";

describe("cheapest matching", () => {
  it("agrees with trying every permutation", () => {
    const cell = fc.oneof(
      { weight: 5, arbitrary: fc.integer({ min: 0, max: 50 }) },
      { weight: 1, arbitrary: fc.constant(NEVER) },
    );
    fc.assert(
      fc.property(fc.array(fc.array(cell, { minLength: 5, maxLength: 5 }), { minLength: 1, maxLength: 4 }), (cost) => {
        let best = Infinity;
        const go = (row: number, used: number, sum: number) => {
          if (sum >= best || sum >= NEVER) return;
          if (row === cost.length) best = sum;
          else for (let c = 0; c < 5; c++) if (!(used & (1 << c))) go(row + 1, used | (1 << c), sum + cost[row]![c]!);
        };
        go(0, 0, 0);
        const m = cheapestMatching(cost, 5);
        return best === Infinity ? m === null : m?.total === best;
      }),
    );
  });
});

describe("the solver", () => {
  it("finds the optimum that brute force finds, on random problems with buses, shares, clashes and sides", () => {
    let feasible = 0;
    for (let seed = 1; seed <= 300; seed++) {
      const p = randomProblem(seed, { pins: 7, parts: 3 });
      const mine = solve(p);
      const truth = bruteForce(p);
      expect(mine?.cost ?? null, `seed ${seed}`).toBe(truth);
      if (mine) feasible++;
    }
    expect(feasible).toBeGreaterThan(150);
    expect(feasible).toBeLessThan(300);
  });
  it("is deterministic", () => {
    for (let seed = 1; seed <= 20; seed++) {
      const p: Problem = randomProblem(seed, { pins: 12, parts: 5 });
      expect(solve(p)).toEqual(solve(structuredClone(p)));
    }
  });
});

const SIX = [
  { ref: "M1", part: "module/bme280" },
  { ref: "M2", part: "module/ssd1306-i2c" },
  { ref: "M3", part: "module/hc-sr04" },
  { ref: "M4", part: "module/ws2812b-strip" },
  { ref: "D1", part: "discrete/led-red" },
  { ref: "SW1", part: "discrete/button" },
];

describe("assign", () => {
  it("never breaks a hard rule, whatever the list, the board and the locks", () => {
    const list = fc.array(fc.constantFrom(...SIX.map((x) => x.part)), { minLength: 1, maxLength: 9 });
    fc.assert(
      fc.property(list, fc.constantFrom(BOARD3, BOARD5), fc.integer({ min: 0, max: 40 }), (ids, board, lock) => {
        const parts = ids.map((part, i) => ({ ref: `X${i + 1}`, part }));
        const pins = catalogue.get(board.part)!.pins.filter((p) => p.offers);
        const first = catalogue.get(ids[0]!)!.pins.find((p) => p.need)!;
        const links =
          lock < pins.length ? [{ from: `X1.${first.label}`, to: `B1.${pins[lock]!.label}`, locked: true }] : [];
        const project = make([board, USB, ...parts], [], { links });
        const a = assign(project, catalogue);
        if (a.status === "infeasible") return a.core.length > 0 && a.clash !== null;
        const used = new Map<string, string[]>();
        for (const { ref, part } of parts)
          for (const pin of catalogue.get(part)!.pins.filter((p) => p.need)) {
            const l = a.project.links.filter((x) => x.from === `${ref}.${pin.label}` || x.to === `${ref}.${pin.label}`);
            if (l.length !== 1) return false;
            const at = splitEnd(l[0]!.from).ref === "B1" ? l[0]!.from : l[0]!.to;
            const slot = findPin(catalogue.get(board.part)!, splitEnd(at).pin)!;
            if (!waysToServe(slot, pin.need!).some((w) => w.ok)) return false;
            used.set(at, [...(used.get(at) ?? []), `${pin.need!.kind}.${pin.need!.role}`]);
          }
        if (links[0] && !a.project.links.some((l) => l.from === links[0]!.from && l.to === links[0]!.to && l.locked))
          return false;
        return [...used.values()].every((u) => u.length === 1 || (u[0]!.startsWith("i2c") && new Set(u).size === 1));
      }),
      { numRuns: 150 },
    );
  });
  it("puts all I2C parts on one bus, on the usual pins, and says so", () => {
    const a = assign(make([BOARD3, USB, ...SIX]), catalogue);
    expect(a.status).toBe("optimal");
    const to = (end: string) => a.links.find((l) => l.from === end)!;
    expect(to("M1.SDA").to).toBe("B1.GP4");
    expect(to("M2.SDA").to).toBe("B1.GP4");
    expect(to("M1.SCL").why).toContain("usual I2C SCL pin of i2c0; shared with M2");
    expect(a.costBy.reduce((s, x) => s + x.cost, 0)).toBe(a.cost);
  });
  it("gives the echo an interrupt pin and leaves the console alone on the 5 V board", () => {
    const a = assign(make([BOARD5, USB, SIX[2]!, SIX[4]!]), catalogue);
    expect(a.links.find((l) => l.from === "M3.ECHO")!.to).toMatch(/^B1\.D[23]$/);
    expect(a.links.every((l) => l.to !== "B1.D0" && l.to !== "B1.D1")).toBe(true);
  });
  it("a slow serial part beside a console that has the only port: plain pins, timed by the program", () => {
    const at = (board: object, part: object, more: object[] = []) => {
      const a = assign(make([board as never, USB, { ref: "M1", ...part } as never, ...(more as never[])]), catalogue);
      return a.links.filter((l) => l.from.startsWith("M1.")).map((l) => splitEnd(l.to).pin);
    };
    const GPS = { part: "module/gps-neo6m" };
    const onConsole = (pins: string[], of = ["D0", "D1"]) => pins.filter((p) => of.includes(p));
    expect(onConsole(at(BOARD5, GPS))).toEqual([]);
    expect(onConsole(at({ ref: "B1", part: "board/atmega328p-compact" }, GPS))).toEqual([]);
    expect(onConsole(at({ ref: "B1", part: "board/esp8266-mini" }, GPS), ["TX", "RX"])).toEqual([]);
    // A fast one can't be timed so, two of them neither, and where there is a port it is taken.
    expect(onConsole(at(BOARD5, { part: "module/usb-uart-5v" }))).not.toEqual([]);
    expect(onConsole(at(BOARD5, { part: "module/usb-uart-5v", options: { baud: 9600 } }))).toEqual([]);
    const mega = catalogue.get("board/atmega2560-long")!;
    for (const pin of at({ ref: "B1", part: mega.id }, GPS).filter((p) => findPin(mega, p)?.offers))
      expect(
        findPin(mega, pin)!.offers!.some((o) => o.kind === "uart"),
        pin,
      ).toBe(true);
  });
  it("keeps wires where they are when a part joins", () => {
    const before = assign(make([BOARD5, USB, ...SIX.slice(0, 3)]), catalogue).project;
    const joined = make([...before.parts, { ref: "D9", part: "discrete/led-red" }], [], { links: before.links });
    const after = assign(joined, catalogue).project;
    for (const l of before.links) expect(after.links).toContainEqual(l);
    expect(assign(after, catalogue).project).toEqual(after);
  });
  it("adds nothing unasked to a part that is fully wired", () => {
    const p = make(
      [BOARD5, USB, SIX[4]!],
      [
        ["S1.USB", "B1.USB"],
        ["D1.A", "B1.D7"],
        ["D1.K", "B1.GND"],
      ],
    );
    expect(assign(p, catalogue).project).toEqual(p);
  });
  it("writes the companions of a part that still has open pins", () => {
    const q = assign(make([BOARD3, USB, ...SIX.slice(3)]), catalogue).project;
    expect(q.parts[2]!.companions).toEqual({ seriesResistor: { ohm: 330 }, bulkCapacitor: { F: 0.001 } });
    expect(q.parts[4]!.companions).toEqual({ pullUp: "internal" });
  });
  it("two displays on one address: a second bus where there is one, a clash in words where not", () => {
    const two = [SIX[1]!, { ref: "M9", part: "module/ssd1306-i2c" }];
    const a = assign(make([BOARD3, USB, ...two]), catalogue);
    expect(a.status).toBe("optimal");
    const pins = new Set(a.links.filter((l) => l.from.endsWith(".SDA")).map((l) => l.to));
    expect(pins.size).toBe(2);
    const b = assign(make([BOARD5, USB, ...two]), catalogue);
    expect(b.status).toBe("infeasible");
    expect(new Set(b.core.map((n) => splitEnd(n.need).ref))).toEqual(new Set(["M2", "M9"]));
    expect(b.clash).toContain("both answer to address 0x3c");
    expect(b.project.links).toEqual([]);
  });
  it("a lock that can't work is in the core, alone", () => {
    const p = make([BOARD3, USB, SIX[0]!], [], { links: [{ from: "M1.SDA", to: "B1.GP5", locked: true }] });
    const a = assign(p, catalogue);
    expect(a.core).toEqual([{ need: "M1.SDA", wants: "I2C SDA", locked: "B1.GP5" }]);
    expect(a.clash).toContain("locked to B1.GP5");
  });
  it("too many lights for the board: the core counts them", () => {
    const many = Array.from({ length: 21 }, (_, i) => ({ ref: `D${i + 1}`, part: "discrete/led-red" }));
    const a = assign(make([BOARD5, USB, ...many]), catalogue);
    expect(a.status).toBe("infeasible");
    expect(a.core).toHaveLength(21);
    expect(a.clash).toContain("20 pins");
  });
});

describe("suggestions follow what they were made from", () => {
  const change = (p: Project, edit: Edit) => refreshCompanions(p, applyEdit(p, edit, catalogue), catalogue);
  it("another LED current brings another resistor, unless the person chose one", () => {
    const p = planned([BOARD5, USB, SIX[4]!]);
    const q = change(p, { type: "setOption", ref: "D1", key: "current_mA", value: 2 });
    // (5 − 2 − 2 mA · 25 Ω) / 2 mA = 1475 Ω, next up 1500 Ω.
    expect(q.parts[2]!.companions).toEqual({ seriesResistor: { ohm: 1500 } });
    const mine = applyEdit(
      p,
      { type: "setCompanion", ref: "D1", key: "seriesResistor", value: { ohm: 470 } },
      catalogue,
    );
    expect(change(mine, { type: "setOption", ref: "D1", key: "current_mA", value: 2 }).parts[2]!.companions).toEqual({
      seriesResistor: { ohm: 470 },
    });
  });
  it("another pull moves the contact's far end to the other rail and back", () => {
    const p = planned([BOARD3, USB, SIX[5]!]);
    const down = change(p, { type: "setHouseRules", rules: { buttonPull: "external-down" } });
    expect(down.parts[2]!.companions).toEqual({ pullDown: { ohm: 10000 } });
    expect(down.links).toContainEqual({ from: "SW1.2", to: "B1.3V3" });
    expect(down.links.some((l) => l.from === "SW1.2" && l.to === "B1.GND")).toBe(false);
    expect(rules(down)).toEqual([]);
    const up = change(down, { type: "setHouseRules", rules: { buttonPull: "internal-up" } });
    expect(up.parts[2]!.companions).toEqual({ pullUp: "internal" });
    expect(up.links).toContainEqual({ from: "SW1.2", to: "B1.GND" });
  });
});

describe("loose parts that the board and the supply decide", () => {
  it("a display on its own supply gets a resistor in each signal, so that nothing feeds it while that is off", () => {
    const digits = { ref: "M1", part: "module/max7219-digits" };
    const alone = planned([BOARD5, USB, { ref: "S2", part: "supply/adapter-5v-2a" }, digits]);
    expect(alone.parts[3]!.companions!.seriesResistor).toEqual({ ohm: 330, pins: ["DIN", "CS", "CLK"] });
    expect(rules(alone)).toEqual([]);
    // Fed by the board they come and go together: no resistor.
    const shared = planned([BOARD5, { ref: "S1", part: "supply/usb-charger" }, { ref: "M1", part: "module/sht31" }]);
    expect(shared.parts[2]!.companions?.seriesResistor).toBeUndefined();
  });
  it("a speaker's resistor follows what the board's pins like to give", () => {
    const at = (board: string) =>
      planned([{ ref: "B1", part: `board/${board}` }, USB, { ref: "LS1", part: "discrete/speaker" }]).parts[2]!
        .companions!.seriesResistor;
    expect(at("atmega328p-long")).toEqual({ ohm: 470 });
    // 3.4 V / (2 mA · 0.95) = 1789 Ω, next up 1800 Ω.
    expect(at("samd21-compact")).toEqual({ ohm: 1800 });
  });
  it("the pin that works a load's transistor is taken", () => {
    const pump = {
      ref: "MT1",
      part: "discrete/pump-5v",
      label: "Pump",
      companions: { driver: { part: "discrete/nmos-irlz44n", ohm: [270, 10_000] }, flyback: null },
    };
    const free = planned([BOARD5, USB, { ref: "D1", part: "discrete/led-red" }]);
    // The pin that a light would get: with the pump on it, the light goes elsewhere.
    const at = free.links.find((l) => l.from === "D1.A")!.to;
    const p = make(
      [BOARD5, USB, { ref: "S2", part: "supply/adapter-5v-2a" }, pump, { ref: "D1", part: "discrete/led-red" }],
      [
        ["S1.USB", "B1.USB"],
        ["MT1.1", at],
        ["MT1.2", "S2.5V"],
        ["S2.GND", "B1.GND"],
      ],
    );
    const q = assign(p, catalogue).project;
    const lamp = q.links.find((l) => [l.from, l.to].includes("D1.A"))!;
    expect([lamp.from, lamp.to]).not.toContain(at);
    expect(q.links).toContainEqual({ from: "MT1.1", to: at });
  });
});
