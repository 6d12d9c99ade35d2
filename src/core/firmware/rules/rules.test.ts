import { describe, expect, it } from "vitest";
import { circuitOf } from "../../circuit";
import { assign } from "../../plan/assign";
import { applyEdit, readProject, RuleSchema, ruleProblems, writeProject, type Rule } from "../../project";
import { BOARD3, BOARD5, catalogue, make, USB } from "../../testing";
import { stageOf } from "../../bench/stage";
import { findPin } from "../../parts/catalogue";
import { leftOut } from "../drivers";
import { driverParts } from "../pins";
import { programOf } from "../sim";
import { targetById } from "..";
import { usbHostOf } from "../usb/host";
import { ruled } from ".";
import { suggest } from "./suggest";
import { rulesView } from "./view";

const PARTS = [
  { ref: "SW1", part: "discrete/button", label: "Go" },
  { ref: "LED1", part: "discrete/led-red", label: "Lamp" },
  { ref: "M1", part: "module/hc-sr04", label: "Distance" },
  { ref: "M2", part: "module/aht20", label: "Air" },
  { ref: "M3", part: "module/servo-small", label: "Flag" },
  { ref: "M4", part: "module/ht16k33-digits", label: "Digits" },
  { ref: "M5", part: "module/ds3231", label: "Clock" },
];
const project = (rules?: Rule[], parts: object[] = PARTS, board: object = BOARD5) => {
  const a = assign(make([board as never, USB, ...(parts as never[])]), catalogue);
  return { ...a.project, ...(rules && { rules }) };
};
const view = (rules?: Rule[], parts?: object[], board?: object) =>
  rulesView(circuitOf(project(rules, parts, board), catalogue));

describe("how bright a light is", () => {
  const KNOB = { ref: "POT1", part: "discrete/potentiometer", label: "Knob" };
  const STRIP = { ref: "M9", part: "module/mosfet-switch", label: "Strip" };
  const FOLLOW: Rule[] = ["LED1", "M9"].map((ref) => ({
    when: { ref: "POT1", out: "pct" },
    do: { ref, act: "follow" },
  }));
  const plan = (rules: Rule[], board: object, links: { from: string; to: string; locked?: true }[] = []) =>
    circuitOf(
      assign({ ...make([board as never, USB, PARTS[1]!, KNOB, STRIP]), rules, links }, catalogue).project,
      catalogue,
    );
  const kinds = (c: ReturnType<typeof plan>, ref: string) => {
    const b = c.netlist.bindings.find((x) => x.ref === ref)!;
    return findPin(c.netlist.instance("B1")!.part, b.hostPin)!.offers!.map((o) => o.kind);
  };
  it.each(catalogue.parts.filter((p) => p.board && p.id.startsWith("board/")).map((p) => p.id))(
    "%s plans a pin that makes pulses, where a rule asks for it, and the program follows it or says why not",
    (id) => {
      const c = plan(FOLLOW, { ref: "B1", part: id });
      if (!c.netlist.bindings.some((b) => b.ref === "POT1")) return;
      for (const ref of ["LED1", "M9"]) expect(kinds(c, ref), ref).toContain("pwm");
      expect(rulesView(c).rules.map((r) => r.why)).toEqual([null, null]);
    },
  );
  it("a pin without pulses is told, not driven", () => {
    // D4 of this board belongs to no timer.
    const c = plan(FOLLOW.slice(0, 1), BOARD5, [{ from: "LED1.A", to: "B1.D4", locked: true }]);
    expect(kinds(c, "LED1")).not.toContain("pwm");
    expect(rulesView(c).rules[0]!.why).not.toBeNull();
    expect(
      driverParts(c, "B1", "sketch", (b) => b)
        .map((p) => leftOut(p)?.why)
        .join(),
    ).toMatch(/makes no pulses/);
  });
  it("on and off stay as they were, and a rule editor may ask for either", () => {
    const on: Rule[] = [{ when: { ref: "POT1", out: "pct", above: 50 }, do: { ref: "LED1", act: "on" } }];
    const c = plan(on, BOARD3);
    expect(rulesView(c).outputs.find((o) => o.ref === "LED1")).toMatchObject({
      onOff: true,
      dims: true,
      word: "brightness",
      range: [0, 100],
    });
    expect(
      targetById("sketch")!
        .files(c)
        .map((f) => f.text)
        .join(),
    ).not.toContain("analogWrite");
  });
  it("goes over the outputs of another part as well, as much of their full share", () => {
    const links = [{ from: "LED1.A", to: "M2.PWM3", locked: true as const }];
    const parts = [
      { ref: "B1", part: "board/rp2040-forty" },
      USB,
      PARTS[1]!,
      KNOB,
      { ref: "M2", part: "module/pca9685", label: "Outs" },
    ];
    const a = assign({ ...make(parts as never), rules: FOLLOW.slice(0, 1), links }, catalogue);
    const c = circuitOf(a.project, catalogue);
    expect(rulesView(c).rules[0]!.why).toBeNull();
    const stage = stageOf(c, "B1", "micropython");
    const program = programOf(c, "B1", "micropython", stage);
    stage.set("POT1", "pct", 40, 0);
    program.run(3000);
    const bright = stage.seen("LED1", 3000).is!.bright_pct!;
    expect(Math.abs(bright - 40)).toBeLessThan(2);
    expect(Math.abs(stage.seen("M2", 3000).is!.on_3! / 40.96 - bright)).toBeLessThan(1);
  });
  it("plain C leaves it dark and says so, and ones and noughts are on and off", () => {
    const chip = { ref: "B1", part: "chip/atmega328p-dip28" };
    const text = (rules: Rule[]) =>
      targetById("avr-c")!
        .files(plan(rules, chip))
        .find((f) => f.path === "main.c")!.text;
    const dimmed = text(FOLLOW.slice(0, 1));
    expect(dimmed).toMatch(/^\/\/ Not here: Lamp follows Knob/m);
    expect(dimmed).not.toContain("high(PIN_LAMP)");
    const steps = [1, 0].map((value) => ({ value, for_s: 0.5 }));
    const blinks = text([
      { when: { ref: "POT1", out: "pct", above: 50 }, do: { ref: "LED1", act: "sequence", steps, times: 3 } },
    ]);
    expect(blinks).not.toContain("Not here");
    expect(blinks).toContain("high(PIN_LAMP)");
  });
  it("is seen on the simulated bench, as far as the knob is turned", () => {
    const c = plan(FOLLOW, BOARD3);
    for (const target of ["sketch", "micropython"] as const) {
      const stage = stageOf(c, "B1", target);
      const program = programOf(c, "B1", target, stage);
      let now = 0;
      for (const [share, bright] of [
        [0, 0],
        [40, 40],
        [100, 100],
      ] as const) {
        expect(stage.set("POT1", "pct", share, 0)).toBeNull();
        program.run((now += 1500));
        for (const ref of ["LED1", "M9"])
          expect(Math.abs((stage.seen(ref, 0).is?.bright_pct ?? -1) - bright), `${target} ${ref}`).toBeLessThan(2);
      }
    }
  });
});

describe("sentences", () => {
  const says = (when: object, act: object) => view([RuleSchema.parse({ when, do: act })]).rules[0]!;
  it.each([
    [
      { ref: "M1", out: "cm", below: 20, hysteresis: 2 },
      { ref: "LED1", act: "on" },
      "When Distance is below 20 cm, Lamp is on.",
    ],
    [
      { ref: "M2", out: "t", above: 25.5 },
      { ref: "M3", act: "set", value: 90 },
      "When Air is above 25.5 °C, Flag is set to angle 90 deg.",
    ],
    [
      { ref: "SW1", out: "pressed", is: 1 },
      { ref: "LED1", act: "toggle" },
      "Each time Go is pressed, Lamp goes on or off.",
    ],
    [{ ref: "SW1", out: "pressed", is: 0 }, { ref: "LED1", act: "on" }, "When Go is not pressed, Lamp is on."],
    [{ every_s: 2 }, { ref: "M4", act: "count" }, "Every 2 s, Digits counts one on."],
    [{ ref: "M1", out: "cm" }, { ref: "M4", act: "follow" }, "Digits follows Distance."],
    [{ ref: "M5", out: "time" }, { ref: "M4", act: "follow" }, "Digits follows Clock (time of day)."],
    [
      { ref: "SW1", out: "pressed", is: 1 },
      { ref: "LED1", act: "next", among: ["M3"] },
      "Each time Go is pressed, Lamp and Flag take turns.",
    ],
    [
      { ref: "SW1", out: "pressed", is: 1 },
      {
        ref: "LED1",
        act: "sequence",
        steps: [
          { value: "on", for_s: 0.2 },
          { value: "off", for_s: 0.3 },
        ],
        times: 3,
      },
      "Each time Go is pressed, Lamp is on for 0.2 s, then off for 0.3 s, 3 times.",
    ],
    [
      { every_s: 60 },
      { ref: "M3", act: "sequence", steps: [{ value: 90, for_s: 1 }] },
      "Every 60 s, Flag is at 90 deg for 1 s.",
    ],
    [{ every_s: 3600 }, { ref: "LED1", act: "for", for_s: 5 }, "Every 3600 s, Lamp is on for 5 s."],
    [
      { ref: "SW1", out: "pressed", is: 1 },
      { ref: "LED1", act: "for", for_s: 30 },
      "Each time Go is pressed, Lamp is on for 30 s.",
    ],
    [
      { ref: "M5", from: "18:00", to: "23:30" },
      { ref: "LED1", act: "on" },
      "From 18:00 to 23:30 by Clock, Lamp is on.",
    ],
    [
      { ref: "M5", at: "07:30" },
      { ref: "M3", act: "for", for_s: 10 },
      "Each day at 07:30 by Clock, Flag is on for 10 s.",
    ],
    [
      { ref: "M5", from: "22:00", to: "06:00" },
      { ref: "M4", act: "count" },
      "Each day at 22:00 by Clock, Digits counts one on.",
    ],
  ])("%j, %j", (when, act, text) => {
    const r = says(when, act);
    expect(r.says).toBe(text);
    expect(r.why).toBeNull();
  });
  it("what can't be done is told with what can", () => {
    expect(says({ ref: "M2", from: "08:00", to: "09:00" }, { ref: "LED1", act: "on" }).why).toBe(
      "Air is no clock: it does not give the time of day",
    );
    expect(says({ ref: "M1", out: "weight", above: 1 }, { ref: "LED1", act: "on" }).why).toBe(
      'Distance does not give "weight"; it gives cm',
    );
    expect(says({ ref: "SW1", out: "pressed", is: 1 }, { ref: "M2", act: "on" }).why).toBe(
      "Air can't be told anything by a rule",
    );
    expect(says({ ref: "M1", out: "cm", below: 5 }, { ref: "M3", act: "set", value: 700 }).why).toBe(
      "Flag takes 0 to 180, not 700",
    );
  });
});

describe("rules in a document", () => {
  const refs = new Set(["M1", "LED1"]);
  const problem = (when: object, act: object) => ruleProblems([RuleSchema.parse({ when, do: act })], refs)[0]?.message;
  it("that speak of parts that are not there, or of acts that need another occasion, are refused with a reason", () => {
    expect(problem({ ref: "M9", out: "cm", below: 1 }, { ref: "LED1", act: "on" })).toContain('no part "M9"');
    expect(problem({ every_s: 1 }, { ref: "LED1", act: "on" })).toContain("a moment, not a while");
    expect(problem({ ref: "M1", at: "08:00" }, { ref: "LED1", act: "on" })).toContain("a moment, not a while");
    expect(problem({ ref: "M1", from: "08:00", to: "08:00" }, { ref: "LED1", act: "on" })).toContain("no time at all");
    expect(problem({ ref: "M1", from: "08:00", to: "09:00" }, { ref: "LED1", act: "follow" })).toContain(
      "a quantity alone",
    );
    expect(problem({ every_s: 60 }, { ref: "LED1", act: "for", for_s: 5 })).toBeUndefined();
    expect(problem({ ref: "M1", out: "cm" }, { ref: "LED1", act: "on" })).toContain('can only "follow"');
    expect(problem({ ref: "M1", out: "cm", above: 3 }, { ref: "LED1", act: "follow" })).toContain("a quantity alone");
    expect(problem({ ref: "M1", out: "cm", below: 1 }, { ref: "LED1", act: "on" })).toBeUndefined();
  });
  it("unknown keys, both bounds at once, and endless numbers are refused", () => {
    const bad = [
      { when: { ref: "M1", out: "cm", above: 1, below: 2 }, do: { ref: "LED1", act: "on" } },
      { when: { ref: "M1", out: "cm", above: 1e99 }, do: { ref: "LED1", act: "on" } },
      { when: { ref: "M1", out: "cm", above: 1 }, do: { ref: "LED1", act: "explode" } },
      { when: { every_s: 0 }, do: { ref: "LED1", act: "toggle" } },
      { when: { ref: "M1", at: "24:00" }, do: { ref: "LED1", act: "toggle" } },
      { when: { ref: "M1", at: "7:30" }, do: { ref: "LED1", act: "toggle" } },
      { when: { ref: "M1", from: "07:30" }, do: { ref: "LED1", act: "on" } },
      { when: { every_s: 5 }, do: { ref: "LED1", act: "for", for_s: 0 } },
    ];
    for (const r of bad) expect(RuleSchema.safeParse(r).success, JSON.stringify(r)).toBe(false);
  });
  it("go with the file, leave with their part, and come back to what is suggested", () => {
    const rules: Rule[] = [
      { when: { ref: "M1", out: "cm", below: 20 }, do: { ref: "LED1", act: "on" } },
      { when: { ref: "SW1", out: "pressed", is: 1 }, do: { ref: "M3", act: "on" } },
    ];
    const p = applyEdit(project(), { type: "setRules", rules }, catalogue);
    const again = readProject(writeProject(p), catalogue);
    expect(again.ok && again.project.rules).toEqual(rules);
    expect(applyEdit(p, { type: "removePart", ref: "M1" }, catalogue).rules).toEqual([rules[1]]);
    expect(applyEdit(p, { type: "setRules" }, catalogue).rules).toBeUndefined();
  });
});

describe("what is suggested", () => {
  const of = (parts: object[], board: object = BOARD3) =>
    suggest(driverParts(circuitOf(project(undefined, parts, board), catalogue), "B1", "micropython", (b) => b));
  it("lets every output do something; what moves or switches waits for a contact", () => {
    expect(view().rules.map((r) => r.says)).toEqual(["When Go is pressed, Flag is on.", "Digits follows Distance."]);
    const pump = { ref: "M9", part: "module/mosfet-switch", label: "Pump" };
    expect(of([pump])).toEqual([]);
    expect(of([pump, PARTS[0]!])).toEqual([
      { when: { ref: "SW1", out: "pressed", is: 1 }, do: { ref: "M9", act: "on" } },
    ]);
    expect(of([PARTS[5]!])).toEqual([{ when: { every_s: 1 }, do: { ref: "M4", act: "count" } }]);
  });
  it("comes into the program, and is gone when somebody writes rules", () => {
    const starter = (rules?: Rule[]) =>
      targetById("sketch")!
        .files(circuitOf(project(rules), catalogue))
        .find((f) => f.path === "starter/starter.ino")!.text;
    expect(starter()).toContain("// When Go is pressed, Flag is on.");
    expect(starter([])).not.toContain("rules_task");
    const p = project([{ when: { ref: "SW1", out: "pressed", is: 1 }, do: { ref: "LED1", act: "toggle" } }]);
    const c = circuitOf(p, catalogue);
    const parts = driverParts(c, "B1", "sketch", (b) => b);
    const r = ruled(p, parts, usbHostOf(c, "B1", "sketch"));
    expect(r.suggested).toBe(false);
    expect(parts.filter((x) => x.ruled).map((x) => x.ref)).toEqual(["LED1"]);
  });
  it("what a program can't do stands in it as a comment, whatever the labels are", () => {
    const label = "Go\nimport os \\";
    const parts = [{ ref: "SW1", part: "discrete/button", label }];
    const rules: Rule[] = [
      { when: { ref: "SW1", out: "pressed", is: 1 }, do: { ref: "B1", act: "send", send: { key: "a" } } },
      { when: { ref: "SW1", out: "pressed", is: 1 }, do: { ref: "SW1", act: "on" } },
    ];
    const c = circuitOf(project(rules, parts, BOARD3), catalogue);
    for (const [id, path, mark] of [
      ["micropython", "main.py", "#"],
      ["sketch", "starter/starter.ino", "//"],
    ] as const) {
      const text = targetById(id)!
        .files(c)
        .find((f) => f.path === path)!.text;
      const told = text.split("\n").filter((l) => l.includes("Not here:"));
      expect(told, id).toHaveLength(2);
      for (const l of told) expect(l.startsWith(`${mark} Not here: `) && !l.endsWith("\\"), l).toBe(true);
      expect(text).not.toMatch(/^import os/m);
    }
  });
  it("two boards: a rule between them is told, not dropped", () => {
    const two = [
      { ref: "B2", part: "board/rp2040-forty" },
      { ref: "SW1", part: "discrete/button", label: "Go", host: "B1" },
      { ref: "LED1", part: "discrete/led-red", label: "Lamp", host: "B2" },
    ];
    const rule: Rule = { when: { ref: "SW1", out: "pressed", is: 1 }, do: { ref: "LED1", act: "on" } };
    const [r] = view([rule], two, BOARD5).rules;
    expect(r!.says).toBe("When Go is pressed, Lamp is on.");
    expect(r!.why).toBe("SW1 is not worked by this board's program");
  });
});
