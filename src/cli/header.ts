import { circuitOf } from "../core/circuit";
import { printProblems, printsOf, printLine, printText, type ChosenPrint } from "../core/parts/catalogue";
import { applyEdit, definitionOf, writeProject, type Project } from "../core/project";
import { catalogue, columns, EXIT, loadFile, print, printJson, Unusable, writeFileWhole } from "./io";

interface Options {
  is?: string;
  reads?: string[];
  name?: string[];
  apart?: string;
  edge?: string;
  forget?: boolean;
  out?: string;
  json?: boolean;
}

/** `CLOCK=SCL` says what a label means, `X=` that it stays open. */
function namesOf(list: readonly string[]): Record<string, string | null> {
  return Object.fromEntries(
    list.map((t) => {
      const at = t.indexOf("=");
      if (at < 1) throw new Unusable(`--name ${t}: write label=pin, or label= where it stays open`);
      return [t.slice(0, at), t.slice(at + 1) || null];
    }),
  );
}

/** Labels in order, a second row behind a bar. */
function orderOf(o: Options): ChosenPrint {
  const rows: string[][] = [[]];
  for (const label of o.reads!) {
    if (label === "|") rows.push([]);
    else rows.at(-1)!.push(label);
  }
  if (rows.length > 2 || rows.some((r) => !r.length))
    throw new Unusable("--reads: labels in order, at most two rows with | between them");
  const apart = o.apart === undefined ? undefined : Number(o.apart);
  if (apart !== undefined && !(apart >= 2 && apart <= 80))
    throw new Unusable(`--apart ${o.apart}: the distance of the two rows, 2 to 80 mm`);
  const { edge } = o;
  if (edge !== undefined && edge !== "bottom" && edge !== "top")
    throw new Unusable(`--edge ${edge}: bottom (towards you) or top, the print held upright`);
  const names = namesOf(o.name ?? []);
  return {
    rows,
    ...(edge && { edge }),
    ...(apart !== undefined && { rowPitch_mm: apart }),
    ...(Object.keys(names).length && { names }),
  };
}

function rowsOf(project: Project) {
  const c = circuitOf(project, catalogue);
  return project.parts.flatMap((p) => {
    const inst = c.netlist.instance(p.ref);
    const part = definitionOf(project, catalogue, p);
    if (!inst || !part || !printsOf(part).length) return [];
    const { confirmed, doubtful, certainty } = inst.reading;
    return [
      {
        ref: p.ref,
        part: p.part,
        reads: printLine(inst.reading),
        confirmed,
        doubtful,
        certainty,
        prints: printsOf(part).map((x) => ({ id: x.id, reads: printText(x), says: x.says, certainty: x.certainty })),
      },
    ];
  });
}

/** Headers as printed: what is known, what was confirmed, and confirming one. */
export async function headerCommand(file: string, ref: string | undefined, o: Options): Promise<number> {
  let project = loadFile(file);
  const acts = [o.is, o.reads, o.forget].filter((x) => x !== undefined).length;
  if (acts > 1) throw new Unusable("--is, --reads and --forget: one of them");
  if (acts && !ref) throw new Unusable("which part? name its reference, such as M1");
  if (ref) {
    const entry = project.parts.find((p) => p.ref === ref);
    const part = entry && definitionOf(project, catalogue, entry);
    if (!entry || !part) throw new Unusable(`${file}: there is no part "${ref}" in this project`);
    const chosen = o.is !== undefined ? { id: o.is } : o.reads ? orderOf(o) : null;
    const problems = chosen ? printProblems(part, chosen) : [];
    if (problems.length) throw new Unusable(problems.map((p) => `${ref}: ${p}`).join("\n"));
    if (acts) {
      project = applyEdit(project, { type: "setPrint", ref, print: chosen }, catalogue);
      await writeFileWhole(o.out ?? file, writeProject(project));
    }
  }
  const rows = rowsOf(project).filter((r) => !ref || r.ref === ref);
  if (o.json) printJson(rows);
  else if (!rows.length) print("no part of this project is sold with headers of its own");
  else
    for (const r of rows) {
      print(`${r.ref}  ${r.reads}  ${r.confirmed ? "confirmed" : r.doubtful ? "NOT CONFIRMED" : "not confirmed"}`);
      if (ref || !r.confirmed)
        print(columns(r.prints.map((p) => [`    ${p.id}`, p.reads, `${p.says} (${p.certainty})`])));
    }
  return EXIT.fine;
}
