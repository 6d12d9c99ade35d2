import { describe, expect, it } from "vitest";
import { applyEdit, type Project } from "../project";
import { catalogue, planned } from "../testing";
import { readGiven, takeGiven } from ".";

const bench = (board: string) =>
  planned([
    { ref: "B1", part: board },
    { ref: "S1", part: "supply/usb-port" },
    { ref: "M1", part: "module/hc-sr04", label: "Tank level" },
    { ref: "M2", part: "module/bme280", label: "Air" },
    { ref: "M3", part: "module/servo-small", label: "Valve" },
    { ref: "SW1", part: "discrete/button", label: "Start" },
    { ref: "SW2", part: "discrete/button" },
    { ref: "LED1", part: "discrete/led-red", label: "Warning" },
  ]);
const pinOf = (p: Project, need: string) =>
  p.links.flatMap((l) => (l.from === need ? [l.to] : l.to === need ? [l.from] : []));
const taken = (p: Project, text: string, chosen: Record<string, string> = {}) => {
  const { rows, edits } = takeGiven(p, catalogue, readGiven(text), chosen);
  return { rows, project: edits.reduce((q, e) => applyEdit(q, e, catalogue), p) };
};

describe("lines that prescribe pins", () => {
  it.each([
    ["#define TRIG_PIN 7", "TRIG_PIN", "7"],
    ["#define ECHO_PIN (A0) // analogue", "ECHO_PIN", "A0"],
    ["const int ledPin = 13;", "ledPin", "13"],
    ["constexpr uint8_t BUTTON = D5;", "BUTTON", "D5"],
    ["static const byte servo_pin{9};", "servo_pin", "9"],
    ["led = Pin(15, Pin.OUT)", "led", "15"],
    ['echo = machine.Pin("GP3")', "echo", "GP3"],
    ["relay = board.GP6", "relay", "GP6"],
    ["trigger = D4", "trigger", "D4"],
    ["start button: GP10", "start button", "GP10"],
    ["echo;D6;5V divided", "echo", "D6"],
    ["servo\tD9", "servo", "D9"],
    ["| Warning light | GPIO4 | red |", "Warning light", "GPIO4"],
  ])("%s", (line, name, token) => {
    expect(readGiven(line)).toEqual([{ line: 1, name, token }]);
  });
  it("passes over everything else", () => {
    expect(
      readGiven(
        "#include <Servo.h>\nvoid setup() {\n  pinMode(LED, OUTPUT);\n}\n// pins below\n\nint x;\nfor (int i = 0; i < n; i++)\n",
      ),
    ).toEqual([]);
    expect(readGiven("x".repeat(1_000_000))).toEqual([]);
  });
});

describe("given pins, matched with what the project has", () => {
  it("five pins of a program that can't be changed: each locked where it says", () => {
    const p = bench("board/atmega328p-long");
    const { rows, project } = taken(
      p,
      "#define TRIG_PIN 7\n#define ECHO_PIN 6\nconst int SERVO = 10;\nconst int warningLed = 12;\nconst int startButton = A1;\n",
    );
    expect(rows.map((r) => `${r.name} ${r.need} ${r.pin} ${r.state}`)).toEqual([
      "TRIG_PIN M1.TRIG B1.D7 served",
      "ECHO_PIN M1.ECHO B1.D6 served",
      "SERVO M3.SIG B1.D10 served",
      "warningLed LED1.A B1.D12 served",
      "startButton SW1.1 B1.A1 served",
    ]);
    for (const [need, pin] of [
      ["M1.TRIG", "B1.D7"],
      ["M1.ECHO", "B1.D6"],
      ["M3.SIG", "B1.D10"],
      ["LED1.A", "B1.D12"],
      ["SW1.1", "B1.A1"],
    ])
      expect(project.links).toContainEqual({ from: need, to: pin, locked: true, by: "hand" });
    for (const l of project.links)
      expect(project.links.filter((x) => x.from === l.from && x.to === l.to)).toHaveLength(1);
  });
  it("says what clashes, what can't be, what is not there and what may be several", () => {
    const p = bench("board/atmega328p-long");
    const { rows } = taken(
      p,
      "#define TRIG_PIN 7\n#define ECHO_PIN 7\n#define AIR_SDA D3\n#define BUTTON_PIN 8\n#define PUMP_PIN 9\n#define VALVE 99\n",
    );
    expect(rows.map((r) => r.state)).toEqual([
      "served",
      "clash",
      "can't",
      "may be several",
      "no such need",
      "no such pin",
    ]);
    expect(rows[1]!.says).toContain("both given D7");
    expect(rows[2]!.says).toMatch(/M2.SDA can't be at D3/);
    expect(rows[3]!.choices).toEqual(["SW1.1", "SW2.1"]);
    const again = taken(p, "#define BUTTON_PIN 8\n", { BUTTON_PIN: "SW2.1" });
    expect(again.rows[0]).toMatchObject({ state: "served", need: "SW2.1" });
    expect(pinOf(again.project, "SW2.1")).toEqual(["B1.D8"]);
  });
  it("reads numbers as the board's own, and keeps what is there already", () => {
    const p = bench("board/rp2040-forty");
    const sda = pinOf(p, "M2.SDA")[0]!;
    const { rows, project } = taken(p, `sda = Pin(${sda.replace("B1.GP", "")})\ntrigger = Pin(20)\n`);
    expect(rows.map((r) => r.state)).toEqual(["there already", "served"]);
    expect(project.links.find((l) => l.from === "M2.SDA")).toMatchObject({ to: sda, locked: true });
    expect(pinOf(project, "M1.TRIG")).toEqual(["B1.GP20"]);
  });
  it("what stood on a given pin makes room", () => {
    const p = bench("board/atmega328p-long");
    const led = pinOf(p, "LED1.A")[0]!;
    const { project } = taken(p, `#define TRIG_PIN ${led.replace("B1.", "")}\n`);
    expect(pinOf(project, "M1.TRIG")).toEqual([led]);
    expect(pinOf(project, "LED1.A")).toEqual([]);
  });
});
