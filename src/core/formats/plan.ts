import { planAll, planOpen } from "../plan/advice";
import { isPlanned } from "../plan/assign";
import { checklist } from "../bench";
import type { Catalogue } from "../parts/catalogue";
import { findings, triedFindings, verdict, type Finding, type Verdict } from "../checks";
import { label } from "../checks/help";
import { circuitOf, type Circuit } from "../circuit";
import { boardsWithout, TARGETS } from "../firmware";
import { fingerprint, houseRule, writeProject, type Project } from "../project";
import {
  breadboardDrawing,
  cutList,
  layoutProven,
  OWN_LEG,
  phaseById,
  placedAsBuilt,
  layoutInProject,
  loom,
  loomDrawing,
  partsList,
  runSheet,
  gridAddressTables,
  kitTable,
  toolsFor,
  wireList,
  wireTable,
} from "../build";
import { toSvg } from "../drawing";
import { layOutHere } from "../build/loom/elk";
import { remarksOf } from "../review";
import { cautions } from "../checks/cautions";
import { panelOf } from "../build/panel";
import { drillList } from "../build/panel/drill";
import { carrierPlans, type At } from "../build/solder";
import { plugBoard } from "../build/plugboard";
import { toCsv } from "./csv";
import { planMarkdown, type PlanText } from "./markdown";
import { openNeeds } from "./open";

/** A finding as it is written: fixes by id and label, their edits left out. */
export const plainFinding = (f: Finding) => ({
  rule: f.rule,
  severity: f.severity,
  at: f.at,
  message: f.message,
  evidence: f.evidence,
  fixes: f.fixes.map(({ id, label }) => ({ id, label })),
  ...(f.acknowledged && { acknowledged: f.acknowledged }),
});

/** The netlist as plain data for other tools. */
export function plainNetlist(c: Circuit) {
  const n = c.netlist;
  return {
    instances: [...n.expanded.instances.values()].map((i) => ({
      ref: i.ref,
      part: i.part.id,
      label: i.label,
      ...(i.host && { host: i.host }),
      ...(i.inserted && { insertedFor: i.inserted.by, as: i.inserted.key, why: i.inserted.because }),
    })),
    nets: n.nets
      .filter((x) => x.ends.length > 1)
      .map((x) => ({
        name: x.name,
        kind: x.kind,
        V: x.V,
        ends: x.ends.map((e) => ({ end: `${e.ref}.${e.pin}`, as: e.as })),
      })),
    rails: c.power.rails.map((r) => ({
      name: r.name,
      V: r.V,
      mA: { idle: r.flow.idle * 1e3, typ: r.flow.typ * 1e3, peak: r.flow.peak * 1e3 },
    })),
    bindings: n.bindings.map((b) => ({ need: `${b.ref}.${b.pin}`, pin: `${b.host}.${b.hostPin}` })),
  };
}

/** Rows of a list with the plan that they belong to behind each: lists of different plans are told apart. */
const listCsv = (c: Circuit, fields: string[], rows: (string | number | null)[][]): string => {
  const mark = fingerprint(c.project);
  return toCsv(
    [...fields, "plan"],
    rows.map((r) => [...r, mark]),
  );
};

export function wiresCsv(c: Circuit): string {
  return listCsv(
    c,
    [
      ...["step", "from", "to", "net", "colour", "length_cm", "end_a", "end_b", "note"],
      ...["kind", "awg", "hole_a", "hole_b", "group", "why", "check"],
    ],
    wireList(c).map((r) => [
      r.step,
      r.from,
      r.to,
      r.net,
      r.colour,
      r.length_cm,
      r.endA,
      r.endB,
      [r.holeA && `${r.from} in ${r.holeA}`, r.holeB && `${r.to} in ${r.holeB}`, r.note].filter(Boolean).join("; "),
      r.kind === "leg" ? OWN_LEG : r.kind,
      r.awg || null,
      r.holeA,
      r.holeB,
      phaseById(r.phase).title,
      r.why,
      r.check,
    ]),
  );
}

export function partsCsv(c: Circuit): string {
  return listCsv(
    c,
    ["quantity", "spares", "part", "name", "value", "refs", "note", "owned", "buy"],
    partsList(c).map((b) => [b.quantity, b.spares, b.part, b.name, b.value, b.refs.join(" "), b.note, b.owned, b.buy]),
  );
}

export const toolsCsv = (c: Circuit): string =>
  listCsv(
    c,
    ["what", "kind", "why"],
    toolsFor(c).map((t) => [t.name, t.kind, t.why]),
  );

/** Which leg of which part goes into which hole of the breadboards. */
export const holesCsv = (c: Circuit): string =>
  listCsv(
    c,
    ["leg", "hole"],
    (layoutProven(c)?.parts ?? []).flatMap((p) => p.holes.map((h) => [`${p.ref}.${h.pin}`, h.hole])),
  );

/** The same placement on boards to solder: strips or bare wires, cuts, rails, legs and wires, by row and column. */
export const carrierCsv = (c: Circuit): string => {
  const l = layoutProven(c);
  const rows = (l ? carrierPlans(c, l) : []).flatMap((p) => {
    const row = (kind: string, what: string, net: string, a: At | null, b: At | null) => [
      p.board + 1,
      kind,
      what,
      net,
      a?.row ?? "",
      a?.column ?? "",
      b?.row ?? "",
      b?.column ?? "",
    ];
    return [
      ...p.cuts.map((x) => row("cut", "", "", x, null)),
      ...p.pieces
        .filter((x) => x.from !== x.to)
        .map((x) => row("piece", x.at.join(" "), x.net, { row: x.row, column: x.from }, { row: x.row, column: x.to })),
      ...p.rails.flatMap((r) => r.rows.map((n) => row("rail", "", r.net, { row: n, column: r.column }, null))),
      ...p.parts.flatMap((x) => x.pins.map((y) => row("leg", `${x.ref}.${y.pin}`, "", y.at, null))),
      ...p.wires.map((w) => row("wire", `${w.from} ${w.to}`, w.net, w.a, w.b)),
    ];
  });
  return listCsv(c, ["board", "kind", "what", "net", "row", "column", "to_row", "to_column"], rows);
};

/** The board that plugs onto the header: header, legs, wires that leave, wires on the back, by row and column. */
export const plugCsv = (c: Circuit): string => {
  const b = plugBoard(c);
  const at = (a: At | null | undefined) => [a?.row ?? "", a?.column ?? ""];
  const none = ["", 0, 0, ...at(null)];
  return listCsv(
    c,
    [
      ...["kind", "what", "to", "net", "row", "column", "to_row", "to_column"],
      ...["colour", "cut_mm", "awg", "through_row", "through_column"],
    ],
    b
      ? [
          ...b.header.map((h) => [
            "header",
            h.pin ? `${b.host}.${h.pin}` : "",
            "",
            "",
            ...at(h.at),
            ...at(null),
            ...none,
          ]),
          ...b.parts.flatMap((p) =>
            p.pins.map((x) => [p.leads ? "lead" : "leg", x.end ?? p.ref, "", "", ...at(x.at), ...at(null), ...none]),
          ),
          ...b.wires.map((w) => [
            ...[w.bare ? "bare" : "wire", w.from, w.to, w.net, ...at(w.a), ...at(w.b)],
            ...[w.bare ? "" : w.colour, w.cut_mm, w.heavy?.awg ?? (w.bare ? 0 : 26), ...at(w.through?.at)],
          ]),
          ...b.direct.map((d) => ["direct", d.from, d.to, d.net, ...at(null), ...at(null), "", 0, d.awg, ...at(null)]),
        ]
      : [],
  );
};

/** Holes in the walls of the box, in the order of drilling. */
export const drillCsv = (c: Circuit): string => {
  const panel = panelOf(c);
  return listCsv(
    c,
    ["part", "wall", "shape", "from_left_mm", "from_top_mm", "width_mm", "height_mm", "how"],
    (panel ? drillList(panel) : []).map((r) => [
      r.ref === r.part ? r.part : `${r.ref} ${r.part}`,
      r.wall,
      r.shape,
      r.x_mm,
      r.y_mm,
      r.mm[0],
      r.mm[1] ?? r.mm[0],
      r.how,
    ]),
  );
};

/** Wires to cut for this build, slack and stripped ends included. */
export const cutsCsv = (c: Circuit): string =>
  listCsv(
    c,
    ["quantity", "colour", "cut_cm", "awg", "nets"],
    cutList(c).map((r) => [r.quantity, r.colour, r.cut_cm, r.awg, r.nets.join(" ")]),
  );

/** Which pair of lines is which key or light, one row a place. */
export const addressesCsv = (c: Circuit, list: PlanText["addresses"]): string =>
  listCsv(
    c,
    ["part", "name", "from_line", "to_line", "board_pins"],
    list.flatMap((g) => g.rows.map((r) => [g.ref, r.name, r.a, r.b, r.pins])),
  );

/** What others have said about the plan. */
export const remarksCsv = (c: Circuit): string =>
  listCsv(
    c,
    ["about", "says", "by", "when", "done", "done_by"],
    remarksOf(c).map((r) => [
      r.about,
      r.remark.says,
      r.remark.by,
      r.remark.when,
      r.remark.done ? r.remark.done.says || "yes" : "",
      r.remark.done?.by ?? "",
    ]),
  );

export function checksCsv(c: Circuit): string {
  return listCsv(
    c,
    ["what", "from", "to", "low", "high", "unit", "when"],
    checklist(c).map((i) => [i.what, i.from, i.to, i.word ?? i.low, i.word ?? i.high, i.unit, i.when]),
  );
}

export function planText(c: Circuit): PlanText & { verdict: Verdict } {
  const list = triedFindings(c, findings(c));
  return {
    title: c.project.title,
    fingerprint: fingerprint(c.project),
    open: openNeeds(c),
    verdict: verdict(c, list),
    findings: list,
    rows: runSheet(c),
    checks: checklist(c),
    parts: partsList(c),
    cautions: cautions(c),
    addresses: gridAddressTables(c),
  };
}

export type PlanResult =
  | {
      status: "ok";
      /** Wires that were planned on the way, when that was asked for. */
      planned: number;
      files: Record<string, string | Uint8Array>;
      text: PlanText;
      project: Project;
      unfit: string[];
      /** Boards that no program is written for, in sentences. */
      silent: string[];
      leftOpen: string | null;
    }
  | { status: "infeasible"; clash: string };

/**
 * What is planned before anything is written. `nothing`: the project as it stands, as for every download. `open`: what has no
 * wire yet, and no wire that is there moves. `anew`: wires that nobody locked may move, too.
 */
export type Before = "nothing" | "open" | "anew";

function prepared(project: Project, catalogue: Catalogue, before: Before) {
  const asItIs = { project, leftOpen: null, clash: null, planned: 0 };
  if (before === "nothing") return asItIs;
  const a = before === "open" ? planOpen(project, catalogue) : planAll(project, catalogue);
  if (!isPlanned(a)) {
    // Where everything has its wire there is nothing to plan, however wrong it may be: the findings say so.
    const whole = before === "open" && !openNeeds(circuitOf(project, catalogue)).length;
    return whole ? asItIs : { ...asItIs, clash: a.clash ?? "no assignment exists" };
  }
  const planned = a.project.links.length - project.links.length;
  return { project: placedAsBuilt(a.project, catalogue), leftOpen: a.leftOpen, clash: null, planned };
}

/**
 * Everything that `plan` writes, as paths and contents: checked and drawn up as the project stands, or planned before as asked.
 * `targets` empty means every target that fits the board.
 */
export async function planOutputs(
  project: Project,
  catalogue: Catalogue,
  fonts: { text: Uint8Array; bold: Uint8Array },
  targets: readonly string[] = [],
  before: Before = "nothing",
): Promise<PlanResult> {
  const a = prepared(project, catalogue, before);
  if (a.clash) return { status: "infeasible", clash: a.clash };
  const mark = fingerprint(a.project);
  const c = circuitOf(a.project, catalogue);
  const text = planText(c);
  const files: Record<string, string | Uint8Array> = {
    "project.lattice.json": writeProject(a.project),
    "findings.json": `${JSON.stringify(text.findings.map(plainFinding), null, 2)}\n`,
    "netlist.json": `${JSON.stringify(plainNetlist(c), null, 2)}\n`,
    "wires.csv": wiresCsv(c),
    "parts.csv": partsCsv(c),
    "checks.csv": checksCsv(c),
    "tools.csv": toolsCsv(c),
    "cuts.csv": cutsCsv(c),
    ...(c.project.remarks && { "remarks.csv": remarksCsv(c) }),
    ...(c.project.box && { "drill.csv": drillCsv(c) }),
    // Where the bench solders at once, and there is a header to plug onto.
    ...(houseRule(c.project, "firstBuild") === "solder" && plugBoard(c) && { "plugboard.csv": plugCsv(c) }),
    ...(c.project.breadboard && { "holes.csv": holesCsv(c), "solderboard.csv": carrierCsv(c) }),
    "plan.svg": toSvg(loomDrawing(await loom(c, layOutHere)), `${project.title}, plan ${mark}`),
    "plan.md": planMarkdown(text),
    "plan.pdf": await (await import("./pdf")).printPlan(c, fonts),
  };
  if (c.project.kit) {
    const { fields, rows } = kitTable(text.parts, wireTable(c), c.project.kit);
    files["kit.csv"] = listCsv(c, fields, rows);
  }
  const layout = layoutInProject(c);
  if (layout)
    files["breadboard.svg"] = toSvg(breadboardDrawing(c, layout), `${project.title}: breadboard, plan ${mark}`);
  if (text.addresses.length) files["addresses.csv"] = addressesCsv(c, text.addresses);
  const unfit: string[] = [];
  const silent = boardsWithout(c).map(({ host, why }) => `no program is written for ${label(c, host)}: ${why}`);
  for (const t of TARGETS) {
    if (targets.length && !targets.includes(t.id)) continue;
    const why = t.unfit(c);
    if (why) {
      if (targets.length) unfit.push(`${t.id}: ${why}`);
      continue;
    }
    for (const f of t.files(c)) files[`firmware/${t.id}/${f.path}`] = f.text;
  }
  return { status: "ok", planned: a.planned, files, text, project: a.project, unfit, silent, leftOpen: a.leftOpen };
}
