import fs from "node:fs";
import path from "node:path";
import { assign, isPlanned } from "../src/core/plan/assign";
import { circuitOf } from "../src/core/circuit";
import { printPlan } from "../src/core/formats/pdf";
import { catalogue, make } from "../src/core/testing";
import { loom, propose } from "../src/core/build";
import { layOutHere } from "../src/core/build/loom/elk";

const font = (weight: number) =>
  new Uint8Array(
    fs.readFileSync(
      path.resolve(
        import.meta.dirname,
        `../node_modules/@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-${weight}-normal.woff`,
      ),
    ),
  );
const MODULES = [
  "bme280",
  "ssd1306-i2c",
  "ds3231",
  "sd-3v3",
  "hc05",
  "hc-sr04",
  "pir",
  "ir-receiver-38k",
  "button-module",
];
/** Parts of which a board takes several. */
const AGAIN = ["pir", "hc-sr04", "encoder", "soil-capacitive"];

function project(board: string, modules: number, loose: number) {
  const all = Array.from({ length: modules }, (_, i) => ({
    ref: `M${i + 1}`,
    part: `module/${MODULES[i] ?? AGAIN[i % AGAIN.length]}`,
  }));
  const leds = Array.from({ length: loose }, (_, i) => ({ ref: `D${i + 1}`, part: "discrete/led-red" }));
  const plan = assign(
    make([{ ref: "B1", part: board }, { ref: "S1", part: "supply/usb-charger" }, ...all, ...leds]),
    catalogue,
  );
  if (!isPlanned(plan)) throw new Error(plan.clash ?? "not planned");
  return plan.project;
}

async function median(runs: number, work: () => unknown): Promise<string> {
  await work();
  const times: number[] = [];
  for (let i = 0; i < runs; i++) {
    const t = performance.now();
    await work();
    times.push(performance.now() - t);
  }
  times.sort((a, b) => a - b);
  return `${times[runs >> 1]!.toFixed(0)} ms (worst ${times.at(-1)!.toFixed(0)})`;
}

/** Rows of the bench: the loom, the placement on breadboards, the printed plan. */
export async function wiringRows(row: (what: string, reach: string, got: string) => void): Promise<void> {
  const big = project("board/atmega2560-long", 25, 0);
  const drawn = await loom(circuitOf({ ...big }, catalogue), layOutHere);
  row(
    `loom of 25 modules: ${drawn.boxes.length} boxes, ${drawn.crossings} crossings`,
    "< 500 ms",
    await median(7, () => loom(circuitOf({ ...big }, catalogue), layOutHere)),
  );
  const fifteen = project("board/rp2040-forty", 9, 5);
  const c = circuitOf(fifteen, catalogue);
  const placed = propose(c);
  row(
    `placement of 15 parts: ${placed.parts.length} with loose ones, ${placed.sizes.join("+")} points`,
    "< 1 s",
    await median(5, () => propose(circuitOf({ ...fifteen }, catalogue))),
  );
  const fonts = { text: font(400), bold: font(700) };
  const built = { ...fifteen, breadboard: { boards: placed.sizes, at: placed.spots } };
  row(
    "printed plan (PDF) of the same",
    "< 1 s",
    await median(5, () => printPlan(circuitOf({ ...built }, catalogue), fonts)),
  );
}
