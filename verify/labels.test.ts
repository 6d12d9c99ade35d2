import { beforeAll, describe, expect, it } from "vitest";
import { circuitOf } from "../src/core/circuit";
import { micropython } from "../src/core/firmware/targets/micropython";
import { sketch } from "../src/core/firmware/targets/sketch";
import { BOARD3, BOARD5, catalogue, planned, USB } from "../src/core/testing";
import { compileSketch, coreArchive } from "./avr/toolchain";
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
