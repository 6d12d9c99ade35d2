import { label } from "../help";
import type { Found, Rule } from "../types";

export const boardDriver: Rule = {
  rule: "board.driver",
  says: "A board with a serial bridge may need a driver on the computer, and the right kind of bootloader chosen.",
  check: (c) =>
    c.netlist.expanded.hosts.flatMap((host): Found[] => {
      const board = c.netlist.instance(host)!.part.board!;
      if (board.usb.kind !== "bridge") return [];
      return [
        {
          rule: "board.driver",
          severity: "note",
          at: [host],
          message: `${label(c, host)}: ${board.usb.says}`,
          evidence: { usb: board.usb.connector },
          fixes: [],
        },
      ];
    }),
};
