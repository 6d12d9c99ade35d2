import { ADAPTER5, AVR, CABLE, led, make, part, USB, type Case } from "../cases/build";

const light = (a: string, k: string) =>
  make([AVR, USB, led("D1", 390)], [CABLE, [`D1.${a}`, "B1.5V"], [`D1.${k}`, "B1.GND"]]);

const cap = (plus: string, minus: string) =>
  make(
    [AVR, USB, part("C1", "discrete/electrolytic", { capacitance_uF: 100 })],
    [CABLE, [`C1.${plus}`, "B1.5V"], [`C1.${minus}`, "B1.GND"]],
  );

const inLine = (a: string, k: string) =>
  make(
    [AVR, { ref: "S1", part: "supply/adapter-9v-1a" }, part("D1", "discrete/diode-1n5819")],
    [
      ["S1.9V", `D1.${a}`],
      [`D1.${k}`, "B1.VIN"],
      ["S1.GND", "B1.GND"],
    ],
  );

const sensor = (vcc: string, gnd: string) =>
  make(
    [AVR, USB, part("M1", "module/hc-sr04")],
    [CABLE, [`M1.${vcc}`, "B1.5V"], [`M1.${gnd}`, "B1.GND"], ["M1.TRIG", "B1.D8"], ["M1.ECHO", "B1.D2"]],
  );

const diode = (a: string, k: string) =>
  make(
    [
      AVR,
      USB,
      ADAPTER5,
      part("Q1", "discrete/nmos-irlz44n", {}, { seriesResistor: { ohm: 330 }, pullDown: { ohm: 10_000 } }),
      part("MT1", "discrete/pump-5v", {}, { flyback: null }),
      part("D1", "discrete/diode-1n4007"),
    ],
    [
      CABLE,
      ["MT1.1", "S2.5V"],
      ["MT1.2", "Q1.D"],
      ["Q1.S", "S2.GND"],
      ["S2.GND", "B1.GND"],
      ["Q1.G", "B1.D7"],
      [`D1.${k}`, "S2.5V"],
      [`D1.${a}`, "MT1.2"],
    ],
  );

export const partReversedCases: Case[] = [
  {
    rule: "part.reversed",
    severity: "fault",
    says: "a light the wrong way round",
    bad: () => light("K", "A"),
    near: () => light("A", "K"),
    fix: "turn-round",
  },
  {
    rule: "part.reversed",
    severity: "stop",
    says: "an electrolytic capacitor the wrong way round",
    bad: () => cap("-", "+"),
    near: () => cap("+", "-"),
    fix: "turn-round",
  },
  {
    rule: "part.reversed",
    severity: "fault",
    says: "a protection diode that faces the source",
    bad: () => inLine("K", "A"),
    near: () => inLine("A", "K"),
    fix: "turn-round",
  },
  {
    rule: "part.reversed",
    severity: "stop",
    says: "a flyback diode that shorts the supply",
    bad: () => diode("K", "A"),
    near: () => diode("A", "K"),
    fix: "turn-round",
  },
  {
    rule: "part.reversed",
    severity: "stop",
    says: "a module with plus and ground exchanged",
    bad: () => sensor("GND", "VCC"),
    near: () => sensor("VCC", "GND"),
    fix: "turn-round",
  },
];
