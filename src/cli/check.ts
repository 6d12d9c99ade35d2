import { explain, findings, groundsOf, shareOf, triedFindings, verdict, type Finding } from "../core/checks";
import { circuitOf } from "../core/circuit";
import { plainFinding } from "../core/formats";
import { catalogue, EXIT, loadFile, print, printJson, Unusable } from "./io";

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

/** Findings that a wish names: a rule, or a rule and one of its places (`level.overdrive`, `level.overdrive@B1.D8`). */
const wanted = (list: readonly Finding[], wish: string) => {
  const [rule = "", at] = wish.split("@");
  return list.filter((f) => f.rule === rule && (at === undefined || f.at.includes(at)));
};

export function checkCommand(file: string, o: { json?: boolean; explain?: string }): number {
  const circuit = circuitOf(loadFile(file), catalogue);
  const list = triedFindings(circuit, findings(circuit));
  const whole = (f: Finding) => ({
    ...plainFinding(f),
    grounds: groundsOf(circuit, f),
    shareOfBuilds: shareOf(circuit, f),
  });
  if (o.explain !== undefined) {
    const found = wanted(list, o.explain);
    if (!found.length) {
      const has = [...new Set(list.map((f) => f.rule))];
      throw new Unusable(
        `--explain ${o.explain}: no such finding here; ${has.length ? `there are ${has.join(", ")}` : "there are none"} (a place may follow: ${has[0] ?? "level.overdrive"}@B1.D8)`,
      );
    }
    if (o.json) printJson(found.map(whole));
    else print(found.map((f) => explain(circuit, f).join("\n")).join("\n\n"));
    return statusOf(list);
  }
  if (o.json) printJson(list.map(whole));
  else {
    printFindings(list);
    print(verdict(circuit, list).words);
  }
  return statusOf(list);
}
