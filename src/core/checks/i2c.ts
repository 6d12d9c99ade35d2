/** For the rules: what several rules about I2C name and mend. */
import type { Circuit } from "../circuit";
import type { I2cBus, I2cMember } from "../circuit/buses";
import { label } from "./help";
import type { Fix } from "./types";

export const sdaOf = (b: I2cBus) => b.members.map((m) => `${m.ref}.${m.sda}`);

export const names = (c: Circuit, list: readonly { ref: string }[]) => list.map((m) => label(c, m.ref)).join(", ");

export function otherAddress(c: Circuit, m: I2cMember, taken: Set<string>): Fix[] {
  const option = c.netlist.instance(m.ref)?.part.options.find((o) => o.key === "address");
  if (option?.kind !== "choice") return [];
  return option.choices
    .filter((x) => !taken.has(x.value.toLowerCase()))
    .map((x) => ({
      id: `address-${x.value}`,
      label: `Set ${label(c, m.ref)} to ${x.value} (${x.label.replace(/^0x..: /i, "")})`,
      edits: [{ type: "setOption", ref: m.ref, key: "address", value: x.value }],
    }));
}

export const setClock = (b: I2cBus, clock_Hz: number | null, words: string): Fix[] =>
  b.host && b.bus
    ? [{ id: "slower", label: words, edits: [{ type: "setBus", host: b.host, bus: b.bus, clock_Hz }] }]
    : [];
