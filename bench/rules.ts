import { assign } from "../src/core/plan/assign";
import { findings } from "../src/core/checks";
import { circuitOf } from "../src/core/circuit";
import { catalogue, make } from "../src/core/testing";

const SENSORS = [
  "bme280",
  "ssd1306-i2c",
  "ds3231",
  "sht31",
  "hc-sr04",
  "pir",
  "soil-capacitive",
  "encoder",
  "sd-shifted",
  "max6675",
  "buzzer-passive",
  "relay-1",
];

/** A bench full: 40 parts and about 120 wires on the largest board. */
export function full() {
  const many = (letter: string, id: string, n: number) =>
    Array.from({ length: n }, (_, i) => ({ ref: `${letter}${i + 1}`, part: id }));
  return assign(
    make([
      { ref: "B1", part: "board/atmega2560-long" },
      { ref: "S1", part: "supply/usb-charger" },
      { ref: "S2", part: "supply/adapter-5v-10a" },
      ...SENSORS.map((id, i) => ({ ref: `M${i + 1}`, part: `module/${id}` })),
      { ref: "M30", part: "module/ws2812b-strip", options: { pixels: 40, brightness: 0.4 } },
      ...many("D", "discrete/led-red", 14),
      ...many("SW", "discrete/button", 10),
    ]),
    catalogue,
  ).project;
}

/** Rows of the bench: all rules by themselves, and with the circuit that they judge. */
export function ruleRows(): [what: string, reach: string, got: string][] {
  const p = full();
  const rules: number[] = [];
  const whole: number[] = [];
  for (let i = 0; i < 700; i++) {
    const t = performance.now();
    const c = circuitOf({ ...p }, catalogue);
    void c.levels.length;
    void c.power.limits.length;
    void c.leds.length;
    const s = performance.now();
    findings(c);
    const e = performance.now();
    // The first runs are the compiler's.
    if (i >= 200) {
      rules.push(e - s);
      whole.push(e - t);
    }
  }
  const mid = (list: number[]) => [...list].sort((a, b) => a - b)[list.length >> 1]!.toFixed(2);
  const wires = circuitOf(p, catalogue).netlist.wires.length;
  return [
    [`all rules, ${p.parts.length} parts, ${wires} wires`, "< 8 ms", `${mid(rules)} ms`],
    [`nets, levels, power and rules of the same`, "< 16 ms", `${mid(whole)} ms`],
  ];
}
