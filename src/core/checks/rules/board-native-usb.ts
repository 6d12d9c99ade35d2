import { label } from "../help";
import type { Found, Rule } from "../types";

/** What the program is to the computer at the other end needs a chip that speaks USB itself. */
export const boardNativeUsb: Rule = {
  rule: "board.native-usb",
  says: "A keyboard, a MIDI instrument or a game controller needs a chip with USB of its own, not a serial bridge.",
  check: (c) =>
    c.netlist.expanded.hosts.flatMap((host): Found[] => {
      const board = c.netlist.instance(host)!.part.board!;
      const role = c.project.parts.find((p) => p.ref === host)?.options?.usbRole;
      if (!role || role === "serial" || board.usb.kind === "native") return [];
      return [
        {
          rule: "board.native-usb",
          severity: "fault",
          at: [host],
          message: `${label(c, host)} is meant to be a ${String(role)} to the computer, but its ${board.chip} ${board.usb.kind === "bridge" ? "only has a serial bridge" : "has no USB"}. Choose a board with native USB.`,
          evidence: { usb: board.usb.kind, role: String(role) },
          fixes: [],
        },
      ];
    }),
};
