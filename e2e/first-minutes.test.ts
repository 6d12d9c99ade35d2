import fs from "node:fs";
import { execFileSync } from "node:child_process";
import path from "node:path";
import type { Locator, Page } from "playwright-core";
import { unzipSync } from "fflate";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { axeViolations, download, openProject, saved, startApp, verdict, type App } from "./app";

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app?.stop());

/** What acts take somebody who is new to it, seconds: to find and point, to press a key, to read and decide before. */
const POINT_S = 1.5;
const KEY_S = 0.5;
const THINK_S = 4;

/** Counts what hands and head do; the page's own time is added as it passes. */
class Hands {
  private acts = 0;
  private readonly began = performance.now();
  constructor(private readonly page: Page) {}
  async press(at: Locator) {
    await at.click();
    this.acts += THINK_S + POINT_S;
  }
  async type(at: Locator, text: string) {
    await at.fill(text);
    this.acts += THINK_S + POINT_S + KEY_S * text.length;
  }
  async choose(list: Locator, name: string) {
    await list.click();
    await this.page.getByRole("option", { name }).click();
    this.acts += 2 * (THINK_S + POINT_S);
  }
  get seconds() {
    return this.acts + (performance.now() - this.began) / 1000;
  }
}
const ready = (page: Page) =>
  expect.poll(() => verdict(page), { timeout: 30_000 }).toMatch(/^(Ready to wire|Can be wired)/);

describe("a beginner, alone on a Saturday", () => {
  it("from nothing to a checked plan by a pattern, in under five minutes", async () => {
    const { page, context, foreign } = await app.session();
    const me = new Hands(page);
    await page.goto("/");
    await me.press(page.getByRole("link", { name: "Patterns" }));
    await page.getByRole("status").getByText("Ready to wire").waitFor();
    expect(await axeViolations(page)).toEqual([]);
    await me.type(page.getByLabel("Filter patterns"), "water");
    await me.press(page.getByRole("button", { name: /^Fern that asks/ }));
    await page.getByRole("heading", { name: "Fern that asks for water" }).waitFor();
    await me.press(page.getByRole("radio", { name: /RP2040/ }));
    await page.getByRole("status").getByText("Ready to wire").waitFor();
    await me.press(page.getByRole("button", { name: "Begin with this" }));
    await page.waitForURL(/\/wiring$/);
    await ready(page);
    expect(me.seconds).toBeLessThan(300);
    // One way to go on, joined and taken back.
    await page.getByRole("navigation", { name: "Stations" }).getByRole("link", { name: "Brief" }).click();
    const ways = page.getByRole("region", { name: "Ways to go on" });
    await expect.poll(() => ways.getByRole("listitem").count()).toBe(3);
    await ways.getByRole("button", { name: /^Join and plan: A second pot/ }).click();
    await ways.getByRole("status").getByText("Ready to wire").waitFor();
    await ready(page);
    await page.getByRole("button", { name: /undo/i }).first().click();
    await expect.poll(async () => page.getByRole("link", { name: /Parts/ }).first().innerText()).toContain("5 parts");
    expect(foreign).toEqual([]);
    await context.close();
  }, 120_000);

  it("from an idea in own words to a checked plan, without knowing a part, in under five minutes", async () => {
    const { page, context } = await app.session();
    const me = new Hands(page);
    await page.goto("/");
    await me.type(page.getByPlaceholder("Railway crossing"), "Plants");
    await me.press(page.getByRole("button", { name: "Start a project" }));
    await page.waitForURL(/\/p\//);
    await me.press(page.getByRole("navigation", { name: "Stations" }).getByRole("link", { name: "Brief" }));
    const idea = page.getByRole("region", { name: "From an idea to parts" });
    await me.type(idea.getByLabel(/in your own words/), "tell me when the plants are dry and show it");
    await me.press(idea.getByRole("button", { name: "Propose parts" }));
    await me.press(idea.getByRole("button", { name: "Take these parts and plan them" }));
    await ready(page);
    expect(me.seconds).toBeLessThan(300);
    await context.close();
  }, 120_000);

  it("a header that reads otherwise, or was not looked at, is said before anything is begun", async () => {
    const { page, context } = await app.session();
    await page.goto("/patterns");
    await page.getByRole("button", { name: /^Hen-house/ }).click();
    const list = page.getByLabel("How the header of Buzzer reads");
    await list.click();
    await page.getByRole("option", { name: "not looked at yet" }).click();
    await page.getByRole("status").getByText("1 risk to know").waitFor();
    await page.getByLabel("Filter patterns").fill("no such thing");
    await page.getByText("No pattern has all of these words.").waitFor();
    await context.close();
  });
});

describe("a teacher, on Sunday evening", () => {
  it("from three patterns to a printed pack and a kit list", async () => {
    const { page, context } = await app.session();
    const me = new Hands(page);
    await page.goto("/");
    await me.press(page.getByRole("link", { name: "course", exact: true }));
    await me.type(page.getByLabel("What is the course called?"), "Light and motion");
    await me.press(page.getByRole("button", { name: "Begin a course" }));
    await page.waitForURL(/\/courses\/./);
    const lessons = page.getByRole("list", { name: "Lessons" });
    for (const name of ["Bell lamp for the workshop", "Whose turn is it", "Puppet with two arms"]) {
      await me.choose(page.getByLabel("A lesson from a pattern"), name);
      await lessons.getByText(name).waitFor();
    }
    await page.getByLabel("Benches").fill("10");
    await page.getByLabel("Benches").press("Enter");
    await page
      .getByRole("table", { name: "The kit" })
      .getByRole("row", { name: /^Potentiometer/ })
      .getByText("20")
      .waitFor();
    expect(await axeViolations(page)).toEqual([]);
    const zip = unzipSync(fs.readFileSync(await download(page, () => page.getByTestId("download-course").click())));
    expect(Object.keys(zip).sort()).toEqual(["course.json", "course.pdf", "orders.csv", "parts.csv", "returns.csv"]);
    const parts = new TextDecoder().decode(zip["parts.csv"]);
    expect(parts).toMatch(/discrete\/potentiometer,Potentiometer,[^\n]*,2,Puppet with two arms,20,4,0,24,3/);
    // To the first lesson of it.
    await me.press(lessons.getByRole("link", { name: "Bell lamp for the workshop" }));
    await page.waitForURL(/\/handout$/);
    const lesson = page.getByRole("region", { name: "Lesson" });
    await me.press(lesson.getByRole("radio", { name: /^7 to 11/ }));
    await me.press(lesson.getByRole("checkbox", { name: /^debouncing/ }));
    await lesson.getByLabel("Minutes a meeting").fill("45");
    await lesson.getByLabel("Minutes a meeting").press("Enter");
    await lesson.getByText("dangers named").waitFor();
    await saved(page);
    const pack = unzipSync(fs.readFileSync(await download(page, () => page.getByTestId("download-lesson").click())));
    expect(Object.keys(pack).sort()).toEqual([
      "faults.csv",
      "kit-labels.pdf",
      "kit.csv",
      "learner-sheets.pdf",
      "lesson.json",
      "on-paper.pdf",
      "project.lattice.json",
      "slides.pdf",
      "teacher.pdf",
    ]);
    expect(me.seconds).toBeLessThan(600);
    // What stands in the prints, read by other code.
    const text = (name: string) => {
      const file = path.join(path.dirname(fs.mkdtempSync("/tmp/lattice-pdf-")), `lattice-${Date.now()}-${name}`);
      fs.writeFileSync(file, pack[name]!);
      const out = execFileSync("pdftotext", ["-layout", file, "-"], { encoding: "utf8" });
      fs.rmSync(file);
      return out;
    };
    expect(text("learner-sheets.pdf")).toMatch(/Shown to: _+/);
    expect(text("teacher.pdf")).toMatch(/18, and it should say 3/);
    expect(text("teacher.pdf")).toContain("The rules of your school");
    expect(text("slides.pdf").split("\f").length).toBeGreaterThan(15);
    // Printed; then a wire is moved, and what has to be printed again is told.
    await lesson.getByRole("button", { name: /^It is printed/ }).click();
    await lesson.getByText(/still holds/).waitFor();
    await lesson.getByRole("radio", { name: /^14 and up/ }).click();
    await lesson.getByText(/learner sheets and slides/).waitFor();
    await saved(page);
    expect(await axeViolations(page)).toEqual([]);
    await context.close();
  }, 180_000);

  it("both sides of a house rule; what it would change here; and a class that has settled it", async () => {
    const { page, context } = await app.session();
    await openProject(page, "Whose turn", "brief");
    await page.getByRole("button", { name: /both sides.*How is a button read/ }).click();
    const side = page.getByRole("img", { name: /^Picture: 10 kΩ to ground/ });
    await side.waitFor();
    await page
      .getByText(/\+1 part/)
      .first()
      .waitFor();
    expect(await axeViolations(page)).toEqual([]);
    const settled = page.getByRole("region", { name: "Settled rules" });
    await settled.getByLabel("Settle these rules for a class").fill("Class 7b");
    await settled.getByRole("button", { name: "In this project" }).click();
    await page.getByText("(settled by Class 7b)").first().waitFor();
    expect(await page.getByRole("radio", { name: /10 kΩ to ground/ }).count()).toBe(0);
    await settled.getByRole("button", { name: "Let them be changed" }).click();
    await page.getByRole("radio", { name: /10 kΩ to ground/ }).waitFor();
    await settled.getByRole("button", { name: "In all new projects" }).click();
    await settled.getByText("begin with the rules of Class 7b").waitFor();
    await page.goto("/");
    await page.getByPlaceholder("Railway crossing").fill("New in class");
    await page.getByRole("button", { name: "Start a project" }).click();
    await page.waitForURL(/\/p\//);
    await page.getByRole("navigation", { name: "Stations" }).getByRole("link", { name: "Brief" }).click();
    await page.getByText("(settled by Class 7b)").first().waitFor();
    await page.getByRole("region", { name: "Settled rules" }).getByRole("button", { name: "no longer" }).click();
    await page.getByText("choose for themselves again").waitFor();
    await context.close();
  }, 120_000);
});

describe("a plan that is passed on", () => {
  it("as text and as a picture of its code; and comes back with remarks at its places", async () => {
    const { page, context } = await app.session();
    await openProject(page, "Rain-barrel gauge", "handout");
    await page.getByRole("button", { name: "On the screen" }).click();
    const text = await page.getByLabel("The plan as text").inputValue();
    const code = page.getByRole("img", { name: "The plan as a code of squares" });
    const shot = `/tmp/lattice-code-${process.pid}.png`;
    // A phone has more points than this page.
    await page.evaluate(() =>
      document
        .querySelector<SVGElement>('[aria-label="The plan as a code of squares"]')!
        .setAttribute("class", "w-[600px]"),
    );
    await code.evaluate((el) => ((el.parentElement as HTMLElement).style.width = "640px"));
    await code.screenshot({ path: shot });

    await page.goto("/");
    await page.getByRole("button", { name: "Open a plan as text" }).click();
    await page.getByLabel("A plan as text").fill(text.slice(0, -20));
    await page.getByRole("button", { name: "Open this text" }).click();
    await page
      .getByRole("alert")
      .getByText(/cut off|missing/)
      .waitFor();
    await page.getByLabel("Picture of a plan's code").setInputFiles(shot);
    await page.waitForURL(/\/p\//);
    await page.getByTestId("verdict").waitFor();
    fs.rmSync(shot);

    // Somebody looks it over.
    await page.getByRole("button", { name: "remark on this plan" }).click();
    const form = page.getByRole("form", { name: "A remark" });
    await form.getByLabel("What the remark is about").click();
    await page.getByRole("option", { name: /^wire M1\.TRIG/ }).click();
    await form.getByLabel("Remark", { exact: true }).fill("shorter, please");
    await form.getByLabel("by").fill("Bo");
    await form.getByRole("button", { name: "Put it there" }).click();
    const remarks = page.getByRole("region", { name: "Remarks" });
    await remarks.getByText("shorter, please").waitFor();
    expect(await axeViolations(page)).toEqual([]);
    await remarks.getByRole("button", { name: "done" }).click();
    await remarks.getByLabel("What was done").fill("10 cm now");
    await remarks.getByRole("button", { name: "Done" }).click();
    await page.getByRole("button", { name: /all done/ }).waitFor();
    await saved(page);
    await page.reload();
    await page.getByRole("button", { name: /all done/ }).waitFor();
    await context.close();
  }, 120_000);
});
