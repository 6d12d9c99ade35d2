import { findPin, partKind } from "../core/parts/catalogue";
import { catalogue, columns, EXIT, print, printJson, Unusable } from "./io";

const KINDS = ["board", "module", "discrete", "supply", "chip", "connector"];

export function partsCommand(o: { kind?: string; json?: boolean }): number {
  if (o.kind && !KINDS.includes(o.kind)) throw new Unusable(`--kind ${o.kind}: choose one of ${KINDS.join(", ")}`);
  const list = catalogue.parts.filter((p) => !o.kind || partKind(p.id) === o.kind);
  if (o.json) printJson(list.map(({ id, name, does, certainty }) => ({ id, name, does, certainty })));
  else if (list.length) print(columns(list.map((p) => [p.id, p.name])));
  return EXIT.fine;
}

export function partCommand(id: string, o: { json?: boolean }): number {
  const part = catalogue.get(id);
  if (!part) throw new Unusable(`${id}: there is no such part; "lattice parts" lists them`);
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
    for (const c of part.cautions) print(`caution: ${c}`);
  }
  return EXIT.fine;
}
