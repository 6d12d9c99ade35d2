/** Projects that the cases of several rules are made of. */
import { AVR, CABLE, make, part, RP, USB, type Links } from "./build";

export const bus = (list: object[], more: object = {}) => {
  const links: Links = list.flatMap((p): Links => {
    const ref = (p as { ref: string }).ref;
    return [
      [`${ref}.VCC`, "B1.5V"],
      [`${ref}.GND`, "B1.GND"],
      [`${ref}.SDA`, "B1.A4"],
      [`${ref}.SCL`, "B1.A5"],
    ];
  });
  return make([AVR, USB, ...list], [CABLE, ...links], more);
};

export const bus3 = (list: object[], more: object = {}) => {
  const links: Links = list.flatMap((p): Links => {
    const ref = (p as { ref: string }).ref;
    return [
      [`${ref}.VCC`, "B1.3V3"],
      [`${ref}.GND`, "B1.GND"],
      [`${ref}.SDA`, "B1.GP4"],
      [`${ref}.SCL`, "B1.GP5"],
    ];
  });
  return make([RP, USB, ...list], [CABLE, ...links], more);
};

export const air = (address: string, more: object = {}) => ({ ...part("M1", "module/bme280", { address }), ...more });

export const text = part("M1", "module/lcd1602-i2c");

export const pot = (board: object, rail: string, pin: string, resistance_ohm = 10_000) =>
  make(
    [board, USB, part("RV1", "discrete/potentiometer", { resistance_ohm })],
    [CABLE, ["RV1.1", rail], ["RV1.3", "B1.GND"], ["RV1.2", `B1.${pin}`]],
  );
