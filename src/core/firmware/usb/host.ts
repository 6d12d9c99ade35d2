import type { Circuit } from "../../circuit";
import type { DriverPart } from "../types";
import { eventId, eventTakes, eventWords, ROLE, type UsbEvent } from "./events";
import { usbLacks } from "./ways";

/** A board as it stands to the computer. */
export interface UsbHost {
  ref: string;
  /** `serial`, `keyboard`, `midi` or `joystick`: what was chosen for it. */
  role: string;
  /** What its rules tell when they send something, or why this board's program can't. */
  out(e: UsbEvent): DriverPart | string;
}

const SAYS: Record<string, string> = {
  keyboard: "a keyboard",
  midi: "a MIDI instrument",
  joystick: "a game controller",
};

/** How a board's program sends to the computer. */
export function usbHostOf(c: Circuit, host: string, target: string): UsbHost {
  const inst = c.netlist.instance(host)!;
  const board = inst.part.board!;
  const role = String(c.project.parts.find((p) => p.ref === host)?.options?.usbRole ?? "serial");
  const made = new Map<string, DriverPart>();
  return {
    ref: host,
    role,
    out(e) {
      const wanted = ROLE[e.kind];
      if (role !== wanted)
        return `${inst.label} is ${SAYS[role] ?? "a serial port"} to the computer; at Parts choose ${SAYS[wanted]} for it`;
      if (board.usb.kind !== "native")
        return `${board.chip} has no USB of its own, so it can't be ${SAYS[wanted]}; a bridge that can be written anew is a chip of its own`;
      const why = usbLacks(board.family, target, e);
      if (why !== null) return why;
      const id = eventId(e);
      const known = made.get(id);
      if (known) return known;
      const none = () => "";
      const part: DriverPart = {
        inst,
        board,
        target,
        ref: host,
        id,
        label: eventWords(e),
        pin: none,
        printed: none,
        has: () => false,
        pulled: new Set(),
        options: {},
        vars: {},
        chain: 1,
        address: undefined,
        leg: "",
        activeLow: false,
        pull: "external",
        bus: "",
        soft: false,
        usb: { event: e, takes: eventTakes(e) },
      };
      made.set(id, part);
      return part;
    },
  };
}
