import { sleepView, type SleepView } from "../../firmware/sleep/view";
import type { Found, Rule } from "../types";

/** So many names are told, the others counted. */
const MOST_NAMED = 4;
const named = (list: readonly { label: string }[]) =>
  list.length > MOST_NAMED
    ? `${list
        .slice(0, MOST_NAMED)
        .map((x) => x.label)
        .join(", ")} and ${list.length - MOST_NAMED} more`
    : list.map((x) => x.label).join(", ");

type Asleep = SleepView & { sleep: NonNullable<SleepView["sleep"]> };

const found = (v: Asleep, severity: Found["severity"], message: string, more: Partial<Found> = {}): Found => ({
  rule: "firmware.sleep",
  severity,
  at: [v.host],
  message,
  evidence: { every_s: v.sleep.every_s, awake_s: v.sleep.awake_s },
  fixes: [],
  ...more,
});

/** No program of this board sleeps. */
const never = (v: Asleep): Found[] =>
  v.why === null
    ? []
    : [
        found(
          v,
          "risk",
          `${v.label} shall sleep between readings, and none of its programs does: ${v.why}. It stays awake.`,
          {
            fixes: [
              {
                id: "awake",
                label: `Let ${v.label} stay awake`,
                edits: [{ type: "setSleep", ref: v.host, sleep: null }],
              },
            ],
          },
        ),
      ];

/** It is asleep again before a reading has come. */
function tooShort(v: Asleep): Found[] {
  if (v.why !== null || v.sleep.awake_s >= v.needs_s) return [];
  const every_s = Math.max(v.sleep.every_s, v.needs_s + 1);
  return [
    found(
      v,
      "risk",
      `Awake for ${v.sleep.awake_s} s, ${v.label} is asleep again before every reading has come: ${v.needsBy ?? "its line a second"} needs ${v.needs_s} s.`,
      {
        evidence: { awake_s: v.sleep.awake_s, needs_s: v.needs_s },
        fixes: [
          {
            id: "awake-for",
            label: `Awake for ${v.needs_s} s`,
            edits: [{ type: "setSleep", ref: v.host, sleep: { every_s, awake_s: v.needs_s } }],
          },
        ],
      },
    ),
  ];
}

/** What comes from outside while it sleeps is lost. */
const deaf = (v: Asleep): Found[] =>
  v.why !== null || !v.deaf.length
    ? []
    : [
        found(
          v,
          "note",
          `While ${v.label} sleeps it does not hear ${named(v.deaf)}: what is pressed or sent then is lost. A key has to be held until the next round, or let it stay awake.`,
        ),
      ];

/** What works something is never left alone. */
const watched = (v: Asleep): Found[] =>
  v.why !== null || !v.watched.length
    ? []
    : [
        found(
          v,
          "note",
          `${v.label} does not sleep while ${named(v.watched)} ${v.watched.length === 1 ? "is" : "are"} told to do something: nothing could stop ${v.watched.length === 1 ? "it" : "them"} meanwhile. What then draws current shortens the cell's life.`,
          { at: [v.host, ...v.watched.map((x) => x.ref)] },
        ),
      ];

export const firmwareSleep: Rule = {
  rule: "firmware.sleep",
  says: "A board that sleeps between readings is awake long enough for them, and what it does not hear meanwhile is told.",
  check: (c) =>
    c.project.parts.some((p) => p.sleep)
      ? sleepView(c)
          .filter((v): v is Asleep => v.sleep !== null)
          .flatMap((v) => [...never(v), ...tooShort(v), ...deaf(v), ...watched(v)])
      : [],
};
