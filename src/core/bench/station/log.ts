import type { Circuit } from "../../circuit";
import { faultsOf } from "../faults";
import { layOut } from "../laid/laid";
import { checklist, parseReading, type CheckItem } from "../steps";
import { ask } from "../reason";
import { questionOf, unitOf } from "./observations";

/** A line of the bench's log: when, what was measured, what it read, and how that compares with the time before. */
export interface LogRow {
  at: string;
  kind: "reading" | "mended";
  id: string;
  what: string;
  reading: string;
  ok: boolean;
  /** How it differs from the last reading of the same, where both are numbers. */
  change: string;
}

/** A change below this share of the reading, or this much, is a meter's. */
const SAME = { share: 0.01, least: 0.02 };

/** Everything that was measured on a project's bench, newest first. */
export function logRows(c: Circuit): LogRow[] {
  const byId = new Map<string, CheckItem>(checklist(c).map((i) => [i.id, i]));
  const laid = layOut(c);
  const last = new Map<string, number>();
  const rows = c.project.bench.flatMap((e): LogRow[] => {
    if (e.list !== "log") return [];
    const id = e.id.slice(e.at.length + 1);
    const text = (e.reading ?? "").replace(/ [A-Z]{8}$/, "");
    if (id === "mended") {
      const says = (e.reading ?? "").split(" + ").map((x) => faultsOf(laid).find((f) => f.id.startsWith(x))?.says ?? x);
      return [{ at: e.at, kind: "mended", id, what: says.join(", and: "), reading: "mended", ok: true, change: "" }];
    }
    const q = questionOf(c, id);
    const unit = byId.get(id)?.unit ?? (q ? unitOf(q) : null);
    const r = unit && unit !== "word" ? parseReading(text, unit) : null;
    let change = "";
    if (r?.ok && typeof r.value === "number" && Number.isFinite(r.value)) {
      const was = last.get(id);
      const by = was === undefined ? 0 : r.value - was;
      if (Math.abs(by) >= Math.max(SAME.least, SAME.share * Math.abs(was ?? 0)))
        change = `${Number(Math.abs(by).toPrecision(2))} ${unit} ${by > 0 ? "higher" : "lower"} than before`;
      last.set(id, r.value);
    }
    const what = byId.get(id)?.what ?? (q ? ask(laid, q) : id);
    return [{ at: e.at, kind: "reading", id, what, reading: text, ok: e.done, change }];
  });
  return rows.reverse();
}
