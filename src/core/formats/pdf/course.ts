import type { CourseView } from "../../course";
import { orderWords } from "../../course/types";
import { count } from "../../quantity/count";
import { card, gridOf } from "./lesson/kits";
import { closeSheet, heading, newPage, openSheet, say, table, type Fonts, type Paper } from "./sheet";

/** A course on paper: lessons, the kit, what to order when, a card for every box of every bench, what comes back and its tests. */
export async function printCourse(v: CourseView, fonts: Fonts, paper: Paper): Promise<Uint8Array> {
  const s = await openSheet(v.title, fonts, paper);
  say(s, v.title, { size: 24, bold: true, gap: 3 });
  say(
    s,
    `${count(v.lessons.length, "lesson")} on one kit, ${count(v.benches, "bench", "benches")}. A bench needs ${count(v.together, "piece")}; with a kit for each lesson it would be ${v.apart}.`,
    { size: 11, gap: 6 },
  );
  heading(s, "Lessons");
  table(
    s,
    [
      { title: "week", share: 8 },
      { title: "what is built", share: 46, bold: true },
      { title: "the plan", share: 30 },
      { title: "afterwards", share: 16 },
    ],
    v.lessons.map((l) => [String(l.week), l.title, l.verdict, l.stays ? "stays built" : "comes back"]),
  );
  heading(s, "What to order", "By the week in which it is ordered at the latest, spares included.");
  if (!v.orders.length) say(s, "Nothing: everything is there.");
  for (const o of v.orders) {
    say(s, orderWords(o), { bold: true, gap: 1 });
    table(
      s,
      [
        { title: "", share: 3, box: true },
        { title: "number", share: 10 },
        { title: "what", share: 87 },
      ],
      o.lines.map((l) => ["", String(l.number), l.what]),
    );
  }
  heading(s, "The kit", "Of each kind the most that is needed at a time, and when that is.");
  table(
    s,
    [
      { title: "what", share: 40, bold: true },
      { title: "a bench", share: 8 },
      { title: "together", share: 9 },
      { title: "spare", share: 7 },
      { title: "have", share: 7 },
      { title: "buy", share: 7 },
      { title: "most in", share: 22 },
    ],
    v.parts.map((p) => [
      [p.name, p.value].filter(Boolean).join(", "),
      String(p.most),
      String(p.together),
      String(p.spares || ""),
      String(p.owned || ""),
      String(p.buy || ""),
      p.at,
    ]),
  );
  for (const r of v.returns) {
    heading(
      s,
      `Back after week ${r.week}: ${r.title}`,
      r.stays ? "It stays built: nothing is collected." : "Counted by bench, and tested before it goes into its box.",
    );
    if (!r.back.length) continue;
    table(
      s,
      [
        { title: "", share: 3, box: true },
        { title: "number", share: 8 },
        { title: "what", share: 40 },
        { title: "sound when", share: 49 },
      ],
      r.back.map((b) => ["", String(b.number), b.what, b.test]),
    );
  }
  if (v.boxes.length) {
    const cards = Array.from({ length: v.benches }, (_, i) => v.boxes.map((b) => ({ bench: i + 1, b }))).flat();
    const grid = gridOf(s);
    cards.forEach((x, i) => {
      if (i % grid.most === 0) newPage(s);
      card(s, { bench: x.bench, lines: x.b.lines }, x.b.name, v.benches, "", grid.at(i % grid.most));
    });
  }
  return closeSheet(s, v.title, "");
}
