import { beforeAll, describe, expect, it } from "vitest";
import { circuitOf, type Circuit } from "../src/core/circuit";
import { sketch } from "../src/core/firmware/targets/sketch";
import { buildIdea, choiceOf, offersFor, readIdea } from "../src/core/idea";
import { PHRASINGS } from "../src/core/idea/phrasings";
import { emptyProject } from "../src/core/project";
import { catalogue } from "../src/core/testing";
import { checkSketch, benchProgram, coreArchive } from "./avr/toolchain";
import { filesOf, sameInPython, sameInSketch } from "./same";

const FORTY = "board/rp2040-forty";
const LONG = "board/atmega328p-long";

/** The project that comes of an idea on a board, its first ways taken; null where it does not fit. */
function built(text: string, board: string) {
  const { wishes, hints } = readIdea(text);
  const p = emptyProject("x");
  const offers = offersFor(
    wishes.map((w) => w.thing),
    p,
    catalogue,
    hints,
  );
  const choices = offers.map((o) => ({
    thing: o.thing,
    way: o.ways[0]!.id,
    ...choiceOf(wishes.find((w) => w.thing === o.thing)),
  }));
  const b = buildIdea(p, catalogue, { choices, hints, goal: text, board });
  return b.clash ? null : { c: circuitOf(b.project, catalogue), does: b.does };
}

/** Radios, serial parts and a board's own page have proofs of their own; their lines are not in what is compared here. */
const APART = new Set(["wifi", "radio", "far", "speech", "position", "dust", "heart"]);
/**
 * One-wire parts answer in a proof of their own, a large glass takes longer to fill than is waited for here, and many readings leave
 * no room in a line for the seconds that are compared.
 */
const OWN = /ds18b20|dht22|st7789|st7735|ili9341|mpu6050|adxl345|joystick/;
/** Two parts on one SPI bus are heard apart in the sketch's proof only. */
const onSpi = (c: Circuit) =>
  [...c.netlist.expanded.instances.values()].filter((i) => !i.part.board && i.part.groups.some((g) => g.kind === "spi"))
    .length;
const SAID = PHRASINGS.filter(([text]) => {
  const r = readIdea(text);
  return r.wishes.length > 1 && !r.wishes.some((w) => APART.has(w.thing));
}).map(([text]) => text);
const every = (n: number, from: number) =>
  SAID.filter((_, i) => (process.env.ALL ? i % 6 === from % 6 : i % n === from));

describe("an idea's program in MicroPython does what the interpreter does", () => {
  it.each(every(60, 7))("%s", async (text) => {
    const b = built(text, FORTY);
    expect(b).not.toBeNull();
    if (!b!.c.project.parts.some((p) => OWN.test(p.part)) && onSpi(b!.c) < 2) await sameInPython(b!.c);
  });
});

describe("an idea's sketch, run in simavr, does what the interpreter does", () => {
  let exe = "";
  beforeAll(() => {
    coreArchive();
    exe = benchProgram();
  }, 240_000);
  it.each(every(80, 11))(
    "%s",
    async (text) => {
      const b = built(text, LONG);
      if (b && !b.c.project.parts.some((p) => OWN.test(p.part)))
        await sameInSketch(b.c, `idea-${SAID.indexOf(text)}`, exe);
    },
    60_000,
  );
});

describe("an idea's sketch compiles", () => {
  it.each(every(40, 3))("%s", (text) => {
    const b = built(text, LONG);
    if (b)
      checkSketch(`idea-c-${SAID.indexOf(text)}`, [...filesOf(b.c, sketch.files(b.c), "B1")], "starter", "atmega328p");
  });
});
