import { debounce, nearest, optoStage, pullUpWindow } from "../circuit/formulas";
import { formatOhm, formatSI, formatV, within } from "../quantity";
import { dot, ground, pin, rail, two, wire } from "./drawing";
import type { Sum } from "./types";

/** A button read by a pin: the pull that holds it, by house rule. */
export const pullSum: Sum = {
  id: "pull",
  name: "Pull resistor for a button",
  says: "What holds a button's pin while it is open, what the contact carries, and how far a wire may be.",
  does: "The resistor holds the pin at one level; the button takes it to the other. Inside pull-ups do the same with 20 to 80 kΩ.",
  without: "The open pin floats: it reads high and low at random, and changes when a hand comes near.",
  fields: [
    { key: "V", label: "Logic voltage", unit: "V", value: 3.3, min: 1, max: 24 },
    { key: "I", label: "Current through the closed contact", unit: "A", value: 0.0003, min: 0.00001, max: 0.02 },
    { key: "leak", label: "Leakage of pin and wire", unit: "A", value: 1e-6, min: 0, max: 1e-4 },
    {
      key: "up",
      label: "Hold it",
      unit: "",
      value: 1,
      min: 0,
      max: 1,
      choices: [
        { value: 1, label: "up, the button to ground" },
        { value: 0, label: "down, the button to supply" },
      ],
    },
  ],
  compute(v, owned) {
    const exact = v.V! / v.I!;
    const ohm = nearest(exact, owned.resistors_ohm);
    const lost = ohm * v.leak!;
    const warnings =
      lost > v.V! * 0.1 ? [`Leakage takes ${formatV(lost)}: the level gets uncertain. Take a smaller resistor.`] : [];
    const up = v.up === 1;
    return {
      ok: true,
      answers: [
        { key: "ohm", label: "Pull resistor", value: ohm, unit: "Ω", main: true },
        { key: "I", label: "Through the closed contact", value: v.V! / ohm, unit: "A" },
        { key: "lost", label: "Lost to leakage", value: lost, unit: "V" },
      ],
      steps: [
        `R = V / I = ${formatV(v.V!)} / ${formatSI(v.I!, "A")} = ${formatOhm(exact)}, nearest value ${formatOhm(ohm)}`,
        `leakage: ${formatSI(v.leak!, "A")} · ${formatOhm(ohm)} = ${formatV(lost)}`,
      ],
      warnings,
      drawing: {
        width: 8,
        height: 9,
        says: `${formatOhm(ohm)} from the pin to ${up ? "the supply, the button from the pin to ground" : "ground, the button from the supply to the pin"}.`,
        items: [
          rail(3, 1, formatV(v.V!)),
          two(up ? "resistor" : "contact", [3, 1], [3, 4], up ? "pull-up" : "button", up ? formatOhm(ohm) : ""),
          dot(3, 4),
          wire([3, 4], [6, 4]),
          pin(6, 4, "pin", "right"),
          two(up ? "contact" : "resistor", [3, 4], [3, 7], up ? "button" : "pull-down", up ? "" : formatOhm(ohm)),
          ground(3, 7),
        ],
      },
    };
  },
};

/** Bounce of a contact filtered by a resistor and a capacitor. */
export const debounceSum: Sum = {
  id: "debounce",
  name: "Bounce filter for a contact",
  says: "The capacitor that outlasts the bounce, and how long press and release then take.",
  does: "A contact chatters for some milliseconds. The capacitor can only charge through the resistors, so the pin sees one slow step.",
  without:
    "One press counts as several, unless the program waits the bounce out (that costs nothing and is the usual way).",
  fields: [
    { key: "V", label: "Logic voltage", unit: "V", value: 5, min: 1, max: 24 },
    { key: "pull_ohm", label: "Pull-up", unit: "Ω", value: 10_000, min: 500, max: 200_000 },
    { key: "series_ohm", label: "Resistor behind the contact", unit: "Ω", value: 470, min: 0, max: 20_000 },
    { key: "bounce_s", label: "Bounce time", unit: "s", value: 0.005, min: 0.0001, max: 0.1 },
    { key: "VIH", label: "High from (VIH)", unit: "V", value: 3, min: 0.3, max: 20 },
    { key: "VIL", label: "Low up to (VIL)", unit: "V", value: 1.5, min: 0.1, max: 15 },
  ],
  compute(v, owned) {
    const d = debounce({
      V: v.V!,
      pull_ohm: v.pull_ohm!,
      series_ohm: v.series_ohm!,
      bounce_s: v.bounce_s!,
      VIH: v.VIH!,
      VIL: v.VIL!,
      owned: owned.capacitors_F,
    });
    if (!d)
      return {
        ok: false,
        message:
          v.VIH! >= v.V!
            ? "The pin's high must be below the logic voltage."
            : `The closed contact leaves ${formatV((v.V! * v.series_ohm!) / (v.series_ohm! + v.pull_ohm!))} at the pin, over its low of ${formatV(v.VIL!)}. Take a smaller resistor behind the contact.`,
      };
    return {
      ok: true,
      answers: [
        { key: "F", label: "Capacitor", value: d.F, unit: "F", main: true },
        { key: "release_s", label: "Release is seen after", value: d.release_s, unit: "s" },
        { key: "press_s", label: "Press is seen after", value: d.press_s, unit: "s" },
        { key: "low_V", label: "Low of the closed contact", value: d.low_V, unit: "V" },
      ],
      steps: [
        `t = −R·C·ln((V − VIH)/(V − Vlow)) ≥ ${formatSI(v.bounce_s!, "s")} gives C ≥ ${formatSI(d.exact_F, "F")}, next value up ${formatSI(d.F, "F")}`,
        `release ${formatSI(d.release_s, "s")}, press ${formatSI(d.press_s, "s")}`,
      ],
      warnings: [
        "Slow edges want a Schmitt input; a plain logic input may chatter in between.",
        ...(v.series_ohm! < 50
          ? ["Without a resistor the contact shorts the charged capacitor: its surface wears."]
          : []),
      ],
      drawing: {
        width: 9,
        height: 9,
        says: `The pull-up of ${formatOhm(v.pull_ohm!)} and ${formatSI(d.F, "F")} to ground sit at the pin; the contact reaches the pin through ${formatOhm(v.series_ohm!)}.`,
        items: [
          rail(5, 1, formatV(v.V!)),
          two("resistor", [5, 1], [5, 4], "pull-up", formatOhm(v.pull_ohm!)),
          dot(5, 4),
          wire([5, 4], [7.5, 4]),
          pin(7.5, 4, "pin", "right"),
          two("capacitor", [5, 4], [5, 7], "C", formatSI(d.F, "F")),
          ground(5, 7),
          two("resistor", [2, 4], [5, 4], "R", formatOhm(v.series_ohm!)),
          two("contact", [2, 4], [2, 7], "contact", ""),
          ground(2, 7),
        ],
      },
    };
  },
};

/** A signal across an optocoupler. */
export const optoSum: Sum = {
  id: "optocoupler",
  name: "Optocoupler between two circuits",
  says: "Resistor of the light, and the pull-up that its transistor can still pull low.",
  does: "A light inside shines on a transistor: the signal crosses, the grounds stay apart.",
  without: "Joined grounds carry noise, and a fault on one side reaches the other.",
  fields: [
    { key: "V_in", label: "High of the sending side", unit: "V", value: 5, min: 1.5, max: 30 },
    { key: "Vf", label: "Forward voltage of its light", unit: "V", value: 1.2, min: 0.9, max: 2 },
    { key: "I", label: "Current of the light", unit: "A", value: 0.005, min: 0.0005, max: 0.05 },
    { key: "ctr", label: "Smallest transfer ratio", unit: "%", value: 50, min: 5, max: 600 },
    { key: "V_out", label: "Logic voltage of the receiving side", unit: "V", value: 3.3, min: 1.5, max: 24 },
  ],
  compute(v, owned) {
    const o = optoStage({
      V_in: within(v.V_in!, 0.05),
      Vf: { min: v.Vf! - 0.1, typ: v.Vf!, max: v.Vf! + 0.2 },
      I: v.I!,
      ctr_min: v.ctr! / 100,
      V_out: v.V_out!,
      VCEsat_V: 0.3,
      owned: owned.resistors_ohm,
    });
    if (!o) return { ok: false, message: `${formatV(v.V_in!)} does not reach the light's ${formatV(v.Vf! + 0.2)}.` };
    return {
      ok: true,
      answers: [
        { key: "led_ohm", label: "Resistor of the light", value: o.led_ohm, unit: "Ω", main: true },
        { key: "pull_ohm", label: "Pull-up behind it", value: o.pull_ohm, unit: "Ω", main: true },
        { key: "led_A", label: "Light gets at least", value: o.led_A, unit: "A" },
        { key: "out_A", label: "Its transistor pulls at least", value: o.out_A, unit: "A" },
      ],
      steps: [
        `R = (V − Vf) / I, at the lowest V and highest Vf, next value down: ${formatOhm(o.led_ohm)}`,
        `IC = CTR · I · 0.7 (age) = ${formatSI(o.out_A, "A")}`,
        `pull-up ≥ (${v.V_out} − 0.3) V / IC = ${formatOhm(o.pull_min_ohm)}; twice that, next value up: ${formatOhm(o.pull_ohm)}`,
      ],
      warnings: [
        "The output is turned round: light on means low.",
        "A large pull-up makes slow edges: for fast signals take more light and a smaller pull-up.",
      ],
      drawing: {
        width: 12,
        height: 9,
        says: `The sending pin drives the light through ${formatOhm(o.led_ohm)}; on the other side the transistor pulls the receiving pin to its own ground, ${formatOhm(o.pull_ohm)} holds it up.`,
        items: [
          pin(1, 3, "sends"),
          two("resistor", [1, 3], [4, 3], "R", formatOhm(o.led_ohm)),
          two("led", [4, 3], [4, 6], "light", ""),
          ground(4, 6),
          { kind: "note", at: [6, 4.5], name: "gap" },
          rail(8, 1, formatV(v.V_out!)),
          two("resistor", [8, 1], [8, 4], "pull-up", formatOhm(o.pull_ohm)),
          dot(8, 4),
          wire([8, 4], [10.5, 4]),
          pin(10.5, 4, "receives", "right"),
          { kind: "npn", at: [8, 5], name: "" },
          wire([8, 6], [8, 7]),
          ground(8, 7),
        ],
      },
    };
  },
};

/** Pull-ups of an I2C bus. */
export const i2cSum: Sum = {
  id: "i2c-pull-up",
  name: "Pull-ups of an I2C bus",
  says: "The window for the pull-ups, from voltage, capacitance and clock.",
  does: "The parts only pull the lines low; the pull-ups make them high again. Small ones are fast, large ones spare the parts.",
  without: "The lines never go high: no part answers.",
  fields: [
    { key: "V", label: "Bus voltage", unit: "V", value: 3.3, min: 1.5, max: 5.5 },
    { key: "C", label: "Capacitance of a line", unit: "F", value: 1e-10, min: 5e-12, max: 4e-10 },
    {
      key: "clock",
      label: "Clock",
      unit: "",
      value: 100_000,
      min: 100_000,
      max: 1_000_000,
      choices: [
        { value: 100_000, label: "100 kHz" },
        { value: 400_000, label: "400 kHz" },
        { value: 1_000_000, label: "1 MHz" },
      ],
    },
  ],
  compute(v, owned) {
    const w = pullUpWindow(v.V! * 1.05, v.C!, v.clock!);
    if (w.min_ohm > w.max_ohm)
      return {
        ok: false,
        message: `At least ${formatOhm(w.min_ohm)} for the parts' sake, at most ${formatOhm(w.max_ohm)} for the clock: there is no value. Shorten the wires or slow the clock.`,
      };
    const ohm = nearest(
      Math.sqrt(w.min_ohm * Math.min(w.max_ohm, w.min_ohm * 10)),
      owned.resistors_ohm.filter((x) => x >= w.min_ohm && x <= w.max_ohm),
    );
    return {
      ok: true,
      answers: [
        { key: "ohm", label: "Pull-up for each line", value: ohm, unit: "Ω", main: true },
        { key: "min", label: "At least (all in parallel)", value: w.min_ohm, unit: "Ω" },
        { key: "max", label: "At most", value: w.max_ohm, unit: "Ω" },
        { key: "rise", label: "Rise time with it", value: 0.8473 * ohm * v.C!, unit: "s" },
      ],
      steps: [
        `Rmin = (V − 0.4 V) / 3 mA = ${formatOhm(w.min_ohm)}`,
        `Rmax = tr / (0.8473·C) = ${formatOhm(w.max_ohm)}`,
      ],
      warnings: ["Modules bring pull-ups of their own: all of them in parallel must stay in the window."],
      drawing: {
        width: 9,
        height: 7,
        says: `${formatOhm(ohm)} from each of the two lines to the bus voltage.`,
        items: [
          rail(3, 1, formatV(v.V!)),
          rail(5, 1, formatV(v.V!)),
          two("resistor", [3, 1], [3, 4], "", formatOhm(ohm)),
          two("resistor", [5, 1], [5, 4], "", formatOhm(ohm)),
          dot(3, 5),
          dot(5, 4),
          wire([3, 4], [3, 5]),
          wire([1, 4], [8, 4]),
          wire([1, 5], [8, 5]),
          pin(1, 4, "SCL"),
          pin(1, 5, "SDA"),
        ],
      },
    };
  },
};
