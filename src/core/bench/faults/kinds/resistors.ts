import type { FaultKind, Weighted } from "../types";
import { named, standing } from "../around";
import { formatOhm } from "../../../quantity";

export const resistors: FaultKind = {
  id: "resistor",
  name: "a wrong or missing resistor",
  often: 0.5,
  because: "one ring read wrong is a decade; a wire in its place is quickly made",
  minutes: 2,
  find: (laid) =>
    standing(laid).flatMap((inst): Weighted[] => {
      const r = laid.elements.find((e) => e.of.ref === inst.ref && e.of.kind === "resistor");
      if (!r || inst.part.pins.length !== 2 || inst.part.elements.length !== 1 || !(r.of.ohm! > 0)) return [];
      const right = r.of.ohm!;
      const as = (id: string, ohm: number, says: string, times: number): Weighted => ({
        id: `${inst.ref} ${id}`,
        at: [inst.ref],
        says,
        mend: `Put in ${formatOhm(right)}; measure it before.`,
        times,
        change: { ohm: [{ ref: inst.ref, ohm }] },
      });
      const who = named(laid, inst.ref);
      return [
        as(
          "high",
          right * 10,
          `${who} is ten times too large: ${formatOhm(right * 10)} instead of ${formatOhm(right)}`,
          0.5,
        ),
        as(
          "low",
          right / 10,
          `${who} is ten times too small: ${formatOhm(right / 10)} instead of ${formatOhm(right)}`,
          0.5,
        ),
        as("none", 0.05, `A wire stands where ${who} should be: ${formatOhm(right)} are missing`, 0.3),
      ];
    }),
};
