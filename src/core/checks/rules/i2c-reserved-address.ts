import { i2cBuses } from "../../circuit/buses";
import { label } from "../help";
import type { Found, Rule } from "../types";
import { otherAddress } from "../i2c";

const RESERVED = (a: number) => a <= 0x07 || a >= 0x78;

export const i2cReservedAddress: Rule = {
  rule: "i2c.reserved-address",
  says: "Addresses up to 0x07 and from 0x78 belong to the bus itself (UM10204, table 3).",
  check: (c) =>
    i2cBuses(c).flatMap((b) =>
      b.members
        .filter((m) => m.address && RESERVED(Number(m.address)))
        .map((m): Found => ({
          rule: "i2c.reserved-address",
          severity: "risk",
          at: [`${m.ref}.${m.sda}`],
          message: `${label(c, m.ref)} answers to ${m.address}, which is reserved: other parts may take it for a command.`,
          evidence: { address: m.address! },
          fixes: () => otherAddress(c, m, new Set([...b.members.flatMap((x) => x.addresses), m.address!])),
        })),
    ),
};
