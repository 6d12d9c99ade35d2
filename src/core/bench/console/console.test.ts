import { describe, expect, it } from "vitest";
import { circuitOf } from "../../circuit";
import { fingerprint } from "../../project";
import { readReadings } from "../readings/table";
import { BENCHES } from "../reason/cases";
import { catalogue } from "../../testing";
import { readConsole } from "./read";

const p = BENCHES["moss terrarium"]!();
const c = circuitOf(p, catalogue);
const plan = fingerprint(p);
const HELLO = `YL1 hello B1 chip=RP2040 plan=${plan} info`;
const WHOLE = [
  HELLO,
  "YL1 scan B1 bus=i2c0 found=0x3C,0x76, want=60,118 ok",
  "YL1 sensor M1 fresh=1 t=21.4 ok",
  "YL1 act M2 told=1 fresh=1 ok",
  "YL1 strip M3 pin=GP2 info",
  "YL1 ask M3 is the strip lit? y or n info",
  "YL1 gpio SW1 pin=GP1 level=1 want=1 ok",
  "YL1 done parts=4 proven=3 failed=0 unproven=1 info",
];
const seen = (text: string) =>
  Object.fromEntries(
    readConsole(c, text).observations.map((o) => [`${o.q.kind} ${"ref" in o.q ? o.q.ref : ""}`.trim(), o.seen]),
  );

describe("a console's log", () => {
  it("is read as what the board, the scan and each part show", () => {
    expect(seen(WHOLE.join("\n"))).toEqual({
      console: "works",
      plan: "same",
      scan: "0x3c,0x76",
      "part M1": "works",
      "part M2": "works",
      "part SW1": "works",
    });
    expect(readConsole(c, WHOLE.join("\n"))).toMatchObject({ done: true, restarted: false, garbled: 0, says: [] });
  });
  it.each([
    ["Windows line ends", WHOLE.join("\r\n")],
    ["a monitor's times before each line", WHOLE.map((l, i) => `21:04:1${i}.123 -> ${l}`).join("\n")],
    ["colours", WHOLE.map((l) => `\u001b[32m${l}\u001b[0m`).join("\n")],
    ["chatter in between", WHOLE.flatMap((l) => ["boot rst:0x1", l, ""]).join("\n")],
  ])("%s do no harm", (_, text) => {
    expect(seen(text)).toEqual(seen(WHOLE.join("\n")));
  });
  it("a partial log is read as far as it goes, and says so", () => {
    const r = readConsole(c, `${WHOLE.slice(0, 3).join("\n")}\nYL1 act M2 told=1 fre`);
    expect(r.observations).toContainEqual({ q: { kind: "part", ref: "M1" }, seen: "works" });
    expect(r.observations.some((o) => "ref" in o.q && o.q.ref === "M2")).toBe(false);
    expect(r.says.join()).toContain("ends before the bring-up is done");
  });
  it("garbled lines are left out and counted, the others count", () => {
    const text = WHOLE.map((l, i) =>
      i === 2 ? l.replace("fresh=1", "fr\ufffd\ufffd=1").replace(" ok", " \ufffd") : l,
    ).join("\n");
    const r = readConsole(c, text);
    expect(r.garbled).toBe(1);
    expect(seen(text)["part M1"]).toBeUndefined();
    expect(seen(text)["part M2"]).toBe("works");
  });
  it("a console at another speed is told as that", () => {
    expect(readConsole(c, "\u0001\ufffd\ufffd~\u0002\ufffd\u0003\ufffdx\ufffd").says.join()).toContain("115,200");
  });
  it("a bad line outweighs good ones of its part, until a person has seen it or it is tried anew", () => {
    const bad = [HELLO, "YL1 code M1 is=3 ok", "YL1 sensor M1 fresh=0 fail"];
    expect(seen(bad.join("\n"))["part M1"]).toBe("no");
    expect(seen([...bad, "YL1 done parts=4 proven=0 failed=1 unproven=0 fail", ...WHOLE].join("\n"))["part M1"]).toBe(
      "works",
    );
    expect(seen([...WHOLE, "YL1 seen M3 fail"].join("\n"))["part M3"]).toBe("no");
  });
  it("a program of another plan counts for nothing but that", () => {
    const r = readConsole(c, WHOLE.join("\n").replace(plan, "BCDFGHJK"));
    expect(r.plan).toEqual({ host: "B1", id: "BCDFGHJK", same: false });
    expect(r.observations).toEqual([
      { q: { kind: "console", host: "B1" }, seen: "works" },
      { q: { kind: "plan", host: "B1" }, seen: "other" },
    ]);
    expect(r.says.join()).toContain("upload this plan's program");
  });
  it("a board that begins again in the middle is told; one that was asked to repeat is not", () => {
    expect(readConsole(c, [...WHOLE.slice(0, 3), ...WHOLE].join("\n")).restarted).toBe(true);
    expect(readConsole(c, [...WHOLE, ...WHOLE].join("\n")).restarted).toBe(false);
    const start = `YL1 plan B1 id=${plan} info`;
    expect(readConsole(c, [start, "running 1 s", start].join("\n")).restarted).toBe(true);
  });
  it("unknown parts, huge lines and hostile text change nothing", () => {
    const text = [
      "YL1 sensor X99 fresh=0 fail",
      "YL1 __proto__ M1 fail",
      `YL1 sensor M1 ${"x".repeat(100_000)} ok`,
      "YL1",
      "YL1 sensor",
      "<script>YL1</script>",
    ].join("\n");
    expect(readConsole(c, text).observations).toEqual([]);
    expect(readConsole(c, "").says).toEqual(["The log is empty: nothing was printed."]);
  });
});

describe("a table of readings", () => {
  it("is read by its columns, whatever their order and the decimal sign", () => {
    const t = readReadings(c, '\ufeffmeasured;to;from\n"3,29 V";M1.GND;M1.VCC\nOL;B1.GND;B1.3V3\n330 Ω;RM3.2;RM3.1\n');
    expect(t.problems).toEqual([]);
    expect(t.observations).toEqual([
      { q: { kind: "volt", a: "M1.VCC", b: "M1.GND" }, seen: 3.29 },
      { q: { kind: "beep", a: "B1.3V3", b: "B1.GND" }, seen: "open" },
      { q: { kind: "ohm", a: "RM3.1", b: "RM3.2" }, seen: 330 },
    ]);
  });
  it("tells by line what can't be used, and uses the rest", () => {
    const t = readReadings(c, "from,to,reading\nM1.XX,M1.GND,1 V\nM1.VCC,M1.GND,warm\nM1.VCC,M1.GND,3.3 V\n");
    expect(t.problems).toHaveLength(2);
    expect(t.problems[0]).toMatch(/^line 2: "M1.XX" is no pin/);
    expect(t.observations).toHaveLength(1);
    expect(readReadings(c, "a few words").problems[0]).toContain("columns named from, to and reading");
  });
});
