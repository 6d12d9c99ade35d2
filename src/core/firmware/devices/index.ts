/** The devices, one file a part (or a kind of part). Adding one is a file and a line here. */
import { ads1115 } from "./ads1115";
import { adxl345 } from "./adxl345";
import { aht20 } from "./aht20";
import { apds9960 } from "./apds9960";
import { as5600 } from "./as5600";
import { bh1750 } from "./bh1750";
import { bmp280 } from "./bmp280";
import { ccs811 } from "./ccs811";
import { ds1307, ds3231, pcf8563 } from "./clocks";
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
import { veml7700 } from "./veml7700";
import type { Device } from "./types";

export const DEVICES: readonly Device[] = [
  ads1115,
  adxl345,
  aht20,
  apds9960,
  as5600,
  bh1750,
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
  scd41,
  sgp40,
  sht31,
  veml7700,
];
