import { houseRule } from "../../../project";
import { driverOf } from "../../drivers";
import { PAGE_MS, pagesOf, ROW_MS, type Page } from "../../pages";
import { codeOf } from "../../rules/print";
import { blinking, hold_ms, readers, settle_ms, watchedOf } from "../../sleep";
import { holdInPython, turnInPython } from "../../sleep/print";
import { rulesInPython } from "../../rules/python";
import { logInPython } from "../../logging";
import { PAGE_LOOK_MS, pageInPython } from "../../page";
import { leftWords } from "../../rules";
import { logsOf } from "../../rules/resolve";
import { place } from "../../own/marks";
import type { DriverPart, FirmwareFile, Task } from "../../types";
import { buses, head, indent, setups, type Ctx } from "./ctx";

/** Life on any board: its own light beats, and once a second one line tells what the parts say. */
function report(x: Ctx): string {
  const shows = x.parts.flatMap((p) => driverOf(p)?.micropython?.show?.(p) || []);
  return `said = [${shows.join(", ")}]
print("  ".join([s for s in said if s] + ["running %d s" % (time.ticks_ms() // 1000)]))`;
}

const showOf = (p: DriverPart) => driverOf(p)?.micropython?.show?.(p) ?? "";

/** All rows of a display: its title, and what the parts say, page after page. */
function rowTask({ p, title, first, rows, pages, says }: Page): { id: string } & Task {
  const from = pages > 1 ? `time.ticks_ms() // ${PAGE_MS} % ${pages} * ${rows}` : "0";
  const written = says.length
    ? `said = [${says.map(showOf).join(", ")}]
page = ${from}
for row in range(${rows}):
    ${p.id}.line(${first} + row, said[page + row] if page + row < len(said) else "")`
    : "";
  return {
    id: `${p.id}_rows`,
    every_ms: ROW_MS * rows,
    body: [title === null ? "" : `${p.id}.line(0, "${title.slice(0, 21)}")`, written].filter(Boolean).join("\n"),
  };
}

/** The program that does something at once: tasks in turn, each in its own time; nothing in the loop waits. */
export function starter(x: Ctx): FirmwareFile {
  const light = x.light;
  const cards = logsOf(x.ruled.rules.map((r) => r.resolved));
  const told = x.ruled.rules.map((r) => r.resolved);
  const settle = settle_ms(told);
  const rules = rulesInPython(told, x.nap && watchedOf(told));
  const tasks: ({ id: string } & Task)[] = [
    ...x.parts.flatMap((p) => {
      const t = driverOf(p)?.micropython?.task?.(p, x.parts);
      return t ? [{ id: p.id, ...t }] : [];
    }),
    ...(light ? [{ id: "heartbeat", every_ms: 500, body: "heartbeat.value(1 - heartbeat.value())" }] : []),
    ...pagesOf(x.parts, (p) => showOf(p) !== "").map(rowTask),
    ...(rules
      ? [
          {
            id: "rules",
            every_ms: 20,
            body: `${x.nap ? holdInPython(hold_ms(x.nap, told, x.parts)) : ""}${rules.body}`,
          },
        ]
      : []),
    ...(x.online ? [{ id: "page", every_ms: PAGE_LOOK_MS, body: "page.turn(page_readings)" }] : []),
    { id: "report", every_ms: 1000, body: report(x) },
  ];
  const simple = houseRule(x.c.project, "programStyle") === "delays";
  const turn = (t: { id: string; turn: string }) =>
    simple
      ? `if time.ticks_diff(time.ticks_ms(), ${t.id}_next[0]) >= 0:\n    ${t.id}_next[0] = time.ticks_add(time.ticks_ms(), ${t.turn})`
      : `return ${t.turn}`;
  const functions = tasks
    .map(
      (t) =>
        `${"turn" in t && simple ? `\n\n${t.id}_next = [0]\n` : ""}\n\ndef ${t.id}_task():\n${indent("turn" in t ? turn(t) : t.body)}`,
    )
    .join("");
  const table = tasks.map((t) => `    [0, ${"turn" in t ? 0 : t.every_ms}, ${t.id}_task],`).join("\n");
  /** What only blinks is dark while it sleeps; what was read is no reading of the next round. */
  const off = [
    ...(light ? [`heartbeat.value(${1 - light.lit})`] : []),
    ...readers(x.parts).map((p) => `${codeOf(p, "micropython")!.fresh!(p)} = False`),
    ...blinking(x.parts).map((p) => codeOf(p, "micropython")!.tell!(p, "0")),
  ];
  const nap = x.nap
    ? `${indent(turnInPython(x.nap, off, settle ? `time.ticks_diff(time.ticks_ms(), rule_busy[0]) >= ${settle}` : null))}\n`
    : "";
  // A part that does not answer is tried again at its next turn: the others go on.
  const loop = simple
    ? `while True:
    for task in (${tasks.map((t) => `${t.id}_task`).join(", ")},):
        try:
            task()
        except OSError:
            pass
${indent(place("loop"))}
${nap}    time.sleep_ms(50)`
    : `TASKS = [
${table}
]

while True:
    now = time.ticks_ms()
    for task in TASKS:
        if time.ticks_diff(now, task[0]) >= 0:
            # From when it was due, so that being late does not add up; far behind, it begins anew.
            task[0] = time.ticks_add(task[0], task[1])
            if time.ticks_diff(now, task[0]) >= 0:
                task[0] = time.ticks_add(now, task[1])
            try:
                pause = task[2]()
            except OSError:
                pause = None
            if pause:
                # It says itself when it wants to go on.
                task[0] = time.ticks_add(time.ticks_ms(), pause)
${indent(place("loop"))}
${nap}`;
  return {
    path: "main.py",
    text: `${head(x, "starter; nothing in the loop waits")}${x.nap ? "\nfrom machine import lightsleep" : ""}${cards.length ? "\nfrom lib.card import Log" : ""}${x.online ? `\nfrom lib.page import Page\nfrom lib.part import fixed` : ""}

${buses(x)}
${setups(x)}
${cards.map((p) => logInPython(p, x.parts)).join("\n")}
${x.online ? pageInPython(x.title, x.parts) : ""}
${leftWords(x.ruled, "#")}
${rules?.state ?? ""}
${light ? `heartbeat = Pin(${light.code}, Pin.OUT)\n` : ""}
${x.nap ? "woke = time.ticks_ms()\n" : ""}${place("globals")}${functions}

print("YL1 plan ${x.host} id=${x.plan} info")


${loop}
`,
  };
}
