import { describe, expect, it } from "vitest";
import { catalogue } from "../../testing";
import { partKind } from "./kind";
import { asksPrint, printsOf, readingOf } from "./prints";
import { decisive, standingOf, valueAt } from "./standing";
import { withOptions } from "./options";
import type { Part } from "./schema";

/** What every definition must be able to tell, whoever added it. */
const parts = catalogue.parts;
const modules = parts.filter((p) => partKind(p.id) === "module");
/** Parts that are made of nothing but contacts, light or heat: they have no way up. */
const NO_WAY_UP = /^(supply|connector)\//;

const isChip = (p: Part) =>
  partKind(p.id) === "chip" || (p.body.header?.kind === "leads" && p.pins.length >= 8 && p.id.startsWith("module/"));

describe.each(parts.map((p) => [p.id, p] as const))("%s", (_id, p) => {
  it("has a level or a reason for every pin", () => {
    const plain = /^(discrete|connector)\//.test(p.id);
    for (const pin of p.pins) {
      const powered = pin.role.startsWith("supply") || pin.role === "ground" || pin.role === "cable";
      const told = powered || pin.level !== undefined || pin.says !== undefined || plain || pin.role === "nc";
      expect(told, pin.label).toBe(true);
      if (pin.role === "signal") expect(p.levels[pin.level!], pin.label).toBeDefined();
    }
  });
  it("ties no enable or reset to the level at which it is shut, in any version", () => {
    const versions = [
      withOptions(p, {}),
      ...p.options.flatMap((o) =>
        o.kind === "choice" ? o.choices.map((c) => withOptions(p, { [o.key]: c.value })) : [],
      ),
    ];
    for (const v of versions)
      for (const g of v.gates) {
        const hook = v.pins.find((x) => x.label === g.pin)!.hook;
        if (hook && !g.mild) expect(hook === "ground" ? "low" : "high", `${g.pin} ${hook}`).toBe(g.open);
      }
  });
  it("has a current by state for every supply that a pin feeds", () => {
    for (const [key, s] of Object.entries(p.supplies)) {
      const fed = p.pins.some((x) => x.role === "supply-in" && x.supply === key && !x.optional);
      // What feeds loads draws what they draw.
      if (!fed || s.forLoads) continue;
      expect(s.mA !== undefined || p.converters.some((c) => c.from === key), key).toBe(true);
    }
  });
  it("tells where the pins of two rows are", () => {
    if (p.body.header?.rows !== 2) return;
    const placed = p.pins.some((x) => x.at) || printsOf(p).some((x) => x.rows.length === 2);
    expect(placed).toBe(true);
  });
  it("says in words how it is held, where it has a way up", () => {
    if (!NO_WAY_UP.test(p.id) && !p.board) expect(p.body.orientation ?? "").not.toBe("");
    const polar = p.elements.some((e) => e.kind === "led" || e.kind === "diode" || (e.kind === "capacitor" && e.polar));
    if (polar) expect(p.body.orientation ?? p.pins.map((x) => x.says ?? "").join("")).not.toBe("");
  });
  it("brings what a bare chip needs around it", () => {
    if (isChip(p)) expect(p.companions.length).toBeGreaterThan(0);
  });
  it("says what every value stands on, by paths that lead somewhere, in every version", () => {
    const versions = [
      p,
      ...p.options.flatMap((o) =>
        o.kind === "choice" ? o.choices.map((c) => withOptions(p, { [o.key]: c.value })) : [],
      ),
    ];
    for (const v of versions)
      for (const path of Object.keys(v.values ?? {})) expect(valueAt(v, path), path).toBeDefined();
    for (const path of decisive(p))
      expect(["high", "medium", "low", "assumed"]).toContain(standingOf(p, path).certainty);
  });
});

describe("modules", () => {
  it.each(modules.map((p) => [p.id, p] as const))(
    "%s has its common prints, and is asked about where they are not sure",
    (_id, p) => {
      expect(printsOf(p).length).toBeGreaterThan(0);
      if (!asksPrint(p)) expect(printsOf(p)[0]!.certainty).toBe("high");
      expect(
        readingOf(p)
          .rows.flat()
          .filter((h) => h.pin).length,
      ).toBeGreaterThan(1);
    },
  );
});

describe("how sure a value is", () => {
  const hc05 = catalogue.get("module/hc05")!;
  it("what is said of a section holds for its values; what is said of nothing is the part's", () => {
    expect(standingOf(hc05, "levels/chip/VIH").certainty).toBe("assumed");
    expect(standingOf(hc05, "supplies/main/V").certainty).toBe(hc05.certainty);
    expect(standingOf(catalogue.get("board/atmega328p-long")!, "levels/main/VOH")).toEqual({
      certainty: "high",
      source: "ATmega328P data sheet, DC characteristics",
    });
  });
  it("no value of a rule of thumb passes as one of a data sheet", () => {
    for (const p of parts)
      for (const [path, v] of Object.entries(p.values ?? {}))
        if (v.certainty === "assumed") expect(v.source, `${p.id} ${path}`).toBeUndefined();
  });
});
