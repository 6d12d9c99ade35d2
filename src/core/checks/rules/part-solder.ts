import type { Instance } from "../../circuit/netlist";
import { houseRule } from "../../project";
import { solderWork } from "../../build/runsheet/words";
import { label } from "../help";
import type { Found, Rule } from "../types";

/** Whether somebody must solder at a part before it can be wired. */
const wantsIron = (i: Instance) =>
  !i.inserted && ((i.part.board && !i.part.board.headersSoldered) || solderWork(i, false) !== null);

export const partSolder: Rule = {
  rule: "part.solder",
  says: "Without a soldering iron, only what comes with its headers or wires on can be used.",
  check: (c) => {
    if (c.project.brief.iron) return [];
    const parts = [...c.netlist.expanded.instances.values()].filter(wantsIron);
    const out: Found[] = [];
    if (parts.length)
      out.push({
        rule: "part.solder",
        severity: "risk",
        at: parts.map((i) => i.ref),
        message: `No soldering iron is at hand, and ${parts.map((i) => label(c, i.ref)).join(", ")} usually ${parts.length > 1 ? "come" : "comes"} with headers or wires loose: ask for ${parts.length > 1 ? "them" : "it"} soldered, or have it done. Headers that are only pushed through make no contact.`,
        evidence: { parts: parts.length },
        fixes: [],
      });
    const host = c.netlist.expanded.hosts[0];
    if (houseRule(c.project, "firstBuild") === "solder" && host)
      out.push({
        rule: "part.solder",
        severity: "risk",
        at: [host],
        message: "The first build shall be soldered, but no soldering iron is at hand.",
        evidence: { firstBuild: "solder" },
        fixes: [
          {
            id: "breadboard",
            label: "Build it on a breadboard first",
            edits: [{ type: "setHouseRules", rules: { firstBuild: "breadboard" } }],
          },
        ],
      });
    return out;
  },
};
