/** What is known of the parts, value by value: `npm run catalogue:report [-- --csv] [-- part ids]`. */
import Papa from "papaparse";
import { partKind } from "../src/core/parts/catalogue";
import { shippedCatalogue } from "../src/core/parts/catalogue/shipped";
import { trustOf, type Trust } from "../src/core/parts/own";

const { parts } = shippedCatalogue();
const args = process.argv.slice(2);
const wanted = args.filter((a) => a.includes("/"));
const list = parts.filter((p) => !wanted.length || wanted.includes(p.id)).map(trustOf);

const line = (t: Trust) => [
  t.id.padEnd(30),
  t.certainty.padEnd(7),
  String(t.values).padStart(6),
  String(t.sourced).padStart(8),
  String(t.stated).padStart(7),
  String(t.assumed.length).padStart(8),
  String(t.unchecked.length).padStart(10),
  (t.prints ? `${t.prints} (${t.print}${t.asks ? ", asked" : ""})` : "-").padStart(20),
  `  ${t.judges.join(" ")}`,
];

if (args.includes("--csv"))
  console.log(
    Papa.unparse(
      list.map((t) => ({
        ...t,
        assumed: t.assumed.join(" "),
        unchecked: t.unchecked.join(" "),
        judges: t.judges.join(" "),
        wants: t.wants.join("; "),
      })),
    ),
  );
else {
  const head = [
    "part".padEnd(30),
    "sure   ",
    "values",
    " sourced",
    " stated",
    " assumed",
    " unchecked",
    "prints".padStart(20),
    "  judged",
  ];
  console.log(head.join(""));
  for (const t of list) {
    console.log(line(t).join(""));
    if (!wanted.length) continue;
    for (const path of t.assumed) console.log(`    assumed    ${path}`);
    for (const path of t.unchecked) console.log(`    unchecked  ${path}`);
    for (const want of t.wants) console.log(`    wanted     ${want}`);
  }
  const sum = (f: (t: Trust) => number) => list.reduce((n, t) => n + f(t), 0);
  console.log(
    `\n${list.length} parts, ${sum((t) => t.values)} values that decide: ${sum((t) => t.sourced)} with a source of their own or of a sure part, ${sum((t) => t.stated)} stated, ${sum((t) => t.assumed.length)} by rules of thumb, ${sum((t) => t.unchecked.length)} unchecked.`,
  );
  const modules = list.filter((t) => partKind(t.id) === "module");
  console.log(
    `${modules.length} modules: ${modules.filter((t) => t.print === "high").length} with a sure header, ${modules.filter((t) => t.asks).length} whose header a person is asked about.`,
  );
}
