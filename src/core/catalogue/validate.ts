import { PartSchema, type Part } from "./schema";

/** A mistake in a part file: the path inside the file and a sentence. */
export interface PartProblem {
  path: string;
  message: string;
}

const pathOf = (path: PropertyKey[]) => path.map(String).join("/");

/** Cross-references that the schema alone cannot see: every name used must exist. */
function references(part: Part): PartProblem[] {
  const out: PartProblem[] = [];
  const say = (path: string, message: string) => out.push({ path, message });
  const labels = new Set<string>();
  for (const [i, p] of part.pins.entries())
    for (const label of [p.label, ...(p.aliases ?? [])]) {
      if (labels.has(label)) say(`pins/${i}`, `the label "${label}" is used twice`);
      labels.add(label);
    }
  const pin = (path: string, label: string) => {
    if (!part.pins.some((p) => p.label === label)) say(path, `there is no pin "${label}"`);
  };
  const supply = (path: string, name: string | undefined) => {
    if (name !== undefined && !part.supplies[name]) say(path, `there is no supply "${name}"`);
  };
  for (const [i, p] of part.pins.entries()) {
    if (p.role.startsWith("supply") || p.role === "cable") {
      if (!p.supply) say(`pins/${i}`, `the pin "${p.label}" is a ${p.role} pin and must name its supply`);
      supply(`pins/${i}/supply`, p.supply);
    }
    if (p.level && !part.levels[p.level]) say(`pins/${i}/level`, `there is no level set "${p.level}"`);
    if (p.role === "signal" && !p.level) say(`pins/${i}`, `the signal pin "${p.label}" has no level set`);
    if (p.role === "signal" && !p.io) say(`pins/${i}`, `the signal pin "${p.label}" has no direction (io)`);
  }
  for (const [k, l] of Object.entries(part.levels)) supply(`levels/${k}/supply`, l.supply);
  for (const [i, c] of part.converters.entries()) {
    supply(`converters/${i}/from`, c.from);
    supply(`converters/${i}/to`, c.to);
  }
  for (const [i, e] of part.elements.entries())
    for (const end of [e.a, e.b])
      if (!end.startsWith("supply:") && !end.startsWith("ground:")) pin(`elements/${i}`, end);
      else if (end.startsWith("supply:")) supply(`elements/${i}`, end.slice(7));
  for (const [i, g] of part.groups.entries()) for (const l of Object.values(g.pins)) pin(`groups/${i}/pins`, l);
  for (const [i, c] of part.companions.entries()) {
    pin(`companions/${i}/pin`, c.pin);
    if (c.to) pin(`companions/${i}/to`, c.to);
  }
  if (part.board) supply("board/logicSupply", part.board.logicSupply);
  if (part.id.startsWith("board/") && !part.board) say("board", "a board needs its board section");
  return out;
}

export type PartResult = { ok: true; part: Part } | { ok: false; problems: PartProblem[] };

/** Validates a part definition of unknown origin. Every mistake is named with its path inside the file. */
export function validatePart(data: unknown): PartResult {
  const parsed = PartSchema.safeParse(data);
  if (!parsed.success)
    return { ok: false, problems: parsed.error.issues.map((i) => ({ path: pathOf(i.path), message: i.message })) };
  const problems = references(parsed.data);
  return problems.length ? { ok: false, problems } : { ok: true, part: parsed.data };
}
