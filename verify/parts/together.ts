import type { Reply, WirePart } from "./types";

const named = (ref: string, list: readonly string[] | undefined) => (list ?? []).map((l) => `${ref}.${l}`);

/** Several parts on one board: their lines are called by part and pin. Two of them may hang on one pin of the board. */
export function together(parts: ReadonlyMap<string, WirePart>): WirePart {
  const all = [...parts];
  const back = (ref: string, replies: readonly Reply[]): Reply[] =>
    replies.map((r) => ({ ...r, line: `${ref}.${r.line}` }));
  const of = (line: string): [string, string] => {
    const dot = line.indexOf(".");
    return [line.slice(0, dot), line.slice(dot + 1)];
  };
  return {
    hears: all.flatMap(([ref, p]) => named(ref, p.hears)),
    pulledUp: all.flatMap(([ref, p]) => named(ref, p.pulledUp)),
    start: () => all.flatMap(([ref, p]) => back(ref, p.start())),
    change(line, level, us) {
      const [ref, own] = of(line);
      return back(ref, parts.get(ref)!.change(own, level, us));
    },
    look(line, level, us) {
      const [ref, own] = of(line);
      return back(ref, parts.get(ref)!.look?.(own, level, us) ?? []);
    },
  };
}
