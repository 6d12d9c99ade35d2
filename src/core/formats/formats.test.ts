import { describe, expect, it } from "vitest";
import { unzipSync } from "fflate";
import Papa from "papaparse";
import { circuitOf } from "../circuit";
import { BOARD5, catalogue, make, planned, USB } from "../testing";
import { checksCsv, makeZip, partsCsv, safePath, toCsv, wiresCsv } from ".";
import { layOutHere } from "../build/loom/elk";
import { loom, loomDrawing } from "../build";
import { toSvg } from "../drawing";
import fs from "node:fs";
import { printPlan } from "./pdf/plan";
import { unpackWoff } from "./pdf/woff";

const hostile = '=cmd|"/c calc"!A0, "x"\n<script>alert(1)</script>';
const c = circuitOf(
  planned([BOARD5, USB, { ref: "D1", part: "discrete/led-red", label: hostile.slice(0, 58) }]),
  catalogue,
);

describe("CSV", () => {
  it("quotes what a spreadsheet would run and reads back as the same cells", () => {
    const text = toCsv(
      ["a", "b"],
      [
        ["=1+1", 'say "x", y'],
        [-3, null],
      ],
    );
    const rows = Papa.parse<string[]>(text.trim()).data;
    expect(rows[1]).toEqual(["'=1+1", 'say "x", y']);
    expect(text.endsWith("\r\n")).toBe(true);
  });
  it("has the columns that other tools expect", () => {
    const head = (t: string) => t.split("\r\n")[0];
    expect(head(wiresCsv(c))).toBe(
      "step,from,to,net,colour,length_cm,end_a,end_b,note,kind,awg,hole_a,hole_b,group,why,check,plan",
    );
    expect(head(partsCsv(c))).toBe("quantity,spares,part,name,value,refs,note,owned,buy,plan");
    expect(head(checksCsv(c))).toBe("what,from,to,low,high,unit,when,plan");
    for (const t of [wiresCsv(c), partsCsv(c), checksCsv(c)]) {
      const parsed = Papa.parse<string[]>(t.trim());
      expect(parsed.errors).toEqual([]);
      expect(new Set(parsed.data.map((r) => r.length)).size).toBe(1);
    }
  });
});

describe("SVG", () => {
  it("lets no label become markup", async () => {
    const svg = toSvg(loomDrawing(await loom(c, layOutHere)), hostile);
    expect(svg).not.toContain("<script>");
    expect(svg).toContain("&#60;script&#62;");
    expect(svg.match(/<text/g)!.length).toBeGreaterThan(20);
  });
});

describe("ZIP", () => {
  it("keeps paths inside and bytes the same every time", () => {
    expect(safePath("../../etc/passwd")).toBe("etc/passwd");
    expect(safePath("/a\\..\\b c.txt")).toBe("a/b_c.txt");
    const zip = makeZip({ "a/b.txt": "hello", "../evil": "x" });
    expect(Object.keys(unzipSync(zip)).sort()).toEqual(["a/b.txt", "evil"]);
    expect(new TextDecoder().decode(unzipSync(zip)["a/b.txt"])).toBe("hello");
    expect(makeZip({ "a/b.txt": "hello", "../evil": "x" })).toEqual(zip);
  });
});

describe("an empty project", () => {
  it("writes lists with only their heads", () => {
    const e = circuitOf(make([]), catalogue);
    expect(wiresCsv(e).split("\r\n")).toHaveLength(3);
    expect(checksCsv(e).trim()).toBe("what,from,to,low,high,unit,when,plan");
  });
});

describe("fonts", () => {
  const file = (name: string) =>
    new Uint8Array(
      fs.readFileSync(
        new URL(`../../../node_modules/@fontsource/atkinson-hyperlegible-next/files/${name}`, import.meta.url),
      ),
    );
  it("unpacks a WOFF into tables whose checksums are right", () => {
    const font = unpackWoff(file("atkinson-hyperlegible-next-latin-400-normal.woff"));
    const view = new DataView(font.buffer);
    const count = view.getUint16(4);
    expect(count).toBeGreaterThan(8);
    for (let i = 0; i < count; i++) {
      const at = 12 + 16 * i;
      const tag = String.fromCharCode(...font.subarray(at, at + 4));
      const [want, offset, length] = [view.getUint32(at + 4), view.getUint32(at + 8), view.getUint32(at + 12)];
      let sum = 0;
      for (let k = 0; k < length; k += 4)
        sum = (sum + (offset + k + 4 <= font.length ? view.getUint32(offset + k) : 0)) >>> 0;
      // The head table's own adjustment field is counted out, as the format asks.
      if (tag === "head") sum = (sum - view.getUint32(offset + 8)) >>> 0;
      expect(sum, tag).toBe(want);
    }
  });
  it("leaves other bytes alone", () => {
    const other = new Uint8Array([0, 1, 0, 0, 5]);
    expect(unpackWoff(other)).toBe(other);
  });
});

describe("the printed loom", () => {
  it("lies on its side, and its smallest text is seven points however large it is", async () => {
    const font = (w: number) =>
      new Uint8Array(
        fs.readFileSync(
          `node_modules/@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-${w}-normal.woff`,
        ),
      );
    const parts = Array.from({ length: 12 }, (_, i) => ({
      ref: `M${i + 1}`,
      part: `module/${["bme280", "hc-sr04", "pir"][i % 3]}`,
    }));
    const bytes = await printPlan(
      circuitOf(planned([{ ref: "B1", part: "board/atmega2560-long" }, USB, ...parts]), catalogue),
      {
        text: font(400),
        bold: font(700),
      },
    );
    const { PDFDocument } = await import("pdf-lib");
    const pages = (await PDFDocument.load(bytes)).getPages();
    const lying = pages.filter((p) => p.getWidth() > p.getHeight());
    expect(lying.length).toBeGreaterThan(1);
    expect(pages.length).toBeGreaterThan(lying.length);
  });
});
