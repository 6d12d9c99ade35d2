import { BRIGHTNESS, unfitDimmed } from "../dimmed";
import { modeInC, pinInPython, putInC, shareInC } from "../pins-in-code";
import type { Driver, DriverPart } from "../types";

/** Levels of lit and dark, as the language writes them: a light between supply and pin is lit while the pin is low. */
const sketchLevel = (p: DriverPart, lit: boolean) => (lit !== p.activeLow ? "HIGH" : "LOW");
const value = (p: DriverPart, lit: boolean) => (lit !== p.activeLow ? 1 : 0);

/** As bright as this, in hundredths, as a byte of pulses; a light at the supply is lit by their gaps. */
const inC = (p: DriverPart, percent: string) => {
  const byte = `(${percent}) * 255L / 100`;
  return shareInC(p, p.leg, `(uint8_t)(${p.activeLow ? `255 - ${byte}` : byte})`);
};
const inPython = (p: DriverPart, percent: string) => {
  const share = `${percent} * 65535 // 100`;
  return `${p.id}_pwm.duty_u16(${p.activeLow ? `65535 - ${share}` : share})`;
};
const litInC = (p: DriverPart, lit: boolean) =>
  p.dims ? inC(p, lit ? "100" : "0") : putInC(p, p.leg, sketchLevel(p, lit));
const litInPython = (p: DriverPart, lit: boolean) =>
  p.dims ? inPython(p, lit ? "100" : "0") : `${p.id}.value(${value(p, lit)})`;
const isLane = (p: DriverPart) => p.through?.get(p.leg)?.lane === true;
const DIM_HZ = 1000;

/** An LED on an output pin, lit by a high or by a low; by pulses where a rule says how bright. */
export const led: Driver = {
  id: "led",
  order: 40,
  proof: () => ({ kind: "seen", question: "Did it blink three times?" }),
  lively: true,
  takes: (p) => (p.dims ? BRIGHTNESS : { word: "on", unit: "", digits: 0, range: [0, 1], rest: 0, on: 1 }),
  unfit: (p) => unfitDimmed(p),
  rules: {
    sketch: {
      tell: (p, v) =>
        p.dims ? inC(p, v) : putInC(p, p.leg, `${v} ? ${sketchLevel(p, true)} : ${sketchLevel(p, false)}`),
    },
    micropython: {
      tell: (p, v) => (p.dims ? inPython(p, v) : `${p.id}.value(${value(p, true)} if ${v} else ${value(p, false)})`),
    },
  },
  sketch: {
    setup: (p) =>
      p.through?.has(p.leg)
        ? ""
        : `${p.activeLow ? `${putInC(p, p.leg, "HIGH")}\n` : ""}${modeInC(p, p.leg, "OUTPUT")}`,
    bringup: (p) => `for (uint8_t i = 0; i < 3; i++) {
  ${litInC(p, true)}
  delay(150);
  ${litInC(p, false)}
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
    importsFor: (p) => (p.dims && !isLane(p) ? ["from machine import PWM"] : []),
    setup: (p) =>
      [
        `${p.id} = ${pinInPython(p, p.leg, `Pin.OUT, value=${value(p, false)}`, value(p, false))}`,
        ...(p.dims
          ? [
              isLane(p)
                ? `${p.id}_pwm = ${p.id}`
                : `${p.id}_pwm = PWM(${p.id}, freq=${DIM_HZ}, duty_u16=${p.activeLow ? 65535 : 0})`,
            ]
          : []),
      ].join("\n"),
    bringup: (p) => `for _ in range(3):
    ${litInPython(p, true)}
    time.sleep_ms(150)
    ${litInPython(p, false)}
    time.sleep_ms(150)
print("YL1 gpio ${p.ref} pin=${p.printed(p.leg)} blink=3 info")`,
    task: (p) => (p.ruled ? null : { every_ms: 500, body: `${p.id}.value(1 - ${p.id}.value())` }),
  },
};
