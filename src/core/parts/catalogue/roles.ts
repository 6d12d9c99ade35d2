/** Roles that a person can give to a connector's pin, seen from the board; bus roles are the other end's own. */
export const PIN_ROLES = [
  "digital-in",
  "digital-out",
  "digital-io",
  "open-drain",
  "analog-in",
  "analog-out",
  "pwm",
  "supply-in",
  "supply-out",
  "ground",
  "i2c.sda",
  "i2c.scl",
  "spi.sck",
  "spi.mosi",
  "spi.miso",
  "spi.cs",
  "uart.tx",
  "uart.rx",
] as const;
export type PinRole = (typeof PIN_ROLES)[number];

/** How many parts stand side by side at most. */
export const MOST_COMPARED = 4;
