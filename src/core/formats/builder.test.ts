/**
 * A builder who has nothing but the files: lays every row of wires.csv, puts legs into the holes of holes.csv, knows how a
 * breadboard is made inside, and then compares what is joined with the netlist. Shares no code with what wrote the files.
 */
import { describe, expect, it } from "vitest";
import Papa from "papaparse";
import { findings } from "../checks";
import { circuitOf } from "../circuit";
import { propose } from "../build";
import { seeded } from "../plan/assign/random";
import type { Project } from "../project";
import { catalogue, Metal, planned } from "../testing";
import { cutsCsv, holesCsv, partsCsv, plainNetlist, wiresCsv } from "./plan";

const BOARDS = catalogue.parts.filter((p) => p.board).map((p) => p.id);
const PARTS = catalogue.parts.filter((p) => /^(module|discrete)\//.test(p.id)).map((p) => p.id);
const SETS = [undefined, ["830"], ["400", "400"], ["830", "400"], ["170", "830"]] as const;

interface Built {
  project: Project;
  how: string;
  /** The boards were chosen freely: then everything must find its place. */
  free: boolean;
}

/** A random list by seed, under a random house rule, on breadboards or without. */
function random(seed: number): Built {
  const roll = seeded(seed * 131 + 17);
  const int = (n: number) => Math.floor(roll() * n);
  const parts: object[] = [
    { ref: "B1", part: BOARDS[int(BOARDS.length)]! },
    { ref: "S1", part: ["supply/usb-charger", "supply/usb-port"][int(2)]! },
  ];
  const many = 2 + int(11);
  for (let i = 0; i < many; i++) parts.push({ ref: `X${i + 1}`, part: PARTS[int(PARTS.length)]! });
  const sharing = (["rails", "daisy-chain", "splice"] as const)[int(3)]!;
  const firstBuild = (["breadboard", "breadboard", "solder"] as const)[int(3)]!;
  const project = planned(parts, { houseRules: { sharing, firstBuild } });
  if (firstBuild === "solder" || roll() < 0.3) return { project, how: `${sharing}, ${firstBuild}`, free: false };
  const split = roll() < 0.6;
  const boards = SETS[int(SETS.length)];
  const l = propose(circuitOf(project, catalogue), boards && [...boards], {}, split);
  return {
    project: { ...project, breadboard: { boards: [...l.sizes], at: l.spots, split } },
    how: `${sharing}, on ${l.sizes.join(" and ")}${split ? ", rails split" : ""}`,
    free: !boards,
  };
}

type Row = Record<string, string>;
const read = (csv: string) => Papa.parse<Row>(csv, { header: true, skipEmptyLines: true }).data;

/** What a hole is clipped to: five in a row; a rail, in two pieces on the large board when such are split. */
function clip(hole: string, boards: readonly string[], split: boolean): string {
  const m = /^(?:(\d):)?(?:([a-j])(\d+)|([LR])([+-])(\d+))$/.exec(hole)!;
  const board = Number(m[1] ?? 1);
  if (m[2]) return `${board} ${m[2] < "f" ? "left" : "right"} ${m[3]}`;
  const lower = split && boards[board - 1] === "830" && Number(m[6]) > 25;
  return `${board} ${m[4]}${m[5]}${lower ? " lower" : ""}`;
}

describe("a builder with nothing but the files", () => {
  it.each(Array.from({ length: process.env.ALL ? 400 : 24 }, (_, i) => i + 1))(
    "builds plan %i as it was planned",
    (seed) => {
      const { project, how, free } = random(seed);
      const c = circuitOf(project, catalogue);
      const boards = project.breadboard?.boards ?? [];
      const split = project.breadboard?.split ?? true;
      const wires = read(wiresCsv(c));
      const holes = project.breadboard ? read(holesCsv(c)) : [];
      const nets = plainNetlist(c).nets.map((n) => ({ name: n.name, ends: n.ends.map((e) => e.end) }));

      // No two leads in one hole, none under a leg.
      const used = [
        ...holes.map((h) => h.hole!),
        ...wires.flatMap((w) => [w.hole_a, w.hole_b].filter(Boolean) as string[]),
      ];
      if (wires.every((w) => w.kind !== "row")) expect(new Set(used).size, how).toBe(used.length);

      const metal = new Metal();
      for (const h of holes) metal.join(h.leg!, clip(h.hole!, boards, split));
      // Pins of a board that its own copper joins: several grounds, several outlets of one supply.
      for (const n of nets) {
        const inside = new Map<string, string>();
        for (const e of n.ends) {
          const [ref = "", pin = ""] = e.split(/\.(.*)/s);
          const def = c.netlist.instance(ref)!.part.pins.find((p) => p.label === pin)!;
          if (!["ground", "supply-in", "supply-out", "supply-io"].includes(def.role)) continue;
          const key = `${ref} ${def.role === "ground" ? (def.domain ?? "") : def.supply}`;
          if (inside.has(key)) metal.join(inside.get(key)!, e);
          else inside.set(key, e);
        }
      }
      for (const w of wires) {
        if (w.kind === "row" || w.kind === "cable") continue;
        const at = (end: string, hole: string) => (hole ? clip(hole, boards, split) : end);
        metal.join(at(w.from!, w.hole_a!), at(w.to!, w.hole_b!));
        // A leg is no wire: nothing to cut, no colour to find; a wire has all of that.
        if (w.kind === "own leg") expect([w.colour, w.length_cm, w.awg].join(), `${w.from} ${w.to}`).toBe(",0,");
        else {
          expect(w.colour, `${w.from} ${w.to}`).not.toBe("");
          expect(Number(w.length_cm)).toBeGreaterThan(0);
          expect(Number(w.awg)).toBeGreaterThan(0);
          expect(w.end_a && w.end_b, `${w.from} ${w.to}`).toBeTruthy();
        }
      }
      const wired = new Set(
        project.links
          .flatMap((l) => [l.from, l.to])
          .concat(c.netlist.wires.flatMap((w) => [w.from, w.to].map((e) => `${e.ref}.${e.pin}`))),
      );
      const cables = new Set(wires.filter((w) => w.kind === "cable").flatMap((w) => [w.from!, w.to!]));
      const owner = new Map<string, string>();
      const told = project.breadboard ? findings(c).filter((f) => f.rule === "breadboard.open") : [];
      const faults = free ? findings(c).filter((f) => f.rule.startsWith("breadboard.")) : [];
      expect(
        faults.map((f) => f.message),
        how,
      ).toEqual([]);
      for (const n of nets) {
        const ends = n.ends.filter((e) => wired.has(e) && !cables.has(e));
        const roots = new Set(ends.map((e) => metal.root(e)));
        // What does not fit on boards that somebody insists on is told, with its place: never silently open.
        if (roots.size > 1 && told.some((f) => f.at.some((e) => ends.includes(e)))) continue;
        expect([...roots].length, `${how}: ${n.name} open: ${ends.join(" ")}`).toBeLessThanOrEqual(1);
        for (const r of roots) {
          expect(owner.get(r) ?? n.name, `${how}: joined`).toBe(n.name);
          owner.set(r, n.name);
        }
      }

      // Three lists, one story: every wire of the sheet is in the parts list, by colour and length, and what is cut in the cuts.
      const sheet = new Map<string, number>();
      for (const w of wires)
        if (w.kind === "wire")
          sheet.set(`${w.colour}, ${w.length_cm} cm`, (sheet.get(`${w.colour}, ${w.length_cm} cm`) ?? 0) + 1);
      const listed = new Map<string, number>();
      for (const p of read(partsCsv(c)))
        if (p.part === "wire") {
          const key = p.value!.split(", ").slice(0, 2).join(", ");
          listed.set(key, (listed.get(key) ?? 0) + Number(p.quantity));
        }
      expect(listed).toEqual(sheet);
      const cut = read(cutsCsv(c)).reduce((s, r) => s + Number(r.quantity), 0);
      const jumpers = read(partsCsv(c)).filter((p) => p.part === "wire" && p.name === "Jumper wire");
      const all = [...sheet.values()].reduce((a, b) => a + b, 0);
      expect(cut + jumpers.reduce((s, r) => s + Number(r.quantity), 0)).toBe(all);
    },
  );
});
