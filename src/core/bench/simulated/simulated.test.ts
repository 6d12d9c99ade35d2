import { describe, expect, it } from "vitest";
import { circuitOf } from "../../circuit";
import { reasonOf } from "../reason";
import { BENCHES } from "../reason/cases";
import { readConsole } from "../console/read";
import { assign } from "../../plan/assign";
import { catalogue, make, planned, BOARD5, USB } from "../../testing";
import { trialOf } from "../trial";
import { simulatedBench } from "./bench";

const moss = () => circuitOf(BENCHES["moss terrarium"]!(), catalogue);
const lamps = () =>
  circuitOf(
    planned([
      BOARD5,
      USB,
      { ref: "SW1", part: "discrete/button", label: "Go" },
      { ref: "LED1", part: "discrete/led-red", label: "Lamp" },
      { ref: "LED2", part: "discrete/led-green", label: "Leaf" },
    ]),
    catalogue,
  );
const fault = (c: ReturnType<typeof moss>, id: string) => {
  const f = reasonOf(c).singles.find((h) => h.faults[0]?.id.startsWith(id))?.faults[0];
  if (!f) throw new Error(`no fault ${id}`);
  return f.change;
};

describe("the simulated bench", () => {
  it("a sound build does and prints what the program alone does", () => {
    const c = moss();
    const [bench, alone] = [simulatedBench(c, {}), trialOf(c, "B1")!];
    const [a, b] = [bench.run(5000), alone.run(5000)];
    expect(a.said).toEqual(b.said);
    expect(a.shows).toEqual(b.shows);
    expect(a.said.length).toBeGreaterThan(4);
  });
  it("a wire that makes no contact darkens its lamp and leaves the other alone", () => {
    const c = lamps();
    const litIn = (id: string | null, ref: string) => {
      const bench = simulatedBench(c, id === null ? {} : fault(c, id));
      const seen = new Set<boolean>();
      for (let t = 100; t < 3000; t += 100)
        for (const s of bench.run(t).shows) if (s.kind === "light" && s.ref === ref) seen.add(s.lit);
      return seen.has(true);
    };
    expect(litIn(null, "LED1")).toBe(true);
    const wire = reasonOf(c).laid.wires.find((w) => [w.a, w.b].some((e) => e.startsWith("LED1.")))!;
    expect(litIn(`open-wire ${wire.a} ${wire.b}`, "LED1")).toBe(false);
    expect(litIn(`open-wire ${wire.a} ${wire.b}`, "LED2")).toBe(true);
    expect(litIn("turned LED1", "LED1")).toBe(false);
  });
  it.each(["chip/attiny13a-dip8", "chip/attiny85-dip8", "chip/atmega328p-dip28"])(
    "%s, a bare chip: the key works the lamp, until the lamp's wire is pulled out",
    (chip) => {
      const c = circuitOf(
        planned([
          { ref: "B1", part: chip },
          USB,
          { ref: "SW1", part: "discrete/button", label: "Go" },
          { ref: "LED1", part: "discrete/led-red", label: "Lamp" },
        ]),
        catalogue,
      );
      const bench = simulatedBench(c, {});
      expect(bench.without).toBeNull();
      const lit = (until: number) => bench.run(until).shows.some((s) => s.kind === "light" && s.lit);
      expect(lit(1000)).toBe(false);
      expect(bench.act({ ref: "SW1", down: true })).toBeNull();
      expect(lit(1500)).toBe(true);
      const wire = reasonOf(c).laid.wires.findIndex((w) => [w.a, w.b].some((e) => e === "LED1.A"));
      bench.pull(wire, true);
      expect(lit(2000)).toBe(false);
      bench.pull(wire, false);
      bench.act({ ref: "SW1", down: false });
      expect(lit(2500)).toBe(false);
    },
  );
  it("a sensor whose wire is pulled out is told as missing, and comes back when it is pushed in again", () => {
    const c = moss();
    const bench = simulatedBench(c, {});
    const wire = reasonOf(c).laid.wires.find((w) => w.a === "M1.SDA" || w.b === "M1.SDA")!;
    const last = (until: number) =>
      bench
        .run(until)
        .said.filter((s) => s.line.includes("running"))
        .at(-1)!.line;
    const good = last(4000);
    bench.pull(wire.i, true);
    expect(last(9000)).toContain("--");
    bench.pull(wire.i, false);
    expect(last(16_000)).not.toContain("--");
    expect(good).not.toContain("--");
  });
  it("without power nothing runs; power starts the program from its beginning", () => {
    const bench = simulatedBench(moss(), {});
    expect(bench.run(2500).said[0]!.line).toMatch(/^YL1 plan B1/);
    bench.power(false);
    expect(bench.run(5000).said).toEqual([]);
    bench.power(true);
    expect(bench.run(6000).said[0]!.line).toMatch(/^YL1 plan B1/);
  });
  it("the meter shows rails, lines that idle, lamps that are driven, and what beeps", () => {
    const c = moss();
    const bench = simulatedBench(c, {});
    bench.run(1000);
    expect(bench.meter("volt", "B1.3V3", "B1.GND")!.text).toBe("3.30 V");
    // The display's pull-ups hang behind its own regulator, a little lower than the rail.
    const idle = bench.meter("volt", "M1.SDA", "M1.GND")!.seen;
    expect(idle).toBeGreaterThan(3.1);
    expect(idle).toBeLessThan(3.3);
    expect(bench.meter("volt", "B1.GND", "B1.3V3")!.text).toBe("-3.30 V");
    expect(bench.meter("beep", "M1.SDA", "B1.GP4")!.text).toBe("take the power away first");
    bench.power(false);
    expect(bench.meter("beep", "M1.SDA", "B1.GP4")!.text).toBe("beeps");
    expect(bench.meter("beep", "M1.SDA", "B1.GP5")!.text).toBe("no beep");
    expect(bench.meter("ohm", "RM3.1", "RM3.2")!.text).toBe("330 Ω");
    expect(Math.abs(Number(bench.meter("volt", "B1.3V3", "B1.GND")!.seen))).toBeLessThan(0.1);
    expect(bench.meter("volt", "B1.XX", "B1.GND")).toBeNull();
  });
  it("a contact is read through the wires as they are: pressed it beeps, and its open wire is never pressed", () => {
    const c = lamps();
    const presses = (change: object) => {
      const bench = simulatedBench(c, change);
      bench.run(500);
      bench.act({ ref: "SW1", down: true });
      const said = bench.run(1500).said.map((s) => s.line);
      return said.some((l) => l.includes("Go pressed"));
    };
    expect(presses({})).toBe(true);
    expect(presses(fault(c, "open-wire SW1"))).toBe(false);
    const bench = simulatedBench(c, {});
    bench.power(false);
    expect(bench.meter("beep", "SW1.1", "SW1.2")!.seen).toBe("open");
    bench.act({ ref: "SW1", down: true });
    expect(bench.meter("beep", "SW1.1", "SW1.2")!.seen).toBe("beep");
  });
  it("the bring-up's lines are read back as what was hidden shows", () => {
    const c = moss();
    const bench = simulatedBench(c, fault(c, "open-wire M1.SDA"));
    const { lines, seen } = bench.bringUp();
    const read = readConsole(c, lines.join("\n"));
    expect(read.done).toBe(true);
    for (const o of read.observations) expect(seen).toContainEqual(o);
    expect(read.observations).toContainEqual({ q: { kind: "part", ref: "M1" }, seen: "no" });
  });
  it("says that own code is not run here, and where it stands", () => {
    const c = lamps();
    const own = circuitOf(
      { ...c.project, code: { sketch: { loop: "digitalWrite(7, HIGH);", setup: "  ", globals: "" } } },
      catalogue,
    );
    expect(trialOf(c, "B1")!.left).toEqual([]);
    expect(trialOf(own, "B1")!.left).toEqual(["your own code at loop"]);
    expect(simulatedBench(own, {}).left).toEqual(["your own code at loop"]);
  });
  it.each(["board/linux-forty", "board/rp2040-forty"])(
    "%s: a knob on a converter turns a servo on a maker of pulses",
    (board) => {
      const parts = [
        { ref: "B1", part: board },
        { ref: "S1", part: "supply/adapter-5v-10a" },
        { ref: "M1", part: "module/ads1115", label: "Inputs" },
        { ref: "M2", part: "discrete/potentiometer", label: "Knob" },
        { ref: "M3", part: "module/pca9685", label: "Arms" },
        { ref: "M4", part: "module/servo-small", label: "Arm" },
      ];
      const links = [
        { from: "M2.2", to: "M1.A2", locked: true },
        { from: "M4.SIG", to: "M3.PWM7", locked: true },
      ];
      const { project } = assign(make(parts as never, [], { links }), catalogue);
      const rules = [{ when: { ref: "M2", out: "pct", above: 50 }, do: { ref: "M4", act: "set" as const, value: 90 } }];
      const trial = trialOf(circuitOf({ ...project, rules }, catalogue), "B1")!;
      // What hangs on a line is turned, not the line.
      expect(trial.controls.map((k) => k.ref)).toEqual(["M2"]);
      const arm = (until: number) =>
        trial.run(until).shows.flatMap((s) => (s.kind === "does" ? [`${s.ref} ${s.says}`] : []));
      expect(arm(3000)).toEqual(["M4 let go"]);
      expect(trial.act({ ref: "M2", quantity: "pct", value: 80 })).toBeNull();
      expect(arm(6000)).toEqual(["M4 at 90\u00b0"]);
    },
  );
});
