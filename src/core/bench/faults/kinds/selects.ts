import { splitEnd } from "../../../project";
import type { FaultKind, Weighted } from "../types";
import { exchanged, named } from "../around";

export const selects: FaultKind = {
  id: "selects",
  name: "chip selects of two parts swapped",
  often: 1,
  because: "all other wires of such parts are the same, only this one differs",
  minutes: 1,
  find(laid) {
    const list = laid.c.netlist.bindings.filter(
      (b) =>
        b.direct && laid.c.netlist.instance(b.ref)!.part.groups.some((g) => g.kind === "spi" && g.pins.cs === b.pin),
    );
    return list.flatMap((a, i) =>
      list.slice(i + 1).flatMap((b): Weighted[] => {
        if (a.host !== b.host || a.ref === b.ref) return [];
        const [x, y] = [`${a.ref}.${a.pin}`, `${b.ref}.${b.pin}`];
        return [
          {
            id: `${x} ${y}`,
            at: [x, y],
            says: `The select wires of ${named(laid, splitEnd(x).ref)} and ${named(laid, splitEnd(y).ref)} are swapped`,
            mend: "Exchange the two select wires.",
            change: exchanged(
              laid,
              new Map([
                [x, y],
                [y, x],
              ]),
            ),
          },
        ];
      }),
    );
  },
};
