import { describe, expect, it } from "vitest";
import { rankBoards } from "../../plan/advice";
import { assign } from "../../plan/assign";
import { validateOwnPart, validatePart, withOptions, type Part } from "../catalogue";
import { circuitOf } from "../../circuit";
import { findings, verdict } from "../../checks";
import { targetById } from "../../firmware";
import { applyEdit, loadProject, writeProject } from "../../project";
import { BOARD3, catalogue, make, USB } from "../../testing";
import {
  blankPin,
  buildPart,
  draftFrom,
  emptyDraft,
  emptySupply,
  guessRole,
  readAddress,
  readHertz,
  readiness,
  readMilliamps,
  readPins,
  readRange,
  readVolts,
  type DraftPin,
  type OwnDraft,
} from ".";

const value = <T>(r: { ok: true; value: T } | { ok: false; message: string }) => (r.ok ? r.value : r.message);

describe("values as data sheets print them", () => {
  it.each([
    ["2.0", 2],
    ["3.3V", 3.3],
    ["3V3", 3.3],
    ["800 mV", 0.8],
    ["0,8", 0.8],
    ["-0.3V", -0.3],
    ["0.7*VDD", "0.7*V"],
    ["0.7 VCC", "0.7*V"],
    ["0.3VDD", "0.3*V"],
    ["0.7 × VDD", "0.7*V"],
    ["70 % of VCC", "0.7*V"],
    ["VDD − 0.5 V", "V-0.5"],
    ["VCC + 0.3V", "V+0.3"],
    ["0.2 * VCC - 0.1 V", "0.2*V-0.1"],
    ["VDDIO", "V"],
  ])("%s", (text, want) => expect(value(readVolts(text))).toBe(want));
  it("never takes a factor for a voltage", () => {
    // 0.7 VCC at 5 V is 3.5 V, not 0.7 V: reading it wrongly would call every low a high.
    for (const t of ["0.7 VCC", "0.7VDD", "0.7 V_DD", "0.7 x VIO", "0.7*V"])
      expect(value(readVolts(t)), t).toBe("0.7*V");
    expect(value(readVolts("0.7 V"))).toBe(0.7);
  });
  it("says how to write what it can't read", () => {
    for (const t of ["high", "2 apples", "VDD*", "__proto__", "0.7**VDD"]) expect(readVolts(t).ok, t).toBe(false);
    expect(value(readVolts("high"))).toContain('"high" is not a voltage; write it like');
  });
  it.each([
    ["3.3V", { min: 3.135, typ: 3.3, max: 3.465 }],
    ["2.7 to 5.5 V", { min: 2.7, typ: 3.3, max: 5.5 }],
    ["3.0-3.6", { min: 3, typ: 3.3, max: 3.6 }],
    ["5V ±10%", { min: 4.5, typ: 5, max: 5.5 }],
    ["12 V +/- 0.5 V", { min: 11.5, typ: 12, max: 12.5 }],
    ["min 3 typ 3.3 max 3.6", { min: 3, typ: 3.3, max: 3.6 }],
    ["7 … 12 V", { min: 7, typ: 12, max: 12 }],
  ])("range %s", (text, want) => expect(value(readRange(text))).toEqual(want));
  it("refuses a range the wrong way round", () =>
    expect(value(readRange("5.5 to 2.7"))).toContain("smallest comes first"));
  it("currents, clocks and addresses", () => {
    expect(["20", "20 mA", "0.5A", "350 µA", "< 2 uA"].map((t) => value(readMilliamps(t)))).toEqual([
      20, 20, 500, 0.35, 0.002,
    ]);
    expect(["400 kHz", "8MHz", "100000"].map((t) => value(readHertz(t)))).toEqual([400_000, 8_000_000, 100_000]);
    expect(["0x76", "76h", "118"].map((t) => value(readAddress(t)))).toEqual(["0x76", "0x76", "0x76"]);
    expect(value(readAddress("0xEC"))).toContain("as 7 bits it is 0x76");
    expect(readMilliamps("20 V").ok).toBe(false);
  });
});

describe("pins", () => {
  const roles = (text: string) => {
    const r = readPins(text);
    if (!r.ok) throw new Error(r.message);
    return r.pins.map((p) => [p.label, p.role]);
  };
  it("typed in a row, in lines, or numbered", () => {
    const want = [
      ["VCC", "supply-in"],
      ["GND", "ground"],
      ["SDA", "i2c-sda"],
      ["SCL", "i2c-scl"],
    ];
    for (const t of [
      "VCC, GND, SDA, SCL",
      "VCC GND SDA SCL",
      "VCC\nGND\nSDA\nSCL",
      "1 VCC\n2 GND\n3 SDA\n4 SCL",
      "1. VCC\n2. GND\n3. SDA\n4. SCL",
    ])
      expect(roles(t), t).toEqual(want);
  });
  it("a pasted table in any order of columns and rows; its words decide over the label", () => {
    const t =
      "Name\tPin\tType\tFunction\nDRDY\t3\tO\tdata ready, open drain\nVDD\t1\tP\tsupply\nGND\t2\tP\tground\nA1\t4\tI\taddress select\nNC\t5\t-\tnot connected";
    expect(roles(t)).toEqual([
      ["VDD", "supply-in"],
      ["GND", "ground"],
      ["DRDY", "open-drain"],
      ["A1", "input"],
      ["NC", "unused"],
    ]);
  });
  it("repeated labels are told apart, strange ones refused", () => {
    expect(roles("GND, OUT, GND")).toEqual([
      ["GND", "ground"],
      ["OUT", "output"],
      ["GND.2", "ground"],
    ]);
    expect(readPins("VCC, <script>").ok).toBe(true);
    expect(roles("VCC, <script>")[1]![0]).toBe("script");
    expect(readPins(Array.from({ length: 120 }, (_, i) => `P${i}`).join(",")).ok).toBe(false);
  });
  it("says honestly when it does not know", () => {
    expect(guessRole("XQ7")).toBeNull();
    const r = readPins("XQ7");
    expect(r.ok && r.pins[0]).toMatchObject({ role: "terminal", guessed: true });
  });
});

const pin = (label: string, role: DraftPin["role"], more: Partial<DraftPin> = {}): DraftPin => ({
  ...blankPin(label, role, "main"),
  ...more,
});
const sensor = (): OwnDraft => ({
  ...emptyDraft(),
  name: "Gas sensor, brown board",
  sourceTitle: "data sheet",
  sourceWhere: "table 3",
  certainty: "medium",
  pins: [
    pin("VCC", "supply-in"),
    pin("GND", "ground"),
    pin("SCL", "i2c-scl"),
    pin("SDA", "i2c-sda"),
    pin("INT", "open-drain", { optional: true }),
  ],
  supplies: [
    {
      ...emptySupply(),
      V: "1.8 to 3.6 V",
      idle: "2 µA",
      peak: "12 mA",
      absMax: "4 V",
      VIH: "0.7 VDD",
      VIL: "0.3 VDD",
      VOL: "0.4",
    },
  ],
  address: "0x5a",
  clock: "400 kHz",
  pullUps: "4k7",
  orientation: "chip up",
});

describe("from draft to part", () => {
  it("makes a definition that the same rules accept", () => {
    const { part, problems } = buildPart(sensor());
    expect(problems).toEqual([]);
    expect(validatePart(JSON.parse(JSON.stringify(part))).ok).toBe(true);
    expect(part).toMatchObject({
      id: "module/gas-sensor-brown-board",
      groups: [{ kind: "i2c", pins: { sda: "SDA", scl: "SCL" }, address: "0x5a", max_Hz: 400_000 }],
      supplies: { main: { V: { min: 1.8, typ: 3.3, max: 3.6 }, absMax_V: 4, mA: { idle: 0.002, typ: 12, peak: 12 } } },
    });
    expect(part!.elements).toHaveLength(3);
    expect(readiness(part!).filter((r) => !r.ready)).toEqual([]);
  });
  it("says which judgement still needs what", () => {
    const d = sensor();
    d.address = "";
    d.supplies[0] = { ...d.supplies[0]!, VIH: "", absMax: "" };
    const open = readiness(buildPart(d).part!).filter((r) => !r.ready);
    expect(open.map((r) => r.judgement)).toEqual(["levels", "power", "buses", "program"]);
    expect(open[0]!.needs.join()).toContain("VIH");
  });
  it("without a source the certainty is low", () => {
    expect(buildPart({ ...sensor(), sourceTitle: "", certainty: "high" }).part!.certainty).toBe("low");
  });
  it("names the field of every mistake, and keeps what was typed", () => {
    const d = sensor();
    d.supplies[0] = { ...d.supplies[0]!, VIH: "lots", V: "5.5 to 3" };
    d.address = "0xEC";
    d.pins = [...d.pins, pin("GND", "ground"), pin("", "input"), pin("MISO", "spi-miso")];
    const fields = buildPart(d).problems.map((p) => p.field);
    expect(fields).toEqual(
      expect.arrayContaining(["supplies/main/VIH", "supplies/main/V", "address", "pins/5", "pins/6", "pins"]),
    );
    expect(d.supplies[0]!.VIH).toBe("lots");
    expect(buildPart(emptyDraft()).part).toBeNull();
  });
  it("two kinds of one cable: same pins, other roles, one not used", () => {
    const d: OwnDraft = {
      ...emptyDraft(),
      kind: "connector",
      name: "Keyboard lead",
      pins: [pin("1", "supply-in"), pin("2", "ground"), pin("3", "open-drain", { says: "data" }), pin("4", "unused")],
      supplies: [{ ...emptySupply(), V: "5V", peak: "100 mA", VIH: "2.0", VIL: "0.8" }],
      variantName: "straight",
      variants: [
        {
          name: "crossed",
          pins: [pin("1", "ground"), pin("2", "supply-in"), pin("3", "unused"), pin("4", "open-drain")],
        },
      ],
    };
    const { part, problems } = buildPart(d);
    expect(problems).toEqual([]);
    const crossed = withOptions(part!, { variant: "2" });
    expect(part!.pins.map((p) => p.role)).toEqual(["supply-in", "ground", "signal", "nc"]);
    expect(crossed.pins.map((p) => p.role)).toEqual(["ground", "supply-in", "nc", "signal"]);
    expect(validatePart(crossed).ok).toBe(true);
    const odd = buildPart({ ...d, variants: [{ name: "odd", pins: d.pins.slice(1) }] });
    expect(odd.problems[0]!.message).toContain("same pin labels");
  });
});

describe("copying and changing a part", () => {
  const FIELDS = [
    "pins",
    "levels",
    "supplies",
    "groups",
    "elements",
    "companions",
    "converters",
    "options",
    "channels",
    "board",
    "measures",
    "gates",
    "bridge",
    "charger",
    "isolation",
    "chipLimits",
    "addresses",
    "contains",
    "air_C",
    "values",
    "body",
  ] as const;
  it.each(catalogue.parts.map((p) => [p.id, p] as const))("a copy of %s loses nothing", (_id, p) => {
    const { part, problems } = buildPart(draftFrom(p, true));
    expect(problems).toEqual([]);
    for (const f of FIELDS) expect(part![f], f).toEqual(p[f]);
    expect(part!.id).not.toBe(p.id);
  });
  it("a copied board can carry the project, and is tried with the others", () => {
    const { part } = buildPart({ ...draftFrom(catalogue.get("board/rp2040-mini")!, true), name: "Mine, mini" });
    const p = { ...make([USB, { ref: "D1", part: "discrete/led-red" }]), customParts: [part!] };
    expect(rankBoards(p, catalogue).map((b) => b.board)).toContain("board/mine-mini");
    const planned = assign(applyEdit(p, { type: "addPart", part: "board/mine-mini", ref: "B1" }, catalogue), catalogue);
    const c = circuitOf(planned.project, catalogue);
    expect(verdict(c, findings(c)).words).toBe("Ready to wire");
  });
  it("a change touches only what it says", () => {
    const original = catalogue.get("module/bme280")!;
    const d = draftFrom(original, true);
    d.supplies[0] = { ...d.supplies[0]!, VIH: "0.8*VDD" };
    d.pins = d.pins.map((p) => (p.label === "VCC" ? { ...p, label: "3V3" } : p));
    const { part } = buildPart(d);
    expect(part!.levels.main).toEqual({ ...original.levels.main, VIH: "0.8*V" });
    expect(part!.pins[0]!.label).toBe("3V3");
    expect(part!.options).toEqual(original.options);
    expect(original.pins[0]!.label).toBe("VCC");
  });
});

describe("choices of an own part", () => {
  const withPatch = (patch: object[]) => ({
    ...buildPart(sensor()).part!,
    options: [
      {
        kind: "choice",
        key: "kind",
        label: "Kind",
        default: "a",
        choices: [
          { value: "a", label: "A" },
          { value: "b", label: "B", patch },
        ],
      },
    ],
  });
  const told = (patch: object[]) => {
    const r = validateOwnPart(withPatch(patch));
    return r.ok ? "accepted" : r.problems.map((p) => `${p.path}: ${p.message}`).join("; ");
  };
  it("are tried, each one, before the part is taken", () => {
    expect(told([{ op: "replace", path: "/groups/0/address", value: "0x5b" }])).toBe("accepted");
    expect(told([{ op: "replace", path: "/nowhere/3/address", value: "0x5b" }])).toContain(
      'options/0/choices/1/patch: "B" can\'t be applied',
    );
    expect(told([{ op: "replace", path: "/groups/0/address", value: "0xff" }])).toContain('"B" makes groups/0/address');
    expect(told([{ op: "add", path: "/__proto__/polluted", value: 1 }])).not.toBe("accepted");
    expect(({} as { polluted?: number }).polluted).toBeUndefined();
  });
});

describe("an own part in a project", () => {
  const own = buildPart(sensor()).part as Part;
  const project = () => {
    const bare = { ...make([BOARD3, USB]), customParts: [own] };
    return assign(applyEdit(bare, { type: "addPart", part: own.id, ref: "M1", label: "Gas" }, catalogue), catalogue)
      .project;
  };
  it("is planned, judged and programmed like a shipped one", () => {
    const c = circuitOf(project(), catalogue);
    expect(verdict(c, findings(c)).words).toBe("Ready to wire");
    const py = targetById("micropython")!.files(c);
    expect(py.find((f) => f.path === "bringup.py")!.text).toContain("YL1 i2c M1 addr=0x5a");
    const ino = targetById("sketch")!
      .files(c)
      .find((f) => f.path === "bringup/bringup.ino")!.text;
    expect(ino).toContain("beginTransmission(0x5a)");
  });
  it("with thresholds missing its levels are not judged, and that is said", () => {
    const d = sensor();
    d.supplies[0] = { ...d.supplies[0]!, VIH: "", VIL: "" };
    const vague = buildPart(d).part as Part;
    const bare = { ...make([BOARD3, USB]), customParts: [vague] };
    const p = assign(applyEdit(bare, { type: "addPart", part: vague.id, ref: "M1" }, catalogue), catalogue).project;
    const list = findings(circuitOf(p, catalogue));
    const about = list.filter((f) => !f.rule.startsWith("board."));
    expect(about.map((f) => `${f.severity} ${f.rule}`)).toEqual(["note part.data-missing", "note part.own-data"]);
    expect(about[0]!.at).toEqual(["M1.SCL", "M1.SDA"]);
    // What stands on numbers that the catalogue does not vouch for says so.
    expect(about[0]!.message).toMatch(/ \(By own data of M1\.\)$/);
    const sound = findings(circuitOf(project(), catalogue)).filter((f) => !f.rule.startsWith("board."));
    expect(sound.map((f) => f.rule)).toEqual(["part.own-data"]);
  });
  it("travels with the file", () => {
    const r = loadProject(JSON.parse(writeProject(project())), catalogue);
    expect(r.ok && r.project.customParts[0]!.id).toBe(own.id);
    const broken = JSON.parse(writeProject(project()));
    broken.customParts[0].levels.main_open.VIH = "2 volts";
    const bad = loadProject(broken, catalogue);
    expect(!bad.ok && bad.problems[0]!.path).toBe("customParts/0/levels/main_open/VIH");
  });
  it("an option that the part no longer has is dropped, so that the project stays readable", () => {
    const two = buildPart({ ...sensor(), variants: [{ name: "other", pins: sensor().pins }] }).part!;
    const bare = { ...make([BOARD3, USB]), customParts: [two] };
    const p = applyEdit(bare, { type: "addPart", part: two.id, ref: "M1", options: { variant: "2" } }, catalogue);
    const next = applyEdit(p, { type: "setOwnPart", part: own }, catalogue);
    expect(next.parts.find((x) => x.ref === "M1")!.options).toEqual({});
    expect(loadProject(JSON.parse(writeProject(next)), catalogue).ok).toBe(true);
  });
  it("wires to a pin that is taken out go with it; a part in use can't be thrown away", () => {
    const p = project();
    const d = draftFrom(own, false);
    d.pins = d.pins.filter((x) => x.label !== "INT");
    const next = applyEdit(p, { type: "setOwnPart", part: buildPart(d).part! }, catalogue);
    expect(next.links.some((l) => l.from === "M1.INT" || l.to === "M1.INT")).toBe(false);
    expect(next.links.length).toBeGreaterThan(0);
    expect(applyEdit(p, { type: "removeOwnPart", id: own.id }, catalogue)).toBe(p);
  });
});
