import type { Driver, DriverPart } from "../types";
import { placeNames, pythonTables, sketchTables } from "./grids";

const scanSketch = (
  p: DriverPart,
) => `// Pulls one row low after the other; idle rows float, so that two rows never fight.
static bool ${p.id}_down(uint8_t k) {
  uint8_t row = ${p.id}_rows[${p.id}_place[k][0]];
  pinMode(row, OUTPUT);
  digitalWrite(row, LOW);
  delayMicroseconds(10);
  bool down = digitalRead(${p.id}_cols[${p.id}_place[k][1]]) == LOW;
  pinMode(row, INPUT);
  return down;
}
static uint8_t __attribute__((unused)) ${p.id}_pressed_now() {
  uint8_t n = 0;
  for (uint8_t k = 0; k < ${p.id}_count; k++) n += ${p.id}_down(k);
  return n;
}`;

const scanPython = (p: DriverPart) => `def ${p.id}_down(k):
    # Pulls the key's row low; idle rows float, so that two rows never fight.
    row = ${p.id}_rows[${p.id}_place[k][0]]
    row.init(Pin.OUT, value=0)
    time.sleep_us(10)
    down = ${p.id}_cols[${p.id}_place[k][1]].value() == 0
    row.init(Pin.IN)
    return down
`;

/** Keys on crossing lines, read by the address table of the plan; bounce is settled in code. */
export const keyGrid: Driver = {
  id: "key-grid",
  order: 42,
  proof: () => ({ kind: "watch", act: "press any key", by: 1, steady_ms: 0 }),
  sketch: {
    globals: (p) => `${sketchTables(p)}
${scanSketch(p)}`,
    setup: (p) => `for (uint8_t r : ${p.id}_rows) pinMode(r, INPUT);
for (uint8_t c : ${p.id}_cols) pinMode(c, INPUT_PULLUP);`,
    bringup: (p) => `{
  uint8_t pressed = 0;
  for (uint8_t k = 0; k < ${p.id}_count; k++)
    if (${p.id}_down(k)) pressed++;
  Serial.print(F("YL1 keys ${p.ref} count="));
  Serial.print(${p.id}_count);
  Serial.print(F(" pressed="));
  Serial.print(pressed);
  Serial.print(F(" want=0 "));
  if (pressed == 0) Serial.println(F("info"));
  else verdict(false);
}`,
    watch: (p) => `${p.id}_pressed_now()`,
    state: (p) => `static const char *const ${p.id}_name[] = {${placeNames(p)}};
static bool ${p.id}_pressed[${p.id}_count];
static uint8_t ${p.id}_same[${p.id}_count];`,
    task: (p) => ({
      every_ms: 5,
      body: `// A key counts after four looks that agree.
for (uint8_t k = 0; k < ${p.id}_count; k++) {
  bool down = ${p.id}_down(k);
  if (down == ${p.id}_pressed[k]) {
    ${p.id}_same[k] = 0;
  } else if (++${p.id}_same[k] >= 4) {
    ${p.id}_same[k] = 0;
    ${p.id}_pressed[k] = down;
    if (down) {
      Serial.print(${p.id}_name[k]);
      Serial.println(F(" pressed"));
    }
  }
}`,
    }),
  },
  micropython: {
    setup: (p) => `${pythonTables(p)}
${p.id}_name = (${placeNames(p)},)
for r in ${p.id}_rows:
    r.init(Pin.IN)
for c in ${p.id}_cols:
    c.init(Pin.IN, Pin.PULL_UP)
${p.id}_pressed = [False] * len(${p.id}_place)
${p.id}_same = [0] * len(${p.id}_place)

${scanPython(p)}`,
    bringup: (p) => `pressed = sum(1 for k in range(len(${p.id}_place)) if ${p.id}_down(k))
print("YL1 keys ${p.ref} count=%d pressed=%d want=0 %s" % (len(${p.id}_place), pressed, "info" if pressed == 0 else judge(False)))`,
    watch: (p) => `sum(1 for k in range(len(${p.id}_place)) if ${p.id}_down(k))`,
    task: (p) => ({
      every_ms: 5,
      body: `# A key counts after four looks that agree.
for k in range(len(${p.id}_place)):
    down = ${p.id}_down(k)
    if down == ${p.id}_pressed[k]:
        ${p.id}_same[k] = 0
    else:
        ${p.id}_same[k] += 1
        if ${p.id}_same[k] >= 4:
            ${p.id}_same[k] = 0
            ${p.id}_pressed[k] = down
            if down:
                print(${p.id}_name[k] + " pressed")`,
    }),
  },
};
