import { read, work, write } from "./steps";
import type { Device, DeviceKind, Quantity } from "./types";

const bits = (most: number): Quantity => ({ name: "bits", word: "in", unit: "", digits: 0, room: [0, most] });
/** What others on its lines are told, all together: it is told again and again, as it is read. */
const told = (outs: number, rests: number, most: number): Pick<Device, "takes" | "always"> =>
  outs ? { takes: { word: "bits", unit: "", digits: 0, range: [0, most], rest: rests & outs }, always: true } : {};

/** PCF8574: a line that is let go can be read, one that is not is low. */
export const pcf8574: DeviceKind = {
  id: "module/pcf8574",
  cases: [{}, { outs: 0b0110_0001, rests: 0b0100_0000 }],
  of: ({ outs = 0, rests = 0 }) => ({
    id: "module/pcf8574",
    // What others are told comes with every reading.
    begin: outs ? [] : [write(0xff)],
    read: [...(outs ? [write(`want & ${outs} | ${~outs & 255}`)] : []), read(1), work("bits", "u8(0)")],
    every: 50,
    out: [bits(255)],
    ...told(outs, rests, 255),
  }),
};

/** MCP23017: lines are inputs with their own pull-ups, or outputs that have their level before they are outputs. */
export const mcp23017: DeviceKind = {
  id: "module/mcp23017",
  cases: [{}, { outs: 0x0f01, rests: 0x0101 }],
  of: ({ outs = 0, rests = 0 }) => {
    const ins = [~outs & 255, (~outs >> 8) & 255] as const;
    return {
      id: "module/mcp23017",
      begin: [
        ...(outs ? [write(0x14, rests & outs & 255, ((rests & outs) >> 8) & 255)] : []),
        write(0x00, ...ins),
        write(0x0c, ...ins),
      ],
      read: [...(outs ? [write(0x14, "want & 255", "want >> 8 & 255")] : []), read(2, 0x12), work("bits", "u16le(0)")],
      every: 50,
      out: [bits(65_535)],
      ...told(outs, rests, 65_535),
    };
  },
};
