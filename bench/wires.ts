/** Wires by hand: what the consequence of one costs, and how smoothly a table of 300 of them scrolls. */
import fs from "node:fs";
import { startApp } from "../e2e/app";
import { catalogue } from "../src/core/testing";
import { actOf, consequences } from "../src/core/wires";
import { full } from "./rules";

type Row = (what: string, reach: string, got: string) => void;

function told(row: Row) {
  const p = full();
  const times: number[] = [];
  // The project as it stands is on the screen, so its circuit is there; the other end of the wire is another one each time.
  for (let i = 0; i < 300; i++) {
    const t = performance.now();
    const act = actOf(p, catalogue, { do: "join", from: `D${1 + (i % 14)}.A`, to: `SW${1 + (i % 10)}.1` });
    if (act.ok) consequences(p, act.edits, catalogue);
    times.push(performance.now() - t);
  }
  const mid = times.slice(100).sort((a, b) => a - b)[100]!;
  row(`consequence of a wire, ${p.parts.length} parts`, "< 16 ms", `${mid.toFixed(1)} ms`);
}

async function scrolled(row: Row) {
  if (!fs.existsSync("/usr/bin/chromium") || !fs.existsSync(".next/BUILD_ID")) return;
  const app = await startApp();
  const lights = Array.from({ length: 150 }, (_, i) => ({
    ref: `D${i + 1}`,
    part: "discrete/led-red",
    companions: { seriesResistor: null },
  }));
  const links = lights.flatMap((l, i) => [
    { from: `${l.ref}.A`, to: `B1.${i % 2 ? "5V" : "3V3"}` },
    { from: `${l.ref}.K`, to: "B1.GND" },
  ]);
  const parts = [{ ref: "B1", part: "board/atmega2560-long" }, ...lights];
  const r = await fetch(`${app.url}/api/projects`, {
    method: "POST",
    headers: { "content-type": "application/json", origin: app.url },
    body: JSON.stringify({ document: { format: "young-lattice-project", version: 1, title: "wall", parts, links } }),
  });
  const { id } = (await r.json()) as { id: string };
  const { page } = await app.session();
  await page.goto(`/p/${id}/wiring?show=wires`);
  await page.locator('[data-testid^="wire-"]').first().waitFor();
  const rows = await page.locator('[data-testid^="wire-"]').count();
  // As text: what the compiler adds to functions is unknown in the page.
  const gaps = (await page.evaluate(`new Promise((done) => {
    let at = document.querySelector('[data-testid^="wire-"]').parentElement;
    while (at && at.scrollHeight <= at.clientHeight + 1) at = at.parentElement;
    const gaps = [];
    let last = performance.now();
    const tick = (now) => {
      gaps.push(now - last);
      last = now;
      (at ?? document.scrollingElement).scrollTop += 60;
      if (gaps.length < 120) requestAnimationFrame(tick);
      else done(gaps.slice(2));
    };
    requestAnimationFrame(tick);
  })`)) as number[];
  await app.stop();
  const sorted = [...gaps].sort((a, b) => a - b);
  const at = (q: number) => sorted[Math.floor(sorted.length * q)]!.toFixed(1);
  row(
    `table of ${links.length} wires, ${rows} drawn, scrolled: frame, median / 95 %`,
    "16.7 ms",
    `${at(0.5)} / ${at(0.95)} ms`,
  );
}

/** Rows of the bench about wires by hand. */
export async function wireRows(row: Row) {
  told(row);
  await scrolled(row);
}
