import { spiBuses, type SpiBus } from "../../circuit/buses";
import { findPin } from "../../parts/catalogue";
import type { Net } from "../../circuit/netlist";
import { freePin, label, linkOf } from "../help";
import type { Found, Rule } from "../types";

export const spiCsShared: Rule = {
  rule: "spi.cs-shared",
  says: "Every part on an SPI bus needs a select line of its own.",
  check: (c) =>
    spiBuses(c).flatMap((b) => {
      const bySelect = new Map<Net, SpiBus["members"]>();
      for (const m of b.members)
        if (m.csNet && m.csNet.kind !== "ground" && m.csNet.ends.length > 1)
          bySelect.set(m.csNet, [...(bySelect.get(m.csNet) ?? []), m]);
      return [...bySelect].flatMap(([net, list]): Found[] => {
        if (list.length < 2) return [];
        const last = list.at(-1)!;
        const end = `${last.ref}.${last.cs}`;
        const need = findPin(c.netlist.instance(last.ref)!.part, last.cs!)?.need;
        const pin = need && b.host ? freePin(c, b.host, need) : null;
        const link = b.host ? linkOf(c, last.ref, last.cs!, b.host) : undefined;
        return [
          {
            rule: "spi.cs-shared",
            severity: "fault",
            at: list.map((m) => `${m.ref}.${m.cs}`),
            message: `${list.map((m) => label(c, m.ref)).join(" and ")} are selected by one line (${net.name}): both would answer at once.`,
            evidence: { members: list.length },
            fixes:
              pin && link
                ? [
                    {
                      id: "own-select",
                      label: `Move ${end} to ${pin}`,
                      edits: [
                        {
                          type: "moveLink",
                          end,
                          from: link.from === end ? link.to : link.from,
                          to: `${b.host}.${pin}`,
                        },
                      ],
                    },
                  ]
                : [],
          },
        ];
      });
    }),
};
