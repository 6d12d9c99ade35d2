import { execFileSync } from "node:child_process";
import fs from "node:fs";
import os from "node:os";
import path from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Page } from "playwright-core";
import type { Part } from "../src/core/parts/catalogue";
import { axeViolations, download, openProject, saved, startApp, verdict, type App, chosen, pick } from "./app";

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app?.stop());

const temp = (name: string, text: string) => {
  const file = path.join(fs.mkdtempSync(path.join(os.tmpdir(), "lattice-parts-")), name);
  fs.writeFileSync(file, text);
  return file;
};
const find = (page: Page) => page.getByRole("textbox", { name: /Find by/ });
const tab = (page: Page, name: string) => page.getByRole("tab", { name }).click();

async function start(page: Page, title: string) {
  await page.goto("/");
  await page.getByPlaceholder("Railway crossing").fill(title);
  await page.getByRole("button", { name: "Start a project" }).click();
  await page.waitForURL(/\/p\//);
  await page.getByText("Nothing planned yet").waitFor();
}

async function withBoard(page: Page, title: string, board = "board/rp2040-forty") {
  await start(page, title);
  for (const id of [board, "supply/usb-port"]) {
    await find(page).fill(id);
    await page.locator(`#catalogue li:first-child[data-part="${id}"]`).waitFor();
    await page.getByTestId(`add-${id}`).click();
    await page.waitForTimeout(100);
  }
  await page.getByTestId("part-S1").waitFor();
}

describe("finding parts", () => {
  it("by words, then by facets, then with number, name and options into the project", async () => {
    const { page, context } = await app.session();
    await withBoard(page, "Climate post");
    await find(page).fill("temperature i2c 3.3");
    await page.getByTestId("mark-module/bme280").waitFor();
    const before = Number(/\d+/.exec(await page.getByTestId("found").innerText())![0]);
    expect(before).toBeGreaterThan(3);
    await pick(page.getByLabel("runs at"), "5v");
    await page.waitForFunction(
      (n) => !document.querySelector('[data-testid="found"]')!.textContent!.startsWith(`${n} `),
      before,
    );
    expect(Number(/\d+/.exec(await page.getByTestId("found").innerText())![0])).toBeLessThan(before);
    await pick(page.getByLabel("runs at"), "");

    await page.getByTestId("mark-module/bme280").click();
    const marked = page.getByTestId("marked");
    await pick(marked.getByLabel("I2C address"), "0x77");
    await marked.getByLabel("Name").fill("Outside");
    await page.getByTestId("add-marked").click();
    await page.getByTestId("part-M1").waitFor();
    expect(await page.getByLabel("Name of M1").innerText()).toBe("Outside");
    // Renamed where it stands, by keys; the keyboard goes on from there.
    await page.getByLabel("Name of M1").press("Enter");
    await page.locator('input[aria-label="Name of M1"]:focus').waitFor();
    await page.keyboard.press("Control+A");
    await page.keyboard.type("Garden");
    await page.keyboard.press("Enter");
    await expect.poll(() => page.locator(":focus").innerText()).toBe("Garden");
    expect(await chosen(page.getByTestId("part-M1").getByLabel("I2C address"))).toBe("0x77");

    // Three at once, numbered.
    await find(page).fill("red led");
    await page.getByTestId("mark-discrete/led-red").click();
    await marked.getByLabel("How many").fill("3");
    await marked.getByLabel("Name").fill("Lamp");
    await page.getByRole("button", { name: "Add 3" }).click();
    await page.getByTestId("part-LED3").waitFor();
    expect(await page.getByLabel("Name of LED3").innerText()).toBe("Lamp 3");
    await marked.getByLabel("How many").fill("3000");
    expect(await page.getByText("a whole number from 1 to 50").isVisible()).toBe(true);
    await expect.poll(() => verdict(page)).toBe("Ready to wire");
    await context.close();
  });

  it("Enter before the answer has come adds what was typed, nothing else", async () => {
    const { page, context } = await app.session();
    await withBoard(page, "Quick fingers");
    await find(page).fill("");
    await find(page).focus();
    await find(page).fill("red led");
    await page.keyboard.press("Enter");
    await page.getByTestId("part-LED1").waitFor();
    const there = await page
      .getByTestId(/^part-[A-Z]/)
      .evaluateAll((all) => all.map((e) => e.getAttribute("data-testid")));
    expect(there.sort()).toEqual(["part-B1", "part-LED1", "part-S1"]);
    await context.close();
  });
  it("with the keyboard alone", async () => {
    const { page, context } = await app.session();
    await withBoard(page, "Keys only");
    await find(page).focus();
    await page.keyboard.press("Control+a");
    await page.keyboard.type("distance");
    await page
      .locator(
        '#catalogue li:first-child[data-part="module/hc-sr04"], #catalogue li:first-child[data-part="module/vl53l0x"], #catalogue li:first-child[data-part="module/ultrasonic-3v3"]',
      )
      .waitFor();
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("ArrowDown");
    const pressed = page.locator('#catalogue button[aria-pressed="true"]');
    await pressed.waitFor();
    const id = (await pressed.getAttribute("data-testid"))!.replace("mark-", "");
    await page.keyboard.press("Enter");
    await page.getByTestId("part-M1").waitFor();
    await saved(page);
    const project = await page.evaluate(async () => {
      const r = await fetch(`/api/projects/${location.pathname.split("/")[2]}`);
      return ((await r.json()) as { document: { parts: { part: string }[] } }).document;
    });
    expect(project.parts.at(-1)!.part).toBe(id);
    await context.close();
  });

  it("up to four side by side, only what differs", async () => {
    const { page, context } = await app.session();
    await withBoard(page, "Which sensor");
    for (const [word, id] of [
      ["bme280", "module/bme280"],
      ["sht31", "module/sht31"],
      ["dht22", "module/dht22"],
    ] as const) {
      await find(page).fill(word);
      await page.getByTestId(`mark-${id}`).click();
      await page.getByTestId("marked").getByLabel("compare").check();
    }
    await page.getByRole("button", { name: "Side by side" }).click();
    const table = page.getByTestId("compare");
    await table.waitFor();
    await expect.poll(() => table.innerText()).toContain("0x44, 0x45");
    const rows = await table.getByRole("row").count();
    await page.getByLabel("only what differs").check();
    expect(await table.getByRole("row").count()).toBeLessThanOrEqual(rows);
    await table.getByRole("button", { name: "Leave out" }).first().click();
    await page.waitForFunction(() => document.querySelectorAll('[data-testid="compare"] th').length === 3);
    await page.keyboard.press("Escape");
    expect(await page.getByTestId("compare").count()).toBe(0);
    await context.close();
  });
});

const MESSY = `\uFEFFPos;Qty;Part;Value;Shop note
;3;"Resistor, carbon";4k7;bag
R2;2;LED;blue;
;1;Air sensor BME280 breakout;;new
;1;ESP32 dev board;;
;2;Capacitor;100 nF;
;1;soil moisture sensor;;
;20;jumper wires;;
;1;unobtainium;;
`;

describe("taking over a parts list", () => {
  it("a messy CSV: shown first, asks only what is unclear, then into project and drawer", async () => {
    const { page, context } = await app.session();
    await withBoard(page, "From a sheet");
    await tab(page, "Paste a list");
    await page.getByLabel("Parts list file").setInputFiles(temp("list.csv", MESSY));
    await page.getByTestId("list-sum").waitFor();
    await expect.poll(() => page.getByTestId("list-sum").innerText()).toBe("4 clear, 2 to choose, 2 left out.");
    // Nothing has changed yet.
    expect(await page.getByText("7 parts").count()).toBe(0);
    await page.getByLabel("What soil moisture sensor is").click();
    await page.getByRole("option", { name: "Soil moisture, no bare metal · TLC555" }).click();
    expect(await chosen(page.getByLabel("Where soil moisture sensor goes"))).toBe("project");
    await page.getByLabel("How many of LED blue").fill("1");
    const take = page.getByTestId("take-list");
    await expect.poll(() => take.innerText()).toBe("Take over 3 parts and 2 lines into the drawer");
    await take.click();
    await page.getByTestId("part-M2").waitFor();
    expect(await page.getByTestId("part-LED1").isVisible()).toBe(true);
    await tab(page, "My drawer");
    await expect.poll(() => page.getByTestId("values-Ω").innerText()).toContain("4.7 kΩ");
    await expect.poll(() => page.getByTestId("values-F").innerText()).toContain("100 nF");
    // One step back undoes all of it.
    await page.getByRole("button", { name: "Undo" }).click();
    await page.getByText("Nothing noted: plans use any value of the E12").waitFor();
    await context.close();
  });
  it("says what is wrong with a file that is no list, and changes nothing", async () => {
    const { page, context } = await app.session();
    await withBoard(page, "Wrong file");
    await tab(page, "Paste a list");
    await page.getByLabel("Parts list file").setInputFiles(temp("photo.csv", "\u0000\u0001\u0002"));
    await page.getByRole("alert").filter({ hasText: "is not text" }).waitFor();
    await page.getByLabel("Parts list", { exact: true }).fill("");
    await page.getByRole("button", { name: "Read it" }).click();
    await page.getByRole("alert").filter({ hasText: "one part a line" }).waitFor();
    await page.getByLabel("Parts list", { exact: true }).fill('<img src=x onerror="alert(1)">\n=SUM(A1)');
    await page.getByRole("button", { name: "Read it" }).click();
    await page.getByTestId("list-sum").waitFor();
    expect(await page.locator("main img").count()).toBe(0);
    await context.close();
  });
});

describe("the drawer", () => {
  it("is preferred by the plan, counted in the list, and there in the next project", async () => {
    const { page, context } = await app.session();
    await withBoard(page, "Drawer first");
    await tab(page, "My drawer");
    await page.getByLabel("Add resistors").fill("270, 1k 4k7");
    await page.keyboard.press("Enter");
    await page.getByTestId("values-Ω").getByText("270 Ω").waitFor();
    await page.getByLabel("Add resistors").fill("twelve");
    await page.keyboard.press("Enter");
    await page.getByRole("alert").filter({ hasText: '"twelve" is not a quantity' }).waitFor();
    await tab(page, "Find");
    await find(page).fill("red led");
    await page.getByTestId("mark-discrete/led-red").click();
    await page.getByRole("button", { name: "One more in the drawer" }).click();
    await page.getByTestId("owned").filter({ hasText: "1" }).waitFor();
    await page.getByTestId("add-marked").click();
    await page.getByTestId("part-LED1").waitFor();
    await expect.poll(() => page.getByTestId("part-LED1").innerText()).toContain("270 Ω");
    await saved(page);
    const [plan] = [
      await download(page, () =>
        page.goto(page.url().replace(/parts.*/, "handout")).then(() => page.getByTestId("download-plan").click()),
      ),
    ];
    const csv = execFileSync("unzip", ["-p", plan!, "parts.csv"], { encoding: "utf8" });
    expect(csv).toMatch(/discrete\/led-red,.*,LED1,.*,1,1,[A-Z]{8}\r?$/m);
    await start(page, "The next one");
    await tab(page, "My drawer");
    await page.getByTestId("values-Ω").getByText("270 Ω").waitFor();
    await expect.poll(() => page.getByTestId("owned-parts").innerText()).toContain("red LED");
    await context.close();
  });
});

const TABLE =
  "Pin\tName\tType\tDescription\n1\tVCC\tP\tsupply\n2\tGND\tP\tground\n3\tSCL\tI\tI2C clock\n4\tSDA\tI/O\tI2C data\n5\tALERT\tO\topen drain, low when loud";

describe("an own part", () => {
  it("with a regulator, a load supply, straps, an enable, a capacitor and two rows, by the editor", async () => {
    const { page, context } = await app.session();
    await withBoard(page, "Wind post");
    await tab(page, "Own parts");
    await page.getByRole("button", { name: "Make an own part" }).click();
    await page.getByLabel("Name", { exact: true }).fill("Wind meter");
    await page.getByLabel(/Labels in printed order/).fill("VIN, GND, SDA, SCL, AD0, EN, VM, HEAT");
    await page.getByRole("button", { name: "Read the pins" }).click();
    await page.getByTestId("pin-row-7").waitFor();
    await pick(page.getByLabel("Role of pin 5"), "strap");
    await pick(page.getByLabel("Role of pin 8"), "open-both");
    await page.getByTestId("pin-row-5").getByRole("button", { name: "strap, rest" }).click();
    await page.getByTestId("pin-row-5").getByLabel("must not be left open").check();

    // Three supplies: what it is fed with, what its regulator makes of it, and one for its heater.
    const another = page.getByRole("button", { name: /it has another supply/ });
    await another.click();
    await another.click();
    const supply = (key: string) => page.getByRole("group", { name: `Supply ${key}` });
    await supply("main").getByLabel("Supply range").fill("3.3 to 5.5 V");
    await supply("main").getByLabel("Largest current").fill("12 mA");
    await supply("load").getByLabel("Supply range").fill("4.5 to 12 V");
    await supply("load").getByLabel("Largest current").fill("900 mA");
    await supply("load")
      .getByLabel(/hang on it/)
      .check();
    await supply("second").getByLabel("Supply range").fill("3.3V ±3%");
    await supply("second").getByLabel("VIH: a high from").fill("0.7 VDD");
    await supply("second").getByLabel("VIL: a low up to").fill("0.3 VDD");
    await pick(page.getByLabel("Supply of pin 7"), "load");
    for (const n of [3, 4, 5, 6, 8]) await pick(page.getByLabel(`Supply of pin ${n}`), "second");
    await page.getByRole("button", { name: "one supply is made from another" }).click();
    const feed = page.getByRole("group", { name: "Regulator or diode 1" });
    await pick(feed.getByLabel("To supply"), "second");
    await page.getByText("what it gives, like 3.3 V ±2% is missing").waitFor();
    await feed.getByLabel("It gives").fill("3.3V ±3%");
    await feed.getByLabel("At most").fill("150 mA");

    await page.getByLabel("Fastest clock").fill("400 kHz");
    for (const [i, address, to] of [
      [1, "0x40", "ground"],
      [2, "0x41", "supply"],
    ] as const) {
      await page.getByRole("button", { name: "a strap chooses its address" }).click();
      const row = page.getByRole("group", { name: `Address strap ${i}` });
      await row.getByLabel("Address", { exact: true }).fill(address);
      await pick(row.getByLabel("When pin"), "AD0");
      await pick(row.getByLabel("is", { exact: true }), to);
    }
    await page.getByRole("button", { name: "it has an enable" }).click();
    const gate = page.getByRole("group", { name: "Enable or reset 1" });
    await pick(gate.getByLabel("Pin", { exact: true }), "EN");
    await gate.getByLabel("The part").fill("is awake");
    await page.getByRole("button", { name: /wants a resistor or a capacitor/ }).click();
    const beside = page.getByRole("group", { name: "Resistor or capacitor 1" });
    await pick(beside.getByLabel("At pin"), "VIN");
    await pick(beside.getByLabel("And pin"), "GND");
    await pick(page.getByLabel("How the pins stand"), "sides");
    await page.getByText("how many of the 8 pins are in the first row?").waitFor();
    await page.getByLabel("Pins in the first row").fill("4");
    await page.getByLabel("Rows apart").fill("15.24 mm");
    await page.getByTestId("save-own").click();
    await page.getByTestId("own-module/wind-meter").waitFor();

    const file = await download(page, () =>
      page.getByTestId("own-module/wind-meter").getByRole("button", { name: "file" }).click(),
    );
    const part = JSON.parse(fs.readFileSync(file, "utf8")) as Part;
    expect(part.converters).toHaveLength(1);
    expect(part.supplies.load!.forLoads).toBe(true);
    expect(part.gates).toEqual([{ pin: "EN", open: "high", says: "is awake" }]);
    expect(part.pins.find((p) => p.label === "EN")!.mustNotFloat).toBe(true);
    expect(part.body.prints![0]!.rows.map((r) => r.length)).toEqual([4, 4]);
    expect(part.options.map((o) => o.key)).toEqual(["address"]);
    // In the project: the strap is wired with the rest.
    await tab(page, "Find");
    await find(page).fill("wind meter");
    await page.getByTestId("add-module/wind-meter").click();
    await page.getByTestId("part-M1").waitFor();
    await saved(page);
    await page.goto(page.url().replace(/parts.*/, "wiring"));
    await page.getByText("M1.AD0").first().waitFor();
    await context.close();
  });

  it("a board with the chip of a known one, from the labels of its two rows", async () => {
    const { page, context } = await app.session();
    await start(page, "My own board");
    await tab(page, "Own parts");
    await pick(page.getByLabel("Make a board with the chip of"), "board/esp32-thirtyeight");
    await page.getByLabel("Name", { exact: true }).fill("Mine with thirty pins");
    await page
      .getByLabel(/Labels in printed order/)
      .fill("3V3 EN 36 39 34 35 32 33 25 26 27 14 12 GND 13 GND 23 22 TX RX 21 GND 19 18 5 17 16 4 0 2");
    await page.getByRole("button", { name: "Add these pins" }).click();
    await page.getByLabel("Pins in the first row").fill("15");
    await page.getByLabel("Rows apart").fill("25.4 mm");
    await page.getByTestId("save-own").click();
    await page.getByTestId("own-board/mine-with-thirty-pins").getByRole("button", { name: "add" }).click();
    await tab(page, "Find");
    for (const id of ["supply/usb-port", "module/bme280"]) {
      await find(page).fill(id);
      await page.locator(`#catalogue li:first-child[data-part="${id}"]`).waitFor();
      await page.getByTestId(`add-${id}`).click();
    }
    await page.getByTestId("part-M1").waitFor();
    await expect.poll(() => verdict(page)).toContain("Ready to wire");
    await context.close();
  });

  it("from a data sheet's table to the program that tests it", async () => {
    const { page, context } = await app.session();
    await withBoard(page, "Listening post");
    await tab(page, "Own parts");
    await page.getByRole("button", { name: "Make an own part" }).click();
    const save = page.getByTestId("save-own");
    expect(await save.isDisabled()).toBe(true);
    await page.getByLabel("Name", { exact: true }).fill("Loudness sensor");
    await page.getByLabel("Where the numbers come from").fill("its data sheet");
    await page.getByLabel(/Labels in printed order/).fill(TABLE);
    await page.getByRole("button", { name: "Read the pins" }).click();
    await page.getByTestId("pin-row-4").waitFor();
    expect(await chosen(page.getByLabel("Role of pin 4"))).toBe("i2c-sda");
    expect(await chosen(page.getByLabel("Role of pin 5"))).toBe("open-drain");
    await page.getByLabel("Pin 5 may stay free").check();
    // Units are understood, mistakes are told at the field.
    await page.getByLabel("Supply range").fill("3.6 to 1.8");
    await page.getByText("the smallest comes first").waitFor();
    await page.getByLabel("Supply range").fill("1.8 to 3.6 V");
    await page.getByLabel("Largest current").fill("4500 µA");
    await page.getByLabel("Absolute maximum").fill("4V");
    await page.getByLabel("VIH: a high from").fill("0.7 VDD");
    await page.getByLabel("VIL: a low up to").fill("30 % of VDD");
    await page.getByLabel("I2C address").fill("0xB8");
    await page.getByText("as 7 bits it is 0x5c").waitFor();
    await page.getByLabel("I2C address").fill("0x5c");
    await page.getByLabel("Fastest clock").fill("400 kHz");
    await page.getByLabel("Pull-ups on board").fill("4k7");
    await page.getByLabel("How to hold it").fill("hole up");
    await page
      .getByTestId("readiness")
      .getByRole("button", { name: /can be judged/ })
      .click();
    await page.getByText("Everything that the app judges is there.").waitFor();
    // A look elsewhere loses nothing.
    await page.getByRole("navigation", { name: "Stations" }).getByRole("link", { name: "Board" }).click();
    await page.waitForURL(/\/board$/);
    await page.goBack();
    await page.getByTestId("pin-row-4").waitFor();
    expect(await page.getByLabel("I2C address").inputValue()).toBe("0x5c");
    await save.click();
    await page.getByTestId("own-module/loudness-sensor").waitFor();

    await tab(page, "Find");
    await find(page).fill("loudness");
    await page.getByTestId("add-module/loudness-sensor").click();
    await page.getByTestId("part-M1").waitFor();
    await expect.poll(() => verdict(page)).toBe("Ready to wire");
    await saved(page);
    await page.goto(page.url().replace(/parts.*/, "firmware"));
    await page.getByTestId("verdict").waitFor();
    const zip = await download(page, () => page.getByTestId("download-firmware").click());
    const programs = execFileSync("unzip", ["-p", zip], { encoding: "utf8" });
    expect(programs).toContain("YL1 i2c M1 addr=0x5c");

    // As a file, and in another project without a file.
    await page.goto(page.url().replace(/firmware.*/, "parts?show=own"));
    const file = await download(page, () =>
      page.getByTestId("own-module/loudness-sensor").getByRole("button", { name: "file" }).click(),
    );
    expect(path.basename(file)).toBe("loudness-sensor.part.json");
    const part = JSON.parse(fs.readFileSync(file, "utf8")) as { levels: Record<string, { VIH: string }>; id: string };
    expect(part.levels.main_open!.VIH).toBe("0.7*V");
    await start(page, "Second post");
    await find(page).fill("loudness");
    await page.getByTestId("mark-module/loudness-sensor").waitFor();

    // A file with mistakes is refused with their places; a good one is taken.
    await tab(page, "Own parts");
    part.levels.main_open!.VIH = "2 volts";
    await page.getByLabel("Part file").setInputFiles(temp("bad.part.json", JSON.stringify({ ...part, colour: 1 })));
    await page.getByText("levels/main_open/VIH").waitFor();
    await expect
      .poll(() => page.getByRole("alert").filter({ hasText: "was not taken" }).innerText())
      .toContain("colour");
    part.levels.main_open!.VIH = "0.7*V";
    await page
      .getByLabel("Part file")
      .setInputFiles(temp("good.part.json", JSON.stringify({ ...part, id: "module/from-a-file" })));
    await page.getByTestId("own-module/from-a-file").waitFor();
    await context.close();
  });

  it("pins in another order by drag, by keys and by a button; the other kind follows", async () => {
    const { page, context } = await app.session();
    await withBoard(page, "Order");
    await tab(page, "Own parts");
    await page.getByRole("button", { name: "Make an own part" }).click();
    await page.getByLabel(/Labels in printed order/).fill("VCC, GND, SDA, SCL");
    await page.getByRole("button", { name: "Read the pins" }).click();
    await page.getByTestId("pin-row-3").waitFor();
    await page.getByRole("button", { name: /there is another kind/ }).click();
    const [first, other] = [
      page.getByRole("table", { name: "Pins" }).first(),
      page.getByRole("table", { name: "Pins" }).last(),
    ];
    const labels = () =>
      first
        .locator('input[aria-label^="Label of pin"]')
        .evaluateAll((l) => l.map((i) => (i as HTMLInputElement).value));
    const otherLabels = () => other.locator("td:nth-child(2)").allInnerTexts();
    const both = async (want: string[]) => {
      await expect.poll(labels).toEqual(want);
      await expect.poll(otherLabels).toEqual(want);
    };
    await both(["VCC", "GND", "SDA", "SCL"]);
    const grip = (n: number) => page.getByRole("button", { name: `Move pin ${n}`, exact: true });
    const box = async (n: number) => (await grip(n).boundingBox())!;
    await grip(4).scrollIntoViewIfNeeded();
    const [from, to] = [await box(1), await box(3)];
    await page.mouse.move(from.x + 5, from.y + 5);
    await page.mouse.down();
    await page.mouse.move(from.x + 5, from.y + 15, { steps: 3 });
    await page.mouse.move(to.x + 5, to.y + 8, { steps: 6 });
    await page.mouse.up();
    await both(["GND", "SDA", "VCC", "SCL"]);
    await grip(4).focus();
    await page.keyboard.press("Space");
    await page.waitForTimeout(100);
    await page.keyboard.press("ArrowUp");
    await page.waitForTimeout(300);
    await page.keyboard.press("Space");
    await both(["GND", "SDA", "SCL", "VCC"]);
    await page.getByRole("button", { name: "Pin 2 up" }).click();
    await page.getByLabel("Label of pin 1").fill("DATA");
    await both(["DATA", "GND", "SCL", "VCC"]);
    await page.getByRole("button", { name: "Take pin 2 out" }).click();
    await both(["DATA", "SCL", "VCC"]);
    await context.close();
  });

  it("a copy of a catalogue part, with one number changed", async () => {
    const { page, context } = await app.session();
    await withBoard(page, "Copy");
    await find(page).fill("hc-sr04");
    await page.getByTestId("mark-module/hc-sr04").click();
    await page.getByRole("button", { name: "copy as own" }).click();
    // The marked part's panel has a "Name" too: only when the editor is there is it the editor's.
    await page.getByTestId("save-own").waitFor();
    await page.getByLabel("Name", { exact: true }).fill("Echo, waterproof");
    await page.getByLabel("Largest current").fill("40 mA");
    await page.getByTestId("save-own").click();
    await page.getByTestId("own-module/echo-waterproof").getByRole("button", { name: "add" }).click();
    await tab(page, "Find");
    await page.getByTestId("part-M1").waitFor();
    // It still has what the original says: its echo is too high for this board, so the plan brings a divider.
    await expect.poll(() => verdict(page)).toBe("Ready to wire");
    await expect
      .poll(() => page.getByTestId("part-M1").innerText())
      .toMatch(/with .*Ω .*more volts than the board's pin takes/);
    await context.close();
  });

  it("a keyboard plug with named pins and one that is not used", async () => {
    const { page, context } = await app.session();
    await withBoard(page, "Old keyboard", "board/atmega328p-long");
    await find(page).fill("din6");
    await page.getByTestId("add-connector/din6").click();
    const row = page.getByTestId("part-J1");
    await row.waitFor();
    await pick(row.getByLabel("Role of pin 1"), "open-drain");
    await row.getByLabel("Name of pin 1").fill("DATA");
    await row.getByLabel("Name of pin 1").blur();
    await pick(row.getByLabel("Role of pin 2"), "unused");
    await pick(row.getByLabel("Role of pin 3"), "ground");
    await saved(page);
    const project = await page.evaluate(async () => {
      const r = await fetch(`/api/projects/${location.pathname.split("/")[2]}`);
      return ((await r.json()) as { document: { parts: { ref: string; options?: unknown }[] } }).document;
    });
    expect(project.parts.find((p) => p.ref === "J1")!.options).toEqual({
      pins: { "1": { role: "open-drain", name: "DATA" }, "2": null, "3": { role: "ground" } },
    });
    await context.close();
  });
});

describe("part pages", () => {
  it("say what it is, its pins, levels, sources and where it is used", async () => {
    const { page, context } = await app.session();
    await openProject(page, "Moss terrarium keeper", "parts");
    await find(page).fill("bme280");
    await page.getByTestId("mark-module/bme280").click();
    await page.getByTestId("part-page").click();
    await page.getByRole("heading", { name: /BME280/, level: 1 }).waitFor();
    expect(await page.getByTestId("pin-table").getByRole("row").count()).toBe(7);
    await expect.poll(() => page.getByRole("region", { name: "Sources" }).innerText()).toContain("BME280 data sheet");
    await page.getByTestId("used-in").getByRole("link", { name: "Moss terrarium keeper" }).waitFor();
    await page.goto("/parts/board/esp32-thirtyeight");
    await expect.poll(() => page.getByTestId("pin-table").innerText()).toContain("touch 0");
    expect((await page.goto("/parts/module/nothing"))!.status()).toBe(404);
    await context.close();
  });
});

describe("axe finds nothing", () => {
  const places: [string, (page: Page) => Promise<void>][] = [
    [
      "a marked part",
      async (p) => {
        await find(p).fill("bme280");
        await p.getByTestId("mark-module/bme280").click();
      },
    ],
    [
      "a list",
      async (p) => {
        await tab(p, "Paste a list");
        await p.getByLabel("Parts list", { exact: true }).fill(MESSY);
        await p.getByRole("button", { name: "Read it" }).click();
        await p.getByTestId("list-sum").waitFor();
      },
    ],
    ["the drawer", async (p) => tab(p, "My drawer")],
    [
      "the editor",
      async (p) => {
        await tab(p, "Own parts");
        await p.getByRole("button", { name: "Make an own part" }).click();
        await p.getByLabel(/Labels in printed order/).fill(TABLE);
        await p.getByRole("button", { name: "Read the pins" }).click();
        await p.getByTestId("pin-row-4").waitFor();
      },
    ],
    [
      "a part page",
      async (p) => {
        await p.goto("/parts/board/rp2040-forty");
        await p.getByTestId("pin-table").waitFor();
      },
    ],
  ];
  it.each(places)("%s, light and dark", async (_n, go) => {
    const { page, context } = await app.session();
    await openProject(page, "Moss terrarium keeper", "parts");
    await go(page);
    for (const colorScheme of ["light", "dark"] as const) {
      await page.emulateMedia({ colorScheme });
      await page.waitForTimeout(300);
      expect(await axeViolations(page), colorScheme).toEqual([]);
    }
    await context.close();
  });
});
