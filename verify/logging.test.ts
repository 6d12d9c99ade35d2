import { beforeAll, describe, expect, it } from "vitest";
import { MODELS } from "../src/core/bench/models";
import { circuitOf, type Circuit } from "../src/core/circuit";
import { DEVICES, wired } from "../src/core/firmware/devices";
import { micropython } from "../src/core/firmware/targets/micropython";
import { sketch } from "../src/core/firmware/targets/sketch";
import { findPin } from "../src/core/parts/catalogue";
import { assign } from "../src/core/plan/assign";
import type { Rule } from "../src/core/project";
import { BOARD3, BOARD5, catalogue, make, USB } from "../src/core/testing";
import { benchProgram, compileSketch, coreArchive, simulateWith } from "./avr/toolchain";
import { runProgram } from "./micropython/run";
import { linesOf, wirePart } from "./parts";
import { makeCard, readCard } from "./parts/fat";
import { Lines } from "./parts/lines";
import { together } from "./parts/together";

const RULES: Rule[] = [{ when: { every_s: 1 }, do: { ref: "M2", act: "log" } }];
const planned = (board: object, card: string): Circuit => {
  const parts = [
    { ref: "M1", part: "module/bh1750", label: "Light" },
    { ref: "M2", part: card, label: "Card" },
  ];
  const a = assign(make([board as never, USB, ...parts]), catalogue);
  return circuitOf({ ...a.project, rules: RULES }, catalogue);
};
const MODEL = MODELS.find((m) => m.part === "module/bh1750")!;
const cardPart = (id: string, kind: number, blocks: Map<number, Uint8Array>) =>
  MODELS.find((m) => m.part === id)!.make({ card: kind }, { chain: 1, blocks });
const deviceOf = (id: string) => DEVICES.find((d) => d.id === id)!.of(wired({}));
/** What a line of the log may be: seconds, and the light, where it was read already. */
const LINE = /^\d+,\d*$/;
const HEAD = "s,Light lux lx";
/** Nearly two clusters, so that lines go on in another one. */
const OLD = `${"old line of another day\r\n".repeat(40)}`;

describe("lines at the end of a card's file", () => {
  let exe = "";
  beforeAll(() => {
    coreArchive();
    exe = benchProgram();
  }, 240_000);
  const inSim = async (kind: number, blocks: Map<number, Uint8Array>, seconds: number) => {
    const c = planned(BOARD5, "module/sd-shifted");
    const { elf } = compileSketch("logging", sketch.files(c), "starter");
    const card = cardPart("module/sd-shifted", kind, blocks);
    const wires = new Map([["M2", wirePart(c, "M2", deviceOf("module/sd-shifted"), card, 1)!]]);
    const at = new Map([...linesOf(c, "M2")].map(([l, pin]) => [`M2.${l}`, pin] as const));
    const bus = new Map([[0x23, MODEL.make(MODEL.worlds[0]!, {})]]);
    return simulateWith(exe, elf, seconds, bus, undefined, { part: together(wires), at });
  };
  it("in C++, on a small card with a table of partitions, into a new file", async () => {
    const blocks = makeCard({
      wide: false,
      partition: true,
      files: [{ name: "NOTES.TXT", text: "hello", clusters: [2] }],
    });
    const r = await inSim(1, blocks, 4.6);
    const files = readCard(blocks);
    expect(files.get("NOTES.TXT")).toBe("hello");
    const lines = files.get("LOG.CSV")!.split("\r\n");
    expect(lines[0]).toBe(HEAD);
    expect(lines.at(-1)).toBe("");
    expect(lines.slice(1, -1).length).toBeGreaterThanOrEqual(3);
    for (const l of lines.slice(1, -1)) expect(l).toMatch(LINE);
    // The console says the same.
    expect(r.lines.filter((l) => l.startsWith("log ")).map((l) => l.slice(4))).toEqual(lines.slice(1, -1));
  }, 120_000);
  it("in C++, on a large card, behind what stands there, in clusters that are free", async () => {
    const blocks = makeCard({
      wide: true,
      partition: false,
      files: [
        { name: "NOTES.TXT", text: "x".repeat(700), clusters: [3, 6] },
        { name: "LOG.CSV", text: OLD, clusters: [5, 4] },
      ],
    });
    await inSim(2, blocks, 4.6);
    const files = readCard(blocks);
    expect(files.get("NOTES.TXT")).toBe("x".repeat(700));
    const text = files.get("LOG.CSV")!;
    expect(text.startsWith(`${OLD}${HEAD}\r\n`)).toBe(true);
    expect(text.slice(OLD.length).split("\r\n").length).toBeGreaterThanOrEqual(4);
  }, 120_000);
  it("in C++, without a card: each line says that it is not there, and the rest goes on", async () => {
    const c = planned(BOARD5, "module/sd-shifted");
    const { elf } = compileSketch("logging", sketch.files(c), "starter");
    const bus = new Map([[0x23, MODEL.make(MODEL.worlds[0]!, {})]]);
    const r = await simulateWith(exe, elf, 4.5, bus);
    expect(r.lines.filter((l) => /^not on the card: \d+,\d*$/.test(l)).length).toBeGreaterThanOrEqual(3);
    expect(r.lines.some((l) => /lx .*running 3 s$/.test(l))).toBe(true);
  }, 60_000);
  it.each([1, 2])(
    "in MicroPython, on a card of kind %i: blocks go there and back, and lines into the file",
    async (kind) => {
      const c = planned(BOARD3, "module/sd-3v3");
      const blocks = new Map([[7, Uint8Array.from({ length: 512 }, (_, i) => (i * 7) & 255)]]);
      const card = cardPart("module/sd-3v3", kind, blocks);
      const wires = wirePart(c, "M2", deviceOf("module/sd-3v3"), card, 1)!;
      const board = c.netlist.instance("B1")!.part;
      const at = new Map([...linesOf(c, "M2")].map(([l, pin]) => [findPin(board, pin)!.gpio!, l]));
      // The port that runs here knows no FAT: what it would mount is tried as blocks, the file is the port's own.
      const world = `
import os
os.mkdir("/log")
def mount(blocks, path):
    buf = bytearray(1024)
    blocks.readblocks(7, buf)
    print("READ", sum(buf[:512]), sum(buf[512:]))
    blocks.writeblocks(9, bytes(range(256)) * 4)
    print("SIZE", blocks.ioctl(4, 0), blocks.ioctl(5, 0), path)
os.mount = mount
clock.END[0] = 4500`;
      const bus = new Map([[0x23, MODEL.make(MODEL.worlds[0]!, {})]]);
      const r = await runProgram(micropython.files(c), "main.py", `${world}`, bus, {
        lines: new Lines(wires),
        part: card,
        at,
      });
      const sum = Array.from({ length: 512 }, (_, i) => (i * 7) & 255).reduce((a, b) => a + b);
      expect(r.lines).toContain(`READ ${sum} 0`);
      expect(r.lines).toContain("SIZE 131072 512 /log");
      for (const n of [9, 10]) expect([...blocks.get(n)!]).toEqual(Array.from({ length: 512 }, (_, i) => i & 255));
      const logged = r.lines.filter((l) => l.startsWith("log "));
      expect(logged.length).toBeGreaterThanOrEqual(2);
      for (const l of logged) expect(l.slice(4)).toMatch(LINE);
    },
  );
});
