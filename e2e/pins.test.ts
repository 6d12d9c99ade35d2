import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Page } from "playwright-core";
import { axeViolations, makeProject, openProject, saved, startApp, verdict, type App, pick } from "./app";

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app?.stop());

const many = (part: string, letters: string, n: number, label: string) =>
  Array.from({ length: n }, (_, i) => ({ ref: `${letters}${i + 1}`, part, label: `${label} ${i + 1}` }));
const LONG = [
  { ref: "B1", part: "board/atmega328p-long", label: "Controller" },
  { ref: "S1", part: "supply/usb-port" },
];

const open = (page: Page, title: string, parts: object[], station: string) =>
  makeProject(app, page, title, { parts }, station);
const chosen = (page: Page, need: string) => page.locator(`[data-cell^="${need}|"][data-state="chosen"]`);
const pinOf = async (page: Page, need: string) => (await chosen(page, need).getAttribute("data-cell"))!.split("|")[1];

describe("when nothing fits", () => {
  it("says why, tries what would help, and does it with one press; undo brings the clash back", async () => {
    const { page, context, foreign } = await app.session();
    const signs = many("module/lcd1602-i2c", "M", 3, "Sign");
    await open(page, "Three signs", [...LONG, ...signs], "pins");
    const clash = page.getByTestId("clash");
    await clash.waitFor();
    await expect
      .poll(() => clash.innerText())
      .toContain(
        "Sign 1 (M1), Sign 2 (M2) and Sign 3 (M3) each want an I2C bus of their own (all answer to address 0x27)",
      );
    const mux = page.getByTestId("remedy-add-tca9548a-1");
    await mux.waitFor();
    await expect.poll(() => mux.innerText()).toContain("adds 1 ×");
    expect(await axeViolations(page)).toEqual([]);
    // With the keyboard alone.
    await mux.getByRole("button").focus();
    await page.keyboard.press("Enter");
    await clash.waitFor({ state: "detached" });
    await chosen(page, "M3.SDA").waitFor();
    expect(await pinOf(page, "M2.SDA")).toMatch(/^M4\.SD\d$/);
    await expect.poll(() => verdict(page)).not.toMatch(/fault|stop/);
    await page.getByRole("button", { name: /^Undo/ }).click();
    await clash.waitFor();
    expect(foreign).toEqual([]);
    await context.close();
  });
});

describe("the lattice", () => {
  it("counts wires to move against the saved plan, wires an optional pin, shows other plans", async () => {
    const { page, context } = await app.session();
    const parts = [
      ...LONG,
      { ref: "M1", part: "module/mpu6050", label: "Tilt" },
      { ref: "D1", part: "discrete/led-red", label: "Lamp" },
    ];
    await open(page, "Tilt lamp", parts, "pins");
    await page.getByRole("button", { name: "Plan open pins" }).click();
    await chosen(page, "D1.A").waitFor();
    await page.getByLabel("Name of the plan").fill("first bench");
    await page.getByRole("button", { name: "Save this plan" }).click();
    const diff = page.getByTestId("plan-diff");
    await diff.getByText("no wire moves").waitFor();
    const before = await pinOf(page, "D1.A");
    const other = before === "D9" ? "D10" : "D9";
    await page.locator(`[data-cell="D1.A|${other}"]`).click();
    await page.getByText(/1 wire moves: D1\.A/).waitFor();
    await page.getByRole("button", { name: "Move here" }).click();
    await diff.getByText("1 wire moves").waitFor();
    await expect.poll(() => diff.innerText()).toContain(`D1.A ${before} → ${other}`);
    // The interrupt line may stay free; wished for, it gets an interrupt pin.
    await page.locator('[data-cell="M1.INT|D2"]').click();
    await page.getByRole("button", { name: /Wire M1\.INT/ }).click();
    await chosen(page, "M1.INT").waitFor();
    expect(await pinOf(page, "M1.INT")).toMatch(/^D[23]$/);
    await diff.getByText("1 wire moves, 1 is new").waitFor();
    await page.getByRole("button", { name: /Leave M1\.INT free/ }).click();
    await chosen(page, "M1.INT").waitFor({ state: "detached" });
    await page.getByRole("button", { name: "Other plans…" }).click();
    await page.getByText("the cheapest", { exact: true }).waitFor();
    expect(await page.getByRole("button", { name: /^Take it: plan/ }).count()).toBe(5);
    expect(await axeViolations(page)).toEqual([]);
    await page.getByRole("button", { name: "Take it: plan 2" }).click();
    await saved(page);
    await context.close();
  });
  it("folds to the pins that matter, and every crossing is spoken with its reason", async () => {
    const { page, context } = await app.session();
    await open(page, "One sensor", [...LONG, { ref: "M1", part: "module/bme280", label: "Air" }], "pins");
    await page.getByRole("button", { name: "Plan open pins" }).click();
    await chosen(page, "M1.SDA").waitFor();
    const columns = () => page.locator('.lattice tbody tr:first-child td[role="gridcell"]').count();
    expect(await columns()).toBe(2);
    await pick(page.getByLabel("Pins shown"), "all");
    expect(await columns()).toBe(32);
    const label = await page.locator('[data-cell="M1.SDA|D2"]').getAttribute("aria-label");
    expect(label).toBe("Air SDA, pin D2: cannot. D2 is no I2C SDA pin on this board");
    await chosen(page, "M1.SDA").focus();
    await page.keyboard.press("Home");
    await page.keyboard.press("ArrowDown");
    await expect.poll(() => page.getByTestId("crossing").innerText()).toContain("NC");
    await context.close();
  });
});

describe("two boards", () => {
  it("a part is hung on the other board and planned there", async () => {
    const { page, context } = await app.session();
    const two = [
      ...LONG,
      { ref: "B2", part: "board/rp2040-forty", label: "Second" },
      { ref: "M1", part: "module/bme280", label: "Air" },
    ];
    await open(page, "Two boards", two, "parts");
    await page.getByRole("button", { name: "Details of Air" }).click();
    await pick(page.getByTestId("part-M1").getByLabel("Hangs on"), "B2");
    await saved(page);
    await page.getByRole("navigation", { name: "Stations" }).getByRole("link", { name: "Pins" }).click();
    await page.getByRole("heading", { name: /^B2: RP2040/ }).waitFor();
    await chosen(page, "M1.SDA").waitFor();
    expect(await pinOf(page, "M1.SDA")).toBe("GP4");
    await context.close();
  });
});

describe("the board station", () => {
  it("narrows by what must be there, compares two, and keeps the project when one is taken", async () => {
    const { page, context } = await app.session();
    await openProject(page, "Rain-barrel gauge", "board");
    await page.getByTestId("trial-board/atmega328p-long").waitFor();
    const rows = page.locator('[data-testid^="trial-"]');
    await expect.poll(() => rows.count()).toBe(34);
    // One line each, sorted by a press, opened for the rest.
    const board = (n: number) => rows.nth(n).getAttribute("data-testid");
    const before = await board(0);
    const head = page.getByRole("table", { name: "Boards" }).getByRole("button", { name: "Pins left" });
    await head.click();
    await expect.poll(() => board(0)).not.toBe(before);
    await head.click();
    await head.click();
    await expect.poll(() => board(0)).toBe(before);
    await page.getByRole("button", { name: "More about RP2040, forty-pin board, 3.3 V" }).click();
    await page.getByText(/264 kB memory/).waitFor();
    await page.getByLabel(/native USB/).check();
    await page.getByLabel(/3\.3 V logic/).check();
    await page.getByTestId("trial-board/atmega328p-long").waitFor({ state: "detached" });
    await page.getByLabel("Compare RP2040, forty-pin board, 3.3 V").check();
    await page.getByLabel("Compare STM32F411, forty-pin board, 3.3 V").check();
    await page.getByRole("button", { name: "Compare two" }).click();
    const sheet = page.getByRole("dialog");
    await sheet.getByText("Working memory").waitFor();
    await expect.poll(() => sheet.innerText()).toMatch(/264 kB\s+128 kB/);
    expect(await axeViolations(page)).toEqual([]);
    await sheet.getByRole("button", { name: /Use this board: RP2040/ }).click();
    await page.getByTestId("trial-board/rp2040-forty").getByText("in use").waitFor();
    await saved(page);
    await context.close();
  });
  it("twelve buttons on seven pins: sums, ghost keys, one press, and one address table everywhere", async () => {
    const { page, context } = await app.session();
    await open(page, "Signal box", [...LONG, ...many("discrete/button", "SW", 12, "Point")], "board");
    await page.getByRole("tab", { name: "Saving pins" }).click();
    await expect.poll(() => page.getByTestId("way-grid").innerText()).toContain("Grid 3 × 4");
    const ghosts = page.getByRole("region", { name: "Ghost keys" });
    await ghosts.getByRole("button", { name: "ghost: key R2 C2 seems pressed" }).waitFor();
    await ghosts.getByLabel(/a diode at each key/).check();
    await ghosts.getByText(/no path leads backwards/).waitFor();
    expect(await axeViolations(page)).toEqual([]);
    await page.getByRole("button", { name: "Put it in: Grid 3 × 4", exact: true }).click();
    const table = page.getByRole("region", { name: "Addresses of Keys" });
    await table.waitFor();
    await expect.poll(() => verdict(page)).toBe("Ready to wire");
    const line = await table
      .getByRole("listitem")
      .filter({ hasText: /^Point 6/ })
      .innerText();
    expect(line.replace(/\s+/g, " ")).toMatch(/Point 6 R2 C2 \w+ and \w+/);
    await page.getByLabel("How many").fill("0");
    await page.getByRole("alert").getByText("A whole number from 1 to 256").waitFor();
    await saved(page);
    await context.close();
  });
});
