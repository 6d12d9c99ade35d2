import { describe, expect, it } from "vitest";
import { findings, verdict } from "../../checks";
import { circuitOf } from "../../circuit";
import { applyEdit, fingerprint, type Project } from "../../project";
import { BOARD3, BOARD5, CABLE, catalogue, make, planned, USB } from "../../testing";
import { BENCHES } from "../reason/cases";
import { addressesIn, checklist, evidenceOf, judgeEntry, parseReading, wanted } from ".";

describe("readings as typed", () => {
  it.each([
    ["3.28", "V", 3.28],
    ["3,28 V", "V", 3.28],
    ["3280 mV", "V", 3.28],
    ["-0.4", "V", -0.4],
    ["−5,0 V", "V", -5],
    [".5 v", "V", 0.5],
    ["OL", "Ω", Infinity],
    ["o.l", "Ω", Infinity],
    ["4.7k", "Ω", 4700],
    ["2.2 MΩ", "Ω", 2.2e6],
    ["80", "mA", 80],
    ["0.08 A", "mA", 80],
    ["80 mA", "mA", 80],
  ] as const)("%s in %s", (text, unit, want) => {
    const r = parseReading(text, unit);
    expect(r.ok && typeof r.value === "number" && (r.value === want || Math.abs(r.value - want) < 1e-9)).toBe(true);
  });
  it.each([
    ["beep", "beep"],
    ["yes", "beep"],
    ["0.3", "beep"],
    ["12 ohms", "beep"],
    ["OL", "open"],
    ["no beep", "open"],
    ["---", "open"],
    ["4.7k", "open"],
  ])("on beep: %s is %s", (text, want) => {
    expect(parseReading(text, "beep")).toEqual({ ok: true, value: want });
  });
  it.each([
    ["0x3C, 0x76", "0x3c,0x76"],
    ["76 3c 76", "0x3c,0x76"],
    ["none", ""],
    ["0x8", "0x8"],
    ["0xff", null],
    ["display", null],
    ["", null],
  ])("addresses of a scan: %s", (text, want) => {
    expect(addressesIn(text)).toBe(want);
  });
  it("refuses what is no reading, in words", () => {
    for (const t of ["", "warm", "OL volts", "3..3", "3 A", "<b>1</b>", "1e9999", "9".repeat(500) + "x"])
      expect(parseReading(t, "V").ok, t).toBe(false);
    for (const t of ["3.3 V", "5 m"]) expect(parseReading(t, "beep").ok, t).toBe(false);
    // Below zero is a voltage or a current, never a resistance; and no meter shows hundreds of digits.
    for (const [t, unit] of [
      ["-5", "Ω"],
      ["-0.3", "beep"],
      ["9".repeat(300), "V"],
      ["99999999999", "Ω"],
    ] as const)
      expect(parseReading(t, unit).ok, t).toBe(false);
    expect(parseReading("-0.4", "V").ok).toBe(true);
  });
});

describe("checklist", () => {
  const c = circuitOf(
    planned([BOARD5, USB, { ref: "M2", part: "module/ssd1306-i2c" }, { ref: "SW1", part: "discrete/button" }]),
    catalogue,
  );
  const list = checklist(c);
  const item = (what: string) => list.find((i) => i.what === what)!;
  it("begins with what can do harm, before power", () => {
    expect(list[0]).toMatchObject({ when: "before power", what: "5V does not touch GND", word: "open" });
    expect(judgeEntry(list[0]!, "0.2", "X")).toMatchObject({ ok: false, seen: "beep" });
    expect(judgeEntry(list[0]!, "OL", "X")).toMatchObject({ ok: true, says: "as it should be" });
  });
  it("expects rails inside the source's tolerance and bus lines high, against the part's own ground", () => {
    expect(item("5V reads at M2")).toMatchObject({ when: "first power", from: "M2.VCC", to: "M2.GND" });
    expect(judgeEntry(item("5V reads at M2"), "4.1", "X").ok).toBe(false);
    expect(judgeEntry(item("SDA idles high"), "3.3", "X").ok).toBe(true);
    expect(judgeEntry(item("SDA idles high"), "0.1", "X").ok).toBe(false);
  });
  it("asks for what each part does, and each check only once", () => {
    expect(list.filter((i) => i.when === "bring-up").map((i) => i.id)).toEqual(["plan B1", "part M2", "part SW1"]);
    expect(new Set(list.map((i) => i.id)).size).toBe(list.length);
  });
  it("has far fewer measurements than wires to beep one by one", () => {
    for (const [name, project] of Object.entries(BENCHES)) {
      const p = circuitOf(project(), catalogue);
      const meter = checklist(p).filter((i) => i.when === "before power").length;
      expect(meter, name).toBeLessThanOrEqual(Math.ceil(p.netlist.wires.length * 0.6) + 2);
    }
  });
  it("tells the band of the current at rest, not from asleep to all at once", () => {
    for (const project of Object.values(BENCHES))
      for (const i of checklist(circuitOf(project(), catalogue)).filter((x) => x.unit === "mA"))
        expect((i.high! - 10) / Math.max(1, i.low!), i.id).toBeLessThan(6);
  });
  it("tells what a source may give after each module, up to the band of the whole", () => {
    let told = 0;
    for (const project of Object.values(BENCHES))
      for (const i of checklist(circuitOf(project(), catalogue)).filter((x) => x.unit === "mA")) {
        const steps = [...i.why.matchAll(/(\d+) mA/g)].map((m) => Number(m[1]));
        if (!/Pushed in one by one/.test(i.why)) continue;
        told++;
        expect(steps, i.why).toEqual([...steps].sort((a, b) => a - b));
        expect(steps.length).toBeLessThanOrEqual(7);
        expect(Math.abs(steps.at(-1)! - i.high!), i.why).toBeLessThanOrEqual(1);
      }
    expect(told).toBeGreaterThan(2);
  });
  it("reaches from asleep to awake where a board sleeps between readings", () => {
    const p = BENCHES["moss terrarium"]!();
    const parts = p.parts.map((x) => (x.ref === "B1" ? { ...x, sleep: { every_s: 600, awake_s: 5 } } : x));
    const mA = (project: typeof p) => checklist(circuitOf(project, catalogue)).find((i) => i.unit === "mA")!;
    const [stays, sleeps] = [mA(p), mA({ ...p, parts })];
    expect(sleeps.high).toBe(stays.high);
    expect(sleeps.low!).toBeLessThan(stays.low!);
  });
  it("measures each side of an isolation against its own ground, and only that nothing beeps through", () => {
    const p = make(
      [
        BOARD3,
        USB,
        { ref: "S2", part: "supply/adapter-5v-2a" },
        { ref: "M1", part: "module/isolator-2ch" },
        { ref: "M2", part: "module/bh1750" },
      ],
      [
        CABLE,
        ["M1.VCC1", "B1.3V3"],
        ["M1.GND1", "B1.GND"],
        ["M1.VCC2", "S2.5V"],
        ["M1.GND2", "S2.GND"],
        ["M2.VCC", "S2.5V"],
        ["M2.GND", "S2.GND"],
      ],
    );
    const cc = circuitOf(p, catalogue);
    const all = checklist(cc);
    const ground = (end: string) => cc.netlist.netOf(end);
    for (const i of all.filter((x) => x.unit === "V")) {
      const side = (e: string) =>
        ["S2", "M2"].some((x) => e.startsWith(`${x}.`)) || /M1\.(VCC2|GND2)/.test(e) ? "far" : "near";
      expect(side(i.from), i.what).toBe(side(i.to));
    }
    const through = all.filter(
      (i) => i.word === "open" && ground(i.from).kind === "ground" && ground(i.to).kind === "ground",
    );
    expect(through).toHaveLength(1);
  });
});

describe("what the bench has shown changes the verdict", () => {
  const p = planned([BOARD5, USB, { ref: "LED1", part: "discrete/led-red" }]);
  const words = (q: Project) => {
    const c = circuitOf(q, catalogue);
    return verdict(c, findings(c)).words;
  };
  const tick = (q: Project, id: string, done: boolean, reading?: string) =>
    applyEdit(q, { type: "tick", list: "checks", id, done, at: "2026-01-01", ...(reading && { reading }) }, catalogue);
  const list = checklist(circuitOf(p, catalogue));
  const volts = list.find((i) => i.unit === "V")!;
  const proven = () =>
    list.filter((i) => i.when === "bring-up").reduce((q, i) => tick(q, i.id, true, `${i.word} ${fingerprint(p)}`), p);

  it("a reading that is off is told, and a mended one is not", () => {
    expect(words(p)).toBe("Ready to wire");
    const off = tick(p, volts.id, false, "1.2 V");
    expect(words(off)).toBe("Not right on the bench: 1 reading off");
    expect(words(tick(off, volts.id, true, "5.01 V"))).toBe("Ready to wire");
  });
  it("a forged tick beside a bad reading does not make it good", () => {
    expect(words(tick(p, volts.id, true, "1.2 V"))).toBe("Not right on the bench: 1 reading off");
  });
  it("works on the bench only by evidence of every part, and falls back when the plan changes", () => {
    expect(words(proven())).toBe("Works on the bench");
    const some = tick(proven(), "part LED1", false);
    expect(words(some)).toBe("Ready to wire");
    const ticked = list.filter((i) => i.when === "bring-up").reduce((q, i) => tick(q, i.id, true), p);
    expect(words(ticked)).toBe("Ready to wire");
    const link = p.links.find((l) => [l.from, l.to].some((e) => e.startsWith("B1.D")))!;
    const end = link.from.startsWith("B1.D") ? link.from : link.to;
    const far = end === link.from ? link.to : link.from;
    const moved = [
      { type: "removeLink" as const, from: link.from, to: link.to },
      { type: "addLink" as const, link: { from: far, to: end === "B1.D12" ? "B1.D11" : "B1.D12" } },
    ].reduce((q, e) => applyEdit(q, e, catalogue), proven());
    expect(words(moved)).toBe("Ready to wire");
    expect(evidenceOf(circuitOf(moved, catalogue)).works).toBe(false);
  });
  it("says what must show in few words", () => {
    expect(list.every((i) => wanted(i).length < 20)).toBe(true);
  });
});
