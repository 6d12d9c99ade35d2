import jsonPatch, { type Operation } from "fast-json-patch";
import { evaluate, expressionNames, type Expr } from "../../quantity";
import { expressions, fit, type PartProblem } from "./sound";
import { elementEnds, PartSchema, type Part } from "./schema";
import { outdone, outputOf } from "./outputs";
import { valueAt } from "./standing";

export type { PartProblem } from "./sound";

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
    if (name !== undefined && !Object.hasOwn(part.supplies, name)) say(path, `there is no supply "${name}"`);
  };
  for (const [i, p] of part.pins.entries()) {
    if (p.role.startsWith("supply") || p.role === "cable") {
      if (!p.supply) say(`pins/${i}`, `the pin "${p.label}" is a ${p.role} pin and must name its supply`);
      supply(`pins/${i}/supply`, p.supply);
    }
    if (p.level && !Object.hasOwn(part.levels, p.level)) say(`pins/${i}/level`, `there is no level set "${p.level}"`);
    if (p.role === "signal" && !p.level) say(`pins/${i}`, `the signal pin "${p.label}" has no level set`);
    if ((p.hook === "own-pin") !== (p.hookPin !== undefined))
      say(`pins/${i}/hookPin`, 'names the pin that a pin of the hook "own-pin" goes to, and belongs to no other hook');
    if (p.hookPin) pin(`pins/${i}/hookPin`, p.hookPin);
    if (p.role === "signal" && !p.io) say(`pins/${i}`, `the signal pin "${p.label}" has no direction (io)`);
  }
  for (const [k, l] of Object.entries(part.levels)) supply(`levels/${k}/supply`, l.supply);
  for (const [i, c] of part.converters.entries()) {
    supply(`converters/${i}/from`, c.from);
    supply(`converters/${i}/to`, c.to);
  }
  for (const [i, e] of part.elements.entries())
    for (const end of elementEnds(e))
      if (!end.startsWith("supply:") && !end.startsWith("ground:")) pin(`elements/${i}`, end);
      else if (end.startsWith("supply:")) supply(`elements/${i}`, end.slice(7));
  for (const [i, c] of part.channels.entries())
    for (const end of [c.in, c.out, ...(c.enable ? [c.enable] : [])]) pin(`channels/${i}`, end);
  for (const [i, g] of part.gates.entries()) for (const l of [g.pin, ...(g.opens ?? [])]) pin(`gates/${i}`, l);
  for (const [i, g] of part.groups.entries()) for (const l of Object.values(g.pins)) pin(`groups/${i}/pins`, l);
  for (const [i, c] of part.companions.entries()) {
    for (const label of [c.pin, ...(c.also ?? [])]) pin(`companions/${i}/pin`, label);
    if (c.to) pin(`companions/${i}/to`, c.to);
  }
  for (const [i, x] of (part.addresses ?? []).entries()) for (const l of [x.a, x.b]) pin(`addresses/${i}`, l);
  for (const path of Object.keys(part.values ?? {}))
    if (valueAt(part, path) === undefined) say(`values/${path}`, `there is no value at "${path}" in this part`);
  if (part.charger) {
    supply("charger/from", part.charger.from);
    supply("charger/cell", part.charger.cell);
  }
  if (part.board?.upload_kB !== undefined && part.board.upload_kB > part.board.flash_kB)
    say("board/upload_kB", `${part.board.upload_kB} kB are more than its flash has (${part.board.flash_kB} kB)`);
  if (part.board) supply("board/logicSupply", part.board.logicSupply);
  const { mosi, miso, sck, reset } = part.board?.programming ?? {};
  for (const [k, l] of Object.entries({ mosi, miso, sck, reset })) if (l) pin(`board/programming/${k}`, l);
  for (const [i, g] of (part.board?.portGroups ?? []).entries())
    for (const l of g.pins) pin(`board/portGroups/${i}`, l);
  for (const [i, g] of (part.chipLimits?.groups ?? []).entries())
    for (const l of g.pins) pin(`chipLimits/groups/${i}`, l);
  if (part.id.startsWith("board/") && !part.board) say("board", "a board needs its board section");
  return out;
}

/** Mistakes in the numbers: ranges the wrong way round, thresholds that cross. Evaluated with the options as they are by default. */
function numbers(part: Part): PartProblem[] {
  const vars: Record<string, number> = {};
  for (const o of part.options) if (o.kind === "number") vars[o.key] = o.default;
  const out: PartProblem[] = [];
  const names = new Set([...Object.keys(vars), "V", "I"]);
  /** The value, or null with the mistake noted: an unknown name or a division that has no answer. */
  const value = (path: string, x: Expr, more: Record<string, number> = {}): number | null => {
    const unknown = expressionNames(x).find((n) => !names.has(n));
    const v = unknown ? NaN : evaluate(x, { ...vars, ...more });
    if (Number.isFinite(v)) return v;
    out.push({ path, message: unknown ? `"${unknown}" is neither V, I nor an option of this part` : "has no value" });
    return null;
  };
  const spread = (path: string, s: { min: Expr; typ: Expr; max: Expr }) => {
    const [min, typ, max] = [value(`${path}/min`, s.min), value(`${path}/typ`, s.typ), value(`${path}/max`, s.max)];
    if (min === null || typ === null || max === null) return null;
    if (min > typ || typ > max)
      out.push({ path, message: `${min}, ${typ}, ${max}: the smallest comes first, then the usual, then the largest` });
    return { min, typ, max };
  };
  for (const [k, s] of Object.entries(part.supplies)) {
    const V = spread(`supplies/${k}/V`, s.V);
    if (s.source) spread(`supplies/${k}/source/V`, s.source.V);
    if (V && s.absMax_V !== undefined && s.absMax_V < V.max)
      out.push({ path: `supplies/${k}/absMax_V`, message: `${s.absMax_V} V is below the largest supply, ${V.max} V` });
    if (!s.mA) continue;
    const [idle, peak] = [value(`supplies/${k}/mA/idle`, s.mA.idle), value(`supplies/${k}/mA/peak`, s.mA.peak)];
    value(`supplies/${k}/mA/typ`, s.mA.typ);
    if (s.mA.asleep !== undefined) {
      const asleep = value(`supplies/${k}/mA/asleep`, s.mA.asleep);
      if (asleep !== null && idle !== null && asleep > idle)
        out.push({ path: `supplies/${k}/mA`, message: `asleep (${asleep} mA) is more than idle (${idle} mA)` });
    }
    if (idle !== null && peak !== null && idle > peak)
      out.push({ path: `supplies/${k}/mA`, message: `idle (${idle} mA) is more than peak (${peak} mA)` });
  }
  for (const [k, l] of Object.entries(part.levels)) {
    const s = part.supplies[l.supply];
    const V = s && value(`levels/${k}/supply`, s.V.typ);
    if (V === undefined || V === null) continue;
    const at = { V, I: 0 };
    const of = (key: "VIH" | "VIL" | "VOH" | "VOL" | "absMax" | "absMin") =>
      rule(key) === undefined ? null : value(`levels/${k}/${key}`, rule(key)!, at);
    const rule = (key: "VIH" | "VIL" | "VOH" | "VOL" | "absMax" | "absMin") =>
      key === "VOH" || key === "VOL" ? outputOf(l, key) : l[key];
    const [VIH, VIL, VOH, VOL, top] = [of("VIH"), of("VIL"), of("VOH"), of("VOL"), of("absMax")];
    of("absMin");
    if (VIH !== null && VIL !== null && VIL >= VIH)
      out.push({ path: `levels/${k}`, message: `VIL (${VIL} V) must be below VIH (${VIH} V)` });
    if (VOH !== null && VOL !== null && VOL >= VOH)
      out.push({ path: `levels/${k}`, message: `VOL (${VOL} V) must be below VOH (${VOH} V)` });
    for (const x of outdone(l, vars))
      out.push({
        path: `levels/${k}/${x.side}`,
        message: `promises ${Number(x.says.toFixed(2))} V at ${x.point.V} V and ${x.point.mA} mA, where the point says ${x.point[x.side]} V`,
      });
    if (VIH !== null && top !== null && VIH > top)
      out.push({ path: `levels/${k}`, message: `VIH (${VIH} V) is above the absolute maximum (${top} V)` });
  }
  return out;
}

export type PartResult = { ok: true; part: Part } | { ok: false; problems: PartProblem[] };

/** A part file is far smaller; anything larger is refused before it is read. */
export const MAX_PART_BYTES = 200_000;

/** Validates a part definition of unknown origin. Every mistake is named with its path inside the file. */
export function validatePart(data: unknown): PartResult {
  const parsed = PartSchema.safeParse(data);
  if (!parsed.success)
    return {
      ok: false,
      problems: parsed.error.issues.slice(0, 100).flatMap((i): PartProblem[] =>
        i.code === "unrecognized_keys"
          ? i.keys.map((k) => ({
              path: pathOf([...i.path, k]),
              message: `the key "${k}" is not known here; remove it`,
            }))
          : [{ path: pathOf(i.path), message: i.message }],
      ),
    };
  // Each stands on the one before.
  let problems = references(parsed.data);
  for (const look of [fit, expressions, numbers]) if (!problems.length) problems = look(parsed.data);
  return problems.length ? { ok: false, problems } : { ok: true, part: parsed.data };
}

/**
 * Validates a part of a person's own, and every version that its choices make: a patch that leads nowhere or makes
 * nonsense is a mistake of the file, not a surprise when somebody picks that choice. Shipped parts are held to the same
 * by tests instead, which is cheaper at start.
 */
export function validateOwnPart(data: unknown): PartResult {
  const result = validatePart(data);
  if (!result.ok) return result;
  const problems = result.part.options.flatMap((o, i): PartProblem[] =>
    o.kind !== "choice"
      ? []
      : o.choices.flatMap((c, j): PartProblem[] => {
          const path = `options/${i}/choices/${j}/patch`;
          let version: unknown;
          try {
            const copy = structuredClone(result.part);
            version = jsonPatch.applyPatch(copy, structuredClone(c.patch) as Operation[], true).newDocument;
          } catch (e) {
            const why = e instanceof Error ? e.message.split("\n")[0]! : String(e);
            return [{ path, message: `"${c.label}" can't be applied: ${why.slice(0, 120)}` }];
          }
          const judged = validatePart(version);
          return judged.ok
            ? []
            : judged.problems.slice(0, 5).map((p) => ({ path, message: `"${c.label}" makes ${p.path}: ${p.message}` }));
        }),
  );
  return problems.length ? { ok: false, problems } : result;
}

/** Reads part text of unknown origin: size limit, JSON, then `validateOwnPart`. */
export function readPart(text: string): PartResult {
  const refuse = (message: string): PartResult => ({ ok: false, problems: [{ path: "", message }] });
  if (text.length > MAX_PART_BYTES)
    return refuse(`the file is larger than ${MAX_PART_BYTES / 1000} kB; a part file is far smaller`);
  try {
    return validateOwnPart(JSON.parse(text.replace(/^\uFEFF/, "")));
  } catch (e) {
    return refuse(`the file is not valid JSON: ${e instanceof Error ? e.message.slice(0, 160) : e}`);
  }
}
