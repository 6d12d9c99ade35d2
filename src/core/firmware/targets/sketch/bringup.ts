import { codeText } from "../../pins";
import { driverOf } from "../../drivers";
import { proofOf } from "../../proof";
import type { DriverPart, FirmwareFile } from "../../types";
import { busSetup, head, indent, setups, type Ctx } from "./ctx";

function scan(x: Ctx): string {
  const buses = new Map<string, DriverPart[]>();
  // What hangs on a branch does not answer while none is open.
  for (const p of x.parts) if (p.address && p.bus && !p.via) buses.set(p.bus, [...(buses.get(p.bus) ?? []), p]);
  return [...buses]
    .map(([bus, list]) => {
      const want = [...new Set(list.map((p) => p.address!))];
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
  Serial.println(hits == ${want.length} ? F("ok") : F("fail"));
}`;
    })
    .join("\n");
}

/** A switch over the parts that have something, for a function whose argument is the part's place. */
function cases(x: Ctx, of: (p: DriverPart) => string | undefined): string {
  const lines = x.parts.flatMap((p, i) => {
    const text = of(p);
    return text ? [`case ${i}: ${text}`] : [];
  });
  return lines.length ? `switch (i) {\n${indent(lines.join("\n"))}\n}\n` : "(void)i;\n";
}

/** Every part by itself, in order of supply, bus, identity, function; what a program can't know is asked. */
export function bringup(x0: Ctx): FirmwareFile {
  const parts = [...x0.parts].sort((a, b) => (driverOf(a)?.order ?? 99) - (driverOf(b)?.order ?? 99));
  const x = { ...x0, parts };
  const n = parts.length;
  const proofs = parts.map(proofOf);
  const watches = parts.map((p, i) => (proofs[i]!.kind === "watch" ? driverOf(p)?.sketch?.watch?.(p) : undefined));
  const light = x.light;
  const tests = parts
    .map(
      (p, i) => `static void test_${i}() {  // ${p.ref} ${p.label}
${indent(driverOf(p)?.sketch?.bringup?.(p) || `Serial.println(F("YL1 part ${p.ref} wired=1 info"));`)}
}
`,
    )
    .join("\n");
  const tell = cases(x, (p) => {
    const proof = proofs[parts.indexOf(p)]!;
    if (proof.kind === "seen" && proof.careful)
      return `if (shown[i]) Serial.println(F("YL1 ask ${p.ref} ${proof.question} y or n info")); else Serial.println(F("YL1 ask ${p.ref} ${proof.careful} then type ${parts.indexOf(p) + 1} and Enter info")); return;`;
    if (proof.kind === "seen") return `Serial.println(F("YL1 ask ${p.ref} ${proof.question} y or n info")); return;`;
    if (proof.kind === "watch") return `Serial.println(F("YL1 ask ${p.ref} ${proof.act} info")); return;`;
    if (proof.kind === "unproven") return `Serial.println(F("YL1 open ${p.ref} ${proof.why} info")); return;`;
    return undefined;
  });
  const careful = proofs.some((q) => q.kind === "seen" && q.careful);
  const seen = cases(x, (p) => {
    const proof = proofs[parts.indexOf(p)]!;
    return proof.kind === "seen" ? `return ${proof.careful ? "shown[i]" : "true"};` : undefined;
  });
  const named = cases(x, (p) => `Serial.print(F("${p.ref}")); return;`);
  const text = `${head(x, "bring-up, proves each part by itself")}
static const uint8_t PARTS = ${n};
// What is known of each part: 0 nothing yet, 1 it works, 2 it does not.
static uint8_t known[PARTS + 1];
static uint8_t turn = 0;
${
  careful
    ? `// What may move or switch something is only shown when it is asked for by its number.
static bool alone = false;
static bool shown[PARTS + 1];
`
    : ""
}
static void __attribute__((unused)) verdict(bool ok) {
  Serial.println(ok ? F("ok") : F("fail"));
  if (!ok) known[turn] = 2;
  else if (known[turn] == 0) known[turn] = 1;
}

${tests}
static void test(uint8_t i) {
  turn = i;
  known[i] = 0;
${indent(cases(x, (p) => `test_${parts.indexOf(p)}(); break;`))}}

static void __attribute__((unused)) name(uint8_t i) {
${indent(named)}}

// What a person can do to prove the part.
static void tell(uint8_t i) {
${indent(tell)}}

// Whether a person's eyes prove it.
static bool seen(uint8_t i) {
${indent(seen)}  return false;
}

// Changes when the part is used; always 0 for a part that needs no watching.
static long watch(uint8_t i) {
${indent(cases(x, (p) => (watches[parts.indexOf(p)] ? `return ${watches[parts.indexOf(p)]};` : undefined)))}  return 0;
}

static void summary() {
  uint8_t count[3] = {0, 0, 0};
  for (uint8_t i = 0; i < PARTS; i++) count[known[i]]++;
  Serial.print(F("YL1 done parts="));
  Serial.print(PARTS);
  Serial.print(F(" proven="));
  Serial.print(count[1]);
  Serial.print(F(" failed="));
  Serial.print(count[2]);
  Serial.print(F(" unproven="));
  Serial.print(count[0]);
  Serial.println(count[2] ? F(" fail") : count[0] ? F(" info") : F(" ok"));
}

static long first[PARTS + 1];
// Since when the part stands elsewhere than at first; 0: it does not.
static uint32_t since[PARTS + 1];

static void run() {
  Serial.println(F("YL1 hello ${x.host} chip=${codeText(x.c.netlist.instance(x.host)!.part.board!.chip)} plan=${x.plan} info"));
${indent(scan(x))}
  for (uint8_t i = 0; i < PARTS; i++) test(i);
  for (uint8_t i = 0; i < PARTS; i++) {
    first[i] = watch(i);
    if (known[i] == 0) tell(i);
  }
  summary();
}

void setup() {
${indent(setups(x))}
  Serial.begin(115200);
${light ? `  pinMode(${light.code}, OUTPUT);\n` : ""}${
    x.lateConsole
      ? `  // Waits for whoever opens the console, however late${light ? ", with its own light blinking" : ""}.
  while (!Serial && !Serial.available()) {
${light ? `    digitalWrite(${light.code}, millis() / 200 % 2);\n` : ""}    delay(10);
  }
`
      : ""
  }${indent(busSetup(x))}
  run();
}

// Type r for all again, a part's number and Enter for that part, y or n to what is asked.
void loop() {
  static uint8_t asked = PARTS;
  static uint8_t number = 0;
${light ? `  digitalWrite(${light.code}, millis() / 500 % 2 ? ${light.lit ? "HIGH : LOW" : "LOW : HIGH"});\n` : ""}  static const uint16_t steady[PARTS + 1] = {${proofs.map((p) => (p.kind === "watch" ? p.steady_ms : 0)).join(", ")}${n ? ", " : ""}0};
  static const long enough[PARTS + 1] = {${proofs.map((p) => (p.kind === "watch" ? p.by : 0)).join(", ")}${n ? ", " : ""}0};
  for (uint8_t i = 0; i < PARTS; i++) {
    if (known[i] != 0 || enough[i] == 0) continue;
    long off = watch(i) - first[i];
    if (off < enough[i] && off > -enough[i]) {
      since[i] = 0;
      continue;
    }
    if (since[i] == 0) since[i] = millis() | 1;
    if (millis() - since[i] < steady[i]) continue;
    turn = i;
    Serial.print(F("YL1 moved "));
    name(i);
    Serial.print(' ');
    verdict(true);
    summary();
  }
  if (asked == PARTS || known[asked] != 0)
    for (asked = 0; asked < PARTS && (known[asked] != 0 || !seen(asked)); asked++) {
    }
  if (!Serial.available()) return;
  char key = Serial.read();
  if (key == 'r') {
    run();
  } else if ((key == 'y' || key == 'n') && asked < PARTS) {
    turn = asked;
    Serial.print(F("YL1 seen "));
    name(asked);
    Serial.print(' ');
    verdict(key == 'y');
    summary();
  } else if (key >= '0' && key <= '9') {
    number = number * 10 + (key - '0');
  } else if (number > 0) {
    if (number <= PARTS) {
${careful ? "      alone = true;\n" : ""}      test(number - 1);
${careful ? "      alone = false;\n" : ""}      first[number - 1] = watch(number - 1);
      if (known[number - 1] == 0) tell(number - 1);
      summary();
    }
    number = 0;
  }
}
`;
  return { path: "bringup/bringup.ino", text };
}
