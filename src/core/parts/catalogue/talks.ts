/** The ways in which parts talk, as people write them; a summary, a filter and a search have the short names. */
const TALKS: Record<string, string> = {
  i2c: "I2C",
  spi: "SPI",
  uart: "serial (UART)",
  can: "CAN",
  bridge: "strain bridge",
  i2s: "I2S",
  pwm: "PWM",
  "one-wire": "one-wire",
  analogue: "analogue",
  digital: "digital",
};

/** A way of talking in words. */
export const talkWords = (talk: string): string => TALKS[talk] ?? talk;
