import type { Driver, DriverPart } from "../types";
import { pythonTables, sketchTables } from "./grids";

/** What differs between groups of lights that share lines: how one driving line is shown. */
interface Lights {
  id: string;
  order: number;
  /** `ID_show(line)` of the sketch and of MicroPython. */
  sketch(p: DriverPart): string;
  python(p: DriverPart): string;
  setupSketch(p: DriverPart): string;
  setupPython(p: DriverPart): string;
}

/** A driver for lights on shared lines: one driving line after the other, a millisecond each, by the plan's address table. */
export const lightsDriver = (o: Lights): Driver => ({
  id: o.id,
  order: o.order,
  proof: () => ({ kind: "seen", question: "Did every light come on, one after the other?" }),
  sketch: {
    globals: (p) => `${sketchTables(p)}
static bool ${p.id}_on[${p.id}_count];
${o.sketch(p)}`,
    setup: o.setupSketch,
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
${o.setupPython(p)}

${o.python(p)}`,
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
});
