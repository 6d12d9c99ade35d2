import beehive from "../../../../demo/beehive-scale.lattice.json";
import moss from "../../../../demo/moss-terrarium.lattice.json";
import barrel from "../../../../demo/rain-barrel.lattice.json";
import type { Project } from "../../project";
import { loadProject } from "../../project";
import { BOARD3, BOARD5, CABLE, catalogue, fountain, make, planned, USB } from "../../testing";

/** Projects that faults are hidden in, for tests: the demos, and others that vary boards, buses, supplies and loose parts. */
const demo = (data: unknown): Project => {
  const r = loadProject(data, catalogue);
  if (!r.ok) throw new Error(JSON.stringify(r.problems));
  return r.project;
};

export const BENCHES: Record<string, () => Project> = {
  "rain barrel": () => demo(barrel),
  "moss terrarium": () => demo(moss),
  "beehive scale": () => demo(beehive),
  "lights and keys at 5 V": () =>
    planned([
      BOARD5,
      USB,
      { ref: "LED1", part: "discrete/led-red" },
      { ref: "LED2", part: "discrete/led-green" },
      { ref: "SW1", part: "discrete/button" },
      { ref: "SW2", part: "discrete/button" },
      { ref: "POT1", part: "discrete/potentiometer" },
    ]),
  "two parts on SPI with selects": () =>
    planned([BOARD3, USB, { ref: "M1", part: "module/rc522" }, { ref: "M2", part: "module/max6675" }]),
  "serial and pulses": () =>
    planned([BOARD3, USB, { ref: "M1", part: "module/gps-neo6m" }, { ref: "M2", part: "module/ultrasonic-3v3" }]),
  "a light of three colours and a grid of keys": () =>
    planned([
      BOARD3,
      USB,
      { ref: "LED1", part: "discrete/led-rgb-cc", label: "Mood" },
      { ref: "M1", part: "module/keypad-4x4", label: "Keys" },
    ]),
  "a pump behind a transistor": fountain,
  "a strip with a supply of its own": () =>
    planned([
      BOARD3,
      USB,
      { ref: "S2", part: "supply/adapter-5v-2a" },
      { ref: "M1", part: "module/ws2812b-strip", options: { pixels: 30 } },
    ]),
  "one light by hand": () =>
    make(
      [BOARD5, USB, { ref: "LED1", part: "discrete/led-red", companions: { seriesResistor: { ohm: 330 } } }],
      [CABLE, ["LED1.A", "B1.D8"], ["LED1.K", "B1.GND"]],
    ),
};
