import { beforeAll, describe, expect, it } from "vitest";
import { MODELS } from "../src/core/bench/models";
import type { As, BusPart, Model, World } from "../src/core/bench/models/types";
import { circuitOf, type Circuit } from "../src/core/circuit";
import { DEVICES, wired } from "../src/core/firmware/devices";
import { machineOf } from "../src/core/firmware/devices/run";
import type { Device } from "../src/core/firmware/devices/types";
import { driverParts } from "../src/core/firmware/pins";
import { micropython } from "../src/core/firmware/targets/micropython";
import { sketch } from "../src/core/firmware/targets/sketch";
import { findPin } from "../src/core/parts/catalogue";
import { assign } from "../src/core/plan/assign";
import { BOARD3, BOARD5, catalogue, make, USB } from "../src/core/testing";
import { benchProgram, compileSketch, coreArchive, simulateWith } from "./avr/toolchain";
import { runOnHost } from "./host/compile";
import { runProgram, type OnLines } from "./micropython/run";
import { linesOf, onSerial, onTwoWires, wirePart } from "./parts";
import { goalOf, PULSE_DEG } from "./parts/goal";
import { Lines } from "./parts/lines";

interface Planned {
  c: Circuit;
  device: Device;
  as: As;
}

/** One part on a board, its levels seen to, and the device that it is worked by there. */
function planned(board: object, id: string, target: string): Planned {
  const a = assign(make([board as never, USB, { ref: "M1", part: id, label: "Part" }]), catalogue);
  const c = circuitOf(a.project, catalogue);
  const p = driverParts(c, "B1", target, (b) => b).find((x) => x.inst.ref === "M1")!;
  return { c, device: DEVICES.find((d) => d.id === id)!.of(p), as: { chain: p.chain, options: p.options } };
}

/** What the device reads in a world by the interpreter: whole numbers, as every program must print them. */
function expected({ device: d, as }: Planned, m: Model, w: World): string {
  const machine = machineOf(d, m.make(w, as));
  for (let now = 0; !machine.fresh && now < 20_000; now += Math.max(1, machine.turn(now)));
  const inRoom = d.out.every((q) => machine.out.get(q.name)! >= q.room[0] && machine.out.get(q.name)! <= q.room[1]);
  const judged = inRoom ? (d.proof ? "info" : "ok") : "fail";
  return `YL1 sensor M1 fresh=1 ${d.out.map((q) => `${q.name}=${machine.out.get(q.name)}`).join(" ")} ${judged}`;
}

const i2cAddress = (c: Circuit) => {
  const a = c.netlist.instance("M1")!.part.groups.find((g) => g.kind === "i2c")?.address;
  return a === undefined ? null : parseInt(a, 16);
};
const sensorLine = (lines: readonly string[]) => lines.find((l) => l.startsWith("YL1 sensor M1"));
/** Everything that a part did, in the order of doing. */
function recorded(part: BusPart): { part: BusPart; did: World[] } {
  const did: World[] = [];
  const note = (now: number) => {
    const is = part.is?.(now);
    if (is && JSON.stringify(did.at(-1)) !== JSON.stringify(is)) did.push(is);
  };
  const more: Partial<BusPart> = {
    write: (b, now) => {
      const ok = part.write(b, now);
      note(now);
      return ok;
    },
    pin: (l, v, now) => {
      part.pin?.(l, v, now);
      note(now);
    },
    ...(part.spi && {
      spi: {
        reply: (h, now) => part.spi!.reply(h, now),
        end: (h, now) => {
          part.spi!.end(h, now);
          note(now);
        },
      },
    }),
  };
  return { part: { ...part, ...more }, did };
}

/** Whether what it was told in bring-up was done, each after the other. */
function missed(d: Device, m: Model, as: As, did: readonly World[]): number[] {
  const show = d.proof?.kind === "seen" ? d.proof.show : [];
  let k = 0;
  return show.filter((want) => {
    const { let_out: _, ...goal } = goalOf(m, as, d, want);
    const at = did.findIndex(
      (is, i) =>
        i >= k &&
        Object.entries(goal).every(
          ([q, v]) => Math.abs(is[q]! - v) <= Math.max(m.within[q] ?? 0, q === "angle_deg" ? PULSE_DEG : 0) + 1e-9,
        ),
    );
    if (at < 0) return true;
    k = at;
    return false;
  });
}
/** All worlds are tried with the interpreter: a program that differs from it differs in the first too; half of them get two. */
const some = (m: Model) => (process.env.ALL ? m.worlds : m.worlds.slice(0, 1 + (MODELS.indexOf(m) % 2)));
/** Whether all outputs are wired: an enable that is left to its jumper is not the program's. */
const whole = (x: Planned) =>
  x.device.over?.kind !== "pins" || (x.device.over.out ?? []).every((o) => linesOf(x.c, "M1").has(o.pin));
/** Glasses of so many dots that clocking them bit by bit takes minutes: their program is that of a smaller one with other numbers. */
const LARGE = new Set(["module/st7735", "module/st7789", "module/ili9341"]);
const CASES = MODELS.filter((m) => process.env.ALL || !LARGE.has(m.part)).map((m) => [m.part, m] as const);
const ON_PORTS = new Set(DEVICES.flatMap((d) => (d.of(wired(d.cases[0]!)).over?.kind === "uart" ? [d.id] : [])));
const DONE = "YL1 done parts=1 proven=1 failed=0 unproven=0 ok";

/** The part on the pins of the board, by number. */
function onLines(x: Planned, part: BusPart): OnLines | undefined {
  const wires = wirePart(x.c, "M1", x.device, part, x.as.chain ?? 1);
  const asked = x.device.over?.kind === "uart" || x.device.over?.kind === "i2s";
  if (!wires) return asked ? { part, at: new Map() } : undefined;
  const board = x.c.netlist.instance("B1")!.part;
  const at = new Map([...linesOf(x.c, "M1")].map(([line, pin]) => [findPin(board, pin)!.gpio!, line] as const));
  return { lines: new Lines(wires), part, at };
}

describe("devices in MicroPython, against the bench's models", () => {
  it.each(CASES)("%s", async (id, m) => {
    const x = planned(BOARD3, id, "micropython");
    const files = micropython.files(x.c);
    const address = i2cAddress(x.c);
    const run = (program: string, ms: number, w: World, typed = "", part = m.make(w, x.as)) =>
      runProgram(
        files,
        program,
        `clock.END[0] = ${ms}\nclock.STDIN.typed = [${typed}]`,
        address === null ? new Map() : new Map([[address, part]]),
        onLines(x, part),
      );
    if (m.wants && x.device.takes) {
      const { part, did } = recorded(m.make({}, x.as));
      const careful = x.device.proof?.kind === "seen" && x.device.proof.careful;
      const slow = 3 * (x.device.proof?.kind === "seen" ? (x.device.proof.ms ?? 0) : 0);
      const typed = careful ? '(3000, "1"), (3001, "\\n"), (11000, "y")' : `(${9000 + slow}, "y")`;
      const r = await run("bringup.py", 14_000 + slow, {}, typed, part);
      expect(r.lines.filter((l) => l.startsWith("YL1 act M1 told")).at(-1)).toMatch(/fresh=1 info$/);
      if (whole(x)) expect(missed(x.device, m, x.as, did)).toEqual([]);
      expect(r.lines.filter((l) => l.startsWith("YL1 done")).at(-1)).toBe(DONE);
      return;
    }
    for (const w of some(m)) {
      const r = await run("bringup.py", x.device.proof ? 2500 : 30_000, w);
      expect(sensorLine(r.lines), JSON.stringify(w)).toBe(expected(x, m, w));
      if (!x.device.proof && expected(x, m, w).endsWith("ok"))
        expect(r.lines.filter((l) => l.startsWith("YL1 done"))).toEqual([DONE]);
    }
    // The starter shows it on its line, again and again.
    const r = await run("main.py", x.device.proof ? 7000 : 14_000, m.worlds[0]!);
    const said = r.lines.filter((l) => l.includes("running"));
    expect(said.length).toBeGreaterThan(4);
    expect(said.at(-1)).not.toContain("--");
  });
});

describe("devices in C++, run in simavr against the bench's models", () => {
  let bench = "";
  beforeAll(() => {
    coreArchive();
    bench = benchProgram();
  }, 240_000);
  // A serial port of its own has none of the boards that are simulated here: see below.
  const HAS_PORT = CASES.filter(
    ([id]) => !ON_PORTS.has(id) && !catalogue.get(id)!.groups.some((g) => g.kind === "i2s"),
  );
  it.each(HAS_PORT.filter((_, i) => process.env.ALL || i % 3 !== 1))("%s", async (id, m) => {
    const x = planned(BOARD5, id, "sketch");
    const files = sketch.files(x.c);
    const { elf } = compileSketch(`device-${id.replace("/", "-")}`, files, "bringup");
    const address = i2cAddress(x.c);
    const lines = (part: BusPart) => {
      const wires = wirePart(x.c, "M1", x.device, part, x.as.chain ?? 1);
      return wires ? { part: wires, at: linesOf(x.c, "M1") } : undefined;
    };
    const run = (seconds: number, part: BusPart, until: string, keys: string[] = []) =>
      simulateWith(
        bench,
        elf,
        seconds,
        address === null ? new Map() : new Map([[address, part]]),
        until,
        lines(part),
        keys,
      );
    if (m.wants && x.device.takes) {
      const { part, did } = recorded(m.make({}, x.as));
      const careful = x.device.proof?.kind === "seen" && x.device.proof.careful;
      const r = await run(
        x.device.proof?.kind === "seen" && x.device.proof.ms ? 16 : 9,
        part,
        "YL1 act M1 told",
        careful ? ["key:1500:1", "key:1600:~"] : [],
      );
      expect(r.lines.find((l) => l.startsWith("YL1 act M1 told"))).toMatch(/fresh=1 info$/);
      // Shares and tones come out of the chip's timers, which say nothing of it here.
      const outs = x.device.over?.kind === "pins" ? (x.device.over.out ?? []) : [];
      if (whole(x) && !outs.some((o) => o.as === "duty" || o.as === "tone"))
        expect(missed(x.device, m, x.as, did)).toEqual([]);
    } else
      for (const w of some(m)) {
        const r = await run(7.5, m.make(w, x.as), "YL1 done");
        expect(sensorLine(r.lines), JSON.stringify(w)).toBe(expected(x, m, w));
        if (!x.device.proof && expected(x, m, w).endsWith("ok")) expect(r.lines).toContain(DONE);
      }
    // Every starter is compiled elsewhere too: one in three here, for its size.
    if (CASES.findIndex(([x2]) => x2 === id) % 3 === 0)
      expect(compileSketch(`device-${id.replace("/", "-")}`, files, "starter").ram).toBeLessThan(1100);
  });
});

/** What a part says once it has heard everything that its world has in store. */
const saysAll = (x: Planned, w: World) => x.device.out.map((q) => `${q.word} ${w[q.name]}`).join(" ");
/** Parts that are heard as time goes on: what they say at the end of it, by the starter. */
const LISTENS = MODELS.filter((m) => {
  const over = DEVICES.find((d) => d.id === m.part)!.of(wired({})).over;
  return !m.wants && (over?.kind === "infrared" || (over?.kind === "uart" && over.frame === "any"));
}).map((m) => [m.part, m] as const);
describe("what comes from others, as time goes on", () => {
  it.each(LISTENS)("%s in MicroPython", async (id, m) => {
    const x = planned(BOARD3, id, "micropython");
    for (const w of m.worlds) {
      const part = m.make(w, x.as);
      const r = await runProgram(micropython.files(x.c), "main.py", "clock.END[0] = 9000", new Map(), onLines(x, part));
      const said = r.lines.filter((l) => l.includes("running"));
      expect(said.at(-1), JSON.stringify(w)).toContain(saysAll(x, w));
      expect(said[0]).not.toContain(saysAll(x, w));
    }
  });
  it("a remote control in simavr", async () => {
    const m = MODELS.find((k) => k.part === "module/ir-receiver-38k")!;
    const x = planned(BOARD5, m.part, "sketch");
    const { elf } = compileSketch("remote", sketch.files(x.c), "starter");
    const exe = benchProgram();
    for (const w of m.worlds) {
      const lines = { part: wirePart(x.c, "M1", x.device, m.make(w, x.as), 1)!, at: linesOf(x.c, "M1") };
      const r = await simulateWith(exe, elf, 5, new Map(), undefined, lines);
      const said = r.lines.filter((l) => l.includes("running"));
      expect(said.at(-1), JSON.stringify(w)).toContain(saysAll(x, w).slice(0, 21));
    }
  });
});

const ON_HOST = [
  "board/atmega2560-long",
  "board/rp2040-forty",
  "board/esp32-thirtyeight",
  "board/stm32f411-forty",
  "board/nrf52840-compact",
];
/** A part that only listens counts what comes; one that is told something sends what its model takes for it. */
function heardOnHost(x: Planned, files: ReturnType<typeof sketch.files>, family: string) {
  const m = MODELS.find((k) => k.part === x.device.id)!;
  if (!m.wants) {
    // What hears itself needs its pair: see MicroPython.
    if (x.device.begin.length) return;
    expect(sensorLine(runOnHost(files, "bringup", 1, "", [7, 200, 65], family))).toBe(
      "YL1 sensor M1 fresh=1 heard=3 letter=65 info",
    );
    return;
  }
  const { part, did } = recorded(m.make({}, x.as));
  const sent = runOnHost(files, "bringup", 1, "", [], family).filter((l) => l.startsWith("SENT "));
  for (const [i, l] of sent.entries())
    part.write(
      l
        .split(" ")
        .slice(2)
        .map((b) => parseInt(b, 16)),
      3000 + 1000 * i,
    );
  expect(missed(x.device, m, x.as, did)).toEqual([]);
}

describe("devices on a serial port in C++, run on this machine", () => {
  it.each(CASES.filter(([id]) => ON_PORTS.has(id)))("%s", (id, m) => {
    for (const board of ON_HOST) {
      const x = planned({ ref: "B1", part: board }, id, "sketch");
      const files = sketch.files(x.c);
      const family = catalogue.get(board)!.board!.family;
      const over = x.device.over!;
      if (over.kind === "uart" && over.frame === "any") {
        heardOnHost(x, files, family);
        continue;
      }
      for (const w of m.worlds) {
        // Some bytes of the end of a frame come first, as when a program begins in the middle of one.
        const part = m.make(w, x.as);
        const question = x.device.read[0]!;
        if (question.do === "write") part.write(question.bytes as number[], 0);
        const raw = part.serial!(5000);
        const lines = runOnHost(files, "bringup", 1, "", [...raw.slice(-3), ...raw], family);
        expect(sensorLine(lines), `${board} ${JSON.stringify(w)}`).toBe(expected(x, m, w));
        if (question.do === "write")
          expect(
            lines.some(
              (l) =>
                l.startsWith("SENT ") &&
                l.endsWith((question.bytes as number[]).map((b) => b.toString(16).padStart(2, "0")).join(" ")),
            ),
          ).toBe(true);
      }
    }
  });
});

describe("serial ports that the program times, in simavr", () => {
  /** The part's port in software: on plain pins, never the console's. */
  function inSoftware(id: string): Planned {
    const group = catalogue.get(id)!.groups.find((g) => g.kind === "uart")!.id;
    const slow = catalogue.get(id)!.options.some((o) => o.key === "baud") && { options: { baud: 9600 } };
    const part = { ref: "M1", part: id, label: "Part", software: [group], ...slow };
    const a = assign(make([BOARD5, { ref: "S1", part: "supply/adapter-5v-2a" }, part]), catalogue);
    const c = circuitOf(a.project, catalogue);
    const p = driverParts(c, "B1", "sketch", (b) => b).find((x) => x.inst.ref === "M1")!;
    expect(p.port).toBeUndefined();
    return { c, device: DEVICES.find((d) => d.id === id)!.of(p), as: { chain: 1, options: p.options } };
  }
  const baudOf = (x: Planned) => Number(x.as.options?.baud ?? 9600);
  function onPort(x: Planned, part: BusPart) {
    const { pins } = x.c.netlist.instance("M1")!.part.groups.find((g) => g.kind === "uart")!;
    const at = linesOf(x.c, "M1");
    // The board's rx hears what the part says.
    const says = pins.rx && at.has(pins.rx) ? pins.rx : undefined;
    const hears = pins.tx && at.has(pins.tx) ? pins.tx : undefined;
    return { part: onSerial(part, { ...(says && { says }), ...(hears && { hears }) }, baudOf(x)), at };
  }
  // The adapters are heard as HC-05 is.
  const ALIKE = new Set(process.env.ALL ? [] : ["module/usb-uart-3v3", "module/usb-uart-5v"]);
  const PORTS = CASES.filter(
    ([id]) =>
      ON_PORTS.has(id) &&
      !ALIKE.has(id) &&
      id !== "module/max3485" &&
      id !== "module/max485" &&
      id !== "module/mp3-player",
  );
  it.each(PORTS)("%s", async (id, m) => {
    const x = inSoftware(id);
    const bench = benchProgram();
    const files = sketch.files(x.c);
    const over = x.device.over!;
    const listens = over.kind === "uart" && over.frame === "any";
    const program = listens ? "starter" : "bringup";
    const { elf } = compileSketch(`soft-${id.replace("/", "-")}`, files, program);
    for (const w of some(m)) {
      const part = m.make(w, x.as);
      if (listens) {
        const r = await simulateWith(bench, elf, 6, new Map(), undefined, onPort(x, part));
        expect(r.lines.filter((l) => l.includes("running")).at(-1), JSON.stringify(w)).toContain(
          saysAll(x, w).slice(0, 21),
        );
      } else {
        const r = await simulateWith(bench, elf, 7.5, new Map(), "YL1 done", onPort(x, part));
        expect(sensorLine(r.lines), JSON.stringify(w)).toBe(expected(x, m, w));
      }
    }
  });
});

describe("two-wire buses that the program times, in simavr", () => {
  const BUS = CASES.filter(([id]) => catalogue.get(id)!.groups.some((g) => g.kind === "i2c"));
  /** By turns here, all of them in the whole set. */
  const SOME = BUS.filter((_, i) => process.env.ALL || i % 4 === 0);
  it.each(SOME)("%s", async (id, m) => {
    const g = catalogue.get(id)!.groups.find((x) => x.kind === "i2c")!;
    const part = { ref: "M1", part: id, label: "Part", software: [g.id] };
    const links = [
      { from: `M1.${g.pins.sda}`, to: "B1.D7", locked: true },
      { from: `M1.${g.pins.scl}`, to: "B1.D8", locked: true },
    ];
    const a = assign(make([BOARD5, USB, part], [], { links }), catalogue);
    const c = circuitOf(a.project, catalogue);
    const p = driverParts(c, "B1", "sketch", (b) => b).find((x) => x.inst.ref === "M1")!;
    expect(p.soft && !p.bus).toBe(true);
    const x: Planned = { c, device: DEVICES.find((d) => d.id === id)!.of(p), as: { chain: 1, options: p.options } };
    const files = sketch.files(c);
    const { elf } = compileSketch(`two-wire-${id.replace("/", "-")}`, files, "bringup");
    const bench = benchProgram();
    const at = new Map([...linesOf(c, "M1")].filter(([l]) => l === g.pins.sda || l === g.pins.scl));
    const on = (q: BusPart) => ({ part: onTwoWires(q, i2cAddress(c)!, g.pins.sda!, g.pins.scl!), at });
    const told = m.wants !== undefined && x.device.takes !== undefined;
    for (const w of told ? [{}] : some(m)) {
      const r = await simulateWith(bench, elf, 12, new Map(), told ? "YL1 act M1" : "YL1 done", on(m.make(w, x.as)));
      if (told) expect(r.lines.find((l) => l.startsWith("YL1 act M1"))).toMatch(/(fresh=1|rests) info$/);
      else expect(sensorLine(r.lines), JSON.stringify(w)).toBe(expected(x, m, w));
    }
  });
});
