import fs from "node:fs";
import { beforeAll, describe, expect, it } from "vitest";
import { findPin } from "../src/core/parts/catalogue";
import { shippedCatalogue } from "../src/core/parts/catalogue/shipped";
import { circuitOf, type Circuit } from "../src/core/circuit";
import { sketch } from "../src/core/firmware/targets/sketch";
import { readProject } from "../src/core/project";
import { BOARD5, fountain, planned, USB } from "../src/core/testing";
import { benchProgram, compileSketch, coreArchive, simulate } from "./avr/toolchain";

const catalogue = shippedCatalogue();
const FLASH = 32 * 1024 - 512;
const RAM = 2048;

function demo(name: string): Circuit {
  const r = readProject(fs.readFileSync(new URL(`../demo/${name}.lattice.json`, import.meta.url), "utf8"), catalogue);
  if (!r.ok) throw new Error(JSON.stringify(r.problems));
  return circuitOf(r.project, catalogue);
}

/** The chip's port name of the board pin that the plan gives a part's pin. */
function port(c: Circuit, ref: string, pin: string): string {
  const b = c.netlist.bindings.find((x) => x.ref === ref && x.pin === pin)!;
  return findPin(c.netlist.instance(b.host)!.part, b.hostPin)!.names!["avr-c"]!;
}

let bench = "";
beforeAll(() => {
  coreArchive();
  bench = benchProgram();
}, 240_000);

describe("rain-barrel gauge, compiled with avr-gcc and run in simavr", () => {
  const c = demo("rain-barrel");
  const files = sketch.files(c);
  const parts = (cm: number) => ["i2c:27", `echo:${port(c, "M1", "TRIG")}:${port(c, "M1", "ECHO")}:${cm}`];

  it("bring-up reports every part and blinks the planned light", () => {
    const { elf, flash, ram } = compileSketch("rain-barrel", files, "bringup");
    expect(flash).toBeLessThan(FLASH);
    expect(ram).toBeLessThan(RAM * 0.75);
    const run = simulate(bench, elf, 6, parts(42));
    expect(run.lines).toContain("YL1 scan B1 bus=Wire found=0x27, want=0x27 ok");
    expect(run.lines).toContain("YL1 i2c M2 addr=0x27 ok");
    expect(run.lines.find((l) => l.startsWith("YL1 sensor M1"))).toMatch(/cm=4[123] ok$/);
    // What only eyes can tell is asked, and not called proven.
    expect(run.lines).toContain("YL1 ask D1 Did it blink three times? y or n info");
    expect(run.lines.at(-1)).toBe("YL1 done parts=3 proven=1 failed=0 unproven=2 info");
    expect(run.toggles.get(port(c, "D1", "A"))).toBeGreaterThanOrEqual(6);
    // Hundreds of display bytes went over the two planned bus wires: four of the bus for each letter.
    expect(run.i2cBytes).toBeGreaterThan(400);
  });

  it("bring-up tells a missing display and a missing echo apart", () => {
    const { elf } = compileSketch("rain-barrel", files, "bringup");
    const run = simulate(bench, elf, 6, []);
    expect(run.lines).toContain("YL1 scan B1 bus=Wire found= want=0x27 fail");
    expect(run.lines).toContain("YL1 i2c M2 addr=0x27 fail");
    expect(run.lines).toContain("YL1 act M2 told=12345678,-42,0 fresh=0 fail");
    expect(run.lines).toContain("YL1 sensor M1 fresh=0 cm=0 fail");
    expect(run.lines.at(-1)).toBe("YL1 done parts=3 proven=0 failed=2 unproven=1 fail");
  });

  it("a person's answers prove the rest, or not; r and a number begin anew", () => {
    const { elf } = compileSketch("rain-barrel", files, "bringup");
    const yes = simulate(bench, elf, 9, [...parts(42), "key:6000:yy"]);
    expect(yes.lines.at(-1)).toBe("YL1 done parts=3 proven=3 failed=0 unproven=0 ok");
    const no = simulate(bench, elf, 9, [...parts(42), "key:6000:ny"]);
    expect(no.lines.filter((l) => l.startsWith("YL1 seen"))).toEqual(["YL1 seen M2 fail", "YL1 seen D1 ok"]);
    expect(no.lines.at(-1)).toBe("YL1 done parts=3 proven=2 failed=1 unproven=0 fail");
    const again = simulate(bench, elf, 12, [...parts(42), "key:6000:r"]);
    expect(again.lines.filter((l) => l.startsWith("YL1 hello"))).toHaveLength(2);
  });

  it("the starter's loop blinks on time while the echo is measured: nothing blocks", () => {
    const { elf, ram } = compileSketch("rain-barrel", files, "starter");
    expect(ram).toBeLessThan(RAM * 0.75);
    const run = simulate(bench, elf, 5, parts(42));
    // Half a second each way: ten changes in five seconds, give or take the start.
    expect(run.toggles.get(port(c, "D1", "A"))).toBeGreaterThanOrEqual(8);
    expect(run.toggles.get(port(c, "D1", "A"))).toBeLessThanOrEqual(12);
    expect(run.toggles.get(port(c, "M1", "TRIG"))).toBeGreaterThan(50);
  });
});

describe("the starter's time", () => {
  /** Own code that tells the longest pass of the loop, and how far the clock is, every second. */
  const WATCH = {
    sketch: {
      globals: "static uint32_t worst = 0, before = 0, next = 3000;\n",
      loop: `uint32_t us = micros();
if (before && millis() > 2000 && us - before > worst) worst = us - before;
if (millis() >= next) {
  next += 1000;
  Serial.print(F("PASS "));
  Serial.println(worst);
  before = 0;
} else {
  before = us;
}
`,
    },
  };
  const passes = (lines: readonly string[]) =>
    lines.filter((l) => l.startsWith("PASS")).map((l) => Number(l.split(" ")[1]));

  it("no pass of the loop takes 5 ms: display, echo without an answer, sensor that is missing", () => {
    const c = circuitOf(
      planned(
        [
          BOARD5,
          USB,
          { ref: "M1", part: "module/hc-sr04", label: "Echo" },
          { ref: "M2", part: "module/ssd1306-i2c", label: "Display" },
          { ref: "M3", part: "module/aht20", label: "Air", options: {} },
          { ref: "SW1", part: "discrete/button", label: "Go" },
          { ref: "D1", part: "discrete/led-red", label: "Lamp" },
        ],
        { code: WATCH },
      ),
      catalogue,
    );
    const { elf } = compileSketch("pass", sketch.files(c), "starter");
    const echo = `echo:${port(c, "M1", "TRIG")}:${port(c, "M1", "ECHO")}:42`;
    for (const world of [["i2c:27", echo], ["i2c:27"], []]) {
      const worst = passes(simulate(bench, elf, 8, world).lines);
      expect(worst.length).toBeGreaterThanOrEqual(4);
      expect(Math.max(...worst), world.join(" ")).toBeLessThan(5000);
    }
  });

  it.each(["module/st7735", "module/st7789"])("nor does one that draws letters on %s", (glass) => {
    const parts = [
      BOARD5,
      USB,
      { ref: "M1", part: glass, label: "Glass" },
      { ref: "M2", part: "module/bme280", label: "Air" },
    ];
    const c = circuitOf(planned(parts, { code: WATCH }), catalogue);
    const { elf } = compileSketch("pass-glass", sketch.files(c), "starter");
    const worst = passes(simulate(bench, elf, 9, ["bme280:76"]).lines);
    expect(worst.length).toBeGreaterThanOrEqual(4);
    expect(Math.max(...worst)).toBeLessThan(5000);
  });

  it("the clock is right within a thousandth beside a strip of sixty lights", () => {
    const c = circuitOf(
      planned([
        BOARD5,
        USB,
        { ref: "S2", part: "supply/adapter-5v-2a" },
        { ref: "M3", part: "module/ws2812b-strip", label: "Lights", options: { pixels: 60, brightness: 0.2 } },
        { ref: "D1", part: "discrete/led-red", label: "Lamp" },
      ]),
      catalogue,
    );
    const { elf } = compileSketch("drift", sketch.files(c), "starter");
    // A change each half second from the start, and one when the pin became an output: the last comes at 20 s, neither later
    // than a thousandth nor earlier.
    const changes = (s: number) => simulate(bench, elf, s, []).toggles.get(port(c, "D1", "A"));
    expect(changes(20.03)).toBe(42);
    expect(changes(19.99)).toBe(41);
  });
});

describe("every part of the catalogue on the 5 V board", () => {
  const parts = [
    BOARD5,
    USB,
    { ref: "S2", part: "supply/adapter-5v-2a" },
    { ref: "M1", part: "module/bme280", label: 'Air "quotes" */ ??/ é\n#define X', options: { supply: "regulated" } },
    { ref: "M3", part: "module/ws2812b-strip", label: "7 lights", options: { pixels: 12, brightness: 0.2 } },
    { ref: "SW1", part: "discrete/button", label: "Go" },
    { ref: "D1", part: "discrete/led-red", label: "Go" },
  ];
  const c = circuitOf(planned(parts), catalogue);
  const files = sketch.files(c);
  const world = (level: number) => ["bme280:76", `hold:${port(c, "SW1", "1")}:${level}`];

  it("compiles with hostile labels and answers line by line", () => {
    const { elf } = compileSketch("all", files, "bringup");
    const run = simulate(bench, elf, 6, world(1));
    expect(run.lines).toContain("YL1 i2c M1 addr=0x76 id=0x60 want=0x60 ok");
    // The data sheet's worked example: 25.08 degrees, 1006.53 hPa.
    expect(run.lines.find((l) => l.startsWith("YL1 sensor M1"))).toMatch(/t_cC=2508 rh_c=\d+ p_Pa=1006[45]\d ok$/);
    expect(run.lines.find((l) => l.startsWith("YL1 gpio SW1"))).toMatch(/level=1 want=1 info$/);
    expect(run.lines).toContain(
      `YL1 strip M3 pin=${c.netlist.bindings.find((b) => b.ref === "M3")!.hostPin} pixels=12 cap=51 info`,
    );
    // Nothing was pressed, nothing was seen: only the sensor is proven.
    expect(run.lines.at(-1)).toBe("YL1 done parts=4 proven=1 failed=0 unproven=3 info");
    const pressed = simulate(bench, elf, 8, [...world(1), `later:${port(c, "SW1", "1")}:6000:0`]);
    expect(pressed.lines).toContain("YL1 moved SW1 ok");
    expect(pressed.lines.at(-1)).toBe("YL1 done parts=4 proven=2 failed=0 unproven=2 info");
    // Five frames of 12 lights, 24 bits each, two edges a bit.
    expect(run.toggles.get(port(c, "M3", "DIN"))).toBeGreaterThanOrEqual(5 * 12 * 24 * 2);
  });

  it("a held button fails its idle check", () => {
    const { elf } = compileSketch("all", files, "bringup");
    expect(simulate(bench, elf, 6, world(0)).lines.find((l) => l.startsWith("YL1 gpio SW1"))).toMatch(
      /level=0 want=1 fail$/,
    );
  });

  it("with nothing attached nothing is called proven", () => {
    const { elf } = compileSketch("all", files, "bringup");
    const run = simulate(bench, elf, 6, []);
    expect(run.lines.at(-1)).toBe("YL1 done parts=4 proven=0 failed=1 unproven=3 fail");
  });

  it("the starter takes back a sensor that comes late, and one that was gone", () => {
    const { elf } = compileSketch("all", files, "starter");
    const run = simulate(bench, elf, 8, [...world(1), "late:76:2500"]);
    const said = run.lines.filter((l) => l.includes("running"));
    expect(said[1]).toContain("--");
    expect(said.at(-1)).toContain("25.1 C");
    const gone = simulate(bench, elf, 8, [...world(1), "gone:76:4000"]).lines.filter((l) => l.includes("running"));
    expect(gone[2]).toContain("25.1 C 47 % 1007 hPa");
    expect(gone.at(-1)).toContain("--");
    // The rest of the program has gone on all the while.
    expect(gone.at(-1)).toMatch(/running [67] s$/);
  });

  it("the starter runs", () => {
    const { elf } = compileSketch("all", files, "starter");
    const run = simulate(bench, elf, 3, world(0));
    expect(run.lines).toContain("Go pressed");
    expect(run.toggles.get(port(c, "D1", "A"))).toBeGreaterThanOrEqual(4);
  });

  it("simple delays are a house rule", () => {
    const d = circuitOf(planned(parts, { houseRules: { programStyle: "delays" } }), catalogue);
    const { elf } = compileSketch("delays", sketch.files(d), "starter");
    expect(simulate(bench, elf, 2, world(1)).toggles.get(port(d, "D1", "A"))).toBeGreaterThan(4);
  });

  it("a load is switched through the pin that works its transistor", () => {
    const d = circuitOf(fountain(), catalogue);
    const { elf } = compileSketch("driven", sketch.files(d), "bringup");
    const run = simulate(bench, elf, 6, []);
    expect(run.lines.find((l) => l.includes(" MT1 "))).toContain("pin=D7");
    // At rest it stays off: nothing is switched on by itself.
    expect(run.lines.find((l) => l.includes(" MT1 "))).toContain(" rests info");
    expect(run.lines).toContain(
      "YL1 ask MT1 keep clear of what it switches, check its supply, then type 1 and Enter info",
    );
  });
});
