import { splitEnd } from "./endpoint";
import type { Link, Project } from "./schema";

/** What a wire is taken to be long when nobody said, centimetres. */
export const USUAL_CM = 20;

/** The length that was said of the wires of these parts, the longest where several did; undefined where none did. */
export function partsCm(project: Project, refs: readonly string[]): number | undefined {
  const said = refs.flatMap((ref) => project.parts.find((p) => p.ref === ref)?.wire_cm ?? []);
  return said.length ? Math.max(...said) : undefined;
}

/** The gauge that was said of the wires of these parts, where one was. */
export const partsAwg = (project: Project, refs: readonly string[]): number | undefined =>
  refs.flatMap((ref) => {
    const awg = project.parts.find((p) => p.ref === ref)?.options?.wire_awg;
    return typeof awg === "number" ? [awg] : [];
  })[0];

const refsOf = (l: Link) => [l.to, l.from].map((e) => splitEnd(e).ref);

/** The length of a link's wire: its own, that of its parts, or the usual one. */
export const linkCm = (project: Project, l: Link): number => l.cm ?? partsCm(project, refsOf(l)) ?? USUAL_CM;

/** The gauge of a link's wire where somebody chose one: its own, or that of its parts. */
export const linkAwg = (project: Project, l: Link): number | undefined => l.awg ?? partsAwg(project, refsOf(l));
