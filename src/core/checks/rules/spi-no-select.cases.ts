import { CABLE, make, part, RP, USB, type Case } from "../cases/build";

/** A strip and a display: the strip's clock and data on these pins. */
const strip = (clock: string, data: string) =>
  make(
    [RP, USB, part("M1", "module/apa102-strip", { pixels: 8 }), part("M2", "module/st7735")],
    [
      CABLE,
      ["M1.5V", "B1.VBUS"],
      ["M1.GND", "B1.GND"],
      ["M2.VCC", "B1.3V3"],
      ["M2.BL", "B1.3V3"],
      ["M2.GND", "B1.GND"],
      ["M1.CI", clock],
      ["M1.DI", data],
      ["M2.SCK", "B1.GP18"],
      ["M2.MOSI", "B1.GP19"],
      ["M2.CS", "B1.GP17"],
      ["M2.RST", "B1.GP20"],
      ["M2.DC", "B1.GP21"],
    ],
  );

export const spiNoSelectCases: Case[] = [
  {
    rule: "spi.no-select",
    severity: "risk",
    says: "clocked lights on a display's bus",
    bad: () => strip("B1.GP18", "B1.GP19"),
    near: () => strip("B1.GP10", "B1.GP11"),
    fix: "own-lines",
  },
];
