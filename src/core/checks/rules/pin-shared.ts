import { sharedClashes, standingProblem } from "../../plan/assign";
import type { Circuit } from "../../circuit";
import { splitEnd } from "../../project";
import { moveFix } from "../help";
import type { Found, Rule, Severity } from "../types";
import { needOf } from "../pins";

/** Why two uses of a timer or a line exclude each other, and how much it matters. */
const SHARED: { rule: string; severity: Severity; says: string; of: (kind: string) => boolean; what: string }[] = [
  {
    rule: "pin.timer-conflict",
    severity: "risk",
    says: "Pins that get their pulses from one timer run at one rate; a servo, a note and a dimmed light want different ones.",
    of: (kind) => kind === "pwm",
    what: "The later one started wins",
  },
  {
    rule: "pin.interrupts",
    severity: "fault",
    says: "A chip watches a limited number of edges at once: pins that share a line can't both be watched.",
    of: (kind) => kind === "interrupt",
    what: "Only one of them will be noticed",
  },
];

const standingMemo = new WeakMap<Circuit["netlist"], Map<string, ReturnType<typeof standingProblem>>>();

const standing = (c: Circuit, host: string) => {
  const mine = standingMemo.get(c.netlist) ?? new Map<string, ReturnType<typeof standingProblem>>();
  standingMemo.set(c.netlist, mine);
  const there = mine.get(host) ?? standingProblem(c, host);
  mine.set(host, there);
  return there;
};

const sharedRule = ({ rule, severity, says, of, what }: (typeof SHARED)[number]): Rule => ({
  rule,
  says,
  check: (c) =>
    c.netlist.expanded.hosts.flatMap((host) => {
      const asks = c.netlist.bindings.filter((b) => b.host === host && of(needOf(c, b).kind));
      if (asks.length < 2) return [];
      return sharedClashes(standing(c, host))
        .filter((x) => of(x.a.need.kind) && of(x.b.need.kind))
        .map((x): Found => {
          const rates = x.slot === null ? ` (${x.a.id} ${x.modes[0]}, ${x.b.id} ${x.modes[1]})` : ` (${x.slot})`;
          return {
            rule,
            severity,
            at: [x.a.id, x.b.id],
            message: `${x.a.id} and ${x.b.id} both hang on ${x.says}${rates}. ${what}; move one of them.`,
            evidence: { shared: x.says, first: x.modes[0], second: x.modes[1] },
            fixes: () => moveFix(c, x.b.ref, splitEnd(x.b.id).pin, splitEnd(x.b.present!).ref, x.b.need),
          };
        });
    }),
});

export const pinSharedRules: readonly Rule[] = SHARED.map(sharedRule);
