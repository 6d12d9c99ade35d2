import { findPin } from "../../parts/catalogue";
import { LANE_PULSES_HZ } from "../devices/lanes";
import { lookInC, pinName, pulseInC, putInC, shareInC, voltsInC } from "../pins-in-code";
import { restOf } from "../rest";
import type { DriverPart } from "../types";
import { makesTones, tonesInPlainC } from "./plain-tones";
import type { Link, LinkInC, LinkInPython, OutPin, Over } from "./types";

const isAnalogue = (p: DriverPart, label: string) => findPin(p.inst.part, label)?.need?.kind === "adc";
/** 1 is away from rest: high where the part rests low, low where it rests high. */
const flips = (p: DriverPart, o: OutPin) => o.as === "switch" && restOf(p, o.pin) === 1;

/** How many bytes an output takes. */
export const widthOf = (o: OutPin) => (o.as === "pulse" || o.as === "tone" ? 2 : 1);

type Printer = (p: DriverPart, o: OutPin, bytes: readonly string[]) => string;

const IN_C: Record<OutPin["as"], Printer> = {
  level: (p, o, [v]) => putInC(p, o.pin, `${v} ? HIGH : LOW`),
  switch: (p, o, [v]) => putInC(p, o.pin, `${v} ? ${flips(p, o) ? "LOW : HIGH" : "HIGH : LOW"}`),
  duty: (p, o, [v]) => shareInC(p, o.pin, v!),
  pulse: (p, o, [hi, lo]) => pulseInC(p, o.pin, `(uint16_t)${hi} << 8 | ${lo}`),
  tone: (p, o, [hi, lo]) =>
    `if ((uint16_t)${hi} << 8 | ${lo}) tone(${p.pin(o.pin)}, (uint16_t)${hi} << 8 | ${lo});\nelse noTone(${p.pin(o.pin)});`,
};

const pwm = (p: DriverPart, o: OutPin) => `${pinName(p, o.pin)}_pwm`;
const IN_PYTHON: Record<OutPin["as"], Printer> = {
  level: (p, o, [v]) => `${pinName(p, o.pin)}.value(1 if ${v} else 0)`,
  switch: (p, o, [v]) => `${pinName(p, o.pin)}.value(${flips(p, o) ? `0 if ${v} else 1` : `1 if ${v} else 0`})`,
  duty: (p, o, [v]) => `${pwm(p, o)}.duty_u16(${v} * 257)`,
  pulse: (p, o, [hi, lo]) => `${pwm(p, o)}.duty_ns((${hi} << 8 | ${lo}) * 1000)`,
  tone: (p, o, [hi, lo]) =>
    `${pwm(p, o)}.duty_u16(0)\nif ${hi} << 8 | ${lo}:\n    ${pwm(p, o)}.freq(${hi} << 8 | ${lo})\n    ${pwm(p, o)}.duty_u16(32768)`,
};
/** Families whose core has no `tone`. */
const NO_TONE = new Set(["sam3x"]);
/** What a pin is opened as when it is more than a level, hertz. */
const PWM_HZ: Partial<Record<OutPin["as"], number>> = { duty: 1000, pulse: 50, tone: 440 };

/** Each output's bytes out of the whole list. */
function shares(outs: readonly OutPin[], bytes: readonly string[]): [OutPin, string[]][] {
  let k = 0;
  return outs.map((o) => [o, bytes.slice(k, (k += widthOf(o)))]);
}

/** Parts on whose outputs it hangs: while one of them does not answer, it does not either. */
const lanesOf = (p: DriverPart) => [
  ...new Set([...(p.through?.values() ?? [])].flatMap((at) => (at.lane ? [at.by] : []))),
];

/** What an output of another part can't make of what this one needs; null: all of it. */
function unfitLane(p: DriverPart, outs: readonly OutPin[]): string | null {
  for (const o of outs) {
    const at = p.through?.get(o.pin);
    if (at?.lane && o.as === "tone")
      return "its tones need a timer of the board: the outputs it hangs on have one rate";
    if (at?.lane && o.as === "pulse" && (o.Hz ?? LANE_PULSES_HZ) !== LANE_PULSES_HZ)
      return `it is set to ${o.Hz} pulses a second, and the output it hangs on makes ${LANE_PULSES_HZ}`;
  }
  return null;
}

/** What plain C can't make of a chip's pins; null: all of it. */
function unfitPlain(p: DriverPart, outs: readonly OutPin[]): string | null {
  if (outs.some((o) => o.as === "duty"))
    return "plain C makes no shares of full power here: the chip's timers are for tones and for your own code";
  return outs.some((o) => o.as === "tone") && !makesTones(p.board.chip)
    ? `${p.board.chip} has no second timer to make tones with`
    : null;
}

type PinsOver = Extract<Over, { kind: "pins" }>;
function inC(over: PinsOver): LinkInC {
  const ins = over.in ?? [];
  const outs = over.out ?? [];
  const look = (p: DriverPart, l: string) => {
    if (!p.has(l)) return "  *to++ = 0;\n  *to++ = 0;";
    return isAnalogue(p, l)
      ? `  v = ${voltsInC(p, l)};\n  *to++ = v >> 8;\n  *to++ = v;`
      : `  *to++ = 0;\n  *to++ = ${lookInC(p, l, p.pulled.has(l) ? 1 : 0)} ? 1 : 0;`;
  };
  // What another part measures counts while that one answers.
  const answers = (p: DriverPart) =>
    [...new Set([...(p.through?.values() ?? [])].flatMap((at) => (at.volts ? [`${at.by}_fresh`] : [])))].join(" && ") ||
    "true";
  const measures = (p: DriverPart) => ins.some((l) => p.has(l) && isAnalogue(p, l));
  return {
    helpers: "",
    globals: (p) =>
      ins.length
        ? `static bool ${p.id}_look(uint8_t *to) {\n${measures(p) ? "  uint16_t v;\n" : ""}${ins.map((l) => look(p, l)).join("\n")}\n  return ${answers(p)};\n}`
        : "",
    write: (p, bytes) =>
      [
        ...lanesOf(p).map((by) => `if (!${by}_fresh) break;`),
        ...shares(outs, bytes)
          .filter(([o]) => p.has(o.pin))
          .map(([o, list]) => IN_C[o.as](p, o, list)),
      ].join("\n"),
    read: (p) => `${p.id}_look(b)`,
  };
}

function inPython(over: PinsOver): LinkInPython {
  const ins = over.in ?? [];
  const outs = over.out ?? [];
  return {
    imports: (p) => [
      ...(ins.some((l) => p.has(l) && isAnalogue(p, l) && !p.through?.has(l)) ? ["from machine import ADC"] : []),
      ...(outs.some((o) => PWM_HZ[o.as] && !p.through?.get(o.pin)?.lane) ? ["from machine import PWM"] : []),
    ],
    setup: (p) =>
      [
        ...outs
          .filter((o) => PWM_HZ[o.as] && p.has(o.pin))
          .map((o) =>
            p.through?.get(o.pin)?.lane
              ? `${pwm(p, o)} = ${pinName(p, o.pin)}`
              : `${pwm(p, o)} = PWM(${pinName(p, o.pin)}, freq=${o.Hz ?? PWM_HZ[o.as]}, duty_u16=0)`,
          ),
      ].join("\n"),
    write: (p, bytes) => {
      const outsThere = shares(
        outs,
        outs.flatMap((o) => Array<string>(widthOf(o)).fill("")),
      );
      let k = 0;
      const lines = outsThere
        .map(([o, list]) => [o, list.map(() => `w[${k++}]`)] as const)
        .filter(([o]) => p.has(o.pin))
        .map(([o, list]) => IN_PYTHON[o.as](p, o, list));
      return [...lanesOf(p).map((by) => `need(${by}.fresh)`), `w = ${bytes}`, ...lines].join("\n");
    },
    read: (p) =>
      `b = ${ins
        .map((l) => (p.has(l) ? `two(${pinName(p, l)}.${isAnalogue(p, l) ? "read_u16" : "value"}())` : "two(0)"))
        .join(" + ")}`,
  };
}

/** Plain pins of the board; their resting levels are set before anything else. */
export const pins: Link<"pins"> = {
  unfitPart: (p, over) =>
    unfitLane(p, over.out ?? []) ??
    (p.target === "avr-c" ? unfitPlain(p, over.out ?? []) : null) ??
    (p.target === "sketch" && NO_TONE.has(p.board.family) && over.out?.some((o) => o.as === "tone")
      ? `the core of ${p.board.chip} makes no tones`
      : null),
  c: inC,
  plain: (over) => ({
    ...inC(over),
    moreFor: (p) => (over.out?.some((o) => o.as === "tone") ? [tonesInPlainC(p.board.chip)] : []),
  }),
  python: inPython,
};
