import { isOwn, label } from "../help";
import type { Found, Rule } from "../types";

export const partOwnData: Rule = {
  rule: "part.own-data",
  says: "A part of the project's own, made here or come with its file: what is said of it is only as good as its data.",
  check: (c) => {
    const refs = new Map<string, string[]>();
    for (const { ref, part, inserted } of c.netlist.expanded.instances.values())
      if (!inserted && isOwn(c, part.id)) refs.set(part.id, [...(refs.get(part.id) ?? []), ref]);
    return [...refs].map(([id, list]): Found => {
      const part = c.netlist.instance(list[0]!)!.part;
      return {
        rule: "part.own-data",
        severity: "note",
        at: list,
        message: `${list.map((r) => label(c, r)).join(", ")}: the data of "${part.name}" (${id}) came with this project, not with the catalogue. Limits, levels and currents are judged by them; hold them against the data sheet before power.`,
        evidence: { parts: list.length, sources: part.sources.length },
        fixes: [],
      };
    });
  },
};
