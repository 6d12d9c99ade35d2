import { uartLinks, type UartLink } from "../../circuit/buses";
import { findPin } from "../../parts/catalogue";
import { label, moveFix } from "../help";
import type { Found, Rule } from "../types";

export const uartShared: Rule = {
  rule: "uart.shared",
  says: "A serial port talks to one part: two would talk at once, and both hear what is meant for one.",
  check: (c) => {
    const ports = new Map<string, UartLink[]>();
    const all = uartLinks(c);
    for (const u of all)
      if (u.ports.length === 1)
        ports.set(`${u.host}:${u.ports[0]}`, [...(ports.get(`${u.host}:${u.ports[0]}`) ?? []), u]);
    // Where the chip routes freely, one pin with two parts on it still is one port.
    for (const u of all)
      for (const l of u.lines) {
        const key = `${u.host}:${l.hostPin}`;
        const together = all.filter(
          (x) => x.host === u.host && x.ports.length > 1 && x.lines.some((y) => y.hostPin === l.hostPin),
        );
        if (together.length > 1) ports.set(key, together);
      }
    return [...ports].flatMap(([port, list]): Found[] => {
      if (list.length < 2) return [];
      const last = list.at(-1)!;
      const inst = c.netlist.instance(last.ref)!;
      return [
        {
          rule: "uart.shared",
          severity: "fault",
          at: list.map((u) => `${u.ref}.${u.lines[0]!.pin}`),
          message: `${list.map((u) => label(c, u.ref)).join(" and ")} are both on ${port.split(":")[1]} of ${label(c, last.host)}. Give each a port of its own.`,
          evidence: { parts: list.length, port: port.split(":")[1]! },
          fixes:
            last.lines.length === 1
              ? moveFix(
                  c,
                  last.ref,
                  last.lines[0]!.pin,
                  last.host,
                  findPin(inst.part, last.lines[0]!.pin)!.need!,
                  // A pin of a port that another part uses would only move the trouble.
                  new Set(all.filter((u) => u.host === last.host && u.ports.length === 1).map((u) => u.ports[0]!)),
                )
              : [],
        },
      ];
    });
  },
};
