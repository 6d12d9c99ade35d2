import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Page } from "playwright-core";
import { planned } from "../src/core/testing";
import { answer, axeViolations, makeProject, openProject, saved, startApp, verdict, type App, pick } from "./app";

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app?.stop());

const LONG = [
  { ref: "B1", part: "board/atmega328p-long", label: "Controller" },
  { ref: "S1", part: "supply/usb-port", label: "USB" },
];
const link = ([from, to]: [string, string]) => ({ from, to });
const CABLE: [string, string] = ["S1.USB", "B1.USB"];
const tab = (page: Page, name: string) => page.getByRole("tab", { name: new RegExp(`^${name}`) }).click();
const words = (page: Page, text: string) =>
  page.waitForFunction((t) => document.querySelector('[data-testid="verdict"]')?.textContent === t, text);

describe("the river", () => {
  it("shows the flow, and the brightness moves it at once, by mouse and by keyboard", async () => {
    const { page, context, foreign } = await app.session();
    await openProject(page, "Moss terrarium keeper", "power");
    const river = page.getByRole("img", { name: /^Flow at peak/ });
    await river.waitFor();
    expect(await river.getAttribute("aria-label")).toContain("Strip supply 590 mA of 2.00 A, 30 %");
    const slider = page.getByRole("slider", { name: "brightness cap" });
    await slider.focus();
    for (let i = 0; i < 10; i++) await page.keyboard.press("ArrowRight");
    await page.getByRole("img", { name: /Strip supply 732 mA/ }).waitFor();
    expect(await page.getByRole("img", { name: /Tank light: 732 mA through Strip supply at 50 %/ }).count()).toBe(1);
    await page.keyboard.press("Control+z");
    await saved(page);
    expect(await axeViolations(page)).toEqual([]);
    expect(foreign).toEqual([]);
    await context.close();
  });
  it("tells how long a battery lasts, and sleeping makes it longer", async () => {
    const { page, context } = await app.session();
    await openProject(page, "Beehive scale logger", "power");
    const life = page.getByRole("region", { name: "Battery Cell" });
    await life.waitFor();
    const cold = await life.innerText();
    expect(cold).toMatch(/−15 °C/);
    expect(Number(/(\d+) hours\s+to\s+21 hours/.exec(cold)![1])).toBeLessThan(11);
    // At the hive it gets cold: 2 Ah of a worn cell at −15 °C against a fresh one in a room.
    await page.goto(page.url().replace(/power$/, "brief"));
    await answer(page, /in a room: 10 to 40 °C/);
    await saved(page);
    await page.getByRole("link", { name: /Power and levels/ }).click();
    await life.waitFor();
    await expect.poll(() => life.innerText()).toMatch(/15 hours\s+to\s+21 hours/);
    const awake = life.getByRole("slider", { name: "awake" });
    await awake.press("Home");
    for (let i = 0; i < 2; i++) await awake.press("ArrowRight");
    await page.waitForFunction(() =>
      /days/.test(document.querySelector('[aria-label="Battery Cell"]')?.textContent ?? ""),
    );
    await context.close();
  });
});

describe("grounds", () => {
  it("two that no wire joins can be kept apart: then a wire between them is a stop, and no plan joins them", async () => {
    const { page, context } = await app.session();
    const parts = [
      ...LONG,
      { ref: "S2", part: "supply/adapter-5v-2a", label: "Far supply" },
      { ref: "M1", part: "module/isolator-2ch", label: "Gap", companions: { decoupling: { F: 1e-7 } } },
    ];
    const links = (
      [CABLE, ["M1.VCC1", "B1.5V"], ["M1.GND1", "B1.GND"], ["M1.VCC2", "S2.5V"], ["M1.GND2", "S2.GND"]] as [
        string,
        string,
      ][]
    ).map(link);
    await makeProject(app, page, "Two grounds", { parts, links }, "power");
    const grounds = page.getByRole("region", { name: "Grounds" });
    await grounds.getByText("Far supply, Gap").waitFor();
    const keep = grounds.getByRole("checkbox", { name: /Keep them apart/ });
    await keep.focus();
    await page.keyboard.press("Space");
    await saved(page);
    await page.getByRole("link", { name: /Brief/ }).click();
    expect(await page.getByLabel(/never joined: faults/).isChecked()).toBe(true);
    await page.getByRole("link", { name: /Power and levels/ }).click();
    expect(await keep.isChecked()).toBe(true);
    expect(await axeViolations(page)).toEqual([]);
    await keep.uncheck({ force: true });
    await saved(page);
    await page.getByRole("link", { name: /Brief/ }).click();
    await expect
      .poll(() =>
        page
          .getByRole("radiogroup", { name: /Grounds of parts/ })
          .getByRole("radio")
          .first()
          .isChecked(),
      )
      .toBe(true);
    await context.close();
  });
});

describe("levels and buses", () => {
  it("the ladder follows the chosen row; the stricter house rule speaks up", async () => {
    const { page, context } = await app.session();
    const parts = [
      { ref: "B1", part: "board/rp2040-forty" },
      LONG[1],
      { ref: "M1", part: "module/hc-sr04", label: "Echo", companions: { divider: { ohm: [2200, 3300], pin: "ECHO" } } },
    ];
    const links = [
      CABLE,
      ["M1.VCC", "B1.VBUS"],
      ["M1.GND", "B1.GND"],
      ["M1.TRIG", "B1.GP6"],
      ["M1.ECHO", "B1.GP7"],
    ] as [string, string][];
    await makeProject(app, page, "Echo", { parts, links: links.map(link) }, "power");
    await tab(page, "Levels");
    await page.getByRole("button", { name: "GP6·Echo" }).click();
    await page.getByRole("img", { name: /B1.GP6 to M1.TRIG: high 3.10 V against 2.00 V/ }).waitFor();
    await expect.poll(() => verdict(page)).toBe("Ready to wire");
    await page.getByRole("radio", { name: /only when nominal voltages match/ }).check();
    await page.getByTestId("finding-level.thin-margin").waitFor();
    // While the board starts: the chip itself holds the trigger low.
    await expect
      .poll(() => page.getByRole("region", { name: "While the board starts" }).innerText())
      .toContain("the chip, until the program starts");
    await page.getByRole("radio", { name: /by thresholds/ }).check();
    await words(page, "Ready to wire");
    await context.close();
  });
  it("a faster bus clock shows on the chart, in the ledger, and its fix slows it again", async () => {
    const { page, context } = await app.session();
    const parts = [...LONG, { ref: "M1", part: "module/lcd1602-i2c", label: "Text" }];
    const links = [CABLE, ["M1.VCC", "B1.5V"], ["M1.GND", "B1.GND"], ["M1.SDA", "B1.A4"], ["M1.SCL", "B1.A5"]] as [
      string,
      string,
    ][];
    await makeProject(app, page, "Sign", { parts, links: links.map(link) }, "power");
    await tab(page, "Buses");
    const bus = page.getByRole("region", { name: "I2C i2c0" });
    await bus.waitFor();
    await expect.poll(() => bus.innerText()).toContain("4.7 kΩ");
    await pick(bus.getByRole("combobox", { name: "clock" }), "400000");
    const finding = page.getByTestId("finding-i2c.clock");
    await finding.waitFor();
    await finding.getByRole("button", { name: "What changes" }).click();
    await finding.getByText("Ready to wire").waitFor();
    await finding.getByRole("button", { name: "Apply" }).click();
    await words(page, "Ready to wire");
    expect(await axeViolations(page)).toEqual([]);
    await context.close();
  });
});

describe("levels of whole parts", () => {
  it("a 3.3 V display and a probe on a 5 V board: two fixes, each for all wires of its part, and nothing is left", async () => {
    const { page, context } = await app.session();
    const parts = [
      LONG[0],
      { ref: "S1", part: "supply/usb-charger", label: "Charger" },
      { ref: "M1", part: "module/max31855", label: "Kiln probe", print: { id: "a" } },
      { ref: "M2", part: "module/st7735", label: "Display", print: { id: "a" } },
    ];
    // Wired straight, as somebody does who knows no better; planned by the app, both buffers come along.
    const straight = planned(parts as object[]);
    await makeProject(app, page, "Kiln", { parts: straight.parts, links: straight.links }, "power");
    await words(page, "Do not power yet: 7 stops");
    const first = page.getByTestId("finding-level.overdrive").first();
    await first.getByRole("button", { name: "What changes" }).click();
    await first
      .getByText(/74HC4050/)
      .first()
      .waitFor();
    await first.getByRole("button", { name: "Apply" }).first().click();
    await page.waitForFunction(
      () => !/7 stops/.test(document.querySelector('[data-testid="verdict"]')?.textContent ?? ""),
    );
    await page.getByTestId("finding-level.overdrive").first().getByRole("button", { name: "Apply" }).first().click();
    await words(page, "Ready to wire");
    await page.keyboard.press("Control+z");
    await page.keyboard.press("Control+z");
    await words(page, "Do not power yet: 7 stops");
    await makeProject(app, page, "Kiln, planned", { parts }, "pins");
    await page.getByRole("button", { name: "Plan open pins" }).click();
    await words(page, "Ready to wire");
    await page.getByText(/Put in: .*74HC4050/).waitFor();
    await context.close();
  });
});

describe("fixes that apply themselves", () => {
  it("a pump on a pin gets its transistor, its supply and its diode, and undo takes them out", async () => {
    const { page, context } = await app.session();
    const parts = [
      LONG[0],
      { ref: "S1", part: "supply/usb-charger" },
      { ref: "MT1", part: "discrete/pump-5v", label: "Pump" },
    ];
    const links = [CABLE, ["MT1.1", "B1.D7"], ["MT1.2", "B1.GND"]] as [string, string][];
    await makeProject(app, page, "Fountain", { parts, links: links.map(link) }, "power");
    await words(page, "Do not power yet: 1 stop");
    const finding = page.getByTestId("finding-load.needs-driver");
    await expect.poll(() => finding.innerText()).toContain("540 mA");
    await finding.getByRole("button", { name: "Apply" }).click();
    await page.waitForFunction(() => !document.querySelector('[data-testid="finding-load.needs-driver"]'));
    await expect.poll(() => verdict(page)).not.toContain("Do not power");
    await tab(page, "Hook-ups");
    await page.getByRole("heading", { name: /./ }).first().waitFor();
    await page.getByRole("button", { name: /^Undo/ }).click();
    await words(page, "Do not power yet: 1 stop");
    await context.close();
  });
  it("a hook-up's answer goes into the project", async () => {
    const { page, context } = await app.session();
    const parts = [
      { ref: "B1", part: "board/rp2040-forty" },
      LONG[1],
      { ref: "M1", part: "module/hc-sr04", label: "Echo" },
    ];
    const links = [
      CABLE,
      ["M1.VCC", "B1.VBUS"],
      ["M1.GND", "B1.GND"],
      ["M1.TRIG", "B1.GP6"],
      ["M1.ECHO", "B1.GP7"],
    ] as [string, string][];
    await makeProject(app, page, "Echo to divide", { parts, links: links.map(link) }, "power");
    await words(page, "Do not power yet: 1 stop");
    await tab(page, "Hook-ups");
    await page.getByRole("radio", { name: /Echo, ECHO/ }).click();
    await page.getByRole("img", { name: /The signal goes through/ }).waitFor();
    await page.getByRole("button", { name: "Use this in the project" }).click();
    await words(page, "Ready to wire");
    expect(await axeViolations(page)).toEqual([]);
    await context.close();
  });
});

describe("bench sums", () => {
  const answer = (page: Page, name: string) =>
    page.locator("dl[aria-label=Answers] > div", { hasText: name }).locator("dd").innerText();
  it("works out a resistor from what is typed, refuses what makes no sense, and its address brings it back", async () => {
    const { page, context, foreign } = await app.session();
    await page.goto("/");
    await page.getByRole("link", { name: "Bench sums" }).click();
    await page.getByRole("heading", { name: "Bench sums" }).waitFor();
    const volts = page.getByRole("textbox", { name: "Supply or pin voltage" });
    await volts.fill("12");
    await page.keyboard.press("Enter");
    const lights = page.getByRole("textbox", { name: "Lights in the row" });
    await lights.fill("3");
    await page.keyboard.press("Tab");
    await page.getByRole("textbox", { name: "Wanted current" }).fill("15m");
    await page.keyboard.press("Tab");
    expect(await answer(page, "Resistor")).toBe("470 Ω");
    await lights.fill("2,5");
    await page.keyboard.press("Tab");
    await expect.poll(() => page.getByRole("alert").first().innerText()).toBe("Lights in the row: a whole number.");
    await lights.fill("9");
    await page.keyboard.press("Tab");
    await page.getByText("leaves nothing for the resistor").waitFor();
    await lights.fill("3");
    await page.keyboard.press("Tab");
    const address = page.url();
    expect(address).toContain("/bench-sums?sum=light&V=12&n=3&I=0.015");
    await page.goto(address);
    expect(await answer(page, "Resistor")).toBe("470 Ω");
    expect(await axeViolations(page)).toEqual([]);
    await page.goto("/bench-sums?sum=mosfet&V=nonsense&load_A=2");
    await page.getByText(/In the address: Pin voltage: "nonsense" is not a quantity/).waitFor();
    expect(await page.getByRole("textbox", { name: "Current of the load" }).inputValue()).toBe("2 A");
    expect(foreign).toEqual([]);
    await context.close();
  });
  it("every sum opens and draws, in the dark as well", async () => {
    const { page, context } = await app.session();
    await page.emulateMedia({ colorScheme: "dark" });
    await page.goto("/bench-sums");
    const list = page.getByRole("navigation", { name: "Sums" }).getByRole("button");
    const count = await list.count();
    expect(count).toBe(11);
    for (let i = 0; i < count; i++) {
      await list.nth(i).click();
      await page.locator("figure svg").waitFor();
      expect(await page.locator("dl[aria-label=Answers] > div").count()).toBeGreaterThan(1);
    }
    expect(await axeViolations(page)).toEqual([]);
    await context.close();
  });
});
