import { identifier } from "./pins";
import type { DriverPart } from "./types";

/** What the pin of a part is called among the variables of a program. */
export const pinName = (p: DriverPart, label: string) => `${p.id}_${identifier(label, "pin").toLowerCase()}`;

/** The converter as MicroPython opens it: an ESP32's reads a volt at most unless it is told otherwise, an ESP8266 has one. */
const ADC_OF: Record<string, (pin: string) => string> = {
  esp32: (pin) => `ADC(Pin(${pin}), atten=ADC.ATTN_11DB)`,
  esp8266: () => "ADC(0)",
};
export const adcInPython = (p: DriverPart, label: string) =>
  (ADC_OF[p.board.family] ?? ((pin: string) => `ADC(Pin(${pin}))`))(`pins.${p.pin(label)}`);

/** Bits that `analogRead` gives unless it is told otherwise: ten in every core of the API, twelve in the ESP32's. */
export const sketchBits = (p: DriverPart) => (p.board.family === "esp32" ? 12 : 10);
