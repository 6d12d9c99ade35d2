import { spawn } from "node:child_process";
import fs from "node:fs";
import path from "node:path";
import readline from "node:readline";
import { describe, expect, it } from "vitest";
import { MODELS } from "../src/core/bench/models";
import type { BusPart } from "../src/core/bench/models/types";
import { stageOf } from "../src/core/bench/stage";
import { circuitOf } from "../src/core/circuit";
import type { FirmwareFile } from "../src/core/firmware";
import { DEVICES } from "../src/core/firmware/devices";
import { gaps } from "../src/core/firmware/gaps";
import { leftOut } from "../src/core/firmware/drivers";
import { driverParts } from "../src/core/firmware/pins";
import { crc8Low, machineOf } from "../src/core/firmware/devices/run";
import { programOf } from "../src/core/firmware/sim";
import { python } from "../src/core/firmware/targets/python";
import { findPin } from "../src/core/parts/catalogue";
import { assign } from "../src/core/plan/assign";
import { catalogue, make } from "../src/core/testing";
import { WORK as FOLDER } from "./work-folder";

const WORK = path.join(FOLDER, "python");
const bytes = (hex: string) => (hex.match(/../g) ?? []).map((x) => parseInt(x, 16));
const hex = (list: readonly number[]) => list.map((b) => b.toString(16).padStart(2, "0")).join("");

/** Runs a program with the system's Python, mock pins, and parts of the bench on its bus. */
function run(
  name: string,
  files: FirmwareFile[],
  program: string,
  ms: number,
  bus: ReadonlyMap<number, BusPart>,
  onPort?: BusPart,
) {
  const dir = path.join(WORK, name);
  for (const f of files) {
    fs.mkdirSync(path.dirname(path.join(dir, f.path)), { recursive: true });
    fs.writeFileSync(path.join(dir, f.path), f.text);
  }
  const child = spawn("/usr/bin/python3", [path.join(import.meta.dirname, "python/run.py"), program, String(ms)], {
    cwd: dir,
  });
  let out = "";
  let err = "";
  child.stdout.setEncoding("utf8").on("data", (t: string) => (out += t));
  readline.createInterface({ input: child.stderr }).on("line", (line) => {
    if (!line.startsWith("?")) return void (err += `${line}\n`);
    const [what, address, now, rest] = line.slice(1).split(" ");
    if (what === "T" || what === "S") {
      const now_ = Number(now);
      if (what === "T") onPort?.write(bytes(rest!), now_);
      child.stdin.write(`${what === "S" ? hex(onPort?.serial?.(now_) ?? []) : ""}\n`);
      return;
    }
    const part = bus.get(Number(address));
    const answer =
      what === "W"
        ? part && (!rest || part.write(bytes(rest), Number(now)))
          ? "1"
          : "0"
        : hex(part?.read(Number(rest), Number(now)) ?? []);
    child.stdin.write(`${answer}\n`);
  });
  child.stdin.on("error", () => undefined);
  return new Promise<string[]>((resolve, reject) => {
    child.on("error", reject);
    child.on("close", (code) => (code === 0 ? resolve(out.trim().split("\n")) : reject(new Error(err))));
  });
}

const planned = (parts: object[]) =>
  circuitOf(
    assign(make([{ ref: "B1", part: "board/linux-forty" }, ...(parts as never[])]), catalogue).project,
    catalogue,
  );

describe("Python on the board with the forty-pin header", () => {
  it("opens exactly the planned pins, lights and contacts at their levels", async () => {
    const c = planned([
      { ref: "D1", part: "discrete/led-red", label: "Lamp" },
      { ref: "SW1", part: "discrete/button", label: "Go" },
      { ref: "M1", part: "module/relay-1", label: "Pump" },
    ]);
    const gpio = (ref: string) => {
      const b = c.netlist.bindings.find((x) => x.ref === ref)!;
      return findPin(c.netlist.instance("B1")!.part, b.hostPin)!.gpio!;
    };
    const files = python.files(c);
    const up = await run("plain", files, "bringup.py", 20_000, new Map());
    expect(up).toContain("YL1 ask SW1 press it info");
    expect(up).toContain("YL1 done parts=3 proven=0 failed=0 unproven=3 info");
    expect(
      up
        .filter((l) => l.startsWith("PIN"))
        .map((l) => Number(l.split(" ")[1]))
        .sort(),
    ).toEqual([gpio("D1"), gpio("SW1"), gpio("M1")].sort());
    expect(up.find((l) => l.startsWith(`PIN ${gpio("SW1")} `))).toContain("input up");
    expect(up.find((l) => l.startsWith(`PIN ${gpio("D1")} `))).toContain("output");
    const starter = await run("plain", files, "main.py", 5000, new Map());
    expect(starter.filter((l) => l.includes("running"))).toHaveLength(5);
    const changes = Number(
      starter
        .find((l) => l.startsWith(`PIN ${gpio("D1")} `))!
        .split(" ")
        .at(-1),
    );
    expect(changes).toBeGreaterThanOrEqual(10);
  });
  it("a knob on a converter and a servo on a maker of pulses, as if they hung on the board", async () => {
    const links = [
      { from: "M2.2", to: "M1.A2", locked: true },
      { from: "M4.SIG", to: "M3.PWM7", locked: true },
    ];
    const parts = [
      { ref: "S1", part: "supply/adapter-5v-10a" },
      { ref: "M1", part: "module/ads1115" },
      { ref: "M2", part: "discrete/potentiometer", label: "Knob" },
      { ref: "M3", part: "module/pca9685" },
      { ref: "M4", part: "module/servo-small", label: "Arm" },
    ];
    const when = { ref: "M2", out: "pct", above: 50 };
    const { project } = assign(
      make([{ ref: "B1", part: "board/linux-forty" }, ...(parts as never[])], [], { links }),
      catalogue,
    );
    const c = circuitOf({ ...project, rules: [{ when, do: { ref: "M4", act: "set", value: 90 } }] }, catalogue);
    expect(gaps(c)).toEqual([]);
    for (const [volts, on] of [
      [0.8, 0],
      [2.6, 307],
    ] as const) {
      const knob = MODELS.find((m) => m.part === "module/ads1115")!.make(
        { a0_V: 0, a1_V: 0, a2_V: volts, a3_V: 0 },
        {},
      );
      const outs = MODELS.find((m) => m.part === "module/pca9685")!.make({}, { outs: 1 << 7, pulsed: true });
      const bus = new Map([
        [0x48, knob],
        [0x40, outs],
      ]);
      const said = (await run("hung", python.files(c), "main.py", 6000, bus)).filter((l) => l.includes("running"));
      expect(said.at(-1)).toMatch(new RegExp(`turned ${Math.floor((volts / 3.3) * 100)} %`));
      expect(outs.is!(6000).on_7).toBe(on);
      // The interpreter says the same, a knob turned as far.
      const stage = stageOf(c, "B1", "python");
      const sim = programOf(c, "B1", "python", stage);
      stage.set("M2", "pct", (volts / 3.3) * 100, 0);
      sim.run(5900);
      const lines = sim.said.map((s) => s.line).filter((l) => l.includes("running"));
      expect(lines.slice(2, 5)).toEqual(said.slice(2, 5));
    }
  });
  /** Files as the kernel's drivers fill them, in the program's folder. */
  function kernelFiles(name: string, files: Record<string, string>) {
    const root = path.join(WORK, name, "kernel");
    fs.rmSync(root, { recursive: true, force: true });
    for (const [at, text] of Object.entries(files)) {
      fs.mkdirSync(path.dirname(path.join(root, at)), { recursive: true });
      fs.writeFileSync(path.join(root, at), text);
    }
  }
  const probe = (id: string, bytes: string, ok = "YES") => ({
    [`onewire/28-${id}/w1_slave`]: `${bytes} : crc=${bytes.slice(-2)} ${ok}\n${bytes} t=0\n`,
  });
  // 23.125 and -10.125 degrees with the checksums of the data sheet's rule.
  const withSum = (list: number[]) =>
    [...list, crc8Low(list, 0x8c, 0)].map((v) => v.toString(16).padStart(2, "0")).join(" ");
  const WARM = withSum([0x72, 0x01, 0x4b, 0x46, 0x7f, 0xff, 0x0e, 0x10]);
  const COLD = withSum([0x5e, 0xff, 0x4b, 0x46, 0x7f, 0xff, 0x02, 0x10]);
  const PROBE = { ref: "M1", part: "module/ds18b20", label: "Warm" };
  it("probes that the kernel reads: one, two told apart by their codes, none, a wrong sum", async () => {
    const one = planned([PROBE]);
    expect(gaps(one)).toEqual([]);
    const gpio = findPin(
      one.netlist.instance("B1")!.part,
      one.netlist.bindings.find((b) => b.ref === "M1")!.hostPin,
    )!.gpio!;
    const page = python.files(one).find((f) => f.path === "UPLOAD.md")!.text;
    expect(page).toContain(`\`dtoverlay=w1-gpio,gpiopin=${gpio}\``);
    kernelFiles("probe", probe("0000075a2b3c", WARM));
    expect(await run("probe", python.files(one), "bringup.py", 9000, new Map())).toContain(
      "YL1 sensor M1 fresh=1 t_cC=2312 ok",
    );
    for (const files of [
      {},
      probe("0000075a2b3c", WARM.replace("72", "73"), "NO"),
      { ...probe("01", WARM), ...probe("02", COLD) },
    ]) {
      kernelFiles("probe", files);
      const lines = await run("probe", python.files(one), "bringup.py", 9000, new Map());
      expect(lines).toContain("YL1 sensor M1 fresh=0 t_cC=0 fail");
    }
    const two = planned([PROBE, { ref: "M2", part: "module/ds18b20", label: "Cold" }]);
    const pins = new Set(two.netlist.bindings.filter((b) => /^M[12]$/.test(b.ref)).map((b) => b.hostPin));
    expect(pins.size).toBe(1);
    kernelFiles("probes", { ...probe("0000075a2b3c", COLD), ...probe("0000011a2b3d", WARM) });
    const lines = await run("probes", python.files(two), "bringup.py", 12_000, new Map());
    const codes = lines.flatMap((l) => /^YL1 code (M\d) is=(\w+)/.exec(l)?.slice(1, 3).join(" ") ?? []);
    expect(codes).toHaveLength(2);
    // The lowest code first: 3C comes before 3D in the order that goes over the wire.
    expect(codes[0]).toMatch(/^M1 283C2B5A070000/);
    expect(lines).toContain("YL1 sensor M1 fresh=1 t_cC=-1012 ok");
    expect(lines).toContain("YL1 sensor M2 fresh=1 t_cC=2312 ok");
  });
  it("humidity that the kernel reads, below zero too; a wire that does not answer fails", async () => {
    const c = planned([{ ref: "M1", part: "module/dht22", label: "Air" }]);
    expect(gaps(c)).toEqual([]);
    expect(python.files(c).find((f) => f.path === "UPLOAD.md")!.text).toMatch(/`dtoverlay=dht11,gpiopin=\d+`/);
    for (const [rh, t, says] of [
      ["65200", "35100", "t_cC=3510 rh_c=6520 ok"],
      ["40000", "-10100", "t_cC=-1010 rh_c=4000 ok"],
    ] as const) {
      kernelFiles("humid", {
        "dht/iio:device0/name": "other\n",
        "dht/iio:device1/name": "dht11@4\n",
        "dht/iio:device1/in_temp_input": `${t}\n`,
        "dht/iio:device1/in_humidityrelative_input": `${rh}\n`,
      });
      const lines = await run("humid", python.files(c), "bringup.py", 9000, new Map());
      expect(lines).toContain(`YL1 sensor M1 fresh=1 ${says}`);
    }
    kernelFiles("humid", { "dht/iio:device0/name": "other\n" });
    expect((await run("humid", python.files(c), "bringup.py", 9000, new Map())).join("\n")).toContain("fresh=0");
  });
  it("two such wires are told: the kernel does not say which is which", () => {
    const links = [
      { from: "M1.DQ", to: "B1.GPIO4", locked: true },
      { from: "M2.DQ", to: "B1.GPIO17", locked: true },
    ];
    const parts = [{ ref: "B1", part: "board/linux-forty" }, PROBE, { ...PROBE, ref: "M2", label: "Cold" }];
    const c = circuitOf(assign(make(parts as never, [], { links }), catalogue).project, catalogue);
    expect(gaps(c).map((g) => [g.ref, /one such wire/.test(g.why)])).toEqual([
      ["M1", true],
      ["M2", true],
    ]);
  });
  // Whether the driver of MAX3485 is on is heard nowhere here.
  it.each(
    MODELS.filter((m) => m.part !== "module/max3485" && m.part !== "module/max485").map((m) => [m.part, m] as const),
  )("%s, against the bench's model", async (id, m) => {
    const c = planned([{ ref: "M1", part: id, label: "Part" }]);
    const p = driverParts(c, "B1", "python", (b) => b).find((x) => x.inst.ref === "M1");
    // No converter on this board.
    if (!p) return;
    const as = { chain: p.chain, options: p.options };
    const d = DEVICES.find((x) => x.id === id)!.of(p);
    const address = c.netlist.instance("M1")!.part.groups.find((g) => g.kind === "i2c")?.address;
    const why = leftOut(p);
    const [w] = m.worlds;
    const part = m.make(w!, as);
    const bus = new Map(address === undefined ? [] : [[parseInt(address, 16), part]]);
    const overPort = d.over?.kind === "uart";
    const name = id.replace("/", "-");
    if (overPort && typeof d.over === "object" && "frame" in d.over && d.over.frame === "any") {
      const said = (await run(name, python.files(c), "main.py", 9000, bus, part)).filter((l) => l.includes("running"));
      expect(said.at(-1)).toContain(d.out.map((q) => `${q.word} ${w![q.name]}`).join(" "));
      return;
    }
    const lines = await run(name, python.files(c), "bringup.py", 14_000, bus, overPort ? part : undefined);
    expect(lines.some((l) => l.startsWith("YL1 done parts=1"))).toBe(true);
    // What a computer's program leaves out is said, with the reason.
    if (why) expect(lines.join("\n")).toContain(`YL1 open M1 ${why.why} info`);
    if (address === undefined && !overPort) return;
    if (m.wants && d.takes) {
      expect(lines.join("\n")).toMatch(/YL1 act M1 (\S+ )?(rests|told=\S+ fresh=1) info/);
      return;
    }
    const machine = machineOf(d, m.make(w!, as));
    for (let now = 0; !machine.fresh && now < 20_000; now += Math.max(1, machine.turn(now)));
    const want = d.out.map((q) => `${q.name}=${machine.out.get(q.name)}`).join(" ");
    expect(lines.find((l) => l.startsWith("YL1 sensor M1"))).toBe(`YL1 sensor M1 fresh=1 ${want} ok`);
    expect(lines).toContain("YL1 done parts=1 proven=1 failed=0 unproven=0 ok");
  });
});
