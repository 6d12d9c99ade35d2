import { catalogue } from "../../testing";
import { CABLE, make, part, RP, USB, type Case, type Links } from "../cases/build";

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

export const spiCsSharedCases: Case[] = [
  {
    rule: "spi.cs-shared",
    severity: "fault",
    says: "two parts on one select",
    bad: () => selects("B1.GP17"),
    near: () => selects("B1.GP20"),
    fix: "own-select",
  },
];
