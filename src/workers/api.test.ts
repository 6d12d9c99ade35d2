import { describe, expect, it } from "vitest";
import { beforeAll } from "vitest";
import { blankPin } from "../core/parts/own";
import { summarise } from "../core/parts/catalogue";
import { BOARD3, BOARD5, catalogue as shipped, make, planned, USB } from "../core/testing";
import { api } from "./api";
import { catalogue, usePartSource } from "./loading";

/** What was asked of the "server", to see that details come on demand. */
const asked: string[] = [];
beforeAll(() =>
  usePartSource({
    summaries: async () => shipped.parts.map(summarise),
    details: async ({ ids, boards }) => {
      asked.push(...(ids ?? []), ...(boards ? ["all boards"] : []));
      return boards ? shipped.parts.filter((p) => p.board) : (ids ?? []).flatMap((id) => shipped.get(id) ?? []);
    },
  }),
);

const STRIP = { ref: "M3", part: "module/ws2812b-strip", options: { pixels: 30 } };

describe("what the interface asks", () => {
  it("adding a part brings companions and a plan in one step", async () => {
    const s = await api.add(planned([BOARD5, USB]), "discrete/led-red", "Lamp");
    expect(s.ref).toBe("LED1");
    expect(s.project.parts[2]).toEqual({
      ref: "LED1",
      part: "discrete/led-red",
      label: "Lamp",
      companions: { seriesResistor: { ohm: 390 } },
    });
    expect(s.view.verdict.words).toBe("Ready to wire");
    expect(s.view.parts[2]!.companions[0]!.says).toContain("390 Ω");
  });
  it("puts two changes together, says what is new in the two of them, and asks before it chooses", async () => {
    const base = planned([BOARD3, USB]);
    const lamp = (ref: string, part: string) => ({
      ...base,
      parts: [...base.parts, { ref, part }],
      links: [
        ...base.links,
        { from: `${ref}.${part.includes("led") ? "A" : "1"}`, to: "B1.GP14" },
        { from: `${ref}.${part.includes("led") ? "K" : "2"}`, to: "B1.GND" },
      ],
    });
    const [mine, theirs] = [lamp("LED1", "discrete/led-red"), lamp("SW1", "discrete/button")];
    const both = await api.merge(mine, JSON.stringify(base), JSON.stringify(theirs), {});
    expect([both.clashes, both.problem]).toEqual([[], null]);
    expect(both.step!.project.parts.map((p) => p.ref).sort()).toEqual(["B1", "LED1", "S1", "SW1"]);
    expect(both.notes.join(" ")).toMatch(/Together, what neither side had: .*GP14/);
    const apart = await api.merge(
      { ...base, title: "A" },
      JSON.stringify(base),
      JSON.stringify({ ...base, title: "B" }),
      {},
    );
    expect([apart.step, apart.clashes.map((c) => c.key)]).toEqual([null, ["title"]]);
    const chosen = await api.merge(
      { ...base, title: "A" },
      JSON.stringify(base),
      JSON.stringify({ ...base, title: "B" }),
      { title: "mine" },
    );
    expect([chosen.step!.project.title, chosen.notes]).toEqual(["A", []]);
  });
  it("a part that does not fit is kept, and the clash is told", async () => {
    const one = (await api.add(planned([BOARD5, USB]), "module/lcd1602-i2c", "")).project;
    const s = await api.add(one, "module/lcd1602-i2c", "");
    expect(s.clash).toContain("both answer to address 0x27");
    expect(s.project.parts.map((p) => p.ref)).toContain("M2");
    expect(s.project.links).toEqual(one.links);
    expect(s.view.open).toBe(2);
  });
  it("works without a board, and the board then takes everything in", async () => {
    const s = await api.add(make([USB]), "discrete/button", "");
    expect(s.clash).toBeNull();
    expect(s.view.verdict.words).toBe("Not planned yet: no board chosen");
    const b = await api.board(s.project, "board/rp2040-forty");
    expect(b.view.verdict.words).toBe("Ready to wire");
  });
  it("a preview says what an edit would bring, and changes nothing", async () => {
    const p = planned([BOARD5, USB, { ref: "S2", part: "supply/adapter-5v-2a" }, STRIP]);
    const text = JSON.stringify(p);
    const v = await api.preview(p, { type: "setOption", ref: "M3", key: "pixels", value: 60 });
    expect(v.changes).toEqual(["M3 pixels: 30 → 60"]);
    expect(v.come.join()).toContain("over a limit of 2 A");
    expect(v.verdict).toMatch(/^(Do not power|Will not work)/);
    expect(JSON.stringify(p)).toBe(text);
  });
  it("a ghost tells the consequence of a move before it is made", async () => {
    const p = planned([BOARD3, USB, { ref: "D1", part: "discrete/led-red" }]);
    expect(await api.ghost(p, "D1.A", "GP9")).toMatchObject({ ok: true, moved: [{ need: "D1.A", to: "B1.GP9" }] });
    expect((await api.ghost(p, "D1.A", "GP9")).says).toBe("1 wire moves: D1.A → GP9. Then: Ready to wire");
    expect(await api.ghost(p, "D1.A", "RUN")).toMatchObject({ ok: false });
    const m = await api.move(p, "D1.A", "GP9");
    expect(m.ok && m.step.project.links).toContainEqual(expect.objectContaining({ from: "D1.A", to: "B1.GP9" }));
  });
  it("judges readings and writes what it reads", async () => {
    const s = await api.open(planned([BOARD5, USB]));
    const item = s.view.checks.find((c) => c.what.startsWith("5V reads"))!;
    expect(api.reading(s.project, item, "5,02 V")).toEqual({ ok: true, says: "as it should be" });
    expect(api.reading(s.project, item, "4.1").says).toMatch(/should show: .* V$/);
    expect(api.reading(s.project, item, "warm").says).toContain("not a reading");
    const again = await api.read(api.write(s.project));
    expect(again.ok && again.project).toEqual(s.project);
    expect(await api.svg(s.project)).toContain("<svg");
    expect(await api.files(s.project, "nothing")).toEqual([]);
  });
  it("gives a view that survives the way to the page", async () => {
    const s = await api.open(planned([BOARD3, USB, STRIP, { ref: "M1", part: "module/bme280" }]));
    expect(structuredClone(s.view)).toEqual(s.view);
    expect(s.view.lattices[0]!.rows).toHaveLength(3);
  });
  it("loads definitions only when something names them", async () => {
    expect(catalogue.get("module/vfd-20x2-parallel")).toBeUndefined();
    asked.length = 0;
    await api.open(planned([BOARD5, USB]));
    expect(asked).toEqual([]);
    await api.boards(make([USB]));
    expect(asked).toEqual(["all boards"]);
  });
  it("adds several at once, numbered, with options and one plan", async () => {
    const s = await api.add(planned([BOARD5, USB]), "discrete/led-blue", "Eye", {
      quantity: 3,
      options: { current_mA: 5 },
    });
    expect(s.refs).toEqual(["LED1", "LED2", "LED3"]);
    expect(s.project.parts.slice(2).map((p) => [p.label, p.options])).toEqual([
      ["Eye 1", { current_mA: 5 }],
      ["Eye 2", { current_mA: 5 }],
      ["Eye 3", { current_mA: 5 }],
    ]);
    expect(s.view.verdict.words).toBe("Ready to wire");
    expect(s.says).toBe("add Eye and 2 more");
  });
  it("takes a list over: parts into the plan, values and stock into the drawer", async () => {
    const read = await api.list("2 x red LED\n10 resistors 220 ohm\nBME280\n3 x servo 9g\nbreadboard", []);
    if (!read.ok) throw new Error(read.message);
    expect(read.lines.map((l) => l.status)).toEqual(["sure", "sure", "sure", "unclear", "not-planned"]);
    const pick = (i: number, to: "project" | "drawer") => {
      const l = read.lines[i]!;
      return { to, id: l.candidates[0]!.id, quantity: l.quantity, options: l.candidates[0]!.options };
    };
    const s = await api.takeList(
      planned([BOARD3, USB]),
      [pick(0, "project"), pick(1, "drawer"), pick(2, "project"), { ...pick(0, "drawer"), quantity: 7 }],
      [],
    );
    expect(s.added).toBe(3);
    expect(s.project.drawer).toEqual({
      parts: { "discrete/led-red": 7 },
      resistors_ohm: [220],
      capacitors_F: [],
    });
    expect(s.view.bom.find((b) => b.part === "discrete/led-red")).toMatchObject({ quantity: 2, owned: 2, buy: 1 });
  });
  it("an own part from the collection travels with the project that uses it", async () => {
    const pins = await api.ownPins("VCC, GND, SIG");
    if (!pins.ok) throw new Error(pins.message);
    const draft = await api.ownDraft(null, []);
    draft.name = "Tilt thing";
    draft.pins = pins.pins.map((p) => blankPin(p.label, p.role, "main"));
    draft.pins[2]!.role = "output";
    draft.supplies[0] = { ...draft.supplies[0]!, V: "3 to 5.5 V", peak: "4 mA" };
    const check = await api.ownCheck(draft);
    expect(check.problems).toEqual([]);
    const own = [check.part!];
    expect((await api.search("tilt thing", {}, own)).parts[0]).toMatchObject({ id: "module/tilt-thing", own: true });
    const s = await api.add(planned([BOARD5, USB]), "module/tilt-thing", "Tilt", { own: own[0]! });
    expect(s.project.customParts.map((p) => p.id)).toEqual(["module/tilt-thing"]);
    expect(s.view.verdict.words).toBe("Ready to wire");
    const files = await api.files(s.project, "sketch");
    expect(files.find((f) => f.path === "bringup/bringup.ino")!.text).toMatch(/YL1 gpio M1 pin=D\d+ level=/);
  });
  it("a new part never takes the place of a shipped one", async () => {
    const draft = await api.ownDraft({ id: "module/pir", copy: true }, []);
    draft.name = "PIR";
    expect((await api.ownCheck(draft)).part!.id).toBe("module/pir-own");
    draft.name = "My PIR";
    expect((await api.ownCheck(draft)).part!.id).toBe("module/my-pir");
  });
  it("answers a broken draft with sentences, not with a crash", async () => {
    const check = await api.ownCheck({ name: 5, pins: "x" });
    expect(check.part).toBeNull();
    expect(check.problems.map((p) => p.field)).toEqual(expect.arrayContaining(["name", "pins"]));
  });
  it("the Power station's numbers come on demand, with the supplies for its advice", async () => {
    const p = planned([BOARD5, USB, { ref: "M1", part: "module/sht31" }, STRIP]);
    const power = await api.power(p);
    expect(power.i2c[0]).toMatchObject({ name: "i2c0", ohm: 10_000, rise_max_ns: 1000 });
    expect(power.advice[0]!.list.length).toBeGreaterThan(2);
    expect(power.brightness[0]).toMatchObject({ ref: "M3", limit_mA: 500 });
    // Widths of the river: what comes in goes out.
    const node = power.river.nodes.find((n) => n.kind === "source")!;
    const out = power.river.links.filter((l) => l.from === node.id).reduce((s, l) => s + l.peak_mA, 0);
    expect(out).toBeCloseTo(node.peak_mA, 6);
    expect(() => structuredClone(power)).not.toThrow();
  });
});
