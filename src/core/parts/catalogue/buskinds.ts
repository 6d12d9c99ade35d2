/** Needs that a controller of the chip serves, all lines of a part by one instance. */
export const BUS_KINDS = ["i2c", "spi", "uart", "can", "bridge", "i2s"] as const;
const set: ReadonlySet<string> = new Set(BUS_KINDS);

/** Whether a kind of need or group is served by a bus controller. */
export const isBusKind = (kind: string) => set.has(kind);

/** Buses whose port takes one device, and what is said where two want it. */
const ONE_EACH: Record<string, string> = {
  uart: "a serial port takes one device",
  can: "a CAN port takes one transceiver",
  i2s: "a port for sound takes one device",
  bridge: "an amplifier's channel takes one bridge",
};
export const isPointToPoint = (kind: string) => kind in ONE_EACH;
/** Why two devices can't be on one port of a kind that takes one. */
export const oneEach = (kind: string) => ONE_EACH[kind]!;

/** Buses that a program can do on plain pins. */
export const isSoftwareBus = (kind: string) => kind === "i2c" || kind === "spi" || kind === "uart";
