/** The exact solver: real lists, random problems of every kind, HiGHS on the same LP, and the worst found. */
import loader from "highs";
import { remedies } from "../src/core/plan/advice";
import { assign, problemsOf, solve, writeLp, type Problem } from "../src/core/plan/assign";
import { randomProblem, type RandomSize } from "../src/core/plan/assign/random";
import { Search } from "../src/core/plan/assign/solver/search";
import { shippedCatalogue } from "../src/core/parts/catalogue/shipped";
import { loadProject, type Project } from "../src/core/project";

type Row = (what: string, reach: string, got: string) => void;
const catalogue = shippedCatalogue();

function project(board: string, ids: readonly string[]): Project {
  const parts = [
    { ref: "B1", part: board },
    { ref: "S1", part: "supply/usb-port" },
    ...ids.map((part, i) => ({ ref: `X${i + 1}`, part })),
  ];
  const r = loadProject({ format: "young-lattice-project", version: 1, title: "bench", parts }, catalogue);
  if (!r.ok) throw new Error(JSON.stringify(r.problems));
  return r.project;
}
const times = (part: string, n: number) => Array.from({ length: n }, () => part);

const TWELVE = [
  "module/bme280",
  "module/ssd1306-i2c",
  "module/mpu6050",
  "module/hc-sr04",
  "module/servo-small",
  "module/servo-small",
  "module/encoder",
  "module/max31855",
  "module/gps-neo6m",
  "module/ws2812b-strip",
  "discrete/potentiometer",
  "module/lcd1602-parallel",
];
const FORTY_FIVE = [
  ...TWELVE.slice(0, 11),
  "module/keypad-4x4",
  ...times("discrete/led-red", 8),
  ...times("discrete/button", 6),
];

function median(runs: number, work: () => unknown): { mid: number; worst: number } {
  for (let i = 0; i < 8; i++) work();
  const t = Array.from({ length: runs }, () => {
    const from = performance.now();
    work();
    return performance.now() - from;
  }).sort((a, b) => a - b);
  return { mid: t[runs >> 1]!, worst: t[runs - 1]! };
}

const KINDS: [name: string, kinds: Partial<RandomSize>][] = [
  ["plain", {}],
  ["timers", { timers: true }],
  ["rows of lines", { orders: true }],
  ["everything", { timers: true, orders: true, remaps: true, channels: true }],
];
const SIZES = [
  [26, 8],
  [40, 14],
  [70, 24],
] as const;

export async function solverRows(row: Row) {
  const highs = await loader();
  const theirs = (p: Problem) => {
    const lp = writeLp(p);
    const from = performance.now();
    highs.solve(lp, { output_flag: false } as object);
    return performance.now() - from;
  };
  for (const [name, board, ids, reach] of [
    ["12 modules on 40 pins", "board/rp2040-forty", TWELVE, "< 10 ms"],
    ["45 needs on 70 pins", "board/atmega2560-long", FORTY_FIVE, "< 100 ms"],
  ] as const) {
    const p = project(board, ids);
    const { problems } = problemsOf(p, catalogue);
    const mine = median(30, () => solve(problems[0]!));
    row(
      `${name} (${problems[0]!.needs.length} needs): the solver, proven`,
      reach,
      `${mine.mid.toFixed(2)} ms, HiGHS ${theirs(problems[0]!).toFixed(0)} ms`,
    );
    row(`${name}: plan everything`, "", `${median(20, () => assign({ ...p }, catalogue)).mid.toFixed(1)} ms`);
  }
  const clash = project("board/atmega328p-long", times("module/ssd1306-i2c", 3));
  const a = assign(clash, catalogue);
  row(
    "three displays on one address: all remedies tried",
    "",
    `${median(5, () => remedies({ ...clash }, catalogue, a)).mid.toFixed(0)} ms`,
  );
  let worst = { ms: 0, name: "" };
  for (const [pins, parts] of SIZES)
    for (const [kind, kinds] of KINDS) {
      const set = Array.from({ length: 12 }, (_, i) => randomProblem(1000 + i, { pins, parts, ...kinds }));
      const mine = set.map((p) => {
        const s = new Search(p);
        const from = performance.now();
        while (!s.step(256) && performance.now() - from < 5000);
        return performance.now() - from;
      });
      const sum = (l: number[]) => l.reduce((s, x) => s + x, 0);
      mine.forEach((t, i) => {
        if (t > worst.ms) worst = { ms: t, name: `${kind}, ${pins} pins, seed ${1000 + i}` };
      });
      // HiGHS takes minutes for the larger hard ones: a few are enough for a ratio.
      const few = pins === 26 || kind === "plain" ? set.slice(0, 6) : [];
      const ratio = few.length
        ? `, ${(sum(few.map(theirs)) / sum(mine.slice(0, few.length))).toFixed(0)}x faster than HiGHS`
        : "";
      row(
        `random, ${kind}, ${pins} pins, up to ${Math.max(...set.map((p) => p.needs.length))} needs`,
        "10x HiGHS",
        `mean ${(sum(mine) / mine.length).toFixed(1)} ms, worst ${Math.max(...mine).toFixed(0)}${ratio}`,
      );
    }
  row("the worst instance", "", `${worst.name}: ${worst.ms.toFixed(0)} ms`);
}
