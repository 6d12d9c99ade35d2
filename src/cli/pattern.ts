import { placedAsBuilt } from "../core/build";
import { beginPattern, patternById, PATTERNS, toLookAt } from "../core/patterns";
import { writeProject } from "../core/project";
import { catalogue, EXIT, print, printJson, Unusable, writeFileWhole } from "./io";

/** Lists the patterns, or plans one on a board; with `--out` the project is written. */
export async function patternCommand(
  id: string | undefined,
  o: { board?: string; out?: string; json?: boolean },
): Promise<number> {
  if (id === undefined) {
    if (o.out || o.board) throw new Unusable("name a pattern: without one they are listed");
    if (o.json)
      printJson(
        PATTERNS.map(({ id: name, title, goal, learns, boards }) => ({ id: name, title, goal, learns, boards })),
      );
    else for (const p of PATTERNS) print(`${p.id}: ${p.title}\n    ${p.goal}\n    boards: ${p.boards.join(", ")}`);
    return EXIT.fine;
  }
  const pattern = patternById(id, PATTERNS);
  if (!pattern) throw new Unusable(`${id}: no such pattern; there are ${PATTERNS.map((p) => p.id).join(", ")}`);
  if (o.board && !pattern.boards.includes(o.board))
    throw new Unusable(`--board ${o.board}: this pattern is sound on ${pattern.boards.join(", ")}`);
  const begun = beginPattern(pattern, catalogue, { ...(o.board && { board: o.board }) });
  const look = toLookAt(begun.project, catalogue);
  if (o.out) await writeFileWhole(o.out, writeProject(placedAsBuilt(begun.project, catalogue)));
  if (o.json)
    printJson({
      id,
      verdict: begun.verdict,
      did: begun.did,
      look,
      onward: pattern.onward.map(({ id: way, says }) => ({ id: way, says })),
    });
  else {
    print(`${pattern.title}: ${begun.verdict}${begun.did.length ? `; put in: ${begun.did.join("; ")}` : ""}`);
    for (const x of look) print(`  read the print of ${x.label}: taken as ${x.prints[0]!.reads}`);
    for (const w of pattern.onward) print(`  go on: ${w.says}`);
  }
  return begun.clash ? EXIT.noPlan : EXIT.fine;
}
