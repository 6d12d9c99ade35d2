import { format } from "../../words";
import type { Pin } from "../../parts/catalogue";
import { adcInPython, pinInPython, pinName, sketchBits } from "../pins-in-code";
import { restOf } from "../rest";
import { STEADY_MS, type Driver, type DriverPart, type Proof } from "../types";

/**
 * Any part without a driver of its own: says what can be said from its pins alone. Inputs and analogue values are read,
 * outputs are put into their resting state and left there, I2C parts are called by address and, where known, asked who
 * they are. Nothing is switched on by itself: what hangs there is not known.
 */
const KINDS = { read: ["digital-in", "digital-io", "interrupt"], write: ["digital-out", "pwm"], measure: ["adc"] };
type Use = keyof typeof KINDS;

const pinsFor = (p: DriverPart, use: Use): Pin[] =>
  p.inst.part.pins.filter((x) => x.need && KINDS[use].includes(x.need.kind) && p.has(x.label));

/** Those that are the board's own. */
const boardPins = (p: DriverPart, use: Use) => pinsFor(p, use).filter((x) => !p.through?.has(x.label));

const name = (p: DriverPart, pin: Pin) => pinName(p, pin.label);

const identity = (p: DriverPart) => p.inst.part.bringup?.identity;
const hex = (text: string) => `0x${parseInt(text, 16).toString(16)}`;
/** Identity registers of one byte can be read in the same way everywhere. */
const oneByte = (p: DriverPart) => {
  const id = identity(p);
  return p.bus && id && parseInt(id.want, 16) <= 0xff && parseInt(id.register, 16) <= 0xff ? id : undefined;
};

const sketchBringup = (p: DriverPart): string => {
  const out: string[] = [];
  const id = oneByte(p);
  if (p.bus && p.address && id)
    out.push(`{
  uint8_t id = 0;
  ${p.bus}.beginTransmission(${p.address});
  ${p.bus}.write(${hex(id.register)});
  bool there = ${p.bus}.endTransmission() == 0 && ${p.bus}.requestFrom((uint8_t)${p.address}, (uint8_t)1) == 1;
  if (there) id = ${p.bus}.read();
  Serial.print(F("YL1 i2c ${p.ref} addr=${p.address} id=0x"));
  Serial.print(id, HEX);
  Serial.print(F(" want=${hex(id.want)} "));
  verdict(there && id == ${hex(id.want)});
}`);
  else if (p.bus && p.address)
    out.push(`{
  ${p.bus}.beginTransmission(${p.address});
  bool there = ${p.bus}.endTransmission() == 0;
  Serial.print(F("YL1 i2c ${p.ref} addr=${p.address} "));
  verdict(there);
}`);
  for (const pin of pinsFor(p, "read"))
    out.push(`Serial.print(F("YL1 gpio ${p.ref} pin=${p.printed(pin.label)} level="));
Serial.print(digitalRead(${p.pin(pin.label)}));
Serial.println(F(" info"));`);
  for (const pin of pinsFor(p, "measure"))
    out.push(`Serial.print(F("YL1 adc ${p.ref} pin=${p.printed(pin.label)} raw="));
Serial.print(analogRead(${p.pin(pin.label)}));
Serial.println(F(" info"));`);
  for (const pin of pinsFor(p, "write"))
    out.push(`Serial.println(F("YL1 gpio ${p.ref} pin=${p.printed(pin.label)} rests=${restOf(p, pin.label)} info"));`);
  return out.join("\n");
};

const pythonBringup = (p: DriverPart): string => {
  const out: string[] = [];
  const id = oneByte(p);
  if (p.bus && p.address && id)
    out.push(`try:
    got = ${p.bus}.readfrom_mem(${p.address}, ${hex(id.register)}, 1)[0]
except OSError:
    got = -1
print("YL1 i2c ${p.ref} addr=${p.address} id=0x%02x want=${hex(id.want)} %s" % (got & 0xFF, judge(got == ${hex(id.want)})))`);
  else if (p.bus && p.address)
    out.push(`print("YL1 i2c ${p.ref} addr=${p.address} %s" % judge(${p.address} in ${p.bus}.scan()))`);
  for (const pin of pinsFor(p, "read"))
    out.push(`print("YL1 gpio ${p.ref} pin=${p.printed(pin.label)} level=%d info" % ${name(p, pin)}.value())`);
  for (const pin of pinsFor(p, "measure"))
    out.push(`print("YL1 adc ${p.ref} pin=${p.printed(pin.label)} raw=%d info" % ${name(p, pin)}.read_u16())`);
  for (const pin of pinsFor(p, "write"))
    out.push(`print("YL1 gpio ${p.ref} pin=${p.printed(pin.label)} rests=${restOf(p, pin.label)} info")`);
  return out.join("\n");
};

/** A contact counts as moved when it changes, a voltage when it moves by this share of what can be read. */
const MOVED = 1 / 16;
const RANGE = { sketch: (p: DriverPart) => 2 ** sketchBits(p), micropython: () => 65536 };

function proof(p: DriverPart): Proof {
  if (p.bus && p.address) return { kind: "test" };
  const first = values(p)[0];
  if (!first)
    return { kind: "unproven", why: "what hangs on its outputs is not known, nothing is switched on by itself" };
  const full = p.target === "micropython" ? RANGE.micropython() : RANGE.sketch(p);
  return {
    kind: "watch",
    act: "use it and hold it, its value must change and stay",
    by: analogue(first) ? Math.round(full * MOVED) : 1,
    steady_ms: p.pulled.has(first.label) ? 0 : STEADY_MS,
  };
}

const values = (p: DriverPart) => [...pinsFor(p, "read"), ...pinsFor(p, "measure")];
const analogue = (pin: Pin) => pin.need!.kind === "adc";

const pinsInPython = (p: DriverPart): string =>
  [
    ...pinsFor(p, "read").map((x) => {
      const pulled = p.pulled.has(x.label);
      return `${name(p, x)} = ${pinInPython(p, x.label, `Pin.IN${pulled ? ", Pin.PULL_UP" : ""}`, pulled ? 1 : 0)}`;
    }),
    ...pinsFor(p, "measure").map((x) => `${name(p, x)} = ${adcInPython(p, x.label)}`),
    ...pinsFor(p, "write").map((x) => {
      const rest = restOf(p, x.label);
      const made = rest === "float" ? "Pin.IN" : `Pin.OUT, value=${rest}`;
      return `${name(p, x)} = ${pinInPython(p, x.label, made, rest === "float" ? 0 : rest)}`;
    }),
  ].join("\n");

export const generic: Driver = {
  id: "generic",
  order: 50,
  proof,
  sketch: {
    setup: (p) =>
      [
        ...boardPins(p, "read").map(
          (x) => `pinMode(${p.pin(x.label)}, ${p.pulled.has(x.label) ? "INPUT_PULLUP" : "INPUT"});`,
        ),
        ...boardPins(p, "write").map((x) => {
          const rest = restOf(p, x.label);
          if (rest === "float") return `pinMode(${p.pin(x.label)}, INPUT);`;
          return `digitalWrite(${p.pin(x.label)}, ${rest ? "HIGH" : "LOW"});\npinMode(${p.pin(x.label)}, OUTPUT);`;
        }),
      ].join("\n"),
    bringup: sketchBringup,
    watch: (p) => {
      const x = values(p)[0];
      return x ? `${analogue(x) ? "analogRead" : "digitalRead"}(${p.pin(x.label)})` : "";
    },
    state: (p) =>
      values(p)
        .map((x) => `static int ${name(p, x)} = 0;`)
        .join("\n"),
    task: (p) =>
      values(p).length
        ? {
            every_ms: 100,
            body: values(p)
              .map((x) => `${name(p, x)} = ${analogue(x) ? "analogRead" : "digitalRead"}(${p.pin(x.label)});`)
              .join("\n"),
          }
        : null,
    show: (p) =>
      values(p)[0]
        ? `snprintf(line, sizeof line, "${format(p.label.slice(0, 12))} %d", ${name(p, values(p)[0]!)});`
        : "",
  },
  micropython: {
    importsFor: (p) => (boardPins(p, "measure").length ? ["from machine import ADC"] : []),
    pins: pinsInPython,
    setup: (p) =>
      values(p).length
        ? `${pinsInPython(p)}\n${p.id}_values = [${values(p)
            .map(() => 0)
            .join(", ")}]`
        : pinsInPython(p),
    bringup: pythonBringup,
    watch: (p) => {
      const x = values(p)[0];
      return x ? `${name(p, x)}.${analogue(x) ? "read_u16" : "value"}()` : "";
    },
    task: (p) =>
      values(p).length
        ? {
            every_ms: 100,
            body: values(p)
              .map((x, i) => `${p.id}_values[${i}] = ${name(p, x)}.${analogue(x) ? "read_u16" : "value"}()`)
              .join("\n"),
          }
        : null,
    show: (p) => (values(p).length ? `"${format(p.label.slice(0, 12))} %d" % ${p.id}_values[0]` : ""),
  },
};
