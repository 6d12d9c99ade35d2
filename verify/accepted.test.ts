import fs from "node:fs";
import { describe, expect, it } from "vitest";
import { trialOf, triable } from "../src/core/bench/trial";
import { wireTable } from "../src/core/build";
import { findings, verdict } from "../src/core/checks";
import { circuitOf } from "../src/core/circuit";
import { TARGETS } from "../src/core/firmware";
import { planOutputs } from "../src/core/formats";
import { glanceAt } from "../src/core/glance";
import { assign } from "../src/core/plan/assign";
import { loadProject, writeProject } from "../src/core/project";
import { catalogue } from "../src/core/testing";
import { makeView } from "../src/workers/view";

/** Parts that somebody might send: shipped ones under another id, with things taken out, put in, or taken from other parts. */
const ODD: unknown[] = [
  0, -1, 1e9, 1e-9, "V", "V*2", "I/0", "x", "", null, true, [], {}, "constructor", "__proto__", "0x7f", "A".repeat(19),
  1e300, "%s%n", "GND", -5, 3.3, "0", 'a"b', "a\nb", "`id`",
]; // prettier-ignore
const DRIVERS = [...new Set(catalogue.parts.flatMap((p) => (p.bringup ? [p.bringup.driver] : [])))];
const HOSTS = [
  "board/rp2040-forty",
  "board/atmega328p-long",
  "board/esp32-thirtyeight",
  "chip/atmega328p-dip28",
  "board/linux-forty",
];
const ALL = Boolean(process.env.ALL);

type Path = (string | number)[];
type Node = Record<string | number, unknown>;
/** A generator of numbers from 0 to 1, the same for the same seed. */
function dice(seed: number) {
  let s = seed >>> 0;
  const next = () => (s = (s * 1664525 + 1013904223) >>> 0) / 2 ** 32;
  return { next, pick: <T>(l: readonly T[]): T => l[Math.floor(next() * l.length)]! };
}
const places = (v: unknown, path: Path = []): Path[] => [
  path,
  ...(Array.isArray(v)
    ? v.flatMap((x, i) => places(x, [...path, i]))
    : v && typeof v === "object"
      ? Object.entries(v).flatMap(([k, x]) => places(x, [...path, k]))
      : []),
];
const at = (v: unknown, path: Path) => path.reduce<unknown>((x, k) => (x as Node | undefined)?.[k], v);

function mutated(part: object, { next, pick }: ReturnType<typeof dice>): Node {
  const p = structuredClone(part) as Node;
  for (let n = 1 + Math.floor(next() * 3); n > 0; n--) {
    const how = next();
    if (how < 0.2) {
      p.bringup = { driver: pick(DRIVERS) };
      continue;
    }
    const path = pick(places(p).filter((x) => x.length > 0 && x[0] !== "id"));
    const parent = at(p, path.slice(0, -1)) as Node | undefined;
    const k = path.at(-1)!;
    if (typeof parent !== "object" || parent === null) continue;
    if (how < 0.4) {
      if (Array.isArray(parent)) parent.splice(Number(k), 1);
      else delete parent[k];
    } else if (how < 0.7) parent[k] = pick(ODD);
    else {
      const other = structuredClone(at(pick(catalogue.parts), path));
      if (other !== undefined) parent[k] = other;
    }
  }
  return p;
}

function project(seed: number): object {
  const d = dice(seed);
  const part = d.pick(catalogue.parts.filter((p) => !p.repeat));
  const own = mutated(JSON.parse(JSON.stringify(part)) as object, d);
  own.id = `${part.id.split("/")[0]}/own-thing`;
  const host = /^(board|chip)\//.test(part.id);
  return {
    format: "young-lattice-project",
    version: 1,
    title: "Sent in",
    customParts: [own],
    parts: [
      { ref: "B1", part: host ? own.id : d.pick(HOSTS) },
      { ref: "S1", part: "supply/usb-port" },
      ...(host
        ? [
            { ref: "M1", part: "module/bme280" },
            { ref: "LED1", part: "discrete/led-red" },
            { ref: "SW1", part: "discrete/button" },
          ]
        : [
            { ref: "M1", part: own.id },
            { ref: "M2", part: own.id, label: 'A "q" %s' },
          ]),
    ],
  };
}
const font = (weight: number) =>
  new Uint8Array(
    fs.readFileSync(
      new URL(
        `../node_modules/@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-${weight}-normal.woff`,
        import.meta.url,
      ),
    ),
  );

const N = ALL ? 12_000 : 480;
/** Every so many also with its prints: they take a second each. */
const PRINTED = 40;
const GROUPS = 12;

/** Does all that a person could with a project; answers what broke, or that the reader refused it. */
async function broken(document: object, printed: boolean): Promise<"refused" | { stage: string; says: string } | null> {
  let stage = "read";
  try {
    const read = loadProject(document, catalogue);
    if (!read.ok) {
      for (const p of read.problems) expect(p.message).not.toBe("");
      return "refused";
    }
    stage = "as it comes";
    const first = circuitOf(read.project, catalogue);
    verdict(first, findings(first));
    stage = "planned";
    const planned = assign(read.project, catalogue).project;
    const c = circuitOf(planned, catalogue);
    verdict(c, findings(c));
    glanceAt(c);
    wireTable(c);
    stage = "shown";
    const view = makeView(planned, catalogue) as unknown as Record<string, unknown>;
    for (const name of Object.keys(Object.getOwnPropertyDescriptors(view))) void view[name];
    for (const t of TARGETS) {
      stage = t.id;
      if (!t.unfit(c)) t.files(c);
    }
    stage = "tried";
    for (const { host } of triable(c)) trialOf(c, host)?.run(500);
    stage = "read again";
    expect(loadProject(JSON.parse(writeProject(planned)), catalogue)).toMatchObject({ ok: true });
    stage = "printed";
    if (printed) await planOutputs(planned, catalogue, { text: font(400), bold: font(700) });
    return null;
  } catch (e) {
    return { stage, says: e instanceof Error ? e.message.slice(0, 200) : String(e) };
  }
}

/** A demo project with things taken out, put in, or moved about. */
function mangled(seed: number): object {
  const d = dice(seed);
  const name = d.pick(["rain-barrel", "moss-terrarium", "beehive-scale"]);
  const p = JSON.parse(fs.readFileSync(new URL(`../demo/${name}.lattice.json`, import.meta.url), "utf8")) as Node;
  for (let n = 1 + Math.floor(d.next() * 2); n > 0; n--) {
    const all = places(p).filter((x) => x.length > 0 && !["format", "version"].includes(String(x[0])));
    const path = d.pick(all);
    const parent = at(p, path.slice(0, -1)) as Node | undefined;
    const k = path.at(-1)!;
    if (typeof parent !== "object" || parent === null) continue;
    const how = d.next();
    if (how < 0.25) {
      if (Array.isArray(parent)) parent.splice(Number(k), 1);
      else delete parent[k];
    } else if (how < 0.5) parent[k] = d.pick(ODD);
    else if (how < 0.75) parent[k] = structuredClone(at(p, d.pick(all)));
    else if (Array.isArray(parent)) parent.push(structuredClone(parent[Number(k)]));
    else parent[d.pick(["options", "companions", "host", "wanted", "software", "sleep", "colour", "by", "rules", "box", "kit", "breadboard", "isolated"])] = d.pick([
      ...ODD, { pixels: 5 }, { address: "0x77" }, ["M1", "M2"], [["M1"], ["B1"]], { every_s: 60, awake_s: 5 }, "constructor", { benches: 3, spares_percent: {} },
    ]); // prettier-ignore
  }
  return p;
}

describe("whatever the reader accepts opens, plans, is judged, written, tried and read again", () => {
  const run = async (g: number, n: number, make: (seed: number) => object) => {
    const list: string[] = [];
    let accepted = 0;
    for (let i = g; i < n; i += GROUPS) {
      const seed = 1 + i * 7919;
      const b = await broken(make(seed), i % PRINTED === g);
      if (b !== "refused") accepted++;
      if (b && b !== "refused") list.push(`seed ${seed}, ${b.stage}: ${b.says}`);
    }
    expect(list).toEqual([]);
    return accepted;
  };
  const counts = { own: 0, mangled: 0 };
  const groups = Array.from({ length: GROUPS }, (_, g) => g);
  it.each(groups)(
    "projects with a part of their own, group %i",
    async (g) => void (counts.own += await run(g, N, project)),
    600_000,
  );
  it.each(groups)(
    "projects with things taken out, put in and moved about, group %i",
    async (g) => void (counts.mangled += await run(g, N / 2, mangled)),
    600_000,
  );
  it("and enough of them are accepted for that to say something", () => {
    expect(counts.own).toBeGreaterThan(N / 20);
    expect(counts.mangled).toBeGreaterThan(N / 40);
  });
});
