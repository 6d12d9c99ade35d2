import { LANE_FULL, laneOfPulse, laneOfShare } from "./devices/lanes";
import { identifier } from "./pins";
import type { DriverPart } from "./types";

/** What the pin of a part is called among the variables of a program. */
export const pinName = (p: DriverPart, label: string) => `${p.id}_${identifier(label, "pin").toLowerCase()}`;

/** The converter as MicroPython opens it: an ESP32's reads a volt at most unless it is told otherwise, an ESP8266 has one. */
const ADC_OF: Record<string, (pin: string) => string> = {
  esp32: (pin) => `ADC(Pin(${pin}), atten=ADC.ATTN_11DB)`,
  esp8266: () => "ADC(0)",
};
export function adcInPython(p: DriverPart, label: string): string {
  const at = p.through?.get(label);
  if (at?.volts) return `Volts(${at.by}, "${at.volts.reading}", ${at.volts.full})`;
  return (ADC_OF[p.board.family] ?? ((pin: string) => `ADC(Pin(${pin}))`))(`pins.${p.pin(label)}`);
}

/** Bits that `analogRead` gives unless it is told otherwise: ten in every core of the API, twelve in the ESP32's. */
export const sketchBits = (p: DriverPart) => (p.board.family === "esp32" ? 12 : 10);

/** A level of a part's pin in C++: at the board, or as a bit of the part that it hangs on. */
export function putInC(p: DriverPart, label: string, level: string): string {
  const at = p.through?.get(label);
  if (at?.lane) return `${at.by}_lane(${at.bit}, (${level}) == HIGH ? ${LANE_FULL} : 0);`;
  return at ? `${at.by}_put(${at.bit}, ${level});` : `digitalWrite(${p.pin(label)}, ${level});`;
}
/** The same read; `rest` counts while the other part does not answer. */
export function lookInC(p: DriverPart, label: string, rest: number): string {
  const at = p.through?.get(label);
  return at ? `${at.by}_get(${at.bit}, ${rest})` : `digitalRead(${p.pin(label)})`;
}
/** A voltage as a share of 65536: read by the board, or by the part whose line it is on. */
export function voltsInC(p: DriverPart, label: string): string {
  const at = p.through?.get(label);
  return at?.volts
    ? `${at.by}_volts(${at.by}_${at.volts.reading}, ${at.volts.full}) << 6`
    : `(uint16_t)analogRead(${p.pin(label)}) << ${16 - sketchBits(p)}`;
}
/** What a pin of the board must be told before; nothing where another part has the line. */
export const modeInC = (p: DriverPart, label: string, mode: string): string =>
  p.through?.has(label) ? "" : `pinMode(${p.pin(label)}, ${mode});`;
/** The pin as an object in Python: the board's, made as `made` says, or a bit of another part. */
export function pinInPython(p: DriverPart, label: string, made: string, rest: number): string {
  const at = p.through?.get(label);
  if (at?.lane) return `Lane(${at.by}, ${at.bit})`;
  return at ? `Bit(${at.by}, ${at.bit}, ${rest})` : `Pin(pins.${p.pin(label)}, ${made})`;
}

/** A share of full power in C++, a byte: by the board's own timers, or by the output that the part hangs on. */
export function shareInC(p: DriverPart, label: string, byte: string): string {
  const at = p.through?.get(label);
  return at?.lane
    ? `${at.by}_lane(${at.bit}, ${laneOfShare(`(uint16_t)(${byte})`)});`
    : `analogWrite(${p.pin(label)}, ${byte});`;
}
/** A pulse of so many microseconds, none for 0; the board makes one each time, an output of another part goes on by itself. */
export function pulseInC(p: DriverPart, label: string, us: string): string {
  const at = p.through?.get(label);
  return at?.lane
    ? `${at.by}_lane(${at.bit}, ${laneOfPulse(`(uint32_t)(${us})`)});`
    : `if (${us}) {\n  digitalWrite(${p.pin(label)}, HIGH);\n  delayMicroseconds(${us});\n  digitalWrite(${p.pin(label)}, LOW);\n}`;
}
