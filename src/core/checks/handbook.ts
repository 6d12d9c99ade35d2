import type { Severity } from "./types";

interface Told {
  rule: string;
  says: string;
}
interface Example {
  rule: string;
  severity: Severity;
  says: string;
  fix?: string;
}

const FAMILIES: Record<string, string> = {
  level: "Levels",
  net: "Nets",
  pin: "Pins",
  board: "Boards",
  current: "Currents",
  led: "Lights",
  load: "Loads",
  part: "Parts",
  power: "Power",
  wire: "Wires",
  i2c: "I2C",
  spi: "SPI",
  uart: "Serial ports",
  onewire: "One-wire sensors",
  bus: "Differential pairs",
  adc: "Analogue inputs",
  bridge: "Bridges of strain gauges",
  contact: "Contacts",
  matrix: "Grids",
  companion: "Loose parts",
  breadboard: "Breadboards",
  firmware: "Programs",
};
const GRADES = ["stop", "fault", "risk", "note"] as const;

/** The handbook page of all rules, in Markdown: what each says, how grave it is, and a worked example of it. */
export function handbook(rules: readonly Told[], examples: readonly Example[]): string {
  const unique = [...new Map(rules.map((r) => [r.rule, r])).values()];
  const lines = [
    "# The rules",
    "",
    "<!-- Written by `npm run rules` from the rules and their test cases. Do not edit. -->",
    "",
    `${unique.length} rules look at every plan, each at the worst case: lowest supply, highest load, widest tolerance. Each finding carries its`,
    "numbers and, where something can be done in the plan, fixes that can be previewed, applied and undone.",
    "",
    "- **stop**: may damage something or someone. Do not power.",
    "- **fault**: will not work.",
    "- **risk**: may work unreliably.",
    "- **note**: worth knowing.",
    "",
    "A finding that was read and accepted can be acknowledged with a reason; it stays visible, and a stop keeps its weight.",
    "The examples below are the tests' own: every rule is tried on a project with that mistake, and on the same project without it.",
  ];
  for (const [key, name] of Object.entries(FAMILIES)) {
    const mine = unique.filter((r) => r.rule.split(".")[0] === key).sort((a, b) => (a.rule < b.rule ? -1 : 1));
    if (!mine.length) continue;
    lines.push("", `## ${name}`);
    for (const r of mine) {
      const own = examples.filter((e) => e.rule === r.rule);
      const grades = GRADES.filter((g) => own.some((e) => e.severity === g));
      lines.push("", `### \`${r.rule}\``, "", `${r.says}`, "");
      for (const e of own)
        lines.push(`- **${e.severity}**, for example: ${e.says}.${e.fix ? ` A fix is offered: \`${e.fix}\`.` : ""}`);
      if (!grades.length) lines.push("- no example yet");
    }
  }
  return `${lines.join("\n")}\n`;
}
