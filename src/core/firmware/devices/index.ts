/** The devices, one file a part (or a kind of part). Adding one is a file and a line here. */
import { ads1115 } from "./ads1115";
import { adxl345 } from "./adxl345";
import { aht20 } from "./aht20";
import { apa102 } from "./apa102";
import { apds9960 } from "./apds9960";
import { as5600 } from "./as5600";
import { bh1750 } from "./bh1750";
import { bme280 } from "./bme280";
import { bmp280 } from "./bmp280";
import { ccs811 } from "./ccs811";
import { ds1307, ds3231, pcf8563 } from "./clocks";
import { echoes } from "./echoes";
import { mcp23017, pcf8574 } from "./expanders";
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
import {
  cd4067,
  a3144,
  flame,
  flex,
  fsr,
  irObstacle,
  max4466,
  microwave,
  mq135,
  mq3,
  mq7,
  rain,
  slotBarrier,
  soundThreshold,
  tilt,
  ttp223,
  vibration,
  waterLevel,
  acs712,
  buttonModule,
  encoder,
  joystick,
  ldr,
  ldrModule,
  limitSwitch,
  max9814,
  mq2,
  pir,
  potentiometer,
  soilCapacitive,
  soilResistive,
  tcrt5000,
  thermistor,
} from "./signals";
import { mcp3008, mcp4725, mcp4921 } from "./converters";
import { dht11, dht22 } from "./dht22";
import { ds18b20 } from "./ds18b20";
import { hx711 } from "./hx711";
import { irReceiver } from "./infrared";
import { keypad } from "./keypad";
import { hc165, hc595 } from "./lines";
import { max7219Digits, max7219Matrix } from "./max7219";
import { gps, mhz19b, pms5003 } from "./serial";
import { mcp2515 } from "./mcp2515";
import { at24c32, tca9548a } from "./memories";
import { a4988, drv8833, l298n, servoLarge, servoSmall, tb6612, uln2003 } from "./motors";
import { lcd2004, lcdI2c, lcdParallel } from "./lcd";
import { ht16k33 } from "./numbers";
import { ili9341, st7735, st7789 } from "./panels";
import { pca9685 } from "./pca9685";
import { nrf24l01, rfm95 } from "./radios";
import { rc522 } from "./rc522";
import { sd3v3, sdShifted } from "./sd";
import { buzzerPassive, gauge, speaker } from "./sounds";
import {
  buzzerActive,
  digits,
  ledRgb,
  ledRgbCa,
  mosfetSwitch,
  optocoupler,
  relay1,
  relay2,
  relay4,
  relay8,
  transistors,
} from "./switches";
import { hc05, max3485, max485, mp3Player, usbUart3v3, usbUart5v } from "./talk";
import { ssd1306I2c, ssd1306Spi } from "./ssd1306";
import { inmp441 } from "./microphone";
import { max31855, max6675 } from "./thermocouples";
import { vl53l0x } from "./vl53l0x";
import { w5500 } from "./w5500";
import type { Device, DeviceKind, Wired } from "./types";

const LIST: readonly (Device | DeviceKind)[] = [
  ads1115,
  adxl345,
  aht20,
  apds9960,
  as5600,
  bh1750,
  bme280,
  bmp280,
  ccs811,
  ds1307,
  ds3231,
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
  gps,
  mhz19b,
  pms5003,
  max31855,
  max6675,
  mcp3008,
  mcp4725,
  mcp4921,
  max7219Digits,
  max7219Matrix,
  nrf24l01,
  rfm95,
  w5500,
  mcp2515,
  rc522,
  ds18b20,
  dht22,
  dht11,
  hx711,
  keypad,
  hc165,
  hc595,
  at24c32,
  tca9548a,
  vl53l0x,
  pca9685,
  a3144,
  pir,
  buttonModule,
  limitSwitch,
  acs712,
  max9814,
  soilCapacitive,
  ldr,
  potentiometer,
  ldrModule,
  tcrt5000,
  mq2,
  soilResistive,
  joystick,
  thermistor,
  encoder,
  cd4067,
  flame,
  soundThreshold,
  rain,
  mq3,
  mq7,
  mq135,
  irObstacle,
  vibration,
  slotBarrier,
  tilt,
  ttp223,
  microwave,
  max4466,
  waterLevel,
  fsr,
  flex,
  relay1,
  relay2,
  relay4,
  relay8,
  buzzerActive,
  optocoupler,
  mosfetSwitch,
  ...transistors,
  ledRgb,
  ledRgbCa,
  ...digits,
  buzzerPassive,
  speaker,
  gauge,
  servoSmall,
  servoLarge,
  l298n,
  tb6612,
  drv8833,
  uln2003,
  a4988,
  ht16k33,
  lcdI2c,
  lcd2004,
  lcdParallel,
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
  st7735,
  st7789,
  ili9341,
];

/** All kinds, by the part that each is for. */
export const DEVICES: readonly DeviceKind[] = LIST.map((d) => ("of" in d ? d : { id: d.id, of: () => d, cases: [{}] }));

/** A wiring with everything that it says nothing of as it is most often: all pins wired, one piece, no options. */
export const wired = (w: Partial<Wired>): Wired => ({ has: () => true, chain: 1, options: {}, vars: {}, ...w });
