import { describe, expect, it } from "vitest";
import { planAll } from "../src/core/plan/advice";
import { catalogue, check, make } from "../src/core/testing";

const PARTS = catalogue.parts.filter((p) => /^(module|discrete)\//.test(p.id)).map((p) => p.id);
/** A sample of boards that differ in voltage and pins; all of them take part by turns. */
const BOARDS = catalogue.parts
  .filter((p) => p.id.startsWith("board/") && p.id !== "board/linux-forty")
  .map((p) => p.id);

/**
 * What is the person's to decide, and told as such: another supply, board or light, a wire taken off while uploading, a level
 * that only a corner of the tolerances breaks.
 */
const CHOICE =
  /^power\.(overload|tight|range|no-supply|through-board|regulator-heat|dropout|brownout)$|^board\.|^part\.(unwired|solder)|^wire\.|^pin\.(usb-serial|bootlog)$|^led\.headroom$/;
const CORNER = /^level\.(low-high|high-low|thin-margin|slow)$|^adc\.(range|impedance)$|^current\.pin$/;

describe("every part alone, planned by us", () => {
  it.each(PARTS)("%s: nothing above a note that nobody can act on", (id) => {
    const at = PARTS.indexOf(id);
    const wrong: string[] = [];
    for (let k = 0; k < 4; k++) {
      const board = BOARDS[(at + k * 5) % BOARDS.length]!;
      const parts = [
        { ref: "B1", part: board },
        { ref: "S1", part: "supply/usb-charger" },
        { ref: "X1", part: id },
      ];
      const a = planAll(make(parts), catalogue);
      for (const f of check(a.project)) {
        if (f.severity === "note" || CHOICE.test(f.rule)) continue;
        if (f.severity === "risk" && (CORNER.test(f.rule) || f.fixes.length)) continue;
        if (a.leftOut.length && f.severity === "risk") continue;
        wrong.push(`${board}: ${f.severity} ${f.rule} at ${f.at.join(" ")}: ${f.message}`);
      }
    }
    expect(wrong).toEqual([]);
  });
});
