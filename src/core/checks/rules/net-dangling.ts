import { elementsAt, isRail, netById, otherEnd } from "../graph";
import type { Found, Rule } from "../types";

/** A wire whose far end nothing listens to and nothing comes from. */
export const netDangling: Rule = {
  rule: "net.dangling",
  says: "A wire that leads nowhere does nothing, and picks up noise.",
  check: (c) =>
    c.project.links.flatMap((l): Found[] => {
      const net = c.netlist.netOf(l.from);
      if (!net || net.kind === "supply" || net.kind === "ground") return [];
      const works = (e: (typeof net.ends)[number]) =>
        ["driver", "receiver", "both", "source", "sink", "ground"].includes(e.as);
      // A programmer drives its lines, and listens, while it writes.
      const programs = (e: (typeof net.ends)[number]) => e.def.hook?.startsWith("isp-");
      if (net.ends.some((e) => works(e) || e.def.role === "cable" || e.def.need || programs(e))) return [];
      // The two wires of a line pair run from one line driver to the next.
      if (new Set(net.ends.filter((e) => e.def.bears_V).map((e) => e.ref)).size > 1) return [];
      const through = elementsAt(c, net.id);
      const leads = through.filter((el) => {
        const far = netById(c, otherEnd(el, net.id));
        return far && far !== net && (isRail(far) || far.ends.length > 1 || elementsAt(c, far.id).length > 1);
      });
      if (leads.length) return [];
      if (net.ends.some((e) => c.netlist.instance(e.ref)?.part.id.startsWith("connector/"))) return [];
      return [
        {
          rule: "net.dangling",
          severity: "note",
          at: [l.from, l.to],
          message: `The wire from ${l.from} to ${l.to} leads nowhere: nothing drives it and nothing listens.`,
          evidence: { net: net.name },
          fixes: [
            { id: "remove-wire", label: "Take the wire out", edits: [{ type: "removeLink", from: l.from, to: l.to }] },
          ],
        },
      ];
    }),
};
