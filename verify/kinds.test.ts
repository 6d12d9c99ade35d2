import { describe, expect, it } from "vitest";
import { circuitOf } from "../src/core/circuit";
import { DEVICES } from "../src/core/firmware/devices";
import { driverOf, leftOut } from "../src/core/firmware/drivers";
import { driverParts } from "../src/core/firmware/pins";
import { sketch } from "../src/core/firmware/targets/sketch";
import { assign } from "../src/core/plan/assign";
import { catalogue, make, USB } from "../src/core/testing";
import { checkSketch } from "./avr/toolchain";
import { checkOnHost } from "./host/compile";

/** One board of every family that takes sketches. */
const BOARDS = [
  ["board/atmega2560-long", "atmega2560"],
  ["board/atmega32u4-compact", "atmega32u4"],
  ["board/rp2040-forty", null],
  ["board/esp32-thirtyeight", null],
  ["board/esp8266-mini", null],
  ["board/stm32f411-forty", null],
  ["board/samd21-compact", null],
  ["board/nrf52840-compact", null],
  ["board/sam3x-long", null],
  ["board/imxrt1062-compact", null],
  ["board/mkl26z64-compact", null],
] as const;
const GROUP = 8;

/** Parts in groups that the board's pins are enough for: one that does not fit any more begins the next group. */
function groups(
  board: string,
  devices: readonly { id: string }[],
): { ids: string[]; circuit: ReturnType<typeof circuitOf> }[] {
  const out: { ids: string[]; circuit: ReturnType<typeof circuitOf> }[] = [];
  const plan = (ids: readonly string[]) => {
    const parts = ids.map((part, i) => ({ ref: `M${i + 1}`, part, label: `Part ${i + 1}` }));
    const a = assign(make([{ ref: "B1", part: board }, USB, ...parts]), catalogue);
    return a.status === "infeasible" ? null : circuitOf(a.project, catalogue);
  };
  let ids: string[] = [];
  let last: ReturnType<typeof circuitOf> | null = null;
  const close = () => {
    if (last) out.push({ ids, circuit: last });
    ids = [];
    last = null;
  };
  for (const { id } of devices) {
    let next = plan([...ids, id]);
    if (!next || ids.length === GROUP) {
      close();
      next = plan([id]);
    }
    if (!next) continue;
    ids = [...ids, id];
    last = next;
  }
  close();
  return out;
}

describe("every device on every family of boards", () => {
  // All of them where the packaged core compiles them; by turns a third of them on the other families, all in `verify:all`.
  it.each(BOARDS.map((b, at) => [...b, at] as const))("%s", (board, mcu, at) => {
    const whole = mcu !== null || Boolean(process.env.ALL);
    const devices = whole ? DEVICES : DEVICES.filter((_, i) => (i + at) % 3 === 0);
    const family = catalogue.get(board)!.board!.family;
    const worked = new Set<string>();
    groups(board, devices).forEach(({ ids, circuit }, i) => {
      const files = sketch.files(circuit);
      const name = `kinds-${family}-${i}`;
      // Both programs of one group in four, by turns; the bring-up of all others.
      const programs = i % 4 === 0 ? (["bringup", "starter"] as const) : (["bringup"] as const);
      for (const p of programs)
        try {
          if (mcu) checkSketch(name, files, p, mcu);
          else checkOnHost(name, files, p, family);
        } catch (e) {
          throw new Error(`${ids.join(", ")}: ${String((e as { stderr?: unknown }).stderr ?? e)}`);
        }
      for (const p of driverParts(circuit, "B1", "sketch", (b) => b))
        if (leftOut(p) === null && driverOf(p) && driverOf(p)!.id === p.inst.part.id) worked.add(p.inst.part.id);
    });
    // What a board leaves out has its reason elsewhere: no pins, no converter, the console's port.
    expect(worked.size, board).toBeGreaterThan(whole ? 60 : 30);
  });
});
