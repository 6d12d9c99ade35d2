import type { Circuit } from "../../../circuit";
import { kitPart, partsList, toolsFor } from "../../../build";
import { changesSince, DEFERS, itemsOf, lessonOf, type Lesson } from "../../../lesson";
import { count } from "../../../quantity/count";
import { closeSheet, heading, openSheet, say, table, tickLine, type Fonts, type Paper, type Sheet } from "../sheet";
import { forWhom } from "./words";

function schedule(s: Sheet, l: Lesson): void {
  heading(s, "Time", "Our estimates for pairs, on the slow side. A step is never parted between two meetings.");
  l.sessions.forEach((m, i) => {
    say(s, `Meeting ${i + 1} of ${l.sessions.length}: ${m.minutes} minutes`, { bold: true, gap: 1 });
    let at = 0;
    table(
      s,
      [
        { title: "from minute", share: 14 },
        { title: "minutes", share: 12 },
        { title: "what", share: 74 },
      ],
      m.blocks.map((b) => {
        const row = [String(at), String(b.minutes), b.what];
        at += b.minutes;
        return row;
      }),
    );
  });
}

function changes(s: Sheet, c: Circuit, l: Lesson): void {
  const made = c.project.lesson?.made;
  if (!made) return;
  const list = changesSince(made.items, itemsOf(l));
  heading(
    s,
    "Changed since the last print",
    `Plan ${made.plan}, printed ${made.at.slice(0, 10)}; this is plan ${l.plan}.`,
  );
  if (!list.length) say(s, "Nothing: what was printed still holds.");
  for (const x of list) tickLine(s, `${x.section}: ${x.says}`);
}

function answers(s: Sheet, l: Lesson): void {
  heading(s, "Answers", "Computed from this plan, in the order of the sheets.");
  const order = [
    ...l.questions.filter((q) => q.aim !== "fault-finding"),
    ...l.questions.filter((q) => q.aim === "fault-finding"),
  ];
  order.forEach((q, i) => {
    say(s, `${i + 1}. ${q.ask}`, { size: 9.5, bold: true, gap: 1 });
    say(s, q.answer, { size: 9.5, indent: 12, gap: q.working ? 1 : 6 });
    if (q.working) say(s, q.working, { size: 9, indent: 12, soft: true, gap: 6 });
  });
}

/** The teacher's pages: time, risks, answers, what is signed where, faults and their key, extensions, what to lay out, what changed. */
export async function printTeacher(c: Circuit, fonts: Fonts, paper: Paper = "a4"): Promise<Uint8Array> {
  const l = lessonOf(c);
  const s = await openSheet(`${l.title}, teacher`, fonts, paper);
  say(s, l.title, { size: 22, bold: true, gap: 2 });
  say(s, `${forWhom(l)} ${count(l.benches, "bench", "benches")}.`, { size: 10.5, gap: 4 });
  changes(s, c, l);
  schedule(s, l);
  heading(s, "Risk note", DEFERS);
  if (l.risks.length)
    table(
      s,
      [
        { title: "danger", share: 34, bold: true },
        { title: "where in this plan", share: 22 },
        { title: "what keeps it away", share: 44 },
      ],
      l.risks.map((r) => [r.what, r.where, r.does]),
    );
  const stops = l.steps.filter((x) => x.sign);
  heading(s, "Checkpoints to sign", "Nobody goes on, and nobody gets a plug, before these are shown.");
  table(
    s,
    [
      { title: "", share: 3, box: true },
      { title: "step", share: 6 },
      { title: "what is shown", share: 91 },
    ],
    stops.map((x) => ["", String(x.step), x.says]),
  );
  answers(s, l);
  if (l.faults.length) {
    heading(
      s,
      "Faults to find: the key",
      "In the trainer (Bench), choose the level and this number: the same fault comes each time.",
    );
    table(
      s,
      [
        { title: "bench", share: 7, bold: true },
        { title: "level", share: 15 },
        { title: "number", share: 9 },
        { title: "what is noticed", share: 22 },
        { title: "what it is", share: 27 },
        { title: "measurements", share: 12 },
      ],
      l.faults.map((f) => [
        String(f.bench),
        f.levelName,
        String(f.seed),
        f.complaint.join(" "),
        f.fault,
        `${f.best} are enough`,
      ]),
    );
  }
  if (l.extensions.length) {
    heading(s, "For the quick");
    for (const e of l.extensions)
      say(s, `${e.says}${e.takes.length ? ` Takes: ${e.takes.join(", ")}.` : ""}`, { indent: 8 });
  }
  const kit = { spares_percent: {}, ...c.project.kit, benches: l.benches };
  heading(s, `To lay out for ${count(l.benches, "bench", "benches")}`);
  table(
    s,
    [
      { title: "", share: 3, box: true },
      { title: "a bench", share: 9 },
      { title: "together", share: 10 },
      { title: "spare", share: 8 },
      { title: "buy", share: 8 },
      { title: "part", share: 62 },
    ],
    partsList(c).map((b) => {
      const k = kitPart(b, kit);
      return [
        "",
        String(b.quantity),
        String(k.together),
        String(k.spares || ""),
        k.buy ? String(k.buy) : "have it",
        `${b.name} ${b.value}`,
      ];
    }),
  );
  const tools = toolsFor(c);
  if (tools.length) heading(s, "Tools, for each bench unless shared");
  for (const t of tools) tickLine(s, `${t.name}: ${t.why}`);
  return closeSheet(s, `${l.title}, for the teacher`, l.plan);
}
