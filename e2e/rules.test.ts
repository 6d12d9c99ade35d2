import { execFileSync } from "node:child_process";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { assign } from "../src/core/plan/assign";
import { catalogue, make } from "../src/core/testing";
import { download, makeProject, startApp, type App } from "./app";

const zipText = (file: string, name: string) => execFileSync("unzip", ["-p", file, name], { encoding: "utf8" });

const PARTS = [
  { ref: "B1", part: "board/atmega328p-long" },
  { ref: "S1", part: "supply/usb-port" },
  { ref: "SW1", part: "discrete/button", label: "Go" },
  { ref: "LED1", part: "discrete/led-red", label: "Port light", companions: { seriesResistor: { ohm: 330 } } },
  { ref: "LED2", part: "discrete/led-green", label: "Starboard light", companions: { seriesResistor: { ohm: 330 } } },
  { ref: "M1", part: "module/hc-sr04", label: "Distance" },
];
const links = [
  ["S1.USB", "B1.USB"],
  ["SW1.1", "B1.D7"],
  ["SW1.2", "B1.GND"],
  ["LED1.A", "B1.D5"],
  ["LED1.K", "B1.GND"],
  ["LED2.A", "B1.D6"],
  ["LED2.K", "B1.GND"],
  ["M1.VCC", "B1.5V"],
  ["M1.GND", "B1.GND"],
  ["M1.TRIG", "B1.D8"],
  ["M1.ECHO", "B1.D9"],
].map(([from, to]) => ({ from, to }));

describe("what happens when", () => {
  let app: App;
  beforeAll(async () => {
    app = await startApp();
  });
  afterAll(() => app.stop());

  it("a person's sentence is put together, comes into the program, and goes out again", async () => {
    const { context, page } = await app.session();
    await makeProject(app, page, "Harbour lights", { parts: PARTS, links }, "firmware");
    const rules = page.getByTestId("rules");
    const pick = async (label: string, name: string) => {
      await rules.getByRole("combobox", { name: label, exact: true }).click();
      await page.getByRole("option", { name, exact: true }).click();
    };
    await rules.getByRole("button", { name: "Add a sentence" }).click();
    await rules.getByTestId("new-rule").waitFor();
    expect(await rules.getByRole("button", { name: "Add", exact: true }).isDisabled()).toBe(true);
    await pick("When", "Go");
    await pick("What", "Port light");
    await pick("Does", "takes turns with");
    await pick("With", "Starboard light");
    await rules.getByRole("button", { name: "Add", exact: true }).click();
    await rules.getByText("Each time Go is pressed, Port light and Starboard light take turns.").waitFor();
    await pick("When", "Distance");
    await pick("How", "is below");
    await rules.getByLabel("Value").fill("20");
    await pick("What", "Starboard light");
    await rules.getByRole("button", { name: "Add", exact: true }).click();
    await rules.getByText("When Distance is below 20 cm, Starboard light is on.").waitFor();
    await page.getByTestId("does").getByText("take turns").first().waitFor();
    const zip = await download(page, () => page.getByTestId("download-firmware").click());
    expect(zipText(zip, "starter/starter.ino")).toContain("// When Distance is below 20 cm, Starboard light is on.");
    // Taken out by keys alone; undone as any change.
    const out = rules.getByRole("button", { name: /^Take out: Each time Go/ });
    await out.focus();
    await page.keyboard.press("Enter");
    await rules.getByText("take turns").waitFor({ state: "detached" });
    await rules.getByRole("button", { name: "Back to what is suggested" }).click();
    await rules.getByText("Say here what your parts shall do").waitFor();
    expect(await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)).toBeLessThanOrEqual(0);
    await context.close();
  });

  it("how bright a lamp is, by a knob: the pin that makes no pulses is told and moved, and the lamp is seen to follow", async () => {
    const { context, page } = await app.session();
    const parts = [
      { ref: "B1", part: "board/atmega328p-long", label: "Controller" },
      { ref: "S1", part: "supply/usb-port" },
      { ref: "POT1", part: "discrete/potentiometer", label: "Knob" },
      { ref: "LED1", part: "discrete/led-red", label: "Deck lamp" },
      { ref: "M1", part: "module/ds3231", label: "Ship clock" },
      { ref: "M2", part: "module/ht16k33-digits", label: "Digits" },
    ];
    const c = assign(make(parts), catalogue).project;
    const at = (l: { from: string; to: string }) => (l.from === "LED1.A" ? { ...l, to: "B1.D8" } : l);
    await makeProject(app, page, "Deck lamp", { parts: c.parts, links: c.links.map(at) }, "firmware");
    const rules = page.getByTestId("rules");
    const pick = async (label: string, name: string) => {
      await rules.getByRole("combobox", { name: label, exact: true }).click();
      await page.getByRole("option", { name, exact: true }).click();
    };
    await rules.getByRole("button", { name: "Add a sentence" }).click();
    await rules.getByTestId("new-rule").waitFor();
    await pick("When", "Knob: turned");
    await pick("How", "is followed by");
    await pick("What", "Deck lamp");
    await rules.getByRole("button", { name: "Add", exact: true }).click();
    await rules.getByText("Deck lamp follows Knob (turned).").waitFor();
    await rules.getByText(/makes no pulses/).waitFor();
    const fault = page.getByTestId("finding-pin.capability");
    const toggle = fault.getByRole("button").first();
    if ((await toggle.getAttribute("aria-expanded")) !== "true") await toggle.click();
    await fault.getByText(/Move LED1.A to D/).waitFor();
    await fault.getByRole("button", { name: "Apply" }).first().click();
    await fault.waitFor({ state: "detached" });
    await expect.poll(() => rules.getByText(/makes no pulses/).count()).toBe(0);
    await pick("When", "Ship clock: time of day");
    await pick("How", "is followed by");
    await pick("What", "Digits");
    await rules.getByRole("button", { name: "Add", exact: true }).click();
    await rules.getByText("Digits follows Ship clock (time of day).").waitFor();
    const zip = await download(page, () => page.getByTestId("download-firmware").click());
    expect(zipText(zip, "starter/starter.ino")).toContain("analogWrite(PIN_DECK_LAMP");
    await page.getByRole("button", { name: "Start", exact: true }).click();
    await page.getByRole("slider", { name: /Knob/ }).press("End");
    const lamp = page.getByRole("img", { name: /^lit/ });
    await expect.poll(() => lamp.getAttribute("aria-label")).toMatch(/^lit( at 9\d %)?$/);
    for (let i = 0; i < 6; i++) await page.getByRole("slider", { name: /Knob/ }).press("PageDown");
    await expect.poll(() => lamp.getAttribute("aria-label")).toMatch(/^lit at [1-8]\d %$/);
    if (process.env.SHOT) {
      await lamp.scrollIntoViewIfNeeded();
      await page.screenshot({ path: "/tmp/dim.png" });
    }
    await context.close();
  });
});
