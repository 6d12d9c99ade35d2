import {
  ADAPTER12,
  ADAPTER5,
  AVR,
  CABLE,
  changed,
  CHARGER,
  led,
  make,
  part,
  RP,
  R,
  USB,
  type Case,
  type Links,
} from "./build";

/** A chip whose pins have an absolute maximum of 10 mA. */
const IMX = { ref: "B1", part: "board/imxrt1062-compact" };
const one = (board: object, ohm: number | null, id = "discrete/led-red", pin = "D7") =>
  make([board, USB, led("D1", ohm, id)], [CABLE, ["D1.A", `B1.${pin}`], ["D1.K", "B1.GND"]]);
const rail = (ohm: number) => make([AVR, USB, led("D1", ohm)], [CABLE, ["D1.A", "B1.5V"], ["D1.K", "B1.GND"]]);
const many = (n: number) =>
  make(
    [RP, USB, ...Array.from({ length: n }, (_, i) => led(`D${i + 1}`, 220))],
    [
      CABLE,
      ...Array.from({ length: n }, (_, i): Links => [
        [`D${i + 1}.A`, `B1.GP${i + 6}`],
        [`D${i + 1}.K`, "B1.GND"],
      ]).flat(),
    ],
  );
const shared = (own: boolean) =>
  own
    ? make(
        [AVR, USB, led("D1", 330), led("D2", 330)],
        [CABLE, ["D1.A", "B1.5V"], ["D2.A", "B1.5V"], ["D1.K", "B1.GND"], ["D2.K", "B1.GND"]],
      )
    : make(
        [AVR, USB, led("D1", null), led("D2", null), R("R1", 330)],
        [CABLE, ["R1.1", "B1.5V"], ["D1.A", "R1.2"], ["D2.A", "R1.2"], ["D1.K", "B1.GND"], ["D2.K", "B1.GND"]],
      );
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

/** A pump on its own 5 V, switched by a transistor. */
interface Stage {
  board?: object;
  q: string;
  legs: [string, string, string];
  q_with?: object;
  load?: object;
  flyback?: object | null;
  links?: Links;
  supply?: object;
  rail?: string;
}
const pump = (ref = "MT1") => part(ref, "discrete/pump-5v");
function stage(s: Stage) {
  const [control, high, low] = s.legs;
  const board = s.board ?? AVR;
  const load = {
    ...(s.load ?? pump()),
    companions: { flyback: s.flyback === undefined ? { part: "discrete/diode-1n4007" } : s.flyback },
  };
  const rail = s.rail ?? "S2.5V";
  const pin = board === RP ? "B1.GP7" : "B1.D7";
  const links: Links = s.links ?? [
    ["MT1.1", rail],
    ["MT1.2", `Q1.${high}`],
    [`Q1.${low}`, "S2.GND"],
  ];
  return make(
    [
      board,
      USB,
      s.supply ?? ADAPTER5,
      part("Q1", s.q, {}, s.q_with ?? { seriesResistor: { ohm: 330 }, pullDown: { ohm: 10_000 } }),
      load,
    ],
    [CABLE, ...links, ["S2.GND", "B1.GND"], [`Q1.${control}`, pin]],
  );
}
const IRLZ: Pick<Stage, "q" | "legs"> = { q: "discrete/nmos-irlz44n", legs: ["G", "D", "S"] };
const AO: Pick<Stage, "q" | "legs"> = { q: "discrete/nmos-ao3400", legs: ["G", "D", "S"] };
const NPN = (ohm: number): Pick<Stage, "q" | "legs" | "q_with"> => ({
  q: "discrete/npn-2n2222",
  legs: ["B", "C", "E"],
  q_with: { seriesResistor: { ohm } },
});
const coil = part("MT1", "discrete/relay-coil-12v");
const relay = (q: Pick<Stage, "q" | "legs" | "q_with">, more: Partial<Stage> = {}): Stage => ({
  ...q,
  load: coil,
  supply: ADAPTER12,
  rail: "S2.12V",
  ...more,
});
const coilLinks = (rail: string): Links => [
  ["MT1.1", rail],
  ["MT1.2", "Q1.C"],
  ["Q1.E", "S2.GND"],
];
const direct = (pinned: boolean) =>
  pinned ? make([AVR, CHARGER, pump()], [CABLE, ["MT1.1", "B1.D7"], ["MT1.2", "B1.GND"]]) : stage(IRLZ);
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
const bench = (V: number, limit_mA = 2000) => part("S2", "supply/bench", { output_V: V, limit_mA });
const withBench = (V: number) => {
  const board = make(
    [
      AVR,
      USB,
      bench(V),
      part("Q1", "discrete/nmos-irlz44n", {}, { seriesResistor: { ohm: 330 }, pullDown: { ohm: 10_000 } }),
      part("MT1", "discrete/motor-dc", { load_V: 6, load_mA: 150 }, { flyback: { part: "discrete/diode-1n4007" } }),
    ],
    [CABLE, ["MT1.1", "S2.+"], ["MT1.2", "Q1.D"], ["Q1.S", "S2.-"], ["S2.-", "B1.GND"], ["Q1.G", "B1.D7"]],
  );
  return board;
};
const weak = (mA: number) =>
  stage({
    q: "discrete/nmos-ao3400",
    legs: ["G", "D", "S"],
    supply: { ref: "S2", part: "supply/adapter-5v-10a" },
    load: part("MT1", "discrete/pump-5v", { load_mA: mA }),
  });

/** A solenoid that holds at so many milliamperes behind the small MOSFET. */
const warm = (load_mA: number) =>
  make(
    [
      RP,
      USB,
      bench(12, 5000),
      part("Q1", "discrete/nmos-ao3400", {}, { seriesResistor: { ohm: 470 }, pullDown: { ohm: 10_000 } }),
      part("MT1", "discrete/solenoid", { load_V: 12, load_mA }, { flyback: { part: "discrete/diode-1n4007" } }),
    ],
    [CABLE, ["MT1.1", "S2.+"], ["MT1.2", "Q1.D"], ["Q1.S", "S2.-"], ["S2.-", "B1.GND"], ["Q1.G", "B1.GP7"]],
  );
/** A light that is always on beside a switched pump: it shares rail and ground with the transistor, and is not switched by it. */
const bystander = (flyback: object | null) => {
  const p = stage(flyback ? IRLZ : { ...IRLZ, flyback });
  return changed(
    p,
    { type: "addPart", part: "discrete/pump-5v", ref: "MT2", label: "Always on" },
    { type: "addLink", link: { from: "MT2.1", to: "S2.5V" } },
    { type: "addLink", link: { from: "MT2.2", to: "S2.GND" } },
  );
};

/** Currents and loads: lights, transistors, coils, and parts the wrong way round. */
export const currentCases: Case[] = [
  {
    rule: "led.no-resistor",
    severity: "stop",
    says: "a bare light on a pin",
    bad: () => one(AVR, null),
    near: () => one(AVR, 390),
    fix: "series-resistor",
  },
  {
    rule: "current.pin",
    severity: "risk",
    says: "too bright a light for a 3.3 V chip's pin",
    bad: () => one(RP, 150, "discrete/led-red", "GP15"),
    near: () => one(RP, 220, "discrete/led-red", "GP15"),
    fix: "series-resistor",
  },
  {
    rule: "current.pin",
    severity: "stop",
    says: "far too bright",
    bad: () => one(IMX, 100, "discrete/led-red", "D7"),
    near: () => one(IMX, 470, "discrete/led-red", "D7"),
    fix: "series-resistor",
  },
  {
    rule: "current.led",
    severity: "stop",
    says: "a light on the 5 V rail with 100 Ω",
    bad: () => rail(100),
    near: () => rail(220),
    fix: "series-resistor",
  },
  {
    rule: "current.chip",
    severity: "stop",
    says: "seven bright lights on a chip that stands 50 mA",
    bad: () => many(7),
    near: () => many(5),
    fix: "dim-all",
  },
  {
    rule: "led.headroom",
    severity: "risk",
    says: "a blue light from 3.3 V",
    bad: () => one(RP, 100, "discrete/led-blue", "GP15"),
    near: () => one(AVR, 390, "discrete/led-blue"),
  },
  {
    rule: "led.parallel",
    severity: "risk",
    says: "two lights share one resistor",
    bad: () => shared(false),
    near: () => shared(true),
    fix: "own-resistors",
  },
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
  {
    rule: "load.needs-driver",
    severity: "stop",
    says: "a pump straight on a pin",
    bad: () => direct(true),
    near: () => direct(false),
    fix: "driver",
  },
  {
    rule: "load.no-flyback",
    severity: "stop",
    says: "a switched pump without a diode",
    bad: () => stage({ ...IRLZ, flyback: null }),
    near: () => stage(IRLZ),
    fix: "flyback",
  },
  {
    rule: "load.no-flyback",
    severity: "stop",
    says: "the same beside a pump that is always on, which needs none",
    bad: () => bystander(null),
    near: () => bystander({}),
    fix: "flyback",
  },
  {
    rule: "load.gate-drive",
    severity: "fault",
    says: "a 5 V MOSFET on a 3.3 V pin",
    bad: () => stage({ ...IRLZ, board: RP }),
    near: () => stage({ ...AO, board: RP }),
    fix: "swap",
  },
  {
    rule: "load.base-drive",
    severity: "fault",
    says: "ten kilohms at the base of a relay's transistor",
    bad: () => stage(relay(NPN(10_000), { links: coilLinks("S2.12V"), q: "discrete/npn-2n2222" })),
    near: () => stage(relay(NPN(1000), { links: coilLinks("S2.12V") })),
    fix: "base-resistor",
  },
  {
    rule: "load.follower",
    severity: "fault",
    says: "a 12 V coil at the emitter",
    bad: () =>
      stage(
        relay(NPN(1000), {
          links: [
            ["Q1.C", "S2.12V"],
            ["MT1.1", "Q1.E"],
            ["MT1.2", "S2.GND"],
          ],
        }),
      ),
    near: () => stage(relay(NPN(1000), { links: coilLinks("S2.12V") })),
    fix: "low-side",
  },
  {
    rule: "load.switch-limit",
    severity: "stop",
    says: "six amperes through a small MOSFET",
    bad: () => weak(2000),
    near: () => weak(1200),
    also: [],
  },
  {
    rule: "load.switch-limit",
    severity: "risk",
    says: "three lasting amperes through a tiny MOSFET",
    bad: () => warm(3000),
    near: () => warm(2000),
  },
  {
    rule: "load.voltage",
    severity: "stop",
    says: "a 6 V motor on 24 V",
    bad: () => withBench(24),
    near: () => withBench(6),
  },
];
