import type { BoardInfo } from "../../parts/catalogue";

/** What a port really does when it is asked for a rate. `error` is a share: 0.02 is 2 % too fast. */
export interface RealBaud {
  real: number;
  error: number;
  how: string;
}

type Divider = (clock_Hz: number, baud: number) => { real: number; how: string };

/** AVR: f / (8·(UBRR + 1)) in double speed, as the core sets it; 57600 at 16 MHz keeps to f / (16·(UBRR + 1)). */
const avr: Divider = (f, baud) => {
  const single = Math.floor((f / 8 / baud - 1) / 2);
  const double = Math.floor((f / 4 / baud - 1) / 2);
  if ((f === 16_000_000 && baud === 57_600) || double > 4095)
    return { real: f / (16 * (single + 1)), how: `UBRR ${single}, 16 samples a bit` };
  return { real: f / (8 * (Math.max(0, double) + 1)), how: `UBRR ${Math.max(0, double)}, 8 samples a bit` };
};

/** A divider of f/16 with so many binary digits behind the point. */
const sixteenths =
  (clock: (f: number) => number, digits: number): Divider =>
  (f, baud) => {
    const steps = 2 ** digits;
    const n = Math.max(steps, Math.round((clock(f) / 16 / baud) * steps));
    return {
      real: (clock(f) / 16 / n) * steps,
      how: `${clock(f) / 1e6} MHz / 16 / ${(n / steps).toFixed(digits ? 3 : 0)}`,
    };
  };
const whole =
  (clock: (f: number) => number, digits = 0): Divider =>
  (f, baud) => {
    const steps = 2 ** digits;
    const n = Math.round((clock(f) / baud) * steps);
    return { real: (clock(f) / n) * steps, how: `${clock(f) / 1e6} MHz / ${(n / steps).toFixed(digits ? 3 : 0)}` };
  };
/** SAM D21, arithmetic: f/16·(1 − BAUD/65536). */
const samd: Divider = (f, baud) => {
  const n = Math.round(65536 * (1 - (16 * baud) / f));
  return { real: (f / 16) * (1 - n / 65536), how: `BAUD ${n}` };
};
/** nRF52: 16 MHz·n / 2^32 with coarse constants; rounded down to the next one, the unfavourable side. */
const nrf: Divider = (_f, baud) => {
  const step = baud >= 38_400 ? 65_536 : 4096;
  const n = Math.floor((baud * 2 ** 32) / 16e6 / step) * step;
  return { real: (n * 16e6) / 2 ** 32, how: `BAUDRATE 0x${n.toString(16)}` };
};
/** i.MX RT: 24 MHz / (OSR + 1) / SBR, the best of all oversampling ratios. */
const imx: Divider = (_f, baud) => {
  let best = { real: Infinity, how: "" };
  for (let osr = 4; osr <= 32; osr++) {
    const sbr = Math.max(1, Math.round(24e6 / osr / baud));
    const real = 24e6 / osr / sbr;
    if (Math.abs(real - baud) < Math.abs(best.real - baud)) best = { real, how: `24 MHz / ${osr} / ${sbr}` };
  }
  return best;
};

/** How each family makes its rates: the port's clock and its divider, from the data sheets' UART chapters. */
const DIVIDERS: Record<BoardInfo["family"], Divider> = {
  avr,
  rp2040: sixteenths((f) => f, 6),
  rp2350: sixteenths((f) => f, 6),
  esp32: whole(() => 80e6, 4),
  esp8266: whole(() => 80e6),
  // The slower of the two peripheral clocks: half the core's.
  stm32: whole((f) => f / 2),
  samd,
  nrf52: nrf,
  imxrt: imx,
  kl26: sixteenths(() => 24e6, 0),
  sam3x: sixteenths((f) => f, 0),
  linux: sixteenths(() => 48e6, 6),
};

/** Rates that parts commonly speak. */
export const USUAL_BAUD = [
  9600, 19_200, 31_250, 38_400, 57_600, 115_200, 230_400, 250_000, 500_000, 1_000_000,
] as const;

/** The rate that a chip really makes at its clock, and how far off that is. */
export function realBaud(family: BoardInfo["family"], clock_Hz: number, baud: number): RealBaud {
  const { real, how } = DIVIDERS[family](clock_Hz, baud);
  return { real, error: real / baud - 1, how };
}
