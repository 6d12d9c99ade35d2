import type { Driver, DriverPart } from "../types";
import { pythonTables, sketchTables } from "./grids";

const showSketch = (
  p: DriverPart,
) => `// Lights one row: its row high, columns of lit lights low. Called for one row after the other.
static bool ${p.id}_on[${p.id}_count];
static void ${p.id}_show(uint8_t row) {
  for (uint8_t r : ${p.id}_rows) digitalWrite(r, LOW);
  for (uint8_t c : ${p.id}_cols) digitalWrite(c, HIGH);
  for (uint8_t k = 0; k < ${p.id}_count; k++)
    if (${p.id}_place[k][0] == row && ${p.id}_on[k]) digitalWrite(${p.id}_cols[${p.id}_place[k][1]], LOW);
  digitalWrite(${p.id}_rows[row], HIGH);
}`;

const showPython = (p: DriverPart) => `def ${p.id}_show(row):
    # Lights one row: its row high, columns of lit lights low.
    for r in ${p.id}_rows:
        r.value(0)
    for c in ${p.id}_cols:
        c.value(1)
    for k, (a, b) in enumerate(${p.id}_place):
        if a == row and ${p.id}_on[k]:
            ${p.id}_cols[b].value(0)
    ${p.id}_rows[row].value(1)
`;

/** Lights on crossing lines, a row at a time, by the address table of the plan. */
export const lightGrid: Driver = {
  id: "light-grid",
  order: 43,
  sketch: {
    globals: (p) => `${sketchTables(p)}
${showSketch(p)}`,
    setup: (p) => `for (uint8_t r : ${p.id}_rows) pinMode(r, OUTPUT);
for (uint8_t c : ${p.id}_cols) {
  digitalWrite(c, HIGH);
  pinMode(c, OUTPUT);
}`,
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
      body: `static uint8_t row = 0;
// For a start one light after the other: set ${p.id}_on[] to what you want.
for (uint8_t k = 0; k < ${p.id}_count; k++) ${p.id}_on[k] = (millis() / 300) % ${p.id}_count == k;
${p.id}_show(row);
row = (row + 1) % (sizeof ${p.id}_rows);`,
    }),
  },
  micropython: {
    setup: (p) => `${pythonTables(p)}
${p.id}_on = [False] * len(${p.id}_place)
for r in ${p.id}_rows:
    r.init(Pin.OUT, value=0)
for c in ${p.id}_cols:
    c.init(Pin.OUT, value=1)
${p.id}_row = [0]

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
${p.id}_show(${p.id}_row[0])
${p.id}_row[0] = (${p.id}_row[0] + 1) % len(${p.id}_rows)`,
    }),
  },
};
