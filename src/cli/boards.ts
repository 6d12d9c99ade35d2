import { rankBoards } from "../core/assign";
import { catalogue, columns, EXIT, loadFile, print, printJson } from "./io";

export function boardsCommand(file: string, o: { json?: boolean }): number {
  const list = rankBoards(loadFile(file), catalogue);
  if (o.json) printJson(list);
  else
    print(
      columns([
        ["board", "fits", "cost", "spare", "stops", "faults", "why"],
        ...list.map((b) => [
          b.board,
          b.fits ? "yes" : "no",
          String(b.cost),
          String(b.spare),
          String(b.stops),
          String(b.faults),
          b.why,
        ]),
      ]),
    );
  return EXIT.fine;
}
