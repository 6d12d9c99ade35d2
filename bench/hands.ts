/**
 * The speed of hands, in the browser: an edit until the verdict stands on screen, the longest time that the page does
 * not answer, and a change of station; with 5 and with 40 parts.
 */
import fs from "node:fs";
import type { Page } from "playwright-core";
import { startApp, type App } from "../e2e/app";
import { bigProject } from "./forty";

type Row = (what: string, reach: string, got: string) => void;

const STATIONS = ["brief", "parts", "board", "pins", "power", "wiring", "firmware", "bench", "handout"];

const median = (list: number[]) => [...list].sort((a, b) => a - b)[list.length >> 1] ?? NaN;

/** As text: what the compiler adds to functions is unknown in the page. */
export const WATCH = `(() => {
  if (window.tasks) return;
  window.tasks = [];
  new PerformanceObserver((l) => { for (const e of l.getEntries()) window.tasks.push(e.duration); }).observe({ type: "longtask" });
  // From a key to the frame after the fingerprint has changed.
  window.untilChange = (testid, key) => new Promise((resolve) => {
    const node = document.querySelector('[data-testid="' + testid + '"]');
    const seen = new MutationObserver(() => {
      seen.disconnect();
      requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - from), 0));
    });
    seen.observe(node, { childList: true, characterData: true, subtree: true });
    const from = performance.now();
    window.dispatchEvent(new KeyboardEvent("keydown", { key, ctrlKey: true, bubbles: true }));
  });
  window.untilStation = (id, title) => new Promise((resolve) => {
    const from = performance.now();
    document.querySelector('nav[aria-label="Stations"] a[href*="/' + id + '"]').click();
    const look = () => {
      if (location.pathname.endsWith(id) && document.querySelector("main h1")?.textContent === title)
        setTimeout(() => resolve(performance.now() - from), 0);
      else requestAnimationFrame(look);
    };
    requestAnimationFrame(look);
  });
})()`;

async function open(app: App, page: Page, parts: number, station: string) {
  const r = await fetch(`${app.url}/api/projects`, {
    method: "POST",
    headers: { "content-type": "application/json", origin: app.url },
    body: JSON.stringify({ document: bigProject(parts) }),
  });
  const { id } = (await r.json()) as { id: string };
  const from = performance.now();
  await page.goto(`/p/${id}/${station}`);
  await page.getByTestId("verdict").waitFor();
  return performance.now() - from;
}

/** An edit that changes the plan, then back and forth over it by the keys. */
export async function edits(page: Page) {
  await page.evaluate(WATCH);
  await page.evaluate("window.tasks.length = 0");
  const times: number[] = [];
  for (let i = 0; i < 8; i++) {
    times.push((await page.evaluate(`window.untilChange("fingerprint", ${i % 2 ? '"y"' : '"z"'})`)) as number);
    await page.waitForTimeout(700);
  }
  const tasks = (await page.evaluate("window.tasks")) as number[];
  return { median: median(times.slice(2)), worst: Math.max(...times.slice(2)), longest: Math.max(0, ...tasks) };
}

async function titles(page: Page): Promise<Map<string, string>> {
  const out = new Map<string, string>();
  for (const s of STATIONS) {
    await page.locator(`nav[aria-label="Stations"] a[href*="/${s}"]`).click();
    await page.waitForURL(new RegExp(`/${s}`));
    await page.locator("main h1").first().waitFor();
    await page.waitForTimeout(500);
    out.set(s, await page.locator("main h1").first().innerText());
  }
  return out;
}

export async function handRows(row: Row) {
  if (!fs.existsSync("/usr/bin/chromium") || !fs.existsSync(".next/BUILD_ID")) return;
  const app = await startApp();
  try {
    for (const parts of [5, 40]) {
      const { page, context } = await app.session();
      const opened = await open(app, page, parts, "parts");
      row(`${parts} parts: link opened until the verdict`, "< 1500 ms", `${opened.toFixed(0)} ms`);
      // One edit by hand, for undo and redo to go over.
      await page.goto(page.url().replace(/[a-z]+$/, "pins"));
      await page.getByTestId("verdict").waitFor();
      await page.locator('td[data-cell^="M3."][data-state="fits"]').first().click();
      await page.getByRole("button", { name: "Move here" }).click();
      await page.getByRole("button", { name: "Undo" }).and(page.locator(":enabled")).waitFor();
      const names = await titles(page);
      for (const s of ["parts", "pins", "power", "wiring", "firmware", "bench"]) {
        await page.locator(`nav[aria-label="Stations"] a[href*="/${s}"]`).click();
        await page.waitForURL(new RegExp(`/${s}`));
        await page.waitForTimeout(900);
        const e = await edits(page);
        const nodes = await page.evaluate("document.querySelectorAll('main *').length");
        row(
          `${parts} parts at ${s}: edit until the verdict`,
          "< 100 ms",
          `${e.median.toFixed(0)} ms (worst ${e.worst.toFixed(0)}), longest task ${e.longest.toFixed(0)} ms, ${nodes} nodes`,
        );
      }
      const changes: number[] = [];
      for (const s of [...STATIONS, ...STATIONS]) {
        await page.evaluate("window.tasks.length = 0");
        const t = (await page.evaluate(
          `window.untilStation(${JSON.stringify(s)}, ${JSON.stringify(names.get(s))})`,
        )) as number;
        if (process.env.EACH) console.log("   ", s, t.toFixed(0), await page.evaluate("window.tasks"));
        changes.push(t);
        await page.waitForTimeout(300);
      }
      row(
        `${parts} parts: change of station`,
        "< 100 ms",
        `median ${median(changes).toFixed(0)} ms, worst ${Math.max(...changes).toFixed(0)} ms`,
      );
      await context.close();
    }
  } finally {
    await app.stop();
  }
}
