import { label } from "../help";
import type { Found, Rule } from "../types";

export const boardSolder: Rule = {
  rule: "board.solder",
  says: "A board without soldered headers makes no contact in a breadboard.",
  check: (c) =>
    c.netlist.expanded.hosts.flatMap((host): Found[] => {
      const part = c.netlist.instance(host)!.part;
      // Without an iron `part.solder` speaks, of all parts at once.
      if (part.board!.headersSoldered || !part.id.startsWith("board/") || !c.project.brief.iron) return [];
      return [
        {
          rule: "board.solder",
          severity: "note",
          at: [host],
          message: `${label(c, host)} usually comes with its pin headers loose: solder them before anything is wired. Pins that are only pushed through make no contact.`,
          evidence: { headers: part.board!.headers.length },
          fixes: [],
        },
      ];
    }),
};
