/** The thread itself: one job after the other. Runs as a bundle of its own, beside the server. */
import fs from "node:fs";
import path from "node:path";
import { parentPort } from "node:worker_threads";
import { circuitOf } from "../../core/circuit";
import { makeZip } from "../../core/formats/zip";
import { glanceAt } from "../../core/glance";
import { shippedCatalogue } from "../../core/parts/catalogue/shipped";
import { helpWith } from "../../core/plan/assign";
import { loadProject, type Project } from "../../core/project";
import { threadProver } from "../../prove";
import type { Job, Made } from "./jobs";

const font = (weight: number) =>
  new Uint8Array(
    fs.readFileSync(
      path.join(
        process.cwd(),
        `node_modules/@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-${weight}-normal.woff`,
      ),
    ),
  );
const fonts = () => ({ text: font(400), bold: font(700) });
const catalogue = shippedCatalogue();
const no = (message: string): Made => ({ ok: false, message });

/** Each kind of job by its name: adding one is a function here and a line in `jobs.ts`. */
const MAKE: {
  [K in Exclude<Job["kind"], "course">]: (job: Extract<Job, { kind: K }>, project: Project) => Made | Promise<Made>;
} = {
  glance: (_, project) => ({ ok: true, value: glanceAt(circuitOf(project, catalogue)) }),
  async print({ what, paper }, project) {
    const { isPaper, isPrint, PRINTS } = await import("../../core/formats/pdf");
    if (!isPrint(what)) return no(`There is no print called that; there are ${Object.keys(PRINTS).join(", ")}.`);
    if (!isPaper(paper)) return no("Paper is a4 or letter.");
    return { ok: true, bytes: await PRINTS[what](circuitOf(project, catalogue), fonts(), paper) };
  },
  async lesson({ paper }, project) {
    const [{ lessonPack }, { isPaper }] = await Promise.all([
      import("../../core/formats/lesson-pack"),
      import("../../core/formats/pdf"),
    ]);
    if (!isPaper(paper)) return no("Paper is a4 or letter.");
    return { ok: true, bytes: makeZip(await lessonPack(circuitOf(project, catalogue), fonts(), paper)) };
  },
  async plan({ target }, project) {
    const { planOutputs } = await import("../../core/formats");
    const result = await planOutputs(project, catalogue, fonts(), target ? [target] : []);
    if (result.status === "infeasible") return no(`No assignment exists. ${result.clash}`);
    if (result.unfit.length) return no(result.unfit.join("; "));
    const prefix = `firmware/${target}/`;
    const files = target
      ? Object.fromEntries(
          Object.entries(result.files).flatMap(([p, d]) => (p.startsWith(prefix) ? [[p.slice(prefix.length), d]] : [])),
        )
      : result.files;
    return { ok: true, bytes: makeZip(files) };
  },
};

/** A course with all its projects is no project itself. */
async function madeCourse(document: unknown, paper: string): Promise<Made> {
  const [{ readCourseFile }, { coursePack }, { isPaper }] = await Promise.all([
    import("../../core/course"),
    import("../../core/formats/course-pack"),
    import("../../core/formats/pdf"),
  ]);
  if (!isPaper(paper)) return no("Paper is a4 or letter.");
  const read = readCourseFile(document, catalogue);
  if (!read.ok) return no(read.problems.map((p) => `${p.path}: ${p.message}`).join("; "));
  return { ok: true, bytes: makeZip(await coursePack(read.course, read.projects, catalogue, fonts(), paper)) };
}

async function made(job: Job): Promise<Made> {
  let document: unknown;
  try {
    document = JSON.parse(job.document);
  } catch {
    return no("The data of this project are damaged and can't be read.");
  }
  if (job.kind === "course") return madeCourse(document, job.paper);
  const read = loadProject(document, catalogue);
  if (!read.ok) return no(read.problems.map((p) => `${p.path}: ${p.message}`).join("; "));
  return (MAKE[job.kind] as (job: Job, project: Project) => Promise<Made>)(job, read.project);
}

helpWith(threadProver);
parentPort?.on("message", (job: Job) => {
  void made(job).then(
    (m) => parentPort!.postMessage(m, "bytes" in m && m.bytes ? [m.bytes.buffer as ArrayBuffer] : []),
    (e: unknown) => parentPort!.postMessage({ failed: e instanceof Error ? (e.stack ?? e.message) : String(e) }),
  );
});
