/**
 * Which parts the programs of each board work, each part planned alone on it: `npx tsx bench/driven.ts`. A part counts when a program
 * does more with it than to let it rest.
 */
import { circuitOf, type Circuit } from "../src/core/circuit";
import { TARGETS } from "../src/core/firmware";
import { driverOf, leftOut } from "../src/core/firmware/drivers";
import { driverParts } from "../src/core/firmware/pins";
import { linesOf, talksOf } from "../src/core/firmware/targets/avr-c/parts";
import type { DriverPart } from "../src/core/firmware/types";
import { shippedCatalogue } from "../src/core/parts/catalogue/shipped";
import { assign } from "../src/core/plan/assign";
import { make, USB } from "../src/core/testing";

const catalogue = shippedCatalogue();
const hosts = catalogue.parts.filter((p) => p.board);
const parts = catalogue.parts.filter((p) => !p.board && p.bringup && p.pins.some((x) => x.need));
type Way = "i2c" | "spi" | "uart" | "pins";
const WAYS: readonly Way[] = ["i2c", "spi", "uart", "pins"];
const wayOf = (id: string): Way => WAYS.find((w) => catalogue.get(id)!.groups.some((g) => g.kind === w)) ?? "pins";

const inPlainC = (c: Circuit, p: DriverPart) =>
  talksOf(c, "B1", [p]).length > 0 || linesOf(c, "B1", [p]).every((l) => l.kind !== "rest");

/** Why no program of the board works the part, or null: one does. */
function missing(c: Circuit): string | null {
  let why = "let rest";
  for (const t of TARGETS) {
    if (t.without(c).length) continue;
    for (const p of driverParts(c, "B1", t.id, (b) => b)) {
      const lack = leftOut(p) ?? t.leaves?.(p) ?? null;
      if (lack) why = lack.why;
      else if (t.id === "avr-c" ? inPlainC(c, p) : driverOf(p)?.id !== "generic") return null;
    }
  }
  return why;
}

const table = hosts.map((h) => {
  const counts = new Map(WAYS.map((w) => [w, { driven: 0, all: 0 }]));
  const left = new Map<string, string>();
  for (const q of parts) {
    const a = assign(make([{ ref: "B1", part: h.id }, USB, { ref: "M1", part: q.id }]), catalogue);
    if (a.status === "infeasible") continue;
    const why = missing(circuitOf(a.project, catalogue));
    const n = counts.get(wayOf(q.id))!;
    n.all++;
    if (why === null) n.driven++;
    else left.set(q.id, why);
  }
  return { host: h.id, counts, left };
});

const sum = (list: readonly number[]) => list.reduce((s, v) => s + v, 0);
const share = (rows: typeof table, w?: Way) => {
  const of = (k: "driven" | "all") =>
    sum(rows.flatMap((r) => [...r.counts].filter(([x]) => !w || x === w).map(([, n]) => n[k])));
  return `${of("driven")}/${of("all")}`;
};
console.log(["host".padEnd(26), ...WAYS.map((w) => w.padStart(9)), "all".padStart(10)].join(" "));
for (const r of table)
  console.log([r.host.padEnd(26), ...WAYS.map((w) => share([r], w).padStart(9)), share([r]).padStart(10)].join(" "));
console.log(["all".padEnd(26), ...WAYS.map((w) => share(table, w).padStart(9)), share(table).padStart(10)].join(" "));
const left = new Map<string, Map<string, number>>();
for (const r of table)
  for (const [id, why] of r.left) {
    const of = left.get(id) ?? new Map<string, number>();
    left.set(id, of.set(why, (of.get(why) ?? 0) + 1));
  }
console.log("\nnot worked, on so many boards:");
for (const [id, why] of [...left].sort((a, b) => sum([...b[1].values()]) - sum([...a[1].values()])))
  console.log(`${id}: ${[...why].map(([w, n]) => `${n} × ${w}`).join("; ")}`.slice(0, 220));
