import http from "node:http";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { axeViolations, openProject, startApp, type App } from "./app";
import { STATIONS } from "../src/ui/stations/list";

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app?.stop());

describe("axe finds nothing", () => {
  it.each(["home", ...STATIONS.map((s) => s.id)])("%s, light and dark", async (station) => {
    const { page, context } = await app.session();
    await page.emulateMedia({ colorScheme: "light" });
    if (station === "home") {
      await page.goto("/");
      await page.getByRole("link", { name: "Rain-barrel gauge" }).waitFor();
    } else {
      await openProject(page, "Moss terrarium keeper", station);
      await page.getByRole("heading", { level: 1 }).waitFor();
      await page.waitForTimeout(400);
    }
    expect(await axeViolations(page), "light").toEqual([]);
    await page.emulateMedia({ colorScheme: "dark" });
    expect(await page.evaluate(() => matchMedia("(prefers-color-scheme: dark)").matches)).toBe(true);
    await page.waitForTimeout(400);
    expect(await axeViolations(page), "dark").toEqual([]);
    // The station scrolls, never the page around it.
    if (station !== "home")
      expect(await page.evaluate(() => document.documentElement.scrollHeight - window.innerHeight)).toBe(0);
    await context.close();
  });
});

describe("axe finds nothing where there is little room", () => {
  // 1280 × 800 at 200 % leaves a page of 640 × 400; a phone is narrower and higher.
  const SIZES = [
    ["at 200 %", { width: 640, height: 400 }, "light"],
    ["on a phone", { width: 390, height: 780 }, "dark"],
  ] as const;
  it.each(SIZES)("%s, at every station, and nothing is wider than the page", async (_name, size, scheme) => {
    const { page, context } = await app.session(size);
    await page.emulateMedia({ colorScheme: scheme, reducedMotion: "reduce" });
    const found: string[] = [];
    for (const s of STATIONS) {
      await openProject(page, "Moss terrarium keeper", s.id);
      await page.getByRole("heading", { level: 1 }).waitFor();
      await page.waitForTimeout(400);
      found.push(...(await axeViolations(page)).map((v) => `${s.id}: ${v}`));
      const over = await page.evaluate(() => {
        const m = document.querySelector("main")!;
        return Math.max(document.documentElement.scrollWidth - window.innerWidth, m.scrollWidth - m.clientWidth);
      });
      if (over > 0) found.push(`${s.id}: ${over} px too wide`);
    }
    expect(found).toEqual([]);
    await context.close();
  });

  it("in what opens over the page: search, keys, versions, other plans, a place's card, an opened part", async () => {
    const { page, context } = await app.session();
    const found: string[] = [];
    const look = async (what: string) => found.push(...(await axeViolations(page)).map((v) => `${what}: ${v}`));
    await openProject(page, "Rain-barrel gauge", "parts");
    await page.getByRole("button", { name: "Details of Water echo" }).click();
    await look("an opened part");
    await page.keyboard.press("Control+k");
    await page.getByPlaceholder(/station, part/).waitFor();
    await look("search");
    await page.getByPlaceholder(/station, part/).fill("open");
    await look("search, narrowed");
    await page.keyboard.press("Escape");
    await page.keyboard.press("?");
    await page.getByRole("dialog", { name: "Keys" }).waitFor();
    await look("keys");
    await page.keyboard.press("Escape");
    await page.getByRole("button", { name: "versions" }).click();
    await page.getByRole("dialog", { name: "Versions" }).waitFor();
    await look("versions");
    await page.keyboard.press("Escape");
    await page.getByTestId("part-M1").locator("button[data-place]").focus();
    await page.getByTestId("part-M1").locator("button[data-place]").click();
    await page.getByTestId("place-card").waitFor();
    await look("a place's card");
    await page.keyboard.press("Escape");
    await page.getByTestId("part-M1").locator("button[data-place]").click({ button: "right" });
    await page.getByRole("menu").waitFor();
    await look("a place's menu");
    await page.keyboard.press("Escape");
    await page.goto(page.url().replace(/parts.*/, "parts?show=own"));
    await page.getByRole("button", { name: "Make an own part" }).click();
    await page.getByLabel("Name", { exact: true }).fill("Half typed");
    await page.getByRole("button", { name: "Give up" }).click();
    await page.getByRole("alertdialog").waitFor();
    await look("a question before something is lost");
    await page.getByRole("button", { name: "Go on" }).click();
    expect(await page.getByLabel("Name", { exact: true }).inputValue()).toBe("Half typed");
    await page.getByRole("button", { name: "Give up" }).click();
    await page.getByRole("button", { name: "Give it up" }).click();
    await page.getByRole("button", { name: "Make an own part" }).waitFor();
    await openProject(page, "Rain-barrel gauge", "pins");
    await page.getByRole("button", { name: /Other plans/ }).click();
    await page
      .getByRole("button", { name: /^Take it/ })
      .first()
      .waitFor();
    await look("other plans");
    expect(found).toEqual([]);
    await context.close();
  });
});

describe("a place says what it is", () => {
  it("by its menu, which leads to where it is looked at; elsewhere the browser's own comes", async () => {
    const { page, context } = await app.session();
    await openProject(page, "Rain-barrel gauge", "parts");
    const place = page.getByTestId("part-M1").locator("button[data-place]");
    const menu = page.getByRole("menu");
    await place.click({ button: "right" });
    await menu.getByText("M1", { exact: true }).waitFor();
    // No card over the menu, however long the pointer rests.
    await page.waitForTimeout(700);
    expect(await page.getByTestId("place-card").count()).toBe(0);
    await menu.getByRole("menuitem", { name: /What it is/ }).click();
    await page.getByTestId("place-card").getByText("Water echo (M1)").waitFor();
    await page.keyboard.press("Escape");
    await place.focus();
    await page.keyboard.press("Shift+F10");
    await menu.getByRole("menuitem", { name: /In the run sheet/ }).waitFor();
    await page.keyboard.press("End");
    await page.keyboard.press("Enter");
    await page.getByRole("heading", { level: 1, name: "Wiring" }).waitFor();
    // In the ledger as well.
    await openProject(page, "Moss terrarium keeper", "parts");
    await page.locator("#ledger [data-place]").first().click({ button: "right" });
    await menu.getByRole("menuitem", { name: /At Power and levels/ }).click();
    await page.getByRole("heading", { level: 1, name: "Power and levels" }).waitFor();
    await page.getByRole("heading", { level: 1, name: "Power and levels" }).click({ button: "right" });
    await page.waitForTimeout(200);
    expect(await menu.count()).toBe(0);
    await context.close();
  });

  it("on a phone, one button leads to search, versions and keys", async () => {
    const { page, context } = await app.session({ width: 390, height: 780 });
    await openProject(page, "Rain-barrel gauge", "parts");
    for (const [item, title] of [
      ["Find or do", "Find or do"],
      ["Versions", "Versions"],
      ["Keys", "Keys"],
    ] as const) {
      await page.getByRole("button", { name: "More", exact: true }).click();
      await page.getByRole("menuitem", { name: item }).click();
      await page.getByRole("dialog", { name: title }).waitFor();
      await page.keyboard.press("Escape");
      await page.getByRole("dialog").waitFor({ state: "detached" });
    }
    await context.close();
  });

  it("by mouse, by keys and by a tap, at every kind of view", async () => {
    const { page, context } = await app.session();
    const card = page.getByTestId("place-card");
    await openProject(page, "Rain-barrel gauge", "parts");
    await page.getByTestId("part-M1").locator("button[data-place]").hover();
    await card.getByText("Talks to B1 over TRIG at D8, ECHO at D2.").waitFor();
    await page.keyboard.press("Escape");
    await card.waitFor({ state: "detached" });
    // By keys: the focus is enough.
    await page.getByRole("button", { name: "Details of Water echo" }).focus();
    await page.keyboard.press("Tab");
    await card.getByText("Water echo (M1)").waitFor();
    await page.keyboard.press("Tab");
    await card.waitFor({ state: "detached" });
    // In a drawing, and at the bench.
    await openProject(page, "Rain-barrel gauge", "wiring");
    // The drawing slides to the current step first.
    await page.waitForTimeout(1200);
    await page.locator('[data-testid="loom"] [data-box="B1"]').hover({ position: { x: 60, y: 12 } });
    await card.getByText("Controller (B1)").waitFor();
    await openProject(page, "Rain-barrel gauge", "bench");
    await page.locator('button[data-place="B1.5V"]').first().click();
    await card.getByText("Controller (B1), pin 5V").waitFor();
    await context.close();
    const phone = await app.browser.newContext({
      viewport: { width: 390, height: 780 },
      hasTouch: true,
      isMobile: true,
      baseURL: app.url,
    });
    const small = await phone.newPage();
    await openProject(small, "Rain-barrel gauge", "bench");
    await small.locator('button[data-place="B1.5V"]').first().tap();
    await small
      .getByTestId("place-card")
      .getByText(/Without it it is off/)
      .waitFor();
    const box = (await small.getByTestId("place-card").boundingBox())!;
    expect(box.x).toBeGreaterThanOrEqual(0);
    expect(box.x + box.width).toBeLessThanOrEqual(390);
    await phone.close();
  });
});

describe("the server keeps strangers out", () => {
  const ask = (headers: Record<string, string>, path = "/api/projects", method = "GET") =>
    new Promise<number>((resolve, reject) => {
      const r = http.request(`${app.url}${path}`, { method, headers }, (res) => {
        res.resume();
        resolve(res.statusCode!);
      });
      r.on("error", reject);
      r.end();
    });
  it("refuses a foreign Host, a foreign Origin and cross-site requests", async () => {
    expect(await ask({})).toBe(200);
    expect(await ask({ host: "evil.example" })).toBe(403);
    expect(await ask({ host: "evil.example" }, "/")).toBe(403);
    expect(await ask({ origin: "http://evil.example" })).toBe(403);
    expect(await ask({ origin: "http://evil.example" }, "/api/projects", "POST")).toBe(403);
    expect(await ask({ "sec-fetch-site": "cross-site" })).toBe(403);
  });
  it("says with everything how it may be used, and keeps copies of no data", async () => {
    const { id } = ((await (await fetch(`${app.url}/api/projects`)).json()) as { id: string }[])[0]!;
    for (const path of [
      "/",
      `/p/${id}/parts`,
      "/api/projects",
      `/api/projects/${id}`,
      "/api/nothing",
      "/favicon.ico",
    ]) {
      const { headers } = await fetch(`${app.url}${path}`);
      expect(headers.get("x-content-type-options"), path).toBe("nosniff");
      expect(headers.get("referrer-policy"), path).toBe("no-referrer");
      expect(headers.get("cross-origin-opener-policy"), path).toBe("same-origin");
      expect(headers.get("cross-origin-resource-policy"), path).toBe("same-origin");
      expect(headers.get("permissions-policy"), path).toContain("camera=()");
      if (path.startsWith("/api/")) expect(headers.get("cache-control"), path).toContain("no-store");
    }
  });
  it("takes the methods that it has, and bodies of the type that it wants", async () => {
    for (const method of ["PUT", "DELETE", "PATCH", "POST", "TRACE", "PROPFIND"])
      expect(await ask({}, "/", method), method).toBe(405);
    for (const method of ["PUT", "DELETE", "PATCH", "TRACE", "PROPFIND"])
      expect(await ask({}, "/api/projects", method), method).toBe(405);
    expect(await ask({}, "/", "HEAD")).toBe(200);
    const body = JSON.stringify({ document: {} });
    for (const type of ["text/plain", "application/x-www-form-urlencoded", ""]) {
      const r = await fetch(`${app.url}/api/projects`, { method: "POST", body, headers: { "content-type": type } });
      expect(r.status, type).toBe(415);
      expect(((await r.json()) as { message: string }).message).toContain("application/json");
    }
    expect(
      (
        await fetch(`${app.url}/api/prove`, {
          method: "POST",
          body: "{}",
          headers: { "content-type": "application/json" },
        })
      ).status,
    ).toBe(415);
  });
  it("sends a strict policy and runs without breaking it", async () => {
    const { page, foreign } = await app.session();
    const complaints: string[] = [];
    page.on("console", (m) => m.type() === "error" && complaints.push(m.text()));
    page.on("pageerror", (e) => complaints.push(e.message));
    const r = await page.goto("/");
    const policy = r!.headers()["content-security-policy"]!;
    expect(policy).toMatch(/script-src 'self' 'nonce-/);
    expect(policy).not.toContain("unsafe-eval");
    expect(policy).not.toContain("unsafe-inline");
    for (const s of STATIONS) await openProject(page, "Rain-barrel gauge", s.id);
    expect(complaints).toEqual([]);
    expect(foreign).toEqual([]);
  });
  it("answers bad input with a sentence and no stack", async () => {
    const post = (body: string) =>
      fetch(`${app.url}/api/projects`, { method: "POST", body, headers: { "content-type": "application/json" } });
    expect((await post("nonsense")).status).toBe(400);
    const r = await post(JSON.stringify({ document: { format: "x" } }));
    expect(r.status).toBe(400);
    expect(((await r.json()) as { problems: unknown[] }).problems).toHaveLength(1);
    expect((await fetch(`${app.url}/api/projects/nothing`)).status).toBe(404);
    expect((await fetch(`${app.url}/api/projects/nothing/plan`)).status).toBe(404);
  });
});

describe("a phone at the bench", () => {
  it("reads and ticks the run sheet without sideways scrolling", async () => {
    const { page } = await app.session({ width: 390, height: 780 });
    await openProject(page, "Rain-barrel gauge", "wiring");
    await page.getByLabel("Step 3 done").check();
    const wide = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
    expect(wide).toBeLessThanOrEqual(0);
    const box = (await page.getByLabel("Step 3 done").boundingBox())!;
    expect(box.width).toBeGreaterThanOrEqual(24);
  });
});
