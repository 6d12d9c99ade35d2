import { describe, expect, it } from "vitest";
import { applyEdit, type Project } from "../../project";
import { catalogue, check, make } from "../../testing";
import { assign } from ".";

const BOARDS = ["atmega328p-long", "rp2040-forty", "esp32-thirtyeight"];
const strip = (board: string) =>
  assign(
    make([
      { ref: "B1", part: `board/${board}` },
      { ref: "S1", part: "supply/usb-port" },
      { ref: "M1", part: "module/ws2812b-strip", options: { pixels: 20 } },
      { ref: "M2", part: "module/bme280" },
    ]),
    catalogue,
  ).project;
const withAdapter = (p: Project) => applyEdit(p, { type: "addPart", part: "supply/adapter-5v-2a" }, catalogue);
const feedOf = (p: Project, end: string) =>
  p.links.filter((l) => l.from === end || l.to === end).map((l) => (l.from === end ? l.to : l.from));

describe("a better rail has come", () => {
  it.each(BOARDS)("a strip that was planned onto %s moves to the adapter, with its ground", (board) => {
    const before = strip(board);
    expect(feedOf(before, "M1.5V")[0]).toMatch(/^B1\./);
    const after = assign(withAdapter(before), catalogue).project;
    expect(feedOf(after, "M1.5V")).toEqual(["S2.5V"]);
    expect(feedOf(after, "M1.GND")).toEqual(["S2.GND"]);
    expect(check(after).filter((f) => f.rule.startsWith("power.") && f.severity !== "note")).toEqual([]);
    // What was fine stays, and so does every signal wire.
    expect(feedOf(after, "M2.VCC")).toEqual(feedOf(before, "M2.VCC"));
    expect(feedOf(after, "M1.DIN")).toEqual(feedOf(before, "M1.DIN"));
    // Planning once more changes nothing.
    expect(assign(after, catalogue).project.links).toEqual(after.links);
  });
  it("a wire that a person made, or kept, stays where it is", () => {
    const own = (change: object) => {
      const p = strip("atmega328p-long");
      const links = p.links.map((l) => ([l.from, l.to].includes("M1.5V") ? { ...l, ...change } : l));
      return assign(withAdapter({ ...p, links }), catalogue).project;
    };
    expect(feedOf(own({ by: "hand" }), "M1.5V")).toEqual(["B1.5V"]);
    expect(feedOf(own({ by: undefined }), "M1.5V")).toEqual(["B1.5V"]);
    expect(feedOf(own({ locked: true }), "M1.5V")).toEqual(["B1.5V"]);
  });
});
