import fs from "node:fs";
import { describe, expect, it } from "vitest";
import { circuitOf } from "../../circuit";
import { readProject, type Project } from "../../project";
import { BOARD3, BOARD5, catalogue, planned, USB } from "../../testing";
import { toolsFor } from "../lists";
import { partsList } from "../partslist";
import { runSheet } from "../runsheet";
import { solderBuild } from ".";

const demo = (name: string): Project => {
  const url = new URL(`../../../../demo/${name}.lattice.json`, import.meta.url);
  const r = readProject(fs.readFileSync(url, "utf8"), catalogue);
  if (!r.ok) throw new Error(JSON.stringify(r.problems));
  return r.project;
};

describe("the beehive scale, soldered", () => {
  const c = circuitOf(demo("beehive-scale"), catalogue);
  const b = solderBuild(c);
  it("cuts every wire, with a tenth more and both ends", () => {
    const soldered = { ...demo("beehive-scale"), houseRules: { firstBuild: "solder" as const }, breadboard: undefined };
    const wires = runSheet(circuitOf(soldered, catalogue)).filter((r) => r.kind === "wire");
    expect(b.cuts.reduce((s, r) => s + r.quantity, 0)).toBe(wires.length);
    // 20 cm · 1.1 + 2 cm.
    expect(new Set(b.cuts.map((r) => r.cut_cm))).toEqual(new Set([24]));
    // Nothing is plugged where everything is soldered.
    for (const r of wires) expect([r.endA, r.endB].join()).not.toMatch(/socket|pin/);
  });
  it("counts joints: pins of headers, legs, ends of wires", () => {
    // Board 40, amplifier 10, clock 6, card 6; sensors 3 + 3, button 2, light 2, three resistors and a capacitor 8.
    expect(b.joints).toContainEqual({ what: "header pins", n: 62 });
    expect(b.joints).toContainEqual({ what: "legs of loose parts", n: 18 });
    expect(b.joints.find((j) => j.what === "wire ends")!.n).toBe(2 * b.cuts.reduce((s, r) => s + r.quantity, 0));
  });
  it("solders low parts first and boards last", () => {
    const groups = b.order.map((g) => g.group);
    expect(groups[0]).toBe("resistors and diodes");
    expect(groups.at(-1)).toBe("modules and boards");
    expect(groups.indexOf("lights")).toBeLessThan(groups.indexOf("electrolytic capacitors"));
    expect(b.order.flatMap((g) => g.parts)).toHaveLength(12);
  });
  it("says what to hold and what to keep clear", () => {
    expect(b.strain).toEqual([expect.objectContaining({ what: "Cell" })]);
    const of = (what: string) =>
      b.clear
        .filter((r) => r.what === what)
        .map((r) => r.why)
        .join(" ");
    expect(of("Controller")).toMatch(/metal box.*reset button/);
    expect(of("Cell")).toContain("nothing sharp");
  });
  it("takes a carrier that holds the parts, and matching strips", () => {
    expect(b.carrier.kind).toBe("perfboard");
    // The board itself is 51 mm long.
    expect(b.carrier.mm[0]).toBeGreaterThan(51);
    expect(b.connectors.filter((x) => x.of === "Controller").map((x) => x.what)).toEqual([
      "socket strip, 20 pins",
      "socket strip, 20 pins",
    ]);
  });
});

describe("other builds", () => {
  it("few loose parts need no carrier", () => {
    const b = solderBuild(circuitOf(planned([BOARD5, USB, { ref: "D1", part: "discrete/led-red" }]), catalogue));
    expect(b.carrier.kind).toBe("direct");
  });
  it("long wires and what moves are held, aerials and warm regulators kept clear", () => {
    const b = solderBuild(
      circuitOf(
        planned([
          { ref: "B1", part: "board/esp32-thirtyeight" },
          { ref: "S2", part: "supply/adapter-12v-2a" },
          USB,
          { ref: "M1", part: "module/bme280", wire_cm: 80 },
          { ref: "M2", part: "module/servo-small" },
        ]),
        catalogue,
      ),
    );
    expect(b.strain.map((r) => r.what)).toEqual(expect.arrayContaining(["M1", "M2"]));
    expect(b.strain.find((r) => r.what === "M1")!.why).toContain("80 cm");
    expect(b.clear.some((r) => /aerial/.test(r.why))).toBe(true);
    expect(b.clear.some((r) => r.what === "M1" && /air/.test(r.why))).toBe(true);
  });
  it("nothing is nothing", () => {
    const b = solderBuild(circuitOf(planned([]), catalogue));
    expect([b.cuts, b.joints, b.order, b.strain, b.clear, b.connectors].every((l) => l.length === 0)).toBe(true);
  });
});

describe("pads too close for wires", () => {
  const c = circuitOf(
    planned([BOARD3, USB, { ref: "Q1", part: "discrete/nmos-ao3400" }, { ref: "D1", part: "discrete/led-red" }]),
    catalogue,
  );
  const plain = circuitOf(planned([BOARD3, USB, { ref: "D1", part: "discrete/led-red" }]), catalogue);
  it("bring an adapter, its tools, and come first", () => {
    expect(partsList(c).find((r) => r.part === "adapter")).toMatchObject({
      name: "Adapter board, 3 pads 0.95 mm apart to pins 2.54 mm apart",
      quantity: 1,
      refs: ["Q1"],
    });
    expect(toolsFor(c).map((t) => t.name)).toContain("Fine tip, tweezers, magnifier, flux");
    expect(solderBuild(c).order[0]).toMatchObject({ group: "fine parts onto their adapters" });
  });
  it("nothing of it where all pins are a step apart", () => {
    expect(partsList(plain).some((r) => r.part === "adapter")).toBe(false);
    expect(
      toolsFor(plain)
        .map((t) => t.name)
        .join(),
    ).not.toContain("magnifier");
    expect(solderBuild(plain).order.some((g) => g.group.includes("adapters"))).toBe(false);
  });
});
