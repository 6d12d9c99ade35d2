import { describe, expect, it } from "vitest";
import { catalogue, make } from "../../../testing";
import { problemsOf } from "../assign";
import { endOf } from "../problem";
import { seeded } from "../random";
import { broken, extras, solve, tidied, type Solution } from ".";

const BOARDS = ["atmega328p-long", "rp2040-forty", "esp32-thirtyeight", "atmega32u4-compact", "samd21-compact"];
const MODULES = ["bme280", "ssd1306-i2c", "sd-3v3", "hc-sr04", "servo-small", "encoder", "pir", "ds18b20"];

const many = (letters: string, part: string, n: number) =>
  Array.from({ length: n }, (_, i) => ({ ref: `${letters}${i + 1}`, part }));

const problemOf = (board: string, parts: object[]) =>
  problemsOf(
    make([{ ref: "B1", part: `board/${board}` }, { ref: "S1", part: "supply/usb-charger" }, ...parts]),
    catalogue,
  ).problems[0]!;

const placesOf = (p: ReturnType<typeof problemOf>, s: Solution, letters: string) =>
  p.needs.flatMap((n, i) => (n.ref.startsWith(letters) ? [n.choices[s.choice[i]!]!.pin] : []));

const costOf = (p: ReturnType<typeof problemOf>, s: Solution) => {
  const { side, order } = extras(p, s.choice);
  return s.choice.reduce((sum, c, i) => sum + p.needs[i]!.choices[c]!.cost, 0) + side + order;
};

describe("alike parts stand side by side", () => {
  // The thirty-eight-pin ESP32 has no four free neighbours at that price.
  it.each(BOARDS.filter((b) => !b.startsWith("esp32")))("four buttons of %s, in the order of their names", (board) => {
    const p = problemOf(board, [...many("SW", "discrete/button", 4), ...many("LED", "discrete/led-red", 2)]);
    const s = tidied(p, solve(p)!);
    const pins = placesOf(p, s, "SW");
    for (let i = 1; i < pins.length; i++) expect(Math.abs(pins[i]! - pins[i - 1]!), board).toBe(1);
    const numbers = pins.map((x) => Number(/\d+/.exec(endOf(p, x).split(".")[1]!)![0]));
    expect([...numbers].sort((a, b) => a - b)).toEqual(numbers);
  });
  it("never costs more, breaks nothing and moves nothing that is locked or stands, on random lists", () => {
    const roll = seeded(41);
    const int = (n: number) => Math.floor(roll() * n);
    for (let k = 0; k < 40; k++) {
      const board = BOARDS[int(BOARDS.length)]!;
      const parts = [
        ...many("SW", "discrete/button", int(5)),
        ...many("LED", "discrete/led-red", int(4)),
        ...MODULES.filter(() => roll() < 0.3).map((id, i) => ({ ref: `M${i + 1}`, part: `module/${id}` })),
      ];
      const p = problemOf(board, parts);
      const before = solve(p);
      if (!before) continue;
      const after = tidied(p, before);
      expect(broken(p, after.choice)).toEqual([]);
      expect(costOf(p, after)).toBe(before.cost);
      expect(after.cost).toBe(before.cost);
      expect(tidied(p, after).choice).toEqual(after.choice);
    }
  });
});
