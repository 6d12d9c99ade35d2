import { describe, expect, it } from "vitest";
import { applyEdit, type Project } from "../project";
import { catalogue, check, planned } from "../testing";

const BOARDS = ["board/atmega328p-long", "board/rp2040-forty", "board/esp32-thirtyeight"];
const MODULES = catalogue.parts.map((p) => p.id).filter((id) => id.startsWith("module/"));
const loud = (p: Project) => check(p).filter((f) => f.severity !== "note");

/** Applies the first fix that is offered again and again, as somebody does who trusts them. */
function mend(p: Project): { project: Project; steps: string[] } {
  const steps: string[] = [];
  for (let at = p; ;) {
    const f = loud(at).find((x) => x.fixes.length);
    if (!f || steps.length > 12) return { project: at, steps };
    steps.push(`${f.rule}: ${f.fixes[0]!.label}`);
    at = f.fixes[0]!.edits.reduce((q, e) => applyEdit(q, e, catalogue), at);
  }
}

describe.each(BOARDS)("mending by the fixes alone, every module on %s", (board) => {
  const ends = new Map(
    MODULES.map((id) => [
      id,
      mend(
        planned([
          { ref: "B1", part: board },
          { ref: "S1", part: "supply/usb-charger" },
          { ref: "M1", part: id },
        ]),
      ),
    ]),
  );
  it.each(MODULES)("%s: comes to an end, no fix twice", (id) => {
    const { steps } = ends.get(id)!;
    expect(steps.length).toBeLessThan(8);
    expect(new Set(steps).size).toBe(steps.length);
  });
  it("no wire's level is left too high for a pin where a fix was offered", () => {
    const left = [...ends].flatMap(([id, { project }]) =>
      loud(project).flatMap((f) => (f.rule === "level.overdrive" ? [`${id}: ${f.message}`] : [])),
    );
    expect(left).toEqual([]);
  });
});
