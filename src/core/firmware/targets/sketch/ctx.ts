import type { Circuit } from "../../../circuit";
import { I2C_CLOCK_HZ } from "../../../circuit/buses";
import { driverOf } from "../../drivers";
import { STRIP_SEND } from "../../drivers/strip-send";
import { busClock, busNumber, pinConstants } from "../../pins";
import type { Ruled } from "../../rules";
import type { Nap } from "../../sleep";
import { usbHelpers, usbIncludes, usbState } from "../../usb/ways";
import type { DriverPart, FirmwareFile } from "../../types";

/** What a sketch is written from: one board of a project. */
export interface Ctx {
  c: Circuit;
  host: string;
  family: string;
  parts: DriverPart[];
  /** What the program does when. */
  ruled: Ruled;
  title: string;
  /** The plan's fingerprint: the program prints it, so that sheet and program can be compared. */
  plan: string;
  /** The board's own light, where the plan leaves it alone: its pin, and the level that lights it. */
  light: { code: string; lit: 0 | 1 } | null;
  /** The console comes over the chip's own USB: it may be opened long after the program has begun. */
  lateConsole: boolean;
  /** It is on the local network and shows its readings there. */
  online: boolean;
  /** Its starter sleeps between readings. */
  nap: Nap | null;
}

/** The bus that a family's core calls `Wire`, where it is not the chip's number 0. */
const FIRST_BUS: Partial<Record<string, string>> = { stm32: "i2c1" };
/** Families whose core has one bus object: programs make the others. */
const MAKES_BUSES = new Set(["stm32"]);

/** What a bus of the plan is called in a family's core. */
export const busNames = (family: string) => (bus: string) =>
  bus === (FIRST_BUS[family] ?? "i2c0") ? "Wire" : `Wire${busNumber(bus)}`;
export const indent = (text: string, by = "  ") => text.replace(/^(?=.)/gm, by);

const banner = (x: Ctx, what: string) =>
  `// ${x.title}: ${what}\n// Written from wiring plan ${x.plan}. Change the plan, not the pin numbers here.\n`;

/** The constants of all planned pins. */
export function pinsFile(x: Ctx): FirmwareFile {
  const lines = pinConstants(x.c, x.host, "sketch").map(
    (p) => `constexpr uint8_t ${p.name} = ${p.code};  // ${p.hostPin}: ${p.says}`,
  );
  // The names of analogue pins come from the core.
  return { path: "pins.h", text: `${banner(x, "pins")}#pragma once\n#include <Arduino.h>\n\n${lines.join("\n")}\n` };
}

/** How a family's core is told that a bus sits on other pins than usual. */
const BUS_PINS: Record<string, (bus: string, sda: string, scl: string) => string> = {
  esp32: (bus, sda, scl) => `${bus}.begin(${sda}, ${scl});`,
  esp8266: (bus, sda, scl) => `${bus}.begin(${sda}, ${scl});`,
  nrf52: (bus, sda, scl) => `${bus}.setPins(${sda}, ${scl});\n${bus}.begin();`,
};
const setPins = (bus: string, sda: string, scl: string) =>
  `${bus}.setSDA(${sda});\n${bus}.setSCL(${scl});\n${bus}.begin();`;

/** Begins the buses: on the planned pins, at the clock that the checks reckon with. */
export function busSetup(x: Ctx): string {
  const lines = new Set<string>();
  for (const p of x.parts) {
    const g = p.inst.part.groups.find((k) => k.kind === "i2c");
    if (!g || !p.bus || p.via) continue;
    const board = x.c.netlist.instance(x.host)!.part;
    const usual = (label: string) =>
      board.pins.find((q) => q.label === p.printed(label))?.offers?.some((o) => o.kind === "i2c" && o.usual);
    const moved = !usual(g.pins.sda!) || !usual(g.pins.scl!);
    const [sda, scl] = [p.pin(g.pins.sda!), p.pin(g.pins.scl!)];
    const made = MAKES_BUSES.has(x.family) && p.bus !== "Wire";
    lines.add(
      moved && !made && x.family !== "avr" ? (BUS_PINS[x.family] ?? setPins)(p.bus, sda, scl) : `${p.bus}.begin();`,
    );
    // The core's own clock is the usual one.
    const hz = busClock(x.c, x.host, p.bus, busNames(x.family));
    if (hz !== I2C_CLOCK_HZ) lines.add(`${p.bus}.setClock(${hz});`);
    if (x.family === "avr")
      lines.add(`${p.bus}.setWireTimeout(25000, true);  // a stuck bus must not stop the program`);
  }
  return [...lines].join("\n");
}

/** Bus objects that the core does not have. */
const madeBuses = (x: Ctx) =>
  MAKES_BUSES.has(x.family)
    ? [
        ...new Set(
          x.parts.flatMap((p) => {
            const g = p.inst.part.groups.find((k) => k.kind === "i2c");
            return g && p.bus && !p.via && p.bus !== "Wire"
              ? [`static TwoWire ${p.bus}(${p.pin(g.pins.sda!)}, ${p.pin(g.pins.scl!)});`]
              : [];
          }),
        ),
      ]
    : [];

/** Includes, helpers of the kinds that are there, and the parts' objects. */
export function head(x: Ctx, what: string, sent: readonly DriverPart[] = []): string {
  const drivers = [...new Set(x.parts.flatMap((p) => driverOf(p) ?? []))];
  const includes = new Set(["<Arduino.h>"]);
  if (x.parts.some((p) => p.bus)) includes.add("<Wire.h>");
  for (const i of usbIncludes(sent)) includes.add(i);
  const helpers = new Set(
    [
      ...drivers.flatMap((d) => d.sketch?.helpers ?? []),
      ...x.parts.flatMap((p) => driverOf(p)?.sketch?.helpersFor?.(p) ?? []),
    ]
      .filter((h) => h !== "")
      .map((h) => h.replace("@STRIP_SEND@", STRIP_SEND[x.family]?.code ?? "")),
  );
  const globals = x.parts.flatMap((p) => driverOf(p)?.sketch?.globals?.(p) ?? []);
  return [
    banner(x, what),
    [...includes].map((i) => `#include ${i}`).join("\n"),
    '#include "pins.h"\n',
    ...madeBuses(x),
    ...[...helpers].map((h) => `${h}\n`),
    ...usbHelpers(sent),
    ...sent.map(usbState),
    ...globals,
  ].join("\n");
}

/** Resting levels come first: nothing that is switched by a pin may twitch while the rest begins. */
export const setups = (x: Ctx) => x.parts.flatMap((p) => driverOf(p)?.sketch?.setup?.(p) ?? []).join("\n");
