import { part, type Case } from "../cases/build";
import { bus3, air } from "../cases/buses";

const two = (a: string, b: string) => bus3([air(a), part("M2", "module/bme280", { address: b })]);

export const i2cAddressClashCases: Case[] = [
  {
    rule: "i2c.address-clash",
    severity: "fault",
    says: "two air sensors at one address",
    bad: () => two("0x76", "0x76"),
    near: () => two("0x76", "0x77"),
    fix: "address-0x77",
  },
];
