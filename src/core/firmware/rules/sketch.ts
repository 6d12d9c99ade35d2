import { codeOf, followed, holds, keptOf, lastsOf, sequencesOf, outputsOf, type Tongue } from "./print";
import type { Acts, Does, Resolved } from "./resolve";

const C: Omit<Tongue, "of"> = {
  and: "&&",
  or: "||",
  choice: (test, a, b) => `(${test} ? ${a} : ${b})`,
  divide: (a, b) => `${a} / ${b}L`,
  within: (a, least, most) => `constrain(${a}, ${least}L, ${most}L)`,
  wide: (a) => `(int32_t)${a}`,
};
const indent = (text: string) => text.replace(/^(?=.)/gm, "  ");

/** What happens once, when it begins. */
function once(d: Does, i: number): string {
  if (d.act === "toggle") {
    const { id } = d.acts.part;
    return `${id}_kept = ${id}_kept == ${d.acts.takes.rest}L ? ${d.acts.on}L : ${d.acts.takes.rest}L;`;
  }
  if (d.act === "count") {
    const { id } = d.acts.part;
    const [, most] = d.acts.takes.range;
    return `${id}_kept = ${id}_kept >= 0 && ${id}_kept < ${most}L ? ${id}_kept + 1 : 0;`;
  }
  if (d.act === "for")
    return `${d.acts.part.id}_kept = ${d.acts.on}L;\nrule${i}_lasts = true;\nrule${i}_since = millis();`;
  if (d.act === "log") return `${d.acts.part.id}_log();`;
  if (d.act === "sequence")
    return `${d.acts.part.id}_kept = rule${i}_steps[0];\nrule${i}_step = 0;\nrule${i}_left = ${d.times};\nrule${i}_since = millis();`;
  return [
    `rule${i}_turn = (rule${i}_turn + 1) % ${d.among.length};`,
    ...d.among.map((a, k) => `${a.part.id}_kept = rule${i}_turn == ${k} ? ${a.on}L : ${a.takes.rest}L;`),
  ].join("\n");
}

/**
 * Variables and the task of all rules in C++ and C; nothing when there are none. `of`: what a part is made of in that program;
 * `watched`: outputs that must not be left alone: `rules_busy` is when one of them was last told something, or anything was under way.
 */
export function rulesInC(
  rules: readonly Resolved[],
  of: Tongue["of"] = (p) => codeOf(p, "sketch"),
  watched: readonly Acts[] | null = null,
): { state: string; body: string } | null {
  if (!rules.length) return null;
  const tongue: Tongue = { ...C, of };
  const kept = keptOf(rules);
  const outs = outputsOf(rules);
  const busy = [
    ...lastsOf(rules).map(({ i }) => `rule${i}_lasts`),
    ...sequencesOf(rules).map(({ i }) => `rule${i}_step != 255`),
    ...(watched ?? []).map((a) => `${a.part.id}_told_by_rule != ${a.takes.rest}L`),
  ];
  const state = [
    ...(watched && busy.length ? ["static uint32_t rules_busy = 0;"] : []),
    ...outs.filter((a) => kept.has(a.part.id)).map((a) => `static int32_t ${a.part.id}_kept = ${a.takes.rest};`),
    ...rules.flatMap((r, i) => [
      ...(r.kind === "while" || r.kind === "each" ? [`static bool rule${i}_holds = false;`] : []),
      ...(r.kind === "every" ? [`static uint32_t rule${i}_next = ${r.ms};`] : []),
      ...("does" in r && r.does.act === "for"
        ? [`static bool rule${i}_lasts = false;`, `static uint32_t rule${i}_since = 0;`]
        : []),
      ...("does" in r && r.does.act === "sequence"
        ? [
            `static const int32_t rule${i}_steps[] = {${r.does.steps.map((s) => `${s.value}L`).join(", ")}};`,
            `static const uint32_t rule${i}_ms[] = {${r.does.steps.map((s) => s.ms).join(", ")}};`,
            `static uint8_t rule${i}_step = 255;`,
            `static uint16_t rule${i}_left = 0;`,
            `static uint32_t rule${i}_since = 0;`,
          ]
        : []),
      ...("does" in r && r.does.act === "next" ? [`static uint8_t rule${i}_turn = ${r.does.among.length - 1};`] : []),
    ]),
  ].join("\n");
  const body = rules.map((r, i): string => {
    const says = `// ${r.says}\n`;
    switch (r.kind) {
      case "while":
        return `${says}rule${i}_holds = ${holds(tongue, r.seen, r.test, `rule${i}_holds`)};\nif (rule${i}_holds) ${r.acts.part.id}_told_by_rule = ${r.value}L;`;
      case "each":
        return `${says}{\n  bool held = rule${i}_holds;\n  rule${i}_holds = ${holds(tongue, r.seen, r.test, "held")};\n  if (rule${i}_holds && !held) {\n${indent(indent(once(r.does, i)))}\n  }\n}`;
      case "every":
        return `${says}if (due(rule${i}_next, ${r.ms}UL)) {\n${indent(once(r.does, i))}\n}`;
      case "follow": {
        const fresh = tongue.of(r.seen.part)!.fresh?.(r.seen.part);
        const line = `${r.acts.part.id}_told_by_rule = ${followed(tongue, r)};`;
        return `${says}${fresh ? `if (${fresh}) ` : ""}${line}`;
      }
    }
  });
  // What began is seen to before what it does is brought to the parts.
  const events = body.filter((_, i) => "does" in rules[i]!);
  const others = body.filter((_, i) => !("does" in rules[i]!));
  return {
    state,
    body: [
      ...lastsOf(rules).map(
        ({ i, acts, ms }) =>
          `if (rule${i}_lasts && millis() - rule${i}_since >= ${ms}UL) {\n  rule${i}_lasts = false;\n  ${acts.part.id}_kept = ${acts.takes.rest}L;\n}`,
      ),
      ...sequencesOf(rules).map(
        ({ i, acts, steps }) => `if (rule${i}_step != 255 && millis() - rule${i}_since >= rule${i}_ms[rule${i}_step]) {
  rule${i}_since += rule${i}_ms[rule${i}_step];
  if (++rule${i}_step == ${steps.length}) rule${i}_step = --rule${i}_left ? 0 : 255;
  ${acts.part.id}_kept = rule${i}_step == 255 ? ${acts.takes.rest}L : rule${i}_steps[rule${i}_step];
}`,
      ),
      ...events,
      ...outs.map(
        (a) => `int32_t ${a.part.id}_told_by_rule = ${kept.has(a.part.id) ? `${a.part.id}_kept` : `${a.takes.rest}L`};`,
      ),
      ...others,
      ...outs.map((a) => tongue.of(a.part)!.tell!(a.part, `${a.part.id}_told_by_rule`)),
      ...(watched && busy.length ? [`if (${busy.join(" || ")}) rules_busy = millis();`] : []),
    ].join("\n"),
  };
}
