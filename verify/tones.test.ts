import { describe, expect, it } from "vitest";
import { circuitOf, type Circuit } from "../src/core/circuit";
import { gaps } from "../src/core/firmware/gaps";
import { avrC } from "../src/core/firmware/targets/avr-c";
import { CHIPS } from "../src/core/firmware/targets/avr-c/chips";
import { findPin } from "../src/core/parts/catalogue";
import { assign } from "../src/core/plan/assign";
import { catalogue, make, USB } from "../src/core/testing";
import { benchProgram, compileC, simulateChip } from "./avr/toolchain";

const planned = (part: string, sounder: string, clock_Hz?: string) => {
  const parts = [
    { ref: "B1", part, ...(clock_Hz && { options: { clock_Hz } }) },
    USB,
    { ref: "M1", part: sounder, label: "Sounder" },
    { ref: "SW1", part: "discrete/button", label: "Go" },
  ];
  return circuitOf(assign(make(parts as never), catalogue).project, catalogue);
};
const port = (c: Circuit, ref: string) => {
  const b = c.netlist.bindings.find((x) => x.ref === ref)!;
  return findPin(c.netlist.instance("B1")!.part, b.hostPin)!.names!["avr-c"]!;
};

/** Hertz heard at times in seconds, from the rising edges around them; 0 is silence. */
function heard(lines: readonly string[], clock_Hz: number, at: readonly number[]): number[] {
  const rises = lines.flatMap((l) => {
    const m = /^EDGE 1 (\d+)$/.exec(l);
    return m ? [Number(m[1]) / clock_Hz] : [];
  });
  return at.map((t) => {
    const near = rises.filter((r) => Math.abs(r - t) < 0.1);
    return near.length < 3 ? 0 : (near.length - 1) / (near.at(-1)! - near[0]!);
  });
}

/** The simulator's model of the ATtiny85 has no timer 1: its program is only compiled. */
const CASES = [
  ["chip/atmega328p-dip28", "8000000", "atmega328p"],
  ["chip/atmega328p-dip28", "16000000", "atmega328p"],
  ["chip/attiny84-dip14", "8000000", "attiny84"],
] as const;

describe("tones in plain C, heard in simavr", () => {
  it.each(CASES)("%s at %s Hz: 440, 880, silence in bring-up; on while a contact says so", (part, clock, mcu) => {
    const c = planned(part, "module/buzzer-passive", clock);
    expect(gaps(c)).toEqual([]);
    const clock_Hz = Number(clock);
    const files = avrC.files(c);
    const name = `tone-${part.split("/")[1]}-${clock}`;
    const scope = `scope:${port(c, "M1")}`;
    const up = compileC(name, files, "bringup", mcu, clock_Hz);
    const said = simulateChip(benchProgram(), up.elf, 2.2, [scope], mcu, clock_Hz).lines;
    const [low, high, none] = heard(said, clock_Hz, [0.4, 1.1, 1.8]);
    // A half wave is a whole number of the timer's counts.
    expect(Math.abs(low! - 440) / 440).toBeLessThan(0.01);
    expect(Math.abs(high! - 880) / 880).toBeLessThan(0.01);
    expect(none).toBe(0);
    const starter = compileC(name, files, "main", mcu, clock_Hz);
    for (const [level, hz] of [
      [1, 0],
      [0, 440],
    ] as const) {
      const args = [scope, `hold:${port(c, "SW1")}:${level}`];
      const lines = simulateChip(benchProgram(), starter.elf, 1, args, mcu, clock_Hz).lines;
      expect(Math.abs(heard(lines, clock_Hz, [0.7])[0]! - hz)).toBeLessThan(5);
    }
  });
  it("compiles for every chip that has a second timer; the others are told so", () => {
    for (const [chip, { mcu }] of Object.entries(CHIPS)) {
      const part = catalogue.parts.find((p) => p.id.startsWith("chip/") && p.board?.chip === chip)!;
      const c = planned(part.id, "discrete/speaker");
      if (chip === "ATtiny13A") {
        expect(gaps(c)).toEqual([expect.objectContaining({ why: expect.stringContaining("second timer") as string })]);
        continue;
      }
      expect(gaps(c), chip).toEqual([]);
      for (const program of ["bringup", "main"]) compileC(`speaker-${mcu}`, avrC.files(c), program, mcu, 8_000_000);
    }
  });
});
