/** Parts whose lines work other parts, as bits of what they are told and of what they read: which bit a line is. Adding one is a line. */
const ports = (label: string) => {
  const m = /^P([AB])([0-7])$/.exec(label);
  return m ? (m[1] === "B" ? 8 : 0) + Number(m[2]) : null;
};
const letters = (first: string) => (label: string) => {
  const k = label.charCodeAt(label.length - 1) - first.charCodeAt(0);
  return k >= 0 && k < 8 ? k : null;
};

export const CARRIERS: Readonly<Record<string, (label: string) => number | null>> = {
  "module/pcf8574": (label) => (/^P[0-7]$/.test(label) ? Number(label[1]) : null),
  "module/mcp23017": ports,
  "module/74hc595": letters("A"),
  "module/74hc165": letters("A"),
};
/** Lines whose voltage is read through another part's converter or switch: which of its readings it is, in thousandths. */
export const VOLTAGES: Readonly<Record<string, (label: string) => number | null>> = {
  "module/cd4067": (label) => (/^C([0-9]|1[0-5])$/.test(label) ? Number(label.slice(1)) : null),
};
/** Parts that are a voltage, read now and then. */
export const VOLTAGES_ANYWHERE: ReadonlySet<string> = new Set([
  "discrete/ldr",
  "discrete/potentiometer",
  "discrete/thermistor-10k",
  "module/acs712",
  "module/joystick",
  "module/max9814",
  "module/soil-capacitive",
]);
/** Bits that a number of the program holds. */
export const MOST_BITS = 24;

/** Parts whose program only sets and reads levels, none of them in a hurry: they work on a carrier's lines as on the board's. */
export const ANYWHERE: ReadonlySet<string> = new Set([
  "discrete/digit-7seg-ca",
  "discrete/digit-7seg-cc",
  "discrete/led-rgb-cc",
  "discrete/limit-switch",
  "discrete/nmos-ao3400",
  "discrete/nmos-irlz44n",
  "discrete/npn-2n2222",
  "discrete/npn-bc547",
  "module/a3144",
  "module/button-module",
  "module/buzzer-active",
  "module/drv8833",
  "module/mosfet-switch",
  "module/optocoupler-pc817",
  "module/pir",
  "module/relay-1",
  "module/relay-2",
]);
/** The same of drivers that are no data. */
export const DRIVERS_ANYWHERE: ReadonlySet<string> = new Set(["led", "button"]);
