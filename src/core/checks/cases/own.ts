import { catalogue } from "../../testing";
import type { Part } from "../../parts/catalogue";
import { AVR, CABLE, changed, moved, CHARGER, ESP, make, part, RP, planned, USB, type Case, type Links } from "./build";

/** A part of the person's own, made from a shipped one. */
const ownPart = (from: string, id: string, change: (p: Part) => Partial<Part>): Part => {
  const base = catalogue.get(from)!;
  return { ...base, id, ...change(base) };
};

const watched = ownPart("module/ultrasonic-3v3", "module/watched", (p) => ({
  pins: p.pins.map((x) => (x.label === "ECHO" ? { ...x, need: { kind: "interrupt" as const } } : x)),
}));
const EDGES = catalogue.get("board/samd21-compact")!.pins;
const lines = (line: string) =>
  EDGES.filter((p) => p.offers?.some((o) => o.kind === "interrupt" && o.line === line)).map((p) => p.label);
const [first, same] = lines("EXTINT2");
const other = lines("EXTINT3")[0];
const free = EDGES.filter(
  (p) => p.offers?.some((o) => o.kind === "digital") && ![first, same, other].includes(p.label) && !p.hazards?.length,
).map((p) => p.label);
const edges = (second: string | undefined) =>
  make(
    [{ ref: "B1", part: "board/samd21-compact" }, USB, part("M1", "module/watched"), part("M2", "module/watched")],
    [
      CABLE,
      ...["M1", "M2"].flatMap((m, i): Links => [
        [`${m}.VCC`, "B1.3V3"],
        [`${m}.GND`, "B1.GND"],
        [`${m}.TRIG`, `B1.${free[i]}`],
      ]),
      ["M1.ECHO", `B1.${first}`],
      ["M2.ECHO", `B1.${second}`],
    ],
    { customParts: [watched] },
  );
const addressed = (address: string) =>
  make(
    [RP, USB, part("M1", "module/odd-address")],
    [CABLE, ["M1.VCC", "B1.3V3"], ["M1.GND", "B1.GND"], ["M1.SDA", "B1.GP4"], ["M1.SCL", "B1.GP5"]],
    {
      customParts: [
        ownPart("module/sht31", "module/odd-address", (p) => ({
          options: [],
          groups: p.groups.map((g) => ({ ...g, address })),
        })),
      ],
    },
  );
const silent = (VIH: string | undefined) =>
  make(
    [AVR, USB, part("M1", "module/silent")],
    [CABLE, ["M1.VCC", "B1.5V"], ["M1.GND", "B1.GND"], ["M1.TRIG", "B1.D8"], ["M1.ECHO", "B1.D2"]],
    {
      customParts: [
        ownPart("module/hc-sr04", "module/silent", (p) => {
          const level = p.levels.main!;
          const { VIH: _h, VIL: _l, ...rest } = level;
          return { levels: { main: VIH ? level : rest } };
        }),
      ],
    },
  );
const edge3 = ownPart("module/mcp3008", "module/other-edge", (p) => ({
  groups: p.groups.map((g) => ({ ...g, mode: 3 })),
}));
const modes = (id: string) =>
  planned(
    [
      RP,
      USB,
      part("M1", "module/mcp4921", {}, { decoupling: { F: 1e-7 } }),
      part("M2", id, {}, { decoupling: { F: 1e-7 } }),
    ],
    { customParts: [edge3] },
  );
const selects = (second: string) =>
  make(
    [RP, USB, part("M1", "module/st7789"), part("M2", "module/mcp3008", {}, { decoupling: { F: 1e-7 } })],
    [
      CABLE,
      ...(["M1.VCC", "M2.VDD", "M2.VREF"] as const).map((x): [string, string] => [
        x,
        x.startsWith("M1") ? "B1.VBUS" : "B1.3V3",
      ]),
      ...(["M1.GND", "M2.DGND", "M2.AGND"] as const).map((x): [string, string] => [x, "B1.GND"]),
      ...selectLinks(second),
    ],
  );
function selectLinks(second: string): Links {
  const display = catalogue.get("module/st7789")!.groups.find((g) => g.kind === "spi")!.pins;
  const converter = catalogue.get("module/mcp3008")!.groups.find((g) => g.kind === "spi")!.pins;
  const rest = catalogue
    .get("module/st7789")!
    .pins.filter((p) => p.need && !p.need.optional && !Object.values(display).includes(p.label));
  return [
    [`M1.${display.sck}`, "B1.GP18"],
    [`M1.${display.mosi}`, "B1.GP19"],
    [`M2.${converter.sck}`, "B1.GP18"],
    [`M2.${converter.mosi}`, "B1.GP19"],
    [`M2.${converter.miso}`, "B1.GP16"],
    [`M1.${display.cs}`, "B1.GP17"],
    [`M2.${converter.cs}`, second],
    ...rest.map((p, i): [string, string] => [`M1.${p.label}`, `B1.GP${10 + i}`]),
  ];
}
const clocked = (clock_Hz: number) =>
  planned([RP, USB, part("M1", "module/st7789")], {
    buses: ["spi0", "spi1"].map((bus) => ({ host: "B1", bus, clock_Hz })),
  });
const listeners = (second: string) =>
  make(
    [ESP, CHARGER, part("M1", "module/hc05"), part("M2", "module/gps-neo6m")],
    [
      CABLE,
      ["M1.VCC", "B1.5V"],
      ["M1.GND", "B1.GND"],
      ["M1.RX", "B1.GPIO17"],
      ["M2.VCC", "B1.5V"],
      ["M2.GND", "B1.GND"],
      ["M2.RX", `B1.${second}`],
    ],
  );

const select = (button: string) => {
  const p = planned([AVR, USB, part("M1", "module/max6675"), part("SW1", "discrete/button")]);
  return changed(moved(moved(p, "M1.CS", "B1.D9"), "SW1.1", `B1.${button}`));
};

/** Cases that need parts of the person's own, or more than a line of wires. */
export const ownCases: Case[] = [
  {
    rule: "pin.interrupts",
    severity: "fault",
    says: "two watched inputs on one edge line",
    bad: () => edges(same),
    near: () => edges(other),
  },
  {
    rule: "i2c.reserved-address",
    severity: "risk",
    says: "a part at 0x78",
    bad: () => addressed("0x78"),
    near: () => addressed("0x77"),
  },
  {
    rule: "part.data-missing",
    severity: "note",
    says: "a part without thresholds",
    bad: () => silent(undefined),
    near: () => silent("2.0"),
  },
  {
    rule: "spi.mode",
    severity: "note",
    says: "two parts that read different edges",
    bad: () => modes("module/other-edge"),
    near: () => modes("module/mcp3008"),
  },
  {
    rule: "spi.cs-shared",
    severity: "fault",
    says: "two parts on one select",
    bad: () => selects("B1.GP17"),
    near: () => selects("B1.GP20"),
    fix: "own-select",
  },
  {
    rule: "spi.clock",
    severity: "risk",
    says: "20 MHz over loose leads",
    bad: () => clocked(20_000_000),
    near: () => clocked(4_000_000),
    fix: "slower",
  },
  {
    rule: "spi.own-select",
    severity: "risk",
    says: "a button on the controller's own select",
    bad: () => select("D10"),
    near: () => select("D4"),
    fix: "move-pin",
  },
  {
    rule: "uart.shared",
    severity: "fault",
    says: "a radio link and a receiver on one transmit line",
    bad: () => listeners("GPIO17"),
    near: () => listeners("GPIO27"),
  },
];
