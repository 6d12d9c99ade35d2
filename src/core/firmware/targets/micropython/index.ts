import { targetOf } from "../target";
import { pythonFiles } from "./files";

/** Below this no MicroPython is built for a chip. */
const LEAST_RAM_KB = 16;

/** MicroPython files: pins, bring-up, a non-blocking main and small driver modules. */
export const micropython = targetOf({
  id: "micropython",
  name: "MicroPython",
  says: "main.py, bringup.py, pins.py and lib/ to copy onto the board",
  unfit: ({ board }) => {
    if (board!.targets.micropython) return null;
    return board!.ram_kB < LEAST_RAM_KB
      ? `${board!.chip} has too little memory for MicroPython`
      : `no MicroPython program is written for ${board!.chip} here`;
  },
  files: (c, host) => pythonFiles(c, host, "micropython"),
});
