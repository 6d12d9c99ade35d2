import { lookInC, modeInC, pinInPython } from "../pins-in-code";
import { STEADY_MS, type Driver, type DriverPart } from "../types";

const idle = (p: DriverPart) => (p.activeLow ? 1 : 0);

/** How often the programs look at a contact, and for how long a level has to stand until it counts, ms. */
export const LOOKS_MS = 5;
export const SETTLES_MS = 20;

/** A contact on an input pin; bounce is settled in code. */
export const button: Driver = {
  id: "button",
  order: 41,
  proof: (p) => ({ kind: "watch", act: "press it", by: 1, steady_ms: p.pull === "internal" ? 0 : STEADY_MS }),
  gives: () => [{ name: "pressed", word: "pressed", unit: "", digits: 0, room: [0, 1] }],
  rules: {
    sketch: { value: (p) => `${p.id}_pressed` },
    micropython: { value: (p) => `${p.id}_state[2]` },
  },
  sketch: {
    setup: (p) => modeInC(p, p.leg, p.pull === "internal" ? "INPUT_PULLUP" : "INPUT"),
    bringup: (p) => `{
  int level = ${lookInC(p, p.leg, idle(p))};
  Serial.print(F("YL1 gpio ${p.ref} pin=${p.printed(p.leg)} level="));
  Serial.print(level);
  Serial.print(F(" want=${idle(p)} "));
  if (level == ${idle(p)}) Serial.println(F("info"));
  else verdict(false);
}`,
    watch: (p) => lookInC(p, p.leg, idle(p)),
    state: (p) => `static bool ${p.id}_pressed = false;
static uint8_t ${p.id}_last = ${idle(p)};
static uint32_t ${p.id}_since = 0;`,
    task: (p) => ({
      every_ms: LOOKS_MS,
      body: `uint8_t level = ${lookInC(p, p.leg, idle(p))};
if (level != ${p.id}_last) {
  ${p.id}_last = level;
  ${p.id}_since = millis();
} else if (millis() - ${p.id}_since >= ${SETTLES_MS} && ${p.id}_pressed != (level == ${1 - idle(p)})) {
  ${p.id}_pressed = level == ${1 - idle(p)};
  if (${p.id}_pressed) Serial.println(F("${p.label} pressed"));
}`,
    }),
    show: (p) => `snprintf(line, sizeof line, "%s", ${p.id}_pressed ? "${p.label} pressed" : "");`,
  },
  micropython: {
    setup: (p) => `${p.id} = ${pinInPython(p, p.leg, `Pin.IN${p.pull === "internal" ? ", Pin.PULL_UP" : ""}`, idle(p))}
${p.id}_state = [${idle(p)}, time.ticks_ms(), False]`,
    bringup: (p) => `level = ${p.id}.value()
print("YL1 gpio ${p.ref} pin=${p.printed(p.leg)} level=%d want=${idle(p)} %s" % (level, "info" if level == ${idle(p)} else judge(False)))`,
    watch: (p) => `${p.id}.value()`,
    task: (p) => ({
      every_ms: LOOKS_MS,
      body: `level = ${p.id}.value()
if level != ${p.id}_state[0]:
    ${p.id}_state[0] = level
    ${p.id}_state[1] = time.ticks_ms()
elif time.ticks_diff(time.ticks_ms(), ${p.id}_state[1]) >= ${SETTLES_MS} and ${p.id}_state[2] != (level == ${1 - idle(p)}):
    ${p.id}_state[2] = level == ${1 - idle(p)}
    if ${p.id}_state[2]:
        print("${p.label} pressed")`,
    }),
    show: (p) => `"${p.label} pressed" if ${p.id}_state[2] else ""`,
  },
};
