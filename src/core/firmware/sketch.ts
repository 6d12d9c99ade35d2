import type { Circuit } from "../circuit";
import { I2C_CLOCK_HZ } from "../circuit/buses";
import { fingerprint, houseRule } from "../project";
import { driverOf } from "./drivers";
import { STRIP_SEND } from "./drivers/ws2812b";
import { busClock, busNumber, codeText, driverParts, pinConstants, region } from "./pins";
import { targetOf } from "./target";
import type { DriverPart, FirmwareFile } from "./types";

const busName = (bus: string) => (bus === "i2c0" ? "Wire" : `Wire${busNumber(bus)}`);
const indent = (text: string, by = "  ") => text.replace(/^(?=.)/gm, by);

interface Ctx {
  c: Circuit;
  host: string;
  family: string;
  parts: DriverPart[];
  title: string;
  /** The plan's fingerprint: the program prints it, so that sheet and program can be compared. */
  plan: string;
}

const banner = (x: Ctx, what: string) =>
  `// ${x.title}: ${what}\n// Written from wiring plan ${x.plan}. Change the plan, not the pin numbers here.\n`;

function pinsFile(x: Ctx): FirmwareFile {
  const lines = pinConstants(x.c, x.host, "sketch").map(
    (p) => `constexpr uint8_t ${p.name} = ${p.code};  // ${p.hostPin}: ${p.says}`,
  );
  return { path: "pins.h", text: `${banner(x, "pins")}#pragma once\n#include <stdint.h>\n\n${lines.join("\n")}\n` };
}

const usesI2c = (x: Ctx) => x.parts.some((p) => p.bus);

/** Boards whose buses can sit on several pins must be told when the plan leaves the usual ones. */
function busSetup(x: Ctx): string {
  const lines = new Set<string>();
  for (const p of x.parts) {
    const g = p.inst.part.groups.find((k) => k.kind === "i2c");
    if (!g) continue;
    const board = x.c.netlist.instance(x.host)!.part;
    const usual = (label: string) =>
      board.pins.find((q) => q.label === p.printed(label))?.offers?.some((o) => o.kind === "i2c" && o.usual);
    if (!usual(g.pins.sda!)) lines.add(`${p.bus}.setSDA(${p.pin(g.pins.sda!)});`);
    if (!usual(g.pins.scl!)) lines.add(`${p.bus}.setSCL(${p.pin(g.pins.scl!)});`);
    lines.add(`${p.bus}.begin();`);
    // The core's own clock is the usual one.
    const hz = busClock(x.c, x.host, p.bus, busName);
    if (hz !== I2C_CLOCK_HZ) lines.add(`${p.bus}.setClock(${hz});`);
    if (x.family === "avr")
      lines.add(`${p.bus}.setWireTimeout(25000, true);  // a stuck bus must not stop the program`);
  }
  return [...lines].join("\n");
}

function head(x: Ctx, what: string): string {
  const drivers = [...new Set(x.parts.flatMap((p) => driverOf(p) ?? []))];
  const includes = new Set(["<Arduino.h>"]);
  if (usesI2c(x)) includes.add("<Wire.h>");
  for (const d of drivers)
    for (const i of d.sketch?.includes ?? []) if (x.family === "avr" || !i.startsWith("<avr/")) includes.add(i);
  const helpers = drivers
    .flatMap((d) => d.sketch?.helpers ?? [])
    .map((h) => h.replace("@STRIP_SEND@", STRIP_SEND[x.family] ?? ""));
  const globals = x.parts.flatMap((p) => driverOf(p)?.sketch?.globals?.(p) ?? []);
  return [
    banner(x, what),
    [...includes].map((i) => `#include ${i}`).join("\n"),
    '#include "pins.h"\n',
    ...helpers.map((h) => `${h}\n`),
    ...globals,
  ].join("\n");
}

function scan(x: Ctx): string {
  const buses = new Map<string, DriverPart[]>();
  for (const p of x.parts) if (p.address) buses.set(p.bus, [...(buses.get(p.bus) ?? []), p]);
  return [...buses]
    .map(([bus, list]) => {
      const want = list.map((p) => p.address!);
      return `{
  uint8_t hits = 0;
  Serial.print(F("YL1 scan ${x.host} bus=${bus} found="));
  for (uint8_t a = 8; a < 120; a++) {
    ${bus}.beginTransmission(a);
    if (${bus}.endTransmission() != 0) continue;
    Serial.print(F("0x"));
    Serial.print(a, HEX);
    Serial.print(',');
    if (${want.map((a) => `a == ${a}`).join(" || ")}) hits++;
  }
  Serial.print(F(" want=${want.join(",")} "));
  verdict(hits == ${want.length});
}`;
    })
    .join("\n");
}

function bringup(x: Ctx): FirmwareFile {
  const led = x.family === "avr" || x.family === "rp2040" ? "LED_BUILTIN" : null;
  const onPlan = x.c.netlist.bindings.some((b) => b.host === x.host && b.hostPin === "D13");
  const blink = led && !onPlan;
  const sorted = [...x.parts].sort((a, b) => (driverOf(a)?.order ?? 99) - (driverOf(b)?.order ?? 99));
  const setups = x.parts.flatMap((p) => (driverOf(p)?.usesI2c ? [] : (driverOf(p)?.sketch?.setup?.(p) ?? [])));
  const tests = sorted.flatMap((p) => driverOf(p)?.sketch?.bringup?.(p) ?? []);
  const text = `${head(x, "bring-up, proves each part by itself")}
static uint8_t passed = 0, failed = 0;
static void __attribute__((unused)) verdict(bool ok) {
  Serial.println(ok ? F("ok") : F("fail"));
  if (ok) passed++;
  else failed++;
}

void setup() {
  Serial.begin(115200);
  uint32_t start = millis();
  while (!Serial && millis() - start < 2000) {
  }
  Serial.println(F("YL1 hello ${x.host} chip=${codeText(x.c.netlist.instance(x.host)!.part.board!.chip)} plan=${x.plan} info"));
${blink ? `  pinMode(${led}, OUTPUT);\n  for (uint8_t i = 0; i < 6; i++) {\n    digitalWrite(${led}, i & 1 ? LOW : HIGH);\n    delay(100);\n  }\n  Serial.println(F("YL1 gpio ${x.host} pin=LED blink=3 info"));\n` : ""}${indent(setups.join("\n"))}
${indent(busSetup(x))}
${indent(scan(x))}
${indent(tests.join("\n"))}
  Serial.print(F("YL1 done parts="));
  Serial.print(passed + failed);
  Serial.print(F(" ok="));
  Serial.print(passed);
  Serial.print(F(" fail="));
  Serial.print(failed);
  Serial.println(failed ? F(" fail") : F(" ok"));
}

void loop() {
}
`;
  return { path: "bringup/bringup.ino", text };
}

function starter(x: Ctx): FirmwareFile {
  const setups = x.parts.flatMap((p) => driverOf(p)?.sketch?.setup?.(p) ?? []);
  const tasks = x.parts.flatMap((p) => {
    const t = driverOf(p)?.sketch?.task?.(p, x.parts);
    return t ? [{ p, ...t }] : [];
  });
  const simple = houseRule(x.c.project, "programStyle") === "delays";
  const functions = tasks.map((t) => `static void ${t.p.id}_task() {\n${indent(t.body)}\n}\n`);
  const calls = tasks.map((t) =>
    simple
      ? `${t.p.id}_task();`
      : `static uint32_t ${t.p.id}_next = 0;\nif (due(${t.p.id}_next, ${t.every_ms})) ${t.p.id}_task();`,
  );
  const due = simple
    ? ""
    : `
// True when a task's time has come; nothing in the loop ever waits.
${tasks.length ? "" : "__attribute__((unused)) "}static bool due(uint32_t &next, uint32_t every) {
  uint32_t now = millis();
  if ((int32_t)(now - next) < 0) return false;
  next = now + every;
  return true;
}
`;
  const own = (name: string) => `// >>> your code: ${name}\n${region(x.c, "sketch", name)}// <<< your code: ${name}`;
  const state = x.parts.flatMap((p) => driverOf(p)?.sketch?.state?.(p) ?? []);
  const text = `${head(x, "starter")}
${state.join("\n")}
${own("globals")}

${functions.join("\n")}${due}
void setup() {
  Serial.begin(115200);
  Serial.println(F("YL1 plan ${x.host} id=${x.plan} info"));
${indent(busSetup(x))}
${indent(setups.join("\n"))}
${indent(own("setup"))}
}

void loop() {
${indent(calls.join("\n"))}
${indent(own("loop"))}
${simple ? "  delay(50);\n" : ""}}
`;
  return { path: "starter/starter.ino", text };
}

function readme(x: Ctx): FirmwareFile {
  const board = x.c.netlist.instance(x.host)!.part.board!;
  return {
    path: "UPLOAD.md",
    text: `# Uploading: ${x.title}

Plan ${x.plan}: the program prints these letters when it starts; the sheet that was wired carries the same.

${board.upload.map((u, i) => `${i + 1}. ${u}`).join("\n")}

Upload \`bringup\` first and open the serial monitor at 115200 baud: every part reports by itself, one line each.
When the last line says \`fail=0\`, upload \`starter\`. Code between the \`your code\` marks stays yours.
`,
  };
}

/** C++ sketches for the boards' core API: bring-up and starter, each with its own copy of the pins file. */
export const sketch = targetOf({
  id: "sketch",
  name: "C++ sketch",
  says: "bringup.ino, starter.ino and pins.h for the board's core API; no library to install",
  unfit: ({ board }) => (board!.targets.sketch ? null : `no sketch core for ${board!.chip} here`),
  files: (c, host) => {
    const x: Ctx = {
      c,
      host,
      family: c.netlist.instance(host)!.part.board!.family,
      parts: driverParts(c, host, "sketch", busName),
      title: codeText(c.project.title) || "Project",
      plan: fingerprint(c.project),
    };
    const pins = pinsFile(x);
    return [
      { ...pins, path: "bringup/pins.h" },
      bringup(x),
      { ...pins, path: "starter/pins.h" },
      starter(x),
      readme(x),
    ].map((f) => ({ path: f.path, text: tidy(f.text) }));
  },
});

const tidy = (text: string) =>
  `${text
    .replace(/[ \t]+$/gm, "")
    .replace(/\n{3,}/g, "\n\n")
    .trimEnd()}\n`;
