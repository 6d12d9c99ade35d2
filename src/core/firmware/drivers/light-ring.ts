import type { Driver, DriverPart } from "../types";
import { pythonTables, sketchTables } from "./grids";

const showSketch = (
  p: DriverPart,
) => `// Lights of one driving line: that line high, lines of lit lights low, all others let go.
static bool ${p.id}_on[${p.id}_count];
static void ${p.id}_show(uint8_t line) {
  for (uint8_t r : ${p.id}_rows) pinMode(r, INPUT);
  bool any = false;
  for (uint8_t k = 0; k < ${p.id}_count; k++)
    if (${p.id}_place[k][0] == line && ${p.id}_on[k]) {
      uint8_t sink = ${p.id}_rows[${p.id}_place[k][1]];
      digitalWrite(sink, LOW);
      pinMode(sink, OUTPUT);
      any = true;
    }
  if (!any) return;
  pinMode(${p.id}_rows[line], OUTPUT);
  digitalWrite(${p.id}_rows[line], HIGH);
}`;

const showPython = (p: DriverPart) => `def ${p.id}_show(line):
    # Lights of one driving line: that line high, lines of lit lights low, all others let go.
    for r in ${p.id}_rows:
        r.init(Pin.IN)
    lit = [b for k, (a, b) in enumerate(${p.id}_place) if a == line and ${p.id}_on[k]]
    for b in lit:
        ${p.id}_rows[b].init(Pin.OUT, value=0)
    if lit:
        ${p.id}_rows[line].init(Pin.OUT, value=1)
`;

/** Lights between every ordered pair of lines, by the address table of the plan. */
export const lightRing: Driver = {
  id: "light-ring",
  order: 44,
  sketch: {
    globals: (p) => `${sketchTables(p)}
${showSketch(p)}`,
    bringup: (p) => `for (uint8_t k = 0; k < ${p.id}_count; k++) {
  ${p.id}_on[k] = true;
  ${p.id}_show(${p.id}_place[k][0]);
  delay(120);
  ${p.id}_on[k] = false;
}
${p.id}_show(0);
Serial.print(F("YL1 lights ${p.ref} count="));
Serial.print(${p.id}_count);
Serial.println(F(" walked=1 info"));`,
    task: (p) => ({
      every_ms: 1,
      body: `static uint8_t line = 0;
// For a start one light after the other: set ${p.id}_on[] to what you want.
for (uint8_t k = 0; k < ${p.id}_count; k++) ${p.id}_on[k] = (millis() / 300) % ${p.id}_count == k;
${p.id}_show(line);
line = (line + 1) % (sizeof ${p.id}_rows);`,
    }),
  },
  micropython: {
    setup: (p) => `${pythonTables(p)}
${p.id}_on = [False] * len(${p.id}_place)
${p.id}_line = [0]

${showPython(p)}`,
    bringup: (p) => `for k in range(len(${p.id}_place)):
    ${p.id}_on[k] = True
    ${p.id}_show(${p.id}_place[k][0])
    time.sleep_ms(120)
    ${p.id}_on[k] = False
${p.id}_show(0)
print("YL1 lights ${p.ref} count=%d walked=1 info" % len(${p.id}_place))`,
    task: (p) => ({
      every_ms: 1,
      body: `# For a start one light after the other: set ${p.id}_on to what you want.
for k in range(len(${p.id}_place)):
    ${p.id}_on[k] = (time.ticks_ms() // 300) % len(${p.id}_place) == k
${p.id}_show(${p.id}_line[0])
${p.id}_line[0] = (${p.id}_line[0] + 1) % len(${p.id}_rows)`,
    }),
  },
};
