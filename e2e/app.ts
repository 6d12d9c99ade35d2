import { spawn, type ChildProcess } from "node:child_process";
import fs from "node:fs";
import { createRequire } from "node:module";
import net from "node:net";
import os from "node:os";
import path from "node:path";
import { expect } from "vitest";
import { chromium, type Browser, type BrowserContext, type Locator, type Page } from "playwright-core";

const ROOT = path.resolve(import.meta.dirname, "..");

function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const s = net.createServer().listen(0, "127.0.0.1", () => {
      const { port } = s.address() as net.AddressInfo;
      s.close(() => resolve(port));
    });
  });
}

export interface App {
  url: string;
  browser: Browser;
  /** A fresh browser session with nothing stored, at the size that most screens have. */
  session(size?: {
    width: number;
    height: number;
  }): Promise<{ context: BrowserContext; page: Page; foreign: string[] }>;
  stop(): Promise<void>;
}

/** Starts the built app on a port of its own with a database of its own, and a headless Chromium. */
export async function startApp(more: Record<string, string> = {}): Promise<App> {
  const port = await freePort();
  const data = fs.mkdtempSync(path.join(os.tmpdir(), "lattice-e2e-"));
  const server: ChildProcess = spawn(
    process.execPath,
    [path.join(ROOT, "node_modules/next/dist/bin/next"), "start", "-H", "127.0.0.1", "-p", String(port)],
    {
      cwd: ROOT,
      env: { ...process.env, LATTICE_DATA: data, NEXT_TELEMETRY_DISABLED: "1", NODE_ENV: "production", ...more },
      stdio: "ignore",
    },
  );
  const refused: string[] = [];
  const url = `http://127.0.0.1:${port}`;
  for (let i = 0; ; i++) {
    const ok = await fetch(`${url}/api/projects`).then(
      // One that wants a passphrase serves, too.
      (r) => r.ok || r.status === 401,
      () => false,
    );
    if (ok) break;
    if (i > 400) throw new Error("the app did not start");
    await new Promise((r) => setTimeout(r, 200));
  }
  const browser = await chromium.launch({
    executablePath: "/usr/bin/chromium",
    args: [
      "--no-sandbox",
      "--disable-gpu",
      "--disable-background-networking",
      "--disable-component-update",
      "--disable-sync",
    ],
  });
  return {
    url,
    browser,
    async session(size = { width: 1280, height: 800 }) {
      const context = await browser.newContext({ viewport: size, acceptDownloads: true, baseURL: url });
      const foreign: string[] = [];
      context.on("request", (r) => {
        if (!r.url().startsWith(url) && !/^(blob|data):/.test(r.url())) foreign.push(r.url());
      });
      const page = await context.newPage();
      // What the page's own policy refuses is broken, whatever was looked at.
      page.on("console", (m) => {
        if (m.type() === "error" && /Content Security Policy/.test(m.text()))
          refused.push(`${page.url()}: ${m.text()}`);
      });
      page.setDefaultTimeout(45_000);
      return { context, page, foreign };
    },
    async stop() {
      await browser.close();
      server.kill();
      fs.rmSync(data, { recursive: true, force: true });
      if (refused.length)
        throw new Error(`refused by the page's policy:\n${[...new Set(refused)].slice(0, 5).join("\n")}`);
    },
  };
}

/** Opens a project of the app by its title. */
export async function openProject(page: Page, title: string, station: string) {
  const list = (await (await page.request.get("/api/projects")).json()) as { id: string; title: string }[];
  const project = list.find((p) => p.title.includes(title));
  if (!project) throw new Error(`no project called "${title}"`);
  await page.goto(`/p/${project.id}/${station}`);
  await page.getByTestId("verdict").waitFor();
}

/** Opens a project from the first page, as a person does. */
export async function openFromHome(page: Page, title: string) {
  await page.goto("/");
  // A press in the very moment in which the page comes to life can be lost on a loaded machine: it is tried again.
  for (let tries = 1; ; tries++) {
    await page.getByRole("link", { name: title }).first().click();
    const there = await page.waitForURL(/\/p\//, { timeout: 15_000 }).then(
      () => true,
      (e: unknown) => {
        if (tries === 3) throw e;
        console.warn(`the press on "${title}" led nowhere within 15 s`);
        return false;
      },
    );
    if (there) break;
  }
  await page.getByTestId("verdict").waitFor();
}

/** Makes a project of its own and opens it at a station. */
export async function makeProject(app: App, page: Page, title: string, project: object, station: string) {
  const r = await fetch(`${app.url}/api/projects`, {
    method: "POST",
    headers: { "content-type": "application/json", origin: app.url },
    body: JSON.stringify({ document: { format: "young-lattice-project", version: 1, title, ...project } }),
  });
  if (r.status !== 201) throw new Error(`${r.status}: ${await r.text()}`);
  const { id } = (await r.json()) as { id: string };
  await page.goto(`/p/${id}/${station}`);
  await page.getByTestId("verdict").waitFor();
}

/** Clicks a download and returns the saved file's path. */
export async function download(page: Page, click: () => Promise<void>): Promise<string> {
  const [d] = await Promise.all([page.waitForEvent("download"), click()]);
  const file = path.join(fs.mkdtempSync(path.join(os.tmpdir(), "lattice-zip-")), d.suggestedFilename());
  await d.saveAs(file);
  return file;
}

/** Opens a list to choose from and takes an option by its value. */
export async function pick(list: Locator, value: string) {
  await list.click();
  await list.page().locator(`[role="option"][data-value="${value}"]`).click();
  await list.page().getByRole("listbox").waitFor({ state: "detached" });
}

/** The value that a list to choose from stands at. */
/** Takes one of several answers: pressed where it stands still, and seen to be taken. */
export async function answer(page: Page, name: RegExp) {
  const radio = page.getByRole("radio", { name });
  await radio.click();
  await expect.poll(() => radio.getAttribute("aria-checked")).toBe("true");
}

export const chosen = (list: Locator) => list.getAttribute("data-value");

/** A list to choose from by keyboard: opened, these keys pressed, taken. */
export async function chooseByKeys(page: Page, list: string | RegExp, ...keys: string[]) {
  await page.getByRole("combobox", { name: list }).focus();
  await page.keyboard.press("Enter");
  await page.getByRole("option").first().waitFor();
  // Keys count from the one that is chosen, once the list has come to it.
  await page.waitForFunction(() => {
    const now = document.activeElement;
    if (now?.getAttribute("role") !== "option") return false;
    const chosen = document.querySelector('[role="option"][data-state="checked"]');
    return chosen === null || chosen === now;
  });
  for (const k of keys) await page.keyboard.press(k);
  await page.keyboard.press("Enter");
}

/** Finds a part by its id and adds it: of a long list only what is in view is drawn. */
export async function addPart(page: Page, id: string) {
  await page.getByRole("textbox", { name: /Find by/ }).fill(id);
  await page.locator(`#catalogue li:first-child[data-part="${id}"]`).waitFor();
  await page.getByTestId(`add-${id}`).click();
}

export const saved = (page: Page) =>
  page.waitForFunction(() => document.querySelector('[data-testid="save-state"]')?.textContent === "saved");
export const verdict = (page: Page) => page.getByTestId("verdict").innerText();

const axe = fs.readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");
type Axe = { violations: { id: string; nodes: { html: string }[] }[] };

/**
 * Waits until nothing fades or slides any more: half-way through a fade a text's colour is a mixture
 * that nobody reads for longer than a blink, and axe would measure that. Two quiet frames, since a
 * toast starts its fade a frame after it is put in.
 */
const stillness = (page: Page) =>
  page.evaluate(async () => {
    const moving = () =>
      document
        .getAnimations()
        .some((a) => a.playState === "running" && a.effect?.getComputedTiming().iterations !== Infinity) ||
      document.querySelector('[data-sonner-toast][data-mounted="false"]') !== null;
    const until = performance.now() + 10_000;
    for (let quiet = 0; quiet < 2;) {
      if (performance.now() > until) throw new Error("the page did not come to rest");
      await new Promise((frame) => requestAnimationFrame(frame));
      quiet = moving() ? 0 : quiet + 1;
    }
  });

/** What axe finds wrong on a page. It goes in through the debugger: the page's own policy allows no script but its own. */
export async function axeViolations(page: Page): Promise<string[]> {
  await stillness(page);
  await page.evaluate(axe);
  const result = await page.evaluate(() => (window as unknown as { axe: { run(): Promise<Axe> } }).axe.run());
  return result.violations.map((v) => `${v.id}: ${v.nodes[0]?.html.slice(0, 160)}`);
}
