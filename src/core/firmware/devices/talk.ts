import { count, must, pin, read, wait, work, write } from "./steps";
import type { Device, Step } from "./types";

/**
 * What comes over a serial port is anything: how many bytes have come, and the last of them. What is sent back is up to the
 * person's own code.
 */
const heard: Step[] = [read(3), work("heard", "u8(0)"), work("letter", "u8(1)")];
const OUT = [count("heard", "heard", [0, 255]), count("letter", "last", [0, 255])];

/** Bluetooth or a cable: whoever is at the other end sends letters. */
const listener = (id: string, act: string): Device => ({
  id,
  over: { kind: "uart", frame: "any" },
  begin: [],
  read: heard,
  every: 50,
  out: OUT,
  proof: { kind: "watch", act, by: 1, steady: true },
});
export const hc05 = listener("module/hc05", "join it from a phone or a computer and send a letter");
const ADAPTER = "open its port on the computer at the planned speed and type a letter";
export const usbUart3v3 = listener("module/usb-uart-3v3", ADAPTER);
export const usbUart5v = listener("module/usb-uart-5v", ADAPTER);

/** MAX3485 and MAX485: with its driver and its receiver on it hears itself, and not with its driver off, which proves both. Then it listens. */
const lineDriver = (id: string): Device => ({
  id,
  over: { kind: "uart", frame: "any" },
  begin: [
    // Its driver off: nothing may come of what is sent. Then on, and off again whatever comes of it.
    pin("RE", 0),
    pin("DE", 0),
    read(3),
    work("before", "u8(0)"),
    write(0x33),
    wait(10),
    read(3),
    must("u8(0) == before"),
    pin("DE", 1),
    write(0x55, 0xa7),
    wait(10),
    pin("DE", 0),
    read(3),
    must("u8(0) == (before + 2 & 255) & u8(1) == 0xA7"),
  ],
  read: heard,
  every: 50,
  out: OUT,
});
export const max3485 = lineDriver("module/max3485");
export const max485 = lineDriver("module/max485");

/** A player of pieces on a card: frames of ten bytes, their sum in the ninth and tenth. 0 is silence. */
const play = (command: number | string, high: number | string, low: number | string): Step[] => [
  work("c", String(command)),
  work("h", String(high)),
  work("l", String(low)),
  work("n", "-(0xFF + 6 + c + h + l)"),
  write(0x7e, 0xff, 0x06, "c", 0x00, "h", "l", "n >> 8 & 255", "n & 255", 0xef),
];
export const mp3Player: Device = {
  id: "module/mp3-player",
  over: { kind: "uart", frame: "any" },
  // It looks through its card first; then the volume, 18 of 30.
  begin: [wait(2000), ...play(0x06, 0, 18), wait(100)],
  read: play("want == 0 ? 0x16 : 0x03", "want >> 8", "want & 255"),
  every: 200,
  out: [],
  takes: { word: "piece", unit: "", digits: 0, range: [0, 2999], rest: 0, on: 1 },
  proof: {
    kind: "seen",
    show: [1, 2, 0],
    question: "Did it play the first piece, then the second, then stop?",
    ms: 3000,
  },
};
