/** Certainty of the data by part, with what stands behind it: `npm run catalogue:report [-- --csv]`. */
import Papa from "papaparse";
import { partKind, type Part } from "../src/core/parts/catalogue";
import { shippedCatalogue } from "../src/core/parts/catalogue/shipped";

const { parts } = shippedCatalogue();
const LEVELS = ["high", "medium", "low"] as const;
const row = (p: Part) => ({
  part: p.id,
  certainty: p.certainty,
  sources: p.sources.map((s) => `${s.title} (${s.where})`).join("; "),
  versions: p.options.flatMap((o) => (o.kind === "choice" ? [`${o.key}: ${o.choices.length}`] : [])).join(", "),
  notes: p.notes.length,
  cautions: p.cautions.length,
});

if (process.argv.includes("--csv")) console.log(Papa.unparse(parts.map(row)));
else {
  for (const level of LEVELS) {
    const list = parts.filter((p) => p.certainty === level);
    console.log(`\n${level}: ${list.length} of ${parts.length}`);
    for (const p of list) {
      const why = level === "high" ? "" : `  ${p.notes[0] ?? ""}`;
      console.log(`  ${p.id.padEnd(30)} ${p.sources.map((s) => s.title).join("; ")}`);
      if (why) console.log(`  ${"".padEnd(30)}${why.slice(0, 140)}`);
    }
  }
  const kinds = [...new Set(parts.map((p) => partKind(p.id)))];
  console.log(`\n${"kind".padEnd(12)}${LEVELS.map((l) => l.padStart(8)).join("")}`);
  for (const k of kinds) {
    const n = (l: string) => parts.filter((p) => partKind(p.id) === k && p.certainty === l).length;
    console.log(`${k.padEnd(12)}${LEVELS.map((l) => String(n(l)).padStart(8)).join("")}`);
  }
}
