/** A hunt for slow lists: dense random ones of real parts on every board, shrunk until they fit; what is proven, and how fast. */
import { clashingCore, helpWith, problemsOf, solveSlowly } from "../src/core/plan/assign";
import { denseList } from "../src/core/plan/assign/dense";
import { catalogue, make } from "../src/core/testing";
import { threadProver } from "../src/prove";

type Row = (what: string, reach: string, got: string) => void;

const MOST_MS = 20_000;

const share = (list: number[], q: number) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * q))]?.toFixed(1) ?? "–";

/** Lists of 6 to 19 parts by seed; each is solved, and while it does not fit, its clash is named and a part is taken out. */
export function huntRows(row: Row, count: number) {
  helpWith(threadProver);
  const [fits, clashes]: [number[], number[]] = [[], []];
  let [unproven, unnamed] = [0, 0];
  for (let seed = 1; seed <= count; seed++) {
    const list = denseList(seed, catalogue);
    for (;;) {
      const p = problemsOf(make(list.parts), catalogue).problems[0]!;
      const from = performance.now();
      const run = solveSlowly(p, MOST_MS);
      let r = run.next();
      while (!r.done) r = run.next();
      if (r.value !== null) {
        fits.push(performance.now() - from);
        if (r.value === "stopped" || !r.value.proven) unproven++;
        break;
      }
      if (!clashingCore(p).length) unnamed++;
      clashes.push(performance.now() - from);
      if (!list.shorten()) break;
    }
  }
  helpWith(null);
  const line = (l: number[]) => `${share(l, 0.5)} / ${share(l, 0.99)} / ${share(l, 1)} ms`;
  row(
    `${fits.length} dense lists, proven: median / 99 % / worst`,
    "10/300/3000",
    `${line(fits)}, unproven ${unproven}`,
  );
  row(`${clashes.length} impossible lists, clash named`, "< 100 ms", `${line(clashes)}, unnamed ${unnamed}`);
}
