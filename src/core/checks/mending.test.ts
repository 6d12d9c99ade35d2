import { describe, expect, it } from "vitest";
import { applyEdit, type Project } from "../project";
import { catalogue, check, planned } from "../testing";

const BOARDS = ["board/atmega328p-long", "board/rp2040-forty", "board/esp32-thirtyeight"];
const MODULES = catalogue.parts.map((p) => p.id).filter((id) => id.startsWith("module/"));
const loud = (p: Project) => check(p).filter((f) => f.severity !== "note");

/** Applies the first fix that is offered again and again, as somebody does who trusts them. */
function mend(p: Project, most = 12): { project: Project; steps: string[] } {
  const steps: string[] = [];
  for (let at = p; ;) {
    const f = loud(at).find((x) => x.fixes.length);
    if (!f || steps.length > most) return { project: at, steps };
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

/** A list that does not fit the board is wired by its fixes pin by pin: six parts of up to ten pins, and what they bring. */
const MOST_STEPS = 45;

describe("mending whole parts lists, taken at random", () => {
  const MORE = [...BOARDS, "board/atmega2560-long", "board/stm32f411-forty"];
  const LOOSE = /resistor|capacitor|electrolytic|diode|npn|nmos|buffer|shifter|ldo|isolator/;
  const KINDS = catalogue.parts.map((p) => p.id).filter((id) => /^(module|discrete)\//.test(id) && !LOOSE.test(id));
  let seed = 20261126;
  const next = (n: number) => {
    seed = (seed * 1103515245 + 12345) % 2147483648;
    return Math.floor((seed / 2147483648) * n);
  };
  const lists = Array.from({ length: 40 }, () => ({
    board: MORE[next(MORE.length)]!,
    parts: Array.from({ length: 3 + next(4) }, () => KINDS[next(KINDS.length)]!),
  }));
  it.each(lists)("$board: $parts", ({ board, parts }) => {
    const { project, steps } = mend(
      planned([
        { ref: "B1", part: board },
        { ref: "S1", part: "supply/usb-charger" },
        ...parts.map((part, i) => ({ ref: `M${i + 1}`, part })),
      ]),
      MOST_STEPS,
    );
    expect(new Set(steps).size).toBe(steps.length);
    expect(steps.length).toBeLessThan(MOST_STEPS);
    expect(loud(project).filter((f) => f.rule === "level.overdrive" || f.rule === "net.contention")).toEqual([]);
  });
});

describe("buffers on a shared bus", () => {
  const p = planned([
    { ref: "B1", part: "board/atmega328p-long" },
    { ref: "S1", part: "supply/usb-charger" },
    { ref: "M1", part: "module/max31855" },
    { ref: "M2", part: "module/mcp3008", companions: { decoupling: { F: 1e-7 } } },
  ]);
  const { project } = mend(p);
  it("let a data-out through only while its part is selected, so that nothing fights on the line", () => {
    expect(loud(project)).toEqual([]);
    const ends = (end: string) =>
      project.links.flatMap((l) => (l.from === end ? [l.to] : l.to === end ? [l.from] : []));
    const input = ends("M1.DO")[0]!;
    const [ref, gate] = [input.split(".")[0]!, input.split(".")[1]![0]!];
    expect(catalogue.get(project.parts.find((x) => x.ref === ref)!.part)!.id).toBe("module/buffer-74ahct125");
    const select = project.links.find((l) => [l.from, l.to].includes(`${ref}.${gate}OE`))!;
    const host = [select.from, select.to].find((e) => e.startsWith("B1."))!;
    // The same board pin selects the part itself, through the other buffer.
    expect(ends(host).length).toBe(2);
    expect(host).toBe(p.links.flatMap((l) => (l.from === "M1.CS" ? [l.to] : l.to === "M1.CS" ? [l.from] : []))[0]);
  });
  it("fight when the gate is always open", () => {
    const gate = project.links.find((l) => /\.\dOE$/.test(l.from + "") && !/GND/.test(l.to) && l.to.startsWith("B1."));
    const wired = gate ?? project.links.find((l) => /\.\dOE$/.test(l.to))!;
    const end = /OE$/.test(wired.from) ? wired.from : wired.to;
    const open = [
      { type: "removeLink" as const, from: wired.from, to: wired.to },
      { type: "addLink" as const, link: { from: end, to: "B1.GND" } },
    ].reduce((q, e) => applyEdit(q, e, catalogue), project);
    expect(loud(open).map((f) => f.rule)).toContain("net.contention");
  });
});
