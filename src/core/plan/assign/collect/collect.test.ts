import { describe, expect, it } from "vitest";
import { assign, endOf, problemsOf, type Problem } from "..";
import { BOARD3, BOARD5, catalogue, find, make, USB } from "../../../testing";

const problem = (board: object, ...parts: object[]): Problem =>
  problemsOf(make([board, USB, ...parts]), catalogue).problems[0]!;
const need = (p: Problem, id: string) => p.needs.find((n) => n.id === id)!;
const at = (p: Problem, id: string) => need(p, id).choices.map((c) => endOf(p, c.pin));
const board = (id: string) => ({ ref: "B1", part: `board/${id}` });

describe("timers, from the board's data", () => {
  it("a servo runs from the core's own timer on any pin, a note from another; dimming keeps to its pins", () => {
    const p = problem(
      BOARD5,
      { ref: "M1", part: "module/servo-small" },
      { ref: "LS1", part: "discrete/speaker" },
      { ref: "M2", part: "module/tb6612" },
    );
    const timers = (id: string) =>
      new Set(need(p, id).choices.flatMap((c) => c.uses.map((u) => `${p.resources[u.resource]!.id} ${u.mode}`)));
    expect(timers("M1.SIG")).toEqual(new Set(["timer1 at 50 Hz"]));
    expect(timers("LS1.1")).toEqual(new Set(["timer2 at the notes of LS1"]));
    expect(at(p, "M1.SIG")).toHaveLength(20);
    expect(new Set(at(p, "M2.PWMA"))).toEqual(new Set(["B1.D3", "B1.D5", "B1.D6", "B1.D9", "B1.D10", "B1.D11"]));
    // So with a servo and a note only the pins of timer 0 dim.
    const a = assign(
      make([
        BOARD5,
        USB,
        { ref: "M1", part: "module/servo-small" },
        { ref: "LS1", part: "discrete/speaker" },
        { ref: "M2", part: "module/tb6612" },
      ]),
      catalogue,
    );
    const pwm = a.links.filter((l) => l.from.startsWith("M2.PWM")).map((l) => l.to);
    expect(new Set(pwm)).toEqual(new Set(["B1.D5", "B1.D6"]));
  });
  it("a timer that keeps the program's clock runs at no other rate", () => {
    const p = problem(BOARD5, { ref: "M1", part: "module/servo-small", options: { pwm_Hz: 60 } });
    expect(
      need(p, "M1.SIG").choices.every((c) =>
        c.uses.every((u) => u.mode === "at 60 Hz" && p.resources[u.resource]!.id !== "timer0"),
      ),
    ).toBe(true);
  });
  it("a pool of timers has as many rates as the chip's data say", () => {
    const p = problem(board("esp32-c3-mini"), { ref: "M1", part: "module/servo-small" });
    expect(p.resources).toMatchObject([{ id: "ledc", modes: 4, most: 6 }]);
  });
});

describe("interrupt lines and pin sets", () => {
  it("pins that share a line are told apart from those with one of their own", () => {
    const shared = problem(board("samd21-compact"), { ref: "M1", part: "module/encoder" });
    expect(shared.resources.some((r) => r.says.startsWith("interrupt line EXTINT"))).toBe(true);
    const own = problem(BOARD3, { ref: "M1", part: "module/encoder" });
    expect(own.resources.some((r) => r.says.startsWith("interrupt line"))).toBe(false);
  });
  it("a remapped port takes both lines from one set", () => {
    const p = problem(board("stm32f103-forty"), { ref: "M1", part: "module/gps-neo6m" });
    const sets = need(p, "M1.RX")
      .choices.filter((c) => c.bus === "uart1")
      .map((c) => `${endOf(p, c.pin)} ${c.uses[0]?.mode}`);
    expect(sets).toEqual(expect.arrayContaining(["B1.PA9 set A", "B1.PB6 set B"]));
  });
  it("a chip whose one controller is I2C or SPI can't be both", () => {
    const chip = { ref: "B1", part: "chip/attiny84-dip14" };
    const both = make([chip, { ref: "M1", part: "module/bme280" }, { ref: "M2", part: "module/max31855" }]);
    expect(assign(both, catalogue).status).toBe("infeasible");
    expect(assign(make([chip, { ref: "M1", part: "module/bme280" }]), catalogue).status).toBe("optimal");
  });
});

describe("rows of lines", () => {
  it("a display's data lines and a keypad's rows and columns stand in their order", () => {
    const a = assign(
      make([
        board("atmega2560-long"),
        USB,
        { ref: "M1", part: "module/lcd1602-parallel" },
        { ref: "M2", part: "module/keypad-4x4" },
      ]),
      catalogue,
    );
    expect(a.costBy.filter((c) => c.reason === "order")).toEqual([]);
    const columns = catalogue.get("board/atmega2560-long")!.pins.filter((p) => p.offers?.length);
    const place = (id: string) => columns.findIndex((p) => `B1.${p.label}` === a.links.find((l) => l.from === id)!.to);
    for (const row of [
      ["M1.D4", "M1.D5", "M1.D6", "M1.D7"],
      ["M2.R1", "M2.R2", "M2.R3", "M2.R4"],
      ["M2.C1", "M2.C2", "M2.C3", "M2.C4"],
    ]) {
      const steps = row.slice(1).map((id, i) => place(id) - place(row[i]!));
      expect(Math.abs(steps[0]!)).toBe(1);
      expect(new Set(steps).size).toBe(1);
    }
  });
});

describe("CAN", () => {
  const transceiver = { ref: "M1", part: "module/sn65hvd230" };
  it("goes to the controller's pins where the chip has one, and is refused where not", () => {
    const a = assign(make([board("stm32f103-forty"), USB, transceiver]), catalogue);
    expect(a.links.filter((l) => /C[TR]X/.test(l.from)).map((l) => l.to)).toEqual(["B1.PB9", "B1.PB8"]);
    const none = assign(make([BOARD5, USB, transceiver]), catalogue);
    expect(none.clash).toBe("M1.CTX wants CAN TX, and B1 has no pin that could be it.");
  });
  it("a port takes one transceiver", () => {
    const two = [transceiver, { ref: "M2", part: "module/sn65hvd230" }];
    expect(assign(make([board("stm32f103-forty"), USB, ...two]), catalogue).clash).toContain(
      "each want a CAN port of their own",
    );
    expect(assign(make([board("imxrt1062-compact"), USB, ...two]), catalogue).status).toBe("optimal");
  });
});

describe("as it stands", () => {
  it("two watched inputs on one line are found", () => {
    const pins = catalogue.get("board/samd21-compact")!.pins;
    const on = (line: string) =>
      pins.filter((p) => p.offers?.some((o) => o.kind === "interrupt" && o.line === line)).map((p) => p.label);
    const [a, b] = on("EXTINT2");
    const own = {
      ...catalogue.get("module/hc-sr04")!,
      id: "module/watched",
      pins: catalogue
        .get("module/hc-sr04")!
        .pins.map((p) => (p.label === "ECHO" ? { ...p, need: { kind: "interrupt" } } : p)),
    };
    const p = make(
      [board("samd21-compact"), USB, { ref: "M1", part: "module/watched" }, { ref: "M2", part: "module/watched" }],
      [
        ["M1.ECHO", `B1.${a}`],
        ["M2.ECHO", `B1.${b}`],
      ],
      { customParts: [own] },
    );
    expect(find(p, "pin.interrupts")).toMatchObject({ severity: "fault", at: ["M1.ECHO", "M2.ECHO"] });
  });
});
