import type { DriverPart } from "./types";

/** What a pin of a part is held at until a program has a reason: low, high, or let go. */
export type Rest = 0 | 1 | "float";

/**
 * Resting levels from the parts' data sheets: motors and loads off, chips not selected, displays dark, write lines idle. A part that
 * states its own level (`restsAt`, by its options) is not here.
 */
export const RESTS: Record<string, Record<string, Rest>> = {
  "module/74hc165": { "SH/LD": 1, CLK: 0 },
  "module/74hc595": { SRCLK: 0, RCLK: 0, SER: 0 },
  // Its enable input is low for on: high lets the motor go.
  "module/a4988": { EN: 1, STEP: 0, DIR: 0 },
  "module/cd4067": { S0: 0, S1: 0, S2: 0, S3: 0 },
  // All four bridges open. Its sleep input is jumpered to the supply on most boards: a low there would short the pin.
  "module/drv8833": { IN1: 0, IN2: 0, IN3: 0, IN4: 0, EEP: "float" },
  "module/hc-sr04": { TRIG: 0 },
  "module/ultrasonic-3v3": { TRIG: 0 },
  "module/ultrasonic-waterproof": { TRIG: 0 },
  // High at power-on opens its settings.
  "module/hc05": { EN: 0 },
  // High for longer than 60 us is power-down.
  "module/hx711": { SCK: 0 },
  "module/ili9341": { CS: 1, RST: 1, DC: 0, T_CS: 1 },
  // Rows float between scans: two pressed keys must not join two outputs.
  "module/keypad-4x4": { R1: "float", R2: "float", R3: "float", R4: "float" },
  "module/l298n": { ENA: 0, IN1: 0, IN2: 0, IN3: 0, IN4: 0, ENB: 0 },
  "module/lcd1602-parallel": { RS: 0, E: 0, D4: 0, D5: 0, D6: 0, D7: 0 },
  "module/max31855": { CS: 1 },
  // Listening, its own driver off the pair.
  "module/max3485": { RE: 0, DE: 0 },
  "module/max485": { RE: 0, DE: 0 },
  "module/max6675": { CS: 1 },
  "module/max7219-digits": { CS: 1 },
  "module/max7219-matrix": { CS: 1 },
  "module/mcp2515": { CS: 1 },
  "module/mcp3008": { CS: 1 },
  "module/mcp4921": { CS: 1 },
  "module/mosfet-switch": { SIG: 0 },
  "module/nrf24l01": { CE: 0, CSN: 1 },
  "module/optocoupler-pc817": { A: 0 },
  // Outputs off until their values are set.
  "module/pca9685": { OE: 1 },
  "module/pms5003": { SET: 1, RST: 1 },
  "module/rc522": { RST: 1, CS: 1 },
  "module/rfm95": { CS: 1, RST: 1 },
  "module/sd-3v3": { CS: 1 },
  "module/sd-shifted": { CS: 1 },
  // No pulses: a servo stays where it is and is not driven.
  "module/servo-large": { SIG: 0 },
  "module/servo-small": { SIG: 0 },
  "module/ssd1306-spi": { RST: 1, DC: 0, CS: 1 },
  "module/st7735": { CS: 1, RST: 1, DC: 0 },
  "module/st7789": { CS: 1, RST: 1, DC: 0 },
  "module/tb6612": { PWMA: 0, AIN1: 0, AIN2: 0, STBY: 0, BIN1: 0, BIN2: 0, PWMB: 0 },
  "module/uln2003-stepper": { IN1: 0, IN2: 0, IN3: 0, IN4: 0 },
  "module/vfd-20x2-parallel": { D0: 0, D1: 0, D2: 0, D3: 0, D4: 0, D5: 0, D6: 0, D7: 0, WR: 1, CS: 1 },
  // Pulled up on its board: let go it runs, low holds it off, and a high of 5 V is more than it takes.
  "module/vl53l0x": { XSHUT: "float" },
  "module/w5500": { CS: 1, RST: 1 },
  "module/ws2812b-matrix-8x8": { DIN: 0 },
  "module/ws2812b-ring-16": { DIN: 0 },
  "module/ws2812b-strip": { DIN: 0 },
  // Its common leg is at the supply: a segment is lit by a low.
  "discrete/digit-7seg-ca": { a: 1, b: 1, c: 1, d: 1, e: 1, f: 1, g: 1, dp: 1 },
  "discrete/digit-7seg-cc": { a: 0, b: 0, c: 0, d: 0, e: 0, f: 0, g: 0, dp: 0 },
  "discrete/gauge-12v": { IN: 0 },
  "discrete/led-rgb-cc": { R: 0, G: 0, B: 0 },
  // Dark is high.
  "discrete/led-rgb-ca": { R: 1, G: 1, B: 1 },
  "discrete/nmos-ao3400": { G: 0 },
  "discrete/nmos-irlz44n": { G: 0 },
  "discrete/nmos-2n7000": { G: 0 },
  "discrete/npn-2n2222": { B: 0 },
  "discrete/npn-bc547": { B: 0 },
  "discrete/npn-tip120": { B: 0 },
  "discrete/speaker": { "1": 0 },
};

/** The resting level of a pin that the board drives; what nobody has stated is let go, never guessed from a name. */
export function restOf(p: Pick<DriverPart, "inst">, label: string): Rest {
  const stated = p.inst.part.pins.find((x) => x.label === label)?.restsAt;
  if (stated) return stated === "high" ? 1 : 0;
  const known = RESTS[p.inst.part.id]?.[label];
  if (known !== undefined) return known;
  // Not selected: true of every chip on a bus.
  return p.inst.part.groups.some((g) => g.kind === "spi" && g.pins.cs === label) ? 1 : "float";
}
