import { describe, expect, it } from "vitest";
import { evaluate } from "../quantity";
import { catalogue } from "../testing";
import { findPin, optionProblems, validatePart, withOptions, type Offer } from ".";

const part = (id: string) => catalogue.get(id)!;

describe("every shipped part", () => {
  it.each(catalogue.parts.map((p) => [p.id, p] as const))("%s is sound", (_id, p) => {
    expect(p.sources.length).toBeGreaterThan(0);
    const vars = Object.fromEntries(p.options.flatMap((o) => (o.kind === "number" ? [[o.key, o.default]] : [])));
    for (const s of Object.values(p.supplies)) {
      const [min, typ, max] = [s.V.min, s.V.typ, s.V.max].map((x) => evaluate(x, vars)) as [number, number, number];
      expect(min).toBeLessThanOrEqual(typ);
      expect(typ).toBeLessThanOrEqual(max);
      if (s.absMax_V) expect(s.absMax_V).toBeGreaterThanOrEqual(max);
      if (s.mA) expect(evaluate(s.mA.idle, vars)).toBeLessThanOrEqual(evaluate(s.mA.peak, vars));
    }
    for (const l of Object.values(p.levels)) {
      const V = evaluate(p.supplies[l.supply]!.V.typ, vars);
      if (l.VIH === undefined) continue;
      const [VIH, VIL] = [evaluate(l.VIH, { ...vars, V }), evaluate(l.VIL!, { ...vars, V })];
      expect(VIL).toBeLessThan(VIH);
      expect(VIH).toBeLessThan(V);
      if (l.VOH) expect(evaluate(l.VOH, { ...vars, V, I: 0 })).toBeGreaterThan(VIL);
      if (l.pin_mA) expect(l.pin_mA.recommended).toBeLessThan(l.pin_mA.absMax);
    }
    for (const c of p.companions) expect(catalogue.get(c.part), c.part).toBeDefined();
    for (const g of p.groups) if (g.address) expect(parseInt(g.address)).toBeGreaterThanOrEqual(8);
    for (const o of p.options)
      if (o.kind === "choice")
        for (const c of o.choices) expect(validatePart(withOptions(p, { [o.key]: c.value })).ok, c.value).toBe(true);
  });
});

/** The RP2040's function table, written down as rules and compared with the data. */
describe("board/rp2040-forty follows the chip's multiplexing rules", () => {
  const rules = (g: number): string[] => [
    "digital",
    "interrupt",
    `pwm slice${(g >> 1) & 7} ${g & 1 ? "b" : "a"}`,
    `i2c i2c${(g >> 1) & 1} ${g & 1 ? "scl" : "sda"}`,
    `spi spi${(g >> 3) & 1} ${["miso", "cs", "sck", "mosi"][g & 3]}`,
    `uart uart${[0, 1, 1, 0, 0, 1, 1, 0][g >> 2]} ${["tx", "rx", "cts", "rts"][g & 3]}`,
    ...(g >= 26 && g <= 28 ? [`adc ${g - 26}`] : []),
  ];
  const told = (o: Offer): string => {
    if (o.kind === "pwm") return `pwm ${o.timer} ${o.channel}`;
    if (o.kind === "i2c" || o.kind === "spi" || o.kind === "uart") return `${o.kind} ${o.bus} ${o.role}`;
    if (o.kind === "adc") return `adc ${o.channel}`;
    return o.kind;
  };
  const pins = part("board/rp2040-forty").pins.filter((p) => p.gpio !== undefined);
  it.each(pins.map((p) => [p.label, p] as const))("%s", (label, p) => {
    expect(label).toBe(`GP${p.gpio}`);
    expect(p.offers!.map(told).sort()).toEqual(rules(p.gpio!).sort());
  });
  it("brings out GP0 to GP22 and GP26 to GP28 on two rows of twenty", () => {
    expect(pins.map((p) => p.gpio).sort((a, b) => a! - b!)).toEqual([...Array(23).keys(), 26, 27, 28]);
    const at = part("board/rp2040-forty").pins.filter((p) => p.at);
    expect(at).toHaveLength(40);
    expect(new Set(at.map((p) => `${p.at!.header}${p.at!.index}`)).size).toBe(40);
  });
  it("knows a pin by its position", () => {
    expect(findPin(part("board/rp2040-forty"), "P36")!.label).toBe("3V3");
    expect(findPin(part("board/rp2040-forty"), "P21")!.label).toBe("GP16");
  });
});

describe("options", () => {
  it("applies a choice as a patch and leaves the part alone", () => {
    const bme = part("module/bme280");
    expect(withOptions(bme, { address: "0x77" }).groups[0]!.address).toBe("0x77");
    expect(bme.groups[0]!.address).toBe("0x76");
    expect(optionProblems(bme, { address: "0x40" })[0]!.message).toContain("0x76, 0x77");
    expect(optionProblems(bme, { colour: 1 })[0]!.message).toContain('no option "colour"');
  });
});

describe("bad part files", () => {
  it("names every mistake with its path", () => {
    const bad = structuredClone(part("module/hc-sr04")) as unknown as Record<string, unknown> & {
      levels: { main: object };
    };
    Object.assign(bad, { colour: "red" });
    Object.assign(bad.levels.main, { VIH: "2 volts" });
    const r = validatePart(bad);
    expect(r.ok).toBe(false);
    if (!r.ok) expect(r.problems.map((p) => p.path)).toEqual(expect.arrayContaining(["colour", "levels/main/VIH"]));
  });
  it("finds names that lead nowhere", () => {
    const bad = structuredClone(part("module/bme280"));
    bad.groups[0]!.pins.sda = "SDX";
    const r = validatePart(bad);
    expect(!r.ok && r.problems[0]).toEqual({ path: "groups/0/pins", message: 'there is no pin "SDX"' });
  });
});
