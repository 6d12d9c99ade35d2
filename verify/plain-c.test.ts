import { beforeAll, describe, expect, it } from "vitest";
import { circuitOf, type Circuit } from "../src/core/circuit";
import { gaps } from "../src/core/firmware/gaps";
import { avrC } from "../src/core/firmware/targets/avr-c";
import { CHIPS } from "../src/core/firmware/targets/avr-c/chips";
import { findPin } from "../src/core/parts/catalogue";
import { assign } from "../src/core/plan/assign";
import { catalogue, make } from "../src/core/testing";
import { benchProgram, compileC, simulateChip } from "./avr/toolchain";

const chips = catalogue.parts.filter((p) => p.id.startsWith("chip/") && p.board);
const SUPPLY = { ref: "S1", part: "supply/usb-port" };
const planned = (chip: string, parts: object[]): Circuit =>
  circuitOf(assign(make([{ ref: "B1", part: chip }, SUPPLY, ...(parts as never[])]), catalogue).project, catalogue);
const port = (c: Circuit, ref: string) => {
  const b = c.netlist.bindings.find((x) => x.ref === ref)!;
  return findPin(c.netlist.instance("B1")!.part, b.hostPin)!.names!["avr-c"]!;
};
const LIGHT = { ref: "D1", part: "discrete/led-red", label: "Lamp" };
const NIGHT = [LIGHT, { ref: "R1", part: "discrete/ldr", label: "Dusk" }];

/** What the simulator calls a chip, where it is another name. */
const SIMULATED: Record<string, string> = { atmega32a: "atmega32" };

let bench = "";
beforeAll(() => {
  bench = benchProgram();
}, 60_000);

describe("plain C for bare chips", () => {
  it("is written for every bare chip of the catalogue", () => {
    expect(chips).toHaveLength(Object.keys(CHIPS).length);
    for (const p of chips) expect(CHIPS[p.board!.chip], p.id).toBeDefined();
  });
  it.each(chips.map((p) => [p.id, p] as const))(
    "%s: compiles without a warning, fits, blinks, and a key works a light",
    (id, p) => {
      const { mcu } = CHIPS[p.board!.chip]!;
      const { clock_Hz, flash_kB, ram_kB } = p.board!;
      const c = planned(id, [
        LIGHT,
        { ...LIGHT, ref: "D2", label: "Time" },
        { ref: "SW1", part: "discrete/button", label: "now" },
      ]);
      const files = avrC.files(c);
      const name = id.split("/")[1]!;
      const sim = SIMULATED[mcu] ?? mcu;
      for (const program of ["bringup", "main"]) {
        const built = compileC(name, files, program, mcu, clock_Hz);
        expect(built.flash, program).toBeLessThan(flash_kB * 1024);
        expect(built.ram, program).toBeLessThan(ram_kB * 1024 * 0.5);
      }
      // The simulator's port of that chip is slower than it is set.
      const seconds = sim === "atmega32" ? 9 : 4;
      const { elf: up0 } = compileC(name, files, "bringup", mcu, clock_Hz);
      const up = simulateChip(bench, up0, seconds, [], sim, clock_Hz);
      expect(up.toggles.get(port(c, "D1"))).toBeGreaterThanOrEqual(6);
      if (CHIPS[p.board!.chip]!.uart) {
        expect(up.lines[0]).toMatch(/^YL1 hello B1 plan=[A-Z0-9]{8} info$/);
        expect(up.lines).toContain("YL1 done parts=3 proven=0 failed=0 unproven=3 info");
      }
      const { elf } = compileC(name, files, "main", mcu, clock_Hz);
      const key = (level: number) =>
        simulateChip(bench, elf, 5.2, [`hold:${port(c, "SW1")}:${level}`], sim, clock_Hz).toggles;
      // The key works the first light, the second one blinks in half seconds by the clock that the fuses set.
      // (The simulator counts a pin's becoming an output as well on some chips.)
      const still = key(1).get(port(c, "D1")) ?? 0;
      expect(key(0).get(port(c, "D1"))).toBe(still + 1);
      expect(still).toBeLessThanOrEqual(1);
      expect(key(1).get(port(c, "D2"))).toBeGreaterThanOrEqual(sim === "atmega32" ? 5 : 10);
      expect(key(1).get(port(c, "D2"))).toBeLessThanOrEqual(11);
    },
  );
  it.each(["module/relay-1", "module/buzzer-active", "discrete/nmos-irlz44n"])(
    "%s is on while a contact says so, and never by itself",
    (load) => {
      const c = planned("chip/atmega328p-dip28", [
        { ref: "K1", part: load, label: "Load" },
        { ref: "SW1", part: "discrete/button", label: "Go" },
      ]);
      const { elf } = compileC("load", avrC.files(c), "main", "atmega328p", 8_000_000);
      const pin = port(c, "K1");
      const toggles = (level: number) =>
        simulateChip(bench, elf, 3, [`hold:${port(c, "SW1")}:${level}`], "atmega328p", 8_000_000).toggles.get(pin) ?? 0;
      expect(toggles(0)).toBe(toggles(1) + 1);
      expect(toggles(1)).toBeLessThanOrEqual(1);
      const { elf: up } = compileC("load", avrC.files(c), "bringup", "atmega328p", 8_000_000);
      expect(simulateChip(bench, up, 3, [], "atmega328p", 8_000_000).toggles.get(pin) ?? 0).toBeLessThanOrEqual(1);
    },
  );
  it("leaves what hangs on another part alone, says so, and compiles", () => {
    const parts = [
      { ref: "B1", part: "chip/atmega328p-dip28" },
      SUPPLY,
      { ref: "M1", part: "module/74hc595" },
      { ...LIGHT, ref: "D1" },
      { ref: "K1", part: "module/relay-1" },
    ];
    const links = [
      { from: "D1.A", to: "M1.QC", locked: true },
      { from: "K1.IN", to: "M1.QD", locked: true },
    ];
    const c = circuitOf(assign(make(parts as never[], [], { links }), catalogue).project, catalogue);
    const files = avrC.files(c);
    for (const program of ["bringup", "main"]) compileC("behind", files, program, "atmega328p", 8_000_000);
    expect(
      gaps(c)
        .map((g) => g.ref)
        .sort(),
    ).toEqual(["D1", "K1", "M1"]);
  });
  it("a night-light on the smallest chip takes less than 400 bytes", () => {
    const c = planned("chip/attiny13a-dip8", NIGHT);
    const built = compileC("night", avrC.files(c), "main", "attiny13a", 9_600_000);
    expect(built.flash).toBeLessThan(400);
  });
  it("lights in the dark, whichever leg of the sensor is at ground", () => {
    const text = (links: [string, string][]) => {
      const parts = [{ ref: "B1", part: "chip/attiny85-dip8" }, SUPPLY, LIGHT, NIGHT[1]!];
      const all = [["D1.A", "B1.PB3"], ["D1.K", "B1.GND"], ["R1.2", "B1.PB4"], ...links] as [string, string][];
      return avrC.files(circuitOf(make(parts as never[], all), catalogue)).find((f) => f.path === "main.c")!.text;
    };
    expect(text([["R1.1", "B1.VCC"]])).toContain("if (v < 480) on = 1;");
    expect(text([["R1.1", "B1.GND"]])).toContain("if (v < 480) on = 0;");
  });
  it("its page tells of its own bring-up, and where its text is read", () => {
    const page = (chip: string) => avrC.files(planned(chip, NIGHT)).find((f) => f.path === "UPLOAD.md")!.text;
    expect(page("chip/attiny85-dip8")).toMatch(/join PB\d to RX/);
    expect(page("chip/atmega328p-dip28")).toContain("its transmit pin");
    expect(page("chip/attiny85-dip8")).not.toContain("type y or n");
  });
  it("tells its values on a free pin where there is no serial port, and nothing where no pin is free", () => {
    const text = (c: Circuit, path: string) => avrC.files(c).find((f) => f.path === path)!.text;
    expect(text(planned("chip/attiny85-dip8", NIGHT), "pins.h")).toMatch(/PIN_CONSOLE B, \d/);
    const full = planned(
      "chip/attiny85-dip8",
      [1, 2, 3, 4, 5].map((n) => ({ ...LIGHT, ref: `D${n}` })),
    );
    expect(text(full, "pins.h")).not.toContain("PIN_CONSOLE");
    compileC("full", avrC.files(full), "bringup", "attiny85", 8_000_000);
    compileC("full", avrC.files(full), "main", "attiny85", 8_000_000);
  });
  it("every part of the catalogue leaves a program that compiles", () => {
    const talking = catalogue.parts.filter((p) => !p.board && p.bringup && p.pins.some((x) => x.need));
    let tried = 0;
    for (const p of talking) {
      const a = assign(
        make([{ ref: "B1", part: "chip/atmega328p-dip28" }, SUPPLY, { ref: "M1", part: p.id }]),
        catalogue,
      );
      if (a.status !== "optimal") continue;
      const files = avrC.files(circuitOf(a.project, catalogue));
      for (const program of ["bringup", "main"]) compileC("each", files, program, "atmega328p", 8_000_000);
      tried++;
    }
    expect(tried).toBeGreaterThan(90);
  }, 240_000);
});
