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
});
