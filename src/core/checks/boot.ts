import type { Circuit } from "../circuit";
import { formatOhm } from "../quantity";
import { restOf } from "../circuit/solve";
import { decidingNet } from "./graph";

/** What a part's input sees from power-on until the program sets the pin. */
export interface BootState {
  ref: string;
  pin: string;
  host: string;
  hostPin: string;
  state: "high" | "low" | "open" | "own";
  by: string;
  /** The pin must not float meanwhile. */
  matters: boolean;
  /** What the chip wants to see there while it starts. */
  wants: "high" | "low" | null;
}

/** The state of every pin that the board drives, before the program does: held by a resistor, by the chip, by the part, or open. */
export function bootStates(c: Circuit): BootState[] {
  return c.netlist.bindings.flatMap((b): BootState[] => {
    const inst = c.netlist.instance(b.ref)!;
    const host = c.netlist.instance(b.host)!.part;
    const def = inst.part.pins.find((p) => p.label === b.pin);
    const hostPin = host.pins.find((p) => p.label === b.hostPin);
    const drives = ["digital-out", "pwm"].includes(b.need.kind) || (b.need.kind === "spi" && b.need.role !== "miso");
    const strap = hostPin?.hazards?.find((h) => h.kind === "strapping");
    if (!host.board || !def || (!drives && !strap) || b.chainedAfter) return [];
    const { net } = decidingNet(c, b.ref, b.pin);
    const rest = restOf(c.solved, net.id);
    const base = {
      ref: b.ref,
      pin: b.pin,
      host: b.host,
      hostPin: b.hostPin,
      matters: def.mustNotFloat ?? false,
      wants: strap?.want ?? null,
    };
    const rail = rest?.way.end.kind === "rail" ? rest.way.end.net.name : "a pull each way";
    if (rest)
      return [
        { ...base, state: rest.V > 0 && rest.side !== "low" ? "high" : "low", by: `${formatOhm(rest.ohm)} to ${rail}` },
      ];
    if (def.restsAt) return [{ ...base, state: def.restsAt, by: "the part itself" }];
    if (strap?.want) return [{ ...base, state: strap.want, by: "the board, at this pin" }];
    if (host.board.resetPull)
      return [
        { ...base, state: host.board.resetPull === "up" ? "high" : "low", by: "the chip, until the program starts" },
      ];
    return [{ ...base, state: "open", by: "nothing" }];
  });
}
