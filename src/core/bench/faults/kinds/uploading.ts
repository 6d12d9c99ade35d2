import type { UploadSays } from "../../laid/change";
import type { Laid } from "../../laid/laid";
import type { FaultKind, Weighted } from "../types";
import { named } from "../around";

interface Way {
  id: string;
  says(who: string): string;
  mend: string;
  shows: UploadSays;
  /** Nor does anything come through to the console. */
  silent: boolean;
  times: number;
  /** Boards to which it can happen. */
  fits(laid: Laid, host: string): boolean;
}

const boardOf = (laid: Laid, host: string) => laid.c.netlist.instance(host)!.part;
const usb = (laid: Laid, host: string) => boardOf(laid, host).board!.usb.kind;
const plugged = (laid: Laid, host: string) =>
  usb(laid, host) !== "none" && laid.wires.some((w) => w.cable && [w.a, w.b].some((e) => e.startsWith(`${host}.`)));

/** Something of the build hangs on the pins over which the board is programmed and talks. */
const consoleInUse = (laid: Laid, host: string) =>
  boardOf(laid, host).pins.some(
    (p) =>
      p.hazards?.some((h) => h.kind === "console") &&
      laid.wires.some((w) => !w.cable && [w.a, w.b].includes(`${host}.${p.label}`)),
  );

const WAYS: readonly Way[] = [
  {
    id: "charging cable",
    says: (who) => `The USB cable of ${who} only charges: it has no data wires`,
    mend: "Take a cable with which something else was read or written before.",
    shows: "no port",
    silent: true,
    times: 1,
    fits: plugged,
  },
  {
    id: "driver",
    says: (who) => `The computer has no driver for the serial bridge of ${who}`,
    mend: "Install the driver of the bridge's chip (Firmware, the upload page names it), then plug the board in again.",
    shows: "no port",
    silent: true,
    times: 0.7,
    fits: (laid, host) => plugged(laid, host) && usb(laid, host) === "bridge",
  },
  {
    id: "port in use",
    says: (who) => `Another program holds the port of ${who}`,
    mend: "Close every serial monitor and disconnect here, then upload again.",
    shows: "busy",
    silent: false,
    times: 0.8,
    fits: plugged,
  },
  {
    id: "bootloader",
    says: (who) => `The board settings name another bootloader than ${who} has`,
    mend: "Choose the other bootloader in the board settings: older boards of this kind are slower.",
    shows: "no answer",
    silent: false,
    times: 0.8,
    fits: (laid, host) =>
      plugged(laid, host) && usb(laid, host) === "bridge" && boardOf(laid, host).board!.family === "avr",
  },
  {
    id: "port",
    says: (who) => `Another port than that of ${who} is chosen`,
    mend: "Pull the plug, see which port goes, plug it in again and choose that one.",
    shows: "no answer",
    silent: false,
    times: 0.6,
    fits: plugged,
  },
  {
    id: "board",
    says: (who) => `Another board than ${who} is chosen in the settings`,
    mend: "Choose the board that the upload page names.",
    shows: "wrong chip",
    silent: false,
    times: 0.6,
    fits: (laid, host) => plugged(laid, host),
  },
  {
    id: "console pins",
    says: (who) => `What hangs on the console pins of ${who} disturbs the upload`,
    mend: "Pull those two wires while uploading.",
    shows: "no answer",
    silent: false,
    times: 2,
    fits: consoleInUse,
  },
];

export const uploading: FaultKind = {
  id: "uploading",
  name: "uploading fails",
  often: 0.4,
  because: "cable, driver, port, board or bootloader: nothing that a meter shows",
  minutes: 3,
  find: (laid) =>
    laid.c.netlist.expanded.hosts.flatMap((host): Weighted[] =>
      WAYS.filter((w) => w.fits(laid, host)).map((w) => ({
        id: `${host} ${w.id}`,
        at: [host],
        says: w.says(named(laid, host)),
        mend: w.mend,
        times: w.times,
        change: { upload: { host, says: w.shows, silent: w.silent } },
      })),
    ),
};
