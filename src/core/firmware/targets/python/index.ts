import { pythonFiles } from "../micropython/files";
import { targetOf } from "../target";
import { DHT, ONEWIRE } from "./kernel-parts";
import { MACHINE, TICKS } from "./stand-ins";

/** What the language has under other names on a computer: its clock, and keys read one at a time. */
const NAMES: readonly [RegExp, string][] = [
  [/^import time$/m, "import ticks as time"],
  [/^import sys$/m, "import os\nimport sys"],
  [/sys\.stdin\.read\(1\)/g, "os.read(0, 1).decode()"],
];
const dialect = (text: string) => NAMES.reduce((t, [from, to]) => t.replace(from, to), text);

/** Python for a computer with a pin header: the same programs, their pins by gpiozero, their buses by smbus2. */
export const python = targetOf({
  id: "python",
  name: "Python",
  says: "main.py, bringup.py, pins.py for the computer itself; gpiozero and smbus2",
  unfit: ({ board }) => (board!.family === "linux" ? null : `for boards that run Linux; ${board!.chip} does not`),
  files: (c, host) => {
    const files = pythonFiles(c, host, "python", dialect);
    const uses = (lib: string) => files.some((f) => f.path === lib);
    return [
      ...files,
      { path: "machine.py", text: MACHINE },
      { path: "ticks.py", text: TICKS },
      ...(uses("lib/one.py") ? [{ path: "onewire.py", text: ONEWIRE }] : []),
      ...(uses("lib/pulses.py") ? [{ path: "dht.py", text: DHT }] : []),
    ];
  },
});
