import { describe, expect, it } from "vitest";
import { stageOf } from "../../bench/stage";
import { MODELS } from "../../bench/models";
import { circuitOf } from "../../circuit";
import { assign } from "../../plan/assign";
import { BOARD3, BOARD5, catalogue, make, USB } from "../../testing";
import { DEVICES } from "../devices";
import { driverParts } from "../pins";
import { programOf } from "../sim";
import { targetById } from "..";
import { ruled } from "../rules";
import { usbHostOf } from "../usb/host";
import { awakeNeeded, deafTo, napOf, settle_ms, sleepless } from ".";

const planned = (board: object, parts: object[], sleep?: object) =>
  circuitOf(
    assign(make([{ ...board, ...(sleep && { sleep }) }, USB, ...parts] as never), catalogue).project,
    catalogue,
  );
const AIR = { ref: "M1", part: "module/bme280", label: "Air" };
const ROUND = { every_s: 60, awake_s: 4 };

describe("sleep between readings", () => {
  it("is awake for its part of every round: lines come then, and time goes on", () => {
    const c = planned(BOARD3, [AIR], ROUND);
    const p = programOf(c, "B1", "micropython", stageOf(c, "B1", "micropython"));
    p.run(125_000);
    const at = p.said.flatMap((s) => /running (\d+) s$/.exec(s.line)?.[1] ?? []);
    expect(at).toEqual(["0", "1", "2", "3", "60", "61", "62", "63", "120", "121", "122", "123"]);
    expect(p.said.filter((s) => s.at >= 60_000 && /^Air --/.test(s.line))).toEqual([]);
  });
  it("a light that only blinks is dark meanwhile; one that a rule holds stays", () => {
    const c = planned(
      BOARD3,
      [AIR, { ref: "LED1", part: "discrete/led-red" }, { ref: "LED2", part: "discrete/led-red" }],
      {
        every_s: 20,
        awake_s: 4,
      },
    );
    const project = {
      ...c.project,
      rules: [{ when: { ref: "M1", out: "t", above: -20, hysteresis: 1 }, do: { ref: "LED2", act: "on" as const } }],
    };
    const ruled = circuitOf(project, catalogue);
    const lit = new Map<string, number>();
    const p = programOf(ruled, "B1", "micropython", {
      ...stageOf(ruled, "B1", "micropython"),
      drive: (ref, _pin, level) => void lit.set(ref, level),
    });
    for (const s of [10, 30, 50]) {
      p.run(s * 1000);
      expect(Object.fromEntries(lit), `${s} s`).toMatchObject({ LED2: 1 });
      expect(lit.get("LED1") ?? 0).toBe(0);
    }
    // Without any sentence of a person the other one blinks.
    const alone = circuitOf({ ...c.project, rules: undefined }, catalogue);
    const changes: [number, number][] = [];
    const q = programOf(alone, "B1", "micropython", {
      ...stageOf(alone, "B1", "micropython"),
      drive: (ref, _pin, level, now) => void (ref === "LED1" && changes.push([now, level])),
    });
    q.run(41_000);
    const asleep = (t: number) => t % 20_000 > 4_000;
    expect(changes.filter(([t]) => asleep(t))).toEqual([]);
    expect(changes.filter(([t]) => t <= 4_000).at(-1)![1]).toBe(0);
  });

  it("a sentence waits for this round's reading: a card gets one line a round, of what is now", () => {
    const c0 = planned(BOARD3, [AIR, { ref: "M2", part: "module/sd-3v3", label: "Card" }], ROUND);
    const c = circuitOf(
      { ...c0.project, rules: [{ when: { every_s: 60 }, do: { ref: "M2", act: "log" as const } }] },
      catalogue,
    );
    const stage = stageOf(c, "B1", "micropython");
    const p = programOf(c, "B1", "micropython", stage);
    const felt = [20, 5, 33];
    for (const [round, t] of felt.entries()) {
      const [name] = Object.keys(stage.feels("M1")).filter((k) => k.startsWith("t"));
      expect(stage.set("M1", name!, t, round * 60_000)).toBeNull();
      p.run(round * 60_000 + 30_000);
    }
    const logged = p.said.filter((s) => / (on the card:|\d)/.test(s.line) && /log |card:/.test(s.line));
    expect(logged.map((s) => Math.floor(s.at / 60_000))).toEqual([1, 2]);
    expect(logged.map((s) => Math.round(Number(s.line.split(",")[1])))).toEqual(felt.slice(1));
  });

  /** When a pin is driven high, in spans of milliseconds. */
  const spans = (parts: object[], rules: object[], until: number) => {
    const c0 = planned(BOARD3, parts, { every_s: 60, awake_s: 4 });
    const c = circuitOf({ ...c0.project, rules: rules as never }, catalogue);
    const stage = stageOf(c, "B1", "micropython");
    const changes: [number, number][] = [];
    const p = programOf(c, "B1", "micropython", stage);
    const at = () => stage.seen("M2", 0).is?.on ?? 0;
    for (let t = 0, was = 0; t <= until; t += 50) {
      p.run(t);
      if (at() !== was) changes.push([t, (was = at())]);
    }
    return { changes, said: p.said };
  };
  const PUMP = { ref: "M2", part: "module/relay-1", label: "Pump" };
  it("what switches something is never left on: a pump for five seconds runs for five seconds", () => {
    const { changes, said } = spans(
      [AIR, PUMP],
      [{ when: { every_s: 60 }, do: { ref: "M2", act: "for", for_s: 5 } }],
      200_000,
    );
    expect(changes.length).toBeGreaterThanOrEqual(4);
    for (let i = 0; i + 1 < changes.length; i += 2) {
      expect([changes[i]![1], changes[i + 1]![1]]).toEqual([1, 0]);
      expect(Math.abs(changes[i + 1]![0] - changes[i]![0] - 5000)).toBeLessThanOrEqual(200);
    }
    // It slept in between all the same.
    expect(said.filter((s) => /running/.test(s.line)).length).toBeLessThan(60);
  });
  it("and while a reading holds it on, the board stays awake", () => {
    const { said } = spans(
      [AIR, PUMP],
      [{ when: { ref: "M1", out: "t", above: -20, hysteresis: 1 }, do: { ref: "M2", act: "on" } }],
      100_000,
    );
    expect(said.filter((s) => /running/.test(s.line)).length).toBeGreaterThan(95);
  });
  it("a stepper is waited for until it is back; a light is not waited for", () => {
    const rules = (ref: string, value?: number) =>
      circuitOf(
        {
          ...planned(BOARD5, [
            AIR,
            { ref: "M3", part: "module/uln2003-stepper" },
            { ref: "LED1", part: "discrete/led-red" },
          ]).project,
          rules: [
            {
              when: { ref: "M1", out: "t", above: 20 },
              do: value === undefined ? { ref, act: "on" } : { ref, act: "set", value },
            },
          ] as never,
        },
        catalogue,
      );
    const settle = (c: ReturnType<typeof rules>) =>
      settle_ms(
        ruled(
          c.project,
          driverParts(c, "B1", "sketch", (b) => b),
          usbHostOf(c, "B1", "sketch"),
        ).rules.map((r) => r.resolved),
      );
    expect(settle(rules("LED1"))).toBe(0);
    // 2000 steps of 2 ms.
    expect(settle(rules("M3", 2000))).toBeGreaterThan(4000);
    expect(settle(rules("M3", 2000))).toBeLessThan(6000);
  });
  it("a rule that comes every minute comes once after a long sleep, not many times", () => {
    const c0 = planned(BOARD3, [AIR, { ref: "M2", part: "module/sd-3v3", label: "Card" }], {
      every_s: 600,
      awake_s: 6,
    });
    const c = circuitOf(
      { ...c0.project, rules: [{ when: { every_s: 60 }, do: { ref: "M2", act: "log" as const } }] },
      catalogue,
    );
    const p = programOf(c, "B1", "micropython", stageOf(c, "B1", "micropython"));
    p.run(1_900_000);
    expect(p.said.filter((s) => /log |card:/.test(s.line)).map((s) => Math.floor(s.at / 600_000))).toEqual([1, 2, 3]);
  });

  const READ = DEVICES.filter((d) => MODELS.some((m) => m.part === d.id && !m.wants));
  it("what a part needs is enough: its first reading, and a new one in every round", () => {
    const short: string[] = [];
    let looked = 0;
    for (const d of READ) {
      const c0 = planned(BOARD5, [{ ref: "M1", part: d.id, label: "Part" }]);
      const part = driverParts(c0, "B1", "sketch", (b) => b).find((p) => p.inst.ref === "M1");
      if (!part || deafTo([part]).length) continue;
      const { s } = awakeNeeded([part]);
      const c = circuitOf(
        {
          ...c0.project,
          parts: c0.project.parts.map((p) => (p.ref === "B1" ? { ...p, sleep: { every_s: 300, awake_s: s } } : p)),
        },
        catalogue,
      );
      const stage = stageOf(c, "B1", "sketch");
      const p = programOf(c, "B1", "sketch", stage);
      const m1 = p.parts.get("M1");
      if (!m1?.machine || !m1.show) continue;
      looked++;
      p.run(299_000);
      const first = p.said.filter((x) => x.at < 299_000).at(-1)!.line;
      // The second round is left alone: some models fail once some seconds after the start, to see whether they are taken back.
      p.run(899_000);
      const later = p.said.at(-1)!;
      if (/^Part --/.test(first)) short.push(`${d.id}: nothing after ${s} s`);
      if (later.at < 600_000 || /^Part --/.test(later.line)) short.push(`${d.id}: nothing in the third round`);
    }
    expect(short).toEqual([]);
    expect(looked).toBeGreaterThan(20);
  });

  it("is only for boards that their programs can wake: with the reason elsewhere", () => {
    const says = Object.fromEntries(
      catalogue.ids
        .map((id) => catalogue.get(id)!)
        .filter((p) => p.board)
        .map((p) => [p.id, ["sketch", "micropython", "avr-c"].filter((t) => sleepless(p, t) === null).join(" ")]),
    );
    expect(says).toMatchObject({
      "board/atmega328p-long": "sketch avr-c",
      "board/atmega32u4-compact": "",
      "board/esp32-thirtyeight": "sketch micropython",
      "board/esp8266-mini": "",
      "board/rp2040-forty": "micropython",
      "board/stm32f411-forty": "",
      "board/linux-forty": "",
      "chip/attiny85-dip8": "avr-c",
      "chip/atmega32a-dip40": "",
    });
    const c = planned(BOARD3, [AIR], ROUND);
    expect(napOf(c, "B1", "micropython")).toEqual({ awake_ms: 4000, asleep_ms: 56_000 });
    expect(napOf(c, "B1", "sketch")).toBeNull();
    expect(
      targetById("sketch")!
        .files(c)
        .some((f) => /\bnap\(/.test(f.text)),
    ).toBe(false);
    expect(
      targetById("micropython")!
        .files(c)
        .some((f) => /lightsleep\(56000\)/.test(f.text)),
    ).toBe(true);
  });
});
