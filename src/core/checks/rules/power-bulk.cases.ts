import { AVR, CABLE, make, part, RP, planned, USB, type Case } from "../cases/build";
import { DATA } from "../cases/power";

function radio(bulk: object | null) {
  const module = part("M1", "module/nrf24l01", {}, bulk ? { bulkCapacitor: bulk } : {});
  const links = planned([RP, USB, part("M1", "module/nrf24l01")]).links.map((l): [string, string] => [l.from, l.to]);
  return make([RP, USB, module], links);
}

function onUsb2(F: number | null) {
  return make(
    [
      AVR,
      USB,
      part(
        "M1",
        "module/ws2812b-strip",
        { pixels: 6, brightness: 0.4 },
        { ...DATA, ...(F !== null && { bulkCapacitor: { F } }) },
      ),
    ],
    [CABLE, ["M1.5V", "B1.5V"], ["M1.GND", "B1.GND"], ["M1.DIN", "B1.D6"]],
  );
}

export const powerBulkCases: Case[] = [
  {
    rule: "power.bulk",
    severity: "risk",
    says: "a radio without the capacitor beside it",
    bad: () => radio(null),
    near: () => radio({ F: 1e-5 }),
    fix: "bulk",
  },
  {
    rule: "power.bulk",
    severity: "risk",
    says: "a strip without its large capacitor",
    bad: () => onUsb2(null),
    near: () => onUsb2(0.001),
    fix: "bulk",
  },
];
