import { describe, expect, it } from "vitest";
import { catalogue, make } from "../../../testing";
import { problemsOf } from "..";
import type { Problem } from "../problem";
import { alikeBuses } from "./alike";

/** A board whose bus multiplexer has eight channels, and three parts that may sit on any. */
const withChannels = (): Problem =>
  problemsOf(
    make([
      { ref: "B1", part: "board/rp2040-forty" },
      { ref: "M1", part: "module/tca9548a" },
      { ref: "M2", part: "module/bh1750" },
      { ref: "M3", part: "module/bh1750" },
      { ref: "M4", part: "module/aht20" },
    ]),
    catalogue,
  ).problems[0]!;

const busesOf = (p: Problem) => [
  ...new Set(p.needs.flatMap((n) => n.choices.flatMap((c) => (c.bus === null ? [] : [c.bus])))),
];

describe("buses that are alike", () => {
  it("the empty channels of a multiplexer are one class, the board's own buses are none of it", () => {
    const p = withChannels();
    const buses = busesOf(p);
    const classes = alikeBuses(p, buses);
    const channels = buses.filter((b) => b in p.under);
    expect(channels).toHaveLength(8);
    expect(new Set(channels.map((b) => classes[buses.indexOf(b)])).size).toBe(1);
    const own = buses.filter((b) => !(b in p.under));
    for (const b of own) expect(classes.filter((c) => c === classes[buses.indexOf(b)])).toHaveLength(1);
  });
  it("a channel that somebody pays less for, or that only one may take, is like no other", () => {
    const p = withChannels();
    const buses = busesOf(p);
    const [first, second] = buses.filter((b) => b in p.under);
    const cheaper = {
      ...p,
      needs: p.needs.map((n) => ({
        ...n,
        choices: n.choices.map((c) => (c.bus === first && n.ref === "M2" ? { ...c, cost: c.cost - 1 } : c)),
      })),
    };
    const told = alikeBuses(cheaper, buses);
    expect(told.filter((c) => c === told[buses.indexOf(first!)])).toHaveLength(1);
    const narrower = {
      ...p,
      needs: p.needs.map((n) => ({ ...n, choices: n.choices.filter((c) => c.bus !== second || n.ref !== "M4") })),
    };
    const classes = alikeBuses(narrower, buses);
    expect(classes.filter((c) => c === classes[buses.indexOf(second!)])).toHaveLength(1);
  });
});
