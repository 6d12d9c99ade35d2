import { DEVICES, wired } from "../devices";
import type { Part } from "../../parts/catalogue";

const ways = new Map(DEVICES.map((d) => [d.id, d.of(wired(d.cases[0] ?? {})).over?.kind ?? "i2c"]));

/** The way of talking that a part shares with others; null where its code is its own. */
export const wayOf = (part: Part): string | null =>
  ways.get(part.id) ?? (part.groups.some((g) => g.kind === "i2c") ? "i2c" : null);
