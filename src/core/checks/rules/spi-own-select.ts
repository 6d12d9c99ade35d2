import { spiBuses } from "../../circuit/buses";
import { label, moveFix } from "../help";
import type { Found, Rule } from "../types";

/** On AVRs the controller falls out of its role when its own select pin is an input and goes low. */
export const spiOwnSelect: Rule = {
  rule: "spi.own-select",
  says: "On AVRs the SPI controller's own select pin must be an output: as an input that goes low it stops the bus.",
  check: (c) =>
    spiBuses(c).flatMap((b) => {
      const board = b.host ? c.netlist.instance(b.host)?.part : undefined;
      if (!b.host || board?.board?.family !== "avr") return [];
      const own = board.pins.filter((p) =>
        p.offers?.some((o) => o.kind === "spi" && o.bus === b.bus && o.role === "cs"),
      );
      return c.netlist.bindings
        .filter((x) => x.host === b.host && own.some((p) => p.label === x.hostPin))
        .filter((x) => ["digital-in", "interrupt", "adc", "digital-io"].includes(x.need.kind))
        .map((x): Found => ({
          rule: "spi.own-select",
          severity: "risk",
          at: [`${x.ref}.${x.pin}`, `${b.host}.${x.hostPin}`],
          message: `${x.ref}.${x.pin} is read at ${b.host}.${x.hostPin}, the SPI controller's own select: when it goes low, the bus with ${b.members.map((m) => label(c, m.ref)).join(", ")} stops.`,
          evidence: { pin: x.hostPin, bus: b.bus ?? b.sck.name },
          fixes: () => moveFix(c, x.ref, x.pin, b.host!, x.need),
        }));
    }),
};
