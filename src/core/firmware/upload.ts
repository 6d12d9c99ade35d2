import type { Circuit } from "../circuit";
import { findPin } from "../parts/catalogue";
import { DEVICES, wired } from "./devices";
import type { Over } from "./links";
import { codeText } from "./pins";
import { fingerprint } from "../project";
import type { FirmwareFile } from "./types";

type TargetId = "sketch" | "micropython" | "avr-c" | "python";

/** Putting the interpreter on a chip, once, by family. */
const INTERPRETER: Record<string, string> = {
  rp2040: "Copy the MicroPython file for this board to the drive that appears: once, it stays.",
  rp2350: "Copy the MicroPython file for this board to the drive that appears: once, it stays.",
  esp32:
    "Write MicroPython for this chip to it with the serial flash tool, at the address that its page names: once, it stays.",
  esp8266: "Write MicroPython for this chip to it with the serial flash tool, at address 0: once, it stays.",
};

/** What differs by target: settings, files, what to run first. */
const BY_TARGET: Record<TargetId, (menu: string, family: string) => string[]> = {
  sketch: (menu) => [
    `Open \`bringup/bringup.ino\` in the program for sketches and choose: ${menu}.`,
    "Upload it, then open the serial monitor at 115200 baud.",
  ],
  micropython: (_menu, family) => [
    INTERPRETER[family] ?? "Put MicroPython for this board on it: once, it stays.",
    "Copy `pins.py`, `bringup.py`, `main.py` and the folder `lib` to the board with a file tool for MicroPython.",
    "Run `bringup.py` first; `main.py` starts by itself at power-on.",
  ],
  "avr-c": () => [
    "`make signature` asks the chip who it is: with that answer all six wires are right, and nothing was written.",
    "`make` compiles and says how much it takes; `make fuses` sets the clock, once for each chip; `make flash` writes the program. The programmer's name stands at the top of the `Makefile`.",
  ],
  python: () => [
    "The programs need `gpiozero` and `smbus2`: the system's packages python3-gpiozero and python3-smbus2.",
    "A part on the serial port: in the system's settings turn the port on and the login over it off, then start anew.",
    "Copy the folder to the board, open a terminal in it and run `python3 bringup.py`, then `python3 main.py`.",
  ],
};

/** How to know the port, by how the board talks to the computer. */
const PORT: Record<string, string> = {
  native:
    "The port is the name that is new in the list when the cable goes in; it may come back under another name after an upload. Nothing new: the cable may be one that only charges.",
  bridge:
    "The port is the name that is new in the list when the cable goes in. Nothing new: the cable may be one that only charges, or the driver of the bridge is missing.",
  none: "",
};

/** Parts that hang on the pins over which a board is programmed: they come off for the upload. */
function onConsole(c: Circuit, host: string): string {
  const board = c.netlist.instance(host)!.part;
  const console = board.pins.filter((p) => p.hazards?.some((h) => h.kind === "console"));
  const parts = c.netlist.bindings.filter((b) => b.host === host && console.some((p) => p.label === b.hostPin));
  const words = [
    ...new Set(parts.map((b) => `${b.ref} (${codeText(c.netlist.instance(b.ref)!.label)}) at ${b.hostPin}`)),
  ];
  return words.length ? `Unplug what hangs on the pins of the upload first: ${words.join(", ")}.` : "";
}

/** Drivers of a computer's kernel for parts whose wires a program on it can't time, by how they are reached: the line of the boot settings. */
const KERNEL: Partial<Record<Over["kind"], (gpio: number) => string>> = {
  onewire: (gpio) => `dtoverlay=w1-gpio,gpiopin=${gpio}`,
  pulses: (gpio) => `dtoverlay=dht11,gpiopin=${gpio}`,
};
function kernelStep(c: Circuit, host: string): string {
  const board = c.netlist.instance(host)!.part;
  const lines = c.netlist.bindings.flatMap((b) => {
    const kind = b.host === host && DEVICES.find((d) => d.id === c.netlist.instance(b.ref)!.part.id);
    const over = kind && kind.of(wired({})).over;
    const gpio = findPin(board, b.hostPin)?.gpio;
    return over && gpio !== undefined ? (KERNEL[over.kind]?.(gpio) ?? []) : [];
  });
  const all = [...new Set(lines)];
  return all.length
    ? `The system itself reads ${all.length > 1 ? "these wires" : "this wire"}: add ${all.map((l) => `\`${l}\``).join(" and ")} to \`config.txt\` of the boot partition and start anew.`
    : "";
}

/** Steps from the plugged cable to the running program, for one board and one target. */
export function uploadSteps(c: Circuit, host: string, target: TargetId): string[] {
  const board = c.netlist.instance(host)!.part.board!;
  const others = c.netlist.expanded.hosts.filter((h) => h !== host);
  return [
    others.length ? `Unplug the other boards (${others.join(", ")}): each program belongs to one.` : "",
    onConsole(c, host),
    ...board.upload,
    target === "python" ? kernelStep(c, host) : "",
    target === "python" ? "" : PORT[board.usb.kind]!,
    ...BY_TARGET[target](board.targets[target]?.menu ?? board.chip, board.family),
  ].filter(Boolean);
}

const FIRST: Record<TargetId, [string, string]> = {
  sketch: ["`bringup`", "`starter`"],
  micropython: ["`bringup.py`", "`main.py`"],
  "avr-c": ["`bringup`", "`main`"],
  python: ["`bringup.py`", "`main.py`"],
};

/** What bring-up shows, and how it goes on. */
const ASKED = `every part reports by itself, one line each. What a program can't know is asked: type y or n, press the contact, turn the knob.
The last line says how many parts are proven; \`ok\` stands there when all are.`;
const SHOWN = `every part does its turn, again and again: lights blink three times, contacts and voltages are told.
Nothing is typed to it: what is lit, pressed or turned is for you to judge.`;
const SHOWS: Record<TargetId, string> = {
  sketch: ASKED,
  micropython: ASKED,
  "avr-c": SHOWN,
  python: ASKED.replace("type y or n,", "type y or n and Enter,"),
};

/** The page about uploading that goes with the files of a target. */
export function uploadPage(
  c: Circuit,
  host: string,
  target: TargetId,
  more: readonly string[] = [],
  behind = "",
): FirmwareFile {
  const plan = fingerprint(c.project);
  const [first, then] = FIRST[target];
  return {
    path: "UPLOAD.md",
    text: `# Uploading: ${codeText(c.project.title) || "Project"}

For ${host}, ${codeText(c.netlist.instance(host)!.part.name)}. Plan ${plan}: the program prints these letters when it starts; the sheet that was wired carries the same.

${[...uploadSteps(c, host, target), ...more].map((u, i) => `${i + 1}. ${u}`).join("\n")}

In ${first} ${SHOWS[target]} Then comes ${then}. Code between the \`your code\` marks stays yours.
${behind}`,
  };
}
