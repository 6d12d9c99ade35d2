import { ADAPTER5, AVR, CABLE, make, part, USB, type Case } from "../cases/build";

const motor = (pullDown: object | null) =>
  make(
    [
      AVR,
      USB,
      ADAPTER5,
      part("Q1", "discrete/nmos-irlz44n", {}, { seriesResistor: { ohm: 330 }, pullDown }),
      part("MT1", "discrete/pump-5v", {}, { flyback: { part: "discrete/diode-1n4007" } }),
    ],
    [CABLE, ["MT1.1", "S2.5V"], ["MT1.2", "Q1.D"], ["Q1.S", "S2.GND"], ["S2.GND", "B1.GND"], ["Q1.G", "B1.D7"]],
  );

/** A pump's gate behind a buffer: the pull-down at the gate can't hold it against the buffer's output. */
const buffered = (pullDown: object | null) =>
  make(
    [
      AVR,
      USB,
      ADAPTER5,
      part("M1", "module/buffer-74ahct125", {}, { decoupling: { F: 1e-7 }, ...(pullDown && { pullDown }) }),
      part("Q1", "discrete/nmos-irlz44n", {}, { seriesResistor: { ohm: 330 }, pullDown: { ohm: 10_000 } }),
      part("MT1", "discrete/pump-5v", {}, { flyback: { part: "discrete/diode-1n4007" } }),
    ],
    [
      CABLE,
      ["MT1.1", "S2.5V"],
      ["MT1.2", "Q1.D"],
      ["Q1.S", "S2.GND"],
      ["S2.GND", "B1.GND"],
      ["M1.VCC", "S2.5V"],
      ["M1.GND", "S2.GND"],
      ["M1.1A", "B1.D7"],
      ["M1.1Y", "Q1.G"],
      ...["1OE", "2OE", "3OE", "4OE", "2A", "3A", "4A"].map((p): [string, string] => [`M1.${p}`, "S2.GND"]),
    ],
  );

export const netFloatingAtResetCases: Case[] = [
  {
    rule: "net.floating-at-reset",
    severity: "risk",
    says: "a gate without a pull-down",
    bad: () => motor(null),
    near: () => motor({ ohm: 10_000 }),
    fix: "hold",
  },
  {
    rule: "net.floating-at-reset",
    severity: "risk",
    says: "a pull-down behind a buffer, where it does nothing",
    bad: () => buffered(null),
    near: () => buffered({ ohm: 10_000, pin: "1A" }),
    fix: "hold",
  },
];
