import { execFileSync } from "node:child_process";
import fs from "node:fs";
import path from "node:path";
import Papa from "papaparse";
import { beforeAll, describe, expect, it } from "vitest";
import { loom, loomDrawing } from "../src/core/build";
import { layOutHere } from "../src/core/build/loom/elk";
import { toSvg } from "../src/core/drawing";
import { checksCsv, partsCsv, planMarkdown, planText, wiresCsv } from "../src/core/formats";
import { avrC } from "../src/core/firmware/targets/avr-c";
import { python } from "../src/core/firmware/targets/python";
import { HOSTILE } from "../src/core/words/hostile";
import { WORK } from "./work-folder";
import { circuitOf } from "../src/core/circuit";
import { micropython } from "../src/core/firmware/targets/micropython";
import { sketch } from "../src/core/firmware/targets/sketch";
import { BOARD3, BOARD5, catalogue, planned, USB } from "../src/core/testing";
import { compileC, compileSketch, coreArchive } from "./avr/toolchain";
import { runProgram } from "./micropython/run";

/** What people call their lamps and buttons, many of them words of a language, of the core or of our own programs. */
const LABELS =
  `Time Now Print Level Line Loop Min Max Map Start Stop Go On Off Up Down Left Right Open Close Door Gate Pump Fan
Light Lamp Lamp-on Lamp-next Red Green Blue White Signal Alarm Bell Horn Tone Random Round Square Abs Delay Yield Serial Wire
Setup Main Int Float Long Short Char Byte Word Bool String If Else For While Do Switch Case Break Return Class Struct Union
Static Register Volatile New Delete This True False None Lambda Def Pass In Is Not And Or Import From Global Machine Pins Pin
Input Output High Low Bit Read Write Link Pause Index Exp Log Sin Time-2 Sleep Wait Kill Exit Abort System Due Verdict Judge
Score Found Hits Task Tasks Passed Failed Value Row Column Len Str List Range Type Id Sum Set Object Öl Größe 7 7up _ -`.split(
    /\s+/,
  );
const PER_PROGRAM = 10;
const groups = Array.from({ length: Math.ceil(LABELS.length / PER_PROGRAM) }, (_, i) =>
  LABELS.slice(i * PER_PROGRAM, (i + 1) * PER_PROGRAM),
);
const named = (labels: readonly string[]) =>
  labels.map((label, i) =>
    i % 2
      ? { ref: `SW${i + 1}`, part: "discrete/button", label: label.replace("-", " ") }
      : { ref: `D${i + 1}`, part: "discrete/led-red", label: label.replace("-", " ") },
  );

beforeAll(() => void coreArchive(), 240_000);

describe("programs with everyday labels", () => {
  it.each(groups.map((g) => [g.join(", "), g] as const))("%s", async (_names, labels) => {
    const five = circuitOf(planned([BOARD5, USB, ...named(labels)]), catalogue);
    const files = sketch.files(five);
    for (const program of ["bringup", "starter"] as const)
      expect(compileSketch(`labels-${LABELS.indexOf(labels[0]!)}`, files, program).flash, program).toBeGreaterThan(500);
    const three = circuitOf(planned([BOARD3, USB, ...named(labels)]), catalogue);
    const python = micropython.files(three);
    const proven = await runProgram(python, "bringup.py", "clock.END[0] = 60_000");
    const n = labels.length;
    expect(proven.lines.filter((l) => l.startsWith("YL1 done"))).toEqual([
      `YL1 done parts=${n} proven=0 failed=0 unproven=${n} info`,
    ]);
    // The starter goes on for ever: it ends by the clock, not by a mistake.
    expect((await runProgram(python, "main.py", "")).lines.at(-1)).toBe("CLOCK RAN OUT");
  });
});

/** A sensor of the person's own, told by its pin alone: its label stands in a format. */
const OWN = { ...catalogue.get("module/a3144")!, id: "module/own-eye", bringup: { driver: "generic" } };
const HOSTILE_PER_PROGRAM = 14;
const hostile = Array.from({ length: Math.ceil(HOSTILE.length / HOSTILE_PER_PROGRAM) }, (_, i) =>
  HOSTILE.slice(i * HOSTILE_PER_PROGRAM, (i + 1) * HOSTILE_PER_PROGRAM),
);
const PARTS = ["discrete/led-red", "discrete/button", OWN.id];

describe("programs, lists and drawings with words that break formats", () => {
  it.each(hostile.map((g, i) => [i, g] as const))("group %i", async (i, labels) => {
    const parts = labels.map((label, k) => ({
      ref: `X${k + 1}`,
      part: PARTS[k % PARTS.length]!,
      label: label.slice(0, 60),
    }));
    const more = { title: labels.find((l) => l.trim())!, customParts: [OWN] };
    const built = (board: object) => circuitOf(planned([board, USB, ...parts], more), catalogue);
    const five = built(BOARD5);
    for (const program of ["bringup", "starter"] as const)
      expect(compileSketch(`hostile-${i}`, sketch.files(five), program).flash, program).toBeGreaterThan(500);
    const chip = built({ ref: "B1", part: "chip/atmega32a-dip40" });
    for (const program of ["bringup", "main"])
      expect(
        compileC(`hostile-${i}`, avrC.files(chip), program, "atmega32a", 8_000_000).flash,
        program,
      ).toBeGreaterThan(100);
    const three = built(BOARD3);
    const run = await runProgram(micropython.files(three), "bringup.py", "clock.END[0] = 60_000");
    expect(run.lines.filter((l) => l.startsWith("YL1 done"))).toHaveLength(1);
    const main = await runProgram(micropython.files(three), "main.py", "");
    expect(main.lines.at(-1)).toBe("CLOCK RAN OUT");
    const linux = built({ ref: "B1", part: "board/linux-forty" });
    const dir = path.join(WORK, `hostile-${i}`);
    for (const f of python.files(linux).filter((x) => x.path.endsWith(".py"))) {
      const file = path.join(dir, path.basename(f.path));
      fs.mkdirSync(dir, { recursive: true });
      fs.writeFileSync(file, f.text);
      execFileSync("python3", ["-m", "py_compile", file]);
    }
    // Drawings are read by a strict reader of XML, lists by the reader of tables.
    const svg = toSvg(loomDrawing(await loom(three, layOutHere)), more.title);
    const drawn = path.join(dir, "plan.svg");
    fs.writeFileSync(drawn, svg);
    execFileSync("python3", ["-c", "import sys, xml.etree.ElementTree as t; t.parse(sys.argv[1])", drawn]);
    for (const text of [wiresCsv(three), partsCsv(three), checksCsv(three)]) {
      const rows = Papa.parse<string[]>(text.trim()).data;
      expect(new Set(rows.map((r) => r.length)).size).toBe(1);
      for (const cell of rows.flat()) expect(cell).not.toMatch(/^\s*[=+@]/);
    }
    const md = planMarkdown(planText(three));
    expect(md.replace(/&lt;|&gt;|&amp;/g, "")).not.toMatch(/[<>]|(?<!\\)\]\(|https?:\/\//);
  });
});
