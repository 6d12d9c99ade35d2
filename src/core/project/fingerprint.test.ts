import { describe, expect, it } from "vitest";
import { catalogue, fountain, planned } from "../testing";
import { applyEdit, fingerprint, type BasicEdit } from ".";

const project = () =>
  planned([
    { ref: "B1", part: "board/rp2040-forty" },
    { ref: "S1", part: "supply/usb-port" },
    { ref: "M1", part: "module/bme280", label: "Air" },
    { ref: "D1", part: "discrete/led-red" },
  ]);
const after = (...edits: BasicEdit[]) => fingerprint(edits.reduce((p, e) => applyEdit(p, e, catalogue), project()));

describe("the fingerprint of a plan", () => {
  it("is eight letters without vowels, the same for the same plan in any order", () => {
    const p = project();
    expect(fingerprint(p)).toMatch(/^[BCDFGHJKMNPQRSTVWXZ]{8}$/);
    const turned = {
      ...p,
      parts: [...p.parts].reverse(),
      links: p.links.map((l) => ({ from: l.to, to: l.from })).reverse(),
    };
    expect(fingerprint(turned)).toBe(fingerprint(p));
    expect(fingerprint(JSON.parse(JSON.stringify(p)))).toBe(fingerprint(p));
    expect(fingerprint(fountain())).not.toBe(fingerprint(p));
  });
  it("changes with every wire, part, option and companion", () => {
    const p = project();
    const wire = p.links[0]!;
    const all = [
      fingerprint(p),
      after({ type: "removeLink", from: wire.from, to: wire.to }),
      after({ type: "addPart", part: "discrete/button" }),
      after({ type: "setOption", ref: "M1", key: "address", value: "0x77" }),
      after({ type: "setCompanion", ref: "D1", key: "seriesResistor", value: { ohm: 680 } }),
      after({ type: "setBus", host: "B1", bus: "i2c0", clock_Hz: 100_000 }),
    ];
    expect(new Set(all).size).toBe(all.length);
  });
  it("does not change with names, locks, ticks and lengths", () => {
    const wire = project().links[0]!;
    for (const e of [
      { type: "setTitle", title: "Another" },
      { type: "setLabel", ref: "M1", label: "Attic" },
      { type: "lock", from: wire.from, to: wire.to, locked: true },
      { type: "setWire", ref: "M1", wire_cm: 80 },
      { type: "tick", list: "wires", id: "x", done: true, at: "2026-01-01" },
    ] as BasicEdit[])
      expect(after(e), e.type).toBe(fingerprint(project()));
  });
});
