import { modeInC, pinInPython, putInC } from "../pins-in-code";
import type { Driver, DriverPart } from "../types";

/** Levels of lit and dark, as the language writes them: a light between supply and pin is lit while the pin is low. */
const sketchLevel = (p: DriverPart, lit: boolean) => (lit !== p.activeLow ? "HIGH" : "LOW");
const value = (p: DriverPart, lit: boolean) => (lit !== p.activeLow ? 1 : 0);

/** An LED on an output pin, lit by a high or by a low. */
export const led: Driver = {
  id: "led",
  order: 40,
  proof: () => ({ kind: "seen", question: "Did it blink three times?" }),
  lively: true,
  takes: () => ({ word: "on", unit: "", digits: 0, range: [0, 1], rest: 0, on: 1 }),
  rules: {
    sketch: {
      tell: (p, v) => putInC(p, p.leg, `${v} ? ${sketchLevel(p, true)} : ${sketchLevel(p, false)}`),
    },
    micropython: { tell: (p, v) => `${p.id}.value(${value(p, true)} if ${v} else ${value(p, false)})` },
  },
  sketch: {
    setup: (p) =>
      p.through?.has(p.leg)
        ? ""
        : `${p.activeLow ? `${putInC(p, p.leg, "HIGH")}\n` : ""}${modeInC(p, p.leg, "OUTPUT")}`,
    bringup: (p) => `for (uint8_t i = 0; i < 3; i++) {
  ${putInC(p, p.leg, sketchLevel(p, true))}
  delay(150);
  ${putInC(p, p.leg, sketchLevel(p, false))}
  delay(150);
}
Serial.println(F("YL1 gpio ${p.ref} pin=${p.printed(p.leg)} blink=3 info"));`,
    state: (p) => (p.ruled ? "" : `static bool ${p.id}_on = false;`),
    // Without a rule it blinks.
    task: (p) =>
      p.ruled
        ? null
        : {
            every_ms: 500,
            body: `${p.id}_on = !${p.id}_on;\n${putInC(p, p.leg, `${p.id}_on ? ${sketchLevel(p, true)} : ${sketchLevel(p, false)}`)}`,
          },
  },
  micropython: {
    setup: (p) => `${p.id} = ${pinInPython(p, p.leg, `Pin.OUT, value=${value(p, false)}`, value(p, false))}`,
    bringup: (p) => `for _ in range(3):
    ${p.id}.value(${value(p, true)})
    time.sleep_ms(150)
    ${p.id}.value(${value(p, false)})
    time.sleep_ms(150)
print("YL1 gpio ${p.ref} pin=${p.printed(p.leg)} blink=3 info")`,
    task: (p) => (p.ruled ? null : { every_ms: 500, body: `${p.id}.value(1 - ${p.id}.value())` }),
  },
};
