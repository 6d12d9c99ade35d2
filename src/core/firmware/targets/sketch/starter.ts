import { houseRule } from "../../../project";
import { driverOf } from "../../drivers";
import { PAGE_MS, pagesOf, ROW_MS, type Page } from "../../pages";
import { logHelpers, logInC } from "../../logging";
import { PAGE_LOOK_MS } from "../../page";
import { PAGE_TURN, pageInC } from "../../page/sketch";
import { leftWords } from "../../rules";
import { logsOf } from "../../rules/resolve";
import { codeOf, sentBy } from "../../rules/print";
import { blinking, hold_ms, readers, settle_ms, watchedOf } from "../../sleep";
import { holdInC, napInSketch, turnInC } from "../../sleep/print";
import { rulesInC } from "../../rules/sketch";
import { place } from "../../own/marks";
import type { DriverPart, FirmwareFile, Task } from "../../types";
import { busSetup, head, indent, setups, type Ctx } from "./ctx";

/** Life on any board: its own light beats, and once a second one line tells what the parts say. */
function report(x: Ctx): string {
  const shows = x.parts.flatMap((p) => driverOf(p)?.sketch?.show?.(p) || []);
  const lines = shows.map(
    (s) => `line[0] = 0;\n${s}\nif (line[0]) {\n  Serial.print(line);\n  Serial.print(F("  "));\n}`,
  );
  return `${shows.length ? "char line[22];\n" : ""}${lines.join("\n")}${lines.length ? "\n" : ""}Serial.print(F("running "));
Serial.print(millis() / 1000);
Serial.println(F(" s"));`;
}

const showOf = (p: DriverPart) => driverOf(p)?.sketch?.show?.(p) ?? "";

/** A row of a display at a time: its title, and what the parts say. */
function rowTask({ p, title, first, rows, pages, says }: Page): { id: string } & Task {
  const cases = says.map((q, i) => `  case ${i}: {\n${indent(showOf(q), "    ")}\n    break;\n  }`);
  const turn =
    pages > 1
      ? `static uint8_t page = 0;
static uint32_t since = 0;
if (millis() - since >= ${PAGE_MS}UL) {
  since = millis();
  page = (page + 1) % ${pages};
}
`
      : "";
  const written = says.length
    ? `${turn}static uint8_t row = 0;
char line[22];
line[0] = 0;
switch (${pages > 1 ? `page * ${rows} + row` : "row"}) {
${cases.join("\n")}
}
${p.id}_line(${first} + row, line);
row = (row + 1) % ${rows};`
    : "";
  return {
    id: `${p.id}_rows`,
    every_ms: ROW_MS,
    body: [title === null ? "" : `${p.id}_line(0, "${title.slice(0, 21)}");`, written].filter(Boolean).join("\n"),
  };
}

/** The program that does something at once: tasks in turn, each in its own time; nothing in the loop waits. */
export function starter(x: Ctx): FirmwareFile {
  const light = x.light;
  const cards = logsOf(x.ruled.rules.map((r) => r.resolved));
  const told = x.ruled.rules.map((r) => r.resolved);
  const settle = settle_ms(told);
  const rules = rulesInC(told, undefined, x.nap && watchedOf(told));
  const page = x.online ? pageInC(x.family, x.title, x.parts) : null;
  const tasks: ({ id: string } & Task)[] = [
    ...x.parts.flatMap((p) => {
      const t = driverOf(p)?.sketch?.task?.(p, x.parts);
      return t ? [{ id: p.id, ...t }] : [];
    }),
    ...(light
      ? [
          {
            id: "heartbeat",
            every_ms: 500,
            body: `static bool on = false;\non = !on;\ndigitalWrite(${light.code}, on ? ${light.lit ? "HIGH : LOW" : "LOW : HIGH"});`,
          },
        ]
      : []),
    ...pagesOf(x.parts, (p) => showOf(p) !== "").map(rowTask),
    ...(rules
      ? [{ id: "rules", every_ms: 20, body: `${x.nap ? holdInC(hold_ms(x.nap, told, x.parts)) : ""}${rules.body}` }]
      : []),
    ...(page ? [{ id: "page", every_ms: PAGE_LOOK_MS, body: PAGE_TURN }] : []),
    { id: "report", every_ms: 1000, body: report(x) },
  ];
  const simple = houseRule(x.c.project, "programStyle") === "delays";
  const functions = tasks.flatMap((t) => ("turn" in t ? [] : [`static void ${t.id}_task() {\n${indent(t.body)}\n}\n`]));
  const calls = tasks.map((t) => {
    const next = `static uint32_t ${t.id}_next = 0;`;
    if ("turn" in t)
      return `${next}\nif (due(${t.id}_next, 0)) {\n  uint16_t pause = ${t.turn};\n  ${t.id}_next = millis() + pause;\n}`;
    return simple && t.id !== "report"
      ? `${t.id}_task();`
      : `${next}\nif (due(${t.id}_next, ${t.every_ms})) ${t.id}_task();`;
  });
  /** What only blinks is dark while it sleeps; what was read is no reading of the next round. */
  const off = [
    ...(light ? [`digitalWrite(${light.code}, ${light.lit ? "LOW" : "HIGH"});`] : []),
    ...readers(x.parts).flatMap((p) => `${codeOf(p, "sketch")!.fresh!(p)} = false;`),
    ...blinking(x.parts).map((p) => codeOf(p, "sketch")!.tell!(p, "0")),
  ];
  const state = [...x.parts.flatMap((p) => driverOf(p)?.sketch?.state?.(p) ?? []), rules?.state ?? ""];
  const text = `${head(x, "starter", sentBy(x.ruled.rules.map((r) => r.resolved)))}
${state.join("\n")}
${leftWords(x.ruled, "//")}
${[...logHelpers(cards), ...cards.map((p) => logInC(p, x.parts))].join("\n\n")}
${page ? `${page.globals}\n` : ""}${place("globals")}

// True when a task's time has come; ${simple ? "the others run at every turn" : "nothing in the loop ever waits"}.
static bool due(uint32_t &next, uint32_t every) {
  uint32_t now = millis();
  if ((int32_t)(now - next) < 0) return false;
  // From when it was due, so that being late does not add up; far behind, it begins anew.
  next += every;
  if ((int32_t)(now - next) >= 0) next = now + every;
  return true;
}

${x.nap ? napInSketch(x.family) : ""}
${functions.join("\n")}
void setup() {
${indent(setups(x))}
  Serial.begin(115200);
${light ? `  pinMode(${light.code}, OUTPUT);\n` : ""}${indent(busSetup(x))}
${page ? `${indent(page.begin)}\n` : ""}${indent(place("setup"))}
}

void loop() {
  // Runs without a console too; tells its plan as soon as one is opened.
  static bool told = false;
  if (!told && Serial) {
    told = true;
    Serial.println(F("YL1 plan ${x.host} id=${x.plan} info"));
  }
${indent(calls.join("\n"))}
${indent(place("loop"))}
${x.nap ? `${indent(turnInC(x.nap, off, settle ? `millis() - rules_busy >= ${settle}UL` : null))}\n` : ""}${simple ? "  delay(50);\n" : ""}}
`;
  return { path: "starter/starter.ino", text };
}
