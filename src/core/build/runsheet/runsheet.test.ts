import fs from "node:fs";
import { describe, expect, it } from "vitest";
import { circuitOf, type Circuit } from "../../circuit";
import { readProject } from "../../project";
import { BENCH, BOARD3, BOARD5, catalogue, fountain, make, planned, USB } from "../../testing";
import { awgAmpacity, JUMPER_A, supplyWires } from "../../circuit/power";
import { propose } from "../breadboard";
import { isLaid, PHASES, runSheet, takes, wireList } from ".";

const circuit = (rules: object = {}, board = BOARD3) =>
  circuitOf(planned([board, ...BENCH], { houseRules: rules }), catalogue);
const RULES = ["rails", "daisy-chain", "splice"];
const demo = (name: string, sharing: string): Circuit => {
  const url = new URL(`../../../../demo/${name}.lattice.json`, import.meta.url);
  const r = readProject(fs.readFileSync(url, "utf8"), catalogue);
  if (!r.ok) throw new Error(JSON.stringify(r.problems));
  return circuitOf({ ...r.project, houseRules: { ...r.project.houseRules, sharing: sharing as "rails" } }, catalogue);
};
/** How many wires meet at each pin. */
function degrees(c: Circuit): Map<string, number> {
  const out = new Map<string, number>();
  for (const r of runSheet(c))
    if (r.kind === "wire" || r.kind === "leg") for (const e of [r.from, r.to]) out.set(e, (out.get(e) ?? 0) + 1);
  return out;
}

describe("the order of laying", () => {
  const placed = (leads?: "first" | "last") => {
    const c = demo("moss-terrarium", "rails");
    const l = propose(c);
    const project = { ...c.project, breadboard: { boards: l.sizes, at: l.spots } };
    return circuitOf(leads ? { ...project, houseRules: { ...project.houseRules, leads } } : project, catalogue);
  };
  const groups = (c: Circuit) =>
    PHASES.filter((p) => p.id !== "source").map((p) =>
      runSheet(c).filter((r) => r.phase === p.id && r.kind === "wire"),
    );
  const leaves = (r: { holeA: string; holeB: string }) => !r.holeA || !r.holeB;

  it.each(["last", "first"] as const)("wires that leave the breadboard come %s in each group", (when) => {
    let mixed = 0;
    for (const rows of groups(placed(when))) {
      const order = rows.map((r) => Number(leaves(r) === (when === "last")));
      expect(order).toEqual([...order].sort());
      if (new Set(order).size > 1) mixed++;
    }
    expect(mixed).toBeGreaterThan(0);
  });
  it("one colour is laid at a time, and a tick stays with its wire whatever the order", () => {
    for (const rows of groups(placed()))
      for (const part of [rows.filter(leaves), rows.filter((r) => !leaves(r))]) {
        const turns = part.filter((r, i) => r.colour !== part[i - 1]?.colour).map((r) => r.colour);
        expect(new Set(turns).size).toBe(turns.length);
      }
    const ids = (c: Circuit) =>
      runSheet(c)
        .map((r) => r.id)
        .sort();
    expect(ids(placed("first"))).toEqual(ids(placed("last")));
  });
});

describe("run sheet", () => {
  it("a wire that carries more than a rail stands goes straight, with its gauge; the others still share", () => {
    const strip = { ref: "M3", part: "module/ws2812b-strip", label: "Light", options: { pixels: 60 } };
    const c = circuitOf(
      planned([
        BOARD3,
        USB,
        { ref: "S2", part: "supply/adapter-5v-10a" },
        strip,
        { ref: "M4", part: "module/hc-sr04" },
        { ref: "M5", part: "module/hc-sr04" },
      ]),
      catalogue,
    );
    const rows = runSheet(c);
    const fed = rows.find((r) => [r.from, r.to].includes("M3.5V") && r.kind === "wire")!;
    expect([fed.from, fed.to].sort()).toEqual(["M3.5V", "S2.5V"]);
    // 60 · 60 mA = 3.6 A.
    expect(fed.note).toMatch(/^.*\d+ AWG, up to 3\.6 A: no jumper, no breadboard rail$/);
    // The current comes back the same way: from the strip's ground straight to the adapter's, in the same gauge.
    const back = rows.find((r) => r.net === "GND" && r.note.includes("AWG"))!;
    expect([back.from, back.to, back.awg]).toEqual(["M3.GND", "S2.GND", fed.awg]);
    expect(rows.filter((r) => r.note.includes("AWG"))).toHaveLength(2);
    expect(rows.some((r) => /rail/.test(r.to))).toBe(true);
  });
  it.each(["rails", "daisy-chain", "splice"])(
    "with %s, every net of the circuit is fully joined and nothing else",
    (sharing) => {
      const c = circuit({ sharing });
      const rows = runSheet(c).filter((r) => r.kind === "wire" || r.kind === "leg");
      const parent = new Map<string, string>();
      const find = (x: string): string => ((parent.get(x) ?? x) === x ? x : find(parent.get(x)!));
      for (const r of rows) parent.set(find(r.from), find(r.to));
      for (const net of c.netlist.nets) {
        const wired = net.ends
          .map((e) => `${e.ref}.${e.pin}`)
          .filter((e) =>
            c.netlist.wires.some(
              (w) => !w.cable && [`${w.from.ref}.${w.from.pin}`, `${w.to.ref}.${w.to.pin}`].includes(e),
            ),
          );
        expect(new Set(wired.map(find)).size, net.name).toBeLessThanOrEqual(1);
      }
      const roots = new Map<string, string>();
      for (const net of c.netlist.nets)
        for (const e of net.ends) {
          const root = find(`${e.ref}.${e.pin}`);
          if (rows.some((r) => r.from === `${e.ref}.${e.pin}` || r.to === `${e.ref}.${e.pin}`)) {
            expect(roots.get(root) ?? net.name).toBe(net.name);
            roots.set(root, net.name);
          }
        }
    },
  );
  it("keeps the safe order, and the sources come last", () => {
    const rows = runSheet(circuit());
    const order = rows.map((r) => PHASES.findIndex((p) => p.id === r.phase));
    expect(order).toEqual([...order].sort((a, b) => a - b));
    expect(rows[0]!.note).toContain("Unplug every supply");
    expect(rows.at(-1)).toMatchObject({ kind: "cable", from: "S1.USB", to: "B1.USB" });
    expect(rows.find((r) => r.from === "S2.5V" || r.to === "S2.5V")!.phase).toBe("source");
    expect(rows.map((r) => r.step)).toEqual(rows.map((_, i) => i + 1));
  });
  it("uses only colours that the person owns, and lengths that they gave", () => {
    const rows = runSheet(circuit({ wireColours: ["white", "blue", "pink"] })).filter((r) => r.kind === "wire");
    expect(new Set(rows.map((r) => r.colour))).toEqual(new Set(["white", "blue", "pink"]));
    expect(rows.find((r) => r.from === "M1.VCC")!.length_cm).toBe(40);
  });
  it("lays no wire where a leg of a loose part goes itself, and the module's own wire long", () => {
    const parts = BENCH.map((p) => (p.ref === "M3" ? { ...p, wire_cm: 50 } : p));
    const rows = runSheet(circuitOf(planned([BOARD3, ...parts]), catalogue));
    const length = (end: string) => rows.find((r) => r.from === end || r.to === end)!.length_cm;
    const leg = rows.find((r) => r.from === "CM3.+" || r.to === "CM3.+")!;
    expect(leg).toMatchObject({ kind: "leg", colour: "", length_cm: 0, awg: 0, endA: "own leg" });
    // On the pin of a board no leg holds: the resistor gets a wire to it.
    const pin = rows.find(
      (r) => [r.from, r.to].some((e) => e.startsWith("RM3.")) && [r.from, r.to].some((e) => e.startsWith("B1.")),
    )!;
    expect(pin.kind).toBe("wire");
    expect([pin.endA, pin.endB].sort()).toEqual(["bare", "socket"]);
    expect(length("M3.DIN")).toBe(50);
  });
  it("puts a bulk capacitor's legs at its strip, where the wire ends, and counts them there", () => {
    for (const rule of RULES) {
      const rows = runSheet(circuitOf(planned([BOARD3, ...BENCH], { houseRules: { sharing: rule } }), catalogue));
      const leg = (end: string) => rows.find((r) => r.from === end || r.to === end)!;
      expect([leg("CM3.+").from, leg("CM3.+").to].sort()).toEqual(["CM3.+", "M3.5V"]);
      expect([leg("CM3.-").from, leg("CM3.-").to].sort()).toEqual(["CM3.-", "M3.GND"]);
      expect(leg("CM3.+").note).toMatch(/right at the part/);
      for (const end of ["M3.5V", "M3.GND"])
        expect(rows.filter((r) => r.from === end || r.to === end).length, `${rule} ${end}`).toBe(2);
    }
  });
  it("gives each wire an id that survives other edits", () => {
    const ids = (c: ReturnType<typeof circuit>) => new Set(runSheet(c).map((r) => r.id));
    const before = ids(circuitOf(planned([BOARD5, ...BENCH.slice(0, 4)]), catalogue));
    const after = ids(
      circuitOf(planned([BOARD5, ...BENCH.slice(0, 4), { ref: "D9", part: "discrete/led-red" }]), catalogue),
    );
    expect([...before].filter((x) => !after.has(x))).toEqual([]);
  });
});

describe("checkpoints", () => {
  const rows = runSheet(circuit());
  const at = (id: string) => rows.findIndex((r) => r.id === id);
  it("stand after each group, with the ends that beep and those that must not", () => {
    const ground = rows[at("check-ground")]!;
    expect(ground.note).toMatch(/GND: B1\.GND beeps with .*M1\.GND/);
    expect(at("check-ground")).toBe(rows.map((r) => r.phase).lastIndexOf("ground"));
    expect(rows[at("check-supply")]!.note).toMatch(/must not beep/);
    // The display's pull-ups hang behind its own regulator: with it the meter reads no sum that could be told.
    expect(rows[at("check-bus")]!.note).not.toMatch(/the meter reads/);
    const plain = runSheet(circuitOf(planned([BOARD3, USB, { ref: "M1", part: "module/bme280" }]), catalogue));
    expect(plain.find((r) => r.id === "check-bus")!.note).toMatch(
      /SDA: between B1\.\w+ and B1\.\S+ the meter reads about [\d.]+ kΩ/,
    );
    expect(rows[at("check-signal")]!.note).toMatch(/Neighbours that must not beep: /);
  });
  it("stand before the sources what belongs there, and each source by itself before it is joined", () => {
    expect(rows[at("check-before-power")]!.phase).toBe("source");
    const first = rows.findIndex((r) => r.phase === "source" && isLaid(r));
    expect(at("check-before-power")).toBeLessThan(first);
    expect(at("check-S2")).toBeLessThan(rows.findIndex((r) => r.from === "S2.5V" || r.to === "S2.5V"));
    expect(rows[at("check-S2")]!.note).toMatch(/4\.75 V to 5\.25 V, plus at S2\.5V/);
  });
  it("a cell that can't be switched off is joined last, after its own check", () => {
    const c = circuitOf(planned([BOARD3, { ref: "S1", part: "supply/aa-3" }, BENCH[2]!]), catalogue);
    const list = runSheet(c);
    const cell = list.findIndex(
      (r) => isLaid(r) && r.phase === "source" && [r.from, r.to].some((e) => e.startsWith("S1.")),
    );
    expect(cell).toBe(list.length - 1);
    expect(list[cell - 1]).toMatchObject({ id: "check-S1", kind: "look" });
    expect(list[cell - 1]!.note).toContain("can't be switched off");
  });
});

describe("sharing supplies and grounds", () => {
  const cases = RULES.flatMap((rule) =>
    ["moss-terrarium", "beehive-scale", "rain-barrel"].map((name) => [name, rule] as const),
  );
  it.each(cases)("%s, %s: no contact gets more wires than it takes, no row more than five", (name, rule) => {
    const c = demo(name, rule);
    for (const [end, n] of degrees(c)) {
      const inst = c.netlist.instance(end.split(".")[0]!);
      if (inst) expect(n, end).toBeLessThanOrEqual(takes(inst));
      else if (/ row( \d+)?$/.test(end)) expect(n, end).toBeLessThanOrEqual(5);
    }
  });
  it.each(cases)("%s, %s: wires form no ring, so none is too many", (name, rule) => {
    const c = demo(name, rule);
    const parent = new Map<string, string>();
    const find = (x: string): string => ((parent.get(x) ?? x) === x ? x : find(parent.get(x)!));
    for (const r of runSheet(c).filter((x) => x.kind === "wire" || x.kind === "leg")) {
      expect(find(r.from), `${r.from} to ${r.to}`).not.toBe(find(r.to));
      parent.set(find(r.from), find(r.to));
    }
  });
  it("from part to part uses the board's free ground pins before it asks for a splice", () => {
    const many = Array.from({ length: 3 }, (_, i) => ({ ref: `M${i + 1}`, part: "module/hc-sr04" }));
    const c = circuitOf(planned([BOARD5, USB, ...many], { houseRules: { sharing: "daisy-chain" } }), catalogue);
    const grounds = runSheet(c).filter((r) => r.phase === "ground" && isLaid(r));
    expect(grounds.map((r) => [r.from, r.to].sort().join(" "))).toEqual([
      "B1.GND M1.GND",
      "B1.GND.2 M2.GND",
      "B1.GND.3 M3.GND",
    ]);
    // Only one 5 V pin is there for three parts.
    expect(runSheet(c).filter((r) => r.to === "5V splice")).toHaveLength(4);
  });
  it.each(RULES)(
    "%s: more heavy wires than a screw takes meet at a bus strip, fed by one that carries them all",
    (sharing) => {
      const strips = [1, 2, 3].map((i) => ({ ref: `M${i}`, part: "module/ws2812b-strip", options: { pixels: 40 } }));
      const c = circuitOf(
        planned([BOARD5, USB, { ref: "S2", part: "supply/adapter-5v-10a" }, ...strips], { houseRules: { sharing } }),
        catalogue,
      );
      const rows = runSheet(c);
      for (const [end, n] of degrees(c)) {
        const inst = c.netlist.instance(end.split(".")[0]!);
        if (inst) expect(n, end).toBeLessThanOrEqual(takes(inst));
      }
      const feed = rows.find((r) => r.from === "S2.5V" && / bus strip$/.test(r.to))!;
      // 3 · 40 · 60 mA = 7.2 A: 18 AWG carries 8.
      expect(feed.note).toContain("up to 7.2 A for all of them");
      expect(feed.awg).toBeLessThanOrEqual(18);
      expect(rows.filter((r) => r.to === feed.to || r.from === feed.to)).toHaveLength(4);
      expect(rows.some((r) => r.from === "S2.GND" && / bus strip$/.test(r.to))).toBe(true);
    },
  );
  it("what has no rail left gets free rows, the sixth wire a second row", () => {
    const sensors = Array.from({ length: 6 }, (_, i) => ({ ref: `M${i + 1}`, part: "module/ds18b20" }));
    const c = circuitOf(planned([BOARD3, USB, ...sensors]), catalogue);
    const rows = runSheet(c).filter((r) => / row/.test(r.to) && r.net.startsWith("GP"));
    const hubs = new Set(rows.flatMap((r) => [r.from, r.to]).filter((e) => / row/.test(e)));
    expect(rows.length).toBeGreaterThan(5);
    expect(hubs.size).toBeGreaterThan(1);
  });
  it("soldered at once has buses and islands instead of rails and rows", () => {
    const list = runSheet(circuit({ firstBuild: "solder" }));
    const places = list.flatMap((r) => [r.from, r.to]).filter((e) => !/^[A-Z]+\d+\.|^[A-Z]+[A-Z]\d*\./.test(e));
    expect(places.some((e) => e === "GND bus wire")).toBe(true);
    expect(places.some((e) => /rail|row/.test(e))).toBe(false);
  });
  it("keeps isolated grounds apart, and says so on each of their wires", () => {
    const c = circuitOf(
      make(
        [BOARD5, USB, { ref: "S2", part: "supply/adapter-5v-2a" }, { ref: "M1", part: "module/isolator-2ch" }],
        [
          ["S1.USB", "B1.USB"],
          ["M1.VCC1", "B1.5V"],
          ["M1.GND1", "B1.GND"],
          ["M1.VCC2", "S2.5V"],
          ["M1.GND2", "S2.GND"],
        ],
      ),
      catalogue,
    );
    const grounds = runSheet(c).filter((r) => r.phase === "ground" && isLaid(r));
    expect(new Set(grounds.map((r) => r.net)).size).toBe(2);
    for (const r of grounds) expect(r.note).toContain("must never meet the other ground");
  });
});

/**
 * The current in every wire as it is laid: what each end draws, by the wires of the project, sent along the rows of the run
 * sheet from what feeds the net. Independent of how the rows were chosen.
 */
function overloaded(c: Circuit): string[] {
  const out: string[] = [];
  const rows = runSheet(c).filter((r) => r.kind === "wire" || r.kind === "leg");
  const joined = wireList(c).filter((r) => r.kind === "row");
  for (const net of c.netlist.nets) {
    if (net.kind !== "supply") continue;
    const demand = new Map<string, number>();
    const put = (end: string, A: number) => demand.set(end, (demand.get(end) ?? 0) + A);
    const wires = supplyWires(c.netlist, c.power).filter((w) => c.netlist.netOf(w.from) === net);
    for (const w of wires) {
      put(w.to, w.peak_A);
      put(w.from, -w.peak_A);
    }
    const edges = [...rows, ...joined].filter((r) => r.net === net.name);
    const root = [...demand].sort((a, b) => a[1] - b[1])[0]?.[0];
    if (!root) continue;
    const seen = new Set([root]);
    const flow = (at: string): number => {
      let sum = Math.max(0, demand.get(at) ?? 0);
      for (const r of edges) {
        const next = r.from === at ? r.to : r.to === at ? r.from : null;
        if (next === null || seen.has(next)) continue;
        seen.add(next);
        const A = flow(next);
        const limit = r.awg < 26 ? awgAmpacity(r.awg) : JUMPER_A;
        if (r.kind !== "row" && A > limit + 1e-9) out.push(`${r.from} to ${r.to}: ${A.toFixed(2)} A on ${r.awg} AWG`);
        sum += A;
      }
      return sum;
    };
    flow(root);
  }
  return out;
}

describe("grounds that are only not joined yet", () => {
  it("are no reason to keep them apart: the finding that they must meet stands alone", () => {
    const c = circuitOf(
      make(
        [BOARD5, USB, { ref: "S2", part: "supply/adapter-5v-2a" }, { ref: "M1", part: "module/hc-sr04" }],
        [
          ["S1.USB", "B1.USB"],
          ["M1.VCC", "S2.5V"],
          ["M1.GND", "S2.GND"],
          ["M1.TRIG", "B1.D8"],
          ["M1.ECHO", "B1.D9"],
          ["B1.GND", "B1.GND.2"],
        ],
      ),
      catalogue,
    );
    expect(runSheet(c).filter((r) => r.note.includes("never meet"))).toEqual([]);
  });
});

describe("no wire carries more than it can, as it is laid", () => {
  const servos = Array.from({ length: 5 }, (_, i) => ({ ref: `M${i + 1}`, part: "module/servo-small" }));
  const strips = [1, 2, 3].map((i) => ({ ref: `M${i}`, part: "module/ws2812b-strip", options: { pixels: 40 } }));
  const modules = ["hc-sr04", "bme280", "ssd1306-i2c"].map((m, i) => ({ ref: `M${i + 11}`, part: `module/${m}` }));
  const adapter = { ref: "S2", part: "supply/adapter-5v-10a" };
  const parts: [string, object[]][] = [
    ["five servos, each light by itself", servos],
    ["three strips, each heavy", strips],
    ["both kinds and modules", [...strips.slice(0, 2), ...servos.slice(2), ...modules]],
    ["one servo, under what a jumper takes", servos.slice(0, 1)],
  ];
  const cases = parts.flatMap(([name, list]) => RULES.map((sharing) => [name, sharing, list] as const));
  it.each(cases)("%s, %s", (_name, sharing, list) => {
    const c = circuitOf(planned([BOARD5, USB, adapter, ...list], { houseRules: { sharing } }), catalogue);
    expect(overloaded(c)).toEqual([]);
  });
  it.each(parts)("%s, on breadboards", (_name, list) => {
    const p = planned([BOARD3, USB, adapter, ...list]);
    const l = propose(circuitOf(p, catalogue));
    expect(l.trouble).toEqual([]);
    expect(overloaded(circuitOf({ ...p, breadboard: { boards: l.sizes, at: l.spots } }, catalogue))).toEqual([]);
  });
  it("what feeds the strip has the gauge for all, there and back", () => {
    const c = circuitOf(planned([BOARD5, USB, adapter, ...servos]), catalogue);
    const feed = runSheet(c).find((r) => r.from === "S2.5V")!;
    expect(feed.to).toBe("5V bus strip");
    // 5 · 0.75 A.
    expect(feed.note).toContain("up to 3.8 A for all of them");
    expect(awgAmpacity(feed.awg)).toBeGreaterThanOrEqual(3.75);
    const back = runSheet(c).find((r) => r.from === "S2.GND")!;
    expect([back.to, back.awg]).toEqual(["GND bus strip", feed.awg]);
  });
});

describe("steps besides the wires", () => {
  const rows = runSheet(circuit());
  it("soldering comes before parts are set, and warns of heat", () => {
    const solder = rows.filter((r) => r.kind === "solder");
    expect(solder.map((r) => r.from)).toEqual(["B1", "M1", "M3"]);
    expect(solder[0]!.note).toContain("solder 40 header pins");
    expect(PHASES.find((p) => p.id === "solder")!.why).toMatch(/Goggles.*fumes/);
  });
  it("each polar part has a row that says which way round it goes", () => {
    const turn = rows.filter((r) => r.kind === "turn").map((r) => r.from);
    for (const ref of ["B1", "M3", "D1", "CM3"]) expect(turn).toContain(ref);
    expect(rows.find((r) => r.from === "CM3" && r.kind === "turn")!.note).toContain("stripe");
    expect(turn).not.toContain("RD1");
  });
  it("every step says why it comes now and what to check", () => {
    for (const r of rows) expect([r.why, r.check].every((t) => t.length > 10)).toBe(true);
  });
  it("what works a motor comes after the signals, and its source last", () => {
    const list = runSheet(circuitOf(fountain(), catalogue));
    const phase = (end: string) => list.find((r) => [r.from, r.to].includes(end) && r.kind !== "turn")?.phase;
    expect(phase("QMT1.D")).toBe("load");
    expect(phase("B1.D7")).toBe("signal");
    expect(phase("S2.5V")).toBe("source");
  });
});
