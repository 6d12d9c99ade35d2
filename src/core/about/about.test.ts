import fs from "node:fs";
import { describe, expect, it } from "vitest";
import { circuitOf } from "../circuit";
import { quiet } from "../checks/cases";
import { readProject } from "../project";
import { catalogue } from "../testing";
import { about } from ".";

const read = readProject(fs.readFileSync("demo/rain-barrel.lattice.json", "utf8"), catalogue);
if (!read.ok) throw new Error("the demo does not open");

describe("what a place is", () => {
  const rain = circuitOf(read.project, catalogue);

  it("says of a pin what it is, where it goes, what levels meet there, and what it would be missed for", () => {
    const a = about(rain, "M1.ECHO")!;
    expect(a.title).toBe("Water echo (M1), pin ECHO");
    expect(a.what).toMatch(/^Output: the board reads it\./);
    expect(a.here).toContain("Goes to B1.D2.");
    expect(a.here.join(" ")).toMatch(/Drives at least 4\.10 V for high/);
    expect(a.without).toBe("Without it the board's input floats: it reads one or zero by chance.");
    expect(about(rain, "B1.D2")!.here[0]).toMatch(/^Serves M1\.ECHO/);
  });

  it("says of a rail what it gives, joins and feeds", () => {
    const a = about(rain, "5V")!;
    expect(a.what).toMatch(/supply of 4\.95 V, at worst 4\.60 V to 5\.25 V/);
    expect(a.here[1]).toMatch(/129 mA at the peak/);
    expect(a.without).toBe("Without it these are off: M1, M2.");
  });

  it("says of a part that was put in why it is there", () => {
    const a = about(rain, "RD1")!;
    expect(a.here[0]).toMatch(/^Put in beside D1, because an LED has no limit/);
    expect(a.without).toMatch(/nothing holds the current back/);
  });

  it("does not threaten with what nobody uses, and knows no place that is none", () => {
    expect(about(rain, "B1.NC")!.without).toBe("Without it nothing changes: this plan does not use it.");
    for (const none of ["", "M9", "M1.NOPE", "no net", "."]) expect(about(rain, none), none).toBeNull();
  });

  it("speaks in whole sentences of every place of every sound design", () => {
    for (const q of quiet) {
      const c = circuitOf(q.project(), catalogue);
      const places = [...c.netlist.expanded.instances.values()].flatMap((i) => [
        i.ref,
        ...i.part.pins.map((p) => `${i.ref}.${p.label}`),
      ]);
      for (const place of [...places, ...c.netlist.nets.filter((n) => n.ends.length > 1).map((n) => n.name)]) {
        const a = about(c, place);
        expect(a, `${q.name}: ${place}`).not.toBeNull();
        for (const s of [a!.what, ...a!.here, a!.without]) {
          expect(s, `${q.name}: ${place}`).toMatch(/^[A-Z0-9µ−].*\.$/);
          expect(s, `${q.name}: ${place}`).not.toMatch(/undefined|NaN|Infinity|\[object|\.\.|\{|\}/);
        }
      }
    }
  });
});
