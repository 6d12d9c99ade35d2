/** Needs that a controller of the chip serves, all lines of a part by one instance. */
export const BUS_KINDS = ["i2c", "spi", "uart", "can"] as const;
const set: ReadonlySet<string> = new Set(BUS_KINDS);

/** Whether a kind of need or group is served by a bus controller. */
export const isBusKind = (kind: string) => set.has(kind);

/** Buses whose port takes one device. */
export const isPointToPoint = (kind: string) => kind === "uart" || kind === "can";
