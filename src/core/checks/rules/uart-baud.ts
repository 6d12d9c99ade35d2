import { uartLinks } from "../../circuit/buses";
import { label, round } from "../help";
import type { Found, Rule } from "../types";

const RISK = 0.02;

const FAULT = 0.04;

const pct = (x: number) => `${(x * 100).toFixed(1)} %`;

export const uartBaud: Rule = {
  rule: "uart.baud",
  says: "Both ends must agree on the rate within a few percent: at 2 % noise starts to matter, at 4 % bits are read wrong.",
  check: (c) =>
    uartLinks(c).flatMap((u): Found[] => {
      if (u.total <= RISK) return [];
      const option = c.netlist.instance(u.ref)?.part.options.find((o) => o.key === "baud");
      const board = c.netlist.instance(u.host)!.part.board!;
      const chip = c.netlist.instance(u.host)!.part.options.find((o) => o.key === "clock_Hz");
      const crystal = chip?.kind === "choice" ? chip.choices.find((x) => /crystal/.test(x.label)) : undefined;
      const slower =
        option?.kind === "choice" ? option.choices.filter((x) => Number(x.value) < u.baud).at(-1) : undefined;
      return [
        {
          rule: "uart.baud",
          severity: u.console ? "note" : u.total > FAULT ? "fault" : "risk",
          at: [u.ref, u.host],
          message: `${u.baud} baud for ${label(c, u.ref)} is ${u.real.real.toFixed(0)} on the ${board.chip} (${u.real.how}): ${pct(Math.abs(u.real.error))} off${board.clockTolerance ? `, and its clock may be ${pct(board.clockTolerance)} off besides${crystal && board.clockTolerance > 0.001 ? " (the chip's own oscillator: usually this good near 25 °C, promised only to 10 %)" : ""}` : ""}.`,
          evidence: {
            asked: u.baud,
            real: round(u.real.real, 0),
            error_pct: round(u.real.error * 100, 2),
            worst_pct: round(u.total * 100, 2),
          },
          fixes: [
            ...(slower && Math.abs(u.real.error) > RISK / 2
              ? [
                  {
                    id: "slower",
                    label: `Set ${label(c, u.ref)} to ${slower.value} baud`,
                    edits: [{ type: "setOption" as const, ref: u.ref, key: "baud", value: slower.value }],
                  },
                ]
              : []),
            ...(crystal && board.clockTolerance && board.clockTolerance > 0.001
              ? [
                  {
                    id: "crystal",
                    label: `Give ${label(c, u.host)} a crystal: ${crystal.label}`,
                    edits: [{ type: "setOption" as const, ref: u.host, key: "clock_Hz", value: crystal.value }],
                  },
                ]
              : []),
          ],
        },
      ];
    }),
};
