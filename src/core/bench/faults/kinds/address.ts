import type { FaultKind, Weighted } from "../types";
import { named } from "../around";

export const wrongAddress: FaultKind = {
  id: "address",
  name: "another address than planned",
  often: 1,
  because: "modules of one kind come with either strap, and it is small",
  minutes: 5,
  find: (laid) =>
    laid.c.project.parts.flatMap((p): Weighted[] => {
      const part = laid.c.catalogue.get(p.part) ?? laid.c.project.customParts.find((x) => x.id === p.part);
      const inst = laid.c.netlist.instance(p.ref);
      const option = part?.options.find((o) => o.key === "address");
      const now = inst?.part.groups.find((g) => g.kind === "i2c")?.address;
      const wired = laid.c.netlist.bindings.some((b) => b.ref === p.ref && b.need.kind === "i2c");
      if (!inst || !now || !wired || option?.kind !== "choice") return [];
      return option.choices.flatMap(({ value: v }): Weighted[] =>
        v === now
          ? []
          : [
              {
                id: `${p.ref} ${v}`,
                at: [p.ref],
                says: `${named(laid, p.ref)} is strapped to ${v}, the plan says ${now}`,
                mend: "Set the strap as planned, or change the address in the plan.",
                times: 1 / Math.max(1, option.choices.length - 1),
                change: { address: { ref: p.ref, address: v } },
              },
            ],
      );
    }),
};
