import { beforeAll, describe, expect, it } from "vitest";
import { circuitOf } from "../src/core/circuit";
import { micropython } from "../src/core/firmware/targets/micropython";
import { sketch } from "../src/core/firmware/targets/sketch";
import { beginPattern, PATTERNS, type Pattern } from "../src/core/patterns";
import { catalogue } from "../src/core/testing";
import type { BusPart } from "../src/core/bench/models/types";
import { stageOf } from "../src/core/bench/stage";
import { programOf } from "../src/core/firmware/sim";
import { benchProgram, checkSketch, coreArchive } from "./avr/toolchain";
import { checkOnHost } from "./host/compile";
import { filesOf, runInPython, sameInPython, sameInSketch } from "./same";

const on = (p: Pattern, board: string) => circuitOf(beginPattern(p, catalogue, { board }).project, catalogue);
const FORTY = "board/rp2040-forty";
const LONG = "board/atmega328p-long";
/** Roles and radios have proofs of their own; an isolator or a line stands between what is simulated and the board. */
const APART = /usb-|midi|game|radio|isolated|two-boards/;

describe("patterns in MicroPython say what the interpreter says", () => {
  it.each(PATTERNS.filter((p) => p.boards.includes(FORTY) && !APART.test(p.id)).map((p) => [p.id, p] as const))(
    "%s",
    async (_n, p) => {
      // A board that sleeps between its rounds has lines of another kind.
      const c = on(p.sleep ? { ...p, sleep: undefined } : p, FORTY);
      expect(micropython.unfit(c)).toBeNull();
      await sameInPython(c);
    },
  );
});

describe("patterns compiled and run in simavr say what the interpreter says", () => {
  let exe = "";
  beforeAll(() => {
    coreArchive();
    exe = benchProgram();
  }, 240_000);
  it.each(PATTERNS.filter((p) => p.boards.includes(LONG) && !APART.test(p.id)).map((p) => [p.id, p] as const))(
    "%s",
    async (_n, p) => {
      await sameInSketch(on(p, LONG), p.id, exe);
    },
    60_000,
  );
});

describe("sketches of the other patterns compile", () => {
  it.each(PATTERNS.filter((p) => APART.test(p.id)).map((p) => [p.id, p] as const))("%s", (_n, p) => {
    const c = on(p, p.boards[0]!);
    expect(sketch.unfit(c)).toBeNull();
    for (const host of c.netlist.expanded.hosts) {
      const { family, chip } = c.netlist.instance(host)!.part.board!;
      const files = filesOf(c, sketch.files(c), host);
      if (family === "avr") checkSketch(`pattern-${p.id}`, [...files], "starter", chip.toLowerCase());
      else checkOnHost(`pattern-${p.id}-${host}`, files, "starter", family);
    }
  });
});

describe("two boards that talk", () => {
  const c = on(
    PATTERNS.find((p) => p.id === "two-boards-talking")!,
    FORTY,
  );
  it("a press goes over the line as A, letting go as B, with the driver on", async () => {
    const sent: number[] = [];
    let back: number[] = [];
    // A driver that hears itself while it is on: of its own proof, the two bytes that it sends then.
    const line: BusPart = {
      write(bytes) {
        sent.push(...bytes);
        if (bytes.length === 2) back = [...bytes];
        return true;
      },
      read: () => null,
      serial() {
        const list = back;
        back = [];
        return list;
      },
    };
    await runInPython(c, { bus: new Map(), wires: new Map() }, line);
    // Its own proof first; then three presses.
    expect(String.fromCharCode(...sent.slice(3))).toBe("ABABAB");
  });
  it("and the lamp in the other hut is lit while the last letter is A", () => {
    const stage = stageOf(c, "B2", "micropython");
    const lit: number[] = [];
    const program = programOf(c, "B2", "micropython", {
      ...stage,
      drive(ref, pin, level, now) {
        if (ref === "LED1") lit.push(level);
        stage.drive(ref, pin, level, now);
      },
    });
    program.run(3000);
    expect(lit.at(-1) ?? 0).toBe(0);
    expect(stage.set("M2", "letter", 65, 3000)).toBeNull();
    program.run(6000);
    expect(lit.at(-1)).toBe(1);
  });
});
