import { gzipSync } from "node:zlib";
import { summarise } from "../src/core/parts/catalogue";
import { makeSearch } from "../src/core/parts/catalogue/search";
import { shippedCatalogue } from "../src/core/parts/catalogue/shipped";
import { makeMatcher, readList } from "../src/core/parts/lists";

type Row = [what: string, reach: string, got: string];
const QUERIES = [
  "temperature i2c 3.3",
  "distnce",
  "led",
  "board",
  "595",
  "light",
  "motor driver",
  "wifi 3v3 adc",
  "",
  "banana",
];
const kB = (x: unknown) => gzipSync(JSON.stringify(x)).length / 1000;
const time = (work: () => unknown) => {
  const t = performance.now();
  work();
  return performance.now() - t;
};
const middle = (list: number[]) => [...list].sort((a, b) => a - b)[list.length >> 1]!;

/** What the catalogue costs: over the wire, when it is taken in, at each key pressed in the search field. */
export function catalogueRows(): Row[] {
  const { parts } = shippedCatalogue();
  const wire = JSON.stringify(parts.map(summarise));
  const takeIn = Array.from({ length: 15 }, () => time(() => makeSearch(JSON.parse(wire))));
  const summaries = JSON.parse(wire) as ReturnType<typeof summarise>[];
  const search = makeSearch(summaries);
  for (const q of QUERIES) search(q);
  const each = QUERIES.flatMap((q) => Array.from({ length: 20 }, () => time(() => search(q))));
  const list = Array.from(
    { length: 100 },
    (_, i) => `${i + 1} x ${["BME280", "red LED", "10k resistor", "soil sensor", "unobtainium"][i % 5]}`,
  );
  const match = makeMatcher(summaries, search);
  const matching = Array.from({ length: 5 }, () =>
    time(() => ((r) => r.ok && match(r.lines))(readList(list.join("\n")))),
  );
  const boards = parts.filter((p) => p.board);
  return [
    [`catalogue of ${parts.length} parts: list over the wire`, "< 150 kB", `${kB(summaries).toFixed(1)} kB`],
    ["  every definition, if all were asked for", "", `${kB(parts).toFixed(1)} kB`],
    ["  every board and chip, for trying them all", "", `${kB(boards).toFixed(1)} kB`],
    [
      "catalogue: reading the list and building the search",
      "< 60 ms",
      `${middle(takeIn).toFixed(1)} ms (first ${takeIn[0]!.toFixed(1)})`,
    ],
    ["search: an answer", "< 16 ms", `${middle(each).toFixed(2)} ms (worst ${Math.max(...each).toFixed(1)})`],
    ["a parts list of 100 lines matched", "", `${middle(matching).toFixed(1)} ms`],
  ];
}
