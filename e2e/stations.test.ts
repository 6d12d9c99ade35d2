import { catalogue, make } from "../src/core/testing";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Page } from "playwright-core";
import { assign } from "../src/core/plan/assign";
import {
  addPart,
  answer,
  axeViolations,
  makeProject,
  openProject,
  pick,
  saved,
  startApp,
  verdict,
  type App,
} from "./app";

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app?.stop());

const says = (page: Page, words: string) =>
  page.waitForFunction((w) => document.querySelector('[data-testid="verdict"]')?.textContent === w, words);

describe("stations", () => {
  it("brief: a house rule changes the plan at once, and what was written stays", async () => {
    const { page, context } = await app.session();
    await openProject(page, "Moss terrarium keeper", "brief");
    await page.getByLabel("Name").fill("Fern terrarium");
    await page.getByLabel("Name").press("Enter");
    await answer(page, /10 kΩ to ground, button to supply/);
    await page.getByRole("link", { name: /Parts/ }).click();
    await page.getByTestId("part-SW1").getByText("10 kΩ").waitFor();
    await page.getByRole("link", { name: /Wiring/ }).click();
    await page.getByText("SW1.2", { exact: true }).first().waitFor();
    await saved(page);
    await page.goto("/");
    await page.getByRole("link", { name: "Fern terrarium" }).click();
    await page.getByText("Fern terrarium").first().waitFor();
    await page.getByRole("button", { name: "versions" }).click();
    await page
      .getByRole("listitem")
      .filter({ hasText: "demo project" })
      .getByRole("button", { name: /Go back to it/ })
      .click();
    await page.getByText("Moss terrarium keeper").first().waitFor();
    await saved(page);
    await context.close();
  });

  it("brief: where it lives and whether anything can be soldered change what the plan says", async () => {
    const { page, context } = await app.session();
    await openProject(page, "Rain-barrel gauge", "brief");
    await expect.poll(() => verdict(page)).toBe("Ready to wire");
    await answer(page, /no: boards that come ready first/);
    await answer(page, /soldered at once/);
    await says(page, "Can be wired: 1 risk to know");
    const finding = page.getByTestId("finding-part.solder");
    await finding.getByText(/no soldering iron is at hand/).waitFor();
    await finding.getByRole("button", { name: "Apply" }).click();
    await says(page, "Ready to wire");
    await expect.poll(() => page.getByLabel(/on a breadboard, then soldered/).isChecked()).toBe(true);
    for (const q of ["Where will it live?", "A button chatters", "Grounds of parts", "How is it built first?"])
      await page.getByRole("radiogroup", { name: new RegExp(q.replace("?", "\\?")) }).waitFor();
    await context.close();
  });

  it("power: the brightness control moves the budget live, and the overload's fix brings it back", async () => {
    const { page, context } = await app.session();
    await openProject(page, "Moss terrarium keeper", "parts");
    await page
      .getByTestId("part-M3")
      .getByRole("button", { name: /^Details/ })
      .click();
    await page.locator("#M3-pixels").fill("60");
    await page.locator("#M3-pixels").press("Enter");
    await page.getByRole("link", { name: /Power and levels/ }).click();
    const slider = page.getByRole("slider", { name: "brightness cap" });
    await slider.focus();
    await slider.press("End");
    await page.getByRole("img", { name: /Tank light: 3.60 A through Strip supply at 100 %/ }).waitFor();
    await page.getByTestId("finding-power.overload").waitFor();
    await expect
      .poll(() => page.getByTestId("finding-power.overload").innerText())
      .toContain("3.6 A at peak over a limit of 2 A");
    const overload = page.getByTestId("finding-power.overload");
    // The gravest finding may be open by itself.
    const toggle = overload.getByRole("button").first();
    if ((await toggle.getAttribute("aria-expanded")) !== "true") await toggle.click();
    await overload.getByRole("button", { name: "Apply" }).first().click();
    // (2000 − 60) / (60 · 59) = 0.548
    await page.getByRole("img", { name: /through Strip supply at 54 %, limit 2.00 A/ }).waitFor();
    expect(await slider.getAttribute("aria-valuenow")).toBe("54");
    await page.getByTestId("finding-power.overload").waitFor({ state: "detached" });
    await context.close();
  });

  it("ledger: accepting a risk needs a reason, and can be taken back", async () => {
    const { page, context } = await app.session();
    await openProject(page, "Rain-barrel gauge", "pins");
    // Put the lamp on a console pin: a risk, not a fault.
    const cell = page.locator('[data-cell="D1.A|D1"]');
    await cell.click();
    await page.getByRole("button", { name: "Move here" }).click();
    await says(page, "Can be wired: 1 risk to know");
    const finding = page.getByTestId("finding-pin.usb-serial");
    await finding.getByRole("button", { name: "accept with a reason" }).click();
    expect(await finding.getByRole("button", { name: "Accept" }).isDisabled()).toBe(true);
    await finding.getByLabel("Reason").fill("the lamp may flicker while uploading");
    await finding.getByRole("button", { name: "Accept" }).click();
    await says(page, "Ready to wire");
    await expect.poll(() => finding.innerText()).toContain("Accepted: the lamp may flicker while uploading");
    await finding.getByRole("button", { name: "take back" }).click();
    await says(page, "Can be wired: 1 risk to know");
    await context.close();
  });

  it("any station comes up, however quickly one turns from one to the next", async () => {
    const { page, context } = await app.session();
    await openProject(page, "Beehive scale logger", "brief");
    const rail = page.getByRole("navigation", { name: "Stations" });
    // All in one breath: each asks for what it shows before the one before it has been answered.
    await page.evaluate(() => {
      const links = [...document.querySelectorAll<HTMLAnchorElement>('nav[aria-label="Stations"] a')];
      for (const i of [1, 3, 4, 6, 7, 1, 6, 3, 8, 6]) links[i]!.click();
    });
    await page.getByRole("heading", { level: 1, name: "Firmware" }).waitFor();
    for (const name of ["Pins", "Bench", "Parts"]) {
      await rail.getByRole("link", { name: new RegExp(`${name} `) }).click();
      await page.getByRole("heading", { level: 1, name }).waitFor();
    }
    await page.goBack();
    await page.getByRole("heading", { level: 1, name: "Bench" }).waitFor();
    await context.close();
  });

  it("board: a press on a list that still sorts itself takes the board that it began on", async () => {
    const { page, context } = await app.session();
    await openProject(page, "Beehive scale logger", "board");
    await page
      .getByRole("button", { name: /^Use this board: / })
      .first()
      .waitFor();
    const rows = () => page.locator('tr[data-testid^="trial-"]').count();
    // Where the first one stands, and which one is really pressed there.
    await page.evaluate(() =>
      window.addEventListener(
        "pointerdown",
        (e) => (document.title = (e.target as Element).closest("button")?.getAttribute("aria-label") ?? ""),
        { capture: true },
      ),
    );
    let pressed = "";
    // The columns may move a little between the look and the press: then beside it, and once more.
    for (let n = 0; n < 8 && !pressed; n++) {
      if (n) await page.mouse.up();
      const [x, y] = await page.evaluate(() => {
        const r = document.querySelector('[aria-label^="Use this board: "]')!.getBoundingClientRect();
        return [r.x + r.width / 2, r.y + r.height / 2] as const;
      });
      await page.mouse.move(x, y);
      await page.mouse.down();
      pressed = (await page.title()).replace("Use this board: ", "");
    }
    expect(pressed).not.toBe("");
    const held = await rows();
    await page.waitForTimeout(2500);
    expect(await rows()).toBe(held);
    await page.mouse.up();
    await page.getByText("in use").first().waitFor();
    await expect.poll(() => page.locator("tr", { hasText: "in use" }).first().innerText()).toContain(pressed);
    await expect.poll(rows).toBeGreaterThan(held);
    await context.close();
  });

  it("firmware: what the program takes of a small board's memory, and a sentence by the time of day", async () => {
    const { page, context } = await app.session();
    const parts = [
      { ref: "B1", part: "board/atmega328p-long" },
      { ref: "S1", part: "supply/usb-port" },
      { ref: "M1", part: "module/ds3231", label: "Clock" },
      { ref: "D1", part: "discrete/led-red", label: "Lamp" },
    ];
    await makeProject(app, page, "Evening lamp", assign(make(parts as never), catalogue).project, "firmware");
    const bar = page.getByRole("progressbar", { name: "Program (flash)" });
    await bar.waitFor();
    expect(await page.getByRole("region", { name: "Memory" }).innerText()).toMatch(/about \d+\.\d of 30\.0 kB/);
    await page.getByRole("button", { name: "Add a sentence" }).click();
    const form = page.getByTestId("new-rule");
    await pick(form.getByLabel("When", { exact: true }), "M1 time");
    await form.getByLabel("From, time of day").fill("18:00");
    await form.getByLabel("to", { exact: true }).fill("25:00");
    await pick(form.getByLabel("What", { exact: true }), "D1");
    expect(await form.getByRole("button", { name: "Add" }).isDisabled()).toBe(true);
    await form.getByLabel("to", { exact: true }).fill("6:30");
    expect(await axeViolations(page)).toEqual([]);
    await form.getByRole("button", { name: "Add" }).click();
    await page.getByText("From 18:00 to 06:30 by Clock, Lamp is on.").first().waitFor();
    await saved(page);
    await context.close();
  });
  it("firmware: the program is tried on simulated parts: a key pressed by keyboard, a slider, and it begins anew with a sentence", async () => {
    const { page, context } = await app.session();
    await openProject(page, "Moss terrarium keeper", "firmware");
    const trial = page.getByTestId("try-it");
    await trial.getByRole("button", { name: "Start" }).click();
    const log = trial.getByRole("log");
    await log.getByText(/25\.1 C 42 % 1007 hPa {2}running 1 s/).waitFor();
    await trial
      .getByText(/25\.1 C 42 % 1007 hPa/)
      .first()
      .waitFor();
    await trial.getByRole("button", { name: "Mist button" }).focus();
    await page.keyboard.down(" ");
    await log.getByText(/Mist button pressed/).waitFor();
    await page.keyboard.up(" ");
    await trial.getByRole("slider", { name: "Air sensor: temperature" }).focus();
    await page.keyboard.press("Home");
    await log.getByText(/-40\.0 C/).waitFor();
    expect(await axeViolations(page)).toEqual([]);
    await page
      .getByTestId("rules")
      .getByRole("button", { name: /^Take out/ })
      .first()
      .click();
    await page.waitForFunction(() => !document.querySelector('[role="log"]')?.textContent?.includes("pressed"));
    await log.getByText(/running 1 s/).waitFor();
    await trial.getByRole("button", { name: "Pause" }).click();
    await trial.getByRole("button", { name: "Go on" }).waitFor();
    await context.close();
  });
  it("firmware: from an empty project to a bare chip's program and its programmer's wires", async () => {
    const { page, context } = await app.session();
    await makeProject(app, page, "Night light", { parts: [], links: [] }, "parts");
    await addPart(page, "chip/attiny85-dip8");
    await page
      .getByTestId(/^part-/)
      .first()
      .waitFor();
    await addPart(page, "supply/aa-3");
    await addPart(page, "discrete/led-red");
    await page.getByTestId("part-LED1").waitFor();
    await page.getByRole("link", { name: /Firmware/ }).click();
    await page.getByRole("button", { name: "Add the programmer" }).click();
    await says(page, "Ready to wire");
    await expect.poll(() => page.getByRole("button", { name: "Add the programmer" }).count()).toBe(0);
    const code = page.getByTestId("code");
    await page.getByRole("radio", { name: "UPLOAD.md" }).click();
    await code.getByText(/Join the programmer/).waitFor();
    await page.getByRole("radio", { name: "Makefile", exact: true }).click();
    await code.getByText(/PROGRAMMER = usbasp/).waitFor();
    await page.getByRole("link", { name: /Wiring/ }).click();
    await page.getByText("M1.MOSI").first().waitFor();
    await context.close();
  });
  it("firmware: a board sleeps between readings, and what its cells make of it follows", async () => {
    const { page, context } = await app.session();
    const { project } = assign(
      make([
        { ref: "B1", part: "board/rp2040-forty", label: "Controller" },
        { ref: "S1", part: "supply/li-ion-1s", label: "Cell" },
        { ref: "M1", part: "module/bme280", label: "Air" },
        { ref: "SW1", part: "discrete/button", label: "Go" },
      ]),
      catalogue,
    );
    const { parts, links } = project;
    await makeProject(app, page, "Sleeper", { parts, links }, "firmware");
    const sleep = page.getByRole("region", { name: "Sleep between readings" });
    await sleep.getByRole("combobox", { name: "A round takes" }).focus();
    await page.keyboard.press("Enter");
    await page.getByRole("option", { name: "every 15 minutes" }).click();
    await sleep.getByText(/Cell gives [\d.]+ mA on average and lasts/).waitFor();
    await page.getByTestId("code").getByText("lightsleep").first().waitFor();
    // What is not heard meanwhile is in the ledger.
    await page
      .locator("#ledger")
      .getByText(/does not hear Go/)
      .waitFor();
    await openProject(page, "Sleeper", "power");
    await page.getByText(/B1 is awake for \d+ seconds of every 15 minutes, as chosen at Firmware/).waitFor();
    await openProject(page, "Sleeper", "firmware");
    await sleep.getByRole("combobox", { name: "A round takes" }).click();
    await page.getByRole("option", { name: "never: always awake" }).click();
    await sleep.getByText(/on average/).waitFor({ state: "detached" });
    await saved(page);
    await context.close();
  });

  it("firmware: a board that gets no program is named, with the reason", async () => {
    const { page, context } = await app.session();
    const base = catalogue.get("board/stm32f411-forty")!;
    const other = { ...base, id: "board/other", board: { ...base.board!, chip: "QX900", targets: {} } };
    const parts = [
      { ref: "B1", part: other.id, label: "Weather box" },
      { ref: "D1", part: "discrete/led-red", label: "Lamp" },
    ];
    const own = { customParts: [other] };
    await makeProject(app, page, "Unknown board", { parts, links: [], ...own }, "firmware");
    await page.getByText("No program for Weather box (B1):").waitFor();
    await page.getByRole("link", { name: /Firmware no program/ }).waitFor();
    // Beside another board: that one has its program, its files and its pin names.
    const two = [
      ...parts.map((p) => (p.ref === "D1" ? { ...p, host: "B2" } : p)),
      { ref: "B2", part: "board/rp2040-forty" },
    ];
    const links = [
      { from: "D1.A", to: "B2.GP10" },
      { from: "D1.K", to: "B2.GND" },
    ];
    await makeProject(app, page, "Two boards", { parts: two, links, ...own }, "firmware");
    await page.getByText("No program for Weather box (B1):").waitFor();
    await page.getByRole("radio", { name: "B2/main.py" }).waitFor();
    await page.getByRole("button", { name: "B2 GP10" }).waitFor();
    expect(await page.getByTestId("download-firmware").count()).toBe(1);
    await makeProject(app, page, "Unknown board again", { parts, links: [], ...own }, "firmware");
    expect(await page.getByTestId("download-firmware").count()).toBe(0);
    await context.close();
  });

  it("firmware: own code is written between its marks, nowhere else, saved when left, and goes with the files", async () => {
    const { page, context } = await app.session();
    await openProject(page, "Rain-barrel gauge", "firmware");
    await page.getByTestId("does").getByText("Did it blink three times?").waitFor();
    await page.getByRole("button", { name: "loop", exact: true }).click();
    await page.locator(".cm-own").first().waitFor();
    await page.keyboard.type("mine();");
    await page.keyboard.press("Enter");
    await page.keyboard.type("other();");
    await page.keyboard.press("Control+s");
    const code = page.locator(".cm-content");
    await expect.poll(() => code.innerText()).toMatch(/mine\(\);\n\s*other\(\);\n\s*\/\/ <<< your code: loop/);
    // The rest of the file is the plan's.
    await page.locator(".cm-line", { hasText: "<<< your code: loop" }).click();
    await page.keyboard.type("XX");
    expect(await code.innerText()).not.toContain("XX");
    // Left and come back to, it is there; undo takes it out.
    await page
      .getByRole("link", { name: /^8 Bench|Bench/ })
      .first()
      .click();
    await page.getByRole("heading", { name: "Bench" }).waitFor();
    await page.goBack();
    await page.getByRole("button", { name: "loop", exact: true }).click();
    await expect.poll(() => code.innerText()).toContain("mine();");
    await page.getByRole("button", { name: "Undo" }).click();
    await page.getByRole("button", { name: "loop", exact: true }).click();
    await expect.poll(() => code.innerText()).not.toContain("mine();");
    await context.close();
  });

  it("palette: finds a fix by typing and applies it", async () => {
    const { page, context } = await app.session();
    await openProject(page, "Moss terrarium keeper", "brief");
    const before = await verdict(page);
    expect(before).toMatch(/^Will not work yet/);
    await page.keyboard.press("Control+k");
    await page.getByPlaceholder(/station, part/).fill("fix buffer");
    await page.getByRole("option", { name: /Put a 74AHCT125 buffer/ }).waitFor();
    await page.keyboard.press("Enter");
    await says(page, "Ready to wire");
    await page.keyboard.press("Control+z");
    await says(page, before);
    await page.keyboard.press("?");
    await page.getByRole("dialog", { name: "Keys" }).waitFor();
    await page.keyboard.press("Escape");
    await page.getByRole("dialog").waitFor({ state: "detached" });
    await context.close();
  });

  it("the evening bench stays dark after a reload", async () => {
    const { page, context } = await app.session();
    await openProject(page, "Rain-barrel gauge", "bench");
    await page.getByRole("button", { name: "Dark, for the evening bench" }).click();
    const paper = () => page.evaluate(() => getComputedStyle(document.body).backgroundColor);
    expect(await paper()).toBe("rgb(25, 24, 22)");
    await page.reload();
    await page.getByRole("button", { name: "Light paper" }).waitFor();
    expect(await paper()).toBe("rgb(25, 24, 22)");
    await context.close();
  });
});

describe("what was chosen at a station", () => {
  it("is still there after a look elsewhere; the station's own link leads back to its first view", async () => {
    const { page } = await app.session();
    await openProject(page, "Beehive scale logger", "board");
    const rail = page.getByRole("navigation", { name: "Stations" });
    const wish = page.getByRole("checkbox", { name: /^radio/ });
    await wish.check();
    await rail.getByRole("link", { name: /Wiring/ }).click();
    await page.getByRole("tab", { name: "Lists" }).click();
    await page.waitForURL(/show=lists/);
    await rail.getByRole("link", { name: /Board/ }).click();
    await wish.waitFor();
    expect(await wish.isChecked()).toBe(true);
    await rail.getByRole("link", { name: /Wiring/ }).click();
    await page.waitForURL(/show=lists/);
    expect(await page.getByRole("tab", { name: "Lists" }).getAttribute("aria-selected")).toBe("true");
    await rail.getByRole("link", { name: /Wiring/ }).click();
    await expect.poll(() => page.getByRole("tab", { name: "Run sheet" }).getAttribute("aria-selected")).toBe("true");
  });
});
