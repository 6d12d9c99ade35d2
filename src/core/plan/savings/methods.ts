import { charlieLines, gridSize } from "./addresses";
import { gridResistor, ringResistor } from "./resistor";

/** What there is too much of for the pins. */
export type Want = "lights" | "keys" | "digits" | "sensors";

/** What is asked, with what the board's pin and the person allow. SI units. */
export interface Ask {
  want: Want;
  n: number;
  /** Current that one light shall have, amperes. */
  I: number;
  /** What a board pin likes to carry, amperes. */
  pin_A: number;
  /** The board's logic voltage. */
  V: number;
}

export interface PartCount {
  part: string;
  name: string;
  count: number;
  /** Leads of one, for counting solder joints. */
  leads: number;
}

/** What a way costs and gives. `null` where a number has no meaning. */
export interface Way {
  id: string;
  name: string;
  pins: number;
  parts: PartCount[];
  /** Wires between the board and the group. */
  wires: number;
  /** Part of the time that each is on, 1 when always. */
  duty: number | null;
  /** Average current of a light against the one wanted: what the eye sees. */
  brightness: number | null;
  /** Highest current through one board pin or chip output, amperes. */
  pin_A: number | null;
  /** How often everything is refreshed or read, hertz. */
  refresh_Hz: number | null;
  /** How much program it takes, in words. */
  code: string;
  price: "none" | "low" | "medium";
  says: string;
  minds: string[];
  /** Can be put into a project with one press. */
  builds: "key-grid" | "key-grid-diodes" | "light-grid" | "light-ring" | "chips" | null;
  chip?: string;
}

/** One line or light of a multiplexed group is on for this long: short enough for the eye, long enough for the program. */
const SLOT_s = 0.001;
/** Bus clocks that every board manages. */
const SPI_Hz = 1_000_000;
const I2C_Hz = 400_000;
/** What a 74HC595 may draw through its supply pin in all, and what one output likes (data sheet, absolute maximum and test condition). */
const HC595 = { chip_A: 0.07, out_A: 0.006 };
/** What an MCP23017 may source in all (absolute maximum), and what one output likes (its VOH is specified at 3 to 7 mA). */
const MCP23017 = { chip_A: 0.125, out_A: 0.008 };
/** A WS2812B takes 24 bits at 800 kHz, and a pause of 300 µs shows them. */
const WS2812B = { light_s: 24 / 800_000, pause_s: 300e-6, bytes: 3 };

/** Forward voltage of a red light, volts, where the sums are not about a certain one. */
const RED = { min: 1.8, typ: 2 };

const led = (n: number): PartCount => ({ part: "discrete/led-red", name: "LED", count: n, leads: 2 });
const resistor = (n: number): PartCount => ({ part: "discrete/resistor", name: "resistor", count: n, leads: 2 });
const button = (n: number): PartCount => ({ part: "discrete/button", name: "button", count: n, leads: 2 });
const diode = (n: number): PartCount => ({ part: "discrete/diode-1n4148", name: "diode", count: n, leads: 2 });
const transistor = (n: number): PartCount => ({
  part: "discrete/npn-bc547",
  name: "NPN transistor",
  count: n,
  leads: 3,
});
const chip = (part: string, name: string, n: number): PartCount => ({ part, name, count: n, leads: 16 });

/** Sensors or keys bring their own leads; they are the same in every way and not counted. */
type Make = (a: Ask) => Way | null;

const direct: Make = ({ want, n, I, pin_A }) => {
  const each: Record<Want, [pins: number, parts: PartCount[]]> = {
    lights: [n, [led(n), resistor(n)]],
    keys: [n, [button(n)]],
    digits: [8 * n, [{ part: "discrete/digit-7seg-cc", name: "digit", count: n, leads: 10 }, resistor(8 * n)]],
    sensors: [n, []],
  };
  const [pins, parts] = each[want];
  const lit = want === "lights" || want === "digits";
  return {
    id: "direct",
    name: "A pin each",
    pins,
    parts,
    wires: pins + 1,
    duty: lit ? 1 : null,
    brightness: lit ? Math.min(1, pin_A / I) : null,
    pin_A: lit ? Math.min(I, pin_A) : null,
    refresh_Hz: null,
    code: "one line each",
    price: "none",
    says: "nothing to go wrong, and each can be understood by itself",
    minds: lit && I > pin_A ? ["a board pin likes less than this: the light gets what the pin gives"] : [],
    builds: null,
  };
};

const keyGrid =
  (diodes: boolean): Make =>
  ({ want, n, V }) => {
    if (want !== "keys" || n < 2) return null;
    const { rows, cols } = gridSize(n);
    return {
      id: diodes ? "grid-diodes" : "grid",
      name: diodes ? `Grid ${rows} × ${cols}, a diode at each key` : `Grid ${rows} × ${cols}`,
      pins: rows + cols,
      parts: [button(n), ...(diodes ? [diode(n)] : [])],
      wires: rows + cols,
      duty: null,
      brightness: null,
      pin_A: null,
      refresh_Hz: 1 / (rows * 50e-6),
      code: "a scan of every row, some 15 lines",
      price: diodes ? "low" : "none",
      says: diodes
        ? "any number of keys at once are told apart"
        : "two keys at once are told apart; with three in a corner a fourth seems pressed",
      minds: diodes
        ? [
            "all diodes the same way round: the stripe towards the row",
            ...(V < 4 ? ["at this voltage the diode's drop leaves little for a low: Schottky diodes are safer"] : []),
          ]
        : ["ghost keys from three pressed on: see below"],
      builds: diodes ? "key-grid-diodes" : "key-grid",
    };
  };

const lightGrid: Make = ({ want, n, I, pin_A, V }) => {
  if (want !== "lights" || n < 4) return null;
  const { rows, cols } = gridSize(n);
  // One row is lit at a time; its pin carries all of the row's lights, so each gets a share of what a pin likes.
  const { each_A: each, pin_A: row } = gridResistor({ V, pin_A, I, Vf: RED, atOnce: cols });
  return {
    id: "light-grid",
    name: `Grid ${rows} × ${cols}, plain pins`,
    pins: rows + cols,
    parts: [led(n), resistor(cols)],
    wires: rows + cols,
    duty: 1 / rows,
    brightness: each / rows / I,
    pin_A: row,
    refresh_Hz: 1 / (rows * SLOT_s),
    code: "a row every millisecond, some 20 lines that must never be late",
    price: "none",
    says: `each light is on 1/${rows} of the time, and the row's pin carries ${cols} at once`,
    minds: ["a program that stops leaves one row on"],
    builds: "light-grid",
  };
};

const drivenGrid: Make = ({ want, n, I, pin_A }) => {
  if (want !== "lights" || n < 4) return null;
  const { rows, cols } = gridSize(n);
  const each = Math.min(I, pin_A);
  return {
    id: "driven-grid",
    name: `Grid ${rows} × ${cols}, a transistor for each row`,
    pins: rows + cols,
    parts: [led(n), resistor(cols + rows), transistor(rows)],
    wires: rows + cols + 1,
    duty: 1 / rows,
    brightness: each / rows / I,
    pin_A: each,
    refresh_Hz: 1 / (rows * SLOT_s),
    code: "a row every millisecond, some 20 lines that must never be late",
    price: "low",
    says: `each light is on 1/${rows} of the time; the transistors carry the rows`,
    minds: ["a program that stops leaves one row on"],
    builds: null,
  };
};

const charlie: Make = ({ want, n, I, pin_A, V }) => {
  if ((want !== "lights" && want !== "keys") || n < 3) return null;
  const m = charlieLines(n);
  if (want === "keys")
    return {
      id: "charlie-keys",
      name: `${m} lines, a diode at each key, both ways`,
      pins: m,
      parts: [button(n), diode(n)],
      wires: m,
      duty: null,
      brightness: null,
      pin_A: null,
      refresh_Hz: 1 / (m * 50e-6),
      code: "each line drives in turn while the others listen, some 20 lines",
      price: "low",
      says: `${m} lines give ${m} · ${m - 1} = ${m * (m - 1)} places`,
      minds: ["every key has its diode, and its place in the table is its direction"],
      builds: null,
    };
  // One line drives at a time and up to m − 1 lights hang on it: its pin and its resistor carry them all.
  const group = Math.min(m - 1, n);
  const { each_A: each, pin_A: line, alone_A } = ringResistor({ V, pin_A, I, Vf: RED, atOnce: group });
  return {
    id: "charlie",
    name: `Charlieplexed on ${m} lines`,
    pins: m,
    parts: [led(n), resistor(m)],
    wires: m,
    duty: 1 / m,
    brightness: each / m / I,
    pin_A: line,
    refresh_Hz: 1 / (m * SLOT_s),
    code: "lines change between driving, sinking and letting go, some 30 lines that must never be late",
    price: "none",
    says: `${m} lines give ${m} · ${m - 1} = ${m * (m - 1)} places in ${m} groups; each light is on 1/${m} of the time`,
    minds: [
      "all lights of one colour: a lower forward voltage elsewhere steals the current",
      `a light gets ${(alone_A * 1000).toFixed(1)} mA alone in its group and ${(each * 1000).toFixed(1)} mA with all of it: the more are lit, the dimmer`,
      "one broken light takes others along",
    ],
    builds: "light-ring",
  };
};

const registerOut: Make = ({ want, n, I }) => {
  if (want !== "lights" && want !== "digits") return null;
  const bits = want === "digits" ? 8 * n : n;
  const chips = Math.ceil(bits / 8);
  const lit = Math.min(8, bits);
  const each = Math.min(I, HC595.out_A, HC595.chip_A / lit);
  return {
    id: "74hc595",
    name: chips === 1 ? "Shift register 74HC595" : `${chips} shift registers 74HC595 in a chain`,
    pins: 3,
    parts: [
      ...(want === "digits" ? [{ part: "discrete/digit-7seg-cc", name: "digit", count: n, leads: 10 }] : [led(n)]),
      resistor(bits),
      chip("module/74hc595", "74HC595", chips),
    ],
    wires: 3 + 2,
    duty: 1,
    brightness: each / I,
    pin_A: each,
    refresh_Hz: SPI_Hz / (8 * chips),
    code: "shift all bits out at a change, some 5 lines",
    price: "low",
    says: "always on, no flicker; the chain can grow without another pin",
    minds: [
      `one chip carries 70 mA in all: ${(each * 1000).toFixed(1)} mA each with all of them lit`,
      "outputs are undefined until the first bits are in: hold the enable high at the start",
    ],
    builds: want === "lights" ? "chips" : null,
    chip: "module/74hc595",
  };
};

const registerIn: Make = ({ want, n }) => {
  if (want !== "keys") return null;
  const chips = Math.ceil(n / 8);
  return {
    id: "74hc165",
    name: chips === 1 ? "Shift register 74HC165" : `${chips} shift registers 74HC165 in a chain`,
    pins: 3,
    parts: [button(n), resistor(n), chip("module/74hc165", "74HC165", chips)],
    wires: 3 + 2,
    duty: null,
    brightness: null,
    pin_A: null,
    refresh_Hz: SPI_Hz / (8 * chips),
    code: "shift all bits in, some 5 lines",
    price: "low",
    says: "every key by itself, no ghosts; the chain can grow without another pin",
    minds: ["each input wants a pull-up of 10 kΩ: the chip has none"],
    builds: null,
    chip: "module/74hc165",
  };
};

const expander: Make = ({ want, n, I }) => {
  if (want === "sensors" || want === "digits") return null;
  const chips = Math.ceil(n / 16);
  if (chips > 8) return null;
  const lit = want === "lights";
  const each = Math.min(I, MCP23017.out_A, MCP23017.chip_A / Math.min(16, n));
  return {
    id: "mcp23017",
    name: chips === 1 ? "I2C expander MCP23017" : `${chips} I2C expanders MCP23017, an address each`,
    pins: 2,
    parts: [...(lit ? [led(n), resistor(n)] : [button(n)]), chip("module/mcp23017", "MCP23017", chips)],
    wires: 2 + 2,
    duty: lit ? 1 : null,
    brightness: lit ? each / I : null,
    pin_A: lit ? each : null,
    // Address, register and one or two bytes, nine clocks each.
    refresh_Hz: I2C_Hz / (36 * chips),
    code: "one register write or read, some 5 lines",
    price: "medium",
    says: lit
      ? "always on; shares the bus with other I2C parts"
      : "has pull-ups inside and can call the board by an interrupt line",
    minds: lit ? [`one chip gives 125 mA in all: ${(each * 1000).toFixed(1)} mA each with all of them lit`] : [],
    builds: n <= 16 ? "chips" : null,
    chip: "module/mcp23017",
  };
};

const addressable: Make = ({ want, n }) => {
  if (want !== "lights") return null;
  return {
    id: "ws2812b",
    name: "Addressable LEDs WS2812B",
    pins: 1,
    parts: [{ part: "module/ws2812b-strip", name: "addressable LED", count: n, leads: 4 }, resistor(1)],
    wires: 3,
    duty: 1,
    brightness: 1,
    pin_A: 0.001,
    refresh_Hz: 1 / (n * WS2812B.light_s + WS2812B.pause_s),
    code: "a table of colours, sent with exact timing: a driver that we write",
    price: "medium",
    says: `any colour, one pin; ${n * WS2812B.bytes} bytes of memory, up to ${((n * 60) / 1000).toFixed(2)} A of supply`,
    minds: ["another kind of light: it wants its own 5 V and a level that fits", "interrupts are off while it is sent"],
    builds: null,
  };
};

const scannedDigits: Make = ({ want, n, I, pin_A }) => {
  if (want !== "digits" || n < 2) return null;
  const each = Math.min(I, pin_A);
  return {
    id: "scanned",
    name: "Segments shared, a transistor for each digit",
    pins: 8 + n,
    parts: [{ part: "discrete/digit-7seg-cc", name: "digit", count: n, leads: 10 }, resistor(8 + n), transistor(n)],
    wires: 8 + n + 1,
    duty: 1 / n,
    brightness: each / n / I,
    pin_A: each,
    refresh_Hz: 1 / (n * SLOT_s),
    code: "a digit every millisecond, some 25 lines that must never be late",
    price: "low",
    says: `one digit is lit at a time, 1/${n} of the time each`,
    minds: ["a program that stops leaves one digit on"],
    builds: null,
  };
};

const driverDigits =
  (part: string, name: string, pins: number, most: number, says: string): Make =>
  ({ want, n }) => {
    if (want !== "digits") return null;
    const chips = Math.ceil(n / most);
    return {
      id: part.split("/")[1]!,
      name: chips === 1 ? name : `${chips} × ${name}`,
      pins,
      parts: [chip(part, name, chips)],
      wires: pins + 2,
      // The module sets current and duty itself.
      duty: null,
      brightness: null,
      pin_A: null,
      refresh_Hz: null,
      code: "write numbers into registers, some 10 lines",
      price: "medium",
      says,
      minds: [],
      builds: null,
      chip: part,
    };
  };

const analogueSwitch: Make = ({ want, n }) => {
  if (want !== "sensors" && want !== "keys") return null;
  const chips = Math.ceil(n / 16);
  return {
    id: "cd4067",
    name: chips === 1 ? "Analogue switch CD4067" : `${chips} analogue switches CD4067`,
    pins: 4 + chips,
    parts: [...(want === "keys" ? [button(n)] : []), chip("module/cd4067", "CD4067", chips)],
    wires: 4 + chips + 2,
    duty: null,
    brightness: null,
    pin_A: null,
    // Four selects set, 10 µs to settle, one conversion of about 110 µs.
    refresh_Hz: 1 / (n * 120e-6),
    code: "set four selects, wait, read; some 8 lines",
    price: "low",
    says: `${want === "keys" ? "a pull-up at the common pin serves all keys" : "one converter reads them all, one after the other"}; chips share the selects`,
    minds: [
      "470 Ω typically, up to 1050 Ω at 5 V in the path, much more at 3.3 V: let the voltage settle before reading",
    ],
    builds: want === "sensors" && chips === 1 ? "chips" : null,
    chip: "module/cd4067",
  };
};

const converter =
  (part: string, name: string, pins: number, channels: number, most: number, rate_Hz: number, says: string): Make =>
  ({ want, n }) => {
    if (want !== "sensors") return null;
    const chips = Math.ceil(n / channels);
    if (chips > most) return null;
    return {
      id: part.split("/")[1]!,
      name: chips === 1 ? name : `${chips} × ${name}`,
      pins: pins === 2 ? 2 : pins - 1 + chips,
      parts: [chip(part, name.split(" ").at(-1)!, chips)],
      wires: (pins === 2 ? 2 : pins - 1 + chips) + 2,
      duty: null,
      brightness: null,
      pin_A: null,
      refresh_Hz: rate_Hz / Math.min(n, channels),
      code: "ask for a channel, read it; some 10 lines",
      price: "medium",
      says,
      minds: [],
      builds: chips === 1 ? "chips" : null,
      chip: part,
    };
  };

const ladder: Make = ({ want, n }) => {
  if (want !== "keys" || n < 2 || n > 8) return null;
  return {
    id: "ladder",
    name: "Resistor ladder on one analogue pin",
    pins: 1,
    parts: [button(n), resistor(n)],
    wires: 3,
    duty: null,
    brightness: null,
    pin_A: null,
    refresh_Hz: 1 / 110e-6,
    code: "compare one reading with a table, some 10 lines",
    price: "none",
    says: `${n} steps of ${(1024 / (n + 1)).toFixed(0)} counts of 1024`,
    minds: ["one key at a time: of two pressed, one is seen", "resistor tolerance eats into the steps"],
    builds: null,
  };
};

/** Every way there is; each says by `null` when it is nothing for what is asked. Adding one is a line here. */
export const WAYS: readonly Make[] = [
  direct,
  keyGrid(false),
  keyGrid(true),
  lightGrid,
  drivenGrid,
  charlie,
  scannedDigits,
  registerOut,
  registerIn,
  expander,
  addressable,
  driverDigits(
    "module/max7219-digits",
    "MAX7219 module, eight digits",
    3,
    8,
    "scans by itself at full brightness; sets the current with one resistor",
  ),
  driverDigits(
    "module/ht16k33-digits",
    "HT16K33 module, four digits",
    2,
    4,
    "scans by itself, sixteen steps of brightness, shares the I2C bus",
  ),
  analogueSwitch,
  converter("module/mcp3008", "Converter MCP3008", 4, 8, 4, 75_000, "ten bits, eight inputs, shares the SPI bus"),
  converter("module/ads1115", "Converter ADS1115", 2, 4, 4, 860, "sixteen bits, four inputs, shares the I2C bus"),
  ladder,
];
