import { readFileSync } from "node:fs";
import { findings, verdict } from "../core/checks";
import { circuitOf } from "../core/circuit";
import { toCsv } from "../core/formats";
import { applyEdit, fingerprint, writeProject, type Project } from "../core/project";
import {
  between,
  builtAt,
  builtOtherRow,
  builtSwapped,
  builtTurned,
  consequenceLines,
  cutWire,
  handWires,
  joinPoints,
  pinMap,
  pinMapText,
  putBetween,
  readGiven,
  takeGiven,
  takeOut,
  type Act,
} from "../core/wires";
import { catalogue, columns, EXIT, loadFile, print, printJson, Unusable, writeFileWhole } from "./io";

interface Options {
  join?: string[];
  cut?: string[];
  between?: string[];
  takeOut?: string[];
  close?: boolean;
  really?: string[];
  swap?: string[];
  turn?: string[];
  otherRow?: string[];
  given?: string;
  out?: string;
  json?: boolean;
}

/** The values of an option, so many at a time. */
function groups(list: string[] | undefined, size: number, option: string, wants: string): string[][] {
  if (!list) return [];
  if (list.length % size) throw new Unusable(`${option} ${list.join(" ")}: ${wants}`);
  return Array.from({ length: list.length / size }, (_, i) => list.slice(i * size, (i + 1) * size));
}

/** Every act that was asked for, in a safe order: wires go, come, and are interrupted; then what is built differently. */
function acts(o: Options): ((p: Project) => Act)[] {
  const two = "two points are wanted, such as M1.SDA and B1.GP4";
  return [
    ...groups(o.cut, 2, "--cut", two).map(
      ([a, b]) =>
        (p: Project) =>
          cutWire(p, catalogue, a!, b!),
    ),
    ...groups(o.join, 2, "--join", two).map(
      ([a, b]) =>
        (p: Project) =>
          joinPoints(p, catalogue, a!, b!),
    ),
    ...groups(o.between, 3, "--between", "two points and a part are wanted, such as S2.12V MT1.1 discrete/toggle").map(
      ([a, b, part]) =>
        (p: Project) =>
          putBetween(p, catalogue, a!, b!, part!),
    ),
    ...(o.takeOut ?? []).map((ref) => (p: Project) => takeOut(p, catalogue, ref, o.close ?? false)),
    ...groups(
      o.really,
      3,
      "--really",
      "three points are wanted: both ends as planned, and where the second really is",
    ).map(
      ([a, b, x]) =>
        (p: Project) =>
          builtAt(p, catalogue, a!, b!, x!),
    ),
    ...groups(o.swap, 2, "--swap", two).map(
      ([a, b]) =>
        (p: Project) =>
          builtSwapped(p, catalogue, a!, b!),
    ),
    ...(o.turn ?? []).map((ref) => (p: Project) => builtTurned(p, catalogue, ref)),
    ...(o.otherRow ?? []).map((ref) => (p: Project) => builtOtherRow(p, catalogue, ref)),
  ];
}

function given(project: Project, file: string): { project: Project; lines: string[] } {
  let text: string;
  try {
    text = readFileSync(file, "utf8");
  } catch (e) {
    throw new Unusable(`${file}: can't be read (${(e as NodeJS.ErrnoException).code})`);
  }
  const list = readGiven(text);
  if (!list.length)
    throw new Unusable(
      `${file}: no line gives a name a pin; wanted are lines such as "#define LED_PIN 5" or "led = D5"`,
    );
  const { rows, edits } = takeGiven(project, catalogue, list);
  return {
    project: edits.reduce((p, e) => applyEdit(p, e, catalogue), project),
    lines: rows.map((r) => `line ${r.line}: ${r.name} ${r.token}: ${r.says}`),
  };
}

/** Makes, cuts and interrupts wires, takes over what was built or is prescribed; without acts it lists the wires. */
export async function wireCommand(file: string, o: Options): Promise<number> {
  const project = loadFile(file);
  const list = acts(o);
  if (!list.length && !o.given) {
    const wires = handWires(circuitOf(project, catalogue));
    if (o.json) printJson(wires);
    else if (wires.length)
      print(
        columns([
          ["from", "to", "net", "for", "made by"],
          ...wires.map((w) => [w.from, w.to, w.net, w.why, w.by === "unsaid" ? "" : w.by]),
        ]),
      );
    return EXIT.fine;
  }
  let now = project;
  const says: string[] = [];
  for (const act of list) {
    const a = act(now);
    if (!a.ok) throw new Unusable(`${file}: ${a.why} Nothing was changed.`);
    now = a.edits.reduce((p, e) => applyEdit(p, e, catalogue), now);
    says.push(a.says);
  }
  if (o.given) {
    const g = given(now, o.given);
    now = g.project;
    says.push(...g.lines);
  }
  const k = between(project, now, catalogue);
  if (o.out) await writeFileWhole(o.out, writeProject(now));
  const c = circuitOf(now, catalogue);
  if (o.json) printJson({ did: says, consequences: k, verdict: verdict(c, findings(c)).words, plan: fingerprint(now) });
  else {
    for (const s of says) print(s);
    for (const l of consequenceLines(k)) print(`  ${l}`);
    print(`plan ${fingerprint(now)}${o.out ? `, written to ${o.out}` : ", nothing written: name a file with --out"}`);
  }
  return k.comes.some((f) => f.severity === "stop" || f.severity === "fault") ? EXIT.findings : EXIT.fine;
}

/** The plan's pins for a program of one's own. */
export function pinmapCommand(file: string, o: { json?: boolean; csv?: boolean }): number {
  const c = circuitOf(loadFile(file), catalogue);
  const rows = pinMap(c);
  if (o.json) printJson({ plan: fingerprint(c.project), pins: rows });
  else if (o.csv)
    process.stdout.write(
      toCsv(
        ["board", "name", "need", "label", "kind", "pin", "sketch", "micropython", "plan"],
        rows.map((r) => [
          r.board,
          r.name,
          r.need,
          r.label,
          r.kind,
          r.pin,
          r.sketch,
          r.micropython,
          fingerprint(c.project),
        ]),
      ),
    );
  else process.stdout.write(pinMapText(c));
  return EXIT.fine;
}
