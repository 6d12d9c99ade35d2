import { markdown } from "../words";
import { wanted, type CheckItem } from "../bench";
import type { Finding, Verdict } from "../checks";
import type { OpenNeed } from "./open";
import { inRuns, isLaid, OWN_LEG, PHASES, type BomRow, type GridAddresses, type RunRow } from "../build";

const cell = (t: string | number) => markdown(String(t));
const table = (head: string[], rows: (string | number)[][]) =>
  [
    `| ${head.join(" | ")} |`,
    `|${head.map(() => "---").join("|")}|`,
    ...rows.map((r) => `| ${r.map(cell).join(" | ")} |`),
  ].join("\n");

const place = (end: string, words: string) => (end === words ? end : `${end} (${words})`);

export interface PlanText {
  title: string;
  /** Eight letters that stand for this plan, on everything that is made of it. */
  fingerprint: string;
  open: OpenNeed[];
  verdict: Verdict;
  findings: Finding[];
  rows: RunRow[];
  checks: CheckItem[];
  parts: BomRow[];
  cautions: string[];
  /** Address tables of grids: which pair of lines is which key or light. */
  addresses: GridAddresses[];
}

const openWords = (open: OpenNeed[]) =>
  open.length
    ? `\n## Still open\n\nNothing was planned for these; they have no wire:\n\n${open.map((o) => `- ${cell(o.end)} (${cell(o.part)}): ${cell(o.wants)}`).join("\n")}\n`
    : "";

/** The whole plan as Markdown: verdict, findings, cautions, run sheet with boxes, checks, parts. */
export function planMarkdown(p: PlanText): string {
  const phases = PHASES.map((ph) => {
    const rows = p.rows.filter((r) => r.phase === ph.id);
    if (!rows.length) return "";
    const body = inRuns(rows)
      .map((run) =>
        run.every((r) => !isLaid(r))
          ? run.map((r) => `- [ ] ${r.step}. ${cell(r.note)}`).join("\n")
          : table(
              ["", "step", "from", "to", "net", "colour", "cm", "ends", "note"],
              run.map((r) => [
                "☐",
                r.step,
                place(r.from, r.fromWords),
                place(r.to, r.toWords),
                r.net,
                r.colour || (r.kind === "leg" ? OWN_LEG : r.kind),
                r.kind === "leg" ? "" : r.length_cm,
                `${r.endA}-${r.endB}`,
                r.note,
              ]),
            ),
      )
      .join("\n\n");
    return `### ${ph.title}\n\n${ph.why}\n\n${body}\n`;
  });
  return `# ${cell(p.title)}

**${p.verdict.words}** · plan ${p.fingerprint}
${openWords(p.open)}
${p.findings.map((f) => `- **${f.severity}** \`${f.rule}\` ${cell(f.message)}${f.acknowledged ? ` (acknowledged: ${cell(f.acknowledged)})` : ""}`).join("\n") || "No findings."}

## Take care

${p.cautions.map((c) => `- ${cell(c)}`).join("\n")}

## Run sheet

${phases.filter(Boolean).join("\n")}
## Checks

${table(
  ["when", "what", "between", "expected"],
  p.checks.map((i) => [i.when, i.what, [i.from, i.to].filter(Boolean).join(" – "), wanted(i)]),
)}

${p.addresses
  .map(
    (g) => `## Addresses of ${cell(g.name)} (${g.ref})

${table(
  ["name", "from line", "to line", "board pins"],
  g.rows.map((r) => [r.name, r.a, r.b, r.pins]),
)}
`,
  )
  .join("\n")}
## Parts

${table(
  ["number", "spares", "to buy", "part", "value", "refs"],
  p.parts.map((b) => [b.quantity, b.spares, b.buy, b.name, b.value, b.refs.join(" ")]),
)}
`;
}
