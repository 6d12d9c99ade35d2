import type { FaultKind, Weighted } from "../types";
import { turnedRound } from "../../../parts/catalogue";
import { exchanged, named, standing, wiredPins } from "../around";

/** Loose parts for which it matters which leg is where. */
const POLAR: ReadonlySet<string> = new Set(["led", "diode", "bjt", "fet"]);

export const turned: FaultKind = {
  id: "turned",
  name: "a part or plug turned round",
  often: 0.7,
  because: "a light, a diode or a plug that fits both ways",
  minutes: 1,
  find: (laid) =>
    standing(laid).flatMap((inst): Weighted[] => {
      const { ref, part } = inst;
      const pins = part.pins.filter((p) => p.role !== "cable").map((p) => `${ref}.${p.label}`);
      if (part.board || pins.length < 2 || pins.length > 40 || wiredPins(laid, ref).length < 2) return [];
      const polar =
        part.elements.some((e) => POLAR.has(e.kind) || (e.kind === "capacitor" && e.polar)) ||
        Object.keys(part.supplies).length > 0;
      if (!polar) return [];
      const end = (label: string | null) => (label === null ? null : `${ref}.${label}`);
      const to = new Map([...turnedRound(inst.reading)].map(([a, b]) => [`${ref}.${a}`, end(b)]));
      const change = exchanged(laid, to);
      if (!change.cut.length) return [];
      const loose = pins.length <= 3 && !Object.keys(part.supplies).length;
      return [
        {
          id: ref,
          at: [ref],
          says: `${named(laid, ref)} is the wrong way round`,
          mend: loose
            ? "Turn it round."
            : "Take the power away, turn the part or its plug round. It may have suffered.",
          times: loose ? 1 : 0.3,
          change,
        },
      ];
    }),
};
