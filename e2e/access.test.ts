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
  for (const scheme of ["light", "dark"] as const)
    it.each(["home", ...STATIONS.map((s) => s.id)])(`%s, ${scheme}`, async (station) => {
      const { page, context } = await app.session();
      await page.emulateMedia({ colorScheme: scheme });
      if (station === "home") {
        await page.goto("/");
        await page.getByRole("link", { name: "Rain-barrel gauge" }).waitFor();
      } else {
        await openProject(page, "Moss terrarium keeper", station);
        await page.getByRole("heading", { level: 1 }).waitFor();
        await page.waitForTimeout(400);
      }
      expect(await axeViolations(page)).toEqual([]);
      await context.close();
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
  it("sends a strict policy and runs without breaking it", async () => {
    const { page, foreign } = await app.session();
    const complaints: string[] = [];
    page.on("console", (m) => m.type() === "error" && complaints.push(m.text()));
    page.on("pageerror", (e) => complaints.push(e.message));
    const r = await page.goto("/");
    const policy = r!.headers()["content-security-policy"]!;
    expect(policy).toMatch(/script-src 'self' 'nonce-/);
    expect(policy).not.toContain("unsafe-eval");
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
