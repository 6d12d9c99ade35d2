/** Projects that the cases of several rules are made of. */
import type { Project } from "../../project";
import { CABLE, make, part, RP, USB } from "./build";

/** An air sensor on a large breadboard below the board, its data line at the given row; the board covers rows 1 to 20. */
export const sensorAt = (row: number, half: "left" | "right" = "left"): Project =>
  make(
    [RP, USB, part("M1", "module/bme280")],
    [CABLE, ["M1.VCC", "B1.3V3"], ["M1.GND", "B1.GND"], ["M1.SDA", "B1.GP4"], ["M1.SCL", "B1.GP5"]],
    {
      breadboard: {
        boards: ["830"],
        at: {
          B1: { board: 0, half: "left", row: 1, letter: "c", turn: false },
          M1: { board: 0, half, row, turn: false },
        },
      },
    },
  );
