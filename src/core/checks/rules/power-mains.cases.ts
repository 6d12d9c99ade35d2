import { AVR, CABLE, make, part, USB, type Case } from "../cases/build";

const switched = (board: object, five: string, pin: string, label?: string) =>
  make(
    [board, USB, { ...part("K1", "module/relay-1"), ...(label && { label }) }],
    [CABLE, ["K1.VCC", five], ["K1.GND", "B1.GND"], ["K1.IN", pin]],
  );
const plug = (V: number, name = "feed") =>
  make(
    [
      AVR,
      USB,
      part("J1", "connector/screw-2", {
        pins: { "1": { name, role: "supply-out", V }, "2": { name: "back", role: "ground" } },
      }),
    ],
    [CABLE],
  );

export const mainsCases: Case[] = [
  {
    rule: "power.mains",
    severity: "stop",
    says: "a relay named after a 230 V lamp",
    bad: () => switched(AVR, "B1.5V", "B1.D7", "Lamp 230 V"),
    near: () => switched(AVR, "B1.5V", "B1.D7", "Lamp 12 V"),
  },
  {
    rule: "power.mains",
    severity: "stop",
    says: "a kettle at 120 volts",
    bad: () => switched(AVR, "B1.5V", "B1.D8", "Kettle (120 volts)"),
    near: () => switched(AVR, "B1.5V", "B1.D8", "Kettle of the dolls' house"),
  },
  {
    rule: "power.mains",
    severity: "stop",
    says: "a terminal that carries 230 V",
    bad: () => plug(230),
    near: () => plug(24),
  },
  {
    rule: "power.mains",
    severity: "stop",
    says: "a terminal whose pin says 110 V",
    bad: () => plug(5, "110V"),
    near: () => plug(5, "11V"),
  },
];
