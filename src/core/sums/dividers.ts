import { chooseDivider, sensorDivider } from "../circuit/formulas";
import { formatOhm, formatSI, formatV, within } from "../quantity";
import { dot, ground, pin, rail, two, wire, type Drawing } from "./drawing";
import type { Sum } from "./types";

function dividerDrawing(
  top: string,
  topKind: "resistor" | "sensor",
  topValue: string,
  lowKind: "resistor" | "sensor",
  lowValue: string,
  says: string,
): Drawing {
  return {
    width: 8,
    height: 9,
    says,
    items: [
      rail(3, 1, top),
      two(topKind, [3, 1], [3, 4], topKind === "sensor" ? "sensor" : "upper", topValue),
      dot(3, 4),
      wire([3, 4], [6, 4]),
      pin(6, 4, "pin", "right"),
      two(lowKind, [3, 4], [3, 7], lowKind === "sensor" ? "sensor" : "lower", lowValue),
      ground(3, 7),
    ],
  };
}

/** Two resistors that bring a signal down to what a pin takes. */
export const dividerSum: Sum = {
  id: "divider",
  name: "Divider for a signal that is too high",
  says: "The pair of resistors that stays under the pin's limit and still gives a sure high.",
  does: "The pin sees the part of the voltage that drops over the lower resistor: V · Rlower / (Rupper + Rlower).",
  without:
    "The pin sees the whole voltage, over what it stands: it draws current through its clamp and dies soon or late.",
  fields: [
    { key: "V", label: "High of the signal", unit: "V", value: 5, min: 1, max: 60 },
    { key: "tol", label: "It may vary by", unit: "%", value: 5, min: 0, max: 30 },
    { key: "VIH", label: "The pin needs for a high (VIH)", unit: "V", value: 2, min: 0.3, max: 20 },
    { key: "ceiling", label: "The pin takes at most", unit: "V", value: 3.5, min: 0.5, max: 30 },
    { key: "C", label: "Capacitance at the pin", unit: "F", value: 15e-12, min: 1e-12, max: 1e-9 },
  ],
  compute(v, owned) {
    const from = within(v.V!, v.tol! / 100);
    const d = chooseDivider({ from, VIH: v.VIH!, ceiling: v.ceiling!, owned: owned.resistors_ohm });
    if (!d)
      return {
        ok: false,
        message: `No pair keeps ${formatV(from.max)} under ${formatV(v.ceiling!)} and ${formatV(from.min)} over ${formatV(v.VIH!)}. Use a level shifter, or a signal that varies less.`,
      };
    const parallel = (d.top_ohm * d.bottom_ohm) / (d.top_ohm + d.bottom_ohm);
    const edge = 2.2 * parallel * v.C!;
    return {
      ok: true,
      answers: [
        { key: "top_ohm", label: "Upper resistor", value: d.top_ohm, unit: "Ω", main: true },
        { key: "bottom_ohm", label: "Lower resistor", value: d.bottom_ohm, unit: "Ω", main: true },
        { key: "out_min", label: "Arrives at least", value: d.out.min, unit: "V" },
        { key: "out_max", label: "Arrives at most", value: d.out.max, unit: "V" },
        { key: "load", label: "Loads the signal with", value: from.max / (d.top_ohm + d.bottom_ohm), unit: "A" },
        { key: "edge", label: "Edge time", value: edge, unit: "s" },
      ],
      steps: [
        `Vout = Vin · Rl / (Ru + Rl) = ${v.V} · ${d.bottom_ohm} / ${d.top_ohm + d.bottom_ohm} = ${formatV(d.out.typ)}`,
        `with 5 % resistors and ${v.tol} %: ${formatV(d.out.min)} to ${formatV(d.out.max)}`,
        `edge 10 to 90 %: 2.2·R·C = 2.2 · ${formatOhm(parallel)} · ${formatSI(v.C!, "F")} = ${formatSI(edge, "s")}`,
      ],
      warnings: [],
      drawing: dividerDrawing(
        `signal ${formatV(v.V!)}`,
        "resistor",
        formatOhm(d.top_ohm),
        "resistor",
        formatOhm(d.bottom_ohm),
        `The signal goes through ${formatOhm(d.top_ohm)} to the pin, and from the pin ${formatOhm(d.bottom_ohm)} goes to ground.`,
      ),
    };
  },
};

/** The fixed resistor beside a light or heat sensor. */
export const sensorSum: Sum = {
  id: "sensor",
  name: "Resistor for a light or heat sensor",
  says: "The fixed resistor that makes the widest swing, and what the converter then tells apart.",
  does: "Sensor and resistor divide the supply; the voltage between them moves with the sensor. It moves most when the resistor is the geometric mean of both ends.",
  without: "A converter measures voltage, not resistance: a bare sensor at a pin reads at random.",
  fields: [
    { key: "V", label: "Supply of the divider", unit: "V", value: 3.3, min: 1, max: 30 },
    { key: "min_ohm", label: "Sensor at its lowest", unit: "Ω", value: 1000, min: 1, max: 1e7 },
    { key: "max_ohm", label: "Sensor at its highest", unit: "Ω", value: 100_000, min: 2, max: 2e7 },
    { key: "bits", label: "Bits of the converter", unit: "", value: 10, min: 6, max: 24, whole: true },
    { key: "full_V", label: "The converter reads full at", unit: "V", value: 3.3, min: 0.5, max: 30 },
    {
      key: "up",
      label: "The sensor sits",
      unit: "",
      value: 1,
      min: 0,
      max: 1,
      choices: [
        { value: 1, label: "between supply and pin" },
        { value: 0, label: "between pin and ground" },
      ],
    },
  ],
  compute(v, owned) {
    if (v.min_ohm! >= v.max_ohm!) return { ok: false, message: "The lowest resistance must be below the highest." };
    const s = sensorDivider({
      V: v.V!,
      min_ohm: v.min_ohm!,
      max_ohm: v.max_ohm!,
      sensorUp: v.up === 1,
      bits: v.bits!,
      full_V: v.full_V!,
      owned: owned.resistors_ohm,
    });
    const warnings: string[] = [];
    if (s.source_ohm > 10_000)
      warnings.push(
        `The converter looks into up to ${formatOhm(s.source_ohm)}; many want 10 kΩ or less. Add 100 nF from the pin to ground and sample slowly.`,
      );
    if (v.V! > v.full_V! * 1.02)
      warnings.push(`The divider's supply is above what the converter reads: the top is cut off.`);
    const mine = formatOhm(s.ohm);
    return {
      ok: true,
      answers: [
        { key: "ohm", label: "Fixed resistor", value: s.ohm, unit: "Ω", main: true },
        { key: "at_min_V", label: "At the lowest resistance", value: s.at_min_V, unit: "V" },
        { key: "at_max_V", label: "At the highest resistance", value: s.at_max_V, unit: "V" },
        { key: "steps", label: "Steps between both ends", value: s.steps, unit: "" },
        { key: "sensor_W", label: "Heat in the sensor", value: s.sensor_W, unit: "W" },
      ],
      steps: [
        `R = √(Rmin·Rmax) = √(${formatOhm(v.min_ohm!)} · ${formatOhm(v.max_ohm!)}) = ${formatOhm(s.exact)}, nearest value ${mine}`,
        `swing ${formatV(s.swing_V)} of ${formatV(v.full_V!)} full scale: ${s.steps} of ${2 ** v.bits! - 1} steps`,
      ],
      warnings,
      drawing: dividerDrawing(
        formatV(v.V!),
        v.up ? "sensor" : "resistor",
        v.up ? "" : mine,
        v.up ? "resistor" : "sensor",
        v.up ? mine : "",
        `${v.up ? "The sensor goes from the supply to the pin, " + mine + " from the pin" : mine + " goes from the supply to the pin, the sensor from the pin"} to ground.`,
      ),
    };
  },
};
