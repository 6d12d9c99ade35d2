import type { Part } from "../catalogue";

/** A judgement that the app can make of a part, and what its data still lacks for that. */
export interface Readiness {
  judgement: "wiring" | "levels" | "power" | "buses" | "program" | "placing";
  says: string;
  ready: boolean;
  needs: string[];
}

type Look = (p: Part) => string[];
const signals = (p: Part) => p.pins.filter((x) => x.role === "signal" && x.need);

const wiring: Look = (p) => {
  const out: string[] = [];
  if (!p.pins.some((x) => x.role === "ground") && signals(p).length) out.push("which pin is ground");
  if (!p.pins.some((x) => x.role.startsWith("supply")) && signals(p).length) out.push("which pin is the supply");
  if (!p.pins.some((x) => x.need || x.role.startsWith("supply"))) out.push("what at least one pin does");
  return out;
};

const levels: Look = (p) => {
  const out = new Set<string>();
  for (const pin of signals(p)) {
    const l = pin.level ? p.levels[pin.level] : undefined;
    if (!l || l.output === "analog" || l.input === "analog") continue;
    const listens = pin.io === "in" || pin.io === "bidir" || pin.io === "open-drain";
    if (listens && l.VIH === undefined) out.add(`VIH: from which voltage ${pin.label} sees a high`);
    if (listens && l.VIL === undefined) out.add(`VIL: up to which voltage ${pin.label} sees a low`);
  }
  return [...out];
};

const power: Look = (p) =>
  Object.entries(p.supplies).flatMap(([key, s]) => {
    const fed = p.pins.some((x) => x.role === "supply-in" && x.supply === key);
    if (!fed) return [];
    return [
      ...(s.V.max === 0 ? [`the supply range of ${s.label}`] : []),
      ...(s.mA ? [] : [`the current it draws at ${s.label}, at least the largest`]),
      ...(s.absMax_V === undefined
        ? [`the absolute maximum of ${s.label}; without it the range counts as the limit`]
        : []),
    ];
  });

const buses: Look = (p) =>
  p.groups.flatMap((g) => [
    ...(g.kind === "i2c" && !g.address ? ["the I2C address"] : []),
    ...((g.kind === "i2c" || g.kind === "spi") && g.max_Hz === undefined
      ? [`the fastest ${g.kind.toUpperCase()} clock`]
      : []),
    ...(g.kind === "spi" && g.mode === undefined ? ["the SPI mode"] : []),
  ]);

const program: Look = (p) =>
  p.bringup?.driver === "generic" &&
  p.groups.some((g) => g.kind === "i2c") &&
  !p.bringup.identity &&
  !p.groups.some((g) => g.address)
    ? ["an address, so that the bring-up can call it"]
    : [];

const placing: Look = (p) => (p.body.orientation ? [] : ["how it is held: which side is up, where pin 1 is"]);

const LOOKS: [Readiness["judgement"], string, Look][] = [
  ["wiring", "the plan can wire it", wiring],
  ["levels", "signal levels can be judged", levels],
  ["power", "supply and current can be judged", power],
  ["buses", "buses can be judged", buses],
  ["program", "the bring-up program can test it", program],
  ["placing", "the run sheet can say how to hold it", placing],
];

/** What can be judged with the data that is there, and what each judgement still needs. */
export function readiness(part: Part): Readiness[] {
  return LOOKS.map(([judgement, says, look]) => {
    const needs = look(part);
    return { judgement, says, ready: needs.length === 0, needs };
  });
}
