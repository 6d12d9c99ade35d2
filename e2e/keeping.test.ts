import { execFileSync } from "node:child_process";
import fs from "node:fs";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Page } from "playwright-core";
import { addPart, axeViolations, download, makeProject, saved, startApp, verdict, type App } from "./app";

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app?.stop());

const PARTS = [
  { ref: "B1", part: "board/rp2040-forty" },
  { ref: "S1", part: "supply/usb-port" },
  { ref: "LED1", part: "discrete/led-red", label: "Lamp" },
];
const name = (page: Page) => page.getByLabel("Name of LED1");
async function rename(page: Page, to: string) {
  await name(page).click();
  await page.locator('input[aria-label="Name of LED1"]:focus').waitFor();
  await page.keyboard.press("Control+A");
  await page.keyboard.type(to);
  await page.keyboard.press("Enter");
}
/** The server does not hear saves of this page until the answer is called. */
async function deaf(page: Page) {
  const put = (r: import("playwright-core").Route) => (r.request().method() === "PUT" ? r.abort() : r.continue());
  await page.route("**/api/projects/*", put);
  return () => page.unroute("**/api/projects/*", put);
}
const stored = async (page: Page) => {
  const id = /\/p\/([^/]+)/.exec(page.url())![1]!;
  return (await (await page.request.get(`/api/projects/${id}`)).json()) as {
    version: number;
    document: { title: string; brief: { goal: string }; parts: { ref: string; label?: string }[] };
  };
};

describe("two tabs of one project", () => {
  it("the other follows live; different changes made apart come together by themselves", async () => {
    const { context, page } = await app.session();
    await makeProject(app, page, "Two tabs", { parts: PARTS }, "parts");
    const other = await context.newPage();
    await other.goto(page.url());
    await other.getByTestId("part-LED1").waitFor();
    await addPart(page, "discrete/button");
    await other.getByTestId("part-SW1").waitFor();
    const hears = await deaf(other);
    await rename(other, "Signal");
    await expect.poll(() => other.getByTestId("save-state").innerText()).toBe("not saved");
    await addPart(page, "discrete/potentiometer");
    await saved(page);
    await hears();
    await saved(other);
    await other.getByText("Put together with what was changed elsewhere").first().waitFor();
    await other.getByTestId("part-POT1").waitFor();
    await expect.poll(() => name(page).innerText()).toBe("Signal");
    const now = await stored(page);
    expect(now.document.parts.map((p) => p.ref).sort()).toEqual(["B1", "LED1", "POT1", "S1", "SW1"]);
    await context.close();
  });

  it("where both changed the same the person chooses; both stay as versions, and undo works", async () => {
    const { context, page } = await app.session();
    await makeProject(app, page, "Two names", { parts: PARTS }, "parts");
    const other = await context.newPage();
    await other.goto(page.url());
    await other.getByTestId("part-LED1").waitFor();
    const hears = await deaf(other);
    await rename(other, "Mine");
    await expect.poll(() => other.getByTestId("save-state").innerText()).toBe("not saved");
    await rename(page, "Theirs");
    await saved(page);
    await hears();
    await other.getByText("both changed the same").waitFor();
    expect(await other.getByTestId("clash").innerText()).toMatch(/its name[\s\S]*here: Mine[\s\S]*there: Theirs/);
    expect(await axeViolations(other)).toEqual([]);
    expect(await other.getByRole("button", { name: "Put together (1 to choose)" }).isDisabled()).toBe(true);
    // By keyboard alone.
    await other.getByRole("radio", { name: "here: Mine" }).focus();
    await other.keyboard.press("Space");
    await other.getByRole("button", { name: "Put together", exact: true }).press("Enter");
    await saved(other);
    expect((await stored(other)).document.parts.find((p) => p.ref === "LED1")!.label).toBe("Mine");
    await expect.poll(() => name(page).innerText()).toBe("Mine");
    await other.getByRole("button", { name: "versions" }).click();
    await other.getByText("one side, before both were put together").waitFor();
    await context.close();
  });
});

describe("nothing that was done here is lost", () => {
  it("a tab that is closed before the server heard: the change is there at the next opening, and is saved", async () => {
    const { context, page } = await app.session();
    await makeProject(app, page, "Closed tab", { parts: PARTS }, "parts");
    await deaf(page);
    await rename(page, "Beacon");
    await expect.poll(() => page.getByTestId("save-state").innerText()).toBe("not saved");
    const { version } = await stored(page);
    const url = page.url();
    await page.close();
    const again = await context.newPage();
    await again.goto(url);
    await expect.poll(() => name(again).innerText()).toBe("Beacon");
    await again.getByText("What was not saved when this page was closed is back.").waitFor();
    await saved(again);
    expect((await stored(again)).version).toBe(version + 1);
    await context.close();
  });

  it("a server that is gone in the midst of the work, and a project too large for a page that is left", async () => {
    const { context, page } = await app.session();
    const loop = "y".repeat(80_000);
    await makeProject(
      app,
      page,
      "Server gone",
      { parts: PARTS, code: { micropython: { loop: `# ${loop}` } } },
      "parts",
    );
    await rename(page, "First");
    await saved(page);
    await context.setOffline(true);
    await rename(page, "Kept");
    await expect.poll(() => page.getByTestId("save-state").innerText()).toBe("not saved");
    await rename(page, "Kept twice");
    await expect.poll(() => name(page).innerText()).toBe("Kept twice");
    const url = page.url();
    await page.close();
    await context.setOffline(false);
    const again = await context.newPage();
    await again.goto(url);
    await expect.poll(() => name(again).innerText()).toBe("Kept twice");
    await saved(again);
    const now = await stored(again);
    expect(now.document.parts.find((p) => p.ref === "LED1")!.label).toBe("Kept twice");
    expect(JSON.stringify(now)).toContain(loop);
    await context.close();
  });

  it("text that is typed and not left stands in its field again", async () => {
    const { context, page } = await app.session();
    await makeProject(app, page, "Half a sentence", { parts: PARTS }, "brief");
    const goal = (p: Page) => p.getByRole("textbox", { name: /goal|What should it do|should do/i }).first();
    await goal(page).click();
    await page.keyboard.type("It should light up when");
    const url = page.url();
    await page.close();
    const again = await context.newPage();
    await again.goto(url);
    await expect.poll(() => goal(again).inputValue()).toBe("It should light up when");
    await goal(again).click();
    await again.keyboard.press("End");
    await again.keyboard.type(" it is dark");
    await again.keyboard.press("Tab");
    await expect.poll(async () => (await stored(again)).document.brief.goal).toBe("It should light up when it is dark");
    await again.reload();
    await expect.poll(() => goal(again).inputValue()).toBe("It should light up when it is dark");
    await context.close();
  });

  it("a computation that stands still is begun anew, says so, and the edit is done", async () => {
    const { context, page } = await app.session();
    await makeProject(app, page, "Stands still", { parts: PARTS }, "parts");
    await saved(page);
    // Never ends: its answer is not waited for.
    void page
      .workers()[0]!
      .evaluate(() => {
        for (;;);
      })
      .catch(() => undefined);
    await rename(page, "After all");
    await page.getByText("The computation stood still and was begun anew").waitFor();
    await expect.poll(() => name(page).innerText()).toBe("After all");
    await saved(page);
    expect(await verdict(page)).not.toBe("");
    await addPart(page, "discrete/button");
    await page.getByTestId("part-SW1").waitFor();
    await context.close();
  });
});

describe("all projects at once", () => {
  it("a deleted project stays in the bin and comes back under its own address; for good is asked first", async () => {
    const { context, page } = await app.session();
    await makeProject(app, page, "Bound for the bin", { parts: PARTS }, "parts");
    const url = page.url();
    await page.goto("/");
    await page.getByRole("button", { name: "Delete Bound for the bin", exact: true }).click();
    await page.getByText('"Bound for the bin" is in the bin.').waitFor();
    await page.getByRole("button", { name: "Bin (1)" }).click();
    expect(await axeViolations(page)).toEqual([]);
    await page.getByRole("button", { name: "bring back Bound for the bin" }).click();
    await page.getByText('"Bound for the bin" is back.').waitFor();
    await page.goto(url);
    await page.getByTestId("part-LED1").waitFor();
    await page.goto("/");
    await page.getByRole("button", { name: "Delete Bound for the bin", exact: true }).click();
    await page.getByRole("button", { name: "Bin (1)" }).click();
    await page.getByRole("button", { name: "delete for good: Bound for the bin" }).click();
    await page.getByRole("button", { name: "Delete for good", exact: true }).click();
    await page.getByText("It is empty.").waitFor();
    await context.close();
  });

  it("a backup is taken, looked at before it is restored, and put in place; what is no backup is refused", async () => {
    const { context, page } = await app.session();
    await makeProject(app, page, "Before", { parts: PARTS }, "parts");
    await page.goto("/");
    const file = await download(page, () => page.getByTestId("backup").click());
    expect(file).toMatch(/young-lattice-\d{4}-\d\d-\d\d\.sqlite$/);
    expect(fs.readFileSync(file).subarray(0, 15).toString()).toBe("SQLite format 3");
    await makeProject(app, page, "Since", { parts: PARTS }, "parts");
    await page.goto("/");
    await page.getByRole("button", { name: "Delete Before", exact: true }).click();
    const chooser = page.getByLabel("Backup file");
    await chooser.setInputFiles({ name: "no.sqlite", mimeType: "", buffer: Buffer.from("hello") });
    await page.getByText(/is no backup that can be used/).waitFor();
    await chooser.setInputFiles(file);
    const says = page.getByTestId("restore-says");
    await says.waitFor();
    expect(await says.innerText()).toMatch(/Come back: Before[\s\S]*Would be gone, they are not in the backup: Since/);
    expect(await axeViolations(page)).toEqual([]);
    await page.getByRole("button", { name: "Leave everything as it is" }).click();
    await page.getByRole("link", { name: "Since", exact: true }).waitFor();
    await chooser.setInputFiles(file);
    await page.getByRole("button", { name: "Put the backup in its place" }).click();
    await page.getByText(/Restored\. What was here before is in/).waitFor();
    await page.getByRole("link", { name: "Before", exact: true }).waitFor();
    expect(await page.getByRole("link", { name: "Since", exact: true }).count()).toBe(0);
    const zip = await download(page, () => page.getByTestId("export").click());
    const names = execFileSync("unzip", ["-Z1", zip], { encoding: "utf8" });
    expect(names).toMatch(/^projects\/before-[\w-]+\.lattice\.json$/m);
    await context.close();
  });
});

describe("many projects", () => {
  it("are all there, page by page, and narrowed by words", async () => {
    const { context, page } = await app.session();
    for (let i = 0; i < 130; i++) {
      const r = await page.request.post("/api/projects", {
        data: { title: `Bench ${i}` },
        headers: { origin: app.url },
      });
      expect(r.status()).toBe(201);
    }
    await page.goto("/");
    const nav = page.getByRole("navigation", { name: "Pages of projects" });
    const rows = page.getByRole("table", { name: "Projects" }).locator("tbody tr");
    await nav.getByText(/^1 to 60 of \d+$/).waitFor();
    const all = Number(/of (\d+)/.exec(await nav.innerText())![1]);
    const seen = new Set<string>();
    for (let left = all; left > 0; left -= 60) {
      await expect.poll(() => rows.count()).toBe(Math.min(60, left));
      for (const t of await rows.locator("td:first-child").allInnerTexts()) seen.add(t);
      const next = nav.getByRole("button", { name: "Earlier changed" });
      expect(await next.isDisabled()).toBe(left <= 60);
      if (left > 60) await next.press("Enter");
    }
    for (let i = 0; i < 130; i++) expect(seen).toContain(`Bench ${i}`);
    await page.getByLabel("Filter projects").fill("bench 12");
    await expect.poll(() => rows.count()).toBe(11);
    expect(await nav.count()).toBe(0);
    await context.close();
  });
});

describe("heavy work beside the server", () => {
  it("a plan that nobody waits for any more is given up; the others come, and light requests do meanwhile", async () => {
    const { context, page } = await app.session();
    await makeProject(app, page, "Twelve plans", { parts: PARTS }, "parts");
    await saved(page);
    const id = /\/p\/([^/]+)/.exec(page.url())![1]!;
    const gone = new AbortController();
    const given = fetch(`${app.url}/api/projects/${id}/plan`, { signal: gone.signal }).catch(
      (e: unknown) => (e as Error).name,
    );
    const all = Array.from({ length: 6 }, () => fetch(`${app.url}/api/projects/${id}/plan`));
    gone.abort();
    expect(await given).toBe("AbortError");
    let light = 0;
    const plans = Promise.all(all.map(async (p) => (await (await p).arrayBuffer()).byteLength));
    const until = plans.then(() => true);
    while (!(await Promise.race([until, new Promise<false>((r) => setTimeout(() => r(false), 20))]))) {
      expect((await fetch(`${app.url}/api/projects/${id}`)).status).toBe(200);
      light++;
    }
    for (const bytes of await plans) expect(bytes).toBeGreaterThan(20_000);
    expect(light).toBeGreaterThan(5);
    await context.close();
  });
});

describe("a computer that several share", () => {
  it("asks for the passphrase before anything is shown; the class's link holders are listed and closed out", async () => {
    const shared = await startApp({
      LATTICE_PASSPHRASE: "three mice",
      LATTICE_LAN: "1",
      LATTICE_BENCH: "benchkey1234",
    });
    try {
      const { context, page } = await shared.session();
      await page.goto("/bench-sums");
      await page.waitForURL(/\/unlock/);
      expect(await axeViolations(page)).toEqual([]);
      expect((await page.request.get("/api/projects")).status()).toBe(401);
      await page.getByLabel("Passphrase").fill("two mice");
      await page.keyboard.press("Enter");
      await page.getByText("That is not the passphrase.").waitFor();
      await page.waitForTimeout(1100);
      await page.getByLabel("Passphrase").fill("three mice");
      await page.keyboard.press("Enter");
      await page.waitForURL(/\/bench-sums/);
      await page.goto("/");
      // Who has not opened the link reads, and sees no list of those who have.
      await page.getByRole("link", { name: "Rain-barrel gauge" }).waitFor();
      expect(await page.getByTestId("holder").count()).toBe(0);
      await page.goto("/?bench=benchkey1234");
      expect(page.url()).not.toContain("benchkey");
      await page.getByTestId("holder").waitFor();
      expect(await page.getByTestId("holder").innerText()).toMatch(/on Linux.*this one/);
      expect(await axeViolations(page)).toEqual([]);
      await page.getByRole("button", { name: /^close out/ }).click();
      await page.getByTestId("holder").waitFor({ state: "detached" });
      expect(
        (await page.request.post("/api/projects", { data: { title: "no" }, headers: { origin: shared.url } })).status(),
      ).toBe(403);
      await context.close();
    } finally {
      await shared.stop();
    }
  });
});
