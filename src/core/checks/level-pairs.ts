/** What the rules over pairs of driver and reader share: their words, grades and fixes. */
import type { Circuit } from "../circuit";
import { chooseDivider } from "../circuit/formulas";
import { formatV, type Triple } from "../quantity";
import type { LevelVerdict } from "../circuit/solve";
import { isTwoWay, label, owner, round } from "./help";
import { levelRest } from "./rests";
import { translatorFix } from "./translators";
import type { Fix } from "./types";

export const THIN_MARGIN_V = 0.2;

export const at = (v: LevelVerdict) => [`${v.driver.ref}.${v.driver.pin}`, `${v.receiver.ref}.${v.receiver.pin}`];
export const pinOf = (x: { ref: string; pin: string }) => `${x.ref}.${x.pin}`;

export const evidence = (v: LevelVerdict) => ({
  high_V: round(v.high_V),
  VIH_V: round(v.VIH),
  marginHigh_V: round(v.marginHigh),
  low_V: round(v.low_V),
  VIL_V: round(v.VIL),
  marginLow_V: round(v.marginLow),
  highest_V: round(v.highest_V),
  ceiling_V: round(v.ceiling),
});

/** The values that decide about a high, a low, and what a pin may see. */
const drives = (c: Circuit, v: LevelVerdict, key: "VOH" | "VOL") =>
  v.driver.how === "push-pull" ? levelRest(c, v.driver, key) : [];
export const highRests = (c: Circuit, v: LevelVerdict) => [...levelRest(c, v.receiver, "VIH"), ...drives(c, v, "VOH")];
export const lowRests = (c: Circuit, v: LevelVerdict) => [...levelRest(c, v.receiver, "VIL"), ...drives(c, v, "VOL")];
export const ceilingRests = (c: Circuit, v: LevelVerdict) => levelRest(c, v.receiver, "absMax");

/** The need that runs over this pair: its part is the one that a companion can be added to. */
export function needPart(c: Circuit, v: LevelVerdict) {
  const ends = [pinOf(v.driver), pinOf(v.receiver)];
  const refs = [owner(c, v.driver.ref), owner(c, v.receiver.ref)];
  return c.netlist.bindings.find(
    (b) => refs.includes(b.ref) && (ends.includes(`${b.ref}.${b.pin}`) || ends.includes(`${b.host}.${b.hostPin}`)),
  );
}

/** Verdicts of the same kind at other pins of the same part: what is mended at one is mended at all of them. */
export const alike = (c: Circuit, v: LevelVerdict, ref: string, bad: (x: LevelVerdict) => boolean) =>
  c.levels.filter((x) => bad(x) && [x.driver.ref, x.receiver.ref].includes(ref) && x.driver.how === v.driver.how);

export const tooHigh = (v: LevelVerdict) => v.highest_V > v.ceiling + 1e-9;
export const tooLow = (v: LevelVerdict) => v.marginHigh < THIN_MARGIN_V;

/** Shares of a converter's range that a divided signal should at least reach, the best first. */
export const ANALOG_SHARES = [0.8, 0.7, 0.6, 0.5, 0];

export function dividerFix(c: Circuit, v: LevelVerdict): Fix[] {
  const b = needPart(c, v);
  if (!b || b.ref !== v.driver.ref || v.driver.how !== "push-pull") return [];
  const driver: Triple = { min: v.driver.V.min - 0.5, typ: v.driver.V.typ, max: v.driver.V.max };
  const same = alike(c, v, b.ref, (x) => tooHigh(x) && x.driver.ref === b.ref);
  const ceiling = Math.min(...same.map((x) => x.ceiling));
  const least = Math.max(...same.map((x) => (x.analog ? 0 : x.VIH)));
  // What is measured has no threshold: as much of the range as the tolerances leave.
  const wishes = same.every((x) => x.analog) ? ANALOG_SHARES.map((f) => f * ceiling) : [least];
  const pick = wishes.map((VIH) => chooseDivider({ from: driver, VIH, ceiling })).find((x) => x !== null);
  if (!pick) return [];
  const ohm: [number, number] = [pick.top_ohm, pick.bottom_ohm];
  const before = c.project.parts.find((p) => p.ref === b.ref)?.companions?.divider;
  const there = typeof before === "object" && before ? (before.pins ?? (before.pin ? [before.pin] : [])) : [];
  const pins = [...new Set([...there, b.pin, ...same.map((x) => x.driver.pin)])];
  return [
    {
      id: "divider",
      label: `Divide ${pins.map((p) => `${b.ref}.${p}`).join(", ")} with ${ohm[0]} Ω and ${ohm[1]} Ω${pins.length > 1 ? " each" : ""}: ${formatV(pick.out.min)} to ${formatV(pick.out.max)} arrive`,
      edits: [
        {
          type: "setCompanion",
          ref: b.ref,
          key: "divider",
          value: pins.length > 1 ? { ohm, pins } : { ohm, pin: pins[0]! },
        },
      ],
    },
  ];
}

export const BUFFER = "module/buffer-74ahct125";

/** One wire gets a buffer of its own; where several wires of a part ask for one, a fix for all of them is made. */
export function bufferFix(c: Circuit, v: LevelVerdict): Fix[] {
  const b = needPart(c, v);
  const V = v.receiver.V;
  const whole = () => translatorFix(c, v, THIN_MARGIN_V);
  if (!b || b.ref !== owner(c, v.receiver.ref) || v.driver.how !== "push-pull" || !c.catalogue.get(BUFFER))
    return whole();
  if (V.min < 4.5 || V.max > 5.5 || v.high_V < 2 || isTwoWay(b.need)) return whole();
  const others = alike(c, v, v.receiver.ref, (x) => tooLow(x) || tooHigh(x)).some(
    (x) => x.receiver.pin !== v.receiver.pin,
  );
  if (others || c.project.parts.find((p) => p.ref === b.ref)?.companions?.shifter) return whole();
  return [
    {
      id: "buffer",
      label: `Put a 74AHCT125 buffer in this wire, fed from ${label(c, b.ref)}'s supply`,
      edits: [{ type: "setCompanion", ref: b.ref, key: "shifter", value: { part: BUFFER, pin: b.pin } }],
    },
  ];
}

/** A transistor's gate is judged by its drive, not by thresholds: `load.gate-drive` speaks for it. */
export const isGate = (c: Circuit, v: LevelVerdict) =>
  c.netlist.instance(v.receiver.ref)?.part.elements.some((e) => e.kind === "fet" && e.g === v.receiver.pin) ?? false;

/** One finding a receiver pin: the worst of its drivers. */
export function worst(list: LevelVerdict[], score: (v: LevelVerdict) => number): LevelVerdict[] {
  const out = new Map<string, LevelVerdict>();
  for (const v of list) {
    const known = out.get(pinOf(v.receiver));
    if (!known || score(v) < score(known)) out.set(pinOf(v.receiver), v);
  }
  return [...out.values()];
}

/** Whether the data that a threshold rests on is a guess: then nobody can say that it will not work. */
export const unsure = (c: Circuit, v: LevelVerdict) =>
  [v.driver, v.receiver].some((x) => c.netlist.instance(x.ref)?.part.certainty === "low");

/** What fails at usual supplies will not work; what only fails in a corner, or by data that nobody is sure of, may not. */
export const gradeOf = (c: Circuit, v: LevelVerdict, usual: number) => (usual >= 0 || unsure(c, v) ? "risk" : "fault");
export const whenWords = (c: Circuit, v: LevelVerdict, usual: number) =>
  usual >= 0 ? " when both supplies stand badly" : unsure(c, v) ? ", by data that is not sure" : "";
