import type { Circuit } from "../../../circuit";
import { findPin } from "../../../parts/catalogue";
import { driverOf } from "../../drivers";
import { busClock, busNumber, pinConstants } from "../../pins";
import type { Ruled } from "../../rules";
import type { Nap } from "../../sleep";
import type { DriverPart, FirmwareFile } from "../../types";

export const indent = (text: string, by = "    ") => text.replace(/^(?=.)/gm, by);

/** What the programs of one board are written from. */
export interface Ctx {
  c: Circuit;
  host: string;
  target: "micropython" | "python";
  family: string;
  parts: DriverPart[];
  /** What the program does when. */
  ruled: Ruled;
  title: string;
  /** The plan's fingerprint: the program prints it, so that sheet and program can be compared. */
  plan: string;
  /** The board's own light, where the plan leaves it alone. */
  light: { code: string; lit: 0 | 1 } | null;
  /** It is on the local network and shows its readings there. */
  online: boolean;
  /** Its starter sleeps between readings. */
  nap: Nap | null;
}

const banner = (x: Ctx, what: string) =>
  `# ${x.title}: ${what}\n# Written from wiring plan ${x.plan}. Change the plan, not the pin numbers here.\n`;

export function pinsFile(x: Ctx): FirmwareFile {
  const lines = pinConstants(x.c, x.host, x.target).map((p) => {
    const number = findPin(x.c.netlist.instance(x.host)!.part, p.hostPin)?.names?.[x.target];
    return `${p.name} = ${number ?? JSON.stringify(p.code)}  # ${p.hostPin}: ${p.says}`;
  });
  return { path: "pins.py", text: `${banner(x, "pins")}\n${lines.join("\n")}\n` };
}

/** Families whose bus is timed by the program on any pins: it has no number. */
const UNNUMBERED = new Set(["esp8266"]);

/** I2C objects by bus, at the clock that the checks reckon with. */
export function buses(x: Ctx): string {
  const seen = new Map<string, string>();
  for (const p of x.parts) {
    const g = p.inst.part.groups.find((k) => k.kind === "i2c");
    if (!g || !p.bus || p.via || seen.has(p.bus)) continue;
    if (p.soft) {
      seen.set(
        p.bus,
        `${p.bus} = SoftI2C(sda=Pin(pins.${p.pin(g.pins.sda!)}), scl=Pin(pins.${p.pin(g.pins.scl!)}), freq=${Math.floor(500_000 / p.halfClock_us!)})`,
      );
      continue;
    }
    const hz = busClock(x.c, x.host, p.bus, (b) => b);
    const number = UNNUMBERED.has(x.family) ? "" : `${busNumber(p.bus)}, `;
    seen.set(
      p.bus,
      `${p.bus} = I2C(${number}sda=Pin(pins.${p.pin(g.pins.sda!)}), scl=Pin(pins.${p.pin(g.pins.scl!)}), freq=${hz})`,
    );
  }
  for (const p of x.parts)
    if (p.via) seen.set(p.bus, `${p.bus} = Channel(${p.via.bus}, ${p.via.address}, ${p.via.channel})`);
  return [...seen.values()].join("\n");
}

/** Imports of the program. */
export function head(x: Ctx, what: string): string {
  const drivers = [...new Set(x.parts.flatMap((p) => driverOf(p) ?? []))];
  const machine = [
    "Pin",
    ...(x.parts.some((p) => p.bus && !p.soft) ? ["I2C"] : []),
    ...(x.parts.some((p) => p.bus && p.soft) ? ["SoftI2C"] : []),
  ].sort();
  const imports = new Set([
    ...drivers.flatMap((d) => d.micropython?.imports ?? []),
    ...x.parts.flatMap((p) => driverOf(p)?.micropython?.importsFor?.(p) ?? []),
    ...(x.parts.some((p) => p.via) ? ["from lib.channel import Channel"] : []),
  ]);
  return [banner(x, what), `from machine import ${machine.join(", ")}`, "import time", "import pins", ...imports].join(
    "\n",
  );
}

export const setups = (x: Ctx) => x.parts.flatMap((p) => driverOf(p)?.micropython?.setup?.(p) ?? []).join("\n");
