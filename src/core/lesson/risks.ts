import { runSheet } from "../build";
import type { Circuit } from "../circuit";
import type { Instance } from "../circuit/netlist";
import type { LessonLevel } from "../project";
import type { Risk } from "./types";

interface Hazard {
  id: string;
  what: string;
  does: string;
  /** Parts of the plan that it comes from, by what their definitions say. */
  of?(i: Instance, c: Circuit): boolean;
  /** Something of the work itself; what is worked at. */
  work?(c: Circuit): string | null;
  levels?: readonly LessonLevel[];
}

const id = (r: RegExp) => (i: Instance) => r.test(i.part.id);
const chemistry = (i: Instance) => Object.values(i.part.supplies).map((s) => s.source?.chemistry);
/** Above this something is too hot to hold, watts. */
const WARM_W = 0.5;

/** What a linear regulator turns into heat in usual work, watts. */
function heat_W(i: Instance, c: Circuit): number {
  const V = (id: string) => c.netlist.nets.find((n) => n.id === id)?.V?.typ;
  return c.power.stages
    .filter((s) => s.ref === i.ref && s.converter.kind === "linear")
    .reduce((sum, s) => sum + Math.max(0, (V(s.from) ?? 0) - (V(s.to) ?? 0)) * s.out.typ, 0);
}

/** What can hurt somebody in a lesson, and what keeps it from doing so. Adding one is an entry here. */
const HAZARDS: readonly Hazard[] = [
  {
    id: "lithium",
    what: "Lithium cells burn when they are shorted, crushed or charged wrongly.",
    does: "Only cells with a protection circuit. Charged by an adult, watched, on something that does not burn. No bare cell in a bag or a pocket.",
    of: (i) => chemistry(i).some((x) => x === "lithium" || x === "lifepo4") || /lipo|li-ion|power-bank/.test(i.part.id),
  },
  {
    id: "coin-cell",
    what: "A coin cell that is swallowed burns from inside within two hours.",
    does: "Counted out and counted back. When one is missing, or swallowed: to a hospital at once, without waiting for pain.",
    of: id(/coin|ds3231|ds1307/),
  },
  {
    id: "magnet",
    what: "Magnets that are swallowed pinch the bowel.",
    does: "Glued into a block that can't be swallowed; counted back.",
    of: id(/reed|a3144|as5600/),
  },
  {
    id: "mains",
    what: "Behind a plug-in power supply, and behind a relay, there may be mains.",
    does: "Only supplies with the safety mark that your country asks for, undamaged, on a strip with a switch. Nothing of this lesson is joined to mains; what is, belongs to licensed people and to local rules.",
    of: id(/supply\/(adapter|bench|usb-charger)|relay/),
  },
  {
    id: "many-amperes",
    what: "A supply of several amperes makes a wire glow when it is shorted.",
    does: "The teacher keeps the plugs until the checks before power are signed.",
    of: (i) => Object.values(i.part.supplies).some((s) => Number(s.source?.limit_mA ?? 0) >= 1000),
  },
  {
    id: "heat",
    what: "It gets hot in use.",
    does: "It is not touched while it is powered, and stands on something that does not burn.",
    of: (i, c) => /solenoid/.test(i.part.id) || heat_W(i, c) > WARM_W,
  },
  {
    id: "moving",
    what: "It moves by itself, as soon as it has power.",
    does: "Hair, strings and sleeves away; fastened before it is powered; fingers out of gears.",
    of: id(/motor|servo|stepper|pump|solenoid/),
  },
  {
    id: "loud",
    what: "It is loud at the ear.",
    does: "Not held to an ear; a piece of tape over the hole makes it bearable for a class.",
    of: id(/buzzer|speaker|mp3/),
  },
  {
    id: "bright",
    what: "It is bright: at full, a strip or a white light dazzles.",
    does: "Nobody looks into it from near; it begins at a low brightness.",
    of: id(/ws2812|apa102|led-(white|blue)/),
  },
  {
    id: "invisible",
    what: "Infrared light is not seen, and is as bright.",
    does: "Nobody looks into it from near.",
    of: id(/led-ir|ir-/),
  },
  {
    id: "water",
    what: "Water beside electricity.",
    does: "Everything that is powered stands higher than the water, on the far side of the cable; hands are dried first.",
    of: id(/pump|water|float|soil|rain/),
  },
  {
    id: "flash",
    what: "Lights that flash three to thirty times a second can bring on a seizure.",
    does: "Ask before the lesson; rules of the program stay slower than two flashes a second.",
    of: id(/led-|ws2812|apa102/),
  },
  {
    id: "solder",
    what: "The iron is at 350 °C, flux fumes irritate, cut leads fly.",
    does: "Soldered before the lesson, or by learners with goggles, a stand, air and a place of their own. Burns: cool running water at once, for twenty minutes.",
    work: (c) => {
      const rows = runSheet(c).filter((r) => r.kind === "solder");
      return rows.length ? rows.map((r) => c.netlist.instance(r.from)?.label ?? r.from).join(", ") : null;
    },
  },
  {
    id: "sharp",
    what: "Cut wires and legs are sharp, and fly when they are cut.",
    does: "Goggles; the end that is cut off is held, and pointed at the table.",
    work: (c) => {
      const n = runSheet(c).filter((r) => r.kind === "leg" || [r.endA, r.endB].includes("bare")).length;
      return n ? `${n} ends of this build` : null;
    },
  },
  {
    id: "small",
    what: "Parts are small enough to be swallowed or breathed in.",
    does: "They stay in the tray; nothing goes into mouths; the trays are counted back.",
    work: () => "all loose parts",
    levels: ["7-11"],
  },
];

/** What the note ends with: it never stands above the rules of the place. */
export const DEFERS =
  "This note is worked out from the plan and knows neither the room nor the learners. The rules of your school, your employer and your country come first; mains is for licensed people alone.";

/** The risk note of a plan: each danger with where in this plan it is and what keeps it away. */
export function risksOf(c: Circuit, level: LessonLevel): Risk[] {
  const parts = [...c.netlist.expanded.instances.values()];
  return HAZARDS.flatMap((h): Risk[] => {
    if (h.levels && !h.levels.includes(level)) return [];
    const where = h.work
      ? h.work(c)
      : [...new Set(parts.filter((i) => h.of!(i, c)).map((i) => i.label))].join(", ") || null;
    return where ? [{ id: h.id, what: h.what, where, does: h.does }] : [];
  });
}
