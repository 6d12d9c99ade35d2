import { describe, expect, it } from "vitest";
import { findings, verdict } from "../checks";
import { circuitOf } from "../circuit";
import { assign } from "../plan/assign";
import { catalogue, make } from "../testing";
import { targetById } from ".";

const CHIPS = catalogue.parts.filter((p) => p.board?.programming);
const planned = (chip: string, options: object, more: object[] = []) =>
  circuitOf(
    assign(
      make([
        { ref: "B1", part: chip },
        { ref: "M1", part: "module/avr-programmer", options },
        { ref: "D1", part: "discrete/led-red", label: "Lamp" },
        ...more,
      ] as never),
      catalogue,
    ).project,
    catalogue,
  );
const file = (c: ReturnType<typeof planned>, path: string) =>
  targetById("avr-c")!
    .files(c)
    .find((f) => f.path === path)!.text;

describe("a bare chip and its programmer", () => {
  it("every chip says where its programmer goes: its own lines, not those of its bus", () => {
    expect(CHIPS.map((p) => p.id)).toHaveLength(5);
    for (const p of CHIPS) {
      const { mosi, miso, sck, reset } = p.board!.programming!;
      for (const label of [mosi, miso, sck, reset]) {
        const pin = p.pins.find((x) => x.label === label)!;
        expect(
          pin.hazards?.some((h) => h.kind === "programming" || h.kind === "reset"),
          `${p.id} ${label}`,
        ).toBe(true);
      }
      expect(new Set([mosi, miso, sck, reset]).size).toBe(4);
    }
  });
  it.each(CHIPS.map((p) => [p.id, p] as const))(
    "%s: from a chip and a light to six planned wires, fed by it",
    (id, p) => {
      const c = planned(id, { feeds: "yes" });
      const joined = (a: string, b: string) => c.netlist.netOf(a) === c.netlist.netOf(b);
      const { mosi, miso, sck, reset } = p.board!.programming!;
      expect(joined("M1.MOSI", `B1.${mosi}`)).toBe(true);
      expect(joined("M1.MISO", `B1.${miso}`)).toBe(true);
      expect(joined("M1.SCK", `B1.${sck}`)).toBe(true);
      expect(joined("M1.RST", `B1.${reset}`)).toBe(true);
      expect(joined("M1.VCC", "B1.VCC")).toBe(true);
      expect(joined("M1.GND", "B1.GND")).toBe(true);
      const list = findings(c);
      expect(list.filter((f) => f.severity !== "note")).toEqual([]);
      expect(verdict(c, list).words).toBe("Ready to wire");
      const page = file(c, "UPLOAD.md");
      expect(page).toMatch(new RegExp(`\\| MOSI \\| ${mosi} \\(leg \\d+\\) \\|`));
      expect(page).toContain("It is M1 of the plan.");
      expect(file(c, "Makefile")).toMatch(/^DUDE = avrdude -c \$\(PROGRAMMER\) -B \$\(BITCLOCK\) -p \w+$/m);
    },
  );
  it("a circuit with a supply of its own feeds the programmer; both at once is told", () => {
    const own = { ref: "S1", part: "supply/aa-3" };
    const c = planned("chip/attiny85-dip8", {}, [own]);
    expect(c.netlist.netOf("M1.VCC")).toBe(c.netlist.netOf("S1.+"));
    expect(findings(c).filter((f) => f.severity !== "note")).toEqual([]);
    const two = planned("chip/attiny85-dip8", { feeds: "yes" }, [own]);
    const wired = circuitOf(
      { ...two.project, links: [...two.project.links, { from: "M1.VCC", to: "S1.+" }] },
      catalogue,
    );
    expect(findings(wired).some((f) => f.rule === "power.short" && f.severity === "stop")).toBe(true);
  });
  it("the tool and its port follow what it is; without one the page asks for it", () => {
    expect(file(planned("chip/attiny85-dip8", { feeds: "yes", tool: "stk500v1" }), "Makefile")).toMatch(
      /PROGRAMMER = stk500v1\nPORT = .*\n[^]*-P \$\(PORT\) -b 19200 -p t85\n/,
    );
    const without = circuitOf(
      assign(
        make([
          { ref: "B1", part: "chip/attiny85-dip8" },
          { ref: "S1", part: "supply/aa-3" },
        ]),
        catalogue,
      ).project,
      catalogue,
    );
    expect(file(without, "UPLOAD.md")).toContain("None is in the parts of this plan");
  });
});
