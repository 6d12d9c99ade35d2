import { CHARGER, part, RP, planned, type Case } from "../cases/build";

const spi = (list: object[], more: object = {}) => planned([RP, CHARGER, ...list], more);

const shifted = part("M1", "module/sd-shifted");

const plain = part("M1", "module/mcp3008", {}, { decoupling: { F: 1e-7 } });

const thermo = part("M2", "module/rc522");

export const spiMisoHeldCases: Case[] = [
  {
    rule: "spi.miso-held",
    severity: "fault",
    says: "a display that does not let go, beside a card",
    bad: () => spi([shifted, thermo]),
    near: () => spi([plain, thermo]),
  },
];
