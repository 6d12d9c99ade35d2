import { ADAPTER5, AVR, CABLE, make, part, RP, USB, type Case, type Links } from "../cases/build";
import { twice } from "../cases/power";

const celled = (diode: string | null) =>
  make(
    [RP, USB, part("S2", "supply/lipo-1s"), ...(diode ? [part("D9", diode)] : [])],
    [
      CABLE,
      ["S2.-", "B1.GND"],
      ...((diode
        ? [
            ["S2.+", "D9.A"],
            ["D9.K", "B1.VSYS"],
          ]
        : [["S2.+", "B1.VSYS"]]) as Links),
    ],
  );

/** Two 5 V adapters on the raw rail, each behind a diode of its own or not. */
const adapters = (diodes: boolean) => {
  const two = ["S1", "S2"];
  return make(
    [
      RP,
      ...two.map((ref) => part(ref, "supply/adapter-5v-2a")),
      ...(diodes ? ["D8", "D9"].map((ref) => part(ref, "discrete/diode-1n5819")) : []),
    ],
    two.flatMap((s, i): Links => [
      [`${s}.GND`, "B1.GND"],
      ...((diodes
        ? [
            [`${s}.5V`, `D${8 + i}.A`],
            [`D${8 + i}.K`, "B1.VSYS"],
          ]
        : [[`${s}.5V`, "B1.VSYS"]]) as Links),
    ]),
  );
};

const halfParted = () =>
  make(
    [AVR, USB, ADAPTER5, part("D8", "discrete/diode-1n5819")],
    [CABLE, ["S2.5V", "D8.A"], ["D8.K", "B1.5V"], ["S2.GND", "B1.GND"]],
  );

export const powerTwoSourcesCases: Case[] = [
  {
    rule: "power.two-sources",
    severity: "risk",
    says: "an adapter on the 5 V pin while USB is in",
    bad: () => twice(true),
    near: () => twice(false),
    fix: "unplug",
  },
  {
    rule: "power.two-sources",
    severity: "stop",
    says: "a cable in while a cell hangs at the board's raw rail",
    bad: () => celled(null),
    near: () => celled("discrete/diode-1n5819"),
    fix: "diode",
  },
  {
    rule: "power.two-sources",
    severity: "risk",
    says: "two adapters on one rail",
    bad: () => adapters(false),
    near: () => adapters(true),
    fix: "diode",
  },
  {
    rule: "power.two-sources",
    severity: "risk",
    says: "a diode in the adapter's wire only: the USB port still gets current back",
    bad: halfParted,
    near: () => twice(false),
  },
];
