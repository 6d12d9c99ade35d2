import { describe, expect, it } from "vitest";
import { check, make, USB } from "../testing";
import { evidenceSentences } from "./evidence";

const AVR = { ref: "B1", part: "board/atmega328p-long" };
const find = (p: ReturnType<typeof make>, rule: string, at: string) =>
  check(p).find((f) => f.rule === rule && f.at.includes(at))!;

describe("what a finding rests on", () => {
  it("a rule of thumb that decides is named, with its certainty, in the sentence", () => {
    const p = make(
      [AVR, USB, { ref: "M1", part: "module/hc05" }],
      [
        ["S1.USB", "B1.USB"],
        ["M1.VCC", "B1.5V"],
        ["M1.GND", "B1.GND"],
        ["M1.TX", "B1.D2"],
        ["M1.RX", "B1.D3"],
      ],
    );
    const f = find(p, "level.overdrive", "M1.RX");
    expect(f.message).toMatch(/Rests on absMax of M1\.RX, .*a rule of thumb, not from a data sheet\)\.\)$/);
    expect(evidenceSentences(f).some((s) => /^It rests on absMax of M1\.RX/.test(s))).toBe(true);
  });
  it("what a data sheet says is only in the sums, with where it stands", () => {
    const p = make(
      [AVR, USB, { ref: "M1", part: "module/st7735" }],
      [
        ["S1.USB", "B1.USB"],
        ["M1.VCC", "B1.5V"],
        ["M1.GND", "B1.GND"],
        ["M1.SCK", "B1.D13"],
        ["M1.MOSI", "B1.D11"],
      ],
    );
    const f = find(p, "level.overdrive", "M1.SCK");
    expect(f.message).not.toMatch(/Rests on/);
    expect(String(f.evidence.rests)).toMatch(/^absMax of M1\.SCK, V\+0\.3 \(well known/);
  });
  it("a supply out of range names the range that it is held against", () => {
    const p = make(
      [AVR, USB, { ref: "M1", part: "module/bme280" }],
      [
        ["S1.USB", "B1.USB"],
        ["M1.VCC", "B1.5V"],
        ["M1.GND", "B1.GND"],
      ],
    );
    expect(String(find(p, "power.range", "M1.VCC").evidence.rests)).toMatch(/^the absolute maximum of M1\.VCC, 4\.25/);
  });
});
