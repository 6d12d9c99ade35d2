import {
  ADAPTER5,
  AVR,
  CABLE,
  changed,
  CHARGER,
  drop,
  ESP,
  make,
  part,
  RP,
  planned,
  R,
  USB,
  type Case,
  type Links,
} from "./build";

const BULK = { bulkCapacitor: { F: 0.001 } };
const DATA = { seriesResistor: { ohm: 330 } };
const strip = (pixels: number, brightness: number, more: object = {}, companions: object = BULK) => ({
  ...part("M1", "module/ws2812b-strip", { pixels, brightness, ...more }, { ...DATA, ...companions }),
});
const onUsb = (pixels: number, brightness: number, board: object = AVR, source: object = USB) =>
  make(
    [board, source, strip(pixels, brightness)],
    [CABLE, ["M1.5V", "B1.5V"], ["M1.GND", "B1.GND"], ["M1.DIN", "B1.D6"]],
  );
const own = (s: object, supply = "supply/adapter-5v-10a") =>
  make(
    [AVR, USB, { ref: "S2", part: supply }, s],
    [CABLE, ["M1.5V", "S2.5V"], ["M1.GND", "S2.GND"], ["S2.GND", "B1.GND"], ["M1.DIN", "B1.D6"]],
  );
const moves = (board: object, vcc: string, pin: string) =>
  make(
    [board, CHARGER, part("M1", "module/pir")],
    [CABLE, ["M1.VCC", vcc], ["M1.GND", "B1.GND"], ["M1.OUT", `B1.${pin}`]],
  );
const air = (vcc: string) =>
  make(
    [RP, USB, part("M1", "module/bme280")],
    [CABLE, ["M1.VCC", vcc], ["M1.GND", "B1.GND"], ["M1.SDA", "B1.GP4"], ["M1.SCL", "B1.GP5"]],
  );
const echo = () => planned([AVR, USB, part("M1", "module/hc-sr04")]);
const apart = (joined: boolean) =>
  make(
    [
      AVR,
      USB,
      ADAPTER5,
      part("M1", "module/hc-sr04", {}, { seriesResistor: { ohm: 1000, pin: "TRIG" } }),
      R("R1", 1000),
    ],
    [
      CABLE,
      ["M1.VCC", "S2.5V"],
      ["M1.GND", "S2.GND"],
      ["M1.TRIG", "B1.D8"],
      ["M1.ECHO", "R1.1"],
      ["R1.2", "B1.D2"],
      ...((joined ? [["S2.GND", "B1.GND"]] : []) as Links),
    ],
  );
const isolator = (joined: boolean) =>
  make(
    [AVR, USB, ADAPTER5, part("M1", "module/isolator-2ch", {}, { decoupling: { F: 1e-7 } })],
    [
      CABLE,
      ["M1.VCC1", "B1.5V"],
      ["M1.GND1", "B1.GND"],
      ["M1.VCC2", "S2.5V"],
      ["M1.GND2", "S2.GND"],
      ...((joined ? [["S2.GND", "B1.GND"]] : []) as Links),
    ],
  );
const sensor = (rail: string) =>
  make(
    [RP, USB, part("M1", "module/bme280")],
    [CABLE, ["M1.VCC", rail], ["M1.GND", "B1.GND"], ["M1.SDA", "B1.GP4"], ["M1.SCL", "B1.GP5"]],
  );
const shorted = (to: string | null) => make([AVR, USB], [CABLE, ...((to ? [["B1.5V", to]] : []) as Links)]);
const twice = (cable: boolean) =>
  make([AVR, USB, ADAPTER5], [...((cable ? [CABLE] : []) as Links), ["S2.5V", "B1.5V"], ["S2.GND", "B1.GND"]]);
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
const servo = (from: "board" | "source") =>
  make(
    [
      RP,
      CHARGER,
      { ref: "S2", part: "supply/adapter-5v-2a" },
      part("M1", "module/servo-small", {}, { bulkCapacitor: { F: 0.00047 } }),
    ],
    [
      CABLE,
      ["M1.SIG", "B1.GP2"],
      ...((from === "board"
        ? [
            ["M1.VCC", "B1.VBUS"],
            ["M1.GND", "B1.GND"],
          ]
        : [
            ["M1.VCC", "S2.5V"],
            ["M1.GND", "S2.GND"],
            ["S2.GND", "B1.GND"],
          ]) as Links),
    ],
  );
const CHIP = { ref: "B1", part: "chip/atmega328p-dip28", companions: { decoupling: { F: 1e-7 } } };
const sagging = (load_mA: number, place = "room") =>
  make(
    [
      CHIP,
      part("S1", "supply/aa-3"),
      part("Q1", "discrete/nmos-ao3400", {}, { seriesResistor: { ohm: 330 }, pullDown: { ohm: 10_000 } }),
      part("MT1", "discrete/motor-dc", { load_V: 3, load_mA }, { flyback: { part: "discrete/diode-1n4007" } }),
    ],
    [
      ["S1.+", "B1.VCC"],
      ["S1.+", "B1.AVCC"],
      ["S1.-", "B1.GND"],
      ["S1.-", "B1.GND.2"],
      ["MT1.1", "S1.+"],
      ["MT1.2", "Q1.D"],
      ["Q1.S", "S1.-"],
      ["Q1.G", "B1.PD4"],
    ],
    { brief: { place } },
  );
const cell = (place: string, charger: boolean) =>
  make(
    [
      RP,
      part("S1", "supply/lipo-1s"),
      part("SW1", "discrete/toggle", {}, { pullUp: null }),
      ...(charger ? [part("M1", "module/charger-1s")] : []),
    ],
    charger
      ? [
          ["S1.+", "M1.B+"],
          ["S1.-", "M1.B-"],
          ["M1.OUT+", "SW1.1"],
          ["M1.OUT-", "B1.GND"],
          ["SW1.2", "B1.VSYS"],
        ]
      : [
          ["S1.+", "SW1.1"],
          ["S1.-", "B1.GND"],
          ["SW1.2", "B1.VSYS"],
        ],
    { brief: { place } },
  );
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
const gas = (n: number, place = "room") =>
  make(
    [
      AVR,
      { ref: "S1", part: "supply/adapter-9v-1a" },
      ...Array.from({ length: n }, (_, i) => part(`M${i + 1}`, "module/mq2")),
    ],
    [
      ["S1.9V", "B1.VIN"],
      ["S1.GND", "B1.GND"],
      ...Array.from({ length: n }, (_, i): Links => [
        [`M${i + 1}.VCC`, "B1.5V"],
        [`M${i + 1}.GND`, "B1.GND"],
        [`M${i + 1}.AO`, `B1.A${i}`],
      ]).flat(),
    ],
    { brief: { place } },
  );
const low = (V: number) =>
  make(
    [{ ref: "B1", part: "board/stm32f103-forty" }, part("S1", "supply/bench", { output_V: V, limit_mA: 500 })],
    [
      ["S1.+", "B1.5V"],
      ["S1.-", "B1.GND"],
    ],
  );
const gauge = (awg: number, cm: number, px: number) => own({ ...strip(px, 1, { wire_awg: awg }), wire_cm: cm });
const bare = (decoupling: object | undefined) =>
  make(
    [AVR, USB, part("M1", "module/74hc595", {}, decoupling ? { decoupling } : {})],
    planned([AVR, USB, part("M1", "module/74hc595")]).links.map((l): [string, string] => [l.from, l.to]),
  );

/** Power: sources, regulators, rails, wires, grounds. */
export const powerCases: Case[] = [
  {
    rule: "power.overload",
    severity: "stop",
    says: "thirty lights at full white on a USB port",
    bad: () => onUsb(30, 1),
    near: () => onUsb(30, 0.2),
    fix: "brightness",
    also: ["risk power.through-board"],
  },
  {
    rule: "power.overload",
    severity: "fault",
    says: "eight lights at full white on a USB port, at their peak",
    bad: () => onUsb(8, 1),
    near: () => onUsb(6, 0.6),
  },
  {
    rule: "power.tight",
    severity: "risk",
    says: "seven lights at full white",
    bad: () => onUsb(6, 1),
    near: () => onUsb(5, 1),
  },
  {
    rule: "power.no-supply",
    severity: "fault",
    says: "a board nothing feeds",
    bad: () => make([AVR], []),
    near: () => make([AVR, USB], [CABLE]),
    fix: "usb-port",
  },
  {
    rule: "power.no-supply",
    severity: "fault",
    says: "a sensor that hangs on a signal pin",
    bad: () => air("B1.GP2"),
    near: () => air("B1.3V3"),
    fix: "logic-supply",
  },
  {
    rule: "power.no-supply",
    severity: "fault",
    says: "a motor driver without its motor supply",
    bad: () => planned([RP, USB, part("M1", "module/l298n")]),
    near: () => planned([RP, USB, part("S2", "supply/adapter-9v-1a"), part("M1", "module/l298n")]),
    fix: "adapter",
  },
  {
    rule: "power.overload",
    severity: "fault",
    says: "a gas sensor at the small 3.3 V regulator of a 5 V board",
    bad: () => planned([AVR, USB, part("M1", "module/ccs811")]),
    near: () => planned([RP, USB, part("M1", "module/ccs811")]),
    also: ["fault level.low-high"],
  },
  {
    rule: "power.no-ground",
    severity: "fault",
    says: "a sensor without its ground wire",
    bad: () => changed(echo(), drop("M1.GND", "B1.GND")),
    near: echo,
    fix: "wire-up",
  },
  {
    rule: "power.ground-not-common",
    severity: "fault",
    says: "a sensor on its own supply, grounds apart",
    bad: () => apart(false),
    near: () => apart(true),
    fix: "join",
  },
  {
    rule: "power.ground-joined",
    severity: "stop",
    says: "both sides of an isolator on one ground",
    bad: () => isolator(true),
    near: () => isolator(false),
    fix: "part",
  },
  {
    rule: "power.range",
    severity: "fault",
    says: "a 5 V sensor on 3.3 V",
    bad: () => moves(RP, "B1.3V3", "GP2"),
    near: () => moves(RP, "B1.VBUS", "GP2"),
  },
  {
    rule: "power.range",
    severity: "risk",
    says: "a 5 V sensor behind a board's diode, when the charger is low",
    bad: () => moves(ESP, "B1.5V", "GPIO4"),
    near: () => moves(RP, "B1.VBUS", "GP2"),
  },
  {
    rule: "power.range",
    severity: "stop",
    says: "a 3.3 V sensor on 5 V",
    bad: () => sensor("B1.VBUS"),
    near: () => sensor("B1.3V3"),
    also: ["stop level.overdrive"],
    fix: "other-rail",
  },
  {
    rule: "power.short",
    severity: "stop",
    says: "5 V joined to ground",
    bad: () => shorted("B1.GND"),
    near: () => shorted(null),
    fix: "remove",
  },
  {
    rule: "power.short",
    severity: "stop",
    says: "5 V joined to 3.3 V",
    bad: () => shorted("B1.3V3"),
    near: () => shorted(null),
    fix: "remove",
  },
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
  {
    rule: "power.through-board",
    severity: "risk",
    says: "a servo fed through the board",
    bad: () => servo("board"),
    near: () => servo("source"),
    fix: "own-supply",
  },
  {
    rule: "power.brownout",
    severity: "risk",
    says: "a motor that pulls three cells down",
    bad: () => sagging(120),
    near: () => sagging(60),
  },
  {
    rule: "power.brownout",
    severity: "risk",
    says: "a motor that three cells carry in a room, outdoors in winter",
    bad: () => sagging(60, "shelter"),
    near: () => sagging(60),
  },
  {
    rule: "power.cell-temperature",
    severity: "risk",
    says: "a lithium cell that is charged outdoors",
    bad: () => cell("shelter", true),
    near: () => cell("room", true),
  },
  {
    rule: "power.cell-temperature",
    severity: "risk",
    says: "a lithium cell in a box in the sun",
    bad: () => cell("sun", false),
    near: () => cell("room", false),
  },
  {
    rule: "power.cell-temperature",
    severity: "risk",
    says: "AA cells in a box in the sun",
    bad: () => sagging(20, "sun"),
    near: () => sagging(20, "shelter"),
  },
  {
    rule: "power.no-switch",
    severity: "note",
    says: "a battery without a switch",
    bad: () => battery(false),
    near: () => battery(true),
    fix: "add-switch",
  },
  {
    rule: "power.polarity",
    severity: "note",
    says: "an adapter with a plug",
    bad: () => twice(false),
    near: () => make([AVR, USB], [CABLE]),
  },
  {
    rule: "power.regulator-heat",
    severity: "stop",
    says: "two gas heaters behind the board's regulator at 9 V",
    bad: () => gas(2),
    near: () => gas(0),
  },
  {
    rule: "power.regulator-heat",
    severity: "stop",
    says: "a gas heater behind the board's regulator, in the sun",
    bad: () => gas(1, "sun"),
    near: () => gas(0, "sun"),
  },
  {
    rule: "power.dropout",
    severity: "fault",
    says: "3.3 V at the input of a 3.3 V regulator",
    bad: () => low(3.3),
    near: () => low(5),
  },
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
  {
    rule: "power.decoupling",
    severity: "risk",
    says: "a bare chip without 100 nF",
    bad: () => bare(undefined),
    near: () => bare({ F: 1e-7 }),
    fix: "decoupling",
  },
  {
    rule: "wire.ampacity",
    severity: "stop",
    says: "two amperes through 28 AWG",
    bad: () => gauge(28, 15, 60),
    near: () => gauge(20, 15, 60),
    fix: "gauge",
  },
  {
    rule: "wire.drop",
    severity: "risk",
    says: "two metres of 22 AWG",
    bad: () => gauge(22, 250, 30),
    near: () => gauge(18, 100, 30),
    fix: "gauge",
  },
];

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
