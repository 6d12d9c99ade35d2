import { spiBuses, type SpiMember } from "../../circuit/buses";
import { findPin } from "../../parts/catalogue";
import type { Circuit } from "../../circuit";
import type { BasicEdit } from "../../project";
import { freePin, label, linkOf } from "../help";
import type { Fix, Found, Rule } from "../types";

/** Its two lines on ordinary pins of their own, timed by the program. */
function ownLines(c: Circuit, host: string, m: SpiMember): Fix[] {
  const part = c.netlist.instance(m.ref)!.part;
  const lines = Object.values(part.groups.find((g) => g.id === m.group)!.pins);
  const taken = new Set<string>();
  const edits: BasicEdit[] = [{ type: "setSoftware", ref: m.ref, group: m.group, software: true }];
  for (const line of lines) {
    const link = findPin(part, line)?.need ? linkOf(c, m.ref, line, host) : undefined;
    if (!link) continue;
    const pin = freePin(c, host, { kind: "digital-out" }, new Set(), taken);
    if (!pin) return [];
    taken.add(pin);
    const end = `${m.ref}.${line}`;
    edits.push({ type: "moveLink", end, from: link.from === end ? link.to : link.from, to: `${host}.${pin}` });
  }
  return taken.size
    ? [{ id: "own-lines", label: `Give ${m.ref} lines of its own: ${[...taken].join(" and ")}`, edits }]
    : [];
}

export const spiNoSelect: Rule = {
  rule: "spi.no-select",
  says: "A part on SPI without a select line needs a clock of its own: it takes what is meant for others.",
  check: (c) =>
    spiBuses(c).flatMap((b): Found[] => {
      const bare = b.members.filter((m) => m.cs === null);
      const others = b.members.filter((m) => m.cs !== null);
      if (!bare.length || b.members.length < 2) return [];
      const rest = others.length ? others : bare.slice(1);
      return [
        {
          rule: "spi.no-select",
          severity: "risk",
          at: bare.map((m) => m.ref),
          message: `${label(c, bare[0]!.ref)} has no select line and shares its clock with ${rest.map((m) => label(c, m.ref)).join(", ")}: it takes what is meant for ${rest.length > 1 ? "them" : "it"}, and shows anything.`,
          evidence: { members: b.members.length },
          fixes: () => (b.host ? ownLines(c, b.host, bare[0]!) : []),
        },
      ];
    }),
};
