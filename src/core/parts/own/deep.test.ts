import { describe, expect, it } from "vitest";
import { circuitOf } from "../../circuit";
import { findings, verdict } from "../../checks";
import { assign } from "../../plan/assign";
import { applyEdit } from "../../project";
import { BOARD3, BOARD5, catalogue, make, USB } from "../../testing";
import { printsOf, readPart, validatePart, withOptions, type Part } from "../catalogue";
import {
  blankPin,
  boardDraft,
  buildPart,
  draftFrom,
  emptyDraft,
  emptySupply,
  OwnDraftSchema,
  readBoardPins,
  type DraftPin,
  type OwnDraft,
  type OwnRole,
} from ".";

const pin = (label: string, role: OwnRole, more: Partial<DraftPin> = {}): DraftPin => ({
  ...blankPin(label, role, "main"),
  ...more,
});

/** A sensor with a regulator of its own, a load supply, straps, an enable, a pull-up and two rows. */
const deep = (): OwnDraft => ({
  ...emptyDraft(),
  name: "Wind meter, green board",
  sourceTitle: "data sheet",
  pins: [
    pin("VIN", "supply-in", { supply: "main" }),
    pin("GND", "ground"),
    pin("SDA", "i2c-sda", { supply: "core" }),
    pin("SCL", "i2c-scl", { supply: "core" }),
    pin("AD0", "strap", { supply: "core" }),
    pin("EN", "input", { supply: "core", floats: true, optional: true }),
    pin("VM", "supply-in", { supply: "load" }),
    pin("HEAT", "open-both", { supply: "core", optional: true }),
  ],
  supplies: [
    { ...emptySupply("main"), V: "3.3 to 5.5 V", peak: "12 mA", absMax: "6 V" },
    { ...emptySupply("core"), V: "3.3V ±3%", absMax: "4 V", VIH: "0.7 VDD", VIL: "0.3 VDD", VOL: "0.4" },
    { ...emptySupply("load"), V: "4.5 to 12 V", peak: "900 mA", absMax: "14 V", forLoads: true },
  ],
  feeds: [{ source: "main", to: "core", how: "linear", V: "3.3 V ±3%", dropout: "0.3 V", limit: "150 mA" }],
  companions: [
    { key: "bulkCapacitor", pin: "VM", to: "GND", value: "100 µF", required: true, because: "its heater jumps" },
  ],
  gates: [{ pin: "EN", open: "high", says: "is awake" }],
  straps: [
    { address: "0x40", pin: "AD0", to: "ground" },
    { address: "0x41", pin: "AD0", to: "supply" },
  ],
  clock: "400 kHz",
  pullUps: "10k",
  layout: "sides",
  firstRow: "4",
  rowPitch: "15.24 mm",
  secondRow: "up",
  orientation: "chip up",
});

describe("what a part file can say, the editor can", () => {
  it("a regulator inside, a load supply, a pin that must not float, straps, open drain both ways, two rows", () => {
    const { part, problems } = buildPart(deep());
    expect(problems).toEqual([]);
    expect(readPart(JSON.stringify(part)).ok).toBe(true);
    expect(part!.converters).toEqual([
      expect.objectContaining({ from: "main", to: "core", kind: "linear", limit_mA: 150, dropout_V: 0.3 }),
    ]);
    expect(part!.supplies.load!.forLoads).toBe(true);
    expect(part!.supplies.core!.source).toBeUndefined();
    const at = (label: string) => part!.pins.find((p) => p.label === label)!;
    expect(at("EN").mustNotFloat).toBe(true);
    expect(at("HEAT")).toMatchObject({ io: "open-drain", need: { kind: "digital-io" } });
    expect(part!.gates).toEqual([{ pin: "EN", open: "high", says: "is awake" }]);
    expect(part!.companions[0]).toMatchObject({ key: "bulkCapacitor", F: 1e-4, pin: "VM", to: "GND" });
    expect(printsOf(part!)[0]).toMatchObject({
      rows: [
        ["VIN", "GND", "SDA", "SCL"],
        ["HEAT", "VM", "EN", "AD0"],
      ],
      edge: "sides",
      rowPitch_mm: 15.24,
    });
    const second = withOptions(part!, { address: "0x41" });
    expect(second.groups[0]!.address).toBe("0x41");
    expect(second.pins.find((p) => p.label === "AD0")!.hook).toBe("own-supply");
    expect(withOptions(part!, {}).pins.find((p) => p.label === "AD0")!.hook).toBe("ground");
  });
  it("is planned and judged: the strap is wired, the load gets a supply of its own, levels follow the inner rail", () => {
    const part = buildPart(deep()).part!;
    for (const board of [BOARD3, BOARD5]) {
      const bare = {
        ...make([board, USB, { ref: "S2", part: "supply/adapter-9v-1a" }]),
        customParts: [part],
      };
      const p = applyEdit(bare, { type: "addPart", part: part.id, ref: "M1" }, catalogue);
      const c = circuitOf(assign(p, catalogue).project, catalogue);
      expect(c.netlist.netOf("M1.AD0").kind).toBe("ground");
      expect(c.netlist.netOf("M1:core").V!.typ).toBeCloseTo(3.3);
      const wired = c.netlist.netOf("M1.VM");
      expect(wired.ends.some((e) => e.ref === board.ref)).toBe(false);
      const bad = findings(c).filter((f) => f.severity === "stop" || f.severity === "fault");
      // On a 5 V board only the bus levels are left to say, since the sensor's inner 3.3 V are known.
      for (const f of bad) expect(f.rule, f.message).toMatch(/^(level\.|i2c\.)/);
      if (board === BOARD3) expect(verdict(c, findings(c)).words).not.toMatch(/Do not/);
    }
  });
  it("held shut by a wire, its enable is told", () => {
    const part = buildPart(deep()).part!;
    const bare = { ...make([BOARD3, USB]), customParts: [part] };
    const p = assign(applyEdit(bare, { type: "addPart", part: part.id, ref: "M1" }, catalogue), catalogue).project;
    const shut = applyEdit(p, { type: "addLink", link: { from: "M1.EN", to: "B1.GND" } }, catalogue);
    expect(findings(circuitOf(shut, catalogue)).map((f) => f.rule)).toContain("net.gate-shut");
  });
  it("a switch of its own: paths with an enable and a resistance", () => {
    const d: OwnDraft = {
      ...emptyDraft(),
      name: "Two-way switch",
      pins: [
        pin("VCC", "supply-in"),
        pin("GND", "ground"),
        pin("A", "terminal"),
        pin("B", "terminal"),
        pin("OE", "strap", { tie: "ground" }),
      ],
      supplies: [{ ...emptySupply(), V: "2 to 5.5 V", peak: "1 mA", VIH: "0.7 VDD", VIL: "0.3 VDD" }],
      channels: [{ in: "A", out: "B", both: true, enable: "OE", ohm: "120" }],
    };
    const { part, problems } = buildPart(d);
    expect(problems).toEqual([]);
    expect(part!.channels).toEqual([{ in: "A", out: "B", both: true, enable: "OE", ohm: 120 }]);
    expect(part!.pins.at(-1)).toMatchObject({ hook: "ground", io: "in" });
  });
  it("names every row that can't be used, and where", () => {
    const d = deep();
    d.feeds.push({ source: "core", to: "core", how: "diode", V: "", dropout: "", limit: "" });
    d.feeds.push({ source: "main", to: "nothing", how: "diode", V: "0.3 V", dropout: "", limit: "1 A" });
    d.feeds.push({ source: "main", to: "load", how: "fuse", V: "", dropout: "", limit: "lots" });
    d.companions.push({ key: "pullUp", pin: "XX", to: "", value: "some", required: false, because: "" });
    d.companions.push({ key: "termination", pin: "SDA", to: "", value: "", required: false, because: "" });
    d.channels.push({ in: "SDA", out: "", both: false, enable: "", ohm: "" });
    d.gates.push({ pin: "", open: "low", says: "" });
    d.straps.push({ address: "0x99", pin: "SDA", to: "open" });
    d.firstRow = "8";
    d.rowPitch = "wide";
    const { problems } = buildPart(d);
    const at = problems.map((p) => p.field);
    for (const field of [
      "feeds/1",
      "feeds/2",
      "feeds/3/V",
      "feeds/3/limit",
      "companions/1",
      "companions/1/value",
      "companions/2",
      "companions/2/value",
      "channels/0",
      "gates/1",
      "straps/2",
      "firstRow",
      "rowPitch",
    ])
      expect(at, field).toContain(field);
    expect(OwnDraftSchema.safeParse(d).success).toBe(true);
  });
});

describe("changing what a copy has", () => {
  it("a row that is taken out goes, one that is changed keeps what no field says", () => {
    const d = draftFrom(catalogue.get("module/cd4067")!, true);
    d.channels = d.channels.slice(0, 2).map((c, i) => (i ? { ...c, ohm: "300" } : c));
    d.companions = [];
    const { part, problems } = buildPart(d);
    expect(problems).toEqual([]);
    expect(part!.channels).toEqual([
      catalogue.get("module/cd4067")!.channels[0],
      { in: "C1", out: "SIG", both: true, ohm: 300 },
    ]);
    expect(part!.companions).toEqual([]);
  });
  it("a renamed pin keeps its place in the prints; one more pin asks how they stand", () => {
    const base = catalogue.get("module/hx711")!;
    const d = draftFrom(base, true);
    d.pins = d.pins.map((p) => (p.label === "DT" ? { ...p, label: "DOUT" } : p));
    expect(printsOf(buildPart(d).part!)[0]!.rows[0]).toEqual(["GND", "DOUT", "SCK", "VCC"]);
    const more = { ...d, pins: [...d.pins, pin("RATE", "strap")] };
    expect(buildPart(more).problems.map((p) => p.field)).toEqual(["layout"]);
    const told = buildPart({ ...more, layout: "ends" as const, firstRow: "4" });
    expect(told.problems).toEqual([]);
    expect(printsOf(told.part!)[0]!.rows[1]).toContain("RATE");
  });
  it("a value with another number loses the source that the old one had", () => {
    const base = catalogue.get("module/max485")!;
    const d = draftFrom(base, true);
    d.supplies[0] = { ...d.supplies[0]!, VIH: "2.4 V" };
    const told = buildPart(draftFrom({ ...base, values: { "levels/main/VIH": { certainty: "high" } } }, true)).part!;
    expect(told.values).toHaveProperty(["levels/main/VIH"]);
    const changed = draftFrom({ ...base, values: { "levels/main/VIH": { certainty: "high" } } }, true);
    changed.supplies[0] = { ...changed.supplies[0]!, VIH: "2.4 V" };
    expect(buildPart(changed).part!.values).toEqual({});
  });
});

describe("a board with the chip of a known one", () => {
  const known = catalogue.get("board/esp32-thirtyeight")!;
  const left = "3V3 EN 36 39 34 35 32 33 25 26 27 14 12 GND 13";
  const right = "GND 23 22 TX RX 21 GND 19 18 5 17 16 4 0 2";
  const draft = (): OwnDraft => {
    const d = boardDraft(known);
    const r = readBoardPins(`${left} ${right}`, known);
    if (!r.ok) throw new Error(r.message);
    const pins = r.pins.map((p) => ({
      ...blankPin(p.label, p.role, p.supply ?? "3V3", p.says),
      ...(p.from && { from: p.from }),
    }));
    return { ...d, name: "Thirty pins, mine", pins: [...pins, ...d.pins], firstRow: "15", rowPitch: "25.4 mm" };
  };
  it("takes each pin's abilities from the label, the number or another name", () => {
    const { part, problems } = buildPart(draft());
    expect(problems).toEqual([]);
    const at = (label: string) => part!.pins.find((p) => p.label === label)!;
    expect(at("32").offers).toEqual(known.pins.find((p) => p.gpio === 32)!.offers);
    expect(at("21").at).toEqual({ header: "R", index: 6 });
    expect(at("3V3").at).toEqual({ header: "L", index: 1 });
    expect(at("GND.2").role).toBe("ground");
    expect(part!.board!.headers.map((h) => h.count)).toEqual([15, 15]);
    expect(validatePart(JSON.parse(JSON.stringify(part))).ok).toBe(true);
  });
  it("carries a project, planned on its own labels", () => {
    const part = buildPart(draft()).part as Part;
    const bare = {
      ...make([USB, { ref: "M1", part: "module/bme280" }, { ref: "D1", part: "discrete/led-red" }]),
      customParts: [part],
    };
    const p = assign(applyEdit(bare, { type: "addPart", part: part.id, ref: "B1" }, catalogue), catalogue).project;
    const c = circuitOf(p, catalogue);
    expect(c.netlist.bindings.filter((b) => b.host === "B1").map((b) => b.hostPin)).toContain("21");
    expect(findings(c).filter((f) => f.severity === "stop" || f.severity === "fault")).toEqual([]);
  });
  it("a board's own count is not the chip's: D1 finds nothing where the known board has no D1", () => {
    const pins = (id: string, text: string) => {
      const r = readBoardPins(text, catalogue.get(id)!);
      return r.ok ? r.pins.map((p) => p.from ?? null) : [];
    };
    expect(pins("board/rp2040-forty", "GP4 4 D1")).toEqual(["GP4", null, null]);
    // What is printed otherwise than on the known board says which of its pins it was taken for.
    const r = readBoardPins("D1 GPIO4", catalogue.get("board/esp32-s3-fortyfour")!);
    expect(r.ok && r.pins.map((p) => p.says)).toEqual([
      expect.stringMatching(/^taken for GPIO1/),
      expect.not.stringMatching(/taken for/),
    ]);
    // A board that counts its own pins: its D1, and no bare number taken for the chip's.
    const thumb = catalogue.get("board/rp2040-thumb")!;
    expect(pins("board/rp2040-thumb", "D1")).toEqual(["D1"]);
    expect(thumb.pins.find((p) => p.label === "D1")!.gpio).not.toBe(1);
    expect(pins("board/rp2040-thumb", "1")[0]).not.toBe(thumb.pins.find((p) => p.gpio === 1)?.label ?? "none");
  });
  it("asks for the rows before it says that it is done", () => {
    const fields = buildPart({ ...draft(), firstRow: "", rowPitch: "" }).problems.map((p) => p.field);
    expect(fields).toEqual(["firstRow", "rowPitch"]);
  });
});
