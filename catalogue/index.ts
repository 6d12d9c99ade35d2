/** The shipped parts in catalogue order. Adding a part is one JSON file and one line here. */
import atmega328pLong from "./board/atmega328p-long.json";
import rp2040Forty from "./board/rp2040-forty.json";
import bme280 from "./module/bme280.json";
import ssd1306I2c from "./module/ssd1306-i2c.json";
import hcSr04 from "./module/hc-sr04.json";
import ws2812bStrip from "./module/ws2812b-strip.json";
import buffer74ahct125 from "./module/buffer-74ahct125.json";
import ledRed from "./discrete/led-red.json";
import button from "./discrete/button.json";
import resistor from "./discrete/resistor.json";
import electrolytic from "./discrete/electrolytic.json";
import capacitor from "./discrete/capacitor.json";
import usbPort from "./supply/usb-port.json";
import adapter5v2a from "./supply/adapter-5v-2a.json";

export const shippedParts: readonly unknown[] = [
  atmega328pLong,
  rp2040Forty,
  bme280,
  ssd1306I2c,
  hcSr04,
  ws2812bStrip,
  buffer74ahct125,
  ledRed,
  button,
  resistor,
  electrolytic,
  capacitor,
  usbPort,
  adapter5v2a,
];
