import { boardsFor, buildIdea, choiceOf, offersFor, readIdea, type OfferedWay } from "../core/idea";
import { emptyProject, writeProject } from "../core/project";
import { catalogue, EXIT, loadFile, print, printJson, Unusable, writeFileWhole } from "./io";

interface Options {
  in?: string;
  take?: string[];
  board?: string;
  out?: string;
  json?: boolean;
}

const wayLines = (w: OfferedWay, first: boolean): string[] => [
  `  ${first ? "*" : " "} ${w.id}: ${w.parts.map((p) => p.name).join(" + ") || "the board itself"}`,
  `      for it: ${w.pros.join("; ")}`,
  ...(w.cons.length ? [`      against it: ${w.cons.join("; ")}`] : []),
];

const countWords = (many: number | undefined) => (many === undefined ? "" : ` × ${many}`);

/** `thing=way` for what shall not be the first of its ways. */
function taken(list: readonly string[]): Map<string, string> {
  return new Map(
    list.map((t) => {
      const [thing, way] = t.split("=");
      if (!thing || !way) throw new Unusable(`--take ${t}: write thing=way, like temperature=dht22`);
      return [thing, way];
    }),
  );
}

/** What an idea wants: things, ways for each, and with `--out` the project that comes of them. */
export async function ideaCommand(words: readonly string[], o: Options): Promise<number> {
  const text = words.join(" ");
  const project = o.in ? loadFile(o.in) : emptyProject(text.slice(0, 60) || "From an idea");
  const read = readIdea(text);
  const things = read.wishes.map((w) => w.thing);
  const offers = offersFor(things, project, catalogue, read.hints);
  const boards = boardsFor(things, project, catalogue, read.hints);
  const wanted = taken(o.take ?? []);
  for (const [thing, way] of wanted) {
    const offer = offers.find((x) => x.thing === thing);
    if (!offer?.ways.some((w) => w.id === way))
      throw new Unusable(
        `--take ${thing}=${way}: ${offer ? `${thing} is offered as ${offer.ways.map((w) => w.id).join(", ")}` : `this idea has no "${thing}"; it has ${things.join(", ") || "nothing that we know"}`}`,
      );
  }
  if (o.board && !catalogue.get(o.board)?.board) throw new Unusable(`--board ${o.board}: no such board`);
  const wishOf = (thing: string) => read.wishes.find((w) => w.thing === thing);
  const choices = offers.map((x) => ({
    thing: x.thing,
    way: wanted.get(x.thing) ?? x.ways[0]!.id,
    ...choiceOf(wishOf(x.thing)),
  }));
  const built = o.out
    ? buildIdea(project, catalogue, { choices, hints: read.hints, goal: text, ...(o.board && { board: o.board }) })
    : null;
  if (built && o.out) await writeFileWhole(o.out, writeProject(built.project));
  if (o.json)
    printJson({
      ...read,
      offers,
      boards,
      ...(built && { verdict: built.verdict, did: built.did, clash: built.clash }),
    });
  else {
    for (const x of offers) {
      print(`${x.verb}: ${x.name} (${x.thing}; "${wishOf(x.thing)!.by}")${countWords(wishOf(x.thing)?.many)}`);
      for (const [i, w] of x.ways.entries()) for (const line of wayLines(w, i === 0)) print(line);
    }
    for (const [i, b] of boards.entries()) print(`${i ? "       " : "board: "}${b.part}: ${b.pros.join("; ")}`);
    if (read.without.length) print(`without: ${read.without.join(", ")}`);
    for (const b of read.beyond) print(`"${b.by}": ${b.says}`);
    if (read.slips.length) print(`read as: ${read.slips.map((x) => `"${x.by}" as "${x.as}"`).join(", ")}`);
    if (read.half && offers.length)
      print(
        read.half === "act"
          ? "and what should come of it? say what it shows, lights, sounds, moves, switches or keeps"
          : "and what should make it begin? say what it feels, counts or at what time",
      );
    if (read.unread.length) print(`not understood: ${read.unread.map((t) => `"${t}"`).join(", ")}`);
    if (!offers.length) print("nothing here that we know: say what it should measure, show, move, switch or send");
    for (const x of built?.does ?? []) print(`does: ${x}`);
    for (const x of built?.short ?? []) print(`mind: ${x}`);
    if (built)
      print(
        `${built.clash ? `does not fit: ${built.clash}` : built.verdict}${built.did.length ? `; put in: ${built.did.join("; ")}` : ""}`,
      );
  }
  return !offers.length ? EXIT.unusable : built?.clash ? EXIT.noPlan : EXIT.fine;
}
