import { execFileSync } from "node:child_process";
import fs from "node:fs";
import os from "node:os";
import path from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Page } from "playwright-core";
import {
  axeViolations,
  download,
  makeProject,
  openFromHome,
  openProject,
  pick,
  saved,
  startApp,
  verdict,
  type App,
  addPart,
} from "./app";

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app?.stop());

const zipList = (file: string) => execFileSync("unzip", ["-Z1", file], { encoding: "utf8" }).trim().split("\n");
const zipText = (file: string, name: string) => execFileSync("unzip", ["-p", file, name], { encoding: "utf8" });
const station = (page: Page, name: string) =>
  page.getByRole("navigation", { name: "Stations" }).getByRole("link", { name });

describe("the walk in the README", () => {
  it("moss terrarium: read the finding, look at the ladder, apply the fix, add a lamp, tick a wire, download", async () => {
    const { page, foreign } = await app.session();
    await openFromHome(page, "Moss terrarium keeper");
    await expect.poll(() => verdict(page)).toBe("Will not work yet: 1 fault");

    await station(page, "Power and levels").click();
    await page.getByRole("img", { name: /^Flow at peak/ }).waitFor();
    await page.getByRole("tab", { name: /^Levels/ }).click();
    await page.getByRole("img", { name: /B1.GP0 to M3.DIN: high 3.10 V against 3.67 V/ }).waitFor();
    await expect.poll(() => page.getByTestId("finding-level.low-high").innerText()).toContain("3.67 V");
    await page.getByRole("button", { name: "What changes" }).click();
    await page.getByText("Ready to wire").first().waitFor();
    await page.getByTestId("finding-level.low-high").getByRole("button", { name: "Apply" }).click();
    await page.waitForFunction(
      () => document.querySelector('[data-testid="verdict"]')?.textContent === "Ready to wire",
    );

    await station(page, "Parts").click();
    await page.getByRole("textbox", { name: /Find by/ }).fill("red led");
    await page.getByTestId("add-discrete/led-red").click();
    await page.getByTestId("part-LED1").waitFor();
    await expect.poll(() => page.getByTestId("part-LED1").innerText()).toContain("220 Ω");
    await expect.poll(() => verdict(page)).toBe("Ready to wire");

    await station(page, "Pins").click();
    await page.locator('[data-cell^="LED1.A|"][data-state="chosen"]').waitFor();

    await station(page, "Wiring").click();
    await page.getByLabel("Step 1 done").check();
    await saved(page);

    await station(page, "Firmware").click();
    const zip = await download(page, () => page.getByTestId("download-firmware").click());
    expect(zipList(zip).sort()).toEqual([
      "UPLOAD.md",
      "bringup.py",
      "lib/font.py",
      "lib/part.py",
      "lib/strip.py",
      "lib/text.py",
      "main.py",
      "pins.py",
    ]);
    expect(zipText(zip, "pins.py")).toMatch(/PIN_TANK_LIGHT = 0 /);
    expect(foreign).toEqual([]);
  });
});

describe("a new project from empty to the ZIP", () => {
  it("by mouse", async () => {
    const { page } = await app.session();
    await page.goto("/");
    await page.getByPlaceholder("Railway crossing").fill("Crossing lamp");
    await page.getByRole("button", { name: "Start a project" }).click();
    await page.waitForURL(/\/p\/.*\/parts/);
    await page.getByText("Nothing planned yet").waitFor();
    for (const id of [
      "board/atmega328p-long",
      "supply/usb-port",
      "discrete/led-red",
      "discrete/button",
      "module/hc-sr04",
    ]) {
      await addPart(page, id);
      await page.waitForTimeout(50);
    }
    await page.getByTestId("part-M1").waitFor();
    await page.waitForFunction(
      () => document.querySelector('[data-testid="verdict"]')?.textContent === "Ready to wire",
    );

    // Move the lamp: grab its dot, let go on another pin.
    await station(page, "Pins").click();
    const from = page.locator('[data-cell^="LED1.A|"][data-state="chosen"]');
    const to = page.locator('[data-cell="LED1.A|D9"]');
    await from.hover();
    await page.mouse.down();
    await to.hover();
    await page.mouse.up();
    await page.locator('[data-cell="LED1.A|D9"][data-state="chosen"]').waitFor();
    await page.getByRole("button", { name: "Lock LED1.A" }).click();
    await page.locator('[data-cell="LED1.A|D9"][data-state="locked"]').waitFor();
    await page.getByRole("button", { name: "Undo" }).click();
    await page.locator('[data-cell="LED1.A|D9"][data-state="chosen"]').waitFor();
    await page.getByRole("button", { name: "Redo" }).click();
    await page.locator('[data-cell="LED1.A|D9"][data-state="locked"]').waitFor();
    await saved(page);

    await station(page, "Hand-out").click();
    const zip = await download(page, () => page.getByTestId("download-plan").click());
    expect(zipList(zip)).toEqual(
      expect.arrayContaining(["plan.pdf", "plan.svg", "wires.csv", "firmware/sketch/starter/starter.ino"]),
    );
    expect(zipText(zip, "firmware/sketch/starter/pins.h")).toMatch(/constexpr uint8_t PIN_LED1 = 9;/);
    expect(zipText(zip, "wires.csv")).toMatch(/LED1\.A|RLED1/);
    const folder = fs.mkdtempSync(path.join(os.tmpdir(), "lattice-pdf-"));
    execFileSync("unzip", ["-q", zip, "plan.pdf", "-d", folder]);
    const text = execFileSync("pdftotext", [path.join(folder, "plan.pdf"), "-"], { encoding: "utf8" });
    expect(text).toContain("Crossing lamp");
    expect(text).toContain("Ready to wire");
  });

  it("by keyboard alone", async () => {
    const { page } = await app.session();
    await page.goto("/");
    const key = page.keyboard;
    const tabTo = async (test: () => Promise<boolean>) => {
      for (let i = 0; i < 80; i++) {
        if (await test()) return;
        await key.press("Tab");
      }
      throw new Error("the focus never got there");
    };
    const focused = (selector: string) => () =>
      page.evaluate((s) => document.activeElement?.matches(s) ?? false, selector);
    await tabTo(focused('input[placeholder^="Railway"]'));
    await key.type("Keyboard lamp");
    await key.press("Enter");
    await page.waitForURL(/\/p\/.*\/parts/);
    await page.getByText("Nothing planned yet").waitFor();
    await tabTo(focused('input[aria-controls="catalogue"]'));
    for (const [word, hit] of [
      ["rp2040 forty", "board/rp2040-forty"],
      ["usb port", "supply/usb-port"],
      ["red led", "discrete/led-red"],
    ] as const) {
      await key.press("Control+a");
      await key.type(word);
      await page.locator(`#catalogue li:first-child[data-part="${hit}"]`).waitFor();
      await key.press("Enter");
      await page.getByText(new RegExp(`added`)).last().waitFor();
      await page.waitForTimeout(150);
    }
    await page.waitForFunction(
      () => document.querySelector('[data-testid="verdict"]')?.textContent === "Ready to wire",
    );

    await key.press("Control+k");
    await page.getByPlaceholder(/station, part/).waitFor();
    await key.type("pins");
    await page.getByRole("option", { name: "Pins", exact: true, selected: true }).waitFor();
    await key.press("Enter");
    await page.waitForURL(/\/pins$/);
    await page.getByRole("grid").waitFor();
    await tabTo(focused('[role="gridcell"]'));
    await key.press("ArrowRight");
    await key.press("ArrowRight");
    await page.getByText(/1 wire moves: LED1.A/).waitFor();
    await key.press("Enter");
    await page.locator('[data-cell="LED1.A|GP2"][data-state="chosen"]').waitFor();
    await key.press("l");
    await page.locator('[data-cell="LED1.A|GP2"][data-state="locked"]').waitFor();
    await key.press("Control+z");
    await page.locator('[data-cell="LED1.A|GP2"][data-state="chosen"]').waitFor();

    await key.press("Control+k");
    await page.getByPlaceholder(/station, part/).waitFor();
    await key.type("firmware");
    await page.getByRole("option", { name: "Firmware", exact: true, selected: true }).waitFor();
    await key.press("Enter");
    await page.waitForURL(/\/firmware$/);
    await saved(page);
    await tabTo(focused('[data-testid="download-firmware"]'));
    const zip = await download(page, () => key.press("Enter"));
    expect(zipText(zip, "pins.py")).toMatch(/PIN_LED1 = 2 /);
  });
});

describe("nothing is lost", () => {
  it("a reload keeps parts, plan, ticks and readings", async () => {
    const { page } = await app.session();
    await openProject(page, "Rain-barrel gauge", "wiring");
    await page.getByLabel("Step 2 done").check();
    await station(page, "Bench").click();
    await page.getByRole("tab", { name: /First power/ }).click();
    const reading = page.getByLabel("Reading for 5V reads at M2");
    await page.getByRole("button", { name: /^5V reads at M2/ }).click();
    await reading.fill("4,98 V");
    await reading.press("Enter");
    await page.getByText("5V reads at M2: as it should be").waitFor();
    await page.getByRole("button", { name: /^SDA idles high/ }).click();
    const low = page.getByLabel("Reading for SDA idles high");
    await low.fill("2.1");
    await low.press("Enter");
    await page.getByText(/off; it should show: /).waitFor();
    await expect.poll(() => page.getByTestId("verdict").innerText()).toBe("Not right on the bench: 1 reading off");
    await expect.poll(() => station(page, "Bench").innerText()).toContain("1 off");
    // No wait for the save: leaving the page must not lose the last edit.
    await page.reload();
    const list = page.getByRole("list", { name: "Checks of this stage" });
    await list.getByText("4,98 V").waitFor();
    await list.getByText("2.1: off").waitFor();
    expect(await page.getByTestId("verdict").innerText()).toBe("Not right on the bench: 1 reading off");
    // Measured again, and right this time.
    await page.getByRole("button", { name: /^SDA idles high/ }).click();
    await page.getByLabel("Reading for SDA idles high").fill("4.95");
    await page.getByLabel("Reading for SDA idles high").press("Enter");
    await expect.poll(() => page.getByTestId("verdict").innerText()).toBe("Ready to wire");
    await station(page, "Wiring").click();
    expect(await page.getByLabel("Step 2 done").isChecked()).toBe(true);
  });

  it("deleting a project can be taken back", async () => {
    const { page } = await app.session();
    await page.goto("/");
    await page.getByPlaceholder("Railway crossing").fill("Short life");
    await page.getByRole("button", { name: "Start a project" }).click();
    await page.waitForURL(/\/p\//);
    await page.goto("/");
    await page.getByRole("button", { name: "Delete Short life" }).click();
    await page.getByRole("button", { name: "Bring it back" }).click();
    await page.getByRole("link", { name: "Short life" }).waitFor();
  });

  it("the list tells how each project stands, sorts, and copies one without what was done on its bench", async () => {
    const { page } = await app.session();
    await page.goto("/");
    const table = page.getByRole("table", { name: "Projects" });
    const row = (title: string) =>
      table.getByRole("row").filter({ has: page.getByRole("link", { name: title, exact: true }) });
    await row("Rain-barrel gauge").getByText("Ready to wire").waitFor();
    await row("Moss terrarium keeper")
      .getByText(/Ready to wire|Can be wired|Will not work|Do not power/)
      .waitFor();
    const titles = () =>
      table.locator("tbody tr").evaluateAll((rows) => rows.map((r) => r.querySelector("a")!.textContent));
    const sort = table.getByRole("button", { name: "Project", exact: true });
    await sort.press("Enter");
    await expect.poll(titles).toEqual([...(await titles())].sort());
    expect(await table.getByRole("columnheader", { name: "Project", exact: true }).getAttribute("aria-sort")).toBe(
      "ascending",
    );
    await page.getByRole("button", { name: "Duplicate Rain-barrel gauge" }).click();
    await row("Rain-barrel gauge, copy").getByText("Ready to wire").waitFor();
    await page.getByLabel("Filter projects").fill("no such thing");
    await page.getByText("No project has that in its name.").waitFor();
    await page.getByLabel("Filter projects").fill("gauge, copy");
    await expect.poll(titles).toEqual(["Rain-barrel gauge, copy"]);
    await row("Rain-barrel gauge, copy").getByRole("link", { name: "Wiring" }).click();
    await page.waitForURL(/\/wiring$/);
    expect(await page.getByTestId("run-row").first().getByRole("checkbox").isChecked()).toBe(false);
    await page.goto("/");
    expect(await axeViolations(page)).toEqual([]);
    await page.getByRole("button", { name: "Delete Rain-barrel gauge, copy" }).click();
  });

  it("an empty project says what comes first, and calls nothing planned or sound", async () => {
    const { page } = await app.session();
    await makeProject(app, page, "Bare", {}, "pins");
    const rail = page.getByRole("navigation", { name: "Stations" });
    await rail.getByText("after the parts").first().waitFor();
    expect(await rail.innerText()).not.toMatch(/planned|sound/);
  });
});

describe("words of the field", () => {
  it("say what they mean by mouse, by keyboard and in the search", async () => {
    const { page } = await app.session();
    await openProject(page, "Beehive scale logger", "power");
    const word = page.locator("#ledger").getByRole("button", { name: "regulator", exact: true });
    await word.click();
    await page.getByTestId("gloss").getByText("A part that makes a steady lower voltage").waitFor();
    await page.keyboard.press("Escape");
    await page.getByTestId("gloss").waitFor({ state: "detached" });
    await word.focus();
    await page.keyboard.press("Enter");
    await page.getByTestId("gloss").waitFor();
    expect(await axeViolations(page)).toEqual([]);
    await page.keyboard.press("Escape");
    await page.keyboard.press("Control+k");
    await page.getByPlaceholder(/station, part/).fill("open collector");
    await page.keyboard.press("Enter");
    await page.getByTestId("word").getByText("an output that can only pull low", { exact: false }).waitFor();
  });
});

describe("changing one's mind", () => {
  it("another board, then back to an earlier version, then undone", async () => {
    const { page } = await app.session();
    await page.goto("/");
    await page.getByPlaceholder("Railway crossing").fill("Second thoughts");
    await page.getByRole("button", { name: "Start a project" }).click();
    await page.waitForURL(/\/p\//);
    await page.getByText("Nothing planned yet").waitFor();
    for (const id of ["board/atmega328p-long", "supply/usb-port", "module/hc-sr04"]) await addPart(page, id);
    await page.getByTestId("part-M1").waitFor();
    await saved(page);
    await station(page, "Board").click();
    await page.getByRole("button", { name: /Use this board: RP2040, forty-pin board, 3/ }).click();
    // Its echo is too high for this board: the plan brings the divider that it needs.
    await page.waitForFunction(
      () => document.querySelector('[data-testid="verdict"]')?.textContent === "Ready to wire",
    );
    await station(page, "Parts").click();
    await page
      .getByTestId("part-M1")
      .getByRole("button", { name: /^Details/ })
      .click();
    await expect
      .poll(() => page.getByTestId("part-M1").innerText())
      .toMatch(/with .*Ω .*more volts than the board's pin takes/);
    await saved(page);
    await page.getByRole("button", { name: "versions" }).click();
    await page.getByText("add M1").waitFor();
    await page
      .getByRole("listitem")
      .filter({ hasText: "add M1" })
      .getByRole("button", { name: /Go back to it/ })
      .click();
    await expect.poll(() => page.getByTestId("part-B1").innerText()).toContain("ATmega328P");
    await page.waitForFunction(
      () => document.querySelector('[data-testid="verdict"]')?.textContent === "Ready to wire",
    );
    await page.getByRole("button", { name: "Undo" }).click();
    await expect.poll(() => page.getByTestId("part-B1").innerText()).toContain("RP2040");
    await page.waitForFunction(
      () => document.querySelector('[data-testid="verdict"]')?.textContent === "Ready to wire",
    );
  });

  it("an option out of range is refused in words; a good one brings its companions along", async () => {
    const { page } = await app.session();
    await openProject(page, "Rain-barrel gauge", "parts");
    await page.getByRole("button", { name: "Details of Low lamp" }).click();
    const current = page.locator("#D1-current_mA");
    await current.fill("300");
    await current.press("Enter");
    await page.getByText("Current wanted takes 0.5 to 20 mA").waitFor();
    await current.fill("2");
    await current.press("Enter");
    await page.getByTestId("part-D1").getByText("1.5 kΩ").waitFor();
  });
});

describe("bad project files are refused with their reason", () => {
  const demo = () =>
    JSON.parse(fs.readFileSync(path.join(import.meta.dirname, "../demo/rain-barrel.lattice.json"), "utf8"));
  const cases: [string, string, RegExp][] = [
    ["no-json.lattice.json", "{ not json", /not valid JSON/],
    ["foreign.lattice.json", JSON.stringify({ hello: 1 }), /"format" must be "young-lattice-project"/],
    ["newer.lattice.json", JSON.stringify({ ...demo(), version: 9 }), /reads up to version 1/],
    [
      "unknown-key.lattice.json",
      JSON.stringify({ ...demo(), colour: 1 }),
      /colour: the key "colour" is not known here/,
    ],
    [
      "bad-pin.lattice.json",
      JSON.stringify({ ...demo(), links: [{ from: "M1.TRIG", to: "B1.D77" }] }),
      /links\/0\/to: board\/atmega328p-long has no pin "D77"/,
    ],
    ["huge.lattice.json", `"${"x".repeat(2_100_000)}"`, /larger than 2 MB/],
  ];
  it.each(cases)("%s", async (name, text, reason) => {
    const { page, context } = await app.session();
    await page.goto("/");
    const before = await page.getByRole("listitem").count();
    await page
      .getByLabel("Project file")
      .setInputFiles({ name, mimeType: "application/json", buffer: Buffer.from(text) });
    const alert = page.getByRole("alert").filter({ hasText: reason });
    await alert.waitFor();
    await page.reload();
    await page.getByRole("link", { name: "Rain-barrel gauge" }).waitFor();
    expect(await page.getByRole("listitem").count()).toBeGreaterThanOrEqual(before);
    expect(await page.getByRole("link", { name }).count()).toBe(0);
    await context.close();
  });

  it("a good file opens", async () => {
    const { page } = await app.session();
    await page.goto("/");
    const text = JSON.stringify({ ...demo(), title: "Brought in" });
    await page
      .getByLabel("Project file")
      .setInputFiles({ name: "ok.lattice.json", mimeType: "application/json", buffer: Buffer.from(text) });
    await page.waitForURL(/\/p\//);
    await page.getByText("Brought in").waitFor();
    await expect.poll(() => verdict(page)).toBe("Ready to wire");
  });
});

describe("when a list does not fit", () => {
  it("says what clashes and keeps the part", async () => {
    const { page } = await app.session();
    await openProject(page, "Rain-barrel gauge", "parts");
    await addPart(page, "module/lcd1602-i2c");
    await page
      .getByText(/both answer to address 0x27/)
      .first()
      .waitFor();
    await page.getByTestId("part-M3").waitFor();
    await expect.poll(() => verdict(page)).toMatch(/Not planned yet: 2 pins open/);
    await station(page, "Pins").click();
    await expect
      .poll(() => page.getByTestId("clash").innerText())
      .toMatch(/smallest set that clashes: M2\.SCL|M2\.SDA/);
    await station(page, "Parts").click();
    await page
      .getByTestId("part-M3")
      .getByRole("button", { name: /^Details/ })
      .click();
    await pick(page.locator("#M3-address"), "0x3f");
    await station(page, "Pins").click();
    await page.getByRole("button", { name: "Plan open pins" }).click();
    await page.waitForFunction(
      () => document.querySelector('[data-testid="verdict"]')?.textContent === "Ready to wire",
    );
  });
});
