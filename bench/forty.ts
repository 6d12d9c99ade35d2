/** A big list as a class room's wall might have it: forty parts on one board, every family of the catalogue, planned. */
import { planAll } from "../src/core/plan/advice";
import { isPlanned } from "../src/core/plan/assign";
import { catalogue, make } from "../src/core/testing";
import type { Project } from "../src/core/project";

const MODULES = [
  "bme280",
  "ssd1306-i2c",
  "pir",
  "ds3231",
  "bh1750",
  "ads1115",
  "sd-3v3",
  "rc522",
  "max6675",
  "hc-sr04",
  "ir-receiver-38k",
  "button-module",
  "encoder",
  "joystick",
  "servo-small",
  "servo-small",
  "relay-1",
  "buzzer-passive",
  "ws2812b-strip",
  "soil-capacitive",
  "soil-capacitive",
  "ldr-module",
  "ds18b20",
  "dht22",
  "hx711",
  "max7219-matrix",
];

/** The project with this many parts, the board and its supply included. */
export function bigProject(parts: number): Project {
  const modules = MODULES.slice(0, Math.max(0, parts - 2)).map((m, i) => ({ ref: `M${i + 1}`, part: `module/${m}` }));
  const loose = Array.from({ length: Math.max(0, parts - 2 - modules.length) }, (_, i) => ({
    ref: i % 3 ? `D${i + 1}` : `K${i + 1}`,
    part: i % 3 ? "discrete/led-red" : "discrete/button",
  }));
  const list = [
    { ref: "B1", part: "board/atmega2560-long" },
    { ref: "S1", part: "supply/adapter-9v-1a" },
  ];
  const plan = planAll(make([...list, ...modules, ...loose]), catalogue);
  if (!isPlanned(plan)) throw new Error(plan.clash ?? "not planned");
  return { ...plan.project, title: `Wall of ${parts}` };
}
