import { boardsOf, rankBoards } from "../core/plan/advice";
import { allowed_ms, catalogue, columns, EXIT, loadFile, note, print, printJson } from "./io";

export function boardsCommand(file: string, o: { json?: boolean; seconds?: string }): number {
  const project = loadFile(file);
  const list = rankBoards(project, catalogue, allowed_ms(o.seconds));
  const all = boardsOf(project, catalogue).length;
  if (list.length < all) note(`${file}: the time was enough for ${list.length} of ${all} boards`);
  if (o.json) printJson(list.map(({ project: _project, ...b }) => b));
  else
    print(
      columns([
        ["board", "fits", "owned", "cost", "spare", "left", "shifters", "supply", "price", "why", "facts"],
        ...list.map((b) => [
          b.board,
          b.fits ? "yes" : "no",
          b.owned ? "yes" : "",
          b.fits ? String(b.cost) : "",
          b.fits ? String(b.spare) : "",
          b.left
            .filter((l) => ["adc", "pwm", "interrupt"].includes(l.can))
            .map((l) => `${l.can} ${l.pins.length}`)
            .join(", "),
          b.fits ? String(b.shifters) : "",
          b.fits ? b.supply.severity : "",
          b.price,
          b.why,
          b.facts,
        ]),
      ]),
    );
  return EXIT.fine;
}
