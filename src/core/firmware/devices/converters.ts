import { count, read, work, write } from "./steps";
import { firstFirst } from "./lowest";
import type { Device, DeviceKind } from "./types";

const CHANNELS = [0, 1, 2, 3, 4, 5, 6, 7];

/** MCP3008: start bit, single-ended, channel; after the sample's clock and a 0 come ten bits, here in two bytes. */
export const mcp3008: DeviceKind = {
  id: "module/mcp3008",
  cases: [{}, { ins: 0b0010_1000 }],
  of({ ins }): Device {
    const [first, channels] = firstFirst(CHANNELS, ins);
    return {
      id: "module/mcp3008",
      over: { kind: "spi" },
      begin: [],
      read: CHANNELS.flatMap((ch) => [read(2, 0x18 | ch), work(`c${ch}`, "u16be(0) >> 4 & 1023")]),
      every: 100,
      out: channels.map((ch) => count(`c${ch}`, ch ? "" : "ch0-7", [0, 1023])),
      proof: { kind: "watch", act: `turn or touch what hangs on its input CH${first}`, by: 64 },
    };
  },
};

const VOLTAGE = { word: "level", unit: "", digits: 0, range: [0, 4095], rest: 0 } as const;
const SEEN = {
  kind: "seen",
  show: [0, 2048, 4095, 0],
  question: "Did the voltage at its output go up in two steps and back?",
  // What follows that voltage is not known.
  careful: "keep clear of what its voltage drives,",
} as const;

/** MCP4725: fast is not used, the stored value is left alone; twelve bits, the high eight first. */
export const mcp4725: Device = {
  id: "module/mcp4725",
  begin: [],
  read: [write(0x40, "want >> 4", "(want & 15) << 4")],
  every: 50,
  out: [],
  takes: { ...VOLTAGE, range: [0, 4095] },
  proof: SEEN,
};

/** MCP4921: unbuffered, gain 1, output on, twelve bits. */
export const mcp4921: Device = {
  id: "module/mcp4921",
  over: { kind: "spi" },
  begin: [],
  read: [write("0x30 | want >> 8", "want & 255")],
  every: 50,
  out: [],
  takes: { ...VOLTAGE, range: [0, 4095] },
  proof: SEEN,
};
