import type { Circuit } from "../circuit";
import { rulesView, type RuleInput, type RuleOutput, type RulesView } from "../firmware/rules/view";
import type { Rule } from "../project";
import { thingById } from "./read";
import { TRIPS, type Trip } from "./trips";
import { everyOf, laterBy, lastingOf, spanOf, timesOf } from "./words/times";

/** A wish that has become parts: their references, and where the words stand that it was found by. */
export interface Wired {
  thing: string;
  refs: readonly string[];
  places: readonly number[];
}

type When = Rule["when"];
/** Something that makes an act begin. */
interface Cause {
  thing: string;
  /** A reading and what has to be true of it; null: it is only followed. */
  input: RuleInput | null;
  trip: Trip | null;
  /** Times of the day by a clock part. */
  clock: { ref: string; times: readonly string[] } | null;
  /** All parts that give it: any of several buttons, doors or pots will do. */
  refs: readonly string[];
}

const senses = (w: Wired) => ["sense", "count"].includes(thingById(w.thing)!.verb);
const CLAUSE = /[.;!?\n]|, | and then | but /g;
/** The clause that stands around a place. */
function clauseAt(text: string, place: number): string {
  const ends = [...text.matchAll(CLAUSE)].map((m) => m.index);
  const from = Math.max(0, ...ends.filter((e) => e < place));
  return text.slice(from, Math.min(text.length, ...ends.filter((e) => e >= place)));
}

const OVER =
  "above|over|more than|exceeds?|(?:higher|hotter|warmer|louder|greater|heavier|brighter|damper) than|reaches|at least|>";
const UNDER =
  "below|under|less than|(?:lower|colder|cooler|closer|nearer|quieter|darker|drier) than|drops? to|falls? to|within|<";
/** Units in which people name a quantity, as a part of a regular expression, and how they become its own. */
const SAID_IN: Readonly<Record<string, { unit: string; own(v: number, unit: string): number }>> = {
  t: {
    unit: "°? ?[cf]\\b|°|degrees?(?: (?:celsius|fahrenheit|c|f))?|",
    own: (v, u) => (/f\b|fahr/.test(u) ? ((v - 32) * 5) / 9 : v),
  },
  seen: { unit: "°? ?c\\b|°|degrees?|", own: (v) => v },
  rh: { unit: "%|percent|per cent|", own: (v) => v },
  lux: { unit: "lux|lx|", own: (v) => v },
  co2: { unit: "ppm|", own: (v) => v },
  p: { unit: "hpa|mbar|millibars?|", own: (v) => v },
  cm: {
    unit: "cm|centim\\w+|mm|millim\\w+|m\\b|met(?:re|er)s?",
    own: (v, u) => (/^mm|^millim/.test(u) ? v / 10 : /^c/.test(u) ? v : v * 100),
  },
  far: {
    unit: "cm|centim\\w+|mm|millim\\w+|m\\b|met(?:re|er)s?",
    own: (v, u) => (/^mm|^millim/.test(u) ? v : /^c/.test(u) ? v * 10 : v * 1000),
  },
};

/** A number with the unit of something else is none of this reading's. */
const OTHER_UNIT =
  "(?:%|°|percent|cm\\b|mm\\b|k?m\\b|met(?:re|er)s?|ppm|lux|lx\\b|hpa|k?g\\b|v(?:olts?)?\\b|minutes?|seconds?|hours?)";
/** What the words say of a reading by a number: "above 25 °C", "closer than 20 cm", "at 37 degrees". */
function saidNumber(said: string, input: RuleInput, usual: Trip | null): Trip | null {
  const unit = SAID_IN[input.out];
  if (!unit) return null;
  const re = new RegExp(
    `(?:\\b|(?<=\\s))(?:(${OVER})|(${UNDER})|at|to|of|around) ?(minus |-)?(\\d+(?:\\.\\d+)?) ?(${unit.unit})(?![\\w:])(?! ?${OTHER_UNIT})`,
    "g",
  );
  for (const m of said.matchAll(re)) {
    // "At 28" alone is a time as well: it takes a unit.
    if (m[1] === undefined && m[2] === undefined && !m[5]) continue;
    const v = Math.round(unit.own(Number(m[4]) * (m[3] ? -1 : 1), m[5] ?? "") * 10) / 10;
    if (v < input.room[0] || v > input.room[1]) continue;
    const hysteresis = usual && "hysteresis" in usual ? usual.hysteresis : undefined;
    const more = { ...(hysteresis !== undefined && { hysteresis }) };
    const isBelow = m[2] !== undefined || (m[1] === undefined && usual !== null && "below" in usual);
    return isBelow ? { below: v, ...more } : { above: v, ...more };
  }
  return null;
}

/** What a wish that feels something gives to go by. */
function causeOf(w: Wired, view: RulesView, text: string): Cause | null {
  const inputs = view.inputs.filter((i) => w.refs.includes(i.ref));
  if (w.thing === "time") {
    const clock = inputs.find((i) => i.clock);
    return clock
      ? { thing: w.thing, input: null, trip: null, clock: { ref: clock.ref, times: timesOf(text) }, refs: w.refs }
      : null;
  }
  const said = w.places.length ? w.places.map((p) => clauseAt(text, p)).join(" . ") : text;
  const cases = TRIPS[w.thing] ?? [];
  const hit = cases.find((c) => !c.said || new RegExp(`\\b(?:${c.said})`).test(said));
  const alike = (i: RuleInput) => inputs.filter((x) => x.out === i.out).map((x) => x.ref);
  for (const i of inputs) {
    const usual = hit?.trips[i.word] ?? hit?.trips[i.out] ?? null;
    // A part that tells the warmth beside the damp is asked for the damp.
    const meant = usual !== null || !cases.length || cases.every((c) => !Object.keys(c.trips).length);
    const trip = meant ? (saidNumber(said, i, usual) ?? usual) : null;
    if (trip) return { thing: w.thing, input: i, trip, clock: null, refs: alike(i) };
  }
  const reading = inputs.find((i) => !i.yesNo && !i.clock);
  return reading ? { thing: w.thing, input: reading, trip: null, clock: null, refs: alike(reading) } : null;
}

/** Words after which stands what makes something begin. */
const WHEN =
  /\b(?:when|whenever|if|as soon as|once|until|while|each time|every time|after|because|with|by|for)\b[^.;,!?]*$/;
/** The cause that the words put nearest to an act; what stands after "when" is nearer. */
function nearest(causes: readonly { cause: Cause; wired: Wired }[], act: Wired, text: string): Cause | null {
  const far = (a: number, b: number) => {
    const [from, to] = a < b ? [a, b] : [b, a];
    const stops = [...text.slice(from, to).matchAll(CLAUSE)].length * 40;
    return (to - from + stops) * (WHEN.test(text.slice(Math.max(0, b - 40), b + 8)) ? 0.4 : 1);
  };
  const score = (w: Wired) =>
    act.places.length && w.places.length ? Math.min(...w.places.flatMap((p) => act.places.map((a) => far(a, p)))) : 0;
  return [...causes].sort((a, b) => score(a.wired) - score(b.wired))[0]?.cause ?? null;
}

const whenOf = (input: RuleInput, trip: Trip, ref = input.ref): When => ({ ref, out: input.out, ...trip });
/** The other way round: what holds while it does not. */
const unless = (t: Trip): Trip =>
  "is" in t ? { is: t.is ? 0 : 1 } : "above" in t ? { below: t.above } : { above: t.below };

/** Parts that go as far as a reading says, where one can be followed. */
const FOLLOWS = new Set(["knob", "stick", "bend"]);
/** What is dimmed by them where pulses can do it: a pump or a heater is switched. */
const DIMS = new Set(["lamp", "room-light", "strip", "drive"]);
/** What drives stops for what stands in its way. */
const AHEAD = new Set(["obstacle", "line", "distance"]);
const OWN_CODE = new Set(["tilt", "count-turns", "heading", "position"]);
/** What has an end at a time of the day stays off until the next morning, hours. */
const NIGHT_H = 8;
/** What gives a number that says no more than which key it was. */
const COUNTED = new Set(["remote", "code", "tag"]);
/** Words by which a reading is counted, not shown: steps, jumps. */
const COUNTS = /\b(?:count\w*|how (?:many|often)|number of times|tally)\b/;
/** How long something lasts that a moment begins, seconds. */
const A_WHILE = 5;
/** What is lit or switched at a time of the day is meant for longer. */
const AN_HOUR = 3600;
const A_DAY = 24 * AN_HOUR;
const LONG = new Set(["room-light", "lamp", "strip", "appliance"]);
/** White keys from the middle of a piano, Hz. */
const NOTES = [262, 294, 330, 349, 392, 440, 494, 523, 587, 659, 698, 784, 880, 988, 1047, 1175];
const TUNE = [
  { value: 523, for_s: 0.25 },
  { value: 659, for_s: 0.25 },
  { value: 784, for_s: 0.5 },
];
/** What is watered is given little: a sensor that falls out of its pot must not flood the room. */
const SIPS = new Set(["pump"]);
/** What goes over with each press or clap. */
const CLAPS = /\b(?:clap|whistl|knock|shout|blow)\w*/;
const TOGGLES = new Set(["lamp", "room-light", "strip", "appliance"]);

/** Green while all is well, yellow from four fifths of the way on, red when it has come. */
function traffic(outs: readonly RuleOutput[], cause: Cause | null): Rule[] {
  const [green, yellow, red] = outs.map((o) => o.ref);
  if (!green || !yellow || !red) return [];
  const turns: Rule["do"] = { ref: green, act: "next", among: [green, yellow, red] };
  if (!cause?.input || !cause.trip) return [{ when: { every_s: A_WHILE }, do: turns }];
  const { input, trip } = cause;
  if ("is" in trip) return [{ when: whenOf(input, trip), do: turns }];
  const at = "above" in trip ? trip.above : trip.below;
  // A fifth before it, or three degrees.
  const [less, more] = input.room[0] < 0 ? [at - 3, at + 3] : [at * 0.8, at * 1.25];
  const near = Math.round(("above" in trip ? less : more) * 10) / 10;
  const soon: Trip = "above" in trip ? { above: near } : { below: near };
  return [
    { when: whenOf(input, unless(soon)), do: { ref: green, act: "on" } },
    { when: whenOf(input, soon), do: { ref: yellow, act: "on" } },
    { when: whenOf(input, trip), do: { ref: red, act: "on" } },
  ];
}

const WARMTH = new Set(["temperature", "liquid-temperature", "very-hot", "contactless"]);
const COOLS =
  /\b(?:above|over|too (?:warm|hot)|warmer|hotter|cool\w*|fans?|air condition\w*|ventilat\w*|exceeds?|more than|rises?|gets? (?:warm|hot))\b/;
/** What is switched by a warmth is a heater unless something cools: it runs below, never above. */
function heated(act: string, { thing, trip }: Cause, text: string): Trip | null {
  if (act !== "appliance" || !WARMTH.has(thing) || !trip || !("above" in trip) || COOLS.test(text)) return trip;
  const { above, ...rest } = trip;
  const usual = TRIPS[thing]?.some((c) => Object.values(c.trips).some((t) => "above" in t && t.above === above));
  // A number that nobody said is one of a heat wave: for warming a room's.
  return { below: usual ? Math.min(above, 20) : above, ...rest };
}

/** Whether what is said of an act is that it ends, or does not begin. */
const stops = (said: string): boolean =>
  /\b(?:stop(?! (?:light|lamp|sign|button|clock))(?:s|ped|ping)?|off\b|(?:does|do|must|should|shall|will|may) ?n[o']t|doesn't|don't|never|no longer|shuts? (?:off|the)|cuts?)\b/.test(
    said,
  ) && !/\bon (?:and|or|\/) ?off\b|\bnon-?stop\b/.test(said);

/** What one output does by a cause; `said`: the clause that speaks of it. */
function doing(
  act: string,
  out: RuleOutput,
  cause: Cause,
  k: number,
  several: boolean,
  text: string,
  said: string,
): Rule[] {
  const { ref } = out;
  const lasts = lastingOf(text);
  const moment = (at: When): Rule[] => {
    if (out.word === "angle")
      return [{ when: at, do: { ref, act: "sequence", steps: [{ value: 90, for_s: lasts ?? A_WHILE }] } }];
    if (out.word === "tone") return [{ when: at, do: { ref, act: "sequence", steps: TUNE } }];
    if (out.word === "steps") return [];
    if (out.word === "piece" || out.word === "colour")
      return [{ when: at, do: { ref, act: "sequence", steps: [{ value: 1, for_s: lasts ?? A_WHILE }] } }];
    return [{ when: at, do: { ref, act: "for", for_s: lasts ?? (LONG.has(act) ? AN_HOUR : A_WHILE) } }];
  };
  if (cause.clock) {
    if (act === "digits" || act === "needle")
      return [{ when: { ref: cause.clock.ref, out: "time" }, do: { ref, act: "follow" } }];
    if (act === "text") return [];
    const every = everyOf(text);
    if (every !== null && every < A_DAY) return moment({ every_s: every });
    const span = spanOf(text);
    if (span && (out.onOff || out.word === "angle"))
      return [
        {
          when: { ref: cause.clock.ref, ...span },
          do: out.word === "angle" ? { ref, act: "set", value: 90 } : { ref, act: "on" },
        },
      ];
    if (stops(said))
      return cause.clock.times.map((from) => ({
        when: { ref: cause.clock!.ref, from, to: laterBy(from, NIGHT_H) },
        do: { ref, act: "off" },
      }));
    return cause.clock.times.flatMap((at) => moment({ ref: cause.clock!.ref, at }));
  }
  const { input } = cause;
  if (!input) return [];
  const trip = heated(act, cause, text);
  const shows = out.word === "number" && out.unit === "";
  const counts =
    cause.thing.startsWith("count-") || (shows && (input.yesNo || COUNTED.has(cause.thing) || COUNTS.test(text)));
  // Which way the sun is, two sensors tell: one does not.
  if (
    cause.thing === "light-level" &&
    /\b(?:track|follow)\w* (?:of )?(?:the )?sun|\b(?:sun|solar) ?(?:track|follow)/.test(text)
  )
    return [];
  // What balances, and what only measures wheels, is for own code.
  if (act === "drive" && OWN_CODE.has(cause.thing)) return [];
  if (shows) {
    if (act === "picture") return [];
    if (counts && trip) return [{ when: whenOf(input, trip), do: { ref, act: "count" } }];
    return act === "digits" ? [{ when: { ref: input.ref, out: input.out }, do: { ref, act: "follow" } }] : [];
  }
  const goes =
    !input.yesNo &&
    (FOLLOWS.has(cause.thing) ||
      act === "needle" ||
      (act === "turn" && /\bpoints? (?:at|to)\b|\bindicat\w*/.test(said)) ||
      (act === "strip" && out.word === "number" && !COUNTED.has(cause.thing) && cause.thing !== "light-level") ||
      (out.word === "tone" && cause.thing === "distance"));
  const can = out.dims ? DIMS.has(act) : !out.onOff && out.word !== "piece" && out.word !== "colour";
  // One button, one light: the second goes by the second.
  const at = cause.refs[several ? k : 0];
  if (goes && can) return [{ when: { ref: at ?? input.ref, out: input.out }, do: { ref, act: "follow" } }];
  if (!trip) return [];
  const when = whenOf(input, trip, at ?? input.ref);
  if (act === "drive" && AHEAD.has(cause.thing)) return [{ when: whenOf(input, unless(trip)), do: { ref, act: "on" } }];
  if (lasts !== null && out.onOff) return [{ when, do: { ref, act: "for", for_s: lasts } }];
  if (stops(said) && !CLAPS.test(text))
    return cause.refs.map((r) => ({ when: whenOf(input, trip, r), do: { ref, act: "off" } }));
  if (
    TOGGLES.has(act) &&
    (cause.thing === "button" || cause.thing === "touch" || cause.thing === "loudness" || cause.thing === "remote") &&
    (out.onOff || act === "strip") &&
    (cause.thing !== "loudness" || input.yesNo || CLAPS.test(text))
  )
    return [{ when, do: { ref, act: "toggle" } }];
  if (out.word === "angle") return [{ when, do: { ref, act: "set", value: 90 } }];
  if (out.word === "piece") return [{ when, do: { ref, act: "set", value: 1 } }];
  if (out.word === "tone" && act === "melody")
    return cause.refs.length > 1
      ? cause.refs
          .slice(0, NOTES.length)
          .map((r, n): Rule => ({ when: whenOf(input, trip, r), do: { ref, act: "set", value: NOTES[n]! } }))
      : [{ when, do: { ref, act: "sequence", steps: TUNE } }];
  if (out.word === "steps") return [];
  // Green while all is well, red when not.
  if (out.word === "colour" && !input.yesNo)
    return [
      { when: whenOf(input, unless(trip)), do: { ref, act: "set", value: 2 } },
      { when, do: { ref, act: "set", value: 1 } },
    ];
  return (several ? [at ?? input.ref] : cause.refs).map((r) => ({
    when: whenOf(input, trip, r),
    do: SIPS.has(act) && cause.thing === "soil" ? { ref, act: "for", for_s: A_WHILE } : { ref, act: "on" },
  }));
}

/** Lines of a record: again and again, and each time that something happens which is there or not. */
function lines(card: string, causes: readonly Cause[], text: string): Rule[] {
  const events = causes.filter((c) => c.input?.yesNo && c.trip);
  return [
    ...(events.length < causes.length || !events.length
      ? [{ when: { every_s: everyOf(text) ?? 60 }, do: { ref: card, act: "log" } } as Rule]
      : []),
    ...events.map((c): Rule => ({ when: whenOf(c.input!, c.trip!), do: { ref: card, act: "log" } })),
  ];
}

/** What rules do less well than the words may hope for, told where it is so. */
const SHORT: Readonly<Record<string, string>> = {
  tag: "Any card will do: which card it is, is for code of your own",
  code: "One key will do, the 7: a code of several keys is for code of your own",
  pump: "It runs for a few seconds each time: try how much that is before you leave it alone",
  appliance:
    "What heats needs a cut-out of its own: a program can stand still. Mains is for a licensed person and the local rules",
  "water-level": "Its centimetres count from the sensor down to the water: measure how many are full and empty",
  steps: "How many steps it goes, and when, is for code of your own",
};
const ONLY_OFF = "What switches it on is not said: add a sentence at Firmware";
export function shortWords(rules: readonly Rule[], wired: readonly Wired[]): string[] {
  const short = wired.flatMap((w) => {
    const says = SHORT[w.thing];
    const goesBy = (r: Rule) =>
      senses(w) ? "ref" in r.when && w.refs.includes(r.when.ref) : w.refs.includes(r.do.ref);
    const mine = rules.filter(goesBy);
    // A float and tracks in the water count nothing.
    if (w.thing === "water-level" && !mine.some((r) => "out" in r.when && r.when.out === "cm")) return [];
    return [
      ...(says && (w.thing === "steps" || mine.length) ? [says] : []),
      ...(!senses(w) && mine.length && mine.every((r) => r.do.act === "off") ? [ONLY_OFF] : []),
    ];
  });
  return [...new Set(short)];
}

/**
 * What the project does, as rules, from the wishes and the words they were said in: each act by the cause that stands nearest to
 * it, with common values where none is named. What the words leave open keeps what was there before, or what is suggested for it.
 * Nothing that moves, heats or pumps is begun by anything that nobody spoke of. Null: the words give no rule.
 */
export function rulesFor(c: Circuit, wired: readonly Wired[], typed: string): Rule[] | null {
  const text = typed.toLowerCase().replace(/[’‘]/g, "'");
  const view = rulesView(c);
  const causes = wired.filter(senses).flatMap((w) => {
    const cause = causeOf(w, view, text);
    return cause ? [{ cause, wired: w }] : [];
  });
  const acts = wired.filter((w) => !senses(w));
  const made = acts.flatMap((w): Rule[] => {
    const outs = view.outputs.filter((o) => w.refs.includes(o.ref) && !o.sends);
    if (outs.some((o) => o.logs))
      return outs.flatMap((o) =>
        o.logs
          ? lines(
              o.ref,
              causes.map((x) => x.cause),
              text,
            )
          : [],
      );
    const cause = nearest(causes, w, text);
    if (w.thing === "traffic" && outs.length === 3) return traffic(outs, cause);
    if (!cause) {
      const every = everyOf(text);
      const counts =
        w.thing === "digits" && /\b(?:timer|stop ?watch|count ?down|pomodoro|hour ?glass|clock)/.test(text);
      return outs.flatMap((o): Rule[] =>
        counts
          ? [{ when: { every_s: 1 }, do: { ref: o.ref, act: "count" } }]
          : every !== null && o.onOff
            ? [
                {
                  when: { every_s: every },
                  do: { ref: o.ref, act: "for", for_s: Math.min(lastingOf(text) ?? A_WHILE, every / 2) },
                },
              ]
            : [],
      );
    }
    const several = outs.length > 1 && cause.refs.length > 1;
    const said = w.places.map((p) => clauseAt(text, p)).join(" ");
    return outs.flatMap((o, k) => doing(w.thing, o, cause, k, several, text, said));
  });
  if (!made.length) return null;
  const told = new Set(made.map((r) => r.do.ref));
  const kept = view.rules.filter((r) => !told.has(r.rule.do.ref)).map((r) => r.rule);
  return [...kept, ...made].slice(0, 100);
}
