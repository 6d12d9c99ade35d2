/** The parts as they answer by their data sheets, one file a part (or a kind of part). Adding one is a file and a line here. */
import { ads1115 } from "./ads1115";
import { adxl345 } from "./adxl345";
import { aht20 } from "./aht20";
import { apa102 } from "./apa102";
import { apds9960 } from "./apds9960";
import { as5600 } from "./as5600";
import { bh1750 } from "./bh1750";
import { bme280, bmp280 } from "./bmp280";
import { ccs811 } from "./ccs811";
import { ds3231, ds1307, pcf8563 } from "./clocks";
import { pcf8574, mcp23017 } from "./expanders";
import { ina219 } from "./ina219";
import { lsm6ds3 } from "./lsm6ds3";
import { max30102 } from "./max30102";
import { mlx90614 } from "./mlx90614";
import { mpu6050 } from "./mpu6050";
import { qmc5883l } from "./qmc5883l";
import { scd41 } from "./scd41";
import { sgp40 } from "./sgp40";
import { sht31 } from "./sht31";
import { sht40 } from "./sht40";
import { veml7700 } from "./veml7700";
import { actors } from "./actors";
import { mcp3008, mcp4725, mcp4921 } from "./converters";
import { echoes } from "./echoes";
import { irReceiver } from "./infrared";
import { hc165, hc595, keypad } from "./lines";
import { max7219Digits, max7219Matrix } from "./max7219";
import { mcp2515 } from "./mcp2515";
import { at24c32, tca9548a, vl53l0x } from "./memories";
import { ht16k33, lcd2004, lcdI2c, lcdParallel, pca9685 } from "./numbers";
import { ili9341, st7735, st7789 } from "./panels";
import { ssd1306I2c, ssd1306Spi } from "./ssd1306";
import { nrf24l01, rfm95 } from "./radios";
import { rc522 } from "./rc522";
import { sd3v3, sdShifted } from "./sd";
import { gps, mhz19b, pms5003 } from "./serial";
import { signals } from "./signals";
import { dht11, dht22, ds18b20, hx711 } from "./single-wires";
import { hc05, max3485, max485, mp3Player, usbUart3v3, usbUart5v } from "./talk";
import { inmp441 } from "./microphone";
import { max31855, max6675 } from "./thermocouples";
import { w5500 } from "./w5500";
import type { Model } from "./types";

export const MODELS: readonly Model[] = [
  ads1115,
  adxl345,
  aht20,
  apds9960,
  as5600,
  bh1750,
  bme280,
  bmp280,
  ccs811,
  ds3231,
  ds1307,
  pcf8563,
  pcf8574,
  mcp23017,
  ina219,
  lsm6ds3,
  max30102,
  mlx90614,
  mpu6050,
  qmc5883l,
  ...echoes,
  scd41,
  sgp40,
  sht31,
  sht40,
  veml7700,
  ...actors,
  ...signals,
  mcp3008,
  mcp4725,
  mcp4921,
  hc165,
  hc595,
  keypad,
  max7219Digits,
  max7219Matrix,
  mcp2515,
  at24c32,
  tca9548a,
  vl53l0x,
  ht16k33,
  lcdI2c,
  lcd2004,
  lcdParallel,
  pca9685,
  st7735,
  st7789,
  ili9341,
  ssd1306I2c,
  ssd1306Spi,
  hc05,
  usbUart3v3,
  usbUart5v,
  inmp441,
  max3485,
  max485,
  mp3Player,
  irReceiver,
  apa102,
  sd3v3,
  sdShifted,
  nrf24l01,
  rfm95,
  rc522,
  dht22,
  dht11,
  ds18b20,
  hx711,
  max31855,
  max6675,
  w5500,
  gps,
  mhz19b,
  pms5003,
];
