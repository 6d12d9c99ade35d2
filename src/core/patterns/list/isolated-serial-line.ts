import type { Pattern } from "../types";
import { FORTY, lamp, LONG, on, piece, USB } from "./pieces";

export const isolatedSerialLine: Pattern = {
  id: "isolated-serial-line",
  title: "Compass buoy whose battery stays apart",
  goal: "A satellite receiver on the buoy's own supply tells its place through an isolator: no ground is shared with the computer.",
  learns: "Two circuits that talk without sharing ground, and what is never measured across the gap.",
  boards: [LONG, FORTY],
  parts: [
    USB,
    piece("S2", "supply/adapter-5v-2a", "Buoy supply"),
    piece("U1", "module/isolator-2ch", "Gap", { companions: { decoupling: { F: 1e-7 } } }),
    piece("U2", "module/ldo-3v3", "Buoy 3.3 V"),
    piece("M1", "module/gps-neo6m", "Receiver"),
  ],
  links: [
    ["S2.5V", "U2.VIN"],
    ["S2.GND", "U2.GND"],
    ["U2.OUT", "U1.VCC2"],
    ["S2.GND", "U1.GND2"],
    ["M1.VCC", "S2.5V"],
    ["M1.GND", "S2.GND"],
    ["M1.TX", "U1.INB"],
    ["M1.RX", "U1.OUTA"],
  ],
  rules: [],
  onward: [
    {
      id: "fix",
      says: "A lamp that tells that the receiver knows where it is.",
      parts: [lamp("LED1", "Fix", "green")],
      rules: [{ when: { ref: "M1", out: "fix", is: 1 }, do: on("LED1") }],
    },
    {
      id: "show",
      says: "The place on a display on the board's side.",
      parts: [piece("M2", "module/ssd1306-i2c", "Display")],
    },
    {
      id: "few",
      says: "A lamp that warns when fewer than four satellites are heard.",
      parts: [lamp("LED1", "Few")],
      rules: [{ when: { ref: "M1", out: "sats", below: 4 }, do: on("LED1") }],
    },
  ],
};
