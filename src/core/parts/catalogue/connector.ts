import { z } from "zod";
import { PRINTED_LABEL } from "./printed-label";
import { PIN_ROLES, type PinRole } from "./roles";
import type { Level, Part, Pin, Supply } from "./schema";

/** Names and roles that a person gives to the pins of a connector or harness: `options.pins`. `null`: not used. */
export const ConnectorPinsSchema = z.record(
  z.string().max(20),
  z
    .strictObject({
      name: z.string().regex(PRINTED_LABEL, "a name of up to 20 letters, digits and + - _ . ' /").optional(),
      role: z.enum(PIN_ROLES).optional(),
      V: z.number().positive().max(1000).optional(),
      mA: z.number().min(0).max(20_000).optional(),
    })
    .nullable(),
);
export type ConnectorPins = z.infer<typeof ConnectorPinsSchema>;

/** Assumed where the person gives no voltage: what most plugs carry, and the side that a 3.3 V board must be warned of. */
const DEFAULT_V = 5;
const TOLERANCE = 0.05;
const round = (v: number) => Number(v.toFixed(4));
const spread = (v: number) => ({ min: round(v * (1 - TOLERANCE)), typ: v, max: round(v * (1 + TOLERANCE)) });

/** What the other end's pin does, by role. `need` is what the board must offer. */
const AS: Record<Exclude<PinRole, "supply-in" | "supply-out" | "ground">, Pick<Pin, "io" | "need">> = {
  "digital-in": { io: "out", need: { kind: "digital-in" } },
  "digital-out": { io: "in", need: { kind: "digital-out" } },
  "digital-io": { io: "bidir", need: { kind: "digital-io" } },
  "open-drain": { io: "open-drain", need: { kind: "digital-io" } },
  "analog-in": { io: "analog-out", need: { kind: "adc" } },
  "analog-out": { io: "analog-in", need: { kind: "dac" } },
  pwm: { io: "in", need: { kind: "pwm" } },
  "i2c.sda": { io: "open-drain", need: { kind: "i2c", role: "sda" } },
  "i2c.scl": { io: "open-drain", need: { kind: "i2c", role: "scl" } },
  "spi.sck": { io: "in", need: { kind: "spi", role: "sck" } },
  "spi.mosi": { io: "in", need: { kind: "spi", role: "mosi" } },
  "spi.miso": { io: "out", need: { kind: "spi", role: "miso" } },
  "spi.cs": { io: "in", need: { kind: "digital-out" } },
  "uart.tx": { io: "out", need: { kind: "uart", role: "rx" } },
  "uart.rx": { io: "in", need: { kind: "uart", role: "tx" } },
};

/** A signal of a device that nobody has a data sheet for: usual CMOS fractions, outputs weak, inputs strict. */
function unknownLevel(supply: string, io: Pin["io"]): Level {
  const analog = io === "analog-in" || io === "analog-out";
  const drives = io === "out" || io === "bidir" || io === "analog-out";
  return {
    supply,
    ...(!analog && { VIH: "0.7*V", VIL: "0.2*V" }),
    ...(drives && { VOH: analog ? "V" : "V-0.8" }),
    VOL: analog ? 0 : "0.4",
    absMax: "V+0.3",
    absMin: -0.3,
    input: analog ? "analog" : "cmos",
    output: io === "open-drain" ? "open-drain" : analog ? "analog" : drives ? "push-pull" : "none",
    C_pF: 50,
  };
}

const key = (prefix: string, V: number) => `${prefix}${Math.round(V * 1000)}mV`;

function busGroups(part: Part, pins: ConnectorPins): Part["groups"] {
  const at = (role: PinRole) => Object.keys(pins).find((label) => pins[label]?.role === role);
  const group = (kind: "i2c" | "spi" | "uart", roles: [string, PinRole][], all: boolean): Part["groups"] => {
    const found = roles.flatMap(([name, role]): [string, string][] => {
      const label = at(role);
      return label ? [[name, label]] : [];
    });
    if (!found.length || (all && found.length < roles.length)) return [];
    return [{ id: kind, kind, pins: Object.fromEntries(found) }];
  };
  return [
    ...part.groups,
    ...group(
      "i2c",
      [
        ["sda", "i2c.sda"],
        ["scl", "i2c.scl"],
      ],
      true,
    ),
    ...group(
      "spi",
      [
        ["sck", "spi.sck"],
        ["mosi", "spi.mosi"],
        ["miso", "spi.miso"],
        ["cs", "spi.cs"],
      ],
      false,
    ),
    ...group(
      "uart",
      [
        ["rx", "uart.tx"],
        ["tx", "uart.rx"],
      ],
      false,
    ),
  ];
}

/** The connector's definition with the person's names and roles put in. The pin keeps its number; its name is an alias. */
export function connectorPins(part: Part, pins: ConnectorPins): Part {
  const supplies: Record<string, Supply> = { ...part.supplies };
  const levels: Record<string, Level> = { ...part.levels };
  const named = part.pins.map((pin): Pin => {
    const given = pins[pin.label] ?? pin.aliases?.map((a) => pins[a]).find((x) => x !== undefined);
    if (given === undefined && pins[pin.label] !== null) return pin;
    if (!given) return { ...pin, role: "nc", says: "not used" };
    const clash = part.pins.some((p) => p !== pin && (p.label === given.name || p.aliases?.includes(given.name ?? "")));
    const base: Pin = {
      ...pin,
      ...(given.name && { says: given.name, called: given.name }),
      ...(given.name && !clash && given.name !== pin.label && { aliases: [...(pin.aliases ?? []), given.name] }),
    };
    if (!given.role) return base;
    const V = given.V ?? DEFAULT_V;
    if (given.role === "ground") return { ...base, role: "ground", domain: "gnd" };
    if (given.role === "supply-in") {
      const name = key("from", V);
      supplies[name] ??= {
        label: `${V} V from the plug`,
        domain: "gnd",
        V: spread(V),
        source: { V: spread(V), limit_mA: given.mA ?? 500 },
      };
      return { ...base, role: "supply-out", supply: name };
    }
    if (given.role === "supply-out") {
      const name = key("to", V);
      const mA = given.mA ?? 0;
      supplies[name] ??= {
        label: `${V} V to the plug`,
        domain: "gnd",
        // A printed voltage, not a range: such devices take what a board's diode and a long cable leave of it.
        V: { min: V * 0.85, typ: V, max: V * 1.1 },
        mA: { idle: 0, typ: mA, peak: mA },
      };
      return { ...base, role: "supply-in", supply: name };
    }
    // The device behind the plug runs from its own supply of that voltage: a source that gives nothing to anybody.
    const inside = key("device", V);
    supplies[inside] ??= {
      label: `device, ${V} V`,
      domain: "gnd",
      V: spread(V),
      source: { V: spread(V), limit_mA: 0 },
    };
    const as = AS[given.role];
    const level = `${as.io!.replace("-", "_")}_${inside}`;
    levels[level] ??= unknownLevel(inside, as.io);
    return { ...base, role: "signal", level, ...as };
  });
  return { ...part, pins: named, supplies, levels, groups: busGroups(part, pins), bringup: { driver: "generic" } };
}
