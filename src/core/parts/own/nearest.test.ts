import { describe, expect, it } from "vitest";
import { catalogue } from "../../testing";
import type { Part } from "../catalogue";
import { nearest } from "./nearest";

const copy = (id: string, change: (p: Part) => void): Part => {
  const p = structuredClone(catalogue.get(id)!) as Part;
  p.id = `${id.split("/")[0]}/own-thing`;
  change(p);
  return p;
};

describe("an own part beside the catalogue's", () => {
  it.each(["module/bme280", "module/hc-sr04", "board/rp2040-forty", "discrete/led-red"])(
    "%s under another id: what was changed is said, nothing else",
    (id) => {
      const same = nearest(
        copy(id, () => undefined),
        catalogue.parts,
      )!;
      expect([same.id, same.differs]).toEqual([id, []]);
      const forged = copy(id, (p) => {
        const [level] = Object.values(p.levels);
        if (level) level.absMax = 48;
        else p.elements = [];
      });
      const r = nearest(forged, catalogue.parts)!;
      expect(r.id).toBe(id);
      expect(r.differs.length).toBeGreaterThan(0);
      for (const d of r.differs)
        expect(d.path).toMatch(Object.keys(forged.levels).length ? /^levels\/\w+\/absMax$/ : /^elements/);
    },
  );
  it("is found among many of the same pins also under another name", () => {
    const renamed = copy("module/bme280", (p) => {
      p.name = "Air sensor from the fair";
      Object.values(p.levels)[0]!.absMax = 48;
    });
    const r = nearest(renamed, catalogue.parts)!;
    expect([r.id, r.differs]).toEqual(["module/bme280", [{ path: "levels/main/absMax", own: "48", shipped: "V+0.3" }]]);
  });
  it("is beside none when it is like none", () => {
    const odd = copy("module/bme280", (p) => {
      p.name = "Something else";
      p.pins = p.pins.map((x, i) => ({ ...x, label: `Q${i}` }));
    });
    expect(nearest(odd, catalogue.parts)).toBeNull();
  });
});
