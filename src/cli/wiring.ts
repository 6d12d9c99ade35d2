import { count } from "../core/quantity/count";
import { circuitOf } from "../core/circuit";
import { isPaper, isPrint, PRINTS } from "../core/formats/pdf";
import { writeProject } from "../core/project";
import { propose, provenLayout, rewire, SIZE_IDS, type RunRow, type SizeId } from "../core/build";
import {
  allowed_ms,
  catalogue,
  columns,
  EXIT,
  loadFile,
  planFonts,
  print,
  printJson,
  Unusable,
  writeFileWhole,
} from "./io";

const isSize = (s: string): s is SizeId => SIZE_IDS.some((x) => x === s);

/** Places the parts on breadboards, and says every hole and wire; `--out` writes the project with the placement in it. */
export async function placeCommand(
  file: string,
  o: { boards?: string[]; json?: boolean; out?: string; seconds?: string },
): Promise<number> {
  const project = loadFile(file);
  const wrong = o.boards?.find((b) => !isSize(b));
  if (wrong !== undefined) throw new Unusable(`--boards ${wrong}: choose from ${SIZE_IDS.join(", ")}`);
  if (o.boards && o.boards.length > 6) throw new Unusable("--boards: six breadboards at most");
  const until = performance.now() + (allowed_ms(o.seconds) ?? Infinity);
  const c = circuitOf(project, catalogue);
  const l = provenLayout(c, propose(c, o.boards?.filter(isSize), {}, project.breadboard?.split ?? true, until));
  if (o.out)
    await writeFileWhole(
      o.out,
      writeProject({ ...project, breadboard: { ...project.breadboard, boards: [...l.sizes], at: l.spots } }),
    );
  if (o.json) {
    const { sizes, parts, beside, rails, wires, joined, trouble, jumpers, wire_mm } = l;
    printJson({ sizes, parts, beside, rails, wires, joined, trouble, jumpers, wire_mm });
  } else {
    print(
      `breadboards: ${l.sizes.map((s) => `${s} points`).join(", ")}; ${count(l.jumpers, "jumper")}, ${l.wire_mm} mm of wire`,
    );
    if (l.parts.length)
      print(columns(l.parts.map((p) => [p.ref, p.holes.map((h) => `${h.pin} ${h.hole}`).join(", ")])));
    for (const b of l.beside) print(`beside: ${b.ref}, ${b.why}`);
    if (l.wires.length)
      print(
        columns(
          l.wires.map((w) => [w.kind, w.a.hole ?? w.a.at, w.b.hole ?? w.b.at, w.apart_mm ? `${w.apart_mm} mm` : ""]),
        ),
      );
    for (const t of l.trouble) print(`does not work: ${t.says}`);
  }
  return l.trouble.some((t) => t.kind !== "open") ? EXIT.findings : EXIT.fine;
}

/** What a bench that is wired after one file needs to be wired after another. */
export function rewireCommand(before: string, after: string, o: { json?: boolean }): number {
  const r = rewire(circuitOf(loadFile(before), catalogue), circuitOf(loadFile(after), catalogue));
  if (o.json) printJson(r);
  else {
    const lines = (rows: RunRow[], sign: string) => {
      if (rows.length)
        print(
          columns(
            rows.map((x) => [
              sign,
              sign === "lay" ? `step ${x.step}` : "",
              x.net,
              x.holeA || x.from,
              x.holeB || x.to,
              x.colour || x.kind,
              x.length_cm ? `${x.length_cm} cm` : "",
              `${x.endA}-${x.endB}`,
            ]),
          ),
        );
    };
    print(`${count(r.same, "wire")} stay, ${r.takeOff.length} come off, ${r.lay.length} are laid`);
    lines(r.takeOff, "off");
    for (const p of r.partsOff) print(`off  ${p.ref}  ${p.name}`);
    for (const p of r.partsOn) print(`new  ${p.ref}  ${p.name}${p.to ? `: ${p.to}` : ""}`);
    for (const p of r.changed) print(`set  ${p.ref}  ${p.name}, ${p.what}: ${p.from} → ${p.to}`);
    for (const p of r.partsMoved) print(`move ${p.ref}  ${p.to}`);
    lines(r.lay, "lay");
  }
  return EXIT.fine;
}

/** One print as a PDF file. */
export async function printCommand(file: string, o: { what: string; paper: string; out: string }): Promise<number> {
  if (!isPrint(o.what)) throw new Unusable(`--what ${o.what}: choose from ${Object.keys(PRINTS).join(", ")}`);
  if (!isPaper(o.paper)) throw new Unusable(`--paper ${o.paper}: choose a4 or letter`);
  const c = circuitOf(loadFile(file), catalogue);
  await writeFileWhole(o.out, await PRINTS[o.what](c, planFonts(), o.paper));
  return EXIT.fine;
}
