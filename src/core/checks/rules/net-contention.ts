import { isRail } from "../graph";
import type { Found, Rule } from "../types";

export const netContention: Rule = {
  rule: "net.contention",
  says: "Two outputs on one net fight: one pulls up while the other pulls down.",
  check: (c) =>
    c.netlist.nets.flatMap((n): Found[] => {
      // SPI parts take turns on their data line; `spi.miso-held` speaks for those that do not let go.
      // A gate that a signal opens and closes lets go as well.
      const turns = (ref: string, pin: string) => {
        const part = c.netlist.instance(ref)?.part;
        const gate = part?.channels.find((x) => x.out === pin)?.enable;
        const opened = gate !== undefined && !isRail(c.netlist.netOf(`${ref}.${gate}`));
        return opened || (part?.groups.some((g) => g.kind === "spi" && g.pins.miso === pin) ?? false);
      };
      const drivers = n.ends
        .filter((e) => e.as === "driver" && c.netlist.level(e.ref, e.pin)?.output === "push-pull")
        .filter((e, _i, all) => !turns(e.ref, e.pin) || !all.every((x) => turns(x.ref, x.pin)));
      const host = drivers.filter((e) => e.def.offers).map((e) => `${e.ref}.${e.pin}`);
      const used = c.netlist.bindings.filter((b) => host.includes(`${b.host}.${b.hostPin}`)).length;
      if (drivers.length < 2 || used > 1) return [];
      return [
        {
          rule: "net.contention",
          severity: "stop",
          at: drivers.map((e) => `${e.ref}.${e.pin}`),
          message: `${drivers.map((e) => `${e.ref}.${e.pin}`).join(" and ")} are outputs on one net and would fight. Do not power this.`,
          evidence: { outputs: drivers.length },
          fixes: c.project.links
            .filter((l) => drivers.some((e) => l.from === `${e.ref}.${e.pin}` || l.to === `${e.ref}.${e.pin}`))
            .slice(-1)
            .map((l) => ({
              id: "remove-wire",
              label: `Take out the wire from ${l.from} to ${l.to}`,
              edits: [{ type: "removeLink", from: l.from, to: l.to }],
            })),
        },
      ];
    }),
};
