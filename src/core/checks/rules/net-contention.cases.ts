import { AVR, changed, planned, part, USB, wire, type Case } from "../cases/build";

export const netContentionCases: Case[] = [
  {
    rule: "net.contention",
    severity: "stop",
    says: "two outputs of a shift register joined",
    bad: () => changed(planned([AVR, USB, part("M1", "module/74hc595")]), wire("M1.QA", "M1.QB")),
    near: () => planned([AVR, USB, part("M1", "module/74hc595")]),
    fix: "remove",
  },
];
