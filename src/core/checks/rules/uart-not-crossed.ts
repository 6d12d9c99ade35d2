import { uartLinks, type UartLink } from "../../circuit/buses";
import type { Circuit } from "../../circuit";
import { splitEnd } from "../../project";
import { label, linkOf } from "../help";
import type { Found, Fix, Rule } from "../types";

/** Swaps the two data wires of a serial link. */
function crossFix(c: Circuit, u: UartLink): Fix[] {
  const link = (pin: string) => linkOf(c, u.ref, pin, u.host);
  const [a, b] = u.lines;
  const [la, lb] = [a && link(a.pin), b && link(b.pin)];
  if (!a || !b || !la || !lb) return [];
  const far = (l: { from: string; to: string }) => (splitEnd(l.from).ref === u.ref ? l.to : l.from);
  return [
    {
      id: "cross",
      label: `Cross them: ${a.pin} to ${splitEnd(far(lb)).pin}, ${b.pin} to ${splitEnd(far(la)).pin}`,
      edits: [
        { type: "removeLink", from: la.from, to: la.to },
        { type: "removeLink", from: lb.from, to: lb.to },
        { type: "addLink", link: { from: `${u.ref}.${a.pin}`, to: far(lb) } },
        { type: "addLink", link: { from: `${u.ref}.${b.pin}`, to: far(la) } },
      ],
    },
  ];
}

export const uartNotCrossed: Rule = {
  rule: "uart.not-crossed",
  says: "One side's transmit goes to the other side's receive: TX to RX, RX to TX.",
  check: (c) =>
    uartLinks(c).flatMap((u): Found[] => {
      const wrong = u.lines.filter((l) => !l.crossed);
      if (!wrong.length) return [];
      return [
        {
          rule: "uart.not-crossed",
          severity: "fault",
          at: wrong.flatMap((l) => [`${u.ref}.${l.pin}`, `${u.host}.${l.hostPin}`]),
          message: `${wrong.map((l) => `${u.ref}.${l.pin} meets ${u.host}.${l.hostPin}`).join(" and ")}: ${label(c, u.ref)}'s TX belongs to the board's RX, and its RX to the board's TX.`,
          evidence: { lines: wrong.length },
          fixes: () => crossFix(c, u),
        },
      ];
    }),
};
