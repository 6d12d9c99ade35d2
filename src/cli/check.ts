import { findings, verdict, type Finding } from "../core/checks";
import { circuitOf } from "../core/circuit";
import { plainFinding } from "../core/formats";
import { catalogue, EXIT, loadFile, print, printJson } from "./io";

/** Exit status for a set of findings: 3 when something must not be powered or will not work. */
export const statusOf = (list: readonly Finding[]) =>
  list.some((f) => f.severity === "stop" || (f.severity === "fault" && !f.acknowledged)) ? EXIT.findings : EXIT.fine;

export function printFindings(list: readonly Finding[]) {
  for (const f of list) {
    print(`${f.severity.padEnd(5)} ${f.rule}  ${f.at.join(" ")}`);
    print(`      ${f.message}`);
    for (const x of f.fixes) print(`      fix ${x.id}: ${x.label}`);
    if (f.acknowledged) print(`      acknowledged: ${f.acknowledged}`);
  }
}

export function checkCommand(file: string, o: { json?: boolean }): number {
  const circuit = circuitOf(loadFile(file), catalogue);
  const list = findings(circuit);
  if (o.json) printJson(list.map(plainFinding));
  else {
    printFindings(list);
    print(verdict(circuit, list).words);
  }
  return statusOf(list);
}
