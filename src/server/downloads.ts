import fs from "node:fs";
import path from "node:path";
import { shippedCatalogue } from "../core/parts/catalogue/shipped";
import { circuitOf } from "../core/circuit";
import { isPaper, isPrint, PRINTS } from "../core/formats/pdf";
import { makeZip, planOutputs, safePath } from "../core/formats";
import { loadProject, type Project } from "../core/project";
import { getProject } from "../db/projects";
import { database } from "./store";

const font = (weight: number) =>
  new Uint8Array(
    fs.readFileSync(
      path.join(
        process.cwd(),
        `node_modules/@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-${weight}-normal.woff`,
      ),
    ),
  );

export type Download = { ok: true; name: string; data: Uint8Array } | { ok: false; status: 404 | 409; message: string };

/** A file name from a title: plain characters only. */
const fileName = (title: string) =>
  safePath(title.toLowerCase().replace(/\s+/g, "-").replace(/\//g, "-")).slice(0, 40) || "project";

const FONTS = () => ({ text: font(400), bold: font(700) });
type Stored = { ok: true; title: string; project: Project } | { ok: false; status: 404 | 409; message: string };

function stored(id: string): Stored {
  const row = getProject(database(), id);
  if (!row) return { ok: false, status: 404, message: "There is no such project." };
  const loaded = loadProject(JSON.parse(row.document), shippedCatalogue());
  if (!loaded.ok)
    return { ok: false, status: 409, message: loaded.problems.map((p) => `${p.path}: ${p.message}`).join("; ") };
  return { ok: true, title: row.title, project: loaded.project };
}

/** One print of a stored project as it is, on the paper asked for. */
export async function printFile(id: string, what: string | null, paper: string | null): Promise<Download> {
  const [name, size] = [what ?? "plan", paper ?? "a4"];
  if (!isPrint(name))
    return {
      ok: false,
      status: 409,
      message: `There is no print called that; there are ${Object.keys(PRINTS).join(", ")}.`,
    };
  if (!isPaper(size)) return { ok: false, status: 409, message: "Paper is a4 or letter." };
  const s = stored(id);
  if (!s.ok) return s;
  const data = await PRINTS[name](circuitOf(s.project, shippedCatalogue()), FONTS(), size);
  return { ok: true, name: `${fileName(s.title)}-${name}.pdf`, data };
}

/** The plan of a stored project as one ZIP; with `target`, only that target's firmware. */
export async function planZip(id: string, target: string | null): Promise<Download> {
  const s = stored(id);
  if (!s.ok) return s;
  const result = await planOutputs(s.project, shippedCatalogue(), FONTS(), target ? [target] : []);
  if (result.status === "infeasible")
    return { ok: false, status: 409, message: `No assignment exists. ${result.clash}` };
  if (result.unfit.length) return { ok: false, status: 409, message: result.unfit.join("; ") };
  const prefix = `firmware/${target}/`;
  const files = target
    ? Object.fromEntries(
        Object.entries(result.files).flatMap(([p, d]) => (p.startsWith(prefix) ? [[p.slice(prefix.length), d]] : [])),
      )
    : result.files;
  return { ok: true, name: `${fileName(s.title)}${target ? `-${target}` : "-plan"}.zip`, data: makeZip(files) };
}
