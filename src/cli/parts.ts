import { readFileSync, statSync } from "node:fs";
import {
  findPin,
  isShipped,
  MAX_PART_BYTES,
  partKind,
  printsOf,
  printText,
  readPart,
  shippedId,
} from "../core/parts/catalogue";
import { readiness } from "../core/parts/own";
import { catalogue, columns, EXIT, print, printJson, Unusable } from "./io";

const KINDS = ["board", "module", "discrete", "supply", "chip", "connector"];

export function partsCommand(o: { kind?: string; json?: boolean }): number {
  if (o.kind && !KINDS.includes(o.kind)) throw new Unusable(`--kind ${o.kind}: choose one of ${KINDS.join(", ")}`);
  const list = catalogue.parts.filter((p) => !o.kind || partKind(p.id) === o.kind);
  if (o.json) printJson(list.map(({ id, name, does, certainty }) => ({ id, name, does, certainty })));
  else if (list.length) print(columns(list.map((p) => [p.id, p.name])));
  return EXIT.fine;
}

/** A file, where that is what is named: a part's id has no ending. */
const isFile = (id: string) => /\.json$/i.test(id) || id.startsWith(".") || id.startsWith("/");

/** A part file by itself: what is wrong with it, else what the app can judge by it. */
function partFile(file: string, o: { json?: boolean }): number {
  let text: string;
  try {
    if (statSync(file).size > 2 * MAX_PART_BYTES) throw new Unusable(`${file}: far larger than a part file can be`);
    text = readFileSync(file, "utf8");
  } catch (e) {
    if (e instanceof Unusable) throw e;
    throw new Unusable(`${file}: can't be read (${(e as NodeJS.ErrnoException).code})`);
  }
  const read = readPart(text);
  if (!read.ok)
    throw new Unusable(read.problems.map((p) => `${file}: ${p.path ? `${p.path}: ` : ""}${p.message}`).join("\n"));
  const { part } = read;
  const judged = readiness(part);
  const taken = isShipped(catalogue, part.id) ? shippedId(part.id) : null;
  if (o.json) printJson({ id: part.id, name: part.name, judged, ...(taken && { taken }) });
  else {
    print(`${part.name}\n${part.id}, ${part.pins.length} pins, certainty ${part.certainty}`);
    if (taken) print(`note: ${taken}`);
    for (const r of judged)
      print(`${r.ready ? "yes" : "no "}  ${r.says}${r.ready ? "" : `: wanted are ${r.needs.join("; ")}`}`);
  }
  return EXIT.fine;
}

export function partCommand(id: string, o: { json?: boolean }): number {
  if (isFile(id)) return partFile(id, o);
  const part = catalogue.get(id);
  if (!part)
    throw new Unusable(`${id}: there is no such part; "lattice parts" lists them, and a part file ends in .json`);
  if (o.json) printJson(part);
  else {
    print(`${part.name}\n${part.does}\ncertainty: ${part.certainty}`);
    for (const s of part.sources) print(`source: ${s.title}, ${s.where}`);
    print(
      columns(
        part.pins.map((p) => [
          p.label,
          p.role,
          p.says ??
            findPin(part, p.label)
              ?.offers?.map((x) => x.kind)
              .join(" ") ??
            "",
        ]),
      ),
    );
    for (const p of printsOf(part)) print(`print ${p.id}: ${printText(p)}, ${p.says} (${p.certainty})`);
    for (const c of part.cautions) print(`caution: ${c}`);
  }
  return EXIT.fine;
}
