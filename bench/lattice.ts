/** The lattice in the browser: 60 needs on 70 pins, the pointer swept over it, the time between two frames. */
import fs from "node:fs";
import { pick, startApp } from "../e2e/app";

import { edits, WATCH } from "./hands";

type Row = (what: string, reach: string, got: string) => void;

export async function latticeRows(row: Row) {
  if (!fs.existsSync("/usr/bin/chromium") || !fs.existsSync(".next/BUILD_ID")) return;
  const app = await startApp();
  const parts = [
    { ref: "B1", part: "board/atmega2560-long" },
    { ref: "S1", part: "supply/usb-port" },
    ...Array.from({ length: 60 }, (_, i) => ({
      ref: `D${i + 1}`,
      part: "discrete/led-red",
      options: { current_mA: 2 },
    })),
  ];
  const r = await fetch(`${app.url}/api/projects`, {
    method: "POST",
    headers: { "content-type": "application/json", origin: app.url },
    body: JSON.stringify({ document: { format: "young-lattice-project", version: 1, title: "wall", parts } }),
  });
  const { id } = (await r.json()) as { id: string };
  const { page } = await app.session({ width: 1920, height: 1080 });
  await page.goto(`/p/${id}/pins`);
  await page.getByRole("button", { name: "Plan open pins" }).click();
  await page.getByText("Every need has its pin").waitFor();
  await pick(page.getByLabel("Pins shown"), "signal");
  // A move and its undo: from the key until the fingerprint has changed on screen.
  await page.evaluate(WATCH);
  await page.locator('td[data-cell^="D1."][data-state="fits"]').first().click();
  await page.getByRole("button", { name: "Move here" }).click();
  await page.getByRole("button", { name: "Undo" }).and(page.locator(":enabled")).waitFor();
  await page.waitForTimeout(800);
  const e = await edits(page);
  row(
    "lattice of 60 × 70: edit until the verdict",
    "< 100 ms",
    `${e.median.toFixed(0)} ms (worst ${e.worst.toFixed(0)}), longest task ${e.longest.toFixed(0)} ms`,
  );
  const cells = await page.locator(".lattice td[data-state]").count();
  // As text: what the compiler adds to functions is unknown in the page.
  await page.evaluate(`(() => {
    window.gaps = [];
    let last = performance.now();
    const tick = (now) => {
      window.gaps.push(now - last);
      last = now;
      requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  })()`);
  const box = (await page.locator(".lattice").boundingBox())!;
  for (let i = 0; i < 240; i++) await page.mouse.move(box.x + 260 + ((i * 23) % 900), box.y + 160 + ((i * 7) % 700));
  await page.locator('.lattice td[tabindex="0"]').focus();
  for (let i = 0; i < 120; i++) await page.keyboard.press(i % 3 ? "ArrowRight" : "ArrowDown");
  const gaps = (await page.evaluate("window.gaps.sort((a, b) => a - b)")) as number[];
  const at = (q: number) => gaps[Math.floor(gaps.length * q)]!.toFixed(1);
  row(
    `lattice of 60 × 70, ${cells} crossings drawn, mark moved 360 times: between frames`,
    "16.7 ms",
    `median ${at(0.5)} ms, 95 % under ${at(0.95)} ms`,
  );
  await app.stop();
}
