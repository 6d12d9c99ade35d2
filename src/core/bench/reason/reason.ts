import type { Circuit } from "../../circuit";
import { faultsOf, minutesOf, type Fault } from "../faults";
import { both } from "../laid/change";
import { layOut, type Laid } from "../laid/laid";
import { stateOf, type State } from "../laid/state";
import { worksOf, type Works } from "../laid/works";
import { agrees, labelOf, likelihood } from "./likely";
import {
  answer,
  effortOf,
  endsOf,
  isPowered,
  keyOf,
  questionsOf,
  type Answer,
  type Ends,
  type Observation,
  type Question,
} from "./questions";

/** One explanation of what was seen: nothing is wrong, one fault, or two at once. */
export interface Hypothesis {
  faults: readonly Fault[];
  weight: number;
  state: State;
}

/** An explanation with how likely it is now, and which observations speak for and against it. */
export interface Suspect {
  faults: readonly Fault[];
  /** Share of all that is possible, 0 to 1. */
  share: number;
  for: readonly Observation[];
  against: readonly { o: Observation; shown: Answer }[];
  minutes: number;
}

export interface Next {
  q: Question;
  /** Bits that it tells on average. */
  bits: number;
  /** What a sound build shows. */
  sound: Answer;
}

export interface Judged {
  /** Most likely first; an empty list of faults: nothing is wrong. Those that no measurement can tell apart stand together. */
  suspects: readonly Suspect[];
  /** Nothing single explains what was seen. */
  pairs: boolean;
  next: Next | null;
  /** Share of suspects with which powering could destroy something. */
  danger: number;
}

/** What can be asked of a plan and what each fault would show. Made once a plan. */
export interface Reason {
  laid: Laid;
  works: Works;
  sound: State;
  singles: readonly Hypothesis[];
  questions: readonly Question[];
  /** What an explanation shows to a question. */
  shows(h: Hypothesis, q: Question): Answer;
  /** What any build of this plan shows to a question. */
  answer(s: State, q: Question): Answer;
  /** What an explanation shows to everything that can be asked: those with the same can't be told apart. */
  signature(h: Hypothesis): string;
  /** What a sound build would not show. */
  odd(seen: readonly Observation[]): Observation[];
  judge(seen: readonly Observation[], how?: How): Judged;
}

export interface How {
  /** What may be asked; everything when absent. */
  allowed?: (q: Question) => boolean;
  /** Something is wrong for sure: somebody has seen that it does not do what it should. */
  wrong?: boolean;
}

/** Before anything is seen, a build is as likely to be right as to have some fault. */
const SOUND_SHARE = 0.5;
/** Where something is wrong, so often a second thing is. */
const PAIR_SHARE = 0.3;
/** Of so many most likely single faults pairs are made. */
const PAIRS_OF = 24;
/** Above this nothing is powered before it is measured. */
const MOST_DANGER = 0.05;
/** What a question has to tell to be worth asking, bits. */
const LEAST_BITS = 0.02;
/** An explanation below this share is not told. */
const LEAST_SHARE = 0.003;

const entropy = (shares: Iterable<number>) => {
  let H = 0;
  for (const p of shares) if (p > 0) H -= p * Math.log2(p);
  return H;
};

const known = new WeakMap<Circuit, Reason>();

export function reasonOf(c: Circuit): Reason {
  const there = known.get(c);
  if (there) return there;
  const laid = layOut(c);
  const works = worksOf(laid);
  const { sound } = works;
  const faults = faultsOf(laid);
  const total = faults.reduce((s, f) => s + f.weight, 0) || 1;
  const none: Hypothesis = { faults: [], weight: total * (SOUND_SHARE / (1 - SOUND_SHARE)), state: sound };
  const singles = [
    none,
    ...faults.map((f): Hypothesis => ({ faults: [f], weight: f.weight, state: stateOf(laid, f.change) })),
  ];
  const questions = questionsOf(laid, works, sound, faults);
  // By question, what each explanation shows; questions that are not in the list are asked by somebody's own choice.
  const places = new Map<string, number>();
  const asked: Question[] = [];
  const ends: Ends[] = [];
  const placeOf = (q: Question): number => {
    const key = keyOf(q);
    const there = places.get(key);
    if (there !== undefined) return there;
    places.set(key, asked.length);
    ends.push(endsOf(laid, q));
    return asked.push(q) - 1;
  };
  questions.forEach(placeOf);
  const answers = new WeakMap<Hypothesis, (Answer | undefined)[]>();
  const showsAt = (h: Hypothesis, i: number): Answer => {
    let mine = answers.get(h);
    if (!mine) answers.set(h, (mine = []));
    const a = mine[i];
    if (a !== undefined) return a;
    return (mine[i] = answer(works, h.state, asked[i]!, h === none ? undefined : showsAt(none, i), ends[i]));
  };
  const shows = (h: Hypothesis, q: Question): Answer => showsAt(h, placeOf(q));
  // Kinds of answers by number: hundreds of thousands of them are sorted for one step.
  const kinds = new Map<string, number>([["?", 0]]);
  const kindOf = (label: string) => {
    const there = kinds.get(label);
    if (there !== undefined) return there;
    kinds.set(label, kinds.size);
    return kinds.size - 1;
  };
  const codes = new WeakMap<Hypothesis, Int16Array>();
  const codesOf = (h: Hypothesis): Int16Array => {
    const there = codes.get(h);
    if (there) return there;
    const made = new Int16Array(questions.length).fill(-1);
    codes.set(h, made);
    return made;
  };
  const codeAt = (h: Hypothesis, mine: Int16Array, i: number): number => {
    if (mine[i]! >= 0) return mine[i]!;
    const sound = h === none ? -1 : codeAt(none, codesOf(none), i);
    const { a, b } = ends[i]!;
    // Nothing is otherwise there: neither is the answer.
    const same = sound >= 0 && a >= 0 && b >= 0 && !h.state.felt(a) && !h.state.felt(b);
    return (mine[i] = same ? sound : kindOf(labelOf(showsAt(h, i))));
  };
  const signatures = new WeakMap<Hypothesis, string>();
  const hurts = new WeakMap<Hypothesis, boolean>();
  const harmful = (h: Hypothesis) => {
    const x = hurts.get(h) ?? works.hurts(h.state);
    hurts.set(h, x);
    return x;
  };
  const weigh = (list: readonly Hypothesis[], seen: readonly Observation[]) =>
    list.map((h) => seen.reduce((w, o) => w * likelihood(o, shows(h, o.q)), h.weight));
  const explains = (h: Hypothesis, seen: readonly Observation[]) => seen.every((o) => agrees(o, shows(h, o.q)));
  const pairsOf = (
    first: readonly Hypothesis[],
    seen: readonly Observation[],
    weights: readonly number[],
  ): Hypothesis[] => {
    // A fault of a pair explains something that a sound build does not show.
    const odd = seen.filter((o) => !agrees(o, shows(none, o.q)));
    const order = first
      .map((h, i) => ({ h, w: weights[i]!, n: odd.filter((o) => agrees(o, shows(h, o.q))).length }))
      .filter((x) => x.h.faults.length && x.n)
      .sort((a, b) => b.n - a.n || b.w - a.w);
    const best = order.slice(0, PAIRS_OF);
    // For everything odd, who explains it best belongs into some pair.
    for (const o of odd)
      for (const x of order.filter((y) => agrees(o, shows(y.h, o.q))).slice(0, 6)) if (!best.includes(x)) best.push(x);
    return best.flatMap((x, i) =>
      best.slice(i + 1).map((y): Hypothesis => {
        const [f, g] = [x.h.faults[0]!, y.h.faults[0]!];
        return {
          faults: [f, g],
          weight: (f.weight * g.weight * PAIR_SHARE) / total + 1e-9,
          state: stateOf(laid, both(f.change, g.change)),
        };
      }),
    );
  };
  const nextOf = (
    list: readonly Hypothesis[],
    shares: readonly number[],
    seen: readonly Observation[],
    danger: number,
    allowed: (q: Question) => boolean,
  ): Next | null => {
    const done = new Set(seen.map((o) => placeOf(o.q)));
    const live = list.flatMap((h, i) => (shares[i]! > 1e-5 ? [{ h, p: shares[i]!, codes: codesOf(h) }] : []));
    let best: { q: Question; bits: number; worth: number } | null = null;
    const sums = new Float64Array(1 << 15);
    for (const [i, q] of questions.entries()) {
      if (done.has(i) || !allowed(q) || (danger > MOST_DANGER && isPowered(q))) continue;
      const there: number[] = [];
      for (const x of live) {
        const k = codeAt(x.h, x.codes, i);
        if (sums[k] === 0) there.push(k);
        sums[k]! += x.p;
      }
      const known = there.filter((k) => k !== 0);
      const parts = known.map((k) => sums[k]!);
      for (const k of there) sums[k] = 0;
      if (parts.length < 2) continue;
      const sum = parts.reduce((a, b) => a + b, 0);
      const bits = sum * entropy(parts.map((p) => p / sum));
      const worth = bits / effortOf(q);
      if (bits > LEAST_BITS && worth > (best?.worth ?? 0)) best = { q, bits, worth };
    }
    return best && { q: best.q, bits: best.bits, sound: shows(none, best.q) };
  };
  const reason: Reason = {
    laid,
    works,
    sound,
    singles,
    questions,
    shows,
    answer: (s, q) => answer(works, s, q),
    signature(h) {
      const made = signatures.get(h) ?? questions.map((_, i) => codeAt(h, codesOf(h), i)).join();
      signatures.set(h, made);
      return made;
    },
    odd: (seen) => seen.filter((o) => !agrees(o, shows(none, o.q))),
    judge(all, { allowed = () => true, wrong = false } = {}) {
      // The same asked twice is known once: what was seen last counts.
      const seen = [...new Map(all.map((o) => [placeOf(o.q), o])).values()];
      const first = wrong ? singles.slice(1) : singles;
      let list: readonly Hypothesis[] = first;
      let weights = weigh(list, seen);
      const pairs = seen.length > 0 && !list.some((h) => explains(h, seen));
      if (pairs) {
        list = [...first, ...pairsOf(first, seen, weights)];
        weights = weigh(list, seen);
      }
      const sum = weights.reduce((a, b) => a + b, 0) || 1;
      const shares = weights.map((w) => w / sum);
      const danger = list.reduce((d, h, i) => (shares[i]! > 1e-4 && harmful(h) ? d + shares[i]! : d), 0);
      const suspects = list
        .map((h, i) => ({ h, share: shares[i]! }))
        .filter((x) => x.share >= LEAST_SHARE)
        .sort((a, b) => b.share - a.share)
        .map(({ h, share }): Suspect => ({
          faults: h.faults,
          share,
          for: seen.filter((o) => agrees(o, shows(h, o.q)) && (!h.faults.length || !agrees(o, shows(none, o.q)))),
          against: seen.flatMap((o) => (agrees(o, shows(h, o.q)) ? [] : [{ o, shown: shows(h, o.q) }])),
          minutes: h.faults.reduce((m, f) => m + minutesOf(f), 0),
        }));
      return { suspects, pairs, next: nextOf(list, shares, seen, danger, allowed), danger };
    },
  };
  known.set(c, reason);
  return reason;
}
