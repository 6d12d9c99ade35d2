import { execFileSync } from "node:child_process";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Page } from "playwright-core";
import { axeViolations, download, makeProject, openProject, saved, startApp, verdict, type App, pick } from "./app";

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app?.stop());

const tab = (page: Page, name: string) => page.getByRole("tab", { name, exact: true }).click();
const wires = async (page: Page) => {
  await page.getByRole("tab", { name: "Wires", exact: true }).click();
  await page.getByRole("heading", { name: /^All wires/ }).waitFor();
};
const row = (page: Page, from: string, to: string) => page.getByTestId(`wire-${from}-${to}`);
const told = (page: Page) => page.getByRole("region", { name: "Join two points" }).getByTestId("told");
const zipText = (file: string, name: string) => execFileSync("unzip", ["-p", file, name], { encoding: "utf8" });

const LOOSE = {
  parts: [
    { ref: "B1", part: "board/atmega328p-long" },
    { ref: "S1", part: "supply/usb-port" },
    { ref: "S2", part: "supply/adapter-12v-2a", label: "Gauge supply" },
    { ref: "X1", part: "discrete/gauge-12v", label: "Depth gauge" },
    { ref: "SW1", part: "discrete/button", label: "Start", companions: { pullUp: "internal" } },
    { ref: "SW2", part: "discrete/toggle", label: "Main" },
    { ref: "LED1", part: "discrete/led-red", label: "Lamp", companions: { seriesResistor: { ohm: 470 } } },
  ],
  links: [
    { from: "S1.USB", to: "B1.USB" },
    { from: "X1.VCC", to: "S2.12V" },
    { from: "X1.GND", to: "S2.GND" },
    { from: "S2.GND", to: "B1.GND" },
    { from: "X1.IN", to: "B1.D9" },
  ],
};

describe("any wire, by hand", () => {
  it("by mouse: joined with the consequence told before, a stage and a switch put in, a wire cut, undone", async () => {
    const { page, context, foreign } = await app.session();
    await makeProject(app, page, "Cistern gauge", LOOSE, "wiring");
    await wires(page);

    // A wire that a stop follows from is told as such, and can still be made.
    await page.getByLabel("from", { exact: true }).fill("gauge supply 12V");
    await page.getByLabel("to", { exact: true }).fill("d8");
    await expect.poll(() => told(page).innerText()).toMatch(/stop B1\.D8.*takes 5\.\d+ V at most/);
    await expect.poll(() => told(page).innerText()).toMatch(/Do not power yet: 1 stop/);
    await page.getByRole("button", { name: "Join", exact: true }).click();
    await row(page, "S2.12V", "B1.D8").waitFor();
    await expect.poll(() => verdict(page)).toMatch(/^Do not power yet/);
    await page.getByRole("button", { name: "Undo" }).click();
    await row(page, "S2.12V", "B1.D8").waitFor({ state: "detached" });

    // The lamp, by a suggestion chosen with the mouse.
    await page.getByLabel("from", { exact: true }).fill("lamp");
    await page.getByRole("option", { name: /LED1\.A/ }).click();
    await page.getByLabel("to", { exact: true }).fill("D4");
    await page.getByRole("button", { name: "Join", exact: true }).click();
    await row(page, "LED1.A", "B1.D4").waitFor();
    await page.getByLabel("from", { exact: true }).fill("lamp cathode");
    await page.getByLabel("to", { exact: true }).fill("ground of the board");
    await page.getByRole("button", { name: "Join", exact: true }).click();
    await row(page, "LED1.K", "B1.GND").waitFor();

    // A transistor stage into the 12 V gauge, and a switch in the supply's way.
    await page.getByRole("button", { name: "put in: X1.IN to B1.D9" }).click();
    await pick(page.getByLabel("Put in between"), "discrete/nmos-irlz44n");
    await page.getByText(/Q1 between B1\.D9 and X1\.IN/).waitFor();
    await page.getByRole("button", { name: "Put in", exact: true }).click();
    await row(page, "Q1.D", "X1.IN").waitFor();
    await page.getByRole("button", { name: "put in: X1.VCC to S2.12V" }).click();
    await pick(page.getByLabel("Put in between"), "discrete/toggle");
    await page.getByRole("button", { name: "Put in", exact: true }).click();
    await expect.poll(() => page.locator('[data-testid^="wire-SW3"]').count()).toBe(2);

    // Its own length, gauge and colour stand in the run sheet too.
    await page.getByLabel("Length of X1.GND to S2.GND in centimetres").fill("75");
    await page.getByLabel("Length of X1.GND to S2.GND in centimetres").press("Enter");
    await pick(page.getByLabel("Colour of X1.GND to S2.GND"), "brown");
    await pick(page.getByLabel("Gauge of X1.GND to S2.GND"), "20");
    await saved(page);
    await row(page, "LED1.K", "B1.GND").getByRole("button", { name: /^Cut/ }).click();
    await row(page, "LED1.K", "B1.GND").waitFor({ state: "detached" });
    await page.getByRole("button", { name: "from", exact: true }).click();
    const first = await page.locator('[data-testid^="wire-"]').first().getAttribute("data-testid");
    expect(first).toMatch(/^wire-LED1\.A/);
    await page.getByLabel("Filter by part, pin or net").fill("gauge ground");
    await expect.poll(() => page.locator('[data-testid^="wire-"]').count()).toBeGreaterThan(0);
    expect(await axeViolations(page)).toEqual([]);
    await tab(page, "Run sheet");
    await expect.poll(() => page.getByRole("region", { name: "Run sheet" }).innerText()).toMatch(/75 cm[^\n]*20 AWG/);
    expect(foreign).toEqual([]);
    await context.close();
  });

  it("by keyboard only: two contacts in series, a wire cut with Delete, and bad input in one sentence", async () => {
    const { page, context } = await app.session();
    await makeProject(app, page, "Two buttons", { ...LOOSE, links: LOOSE.links.slice(0, 1) }, "wiring?show=wires");
    const key = page.keyboard;
    await page.getByLabel("from", { exact: true }).focus();
    for (const [a, b] of [
      ["start 1", "D5"],
      ["start 2", "SW2.1"],
      ["SW2.2", "ground of the board"],
    ] as const) {
      await key.type(a);
      await key.press("Escape");
      await key.press("Enter");
      await page.waitForFunction(() => (document.activeElement as HTMLInputElement)?.value === "");
      await key.type(b);
      await expect.poll(() => told(page).innerText()).toMatch(/Then:|no point|may be/);
      await key.press("Escape");
      await key.press("Enter");
      await page.waitForFunction(() => (document.activeElement as HTMLInputElement)?.value === "");
    }
    const made = page.locator('[data-testid^="wire-SW"]');
    await expect.poll(() => made.count()).toBeGreaterThanOrEqual(2);
    await made.first().focus();
    await key.press("Delete");
    await expect.poll(() => made.count()).toBeLessThanOrEqual(2);

    const from = page.getByLabel("from", { exact: true });
    const to = page.getByLabel("to", { exact: true });
    for (const [a, b, says] of [
      ["M9.SDA", "D4", /no point "M9.SDA"/],
      ["D4", "B1.D4", /one point; a wire needs two/],
      ["S1.USB", "B1.USB", /joined by a wire already/],
      ["S1.USB", "D4", /plug or socket/],
      ["__proto__", "D4", /no point/],
    ] as const) {
      await from.fill(a);
      await to.fill(b);
      await expect.poll(() => told(page).innerText()).toMatch(says);
      expect(await page.getByRole("button", { name: "Join", exact: true }).isDisabled()).toBe(true);
    }
    await context.close();
  });

  it("in the drawing: Enter on one pin and on another, or a drag between them", async () => {
    const { page, context } = await app.session();
    await makeProject(app, page, "Drawn wire", { ...LOOSE, links: LOOSE.links.slice(0, 1) }, "wiring");
    const pin = (end: string) => page.locator(`[data-pin="${end}"]`);
    await pin("SW1.1").focus();
    await page.keyboard.press("Enter");
    await pin("B1.D6").focus();
    await page.keyboard.press("Enter");
    const drawn = page.getByRole("region", { name: "Wire being drawn" });
    await expect.poll(() => drawn.innerText()).toContain("Then:");
    await drawn.getByRole("button", { name: "Join" }).click();
    await drawn.waitFor({ state: "detached" });
    await pin("SW1.2").hover();
    await page.mouse.down();
    await pin("B1.GND").hover();
    await page.mouse.up();
    await expect.poll(() => drawn.innerText()).toContain("B1.GND");
    await drawn.getByRole("button", { name: "Join" }).click();
    await drawn.waitFor({ state: "detached" });
    await wires(page);
    await row(page, "SW1.1", "B1.D6").waitFor();
    await row(page, "SW1.2", "B1.GND").waitFor();
    await context.close();
  });

  const joined = async (page: Page, list: readonly (readonly [string, string])[]) => {
    for (const [a, b] of list) {
      const before = await page.locator('[data-testid^="wire-"]').count();
      await page.getByLabel("from", { exact: true }).fill(a);
      await page.getByLabel("to", { exact: true }).fill(b);
      await page.getByRole("button", { name: "Join", exact: true }).click();
      await expect
        .poll(() => page.locator('[data-testid^="wire-"]').count(), { message: `${a} ${b}` })
        .toBe(before + 1);
    }
  };

  it("a barrel socket and a switch in the supply's way; two contacts side by side; a part taken out, the gap closed", async () => {
    const { page, context } = await app.session();
    const parts = [
      { ref: "B1", part: "board/atmega328p-long" },
      { ref: "S1", part: "supply/adapter-9v-1a", label: "Adapter" },
      { ref: "J1", part: "connector/barrel", label: "Socket" },
      { ref: "SW1", part: "discrete/toggle", label: "Main" },
      { ref: "SW2", part: "discrete/button", label: "Left", companions: { pullUp: "internal" } },
      { ref: "SW3", part: "discrete/button", label: "Right" },
    ];
    await makeProject(app, page, "Two doors", { parts, links: [] }, "wiring?show=wires");
    await page.getByText("No wire yet").waitFor();
    await joined(page, [
      ["SW1.2", "VIN"],
      ["adapter 9V", "J1.+"],
      ["J1.+", "SW1.1"],
      ["adapter ground", "J1.-"],
      ["J1.-", "ground of the board"],
      ["left 1", "D4"],
      ["right 1", "SW2.1"],
      ["left 2", "ground of the board"],
      ["right 2", "SW2.2"],
    ]);
    await expect.poll(() => verdict(page)).not.toMatch(/Do not power|Will not work/);
    await page.getByText("Take a part out of its wires").click();
    await pick(page.getByLabel("Part that goes"), "SW1");
    await page.getByText(/SW1 taken out, .* joined with/).waitFor();
    await page.getByRole("button", { name: "Take it out" }).click();
    await expect.poll(() => page.locator('[data-testid^="wire-SW1"]').count()).toBe(0);
    await expect
      .poll(() => page.locator('[data-testid="wire-J1.+-B1.VIN"], [data-testid="wire-B1.VIN-J1.+"]').count())
      .toBe(1);
    await context.close();
  });

  it("a project without a board: a serial adapter through an isolator into a far side with its own supply", async () => {
    const { page, context } = await app.session();
    const parts = [
      { ref: "M1", part: "module/usb-uart-3v3", label: "Adapter" },
      { ref: "M2", part: "module/isolator-2ch", label: "Barrier" },
      { ref: "S2", part: "supply/adapter-5v-2a", label: "Far supply" },
      { ref: "M3", part: "module/mp3-player", label: "Player" },
    ];
    await makeProject(app, page, "Isolated line", { parts, links: [] }, "wiring?show=wires");
    await joined(page, [
      ["M1.3V3", "M2.VCC1"],
      ["M1.GND", "M2.GND1"],
      ["far supply 5V", "M2.VCC2"],
      ["far supply ground", "M2.GND2"],
      ["player vcc", "far supply 5V"],
      ["player ground", "far supply ground"],
      ["M1.TX", "M2.INA"],
      ["M2.OUTA", "player RX"],
    ]);
    await expect.poll(() => page.locator('[data-testid^="wire-"]').count()).toBe(8);
    await context.close();
  });
});

describe("as built, and one truth", () => {
  it("a lamp that is really at D13: plan, sheet, program and letters follow; other ticks stay", async () => {
    const { page, context } = await app.session();
    await openProject(page, "Rain-barrel gauge", "wiring");
    const before = await page.getByTestId("fingerprint").innerText();
    await page.getByLabel("Step 1 done").check();
    await saved(page);
    await wires(page);
    const wire = page.locator('[data-testid^="wire-D1.A-"]');
    await wire.getByRole("button", { name: /is elsewhere/ }).click();
    await page.getByLabel(/is really at/).fill("D13");
    await page.getByText(/shortest way back/).waitFor();
    await page.getByRole("button", { name: "It is there" }).click();
    await row(page, "D1.A", "B1.D13").waitFor();
    await expect.poll(() => row(page, "D1.A", "B1.D13").innerText()).toContain("kept");
    await saved(page);
    const after = await page.getByTestId("fingerprint").innerText();
    expect(after).not.toBe(before);
    const zip = await download(page, () => page.getByRole("link", { name: /Whole plan/ }).click());
    const letters = after.replace("plan ", "");
    expect(zipText(zip, "firmware/sketch/starter/pins.h")).toMatch(/= 13;.*D1\.A/);
    for (const f of ["firmware/sketch/starter/starter.ino", "plan.md", "wires.csv", "parts.csv", "plan.svg"])
      expect(zipText(zip, f), f).toContain(letters);
    const pdf = zip.replace(/\.zip$/, ".pdf");
    execFileSync("sh", ["-c", `unzip -p "${zip}" plan.pdf > "${pdf}"`]);
    expect(execFileSync("pdftotext", ["-layout", pdf, "-"], { encoding: "utf8" })).toContain(`plan ${letters}`);
    await tab(page, "Run sheet");
    expect(await page.getByLabel("Step 1 done").isChecked()).toBe(true);
    await context.close();
  });

  it("two wires swapped and a plug turned round are told, followed, and undone", async () => {
    const { page, context } = await app.session();
    await openProject(page, "Moss terrarium keeper", "wiring");
    await wires(page);
    await page.getByText("It is built differently").click();
    await page.getByLabel("one point", { exact: true }).fill("GP4");
    await page.getByLabel("the other", { exact: true }).fill("GP5");
    await page.getByText(/wires at B1\.GP4 and B1\.GP5 are swapped/).waitFor();
    await page.getByRole("button", { name: "So it is built" }).click();
    await row(page, "M1.SDA", "B1.GP5").waitFor();
    await expect.poll(() => verdict(page)).toMatch(/^Will not work yet: [2-9]/);
    await page.getByRole("button", { name: "Undo" }).click();
    await row(page, "M1.SDA", "B1.GP4").waitFor();
    await pick(page.getByLabel("What is so"), "turn");
    await pick(page.getByLabel("Part", { exact: true }), "M2");
    await page.getByText(/M2 is turned round/).waitFor();
    await page.getByRole("button", { name: "So it is built" }).click();
    await expect.poll(() => verdict(page)).toMatch(/^(Do not power|Will not work) yet/);
    await context.close();
  });

  it("the wires of a part in the other row of the header, told and followed", async () => {
    const { page, context } = await app.session();
    const parts = [
      { ref: "B1", part: "board/rp2040-forty" },
      { ref: "S1", part: "supply/usb-port" },
      { ref: "LED1", part: "discrete/led-red", label: "Lamp", companions: { seriesResistor: { ohm: 470 } } },
    ];
    const links = [
      { from: "S1.USB", to: "B1.USB" },
      { from: "LED1.A", to: "B1.GP10" },
      { from: "LED1.K", to: "B1.GND.4" },
    ];
    await makeProject(app, page, "Wrong row", { parts, links }, "wiring?show=wires");
    await page.getByText("It is built differently").click();
    await pick(page.getByLabel("What is so"), "other row");
    await pick(page.getByLabel("Part", { exact: true }), "LED1");
    await page.getByText(/wires of LED1 are in the other row: GP10 → /).waitFor();
    await page.getByRole("button", { name: "So it is built" }).click();
    await row(page, "LED1.A", "B1.GP10").waitFor({ state: "detached" });
    await context.close();
  });

  it("a program that can't be changed prescribes pins: matched, chosen where unclear, kept", async () => {
    const { page, context } = await app.session();
    await openProject(page, "Moss terrarium keeper", "wiring");
    await wires(page);
    await page.getByText("Pins that are given").click();
    await page
      .getByLabel("Lines that give pins")
      .fill("#define TANK_LIGHT 2\nmist_button = Pin(14)\nsda = Pin(8)\nscl = Pin(9)\npump = 3\n");
    const given = page.getByTestId("given");
    await expect.poll(() => given.innerText()).toContain("M3.DIN goes to GP2");
    await expect.poll(() => given.innerText()).toMatch(/sda may be M1\.SDA or M2\.SDA/);
    await expect.poll(() => given.innerText()).toContain("Nothing in this project is called pump");
    await pick(page.getByLabel("What sda is for"), "M1.SDA");
    await expect.poll(() => given.innerText()).toContain("M1.SDA goes to GP8");
    await page.getByRole("button", { name: /^Keep 3 given pins/ }).click();
    await row(page, "M3.DIN", "B1.GP2").waitFor();
    await expect.poll(() => row(page, "SW1.1", "B1.GP14").innerText()).toContain("kept");
    const map = await download(page, () => page.getByRole("button", { name: /Save this plan's pins/ }).click());
    expect(execFileSync("cat", [map], { encoding: "utf8" })).toContain("PIN_TANK_LIGHT = GP2");
    await context.close();
  });
});
