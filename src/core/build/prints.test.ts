import { describe, expect, it } from "vitest";
import { circuitOf } from "../circuit";
import {
  absentPins,
  asksPrint,
  findPin,
  printProblems,
  printsOf,
  printText,
  readingOf,
  turnedRound,
  withPrint,
  type ChosenPrint,
} from "../parts/catalogue";
import { probesOf } from "../bench/station/probes";
import { builtTurned } from "../wires/built";
import { seeded } from "../plan/assign/random";
import { applyEdit, loadProject } from "../project";
import { BOARD3, catalogue, check, make, planned, USB } from "../testing";
import { propose } from "./breadboard";
import { pinWords } from "./position";
import { runSheet } from "./runsheet";

const modules = catalogue.parts.filter((p) => p.id.startsWith("module/"));
const get = (id: string) => catalogue.get(id)!;
const one = (id: string, print?: ChosenPrint, options?: object) =>
  planned([BOARD3, USB, { ref: "M1", part: id, print, ...(options && { options }) }]);
const instance = (id: string, print?: ChosenPrint) => circuitOf(one(id, print), catalogue).netlist.instance("M1")!;

describe("the prints of the catalogue", () => {
  it.each(modules.map((p) => [p.id, p] as const))(
    "%s: every label is a pin of it, nothing it needs is missing",
    (_id, p) => {
      const prints = printsOf(p);
      expect(prints.length).toBeGreaterThan(0);
      expect(new Set(prints.map((x) => x.id)).size).toBe(prints.length);
      for (const x of prints) {
        for (const label of x.rows.flat()) expect(label === "NC" || findPin(p, label), `${x.id} ${label}`).toBeTruthy();
        expect(printProblems(p, { rows: x.rows }), x.id).toEqual([]);
        for (const [key, value] of Object.entries(x.when ?? {})) {
          const option = p.options.find((o) => o.key === key);
          expect(option?.kind === "choice" && option.choices.some((c) => c.value === value), `${x.id} ${key}`).toBe(
            true,
          );
        }
        // Two rows that stand on a breadboard are as long as each other and a whole number of holes apart.
        if (x.rowPitch_mm === undefined || x.rows.length < 2) continue;
        expect(x.rows[0]!.length).toBe(x.rows[1]!.length);
        expect(Math.abs(x.rowPitch_mm / 2.54 - Math.round(x.rowPitch_mm / 2.54))).toBeLessThan(0.01);
      }
    },
  );
  it("no order of an unknown origin counts as looked at", () => {
    for (const p of modules)
      for (const x of printsOf(p))
        if (x.certainty === "assumed" && x === printsOf(p)[0]) {
          expect(asksPrint(p), p.id).toBe(true);
          expect(readingOf(p).confirmed, p.id).toBe(false);
        }
  });
  it("what is sold with supply and ground exchanged is in doubt, what is sold one way only is not", () => {
    for (const id of ["module/ssd1306-i2c", "module/pir", "module/relay-1", "module/hc05", "module/scd41"])
      expect(readingOf(get(id)), id).toMatchObject({ confirmed: false, doubtful: true });
    for (const id of ["module/mpu6050", "module/hc-sr04", "module/74hc595", "module/relay-2"])
      expect(readingOf(get(id)), id).toMatchObject({ confirmed: true, doubtful: false });
  });
  it("a choice that was made goes to the header that goes with it", () => {
    expect(readingOf(get("module/bme280"), undefined, { supply: "regulated" }).rows[0]![0]!.printed).toBe("VIN");
    expect(readingOf(get("module/dht22"), undefined, { supply: "bare" }).rows[0]).toHaveLength(4);
  });
});

describe("an order of one's own", () => {
  const air = get("module/bme280");
  const told = (print: ChosenPrint) => printProblems(air, print).join("; ");
  it("asks what an unknown label is, and takes it under that name", () => {
    expect(told({ rows: [["VCC", "GND", "CLOCK", "SDA"]] })).toMatch(/"CLOCK" is no pin .*; SCL is missing/);
    const known: ChosenPrint = { rows: [["VCC", "GND", "CLOCK", "SDA", "X"]], names: { CLOCK: "SCL", X: null } };
    expect(printProblems(air, known)).toEqual([]);
    const reading = readingOf(air, known);
    expect(reading.rows[0]!.map((h) => h.pin)).toEqual(["VCC", "GND", "SCL", "SDA", null]);
    expect(pinWords(instance("module/bme280", known), "SCL")).toBe("third of 5, printed CLOCK");
  });
  it("the edge that was said turns the header round: the same labels, the other way on the breadboard", () => {
    const part = get("module/bme280");
    const order = ["VCC", "GND", "SCL", "SDA"];
    const down = (edge: "bottom" | "top") => {
      const c = circuitOf(one(part.id, { rows: [order], edge }), catalogue);
      const { holes } = propose(c).parts.find((p) => p.ref === "M1")!;
      const row = (h: string) => Number(/(\d+)$/.exec(h)![1]);
      const pins = [...holes].sort((a, b) => row(a.hole) - row(b.hole)).map((h) => h.pin);
      return /[a-e]\d+$/.test(holes[0]!.hole) ? pins.reverse() : pins;
    };
    expect(down("bottom")).toEqual(order);
    expect(down("top")).toEqual([...order].reverse());
    // Unsaid, it is where such a part usually has it.
    for (const p of modules.filter((m) => printsOf(m)[0]!.rows.length === 1)) {
      const rows = printsOf(p)[0]!.rows;
      expect(readingOf(p, { rows }).edge, p.id).toBe(printsOf(p)[0]!.edge === "top" ? "top" : "bottom");
      expect(readingOf(p, { rows, edge: "top" }).edge).toBe("top");
    }
    expect(printProblems(get("module/74hc595"), { rows: [["VCC"], ["GND"]], edge: "top" })[0]).toMatch(/one row/);
  });
  it("a - may be ground: it is asked for, not left open", () => {
    const light = { rows: [["VCC", "-", "GND", "SCL", "SDA"]] };
    expect(told(light)).toMatch(/"-" is no pin/);
    expect(told({ ...light, names: { "-": null } })).toBe("");
  });
  it("says what stands there twice, what is missing, and what no such part has", () => {
    expect(told({ rows: [["VCC", "VIN", "GND", "SCL", "SDA"]] })).toMatch(/"VIN" and "VCC" would both be VCC/);
    expect(told({ rows: [["GND", "SCL", "SDA"]] })).toMatch(/VCC is missing/);
    expect(told({ rows: [["VCC", "GND", "SCL", "SDA", "Q"]], names: { Q: "RESET" } })).toMatch(/has not/);
    expect(told({ id: "z" })).toMatch(/no print "z"; it has a, b, c/);
    expect(printProblems(get("board/rp2040-forty"), { rows: [["GP0"]] })[0]).toMatch(/leave "print" out/);
  });
  it("a file with a print that can't be is refused with its place", () => {
    const doc = { ...one("module/bme280", { id: "a" }) };
    const bad = { ...doc, parts: doc.parts.map((p) => (p.ref === "M1" ? { ...p, print: { rows: [["VCC"]] } } : p)) };
    const r = loadProject(JSON.parse(JSON.stringify(bad)), catalogue);
    expect(r.ok ? [] : r.problems.map((p) => p.path)).toEqual(["parts/2/print", "parts/2/print", "parts/2/print"]);
  });
  it.each(Array.from({ length: 40 }, (_, i) => i + 1))(
    "shuffled, draw %i: words and holes follow it, and no label moves",
    (seed) => {
      const roll = seeded(seed);
      const int = (n: number) => Math.floor(roll() * n);
      const single = modules.filter((p) => printsOf(p)[0]!.rows.length === 1 && p.body.header?.kind === "male");
      const part = single[int(single.length)]!;
      const labels = printsOf(part)[0]!.rows[0]!.filter((l) => l !== "NC");
      const order = [...labels];
      for (let i = order.length - 1; i > 0; i--) {
        const k = int(i + 1);
        [order[i], order[k]] = [order[k]!, order[i]!];
      }
      const before = one(part.id, { id: printsOf(part)[0]!.id });
      const after = applyEdit(before, { type: "setPrint", ref: "M1", print: { rows: [order] } }, catalogue);
      // Another order moves holes, never wires.
      expect(after.links).toEqual(before.links);
      const c = circuitOf(after, catalogue);
      const inst = c.netlist.instance("M1")!;
      const pinOf = (l: string) => findPin(part, l)!.label;
      for (const [k, l] of order.entries())
        expect(inst.reading.rows[0]![k]).toEqual({ printed: l.replace(/\.\d+$/, ""), pin: pinOf(l) });
      const layout = propose(c);
      const placed = layout.parts.find((p) => p.ref === "M1");
      if (!placed) return;
      const row = (h: string) => Number(/(\d+)$/.exec(h)![1]);
      const down = [...placed.holes].sort((a, b) => row(a.hole) - row(b.hole)).map((h) => h.pin);
      // Held with the header towards the person the labels run to the right. With the body outward on the right half, that
      // is from the top down; on the left half, and with the header at the top edge, the other way round.
      const right = /[f-j]\d+$/.test(placed.holes[0]!.hole);
      const turned = (inst.reading.edge === "top") === right;
      expect(turned ? down.reverse() : down).toEqual(order.map(pinOf));
    },
  );
});

describe("every room reads the same header", () => {
  const legged = modules.filter((p) => p.body.header?.kind === "leads");
  it.each(legged.flatMap((p) => printsOf(p).map((x) => [`${p.id} ${x.id}`, p, x] as const)))(
    "%s: its legs stand on the breadboard as this one reads",
    (_name, part, print) => {
      const c = circuitOf(one(part.id, { id: print.id }), catalogue);
      const placed = propose(c).parts.find((p) => p.ref === "M1");
      expect(placed).toBeDefined();
      const row = (h: string) => Number(/(\d+)$/.exec(h)![1]);
      const half = (h: string) => (/^\d*[a-e]/.test(h.replace(/^.*\./, "")) ? "left" : "right");
      const columns = (["left", "right"] as const).map((s) =>
        placed!.holes
          .filter((h) => print.rows.length === 1 || half(h.hole) === s)
          .sort((a, b) => row(a.hole) - row(b.hole))
          .map((h) => h.pin),
      );
      const reads = readingOf(part, { id: print.id }).rows.map((r) => r.flatMap((h) => h.pin ?? []));
      const turn = (r: (string | null)[]) => [...r].reverse();
      const seen = JSON.stringify(print.rows.length === 1 ? [columns[0]] : columns);
      // Upright, or by half a turn.
      expect([JSON.stringify(reads), JSON.stringify([...reads].reverse().map(turn))]).toContain(seen);
    },
  );
  it("turned round, first and last hole exchange places as printed, not as the catalogue lists them", () => {
    for (const part of modules)
      for (const print of printsOf(part)) {
        const reading = readingOf(part, { id: print.id });
        const holes = reading.rows.flat();
        const to = turnedRound(reading);
        expect(to.size, part.id).toBe(holes.filter((h) => h.pin).length);
        for (const [k, h] of holes.entries()) if (h.pin) expect(to.get(h.pin)).toBe(holes.at(-1 - k)!.pin);
      }
    // A chip turned by half a turn has its first leg where the leg across from its last in the left row was.
    expect(turnedRound(readingOf(get("module/optocoupler-pc817"))).get("A")).toBe("E");
  });
  it.each(["a", "b"])("a plug turned round in print %s: what was built follows that print", (id) => {
    const p = one("module/ssd1306-i2c", { id });
    const act = builtTurned(p, catalogue, "M1");
    if (!act.ok) throw new Error(act.why);
    const q = act.edits.reduce((x, e) => applyEdit(x, e, catalogue), p);
    const at = (x: typeof p, end: string) =>
      x.links.flatMap((l) => (l.from === end ? [l.to] : l.to === end ? [l.from] : [])).sort();
    const row = printsOf(get("module/ssd1306-i2c")).find((x) => x.id === id)!.rows[0]!;
    row.forEach((l, k) => expect(at(q, `M1.${row.at(-1 - k)!}`), l).toEqual(at(p, `M1.${l}`)));
  });
  it("a wire that faces an open hole is joined to nothing", () => {
    const p = one("module/ssd1306-i2c", { rows: [["NC", "GND", "VCC", "SCL", "SDA"]] });
    const act = builtTurned(p, catalogue, "M1");
    if (!act.ok) throw new Error(act.why);
    const q = act.edits.reduce((x, e) => applyEdit(x, e, catalogue), p);
    expect(p.links.some((l) => l.from === "M1.SDA" || l.to === "M1.SDA")).toBe(true);
    expect(q.links.some((l) => [l.from, l.to].some((e) => e.endsWith("null")))).toBe(false);
    expect(q.links.length).toBe(p.links.length - 1);
  });
  it("the probes are drawn where the one in hand has the pin, and not by number until it was looked at", () => {
    const drawn = (print?: ChosenPrint) => {
      const [m] = probesOf(circuitOf(one("module/scd41", print), catalogue), "M1.VCC", "M1.GND");
      return { words: m!.words, row: m!.rows[0]!.pins.map((x) => [x.label, x.n, x.probe]) };
    };
    const own = { rows: [["SDA", "PWR", "SCL", "GND", "X"]], names: { PWR: "VCC", X: null } };
    expect(drawn(own)).toEqual({
      words: ["red: PWR, the 2nd of 5", "black: GND, the 4th of 5"],
      row: [
        ["SDA", 1, null],
        ["PWR", 2, "red"],
        ["SCL", 3, null],
        ["GND", 4, "black"],
        ["X", 5, null],
      ],
    });
    const unread = drawn();
    expect(unread.words[0]).toMatch(/find it by its print/);
    expect(unread.row.every(([, n]) => n === null)).toBe(true);
  });
});

describe("until somebody has looked", () => {
  it("wires are named by label, the run sheet says to read before power, and the ledger has the risk", () => {
    const p = one("module/ssd1306-i2c");
    const c = circuitOf(p, catalogue);
    expect(pinWords(c.netlist.instance("M1")!, "GND")).toBe(
      "printed GND: find it by its print, its place is not confirmed",
    );
    const rows = runSheet(c);
    const read = rows.findIndex((r) => r.id === "check-print-M1");
    const live = rows.findIndex((r) => r.kind === "cable");
    expect(rows[read]!.note).toMatch(/header not confirmed: read what is printed/);
    expect(live).toBeGreaterThan(read);
    expect(check(p).filter((f) => f.rule === "part.print")).toMatchObject([{ severity: "risk", at: ["M1"] }]);
  });
  it("one press confirms, and the sheet names places again", () => {
    const p = one("module/ssd1306-i2c");
    const fix = check(p)
      .find((f) => f.rule === "part.print")!
      .fixes.find((f) => f.label === "Mine (M1) reads VCC GND SCL SDA")!;
    const q = fix.edits.reduce((x, e) => applyEdit(x, e, catalogue), p);
    const c = circuitOf(q, catalogue);
    expect(pinWords(c.netlist.instance("M1")!, "GND")).toBe("second of 4, printed GND");
    expect(runSheet(c).some((r) => r.id === "check-print-M1")).toBe(false);
    expect(check(q).some((f) => f.rule === "part.print")).toBe(false);
  });
  it("every module, unread: nobody is told a place, and each of doubtful supply is in the ledger", () => {
    for (const part of modules.filter((p) => p.body.header?.kind === "male")) {
      const p = one(part.id);
      const c = circuitOf(p, catalogue);
      const inst = c.netlist.instance("M1")!;
      const risk = check(p).some((f) => f.rule === "part.print");
      expect(risk, part.id).toBe(inst.reading.doubtful);
      if (inst.reading.confirmed || part.pins.length < 3) continue;
      for (const h of inst.reading.rows.flat()) if (h.pin) expect(pinWords(inst, h.pin), part.id).not.toMatch(/ of \d/);
    }
  });
});

describe("prints in edits", () => {
  it("the drawer remembers, for the next one that is added", () => {
    const p = applyEdit(
      make([BOARD3]),
      { type: "setDrawer", drawer: { prints: { "module/pir": { id: "b" } } } },
      catalogue,
    );
    const q = applyEdit(p, { type: "addPart", part: "module/pir" }, catalogue);
    expect(q.parts.at(-1)!.print).toEqual({ id: "b" });
    // Another choice is another board: that one is looked at by itself.
    const air = applyEdit(make([BOARD3]), { type: "setDrawer", drawer: { prints: { "module/bme280": { id: "a" } } } }, catalogue); // prettier-ignore
    const added = (options: object) =>
      applyEdit(air, { type: "addPart", part: "module/bme280", options: { ...options } }, catalogue).parts.at(-1)!;
    expect(added({ address: "0x77" })).toMatchObject({
      print: { id: "a" },
      options: { supply: "plain", address: "0x77" },
    });
    expect(added({ supply: "regulated" })).toMatchObject({ options: { supply: "regulated" } });
    expect(added({ supply: "regulated" }).print).toBeUndefined();
    // What the catalogue no longer knows is looked at again.
    const r = applyEdit(p, { type: "setDrawer", drawer: { prints: { "module/pir": { id: "zz" } } } }, catalogue);
    expect(applyEdit(r, { type: "addPart", part: "module/pir" }, catalogue).parts.at(-1)!.print).toBeUndefined();
  });
  it("a print brings the choices that go with it, another part has none, and one that can't be is not taken", () => {
    const p = one("module/bme280");
    const q = applyEdit(p, { type: "setPrint", ref: "M1", print: { id: "b" } }, catalogue);
    expect(q.parts.find((x) => x.ref === "M1")).toMatchObject({ print: { id: "b" }, options: { supply: "regulated" } });
    expect(
      applyEdit(q, { type: "changePart", ref: "M1", part: "module/bmp280" }, catalogue).parts[2]!.print,
    ).toBeUndefined();
    expect(applyEdit(p, { type: "setPrint", ref: "M1", print: { rows: [["VCC"]] } }, catalogue)).toBe(p);
    expect(applyEdit(q, { type: "setPrint", ref: "M1", print: null }, catalogue).parts[2]!.print).toBeUndefined();
  });
  it("pins that only other prints have ask for nothing here", () => {
    const four = withPrint(get("module/bme280"), { id: "a" });
    expect(absentPins(get("module/bme280"), { id: "a" })).toEqual(["CSB", "SDO"]);
    expect(four.pins.find((p) => p.label === "CSB")).toMatchObject({ optional: true });
    expect(four.pins.find((p) => p.label === "CSB")!.hook).toBeUndefined();
    const links = (print: ChosenPrint) =>
      one("module/bme280", print)
        .links.map((l) => `${l.from} ${l.to}`)
        .join();
    expect(links({ id: "a" })).not.toMatch(/CSB/);
    expect(links({ id: "c" })).toMatch(/M1\.CSB/);
  });
  it("a header in one line names doubled grounds as they are printed", () =>
    expect(printText(printsOf(get("module/mcp4725"))[0]!)).toBe("OUT GND SCL SDA VCC GND"));
});

describe("straps and ties", () => {
  const linksOf = (id: string, board: string, options: object, print?: ChosenPrint) =>
    planned([{ ref: "B1", part: board }, USB, { ref: "M1", part: id, options, ...(print && { print }) }]).links;
  const far = (id: string, board: string, pin: string, options: object, print?: ChosenPrint) => {
    const l = linksOf(id, board, options, print).find((x) => [x.from, x.to].includes(`M1.${pin}`));
    return l && (l.from === `M1.${pin}` ? l.to : l.from);
  };
  it("an address that is chosen is wired, at the part's own logic voltage", () => {
    for (const [id, pin, address] of [
      ["module/mpu6050", "AD0", "0x69"],
      ["module/bh1750", "ADDR", "0x5c"],
      ["module/lsm6ds3", "SA0", "0x6b"],
      ["module/bmp280", "SDO", "0x77"],
      ["module/adxl345", "SDO", "0x1d"],
      ["module/ccs811", "ADD", "0x5b"],
      ["module/sht31", "AD", "0x45"],
    ] as const)
      for (const board of ["board/atmega328p-long", "board/rp2040-forty"]) {
        const volts = board.includes("rp2040") ? "B1.3V3" : expect.stringMatching(/^B1\.(3V3|5V)$/);
        expect(far(id, board, pin, { address }), `${id} ${board}`).toEqual(volts);
        const option = get(id).options.find((o) => o.key === "address")!;
        const usual = option.kind === "choice" ? option.default : "";
        expect(far(id, board, pin, { address: usual }), id).toBeUndefined();
      }
    expect(far("module/ads1115", "board/rp2040-forty", "ADDR", { address: "0x4a" })).toBe("M1.SDA");
    expect(far("module/ads1115", "board/rp2040-forty", "ADDR", { address: "0x4b" })).toBe("M1.SCL");
    expect(far("module/tca9548a", "board/rp2040-forty", "A1", { address: "0x72" })).toBe("B1.3V3");
    expect(far("module/tca9548a", "board/rp2040-forty", "A0", { address: "0x72" })).toBeUndefined();
  });
  it("no strap or tie of any module takes harm on any board, whatever is chosen", () => {
    const harm = new Set(["stop", "fault"]);
    for (const part of modules) {
      const tied = part.pins.some((p) => p.hook) || JSON.stringify(part.options).includes("/hook");
      if (!tied) continue;
      const address = part.options.find((o) => o.key === "address");
      const values = address?.kind === "choice" ? [address.choices[0]!.value, address.choices.at(-1)!.value] : [null];
      for (const board of [
        "board/atmega328p-long",
        "board/atmega2560-long",
        "board/rp2040-forty",
        "board/esp32-thirtyeight",
      ])
        for (const value of values) {
          const p = planned([
            { ref: "B1", part: board },
            USB,
            { ref: "M1", part: part.id, ...(value && { options: { address: value } }) },
          ]);
          const pins = new Set(part.pins.map((x) => `M1.${x.label}`));
          const hooked = withTies(part.id, value);
          const bad = check(p).filter(
            (f) =>
              harm.has(f.severity) && f.at.some((a) => pins.has(a) && hooked.has(a)) && f.rule.startsWith("level."),
          );
          expect(
            bad.map((f) => f.message),
            `${part.id} ${value} on ${board}`,
          ).toEqual([]);
        }
    }
  });
});

/** Pins of a module that are held somewhere, with an address chosen. */
function withTies(id: string, address: string | null): Set<string> {
  const p = make([BOARD3, { ref: "M1", part: id, ...(address && { options: { address } }) }]);
  const part = circuitOf(p, catalogue).netlist.instance("M1")!.part;
  return new Set(part.pins.filter((x) => x.hook).map((x) => `M1.${x.label}`));
}
