import { codeOf, followed, holds, keptOf, lastsOf, outputsOf, sequencesOf, type Tongue } from "./print";
import type { Acts, Does, Resolved } from "./resolve";

const PYTHON: Tongue = {
  of: (p) => codeOf(p, "micropython"),
  and: "and",
  or: "or",
  choice: (test, a, b) => `(${a} if ${test} else ${b})`,
  divide: (a, b) => `idiv(${a}, ${b})`,
  within: (a, least, most) => `max(${least}, min(${most}, ${a}))`,
  wide: (a) => a,
};
const indent = (text: string) => text.replace(/^(?=.)/gm, "    ");

/** What happens once, when it begins. */
function once(d: Does, i: number): string {
  if (d.act === "toggle") {
    const at = `kept["${d.acts.part.ref}"]`;
    return `${at} = ${d.acts.on} if ${at} == ${d.acts.takes.rest} else ${d.acts.takes.rest}`;
  }
  if (d.act === "count") {
    const at = `kept["${d.acts.part.ref}"]`;
    return `${at} = ${at} + 1 if 0 <= ${at} < ${d.acts.takes.range[1]} else 0`;
  }
  if (d.act === "for") return `kept["${d.acts.part.ref}"] = ${d.acts.on}\nrule_since[${i}] = time.ticks_ms()`;
  if (d.act === "log") return `${d.acts.part.id}_log()`;
  if (d.act === "sequence")
    return `kept["${d.acts.part.ref}"] = rule_steps[${i}][0][0]\nrule_step[${i}] = [0, ${d.times}]\nrule_since[${i}] = time.ticks_ms()`;
  return [
    `rule_turn[${i}] = (rule_turn[${i}] + 1) % ${d.among.length}`,
    ...d.among.map((a, k) => `kept["${a.part.ref}"] = ${a.on} if rule_turn[${i}] == ${k} else ${a.takes.rest}`),
  ].join("\n");
}

/** The same in Python; `watched` as in C++, told by `rule_busy[0]`. */
export function rulesInPython(
  rules: readonly Resolved[],
  watched: readonly Acts[] | null = null,
): { state: string; body: string; divides: boolean } | null {
  if (!rules.length) return null;
  const kept = keptOf(rules);
  const outs = outputsOf(rules);
  const n = rules.length;
  const turn = rules.map((r) => ("does" in r && r.does.act === "next" ? r.does.among.length - 1 : 0));
  const busy = [
    ...lastsOf(rules).map(({ i }) => `rule_since[${i}] is not None`),
    ...sequencesOf(rules).map(({ i }) => `rule_step[${i}]`),
    ...(watched ?? []).map((a) => `told["${a.part.ref}"] != ${a.takes.rest}`),
  ];
  const state = [
    ...(watched && busy.length ? ["rule_busy = [time.ticks_ms()]"] : []),
    `rule_holds = [False] * ${n}`,
    ...(rules.some((r) => r.kind === "every")
      ? [
          `rule_next = [time.ticks_add(time.ticks_ms(), ms) for ms in (${rules.map((r) => `${r.kind === "every" ? r.ms : 0},`).join(" ")})]`,
        ]
      : []),
    ...(sequencesOf(rules).length
      ? [
          `rule_steps = {${sequencesOf(rules)
            .map(({ i, steps }) => `${i}: (${steps.map((s) => `(${s.value}, ${s.ms}),`).join(" ")})`)
            .join(", ")}}`,
          `rule_step = [None] * ${n}`,
        ]
      : []),
    ...(lastsOf(rules).length || sequencesOf(rules).length ? [`rule_since = [None] * ${n}`] : []),
    ...(turn.some((t) => t) ? [`rule_turn = [${turn.join(", ")}]`] : []),
    ...(kept.size
      ? [
          `kept = {${outs
            .filter((a) => kept.has(a.part.id))
            .map((a) => `"${a.part.ref}": ${a.takes.rest}`)
            .join(", ")}}`,
        ]
      : []),
  ].join("\n");
  const body = rules.map((r, i): string => {
    const says = `# ${r.says}\n`;
    switch (r.kind) {
      case "while":
        return `${says}rule_holds[${i}] = ${holds(PYTHON, r.seen, r.test, `rule_holds[${i}]`)}\nif rule_holds[${i}]:\n    told["${r.acts.part.ref}"] = ${r.value}`;
      case "each":
        return `${says}held = rule_holds[${i}]\nrule_holds[${i}] = ${holds(PYTHON, r.seen, r.test, "held")}\nif rule_holds[${i}] and not held:\n${indent(once(r.does, i))}`;
      case "every":
        return `${says}if time.ticks_diff(time.ticks_ms(), rule_next[${i}]) >= 0:\n    rule_next[${i}] = time.ticks_add(rule_next[${i}], ${r.ms})\n    if time.ticks_diff(time.ticks_ms(), rule_next[${i}]) >= 0:\n        rule_next[${i}] = time.ticks_add(time.ticks_ms(), ${r.ms})\n${indent(once(r.does, i))}`;
      case "follow": {
        const fresh = PYTHON.of(r.seen.part)!.fresh?.(r.seen.part);
        const line = `told["${r.acts.part.ref}"] = ${followed(PYTHON, r)}`;
        return `${says}${fresh ? `if ${fresh}:\n    ${line}` : line}`;
      }
    }
  });
  const events = body.filter((_, i) => "does" in rules[i]!);
  const others = body.filter((_, i) => !("does" in rules[i]!));
  return {
    divides: rules.some((r) => r.kind === "follow"),
    state,
    body: [
      ...lastsOf(rules).map(
        ({ i, acts, ms }) =>
          `if rule_since[${i}] is not None and time.ticks_diff(time.ticks_ms(), rule_since[${i}]) >= ${ms}:\n    rule_since[${i}] = None\n    kept["${acts.part.ref}"] = ${acts.takes.rest}`,
      ),
      ...sequencesOf(rules).map(
        ({ i, acts, steps }) => `if rule_step[${i}]:
    at = rule_step[${i}]
    ms = rule_steps[${i}][at[0]][1]
    if time.ticks_diff(time.ticks_ms(), rule_since[${i}]) >= ms:
        rule_since[${i}] = time.ticks_add(rule_since[${i}], ms)
        at[0] += 1
        if at[0] == ${steps.length}:
            at[0] = 0
            at[1] -= 1
        if at[1]:
            kept["${acts.part.ref}"] = rule_steps[${i}][at[0]][0]
        else:
            rule_step[${i}] = None
            kept["${acts.part.ref}"] = ${acts.takes.rest}`,
      ),
      ...events,
      `told = {${outs.map((a) => `"${a.part.ref}": ${kept.has(a.part.id) ? `kept["${a.part.ref}"]` : a.takes.rest}`).join(", ")}}`,
      ...others,
      ...outs.map((a) => PYTHON.of(a.part)!.tell!(a.part, `told["${a.part.ref}"]`)),
      ...(watched && busy.length ? [`if ${busy.join(" or ")}:\n    rule_busy[0] = time.ticks_ms()`] : []),
    ].join("\n"),
  };
}
