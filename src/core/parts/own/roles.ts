/** What a pin of an own part does, seen from the part and in plain words. */
export const OWN_ROLES = {
  "supply-in": "supply: it is fed here",
  "supply-out": "supply: it feeds others here",
  ground: "ground",
  input: "input: the board drives it",
  "input-pwm": "input for PWM",
  output: "output: the board reads it",
  "open-drain": "open-drain output",
  both: "both ways",
  "open-both": "both ways, open drain: both ends only pull low",
  "analog-out": "analogue output",
  "analog-in": "analogue input",
  "i2c-sda": "I2C data (SDA)",
  "i2c-scl": "I2C clock (SCL)",
  "spi-sck": "SPI clock",
  "spi-mosi": "SPI data into it (MOSI)",
  "spi-miso": "SPI data out of it (MISO)",
  "spi-cs": "SPI select (CS)",
  "uart-tx": "serial, it sends (TX)",
  "uart-rx": "serial, it listens (RX)",
  strap: "strap: tied to a level, by which it is set",
  terminal: "plain terminal",
  unused: "not used",
  kept: "as in the part it came from",
} as const;
export type OwnRole = keyof typeof OWN_ROLES;

/** The fields of one supply in the editor, all empty. */
export const blankSupply = (key: string) => ({
  key,
  V: "",
  idle: "",
  typ: "",
  peak: "",
  absMax: "",
  VIH: "",
  VIL: "",
  VOH: "",
  VOL: "",
  top: "",
  pin_mA: "",
  forLoads: false,
});

/** Where a pin goes in every project, without being asked: a strap, an unused input, a ground leg. */
export const OWN_TIES = {
  "": "where the plan puts it",
  ground: "always to ground",
  "own-supply": "always to the part's own supply",
  "logic-supply": "always to the board's logic voltage",
  "own-pin": "always to another of its pins",
  kept: "as in the part it came from",
} as const;
export type OwnTie = keyof typeof OWN_TIES;

/** What is put beside a part's pins; the value is read as ohms or farads. */
export const OWN_COMPANIONS = {
  seriesResistor: { name: "resistor in the wire", place: "series", unit: "ohm", part: "discrete/resistor" },
  pullUp: { name: "pull-up to the supply", place: "pull", unit: "ohm", part: "discrete/resistor" },
  pullDown: { name: "pull-down to ground", place: "pull", unit: "ohm", part: "discrete/resistor" },
  termination: { name: "resistor across two pins", place: "across", unit: "ohm", part: "discrete/resistor" },
  decoupling: { name: "capacitor at the chip", place: "across", unit: "F", part: "discrete/capacitor" },
  bulkCapacitor: { name: "large capacitor at the supply", place: "across", unit: "F", part: "discrete/electrolytic" },
  kept: { name: "as in the part it came from", place: "across", unit: "ohm", part: "" },
} as const;
export type OwnCompanion = keyof typeof OWN_COMPANIONS;

/** What makes one supply of a part from another. */
export const OWN_FEEDS = {
  linear: "linear regulator",
  switching: "switching converter",
  diode: "diode",
  fuse: "fuse",
  wire: "plain connection",
} as const;
export type OwnFeed = keyof typeof OWN_FEEDS;

/** How a part's pins stand on it. */
export const OWN_LAYOUTS = {
  kept: "as in the part it came from",
  one: "in one row",
  sides: "in two rows, as the two sides of a chip or board",
  ends: "in two rows, at two ends far apart",
} as const;
export type OwnLayout = keyof typeof OWN_LAYOUTS;

/** A pin of the editor with nothing said of it but its label and role. */
export const blankPin = (label: string, role: OwnRole, supply: string, says = "") => ({
  label,
  role,
  says,
  supply,
  optional: false,
  tie: "" as const,
  tiePin: "",
  floats: false,
  rests: "" as const,
});
