import type { Circuit } from "../../circuit";
import { findings, verdict } from "../../checks";
import { pinConstants } from "../../firmware";
import { checklist, STAGES, wanted, type Stage } from "../../bench";
import {
  breadboardDrawing,
  gridAddressTables,
  inRuns,
  isLaid,
  OWN_LEG,
  kitPart,
  kitWire,
  layoutInProject,
  loom,
  loomDrawing,
  SMALLEST_TEXT,
  partsList,
  PHASES,
  pinWords,
  runSheet,
  toolsFor,
  wireTable,
  type RunRow,
} from "../../build";
import { layOutHere } from "../../build/loom/elk";
import { cautions } from "../../checks/cautions";
import { termsIn } from "../../glossary";
import { fingerprint } from "../../project";
import { openNeeds } from "../open";
import { drawAcross, drawFitting } from "./draw";
import { lessonOf } from "../../lesson";
import {
  closeSheet,
  heading,
  newPage,
  openSheet,
  say,
  table,
  tickLine,
  type Fonts,
  type Paper,
  type Sheet,
} from "./sheet";

export interface PrintOptions {
  paper?: Paper;
  /** `learner`: with explanations and questions; `answers`: only the answer page. */
  variant?: "plan" | "learner" | "answers";
}

/** So many open pins are listed on the cover. */
const MOST_OPEN = 30;

function cover(s: Sheet, c: Circuit, variant: string): void {
  const list = findings(c);
  const v = verdict(c, list);
  say(s, c.project.title, { size: 24, bold: true, gap: 4 });
  if (c.project.brief.goal) say(s, c.project.brief.goal, { size: 11, gap: 8 });
  say(s, v.words, { size: 15, bold: true, gap: 2 });
  say(s, `Plan ${fingerprint(c.project)}: the program prints the same eight letters when it starts.`, { gap: 6 });
  const open = openNeeds(c);
  if (open.length) heading(s, "Still open", "Nothing was planned for these; they have no wire.");
  for (const o of open.slice(0, MOST_OPEN)) say(s, `${o.end} (${o.part}): ${o.wants}`, { indent: 8 });
  if (open.length > MOST_OPEN) say(s, `and ${open.length - MOST_OPEN} more`, { indent: 8 });
  if (v.counts.stop > 0) say(s, "Do not power this plan before its stops are mended.", { size: 11, bold: true });
  const shown = variant === "learner" ? list.filter((f) => f.severity !== "note") : list;
  if (shown.length) heading(s, "What the checks say");
  for (const f of shown)
    say(s, `${f.severity.toUpperCase()}  ${f.message}${f.acknowledged ? ` (acknowledged: ${f.acknowledged})` : ""}`, {
      bold: f.severity === "stop",
    });
  heading(s, "Take care");
  for (const t of cautions(c)) say(s, t, { indent: 8 });
}

/** Where a wire's end is: its pin or hole first, then in words. */
const place = (end: string, hole: string, words: string) =>
  hole ? `${hole}  (${end})` : words === end ? end : `${end}: ${words.replace(/^[^:]*: /, "")}`;

function sheetRows(s: Sheet, rows: RunRow[], learner: boolean): void {
  for (const ph of PHASES) {
    const mine = rows.filter((r) => r.phase === ph.id);
    if (!mine.length) continue;
    heading(s, ph.title, ph.why);
    for (const run of inRuns(mine)) {
      if (!isLaid(run[0]!)) {
        for (const r of run) tickLine(s, `${r.step}. ${r.note}`);
        continue;
      }
      table(
        s,
        [
          { title: "", share: 3, box: true },
          { title: "step", share: 4 },
          { title: "from", share: 30 },
          { title: "to", share: 30 },
          { title: "net", share: 15, bold: true },
          { title: "colour", share: 9 },
          { title: "cm, ends", share: 14 },
        ],
        run.map((r) => [
          "",
          String(r.step),
          place(r.from, r.holeA, r.fromWords),
          place(r.to, r.holeB, r.toWords),
          r.net,
          r.colour || (r.kind === "leg" ? OWN_LEG : r.kind),
          r.kind === "cable"
            ? "cable"
            : r.kind === "leg"
              ? `${r.endA}-${r.endB}`
              : `${r.length_cm}, ${r.endA}-${r.endB}${r.awg < 26 ? `, ${r.awg} AWG` : ""}`,
        ]),
      );
      // What must not be lost on the way to paper: gauge, isolation, why a wire goes where it goes.
      for (const r of run) if (r.note && r.kind !== "cable") say(s, `${r.step}: ${r.note}`, { soft: true, indent: 8 });
    }
    if (learner) say(s, `Why now: ${mine[0]!.why} Before going on: ${mine.at(-1)!.check}`, { soft: true });
  }
}

function pinTable(s: Sheet, c: Circuit): void {
  for (const host of c.netlist.expanded.hosts) {
    const inst = c.netlist.instance(host)!;
    const names = new Map(pinConstants(c, host, "sketch").map((k) => [k.hostPin, k.name]));
    const used = inst.part.pins.flatMap((p) => {
      const to = c.netlist.bindings.filter((b) => b.host === host && b.hostPin === p.label);
      return to.length ? [{ p, to }] : [];
    });
    if (!used.length) continue;
    heading(s, `Pins of ${inst.label}`, inst.part.name);
    table(
      s,
      [
        { title: "pin", share: 10, bold: true },
        { title: "where", share: 38 },
        { title: "goes to", share: 26 },
        { title: "name in the program", share: 26 },
      ],
      used.map(({ p, to }) => [
        p.label,
        pinWords(inst, p.label),
        to.map((b) => `${b.ref}.${b.pin} (${c.netlist.instance(b.ref)!.label})`).join(", "),
        names.get(p.label) ?? "",
      ]),
    );
  }
}

function lists(s: Sheet, c: Circuit): void {
  const { kit } = c.project;
  const benches = kit && kit.benches > 1 ? `, for ${kit.benches} benches together` : "";
  const list = partsList(c).filter((b) => b.part !== "wire");
  if (list.length) {
    heading(s, `Parts to lay out${benches}`);
    table(
      s,
      [
        { title: "", share: 3, box: true },
        { title: "number", share: 8 },
        { title: "spare", share: 7 },
        { title: "buy", share: 6 },
        { title: "part", share: 44 },
        { title: "where", share: 32 },
      ],
      list.map((b) => {
        const k = kitPart(b, kit);
        const what = `${b.name} ${b.value}${b.note ? ` (${b.note})` : ""}`;
        return [
          "",
          String(k.together),
          String(k.spares || ""),
          k.buy ? String(k.buy) : "have it",
          what,
          b.refs.join(" "),
        ];
      }),
    );
  }
  const wires = wireTable(c);
  if (wires.length) {
    heading(s, `Wires to lay out${benches}`);
    table(
      s,
      [
        { title: "", share: 3, box: true },
        { title: "number", share: 8 },
        { title: "spare", share: 7 },
        { title: "colour", share: 12 },
        { title: "length", share: 10 },
        { title: "ends", share: 16 },
        { title: "kind", share: 44 },
      ],
      wires.map((w) => {
        const k = kitWire(w, kit);
        return ["", String(k.together), String(k.spares || ""), w.colour, `${w.length_cm} cm`, w.ends, w.kind];
      }),
    );
  }
  const tools = toolsFor(c);
  if (tools.length) {
    heading(s, "Tools and consumables");
    for (const t of tools) tickLine(s, `${t.name}: ${t.why}`);
  }
}

function upload(s: Sheet, c: Circuit): void {
  for (const host of c.netlist.expanded.hosts) {
    const inst = c.netlist.instance(host)!;
    heading(s, `Uploading to ${inst.label}`, `${inst.part.board!.chip}: ${inst.part.board!.usb.says}`);
    inst.part.board!.upload.forEach((t, i) => say(s, `${i + 1}. ${t}`, { indent: 4 }));
  }
}

function explanations(s: Sheet, c: Circuit): void {
  heading(s, "What each part does");
  for (const p of c.project.parts) {
    const i = c.netlist.instance(p.ref);
    if (!i) continue;
    say(s, `${i.label}: ${i.part.does}`, { gap: 1 });
    for (const x of c.netlist.expanded.instances.values())
      if (x.inserted?.by === p.ref)
        say(s, `${x.ref}, ${x.part.name.toLowerCase()}: ${x.inserted.because}`, { indent: 12, soft: true, gap: 1 });
  }
}

function questions(s: Sheet, c: Circuit, answers: boolean): void {
  const list = lessonOf(c).questions;
  if (!list.length) return;
  heading(
    s,
    answers ? "Answers" : "Questions",
    answers ? "Computed from this plan." : "Answer them before the power goes on.",
  );
  list.forEach((q, i) => {
    say(s, `${i + 1}. ${q.ask}`, { size: 10, bold: answers, gap: answers ? 1 : 26 });
    if (answers) say(s, q.answer, { size: 10, indent: 12, gap: 8 });
  });
}

const CHECKS: Record<Stage, { title: string; says: string }> = {
  "before power": { title: "Checks before power", says: "All of them, with nothing plugged in, meter on beep." },
  "first power": { title: "Checks at first power", says: "Unplug at once when one is outside its limits." },
  "bring-up": { title: "Checks with the bring-up program", says: "Its lines tell what works, or ask what you see." },
};

/** What the words of this print mean, as far as the glossary has them. */
function wordsUsed(s: Sheet, c: Circuit): void {
  const parts = [...c.netlist.expanded.instances.values()].flatMap((i) => [
    i.part.name,
    i.part.does,
    ...i.part.cautions,
  ]);
  const rows = runSheet(c).flatMap((r) => [r.why, r.check, r.note, r.from, r.to]);
  const checks = checklist(c).flatMap((i) => [i.what, i.from, i.to]);
  const terms = termsIn([...parts, ...rows, ...checks, ...lessonOf(c).questions.map((q) => q.ask)]);
  if (!terms.length) return;
  heading(s, "Words", "Those of this print, in one line each.");
  table(
    s,
    [
      { title: "word", share: 24, bold: true },
      { title: "what it means", share: 76 },
    ],
    terms.map((t) => [t.term, t.gloss]),
  );
}

/**
 * The printed plan: verdict and cautions, drawings, run sheet with boxes, checks, pin table, lists, uploading. Everything
 * is legible in black and white. For learners with what each part does and questions; their answers are a print of their own.
 */
export async function printPlan(c: Circuit, fonts: Fonts, o: PrintOptions = {}): Promise<Uint8Array> {
  const variant = o.variant ?? "plan";
  const s = await openSheet(c.project.title, fonts, o.paper ?? "a4");
  if (variant === "answers") {
    say(s, c.project.title, { size: 20, bold: true, gap: 6 });
    questions(s, c, true);
    return closeSheet(s, `${c.project.title}, answers`, fingerprint(c.project));
  }
  const learner = variant === "learner";
  cover(s, c, variant);
  if (c.netlist.expanded.instances.size) {
    const why = "Square pin: pin 1. Double bar: the wire goes to the rail or splice that is named.";
    drawAcross(s, loomDrawing(await loom(c, layOutHere)), "Loom", why, SMALLEST_TEXT);
  }
  const layout = layoutInProject(c);
  if (layout) {
    newPage(s);
    heading(s, "Breadboard", "Holes by letter and number; names at the margin are leads from parts beside it.");
    drawFitting(s, breadboardDrawing(c, layout));
  }
  if (learner) {
    newPage(s);
    explanations(s, c);
  }
  newPage(s);
  sheetRows(s, runSheet(c), learner);
  const checks = checklist(c);
  for (const when of STAGES) {
    const mine = checks.filter((i) => i.when === when);
    if (!mine.length) continue;
    heading(s, CHECKS[when].title, CHECKS[when].says);
    table(
      s,
      [
        { title: "", share: 3, box: true },
        { title: "what", share: 28, bold: true },
        { title: "between", share: 30 },
        { title: "expected", share: 20 },
        { title: "measured", share: 19 },
      ],
      mine.map((i) => ["", i.what, [i.from, i.to].filter(Boolean).join(" and "), wanted(i), ""]),
    );
  }
  if (learner) {
    questions(s, c, false);
    wordsUsed(s, c);
  }
  pinTable(s, c);
  for (const g of gridAddressTables(c)) {
    heading(s, `Addresses of ${g.name} (${g.ref})`);
    table(
      s,
      [
        { title: "name", share: 30, bold: true },
        { title: "from line", share: 20 },
        { title: "to line", share: 20 },
        { title: "board pins", share: 30 },
      ],
      g.rows.map((r) => [r.name, r.a, r.b, r.pins]),
    );
  }
  lists(s, c);
  upload(s, c);
  return closeSheet(s, c.project.title, fingerprint(c.project));
}
