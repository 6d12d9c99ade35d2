import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { axeViolations, openProject, pick, saved, startApp, verdict, type App } from "./app";

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app?.stop());

describe("from an idea to a parts list", () => {
  it("in own words: ways with what decides, another one taken, and a planned project", async () => {
    const { page, context } = await app.session();
    await page.goto("/");
    await page.getByPlaceholder("Railway crossing").fill("Window sill");
    await page.getByRole("button", { name: "Start a project" }).click();
    await page.waitForURL(/\/p\//);
    await page.getByRole("navigation", { name: "Stations" }).getByRole("link", { name: "Brief" }).click();
    const idea = page.getByRole("region", { name: "From an idea to parts" });
    await idea
      .getByLabel(/in your own words/)
      .fill("Tell me when the plants are dry, show it, keep a record, and please my aunt Ida");
    await idea.getByRole("button", { name: "Propose parts" }).click();
    await idea.getByText("from “plants are dry”").waitFor();
    await idea.getByText("Not understood: “please my aunt Ida”").waitFor();
    const soil = idea.getByRole("region", { name: /how wet the soil is/ });
    expect(await soil.getByRole("radio").count()).toBe(2);
    await soil.getByRole("radio").nth(1).click();
    // One thing left out, another one by its verb.
    await idea.getByRole("button", { name: "Leave out: a record of readings" }).click();
    await pick(idea.getByLabel("What should it light?"), "strip");
    await idea.getByRole("region", { name: /many coloured lights/ }).waitFor();
    await idea.getByRole("region", { name: "The board" }).getByRole("radio").nth(1).click();
    if (process.env.SHOT) await page.screenshot({ path: "/tmp/idea.png" });
    expect(await axeViolations(page)).toEqual([]);
    await idea.getByRole("button", { name: "Take these parts and plan them" }).click();
    await expect.poll(() => verdict(page)).toMatch(/^(Ready to wire|Can be wired)/);
    await saved(page);
    await page.getByRole("navigation", { name: "Stations" }).getByRole("link", { name: "Parts" }).click();
    const list = () => page.getByTestId(/^part-[A-Z]/).allInnerTexts();
    await expect.poll(async () => (await list()).join(" ")).toMatch(/two prongs/i);
    expect((await list()).join(" ")).not.toMatch(/card socket/i);
    await context.close();
  });
  it("counts, takes slips, tells what can't be, asks for the missing half, and says what the program does", async () => {
    const { page, context } = await app.session();
    await page.goto("/");
    await page.getByPlaceholder("Railway crossing").fill("Marble alarm");
    await page.getByRole("button", { name: "Start a project" }).click();
    await page.waitForURL(/\/p\//);
    await page.getByRole("navigation", { name: "Stations" }).getByRole("link", { name: "Brief" }).click();
    const idea = page.getByRole("region", { name: "From an idea to parts" });
    const words = idea.getByLabel(/in your own words/);
    // What the project is called may say it already.
    expect(await words.inputValue()).toBe("Marble alarm");
    await words.fill("How warm is the attic");
    await idea.getByRole("button", { name: "Propose parts" }).click();
    await idea.getByText(/what should come of it/).waitFor();
    await words.fill("three butons and three red lamps, take a photo, beep when the door opens");
    await idea.getByRole("button", { name: "Propose parts" }).click();
    await idea.getByText("Read as: “butons” as “buttons”.").waitFor();
    await idea.getByText(/“photo”: Pictures from a camera/).waitFor();
    expect(await idea.getByText(/what should come of it/).count()).toBe(0);
    const lamps = idea
      .getByRole("region", { name: "light: a small light as a sign" })
      .getByRole("spinbutton", { name: "how many" });
    expect(await lamps.inputValue()).toBe("3");
    await lamps.fill("2");
    await lamps.press("Enter");
    await idea.getByRole("button", { name: "Take these parts and plan them" }).click();
    const does = idea.getByRole("region", { name: "What it does" });
    await does.getByText("When Door is not pressed, Beeper is on.").waitFor();
    expect(await does.getByRole("listitem").count()).toBe(3);
    if (process.env.SHOT) await page.screenshot({ path: "/tmp/idea-does.png", fullPage: true });
    expect(await axeViolations(page)).toEqual([]);
    await saved(page);
    await page.getByRole("navigation", { name: "Stations" }).getByRole("link", { name: "Firmware" }).click();
    await page.getByText("Each time Button 2 is pressed, Lamp 2 goes on or off.").first().waitFor();
    await context.close();
  });
  it("joins a project that has a board, by keyboard alone, and says when it knows nothing", async () => {
    const { page, context } = await app.session();
    await openProject(page, "Rain-barrel gauge", "brief");
    const idea = page.getByRole("region", { name: "From an idea to parts" });
    const words = idea.getByLabel(/in your own words/);
    await words.fill("something nice for grandma");
    await words.press("Tab");
    await page.keyboard.press("Enter");
    await idea.getByText("Nothing in it that the table knows.").waitFor();
    await words.fill("beep");
    await words.press("Tab");
    await page.keyboard.press("Enter");
    await idea.getByRole("region", { name: "sound: beeps" }).waitFor();
    expect(await idea.getByRole("region", { name: "The board" }).count()).toBe(0);
    await idea.getByRole("button", { name: "Take these parts and plan them" }).press("Enter");
    await idea.getByRole("status").waitFor();
    await page.getByRole("navigation", { name: "Stations" }).getByRole("link", { name: "Parts" }).click();
    await expect.poll(async () => (await page.getByTestId(/^part-[A-Z]/).allInnerTexts()).join(" ")).toMatch(/Beeper/);
    await context.close();
  });
});
