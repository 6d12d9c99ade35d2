import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Page } from "playwright-core";
import { axeViolations, pick, saved, startApp, verdict, type App } from "./app";

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app?.stop());

const find = (page: Page) => page.getByRole("textbox", { name: /Find by/ });

async function begin(page: Page, title: string, ids: string[]) {
  await page.goto("/");
  await page.getByPlaceholder("Railway crossing").fill(title);
  await page.getByRole("button", { name: "Start a project" }).click();
  await page.waitForURL(/\/p\//);
  await page.getByText("Nothing planned yet").waitFor();
  for (const id of ids) {
    await find(page).fill(id);
    await page.locator(`#catalogue li:first-child[data-part="${id}"]`).waitFor();
    await page.getByTestId(`add-${id}`).click();
    await page.waitForTimeout(100);
  }
}
const project = async (page: Page) => {
  await saved(page);
  const id = /\/p\/([^/?]+)/.exec(page.url())![1]!;
  return (await (await page.request.get(`/api/projects/${id}`)).json()).document as {
    parts: { ref: string; print?: unknown; options?: unknown }[];
    links: { from: string; to: string }[];
  };
};
const printOf = async (page: Page, ref: string) => (await project(page)).parts.find((p) => p.ref === ref)?.print;
const BOARD = ["board/rp2040-forty", "supply/usb-port"];

describe("looking at a header", () => {
  it("is asked when the part is added, answered by one press, and known for the next", async () => {
    const { page, context } = await app.session();
    await begin(page, "Pond board", [...BOARD, "module/ssd1306-i2c"]);
    const check = page.getByRole("region", { name: "Header of M1" });
    await check.waitFor();
    expect(await verdict(page)).toMatch(/risk/);
    expect(await axeViolations(page)).toEqual([]);
    await check.getByRole("button", { name: "Mine reads like this: VCC GND SCL SDA" }).click();
    await page.getByText(/VCC GND SCL SDA, looked at/).waitFor();
    expect(await printOf(page, "M1")).toEqual({ id: "b" });
    expect(await verdict(page)).not.toMatch(/risk/);
    await find(page).fill("module/ssd1306-i2c");
    await page.getByTestId("add-module/ssd1306-i2c").click();
    await page.getByTestId("part-M2").waitFor();
    expect(await printOf(page, "M2")).toEqual({ id: "b" });
    // And it can be looked at again.
    await page.getByRole("button", { name: "Details of M1" }).click();
    await page.getByRole("button", { name: "look again at the header of M1" }).click();
    await check.getByRole("button", { name: "Mine reads like this: GND VCC SCL SDA" }).click();
    await page.getByText(/GND VCC SCL SDA, looked at/).waitFor();
    await context.close();
  });

  it("by keyboard alone, with labels that nobody knows, told what they are", async () => {
    const { page, context } = await app.session();
    await begin(page, "Ferry deck", [...BOARD, "module/scd41"]);
    const check = page.getByRole("region", { name: "Header of M1" });
    await check.waitFor();
    await check.getByRole("button", { name: /None of these/ }).focus();
    await page.keyboard.press("Enter");
    const order = page.getByTestId("own-order");
    const text = order.getByRole("textbox").first();
    await text.focus();
    await page.keyboard.press("Control+A");
    await page.keyboard.type("GND CLOCK PWR SDA X");
    await order.getByText("CLOCK is not known here").waitFor();
    const take = order.getByRole("button", { name: "Mine reads like this, in this order" });
    expect(await take.isDisabled()).toBe(true);
    await pick(order.getByLabel("What CLOCK is"), "SCL");
    await pick(order.getByLabel("What PWR is"), "VCC");
    await pick(order.getByLabel("What X is"), "nothing");
    await pick(order.getByLabel("Where the header is"), "top");
    // Space lifts a label, the arrow moves it, Space puts it down.
    await order.getByRole("button", { name: "X, 5 of 5: move it" }).focus();
    await page.keyboard.press("Space");
    await page.waitForTimeout(150);
    await page.keyboard.press("ArrowLeft");
    await page.waitForTimeout(300);
    await page.keyboard.press("Space");
    await order.getByRole("button", { name: "X, 4 of 5: move it" }).waitFor();
    expect(await text.inputValue()).toBe("GND CLOCK PWR X SDA");
    expect(await axeViolations(page)).toEqual([]);
    await take.focus();
    await page.keyboard.press("Enter");
    await page.getByText(/GND CLOCK PWR X SDA, looked at/).waitFor();
    expect(await printOf(page, "M1")).toEqual({
      rows: [["GND", "CLOCK", "PWR", "X", "SDA"]],
      edge: "top",
      names: { CLOCK: "SCL", PWR: "VCC", X: null },
    });
    await context.close();
  });

  it("a print with a regulator brings what goes with it, one with more pins gets them wired", async () => {
    const { page, context } = await app.session();
    await begin(page, "Snow gauge", [...BOARD, "module/bme280"]);
    const check = page.getByRole("region", { name: "Header of M1" });
    await check.getByRole("button", { name: /VIN GND SCL SDA/ }).click();
    await page.getByText(/VIN GND SCL SDA, looked at/).waitFor();
    expect((await project(page)).parts.find((p) => p.ref === "M1")!.options).toMatchObject({ supply: "regulated" });
    await page.getByRole("button", { name: "look again at the header of M1" }).click();
    await check.getByRole("button", { name: /CSB SDO/ }).click();
    await page.getByText(/CSB SDO, looked at/).waitFor();
    const { links } = await project(page);
    expect(links.map((l) => `${l.from} ${l.to}`).join()).toMatch(/M1\.CSB/);
    await context.close();
  });

  it("from the drawer, for every project that comes", async () => {
    const { page, context } = await app.session();
    await begin(page, "Tide clock", [...BOARD, "module/pir"]);
    await page.getByRole("button", { name: "One more", exact: false }).first().click();
    await page.getByRole("tab", { name: "My drawer" }).click();
    const table = page.getByRole("table", { name: "Owned parts" });
    await table.getByRole("button", { name: /^look at it/ }).click();
    await page.getByRole("button", { name: "Mine reads like this: GND OUT VCC" }).click();
    await table.getByText("GND OUT VCC").waitFor();
    expect(await axeViolations(page)).toEqual([]);
    await page.getByRole("tab", { name: "Find" }).click();
    await find(page).fill("module/pir");
    await page.getByTestId("add-module/pir").click();
    await page.getByTestId("part-M2").waitFor();
    expect(await printOf(page, "M2")).toEqual({ id: "b" });
    expect(await printOf(page, "M1")).toBeUndefined();
    await context.close();
  });

  it("on a phone, by touch, without anything running out of the screen", async () => {
    const { page, context } = await app.session({ width: 390, height: 800 });
    await begin(page, "Bus stop", [...BOARD, "module/relay-1"]);
    const check = page.getByRole("region", { name: /^Header of/ });
    await check.waitFor();
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    await check.getByRole("button", { name: "Mine reads like this: IN GND VCC" }).click();
    await page.getByText(/IN GND VCC, looked at/).waitFor();
    await context.close();
  });
});
