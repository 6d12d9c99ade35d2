import Papa from "papaparse";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { code, csvCell, format, markdown, plain, terminal, xml } from ".";
import { HOSTILE } from "./hostile";

const texts = fc.oneof(
  fc.constantFrom(...HOSTILE),
  fc.string({ unit: "binary", maxLength: 60 }),
  fc.tuple(fc.constantFrom(...HOSTILE), fc.constantFrom(...HOSTILE)).map(([a, b]) => a + b),
);
const always = (property: (t: string) => void) => fc.assert(fc.property(texts, property), { numRuns: 3000 });

describe("words that people typed stay words", () => {
  it("in a table: one row, one cell, no formula, whichever sign its reader takes between cells", () => {
    always((t) => {
      const line = Papa.unparse([["A1", csvCell(t), "z"]]);
      for (const delimiter of [",", ";", "\t", "|"]) {
        const read = Papa.parse<string[]>(line, { delimiter }).data;
        if (delimiter === ",") expect(read[0]).toHaveLength(3);
        expect(read).toHaveLength(1);
        for (const cell of read[0]!) expect(cell.replace(/^["\s]+/, "")).not.toMatch(/^[=+\-@＝＋－＠]/);
      }
    });
  });
  it("in Markdown: no link, no HTML, no heading, no cell of its own", () => {
    always((t) => {
      const text = markdown(t);
      expect(text).not.toMatch(/[\n\r|<>]|:\/\//);
      expect(text).not.toMatch(/(?<!\\)(?:\\\\)*[[\]`*]/);
      expect(text).not.toMatch(/^\s*(#{1,6}|[+-]|\d+[.)])(\s|$)|^\s*[=:-]+\s*$/);
    });
    expect(markdown("SDA_1 and D2-D4")).toBe("SDA_1 and D2-D4");
    for (const t of ["3.28 V", "-3", "+5 V rail", "1.5 to 2.0", "#3 lamp"]) expect(markdown(t)).toBe(t);
    expect(markdown("1. one")).toBe("1\\. one");
    expect(markdown("[x](http://a.b)")).toBe("\\[x\\](http:\\/\\/a.b)");
  });
  it("in XML: nothing that begins markup, nothing that is no character", () => {
    always((t) => {
      const text = xml(t);
      expect(text.replace(/&#\d+;/g, "")).not.toMatch(/[&<>"']/);
      expect(text).not.toMatch(/[\0-\x08\x0b\x0c\x0e-\x1f\ufffe\uffff]/);
      expect(() => encodeURIComponent(text)).not.toThrow();
    });
  });
  it("in a program: printable, on one line, ending nothing that it stands in", () => {
    always((t) => {
      const text = code(t);
      expect(text).toMatch(/^[\x20-\x7e]{0,40}$/);
      expect(text).not.toMatch(/["\\]|\*\/|\/\*|\?\?/);
    });
    expect(code("Lamp 100 %")).toBe("Lamp 100 %");
    expect(format("100 %")).toBe("100 %%");
    expect(code("a???/b")).toBe("a?/b");
  });
  it("on a terminal: nothing that moves or colours, lines stay lines", () => {
    always((t) => {
      expect(terminal(t)).not.toMatch(/[\0-\x08\x0b-\x1f\x7f-\x9f\u202a-\u202e\u2066-\u2069]/);
      expect(terminal(`${plain(t)}\nnext`).split("\n")).toHaveLength(2);
    });
  });
  it("and everyday words are left as they are", () => {
    for (const t of [
      "Größe der Pumpe",
      "Étagère 2 (links)",
      "灯",
      "Lamp, left; right",
      "5 V rail",
      "Tür/Tor",
      "it's on",
    ]) {
      expect(plain(t)).toBe(t);
      expect(csvCell(t)).toBe(t);
      expect(markdown(t)).toBe(t);
    }
  });
});
