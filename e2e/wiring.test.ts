import { execFileSync } from "node:child_process";
import fs from "node:fs";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Page } from "playwright-core";
import { bigProject } from "../bench/forty";
import {
  axeViolations,
  chosen,
  chooseByKeys,
  download,
  makeProject,
  openProject,
  saved,
  startApp,
  verdict,
  type App,
  pick,
} from "./app";

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app?.stop());

const tab = (page: Page, name: string) => page.getByRole("tab", { name, exact: true }).click();
const pdfText = (file: string) => execFileSync("pdftotext", ["-layout", file, "-"], { encoding: "utf8" });
const pdfSize = (file: string) =>
  /Page size:\s+([\d.]+) x ([\d.]+)/
    .exec(execFileSync("pdfinfo", [file], { encoding: "utf8" }))!
    .slice(1)
    .map(Number);

/** The longest level run of dark pixels on a page, in pixels. */
function longestLine(file: string, dpi: number): number {
  const out = file.replace(/\.pdf$/, "");
  execFileSync("pdftoppm", ["-r", String(dpi), "-gray", "-f", "1", "-l", "1", "-singlefile", file, out]);
  const data = fs.readFileSync(`${out}.pgm`);
  const head = /^P5\s+(\d+)\s+(\d+)\s+255\s/.exec(data.subarray(0, 40).toString("latin1"))!;
  const [w, h] = [Number(head[1]), Number(head[2])];
  const at = head[0].length;
  const lines: number[] = [];
  for (let y = 0; y < h; y++) {
    let run = 0;
    for (let x = 0; x < w; x++) {
      if (data[at + y * w + x]! < 140) run++;
      else {
        lines.push(run);
        run = 0;
      }
    }
  }
  return lines.sort((a, b) => b - a).find((n) => n < w * 0.6) ?? 0;
}

describe("a bench with a phone", () => {
  it("wires the rain barrel to the last tick, one step at a time, and resumes after a reload", async () => {
    const { page } = await app.session({ width: 390, height: 780 });
    await openProject(page, "Rain-barrel gauge", "wiring");
    await page.getByRole("button", { name: "One at a time" }).click();
    const step = page.getByTestId("one-step");
    await step.waitFor();
    const total = Number(/of (\d+)/.exec(await step.getByRole("heading").innerText())![1]);
    expect(total).toBeGreaterThan(10);
    const half = Math.floor(total / 2);
    for (let n = 1; n <= half; n++) {
      await step.getByText(new RegExp(`^Step ${n} of`)).waitFor();
      await expect.poll(() => step.innerText()).toContain("Before going on:");
      await step.getByRole("button", { name: /^Done/ }).click();
    }
    expect(await page.evaluate("document.documentElement.scrollWidth - window.innerWidth")).toBeLessThanOrEqual(0);
    await step.getByText(`Step ${half + 1} of`).waitFor();
    await page.keyboard.press("Escape");
    await saved(page);
    await page.reload();
    await page.getByText(`Step ${half + 1} of ${total} is next.`).waitFor();
    await page.getByRole("button", { name: "One at a time" }).click();
    // From here with the keyboard alone: the button that goes on has the focus.
    for (let n = half + 1; n <= total; n++) {
      await step.getByText(new RegExp(`^Step ${n} of`)).waitFor();
      await step.getByRole("button", { name: /^Done/ }).focus();
      await page.keyboard.press("Enter");
    }
    await page.getByText("Every step is ticked.").waitFor();
  });
});

describe("the loom", () => {
  it("of many parts draws the words that are in view, and those that come into view", async () => {
    const { page } = await app.session();
    const made = await fetch(`${app.url}/api/projects`, {
      method: "POST",
      headers: { "content-type": "application/json", origin: app.url },
      body: JSON.stringify({ document: bigProject(40) }),
    });
    const { id } = (await made.json()) as { id: string };
    await page.goto(`/p/${id}/wiring`);
    const loom = page.getByTestId("loom");
    await loom.locator('[data-box="B1"]').waitFor();
    const words = () => loom.locator("text").count();
    await expect.poll(words).toBeGreaterThan(50);
    // Every pin can be reached all the same, in view or not.
    const pins = await loom.locator("[data-pin]").count();
    expect(pins).toBeGreaterThan(300);
    // Of the whole drawing no word could be read; nearer, those in the middle of the frame.
    await page.getByRole("button", { name: "Whole drawing" }).click();
    await expect.poll(words).toBe(0);
    expect(await loom.locator("[data-pin]").count()).toBe(pins);
    for (let k = 0; k < 10; k++) {
      await page.getByRole("button", { name: "Larger" }).click();
      await page.waitForTimeout(250);
    }
    await expect.poll(words).toBeGreaterThan(50);
    const [boxes, named] = await loom.evaluate((svg) => {
      const all = [...svg.querySelectorAll("[data-box]")];
      return [all.length, all.filter((b) => b.parentElement!.querySelector("text")).length] as const;
    });
    expect(named).toBeGreaterThan(0);
    expect(named).toBeLessThan(boxes);
  });

  it("lights the current wire, lets a part be moved, remembers it, and saves as SVG and PNG", async () => {
    const { page } = await app.session();
    await openProject(page, "Beehive scale logger", "wiring");
    const box = page.locator('[data-box="M4"]');
    await box.waitFor();
    const before = (await box.boundingBox())!;
    await box.focus();
    for (let k = 0; k < 3; k++) await page.keyboard.press("Shift+ArrowDown");
    await page.locator('[data-box="M4"][aria-label*="placed by hand"]').waitFor();
    await page.waitForFunction(
      (y: number) => document.querySelector('[data-box="M4"]')!.getBoundingClientRect().y > y + 20,
      before.y,
    );
    await saved(page);
    await page.reload();
    await page.locator('[data-box="M4"][aria-label*="placed by hand"]').waitFor();
    await page.getByRole("button", { name: "Lay out all again" }).click();
    await page.locator('[data-box="M4"]:not([aria-label*="placed by hand"])').waitFor();

    await page.getByTestId("run-row").filter({ hasText: "SDA" }).first().getByRole("button").click();
    await expect.poll(() => page.getByTestId("run-why").innerText()).toContain("read both printed names again");
    const widths = await page
      .locator('[data-net="SDA"] path, [data-net="SCL"] path')
      .evaluateAll((all) => all.map((p) => Number(p.getAttribute("stroke-width"))));
    expect(new Set(widths).size).toBeGreaterThan(2);

    const svg = fs.readFileSync(
      await download(page, () => page.getByRole("button", { name: "Save SVG" }).click()),
      "utf8",
    );
    expect(svg).toContain("M4 Clock");
    await page.getByLabel("ink and patterns only").check();
    const plain = fs.readFileSync(
      await download(page, () => page.getByRole("button", { name: "Save SVG" }).click()),
      "utf8",
    );
    expect(plain).toContain("stroke-dasharray");
    const png = fs.readFileSync(await download(page, () => page.getByRole("button", { name: "Save PNG" }).click()));
    expect(png.subarray(1, 4).toString()).toBe("PNG");
    expect(png.readUInt32BE(16)).toBeGreaterThan(1000);
  });
});

describe("the breadboard", () => {
  it("is proposed, taken over, changed by hand with what follows, and mended", async () => {
    const { page } = await app.session();
    await openProject(page, "Moss terrarium keeper", "wiring");
    const was = await verdict(page);
    await tab(page, "Breadboard");
    const sum = page.getByTestId("board-sum");
    await sum.waitFor();
    const best = await sum.innerText();
    expect(best).toMatch(/\d+ jumpers, [\d.]+ cm of wire/);
    await page.getByRole("button", { name: "Build it like this" }).click();
    await page.getByText("The run sheet follows this placement").waitFor();
    await expect.poll(() => verdict(page)).toBe(was);
    await tab(page, "Run sheet");
    await page
      .getByTestId("run-row")
      .filter({ hasText: /hole [a-j]\d+, in the row of/ })
      .first()
      .waitFor();

    await tab(page, "Breadboard");
    // Up into the rows of the board: its pins and the sensor's would be joined.
    const sensor = page.locator('[data-part="M2"]');
    await sensor.focus();
    for (let k = 0; k < 5; k++) await page.keyboard.press("Shift+ArrowUp");
    await page.getByTestId("board-trouble").getByText("the row joins them").first().waitFor();
    await page.waitForFunction(() => /stop/.test(document.querySelector('[data-testid="verdict"]')?.textContent ?? ""));
    await page.getByRole("button", { name: "Find the shortest again" }).click();
    await page.getByTestId("board-trouble").waitFor({ state: "detached" });
    await expect.poll(() => verdict(page)).toBe(was);
    // The search begins from what is held, so it may find a slightly shorter one; never a longer one.
    const numbers = (text: string) => /(\d+) jumpers, ([\d.]+) cm/.exec(text)!.slice(1).map(Number);
    const [again, first] = [numbers(await sum.innerText()), numbers(best)];
    expect(again[0]).toBeLessThanOrEqual(first[0]!);
    expect(again[1]).toBeLessThanOrEqual(first[1]!);

    // The mouse takes hold of it as well; on a larger board there is room below.
    await pick(page.getByLabel("Breadboard 1"), "830");
    await expect.poll(() => chosen(page.getByLabel("Breadboard 1"))).toBe("830");
    await page.getByRole("button", { name: "Find the shortest again" }).waitFor();
    const stood = await page.locator('[data-part="M2"]').getAttribute("aria-label");
    const at = (await page.locator('[data-part="M2"]').boundingBox())!;
    await page.mouse.move(at.x + at.width / 2, at.y + at.height / 2);
    await page.mouse.down();
    await page.mouse.move(at.x + at.width / 2, at.y + at.height / 2 + 60, { steps: 6 });
    await page.mouse.up();
    await expect.poll(() => page.locator('[data-part="M2"]').getAttribute("aria-label")).not.toBe(stood);

    await pick(page.getByLabel("Breadboard 1"), "170");
    await page.getByTestId("board-trouble").getByText("has no place on the breadboard yet").first().waitFor();
    await page.getByRole("button", { name: "One more" }).click();
    await page.getByTestId("board-trouble").waitFor({ state: "detached" });
    await page.getByRole("button", { name: "Without a breadboard" }).click();
    await page.getByRole("button", { name: "Build it like this" }).waitFor();
  });
});

describe("a breadboard build", () => {
  it("has holes as soon as it is planned, and keeps them as parts come and the board changes", async () => {
    const { page } = await app.session();
    const parts = [
      { ref: "B1", part: "board/rp2040-forty" },
      { ref: "S1", part: "supply/usb-port" },
      { ref: "M1", part: "module/bme280", label: "Air" },
    ];
    await makeProject(app, page, "Window box", { parts, links: [] }, "pins");
    const station = (s: string) => page.goto(page.url().replace(/(\/p\/[^/]+)\/.*/, `$1/${s}`));
    await page.getByRole("button", { name: "Plan open pins" }).click();
    await expect.poll(() => verdict(page)).toBe("Ready to wire");
    await saved(page);
    await station("wiring");
    const holes = page.getByTestId("run-row").filter({ hasText: /hole [a-j]\d+, in the row of/ });
    await holes.first().waitFor();
    await station("parts");
    await page.getByRole("textbox", { name: /Find by/ }).fill("red led");
    await page.keyboard.press("Enter");
    await page.getByTestId("part-LED1").waitFor();
    await saved(page);
    await station("board");
    await page.getByRole("button", { name: /Use this board: STM32F411, forty-pin/ }).click();
    await page.getByTestId("trial-board/stm32f411-forty").getByText("in use").waitFor();
    await saved(page);
    await station("wiring");
    await tab(page, "Breadboard");
    await page.getByText("The run sheet follows this placement").waitFor();
    for (const ref of ["B1", "M1", "LED1"]) await page.locator(`[data-part="${ref}"]`).waitFor();
    expect(await page.getByTestId("board-trouble").count()).toBe(0);
  });
});

describe("a board to solder", () => {
  it("is laid out hole by hole, with strips and without, and says that it was followed over the copper", async () => {
    const { page } = await app.session();
    await openProject(page, "Moss terrarium keeper", "wiring");
    await tab(page, "Solder build");
    await page.getByTestId("carrier-proven").waitFor();
    const board = page.getByRole("region", { name: "Board to solder, hole by hole" });
    expect(await board.innerText()).toMatch(/\d+ cuts with a 3 mm drill/);
    expect(await board.getByRole("img").getAttribute("aria-label")).toMatch(/24 by \d+ holes/);
    await board.getByRole("tab", { name: "Stripboard" }).focus();
    await page.keyboard.press("ArrowRight");
    await board.getByText("Join on the back with bare wire").waitFor();
    expect(await board.innerText()).not.toContain("Cut the strips first");
  });
  it("or is made to plug onto the header: both sides, its steps, a print", async () => {
    const { page } = await app.session();
    await openProject(page, "Beehive scale logger", "wiring");
    await tab(page, "Solder build");
    await tab(page, "Plug-on board");
    await page.getByTestId("plug-proven").waitFor();
    const board = page.getByRole("region", { name: "Board to solder, hole by hole" });
    await board.getByRole("img", { name: /Plug-on board for .*side with the parts/ }).waitFor();
    await tab(page, "Back, turned over");
    await board.getByRole("img", { name: /the back/ }).waitFor();
    const steps = await board.getByRole("list", { name: "How the board is made" }).innerText();
    expect(steps).toContain("socket strip of 20 pins");
    expect(steps).toMatch(/\d+\/\d+ – \d+\/\d+: GND/);
    expect(steps).toContain("no beep");
    const file = await download(page, () => page.getByRole("link", { name: /Both sides 1:1/ }).click());
    expect(pdfText(file)).toContain("column 1 is on the right");
    expect(await axeViolations(page)).toEqual([]);
  });
});

describe("drawings at first sight", () => {
  it.each(["Beehive scale logger", "Moss terrarium keeper", "Rain-barrel gauge"])(
    "of %s can be read without zooming",
    async (title) => {
      const { page } = await app.session();
      await openProject(page, title, "wiring");
      /** Pixels of the smallest type that is in view. */
      const smallest = () =>
        page.evaluate(() =>
          Math.min(
            ...[...document.querySelectorAll<SVGTextElement>("svg text")].flatMap((t) => {
              const at = t.getBoundingClientRect();
              const m = t.getScreenCTM()!;
              const seen = at.width > 0 && at.bottom > 0 && at.top < innerHeight;
              return seen ? [parseFloat(getComputedStyle(t).fontSize) * Math.hypot(m.a, m.b)] : [];
            }),
          ),
        );
      await page.getByTestId("loom").waitFor();
      await expect.poll(smallest, { timeout: 8000 }).toBeGreaterThan(9.95);
      await tab(page, "Breadboard");
      await page.getByTestId("board-sum").waitFor();
      await expect.poll(smallest, { timeout: 8000 }).toBeGreaterThan(8.95);
    },
  );
});

describe("the box", () => {
  it("takes what goes through its front, says what is too deep, and prints a template", async () => {
    const { page } = await app.session();
    await openProject(page, "Rain-barrel gauge", "wiring");
    await tab(page, "Solder build");
    await page.getByRole("button", { name: "It goes into a box" }).click();
    await page.getByTestId("panel-fits").waitFor();
    await page.getByLabel("deep inside").fill("20");
    await page.getByLabel("deep inside").press("Enter");
    await page.getByTestId("panel-trouble").getByText("the box has 20 mm inside").first().waitFor();
    await page.getByLabel("wide").fill("five");
    await page.getByLabel("wide").press("Enter");
    await page.getByText("20 to 1000 mm").first().waitFor();
    await page.getByLabel("wide").fill("150");
    await page.getByLabel("wide").press("Enter");
    await page.getByText("150 mm (5.906 in)").waitFor();
    // Another wall, rounded corners, and a lead for the plug: by keyboard.
    await page.getByLabel("corner radius").fill("6");
    await page.getByLabel("corner radius").press("Enter");
    await page.getByRole("checkbox", { name: "USB lead to a wall" }).focus();
    await page.keyboard.press("Space");
    await page.getByRole("img", { name: "right with 1 part" }).waitFor();
    await chooseByKeys(page, "Wall of USB lead", "ArrowUp");
    await page.getByRole("img", { name: "left with 1 part" }).waitFor();
    const template = await download(page, () => page.getByRole("link", { name: /Drill template/ }).click());
    expect(pdfText(template)).toContain("Measure the bar");
    expect(pdfText(template)).toContain("16.5 mm (0.650 in)");
  });
});

describe("lists", () => {
  it("follow the teacher's spares and the number of benches", async () => {
    const { page } = await app.session();
    await openProject(page, "Beehive scale logger", "wiring");
    await tab(page, "Lists");
    const clock = page.getByTestId("list-module/ds3231");
    expect((await clock.innerText()).split(/\s+/).slice(0, 2)).toEqual(["1", "1"]);
    await page.getByLabel("Benches").fill("12");
    await page.getByLabel("modules and chips").fill("25");
    // Twelve benches and a quarter more.
    await page.waitForFunction(() =>
      /^1\s+12\s+3\s+15/.test(
        document.querySelector<HTMLElement>('[data-testid="list-module/ds3231"]')?.innerText.trim() ?? "",
      ),
    );
    await expect
      .poll(() => page.getByTestId("wire-sums").innerText())
      .toMatch(/\d+ jumper wire socket-socket, [\d.]+ m in all/);
    const csv = fs.readFileSync(
      await download(page, () => page.getByRole("button", { name: "Save as CSV" }).click()),
      "utf8",
    );
    expect(csv.split("\r\n")[0]).toBe("what,value,per_bench,benches,together,spares,buy,instead,plan");
    expect(csv).toMatch(/DS3231",,1,12,12,3,15/);
  });
});

describe("prints", () => {
  it("are complete, on the paper asked for, and true to scale", async () => {
    const { page } = await app.session();
    await openProject(page, "Rain-barrel gauge", "wiring");
    await tab(page, "Prints and tags");
    const get = (what: string) => download(page, () => page.getByTestId(`print-${what}`).click());
    const plan = await get("plan");
    expect(pdfSize(plan).map(Math.round)).toEqual([595, 842]);
    const text = pdfText(plan);
    for (const words of [
      "Rain-barrel gauge",
      "Take care",
      "Unplug every supply and every USB cable",
      "Checks before power",
      "Pins of",
      "Parts to lay out",
      "Wires to lay out",
      "Tools and consumables",
      "Uploading to",
    ])
      expect(text, words).toContain(words);
    expect(text).not.toContain("Questions");
    await page.getByLabel("Letter").check();
    const learner = await get("learner");
    expect(pdfSize(learner)).toEqual([612, 792]);
    expect(pdfText(learner)).toContain("What each part does");
    expect(pdfText(learner)).toContain("Questions");
    expect(pdfText(learner)).not.toContain("Computed from this plan.");
    expect(pdfText(await get("answers"))).toContain("Computed from this plan.");
    expect(pdfText(await get("labels"))).toContain("GND");
    // 254 dots an inch are ten a millimetre: the bar of 50 mm is 500 dots long.
    const underlay = await get("underlay");
    expect(Math.abs(longestLine(underlay, 254) - 500)).toBeLessThanOrEqual(4);
  });
  it("an unknown print is refused in words", async () => {
    const list = (await (await fetch(`${app.url}/api/projects`)).json()) as { id: string }[];
    const r = await fetch(`${app.url}/api/projects/${list[0]!.id}/print?what=poster`);
    expect(r.status).toBe(409);
    expect(((await r.json()) as { message: string }).message).toContain("there are plan, learner");
    expect((await fetch(`${app.url}/api/projects/nothing/print`)).status).toBe(404);
  });
});

describe("rewire", () => {
  it("one pin is changed, and one wire comes off and one goes on", async () => {
    const { page } = await app.session();
    // A version is offered once somebody has wired after it: one tick is enough.
    await openProject(page, "Beehive scale logger", "wiring");
    await page.getByTestId("run-row").first().getByRole("checkbox").check();
    await saved(page);
    await page.goto(page.url().replace(/wiring$/, "pins"));
    await page.locator('[data-cell^="SW1.1|"][data-state="chosen"]').waitFor();
    await page.locator(`[data-cell="SW1.1|GP14"]`).click();
    await page.keyboard.press("Enter");
    await page
      .locator('[data-cell="SW1.1|GP14"][data-state="chosen"], [data-cell="SW1.1|GP14"][data-state="locked"]')
      .waitFor();
    await saved(page);
    await page.goto(page.url().replace(/pins$/, "wiring"));
    await tab(page, "Rewire");
    await page.getByLabel("Version to compare with").click();
    const wired = page.getByRole("option", { name: /, wired, after/ });
    const version = (await wired.getAttribute("data-value"))!;
    await wired.click();
    await page.getByTestId("rewire-sum").waitFor();
    await expect.poll(() => page.getByTestId("rewire-sum").innerText()).toMatch(/1 come off, 1 are laid/);
    const off = page.getByRole("region", { name: "Take off" });
    const on = page.getByRole("region", { name: "Lay" });
    await expect.poll(() => off.innerText()).toContain("SW1.1");
    await expect.poll(() => on.innerText()).toContain("B1.GP14");
    await on.getByRole("checkbox").check();
    // Two saved versions against each other: here one against itself.
    await pick(page.getByLabel("Version to go to"), version);
    await page.getByText(/0 come off, 0 are laid/).waitFor();
  });
});

describe("access", () => {
  it("axe finds nothing in the views of the station, light and dark", async () => {
    const { page } = await app.session();
    const bothTones = async (what: string) => {
      for (const colorScheme of ["light", "dark"] as const) {
        await page.emulateMedia({ colorScheme, reducedMotion: "reduce" });
        expect(await axeViolations(page), `${what}, ${colorScheme}`).toEqual([]);
      }
    };
    await openProject(page, "Beehive scale logger", "wiring");
    await page.getByTestId("loom").waitFor();
    for (const name of ["Run sheet", "Breadboard", "Solder build", "Lists", "Prints and tags", "Rewire"]) {
      await tab(page, name);
      if (name === "Breadboard") await page.getByTestId("board-sum").waitFor();
      if (name === "Solder build") {
        await page.getByTestId("solder-sum").waitFor();
        await expect
          .poll(() => page.getByTestId("solder-sum").innerText())
          .toMatch(/Perfboard of at least \d+ × \d+ holes/);
        await page.getByTestId("carrier-proven").waitFor();
      }
      await bothTones(name);
    }
    await tab(page, "Run sheet");
    await page.getByRole("button", { name: "One at a time" }).click();
    await page.getByTestId("one-step").waitFor();
    await bothTones("one step");
  });
});
