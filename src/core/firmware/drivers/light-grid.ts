import { lightsDriver } from "./lights";

/** Lights on crossing lines, a row at a time. */
export const lightGrid = lightsDriver({
  id: "light-grid",
  order: 43,
  sketch: (
    p,
  ) => `// Lights one row: its row high, columns of lit lights low. Idle rows float: no light sees its voltage backwards.
static void ${p.id}_show(uint8_t row) {
  for (uint8_t r : ${p.id}_rows) pinMode(r, INPUT);
  for (uint8_t c : ${p.id}_cols) digitalWrite(c, HIGH);
  for (uint8_t k = 0; k < ${p.id}_count; k++)
    if (${p.id}_place[k][0] == row && ${p.id}_on[k]) digitalWrite(${p.id}_cols[${p.id}_place[k][1]], LOW);
  digitalWrite(${p.id}_rows[row], HIGH);
  pinMode(${p.id}_rows[row], OUTPUT);
}`,
  python: (p) => `def ${p.id}_show(row):
    # Lights one row: its row high, columns of lit lights low. Idle rows float: no light sees its voltage backwards.
    for r in ${p.id}_rows:
        r.init(Pin.IN)
    for c in ${p.id}_cols:
        c.value(1)
    for k, (a, b) in enumerate(${p.id}_place):
        if a == row and ${p.id}_on[k]:
            ${p.id}_cols[b].value(0)
    ${p.id}_rows[row].init(Pin.OUT, value=1)
`,
  setupSketch: (p) => `for (uint8_t r : ${p.id}_rows) pinMode(r, INPUT);
for (uint8_t c : ${p.id}_cols) {
  digitalWrite(c, HIGH);
  pinMode(c, OUTPUT);
}`,
  setupPython: (p) => `for r in ${p.id}_rows:
    r.init(Pin.IN)
for c in ${p.id}_cols:
    c.init(Pin.OUT, value=1)`,
});
