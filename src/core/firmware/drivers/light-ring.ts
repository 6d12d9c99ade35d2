import { lightsDriver } from "./lights";

/** Lights between every ordered pair of lines: one line drives, some sink, all others are let go. */
export const lightRing = lightsDriver({
  id: "light-ring",
  order: 44,
  sketch: (p) => `// Lights of one driving line: that line high, lines of lit lights low, all others let go.
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
}`,
  python: (p) => `def ${p.id}_show(line):
    # Lights of one driving line: that line high, lines of lit lights low, all others let go.
    for r in ${p.id}_rows:
        r.init(Pin.IN)
    lit = [b for k, (a, b) in enumerate(${p.id}_place) if a == line and ${p.id}_on[k]]
    for b in lit:
        ${p.id}_rows[b].init(Pin.OUT, value=0)
    if lit:
        ${p.id}_rows[line].init(Pin.OUT, value=1)
`,
  setupSketch: () => "",
  setupPython: (p) => `for r in ${p.id}_rows:
    r.init(Pin.IN)`,
});
