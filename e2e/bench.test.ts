import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Page } from "playwright-core";
import { reasonOf, type Question } from "../src/core/bench/reason";
import { questionOf } from "../src/core/bench/station/observations";
import { deal } from "../src/core/bench/trainer/trainer";
import { circuitOf } from "../src/core/circuit";
import { fingerprint } from "../src/core/project";
import { BENCHES } from "../src/core/bench/reason/cases";
import { catalogue } from "../src/core/testing";
import { openProject, saved, startApp, type App } from "./app";

let app: App;
beforeAll(async () => {
  app = await startApp();
});
afterAll(() => app.stop());

const station = (page: Page, name: string) =>
  page.getByRole("navigation", { name: "Stations" }).getByRole("link", { name });

const barrel = circuitOf(BENCHES["rain barrel"]!(), catalogue);
const plan = fingerprint(barrel.project);

/** Answers the check that stands on the screen as a build with a hidden fault does. */
async function answerAs(page: Page, fault: string): Promise<boolean> {
  const r = reasonOf(barrel);
  const hidden = r.singles.find((h) => h.faults[0]?.id === fault)!;
  const card = page.getByTestId("check-now");
  if (!(await card.count())) return false;
  const what = await page.getByTestId("check-what").innerText();
  const places = await card.locator("button[data-place]").allInnerTexts();
  const kinds = ["beep", "volt", "ohm"] as const;
  const q = kinds
    .map((kind): Question => ({ kind, a: places[0] ?? "", b: places[1] ?? "" }))
    .find((x) => r.questions.some((y) => JSON.stringify(y) === JSON.stringify(x)));
  if (!q) throw new Error(`no question for "${what}"`);
  const a = r.shows(hidden, q);
  if (q.kind === "beep") {
    await card.getByRole("button", { name: a === "beep" ? "It beeps" : "No beep", exact: true }).click();
    return true;
  }
  const field = card.getByRole("textbox");
  await field.fill(typeof a === "number" && Number.isFinite(a) ? a.toFixed(2) : q.kind === "volt" ? "0.05" : "OL");
  await field.press("Enter");
  return true;
}

describe("the bench finds what is wrong", () => {
  it("from a log that fails to the wire that is open, mended, and on record", async () => {
    const fault = "open-wire M2.SDA B1.A4";
    const { page } = await app.session();
    await openProject(page, "Rain-barrel gauge", "bench");
    await page.getByRole("tab", { name: /Bring-up/ }).click();
    await page
      .getByLabel("What the console shows")
      .fill(
        `YL1 hello B1 chip=x plan=${plan} info\nYL1 scan B1 bus=Wire found= want=60 fail\nYL1 act M2 told=1 fresh=0 fail\nYL1 echo M1 cm=82 ok\nYL1 gpio LED1 blink=3 info\n`,
      );
    await page.getByRole("button", { name: "Find out why" }).click();
    const suspects = page.getByRole("list", { name: "Suspects" });
    await suspects.getByRole("listitem").first().waitFor();
    // Without a meter there is something to try, with what it would mean.
    await page.getByRole("button", { name: /Without a meter/ }).click();
    const tries = page.getByRole("list", { name: "Experiments" });
    await tries
      .getByText(/Then run the bring-up again|Pull .* out/)
      .first()
      .waitFor();
    await tries
      .getByText(/Then suspect: /)
      .first()
      .waitFor();
    await page.getByRole("button", { name: /Without a meter/ }).click();
    for (let step = 0; step < 20; step++) {
      const first = suspects.getByRole("listitem").first();
      if (
        /SDA to Controller \(B1\), pin A4 makes no contact/.test(await first.innerText()) &&
        /^\s*9\d %/.test(await first.innerText())
      )
        break;
      const before = await page.getByTestId("check-what").innerText();
      await answerAs(page, fault);
      await expect
        .poll(async () =>
          (await page.getByTestId("check-what").count()) ? page.getByTestId("check-what").innerText() : "",
        )
        .not.toBe(before);
    }
    const first = suspects.getByRole("listitem").first();
    await expect
      .poll(() => first.innerText())
      .toContain("Display (M2), pin SDA to Controller (B1), pin A4 makes no contact");
    await expect.poll(() => page.getByTestId("verdict").innerText()).toMatch(/^Not right on the bench: \d/);
    await first.getByRole("button", { name: "This was it, mended" }).click();
    await page.getByText(/Written down as mended/).waitFor();
    await expect.poll(() => page.getByTestId("verdict").innerText()).toBe("Ready to wire");
    await saved(page);
    await page.reload();
    await page.getByRole("tab", { name: /^Log/ }).click();
    const log = page.getByTestId("bench-log");
    await log
      .getByText(/pin SDA to Controller \(B1\), pin A4 makes no contact/)
      .first()
      .waitFor();
    expect(await log.getByText(": off").count()).toBeGreaterThan(0);
  });

  it("a board that prints over its port: lines become readings, the port that goes away is told", async () => {
    const { context, page } = await app.session();
    // A small stand-in for the browser's ports: one that says what the bring-up program says, in pieces.
    await page.addInitScript((fp) => {
      const text = `YL1 hello B1 chip=x plan=${fp} info\r\nYL1 scan B1 bus=Wire found=0x27, want=39 ok\r\nYL1 act M2 told=1 fresh=1 ok\r\nYL1 sensor M1 fresh=1 ok\r\nYL1 gpio LED1 pin=D8 blink=3 info\r\nYL1 seen LED1 ok\r\nYL1 done parts=3 proven=3 failed=0 unproven=0 ok\r\n`;
      const port = {
        readable: null as ReadableStream<Uint8Array> | null,
        writable: null,
        open() {
          port.readable = new ReadableStream({
            async start(c) {
              for (let i = 0; i < text.length; i += 7) {
                c.enqueue(new TextEncoder().encode(text.slice(i, i + 7)));
                await new Promise((r) => setTimeout(r, 2));
              }
              setTimeout(() => c.error(Object.assign(new Error("gone"), { name: "NetworkLost" })), 1500);
            },
          });
          return Promise.resolve();
        },
        close: () => Promise.resolve(),
      };
      Object.defineProperty(navigator, "serial", { value: { requestPort: () => Promise.resolve(port) } });
    }, plan);
    await openProject(page, "Rain-barrel gauge", "bench");
    await page.getByRole("tab", { name: /Bring-up/ }).click();
    const refs = barrel.project.parts.filter((p) => /^(M|LED|D)\d/.test(p.ref)).map((p) => p.ref);
    expect(refs.length).toBeGreaterThan(1);
    await page.getByRole("button", { name: "Connect to the board" }).click();
    await page
      .getByRole("list", { name: "Lines of the program" })
      .getByText(/done parts=3/)
      .waitFor();
    const list = page.getByRole("list", { name: "Checks of this stage" });
    await expect.poll(() => list.getByText("works", { exact: true }).count()).toBeGreaterThanOrEqual(2);
    await page.getByText("The port went away. Plug it in again and connect.").waitFor();
    await context.close();
  });

  it("wrong input changes nothing and says what would be right", async () => {
    const { context, page } = await app.session();
    await openProject(page, "Moss terrarium keeper", "bench");
    const field = page.getByTestId("check-now").getByRole("textbox");
    await field.fill("<b>warm</b>");
    await field.press("Enter");
    await page.getByText(/is not a reading; type it as the meter shows it/).waitFor();
    expect(await station(page, "Bench").innerText()).toContain("0 of");
    await context.close();
  });
});

describe("practice on a simulated bench", () => {
  it("with the keyboard alone: a fault is laid out, measured, named; points and reasoning are told and kept", async () => {
    const { context, page } = await app.session();
    const dealt = deal(barrel, "continuity", 3)!;
    await openProject(page, "Rain-barrel gauge", "bench");
    await page.getByRole("tab", { name: /Before power/ }).focus();
    for (const name of [/First power/, /Bring-up/, /What is wrong/, /^Log/, /Capture/, /Practice/]) {
      await page.keyboard.press("ArrowRight");
      await expect.poll(() => page.getByRole("tab", { name }).getAttribute("aria-selected")).toBe("true");
    }
    await page.getByTestId("practice").waitFor();
    await page.getByLabel("Number of the fault").focus();
    await page.keyboard.press("Control+A");
    await page.keyboard.type("3");
    await page.keyboard.press("Tab");
    await page.keyboard.type("Robin");
    await page.keyboard.press("Tab");
    await page.keyboard.press("Enter");
    await page.getByTestId("complaint").waitFor();
    await page.getByTestId("practice").getByRole("switch", { name: "Power" }).focus();
    await page.keyboard.press("Space");
    await page.getByLabel("Red probe").focus();
    await page.keyboard.type("M1.TRIG");
    await page.keyboard.press("Escape");
    await page.keyboard.press("Tab");
    await page.keyboard.type("B1.GND");
    await page.keyboard.press("Escape");
    await page.keyboard.press("Tab");
    await page.keyboard.press("Enter");
    await expect.poll(() => page.getByTestId("display").innerText()).toMatch(/beep/);
    await page.getByLabel(/What is it/).focus();
    await page.keyboard.type(dealt.faults[0]!.id);
    await page.keyboard.press("Tab");
    await page.keyboard.press("Enter");
    const end = page.getByTestId("practice-end");
    await end.waitFor();
    expect(await end.innerText()).toContain(dealt.faults[0]!.says);
    expect(await end.innerText()).toMatch(/\d+ points/);
    await page.reload();
    await page.getByRole("button", { name: "For a class: the key, and the results" }).click();
    await page.getByRole("table", { name: "Results" }).getByText("Robin").waitFor();
    await page.getByRole("button", { name: "Show the key" }).click();
    await expect.poll(() => page.getByRole("table", { name: "Key" }).getByRole("row").count()).toBe(9);
    await context.close();
  });

  it("the README's walk ends here: a fault is hidden, measured in two steps, and found", async () => {
    const { context, page } = await app.session();
    await openProject(page, "Rain-barrel gauge", "bench");
    await page.getByRole("tab", { name: "Practice" }).click();
    await page.getByLabel("Number of the fault").fill("10");
    await page.getByRole("button", { name: "Lay it out" }).click();
    await page.getByTestId("complaint").getByText("Water echo: does not work.").waitFor();
    await page.getByTestId("practice").getByRole("switch", { name: "Power" }).click();
    for (const [red, black, shows] of [
      ["M1.ECHO", "D2", "beeps"],
      ["M1.TRIG", "D8", "no beep"],
    ]) {
      await page.getByLabel("Red probe").fill(red!);
      await page.getByLabel("Black probe").fill(black!);
      await page.getByRole("button", { name: "Measure" }).click();
      await expect.poll(() => page.getByTestId("display").innerText()).toBe(shows);
    }
    await page.getByLabel(/What is it/).fill("TRIG contact");
    await page.getByRole("list", { name: "Faults that fit" }).getByRole("button").first().click();
    const end = page.getByTestId("practice-end");
    await end.getByText("100 points").waitFor();
    await end.getByText("What each measurement ruled out").waitFor();
    await context.close();
  });

  it("with nothing hidden: the program runs, a wire pulled out shows, and a capture is written", async () => {
    const { context, page } = await app.session();
    await openProject(page, "Moss terrarium keeper", "bench?show=practice");
    await page.getByTestId("practice").getByRole("combobox").first().click();
    await page.getByRole("option", { name: /Nothing/ }).click();
    await page.getByRole("button", { name: "Lay it out" }).click();
    const log = page.getByRole("log", { name: "Console" });
    await expect.poll(() => log.innerText()).toMatch(/running 2 s/);
    const last = async () => (await log.innerText()).trim().split("\n").at(-1);
    expect(await last()).not.toContain("--");
    await page.getByRole("button", { name: /Wires pulled out/ }).click();
    await page.getByLabel("M1.SDA to B1.GP4").check();
    await expect.poll(last).toContain("--");
    const [file] = await Promise.all([
      page.waitForEvent("download"),
      page.getByRole("button", { name: "Capture so far (VCD)" }).click(),
    ]);
    expect(file.suggestedFilename()).toBe("bench.vcd");
    await context.close();
  });
});

describe("a capture at the bench", () => {
  it("a dump with an unknown channel: what is heard, said where the probe is, compared; a file that is none is told", async () => {
    const { context, page } = await app.session();
    await openProject(page, "Rain-barrel gauge", "bench?show=capture");
    const file = page.getByLabel("Capture file");
    await file.setInputFiles({ name: "notes.vcd", mimeType: "text/plain", buffer: Buffer.from("a few words") });
    await page.getByText(/notes.vcd can't be read: its first row names no column Time/).waitFor();
    // A start, the address 0x27 for writing, taken, and a stop; drawn with a quarter of a bit of 100 kHz as the step.
    const moves: string[] = [];
    let t = 1000;
    const put = (id: string, v: number) => moves.push(`#${(t += 25)}`, `${v}${id}`);
    put("!", 0);
    put('"', 0);
    for (const bit of [0, 1, 0, 0, 1, 1, 1, 0, 0]) {
      put("!", bit);
      put('"', 1);
      t += 25;
      put('"', 0);
    }
    put("!", 0);
    put('"', 1);
    put("!", 1);
    const text = `$timescale 100 ns $end $var wire 1 ! SDA $end $var wire 1 " D1 $end $enddefinitions $end\n#0\n1!\n1"\n${moves.join("\n")}\n`;
    await file.setInputFiles({ name: "bus.vcd", mimeType: "text/plain", buffer: Buffer.from(text) });
    await page.getByRole("list", { name: "Channels" }).getByText("D1", { exact: true }).waitFor();
    await page.getByLabel("Probe of D1 is at").fill("M2.SCL");
    await page.keyboard.press("Escape");
    await page.getByRole("button", { name: "Compare again" }).click();
    const list = page.getByRole("list", { name: "Compared with the plan" });
    await list.getByText(/Display answers at 0x27/).waitFor();
    await context.close();
  });
});

describe("a phone at the bench", () => {
  it("one check a screen, the answer under the thumb, nothing sideways", async () => {
    const { context, page } = await app.session({ width: 390, height: 780 });
    await openProject(page, "Beehive scale logger", "bench");
    const keys = page.getByTestId("check-now").getByRole("button", { name: "No beep", exact: true });
    await keys.waitFor();
    const box = (await keys.boundingBox())!;
    expect(box.height).toBeGreaterThanOrEqual(44);
    expect(box.y + box.height).toBeLessThanOrEqual(780);
    for (const tab of [/First power/, /Bring-up/, /What is wrong/, /Capture/, /Practice/]) {
      await page.getByRole("tab", { name: tab }).click();
      await page.waitForTimeout(300);
      expect(
        await page.evaluate("document.documentElement.scrollWidth - window.innerWidth"),
        String(tab),
      ).toBeLessThanOrEqual(0);
    }
    await context.close();
  });
  it("what is typed as a reading is a question of the plan that knows its points", () => {
    expect(questionOf(barrel, "beep M2.SDA B1.A4")).toEqual({ kind: "beep", a: "M2.SDA", b: "B1.A4" });
    expect(questionOf(barrel, "beep M2.SDA B1.Z9")).toBeNull();
    expect(questionOf(barrel, "part M99")).toBeNull();
  });
});
