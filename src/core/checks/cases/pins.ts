import { ADAPTER5, AVR, CABLE, ESP, led, make, moved, part, RP, planned, USB, type Case } from "./build";

const at = (board: object, pin: string, ohm = 390) =>
  make([board, USB, led("D1", ohm)], [CABLE, ["D1.A", `B1.${pin}`], ["D1.K", "B1.GND"]]);
const soil = (board: object, pin: string) =>
  moved(planned([board, USB, part("M1", "module/soil-capacitive")]), "M1.AOUT", `B1.${pin}`);
const two = (a: string, b: string) =>
  make(
    [AVR, USB, led("D1", 470), led("D2", 470)],
    [CABLE, ["D1.A", `B1.${a}`], ["D1.K", "B1.GND"], ["D2.A", `B1.${b}`], ["D2.K", "B1.GND"]],
  );
const air = (sda: string, scl: string) =>
  make(
    [ESP, USB, part("M1", "module/bme280")],
    [CABLE, ["M1.VCC", "B1.3V3"], ["M1.GND", "B1.GND"], ["M1.SDA", `B1.${sda}`], ["M1.SCL", `B1.${scl}`]],
  );
const radio = { ref: "B1", part: "board/esp32-thirtyeight", options: { radio: "true" } };
const mini = { ref: "B1", part: "board/esp32-c3-mini" };
const tones = (pin: string) =>
  make(
    [
      RP,
      USB,
      ADAPTER5,
      part("M1", "module/servo-small", {}, { bulkCapacitor: { F: 0.00047 } }),
      part("LS1", "module/buzzer-passive"),
    ],
    [
      CABLE,
      ["M1.VCC", "S2.5V"],
      ["M1.GND", "S2.GND"],
      ["S2.GND", "B1.GND"],
      ["M1.SIG", "B1.GP0"],
      ["LS1.VCC", "B1.3V3"],
      ["LS1.GND", "B1.GND"],
      ["LS1.IO", `B1.${pin}`],
    ],
  );
const CHIP = { ref: "B1", part: "chip/atmega328p-dip28", companions: { decoupling: { F: 1e-7 } } };
const pir = (series: object | null) =>
  make(
    [CHIP, { ref: "S1", part: "supply/adapter-5v-2a" }, part("M1", "module/hc-sr04", {}, { seriesResistor: series })],
    [
      ["S1.5V", "B1.VCC"],
      ["S1.5V", "B1.AVCC"],
      ["S1.GND", "B1.GND"],
      ["S1.GND", "B1.GND.2"],
      ["M1.VCC", "S1.5V"],
      ["M1.GND", "S1.GND"],
      ["M1.TRIG", "B1.PD4"],
      ["M1.ECHO", "B1.PB4"],
    ],
  );
const keyboard = (board: string) => make([{ ref: "B1", part: board, options: { usbRole: "keyboard" } }, USB], [CABLE]);
const echoes = (second: string) =>
  make(
    [AVR, USB, part("M1", "module/hc-sr04"), part("M2", "module/hc-sr04")],
    [
      CABLE,
      ["M1.VCC", "B1.5V"],
      ["M1.GND", "B1.GND"],
      ["M1.TRIG", "B1.D8"],
      ["M1.ECHO", "B1.D2"],
      ["M2.VCC", "B1.5V"],
      ["M2.GND", "B1.GND"],
      ["M2.TRIG", "B1.D9"],
      ["M2.ECHO", `B1.${second}`],
    ],
  );

/** Pins and boards: what a pin can do, what else hangs on it, what it does while the chip starts. */
export const pinCases: Case[] = [
  {
    rule: "pin.capability",
    severity: "fault",
    says: "an analogue sensor on a digital pin",
    bad: () => soil(AVR, "D5"),
    near: () => soil(AVR, "A0"),
    fix: "move-pin",
  },
  {
    rule: "pin.duplicate",
    severity: "fault",
    says: "two lights on one pin",
    bad: () => two("D7", "D7"),
    near: () => two("D7", "D8"),
    fix: "move-pin",
  },
  {
    rule: "pin.duplicate",
    severity: "stop",
    says: "two echo lines on one pin",
    bad: () => echoes("D2"),
    near: () => echoes("D3"),
    also: ["stop net.contention"],
  },
  {
    rule: "pin.reserved",
    severity: "stop",
    says: "a light on a flash pin",
    bad: () => at(ESP, "GPIO9"),
    near: () => at(ESP, "GPIO27"),
    fix: "move-pin",
  },
  {
    rule: "pin.strapping",
    severity: "fault",
    says: "a bus with pull-ups on the pin that chooses the flash voltage",
    bad: () => air("GPIO12", "GPIO22"),
    near: () => air("GPIO21", "GPIO22"),
  },
  {
    rule: "pin.usb-serial",
    severity: "risk",
    says: "a light on the console's line",
    bad: () => at(AVR, "D1"),
    near: () => at(AVR, "D7"),
    fix: "move-pin",
  },
  {
    rule: "pin.onboard",
    severity: "note",
    says: "a light where the board has one already",
    bad: () => at(AVR, "D13"),
    near: () => at(AVR, "D12"),
  },
  {
    rule: "pin.adc-radio",
    severity: "fault",
    says: "a converter of the radio's while it runs",
    bad: () => soil(radio, "GPIO25"),
    near: () => soil(radio, "GPIO34"),
    fix: "move-pin",
  },
  {
    rule: "pin.timer-conflict",
    severity: "risk",
    says: "a note and a servo on one slice",
    bad: () => tones("GP1"),
    near: () => tones("GP2"),
  },
  {
    rule: "pin.reset",
    severity: "stop",
    says: "a light on the reset pin",
    bad: () => at(AVR, "RST"),
    near: () => at(AVR, "D12"),
    fix: "move-pin",
  },
  {
    rule: "pin.bootlog",
    severity: "risk",
    says: "a light on the pin that prints the start-up log",
    bad: () => at(mini, "GPIO21"),
    near: () => at(mini, "GPIO10"),
    fix: "move-pin",
  },
  {
    rule: "pin.isp-shared",
    severity: "risk",
    says: "an echo line straight on a programming pin",
    bad: () => pir(null),
    near: () => pir({ ohm: 1000, pin: "ECHO" }),
    fix: "series-resistor",
  },
  {
    rule: "board.native-usb",
    severity: "fault",
    says: "a keyboard on a board with a serial bridge",
    bad: () => keyboard("board/atmega328p-long"),
    near: () => keyboard("board/atmega32u4-long"),
  },
  {
    rule: "board.solder",
    severity: "note",
    says: "headers come loose",
    bad: () => make([RP, USB], [CABLE]),
    near: () => make([AVR, USB], [CABLE]),
  },
  {
    rule: "part.solder",
    severity: "risk",
    says: "a board with loose headers, and no soldering iron",
    bad: () => make([RP, USB], [CABLE], { brief: { iron: false } }),
    near: () => make([AVR, USB], [CABLE], { brief: { iron: false } }),
  },
  {
    rule: "part.solder",
    severity: "risk",
    says: "soldering at once without an iron",
    bad: () => make([AVR, USB], [CABLE], { brief: { iron: false }, houseRules: { firstBuild: "solder" } }),
    near: () => make([AVR, USB], [CABLE], { brief: { iron: true }, houseRules: { firstBuild: "solder" } }),
    fix: "breadboard",
  },
  {
    rule: "board.driver",
    severity: "note",
    says: "a serial bridge wants a driver",
    bad: () => make([AVR, USB], [CABLE]),
    near: () => make([RP, USB], [CABLE]),
  },
];
