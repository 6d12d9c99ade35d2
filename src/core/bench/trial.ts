import type { Circuit } from "../circuit";
import { TARGETS } from "../firmware";
import { region } from "../firmware/pins";
import { givesOf } from "../firmware/rules";
import { programOf, type Said, type SimPart, type Tried } from "../firmware/sim";
import type { World } from "./models/types";
import { stageOf, type Stage } from "./stage";

/** Something that a person can do to a part of the trial. */
export type Control =
  | { kind: "contact"; ref: string; label: string; place?: number }
  | {
      kind: "feels";
      ref: string;
      label: string;
      quantity: string;
      word: string;
      unit: string;
      value: number;
      least: number;
      most: number;
      step: number;
    };

/** What a part shows or does, as a person would see it. */
export type Shows =
  /** `bright`: in hundredths, where pulses say how bright. */
  | { kind: "light"; ref: string; label: string; lit: boolean; bright?: number }
  | { kind: "strip"; ref: string; label: string; colours: readonly string[] }
  | { kind: "grid"; ref: string; label: string; lit: readonly boolean[] }
  | { kind: "rows"; ref: string; label: string; rows: readonly string[] }
  | { kind: "does"; ref: string; label: string; says: string };

/** What somebody does: holds or lets go a contact, or makes a part feel something. */
export type Act =
  { ref: string; down: boolean; place?: number | undefined } | { ref: string; quantity: string; value: number };

export interface TrialState {
  /** Milliseconds since the program began. */
  at: number;
  /** Lines since the last state. */
  said: readonly Said[];
  shows: readonly Shows[];
}

export interface Trial {
  host: string;
  controls: readonly Control[];
  /** Parts that the program does not work here. */
  left: readonly string[];
  /** A sentence where it can't be done. */
  act(a: Act): string | null;
  run(until: number): TrialState;
}

/** A longer stretch at once would freeze what waits for it, ms. */
export const MOST_AT_ONCE = 600_000;

const base = (name: string) => name.split("_")[0]!;
/** What people call what a part feels, by its name in the model. */
const FEELINGS: Record<string, string> = {
  t: "temperature",
  own: "its own temperature",
  seen: "temperature seen",
  hot: "temperature at the tip",
  rh: "humidity",
  p: "air pressure",
  cm: "distance",
  lux: "brightness",
  co2: "carbon dioxide",
  v: "voltage",
  i: "current",
};

/** What a part feels, each quantity with the range that a reading can have in a room. */
function feelings(s: SimPart, stage: Stage): Control[] {
  const { p } = s;
  // What hangs on its lines is turned and pressed, not the lines.
  if (p.outs !== undefined) return [];
  return Object.entries(stage.feels(p.inst.ref)).flatMap(([quantity, value]): Control[] => {
    const q = givesOf(p).find((x) => base(x.name) === base(quantity));
    if (!q) return [];
    const unit = 10 ** q.digits;
    return [
      {
        kind: "feels",
        ref: p.inst.ref,
        label: p.inst.label,
        quantity,
        word: FEELINGS[base(quantity)] ?? (q.word || base(quantity)),
        unit: q.unit,
        value,
        least: q.room[0] / unit,
        most: q.room[1] / unit,
        step: 1 / 10 ** (q.shown ?? q.digits),
      },
    ];
  });
}

function contacts({ p }: SimPart): Control[] {
  const { ref, label, part } = p.inst;
  if (part.bringup?.driver === "button") return [{ kind: "contact", ref, label }];
  if (part.bringup?.driver !== "key-grid") return [];
  return (part.addresses ?? []).map((a, place) => ({ kind: "contact", ref, label: a.name, place }));
}

/** Words for what a part is doing, by the quantity and its value. */
const WORDS: Record<string, (v: number) => string> = {
  on: (v) => (v ? "on" : "off"),
  angle_deg: (v) => (v < 0 ? "let go" : `at ${Math.round(v)}°`),
  Hz: (v) => (v ? `sounds at ${v} Hz` : "silent"),
  shows: (v) => `shows ${v}`,
  bright_pct: (v) => (v ? `${Math.round(v)} % of full power` : "off"),
};
/** What only tests ask for. */
const INNER = new Set(["letters", "let_out"]);
const doing = (is: World): string =>
  Object.entries(is)
    .filter(([k, v]) => !INNER.has(k) && Number.isFinite(v))
    .map(([k, v]) => WORDS[k]?.(v) ?? `${k.replace("_", " ")} ${Math.round(v * 100) / 100}`)
    .join(", ");

/** A strip's bytes as colours that a screen can show: as bright as the brightest of them may be. */
function colours(grb: readonly number[], cap: number): string[] {
  const up = (v: number) => Math.min(255, Math.round((v * 255) / Math.max(1, cap)));
  return Array.from({ length: grb.length / 3 }, (_, i) => {
    const [g, r, b] = grb.slice(3 * i, 3 * i + 3).map(up) as [number, number, number];
    return `rgb(${r}, ${g}, ${b})`;
  });
}

function showing(s: SimPart, stage: Stage, now: number): Shows[] {
  const { ref, label, part } = s.p.inst;
  const seen = stage.seen(ref, now);
  if (part.bringup?.driver === "led") {
    const level = seen.pins.get(s.p.leg);
    const bright = seen.is?.bright_pct;
    return [
      {
        kind: "light",
        ref,
        label,
        lit: level !== undefined && (level === 1) !== s.p.activeLow,
        ...(bright !== undefined && { bright: Math.round(bright) }),
      },
    ];
  }
  if (seen.strip) {
    const cap = Math.floor((s.p.vars.brightness ?? 1) * 255);
    return [{ kind: "strip", ref, label, colours: colours(seen.strip, cap) }];
  }
  if (seen.lit) return [{ kind: "grid", ref, label, lit: seen.lit }];
  const rows = s.machine?.rows() ?? [];
  if (rows.length) return [{ kind: "rows", ref, label, rows }];
  // What hangs on its lines says for itself what it does.
  const says = seen.is && s.p.outs === undefined ? doing(seen.is) : "";
  return says ? [{ kind: "does", ref, label, says }] : [];
}

/** Boards whose starter can be tried here: those for which a program is written. */
export function triable(c: Circuit): { host: string; target: Tried }[] {
  const wants = ["sketch", "micropython", "python", "avr-c"] as const;
  return c.netlist.expanded.hosts.flatMap((host) => {
    const target = wants.find((id) => {
      const t = TARGETS.find((x) => x.id === id)!;
      return !t.unfit(c) && !t.without(c).some((w) => w.host === host);
    });
    return target ? [{ host, target }] : [];
  });
}

/** The person's own code is not interpreted here: at which of its places there is some. */
function ownLeft(c: Circuit, host: string, target: Tried): string[] {
  const places = Object.keys(c.project.code[target] ?? {})
    .map((k) => k.split(".").at(-1)!)
    .filter((name) => region(c, host, target, name).trim() !== "");
  return places.length ? [`your own code at ${[...new Set(places)].join(", ")}`] : [];
}

/**
 * The starter of a board on a bench of models. Null where none is written that can be tried. `build`: the bench as it was
 * really built, where that is otherwise than planned.
 */
export function trialOf(c: Circuit, host: string, build: (s: Stage) => Stage = (s) => s): Trial | null {
  const board = triable(c).find((b) => b.host === host);
  if (!board) return null;
  const stage = build(stageOf(c, host, board.target));
  const program = programOf(c, host, board.target, stage);
  const parts = [...program.parts.values()];
  let at = 0;
  let told = 0;
  return {
    host,
    controls: parts.flatMap((s) => [...contacts(s), ...feelings(s, stage)]),
    left: [...program.left.map((x) => x.label), ...ownLeft(c, host, board.target)],
    act: (a) => ("down" in a ? stage.press(a.ref, a.down, a.place) : stage.set(a.ref, a.quantity, a.value, at)),
    run(until) {
      at = Math.max(at, Math.min(until, at + MOST_AT_ONCE));
      program.run(at);
      const said = program.said.slice(told);
      told = program.said.length;
      return { at, said, shows: parts.flatMap((s) => showing(s, stage, at)) };
    },
  };
}
