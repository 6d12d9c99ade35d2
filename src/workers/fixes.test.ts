import { describe, expect, it } from "vitest";
import { cases } from "../core/checks/cases";
import { TARGETS } from "../core/firmware";
import { circuitOf } from "../core/circuit";
import { applyEdit } from "../core/project";
import { catalogue, check } from "../core/testing";
import { makePowerView } from "./power-view";
import { makeView } from "./view";

/** Whatever a fix puts into a project must be shown, drawn and programmed like anything else. */
describe("every fix of every planted mistake leads to a project that all views can show", () => {
  it.each(cases.map((c) => [c.rule, c.says, c] as const))("%s: %s", (_rule, _says, c) => {
    const p = c.bad();
    const fixes = check(p).flatMap((f) => f.fixes);
    for (const project of [p, ...fixes.map((f) => f.edits.reduce((q, e) => applyEdit(q, e, catalogue), p))]) {
      const view = makeView(project, catalogue);
      expect(JSON.stringify(view)).not.toContain("undefined");
      expect(structuredClone(view)).toEqual(view);
      const power = makePowerView(project, catalogue);
      for (const l of power.river.links) expect(power.river.nodes.some((n) => n.id === l.from)).toBe(true);
      const circuit = circuitOf(project, catalogue);
      for (const t of TARGETS) if (!t.unfit(circuit)) expect(t.files(circuit).length).toBeGreaterThan(0);
    }
  });
});
