import { make, part, RP, type Case } from "../cases/build";

const battery = (toggle: boolean) =>
  toggle
    ? make(
        [RP, part("S1", "supply/aa-3"), part("SW1", "discrete/toggle", {}, { pullUp: null })],
        [
          ["S1.+", "SW1.1"],
          ["SW1.2", "B1.VSYS"],
          ["S1.-", "B1.GND"],
        ],
      )
    : make(
        [RP, part("S1", "supply/aa-3")],
        [
          ["S1.+", "B1.VSYS"],
          ["S1.-", "B1.GND"],
        ],
      );

export const powerNoSwitchCases: Case[] = [
  {
    rule: "power.no-switch",
    severity: "note",
    says: "a battery without a switch",
    bad: () => battery(false),
    near: () => battery(true),
    fix: "add-switch",
  },
];
