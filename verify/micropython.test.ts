import { describe, expect, it } from "vitest";
import { findPin } from "../src/core/parts/catalogue";
import { circuitOf, type Circuit } from "../src/core/circuit";
import { micropython } from "../src/core/firmware/targets/micropython";
import { BOARD3, catalogue, fixed, make, planned, USB } from "../src/core/testing";
import { runProgram, type PythonRun } from "./micropython/run";

const ALL = [
  BOARD3,
  USB,
  { ref: "S2", part: "supply/adapter-5v-2a" },
  { ref: "M1", part: "module/bme280", label: 'Air "x" \\ # é' },
  { ref: "M2", part: "module/ssd1306-i2c", label: "Display" },
  { ref: "M3", part: "module/ws2812b-strip", label: "Light", options: { pixels: 8, brightness: 0.4 } },
  { ref: "M4", part: "module/hc-sr04", label: "Echo" },
  { ref: "SW1", part: "discrete/button", label: "Button" },
  { ref: "D1", part: "discrete/led-red", label: "Lamp" },
];

const gpio = (c: Circuit, ref: string, pin: string) => {
  const b = c.netlist.bindings.find((x) => x.ref === ref && x.pin === pin)!;
  return findPin(c.netlist.instance(b.host)!.part, b.hostPin)!.gpio!;
};

/** Pins that the program really opened. */
const opened = (r: PythonRun) =>
  new Set(r.log.flatMap((e) => (e[0] === "pin" ? [e[1]] : e[0] === "i2c" ? [e[2], e[3]] : [])));

/** What bring-up ends with, before it waits for keys. */
const done = (r: PythonRun) => r.lines.filter((l) => l.startsWith("YL1 done")).at(-1);

const world = (c: Circuit, o: { bme?: boolean } = {}) => `
bme = {0xD0: 0x60}
import struct
trim = struct.pack("<HhhHhhhhhhhh", 27504, 26435, -1000, 36477, -10685, 3024, 2855, 140, -7, 15500, -14600, 6000)
for i, b in enumerate(trim):
    bme[0x88 + i] = b
for i, b in enumerate((0x6A, 0x01, 0, 0x13, 0x20, 0x03, 30)):
    bme[0xE1 + i] = b
bme[0xA1] = 75
p, t, h = 415148, 519888, 28000
for i, b in enumerate((p >> 12, p >> 4 & 255, p << 4 & 255, t >> 12, t >> 4 & 255, t << 4 & 255, h >> 8, h & 255)):
    bme[0xF7 + i] = b
machine.I2C_DEVICES[0x3c] = {}
${o.bme === false ? "" : "machine.I2C_DEVICES[0x76] = bme"}
machine.ECHO_US[${gpio(c, "M4", "ECHO")}] = 2436
`;

describe("MicroPython programs run under the port, and open exactly the planned pins", () => {
  // Echo divided, strip data lifted: the pins that matter are still the plan's.
  const project = fixed(fixed(planned(ALL), "level.overdrive", "divider"), "level.low-high", "buffer");
  const c = circuitOf(project, catalogue);
  const files = micropython.files(c);
  const LIGHT = 25;
  // The plan's pins, and the board's own light.
  const plan = new Set([...c.netlist.bindings.map((b) => gpio(c, b.ref, b.pin)), LIGHT]);

  it("bring-up: every line, every pin", async () => {
    const r = await runProgram(files, "bringup.py", `${world(c)}\nclock.END[0] = 9000`);
    expect(opened(r)).toEqual(plan);
    expect(r.lines).toContain("YL1 scan B1 bus=i2c0 found=0x3c,0x76 want=0x76,0x3c ok");
    expect(r.lines).toContain("YL1 i2c M1 addr=0x76 id=0x60 want=0x60 ok");
    expect(r.lines.find((l) => l.startsWith("YL1 sensor M1"))).toMatch(/t_cC=2508 rh_c=\d+ p_Pa=1006[45]\d ok$/);
    expect(r.lines).toContain("YL1 act M2 told=12345678,-42,0 fresh=1 info");
    expect(r.lines).toContain("YL1 sensor M4 fresh=1 cm=42 ok");
    expect(r.lines.find((l) => l.startsWith("YL1 gpio SW1"))).toMatch(/level=1 want=1 info$/);
    expect(done(r)).toBe("YL1 done parts=6 proven=2 failed=0 unproven=4 info");
    const strip = r.log.filter((e) => e[0] === "bitstream");
    expect(strip).toHaveLength(4);
    // 40 % of 255, and never more.
    expect(Math.max(...strip.map((e) => Number(e[3])))).toBe(102);
    expect(strip.every((e) => e[1] === gpio(c, "M3", "DIN") && e[2] === 24)).toBe(true);
  });

  it("bring-up with the sensor missing fails that line and goes on", async () => {
    const r = await runProgram(files, "bringup.py", `${world(c, { bme: false })}\nclock.END[0] = 9000`);
    expect(r.lines).toContain("YL1 i2c M1 addr=0x76 id=0xff want=0x60 fail");
    expect(done(r)).toBe("YL1 done parts=6 proven=1 failed=1 unproven=4 fail");
  });

  it("a person's answers and a pressed key prove the rest", async () => {
    const press = `machine.LEVELS_AT[${gpio(c, "SW1", "1")}] = [(20_000, 0)]`;
    const r = await runProgram(
      files,
      "bringup.py",
      `${world(c)}\n${press}\nclock.END[0] = 40_000\nclock.STDIN.typed = [(25_000, "y"), (26_000, "n"), (27_000, "y")]`,
    );
    expect(r.lines).toContain("YL1 moved SW1 ok");
    expect(r.lines.filter((l) => l.startsWith("YL1 seen"))).toHaveLength(3);
    expect(done(r)).toBe("YL1 done parts=6 proven=5 failed=1 unproven=0 fail");
  });

  it("an input on which nothing hangs wanders, and proves nothing; one that is moved and stays does", async () => {
    const d = circuitOf(
      planned([
        BOARD3,
        USB,
        { ref: "M1", part: "module/pir", label: "Motion" },
        { ref: "R1", part: "discrete/potentiometer", label: "Knob" },
      ]),
      catalogue,
    );
    const [pir, knob] = [gpio(d, "M1", "OUT"), gpio(d, "R1", "2")];
    const alone = await runProgram(
      micropython.files(d),
      "bringup.py",
      `machine.OPEN = {${pir}, ${knob}}\nclock.END[0] = 20_000`,
    );
    expect(done(alone)).toBe("YL1 done parts=2 proven=0 failed=0 unproven=2 info");
    const moved = `machine.LEVELS_AT[${pir}] = [(5000, 1)]\nclock.END[0] = 20_000`;
    expect(done(await runProgram(micropython.files(d), "bringup.py", moved))).toBe(
      "YL1 done parts=2 proven=1 failed=0 unproven=1 info",
    );
  });

  it("an ESP32 reads up to its whole range", async () => {
    const d = circuitOf(
      planned([{ ref: "B1", part: "board/esp32-thirtyeight" }, USB, { ref: "R1", part: "discrete/potentiometer" }]),
      catalogue,
    );
    const r = await runProgram(micropython.files(d), "bringup.py", "clock.END[0] = 5000");
    expect(r.log.filter((e) => e[0] === "adc")).toEqual([["adc", gpio(d, "R1", "2"), 3]]);
  });

  it("main: a sensor that comes late is taken, and one that is missing stops nothing", async () => {
    const late = `bme = dict(machine.I2C_DEVICES.pop(0x76))\nmachine.LATE[0x76] = (5000, bme)\nclock.END[0] = 9000`;
    const r = await runProgram(files, "main.py", `${world(c)}\n${late}`);
    const said = r.lines.filter((l) => l.includes("running"));
    expect(said[1]).toContain("--");
    expect(said.at(-1)).toContain("25.1 C 47 % 1007 hPa");
    const missing = await runProgram(files, "main.py", world(c, { bme: false }));
    expect(missing.lines.at(-1)).toBe("CLOCK RAN OUT");
  });

  it("main: tasks keep their own time", async () => {
    const r = await runProgram(files, "main.py", world(c));
    expect(r.lines).toContain("CLOCK RAN OUT");
    expect(opened(r)).toEqual(plan);
    const lamp = r.log.filter((e) => e[0] === "toggle" && e[1] === gpio(c, "D1", "A")).length;
    expect(lamp).toBeGreaterThanOrEqual(5);
    expect(lamp).toBeLessThanOrEqual(7);
    expect(r.log.filter((e) => e[0] === "write" && e[1] === 0x3c).length).toBeGreaterThan(100);
  });

  it("keeps the person's own code in its place", async () => {
    const q = make(project.parts, [], { links: project.links, code: { micropython: { globals: 'print("mine")\n' } } });
    const text = micropython.files(circuitOf(q, catalogue)).find((f) => f.path === "main.py")!.text;
    expect(text).toMatch(/^# >>> your code: globals [0-9a-f]{8}\nprint\("mine"\)\n# <<< your code: globals$/m);
    const r = await runProgram(micropython.files(circuitOf(q, catalogue)), "main.py", world(c));
    expect(r.lines).toContain("mine");
  });

  it("two displays on two buses use both controllers", async () => {
    const two = planned([BOARD3, USB, ALL[4]!, { ref: "M9", part: "module/ssd1306-i2c", label: "Other" }]);
    const d = circuitOf(two, catalogue);
    const r = await runProgram(
      micropython.files(d),
      "bringup.py",
      "machine.I2C_DEVICES[0x3c] = {}\nclock.END[0] = 9000",
    );
    expect(
      r.log
        .filter((e) => e[0] === "i2c")
        .map((e) => e[1])
        .sort(),
    ).toEqual([0, 1]);
    expect(opened(r)).toEqual(new Set([25, ...d.netlist.bindings.map((b) => gpio(d, b.ref, b.pin))]));
  });
});
