import fs from "node:fs";
import { describe, expect, it } from "vitest";
import { applyEdit, readProject, type Project } from "../project";
import { catalogue, check, make } from "../testing";
import { boardsFor, buildIdea, choiceOf, offersFor, readIdea, THINGS, thingsOf, VERBS, type Verb } from ".";
import { circuitOf } from "../circuit";
import { rulesView } from "../firmware/rules/view";
import { PHRASINGS } from "./phrasings";
import { MADE_OF, WEAK } from "./words/implied";
import { meantWord } from "./words/spelling";

const empty = () => make([]);
const owning = (parts: Record<string, number>): Project =>
  applyEdit(empty(), { type: "setDrawer", drawer: { parts } }, catalogue);

describe("an idea in a person's own words", () => {
  it("has at least 150 phrasings", () => expect(PHRASINGS.length).toBeGreaterThanOrEqual(150));
  it.each(PHRASINGS)("%s", (text, means) => {
    expect(
      readIdea(text)
        .wishes.map((w) => w.thing)
        .sort(),
    ).toEqual(means.split(" ").filter(Boolean).sort());
  });
  it("says by which words it was understood, what it does without, and what it could not read", () => {
    const r = readIdea("Show the TEMPERATURE, no sound, and please my uncle Fred");
    expect(r.wishes.map((w) => w.by.toLowerCase())).toEqual(["show the", "temperature"]);
    expect(r.unread).toEqual(["please my uncle Fred"]);
    expect(readIdea("door alarm without a display").without).toContain("text");
  });
  it("tells the words as they were typed, whatever letters stand before them", () => {
    expect(readIdea("İİİ ÄÖÜ ßß: How Warm is it").wishes).toEqual([
      { thing: "temperature", by: "How Warm", places: [12] },
    ]);
  });
  it("stands blanks, dashes, capitals and other marks", () => {
    const of = (t: string) => readIdea(t).wishes.map((w) => w.thing);
    expect(of("tell  me\twhen   the PLANTS\u00a0are  dry")).toEqual(["alert", "soil"]);
    expect(of("temperature & humidity, wi-fi")).toEqual(["temperature", "humidity", "wifi"]);
    expect(readIdea("  how   warm  & damp").wishes[0]!.by).toBe("how   warm");
  });
  it("hears where and how it lives", () => {
    expect(readIdea("temperature in the garden on batteries, cheap, without soldering").hints).toEqual({
      outdoors: true,
      battery: true,
      cheap: true,
      noIron: true,
    });
    expect(readIdea("exactly how warm is the room").hints).toEqual({ exact: true });
  });
  it("takes hostile and endless text in its stride", () => {
    const t0 = performance.now();
    readIdea("plants ".repeat(5000));
    readIdea("((((" + "a".repeat(3000) + "<script>\u0000\\");
    readIdea("count ".repeat(400) + "door is left ".repeat(100));
    expect(performance.now() - t0).toBeLessThan(2000);
  });
});

/** Things that words stand for without naming them. */
const MEANT = new Set([...MADE_OF, ...WEAK].flatMap((i) => i.things));

describe("words that are more than a table", () => {
  const things = (text: string) => readIdea(text).wishes.map((w) => w.thing);
  it("takes slips for what they were meant as, and says so; real words stay", () => {
    const r = readIdea("show the tempreture on a displey when someboby comes");
    expect(r.wishes.map((w) => [w.thing, w.by])).toEqual([
      ["text", "show the"],
      ["temperature", "tempreture"],
      ["motion", "when someboby comes"],
    ]);
    expect(r.slips).toEqual([
      { by: "tempreture", as: "temperature" },
      { by: "displey", as: "display" },
      { by: "someboby", as: "somebody" },
    ]);
    for (const real of ["planet", "floor", "flours", "blight", "sleeping", "mother", "shower"])
      expect(meantWord(real), real).toBeNull();
    expect(things("the planet floor is made of sand")).toEqual([]);
    // Never one word for two.
    expect(meantWord("moter")).toBeNull();
  });
  it("counts what is wished several times", () => {
    const many = (text: string) => readIdea(text).wishes.map((w) => [w.thing, w.many ?? 1]);
    expect(many("a piano with eight keys")).toEqual([
      ["melody", 1],
      ["button", 8],
    ]);
    expect(many("three red lamps and a pair of servos")).toEqual([
      ["lamp", 3],
      ["turn", 2],
    ]);
    expect(many("24 lights in a ring of leds")).toEqual([["strip", 24]]);
  });
  it("a name stands for what it is made of, unless something else is named for the same", () => {
    expect(things("a doorbell")).toEqual(["button", "beep"]);
    expect(things("a doorbell that plays a tune")).toEqual(["button", "melody"]);
    expect(things("burglar alarm for the front door: when the front door opens")).not.toContain("motion");
    expect(things("camera slider")).toEqual(["steps"]);
    expect(things("show it with a needle")).toEqual(["needle"]);
  });
  it("says what can't or must not be, with what to do instead, unless it is left out", () => {
    expect(readIdea("take a photo of the cat").beyond[0]).toMatchObject({ by: "photo" });
    expect(readIdea("switch a 230 V lamp").beyond[0]!.says).toMatch(/licensed/);
    expect(readIdea("give my brother an electric shock").beyond[0]!.says).toMatch(/hurt/);
    expect(readIdea("secretly record what my sister says").beyond[0]!.says).toMatch(/ask them/);
    expect(readIdea("watch the cat without a camera").beyond).toEqual([]);
    // Hardly anything sound is held back.
    const told = PHRASINGS.filter(([t]) => readIdea(t).beyond.length).map(([t]) => t);
    expect(told.length).toBeLessThan(PHRASINGS.length / 50);
  });
  it("asks for the half that is missing", () => {
    expect(readIdea("how warm is the room").half).toBe("act");
    expect(readIdea("a robot arm").half).toBe("sense");
    expect(readIdea("blink a led").half).toBeNull();
    expect(readIdea("warn me when it rains").half).toBeNull();
  });
});

describe("what the project does comes from the words", () => {
  const does = (text: string, board?: string) => {
    const r = readIdea(text);
    const p = empty();
    const offers = offersFor(
      r.wishes.map((w) => w.thing),
      p,
      catalogue,
      r.hints,
    );
    const choices = offers.map((o) => ({
      thing: o.thing,
      way: o.ways[0]!.id,
      ...choiceOf(r.wishes.find((w) => w.thing === o.thing)),
    }));
    return buildIdea(p, catalogue, { choices, hints: r.hints, goal: text, ...(board && { board }) });
  };
  it.each([
    ["water my tomatoes when the soil is dry", ["Each time Soil (dry) is above 60 %, Pump is on for 5 s."]],
    ["switch the fan on above 24 °C", ["When Air is above 24 °C, Driver is on."]],
    ["switch the fan on above 75 °F", ["When Air is above 23.9 °C, Driver is on."]],
    ["turn on the heater if temperature drops below 18", ["When Air is below 18 °C, Relay is on."]],
    ["warn me when it freezes: frost alarm", ["When Air is below 3 °C, Beeper is on."]],
    ["beep when the wall is closer than 20 cm", ["When Distance is below 200 mm, Beeper is on."]],
    ["a lamp that goes on when it gets dark", ["When Daylight is below 20 lx, Lamp is on."]],
    ["beep when the fridge door is left open", ["When Door is not pressed, Beeper is on."]],
    ["a lamp that is on while the door is closed", ["When Door is pressed, Lamp is on."]],
    ["log temperature to a card every 10 minutes", ["Every 600 s, Card gets a line."]],
    ["log when an animal comes near", ["Each time Motion is moving, Card gets a line."]],
    [
      "feed the fish at 7:30 and at six in the evening",
      [
        "Each day at 07:30 by Clock, Arm is at 90 deg for 5 s.",
        "Each day at 18:00 by Clock, Arm is at 90 deg for 5 s.",
      ],
    ],
    ["aquarium lamp on in the morning and off in the evening", ["From 07:00 to 19:00 by Clock, Light is on."]],
    [
      "the hen house door opens at 7 and closes at 20:30",
      ["From 07:00 to 20:30 by Clock, Arm is set to angle 90 deg."],
    ],
    ["stop the pump when the tank is empty", ["When Level is above 80 cm, Pump is off."]],
    ["a sprinkler that does not run when it rains", ["When Rain is wet, Pump is off."]],
    ["switch the lamp on and off by clapping", ["Each time Loudness (sound) is above 60 %, Lamp goes on or off."]],
    ["step counter with digits", ["Each time Tilt (x) is above 0.4, Digits counts one on."]],
    [
      "a birthday card with a tune",
      [
        "Each time Daylight is above 30 lx, Beeper is at 523 Hz for 0.25 s, then at 659 Hz for 0.25 s, then at 784 Hz for 0.5 s.",
      ],
    ],
    ["a mood light that changes when I touch it", ["Each time Touch is touched, Strip goes on or off."]],
    ["a stop light when it gets dark", ["When Daylight is below 20 lx, Lamp is on."]],
    ["keep the terrarium at 28 degrees", ["When Air is below 28 °C, Relay is on."]],
    ["heating that keeps the room warm", ["When Air is below 18 °C, Relay is on."]],
    ["an incubator", ["When Air is below 37.5 °C, Relay is on."]],
    ["turn the air conditioner on when it is too warm", ["When Air is above 26 °C, Relay is on."]],
    ["turn off the TV when it is too late", ["From 22:00 to 06:00 by Clock, Relay is off."]],
    ["an alarm clock that wakes me with light at 6:45", ["Each day at 06:45 by Clock, Strip is on for 3600 s."]],
    ["toilet occupied sign", ["When Door is pressed, Lamp is on."]],
    ["turn the dehumidifier on above 60 %", ["When Air is above 60 %, Relay is on."]],
    ["beep at less than 30 % humidity and 400 m away", ["When Air is below 30 %, Beeper is on."]],
    ["a model car that keeps its distance", ["When Distance is above 300 mm, Driver is on."]],
    [
      "a traffic light for the temperature of my coffee",
      [
        "When Warmth is below 37 °C, Green is on.",
        "When Warmth is above 37 °C, Yellow is on.",
        "When Warmth is above 40 °C, Red is on.",
      ],
    ],
    ["two sliders for two servos", [1, 2].map((n) => `Arm ${n} follows Knob ${n} (turned).`)],
    ["a servo that points to the temperature", ["Arm follows Air."]],
    ["swimming pool pump, two hours at noon", ["Each day at 12:00 by Clock, Pump is on for 7200 s."]],
    ["a night light for my brother that comes on when it is dark", ["When Daylight is below 20 lx, Strip is on."]],
    ["remind me to stand up every hour", ["Every 3600 s, Beeper is on for 5 s."]],
    ["a heater on at 7:00 in a room at 20 °C", ["Each day at 07:00 by Clock, Relay is on for 3600 s."]],
    [
      "feed the fish at noon and at midnight",
      ["12:00", "00:00"].map((t) => `Each day at ${t} by Clock, Arm is at 90 deg for 5 s.`),
    ],
    ["chicken coop door", ["When Daylight is above 1000 lx, Arm is set to angle 90 deg."]],
    ["switch the desk lamp on at 18:15", ["Each day at 18:15 by Clock, Light is on for 3600 s."]],
    ["lawn sprinkler at 6 am for ten minutes", ["Each day at 06:00 by Clock, Pump is on for 600 s."]],
    ["press a button and a lamp stays on for two minutes", ["Each time Button is pressed, Lamp is on for 120 s."]],
    ["pump water every 15 minutes for 20 seconds", ["Every 900 s, Pump is on for 20 s."]],
    ["a thermometer with a needle", ["Needle follows Air."]],
    ["control a servo with a knob", ["Arm follows Knob (turned)."]],
    ["a robot that drives and avoids obstacles", ["When Obstacle is not near, Driver is on."]],
    ["count the goals with large digits", ["Each time Count is pressed, Digits counts one on."]],
    ["a clock with big digits", ["Digits follows Clock (time of day)."]],
    ["clap and the lamp goes on", ["Each time Loudness (sound) is above 60 %, Lamp goes on or off."]],
    [
      "three buttons and three lamps",
      [1, 2, 3].map((n) => `Each time Button ${n} is pressed, Lamp ${n} goes on or off.`),
    ],
    [
      "greenhouse: measure temperature and humidity, open the window when it gets too warm",
      ["When Warmth is above 26 °C, Arm is set to angle 90 deg."],
    ],
    [
      "co2 traffic light",
      [
        "When Air is below 800 ppm, Green is on.",
        "When Air is above 800 ppm, Yellow is on.",
        "When Air is above 1000 ppm, Red is on.",
      ],
    ],
  ])("%s", (text, says) => expect(does(text).does).toEqual(says));
  it("nothing moves, heats or pumps by what nobody spoke of, and what is short of the words is told", () => {
    expect(does("a robot arm and a pump").does).toEqual([]);
    const lock = does("open the box with an rfid card");
    expect(lock.short.join()).toMatch(/Any card/);
    expect(does("turn on the heater when it is cold").short.join()).toMatch(/cut-out/);
    expect(does("turn off the heater when the window is open").short.join()).toMatch(/What switches it on is not said/);
  });
  it("keeps what the project did before", () => {
    const first = does("a lamp when it is dark").project;
    const b = buildIdea(first, catalogue, {
      choices: [
        { thing: "button", way: "button" },
        { thing: "beep", way: "active" },
      ],
      goal: "a doorbell",
    });
    expect(b.does).toEqual(["When Daylight is below 20 lx, Lamp is on.", "When Button is pressed, Beeper is on."]);
  });
});

describe("the table", () => {
  it("has things for every verb, each with words and ways of parts that exist", () => {
    for (const verb of Object.keys(VERBS) as Verb[]) expect(thingsOf(verb).length, verb).toBeGreaterThan(0);
    expect(new Set(THINGS.map((t) => t.id)).size).toBe(THINGS.length);
    for (const t of THINGS) {
      expect(t.words.length || MEANT.has(t.id), t.id).toBeTruthy();
      expect(new Set(t.ways.map((w) => w.id)).size, t.id).toBe(t.ways.length);
      for (const w of t.ways)
        for (const p of w.pieces) expect(catalogue.get(p.part), `${t.id}: ${p.part}`).toBeDefined();
      if (!t.board) for (const w of t.ways) expect(w.pieces.length, t.id).toBeGreaterThan(0);
    }
  });
});

describe("ways are ranked by what decides", () => {
  const first = (thing: string, p: Project, hints = {}) => offersFor([thing], p, catalogue, hints)[0]!.ways[0]!;
  it("the drawer first", () => {
    expect(first("temperature", empty()).id).toBe("sht40");
    const mine = first("temperature", owning({ "module/dht22": 1 }));
    expect(mine.id).toBe("dht22");
    expect(mine.pros[0]).toBe("in your drawer");
  });
  it("outdoors, cheap and exact change the order, and say why", () => {
    expect(first("temperature", empty(), { outdoors: true }).id).toBe("ds18b20");
    expect(first("light-level", empty(), { cheap: true }).price).toBe(1);
    expect(first("air-quality", empty(), { exact: true }).id).toBe("scd41");
    expect(first("air-quality", empty(), { cheap: true }).id).not.toBe("scd41");
    const inside = offersFor(["temperature"], empty(), catalogue, { outdoors: true })[0]!.ways.find(
      (w) => w.id !== "ds18b20",
    )!;
    expect(inside.cons.join()).toContain("dry box");
  });
  it("by the board's voltage, where there is one", () => {
    const on = (board: string) => applyEdit(empty(), { type: "addPart", part: board, ref: "B1" }, catalogue);
    expect(first("record", on("board/rp2040-forty")).id).toBe("sd-3v3");
    expect(first("record", on("board/atmega328p-long")).id).toBe("sd-shifted");
  });
  it("never more than three, and every one with reasons", () => {
    for (const o of offersFor(
      THINGS.map((t) => t.id),
      empty(),
      catalogue,
    )) {
      expect(o.ways.length, o.thing).toBeLessThanOrEqual(3);
      for (const w of o.ways) expect(w.pros.length, `${o.thing} ${w.id}`).toBeGreaterThan(0);
    }
  });
});

describe("boards to begin with", () => {
  it("with a radio where a page is wanted, with soldered pins where nobody solders, the drawer's first", () => {
    expect(boardsFor(["temperature"], empty(), catalogue)[0]!.part).toBe("board/rp2040-forty");
    for (const b of boardsFor(["wifi"], empty(), catalogue))
      expect(catalogue.get(b.part)!.board!.radio).toContain("wifi");
    expect(boardsFor(["text"], empty(), catalogue, { noIron: true })[0]!.part).toBe("board/atmega328p-long");
    expect(boardsFor(["text"], owning({ "board/samd21-compact": 1 }), catalogue)[0]!.part).toBe("board/samd21-compact");
  });
});

describe("what is joined to a project", () => {
  const demo = () => {
    const r = readProject(
      fs.readFileSync(new URL("../../../demo/moss-terrarium.lattice.json", import.meta.url), "utf8"),
      catalogue,
    );
    if (!r.ok) throw new Error("the demo can't be read");
    return r.project;
  };
  it("leaves what was wrong before to the person, keeps their words, and its own where there are none", () => {
    const before = demo();
    const had = check(before)
      .filter((f) => f.severity === "fault")
      .map((f) => f.rule);
    expect(had).toEqual(["level.low-high"]);
    const b = buildIdea(before, catalogue, { choices: [{ thing: "beep", way: "active" }], goal: "and beep" });
    expect(
      check(b.project)
        .filter((f) => f.severity === "fault")
        .map((f) => f.rule),
    ).toEqual(had);
    expect(b.did.join()).not.toMatch(/74AHCT125/);
    expect(b.project.brief.goal).toBe(before.brief.goal);
    expect(buildIdea(empty(), catalogue, { choices: [], goal: " beep " }).project.brief.goal).toBe("beep");
  });
});

/** Every phrasing that means something: by turns here, all of them in the whole set. */
const SOME = PHRASINGS.filter(([, means], i) => means && (process.env.ALL || i % 6 === 1));

describe("a project comes of it, planned and checked", () => {
  it.each(SOME)("%s", (text) => {
    const { wishes, hints } = readIdea(text);
    const things = wishes.map((w) => w.thing);
    const offers = offersFor(things, empty(), catalogue, hints);
    const choices = offers.map((o) => ({
      thing: o.thing,
      way: o.ways[0]!.id,
      ...choiceOf(wishes.find((w) => w.thing === o.thing)),
    }));
    const b = buildIdea(empty(), catalogue, { choices, hints, goal: text });
    expect(b.clash).toBeNull();
    const bad = check(b.project).filter((f) => f.severity === "stop" || f.severity === "fault");
    expect(bad).toEqual([]);
    // Every sentence is one that the board's program can follow.
    expect(rulesView(circuitOf(b.project, catalogue)).rules.filter((r) => r.why !== null)).toEqual([]);
    for (const o of offers)
      for (const p of o.ways[0]!.parts)
        expect(
          b.project.parts.some((x) => x.part === p.part),
          p.part,
        ).toBe(true);
  });
});
