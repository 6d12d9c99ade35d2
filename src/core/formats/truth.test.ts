import { describe, expect, it } from "vitest";
import Papa from "papaparse";
import { circuitOf } from "../circuit";
import { Union } from "../circuit/netlist/union";
import { moveNeed } from "../plan/assign";
import { seeded } from "../plan/assign/random";
import { applyEdit, fingerprint, splitEnd, type Project } from "../project";
import { catalogue, planned } from "../testing";
import { planOutputs } from ".";

const BOARDS = ["atmega328p-long", "rp2040-forty", "esp32-thirtyeight", "atmega2560-long"];
const PARTS = [
  "module/bme280",
  "module/ssd1306-i2c",
  "module/hc-sr04",
  "module/servo-small",
  "module/sd-3v3",
  "discrete/button",
  "discrete/led-red",
  "discrete/potentiometer",
  "module/ws2812b-strip",
];

/** A planned project that somebody has then changed by hand: needs moved, wires cut, locks set. */
function lived(seed: number): Project {
  const roll = seeded(seed * 101 + 3);
  const int = (n: number) => Math.floor(roll() * n);
  const parts = PARTS.filter(() => roll() < 0.6);
  let p = planned([
    { ref: "B1", part: `board/${BOARDS[int(BOARDS.length)]}` },
    { ref: "S1", part: "supply/usb-charger" },
    ...parts.map((part, i) => ({ ref: `X${i + 1}`, part })),
  ]);
  for (let k = 0; k < 4; k++) {
    const c = circuitOf(p, catalogue);
    const b = c.netlist.bindings[int(c.netlist.bindings.length)];
    const pins = c.netlist.instance("B1")!.part.pins.filter((x) => x.offers?.length);
    const l = p.links[int(p.links.length)];
    if (roll() < 0.5 && b) {
      const m = moveNeed(p, catalogue, `${b.ref}.${b.pin}`, `B1.${pins[int(pins.length)]!.label}`);
      if (m.ok) p = m.project;
    } else if (roll() < 0.5 && l) p = applyEdit(p, { type: "removeLink", from: l.from, to: l.to }, catalogue);
    else if (l) p = applyEdit(p, { type: "lock", from: l.from, to: l.to, locked: true }, catalogue);
  }
  return p;
}

const pairs = (text: string, re: RegExp) => [...text.matchAll(re)].map((m) => [m[1]!, m[2]!] as const);

describe("one truth: what leaves the app is the project as it stands", () => {
  it.each(Array.from({ length: process.env.ALL ? 200 : 12 }, (_, i) => i + 1))(
    "pin by pin, after edits by hand (%i)",
    async (seed) => {
      const p = lived(seed);
      const c = circuitOf(p, catalogue);
      const { default: fs } = await import("node:fs");
      const font = (w: number) =>
        new Uint8Array(
          fs.readFileSync(
            `node_modules/@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-${w}-normal.woff`,
          ),
        );
      const out = await planOutputs(p, catalogue, { text: font(400), bold: font(700) });
      if (out.status !== "ok") throw new Error(out.clash);
      const text = (name: string) => String(out.files[name] ?? "");
      const mark = fingerprint(p);

      // The file is the document: not a wire more, not one elsewhere.
      const written = JSON.parse(text("project.lattice.json")) as Project;
      expect(written.links).toEqual(p.links);
      expect(fingerprint(written)).toBe(mark);

      // The netlist, the program's pins and the sheet say the same of every need.
      const here = c.netlist.bindings.map((b) => [`${b.ref}.${b.pin}`, `${b.host}.${b.hostPin}`].join(" ")).sort();
      const net = JSON.parse(text("netlist.json")) as { bindings: { need: string; pin: string }[] };
      expect(net.bindings.map((b) => `${b.need} ${b.pin}`).sort()).toEqual(here);
      const pinFiles = Object.keys(out.files).filter((f) => /pins\.(h|py)$/.test(f));
      for (const f of pinFiles)
        for (const [hostPin, says] of pairs(text(f), /(?:\/\/|#) ([^:\n]+): (.*)$/gm))
          for (const [end] of says.matchAll(/\b[A-Z]+\d+\.[A-Za-z0-9_+-]+/g))
            expect(here, `${f}: ${end} on ${hostPin}`).toContain(`${end} B1.${hostPin}`);
      // Whoever lays the wires of the list builds these nets: nothing open, nothing joined.
      const u = new Union();
      for (const inst of c.netlist.expanded.instances.values())
        for (const x of inst.part.pins)
          for (const y of inst.part.pins)
            if (
              x.role !== "signal" &&
              c.netlist.netOf(`${inst.ref}.${x.label}`) === c.netlist.netOf(`${inst.ref}.${y.label}`)
            )
              u.join(`${inst.ref}.${x.label}`, `${inst.ref}.${y.label}`);
      for (const r of Papa.parse<Record<string, string>>(text("wires.csv"), { header: true, skipEmptyLines: true })
        .data)
        if (r.from && r.to) u.join(r.from, r.to);
      for (const n of c.netlist.nets) {
        const ends = n.ends
          .map((e) => `${e.ref}.${e.pin}`)
          .filter((e) =>
            c.netlist.wires.some((w) => !w.cable && [w.from, w.to].some((x) => `${x.ref}.${x.pin}` === e)),
          );
        expect(new Set(ends.map((e) => u.find(e))).size, `${n.name}: ${ends.join(" ")}`).toBeLessThanOrEqual(1);
        for (const m of c.netlist.nets)
          if (m !== n && m.ends[0] && ends[0])
            expect(u.find(`${m.ends[0].ref}.${m.ends[0].pin}`), `${n.name} and ${m.name}`).not.toBe(u.find(ends[0]));
      }

      // The plan's letters stand on everything.
      expect(text("plan.md")).toContain(mark);
      for (const f of ["wires.csv", "parts.csv", "checks.csv"]) {
        const rows = text(f).trim().split("\r\n").slice(1);
        expect(
          rows.every((r) => r.endsWith(`,${mark}`)),
          f,
        ).toBe(true);
      }
      expect(text("plan.svg")).toContain(mark);
      for (const f of Object.keys(out.files).filter((x) => /\.(ino|h)$|main\.py$|bringup\.py$|pins\.py$/.test(x)))
        expect(text(f), f).toContain(mark);

      // What is open is listed as open.
      for (const o of out.text.open) {
        expect(text("plan.md")).toContain(o.end);
        expect(p.links.some((l) => [l.from, l.to].includes(o.end))).toBe(false);
        expect(c.netlist.instance(splitEnd(o.end).ref)).toBeDefined();
      }
    },
  );
});
