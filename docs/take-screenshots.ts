/** Takes the pictures in docs/screenshots from the demo projects, on a built app. `npm run screenshots`. */
import path from "node:path";
import type { Page } from "playwright-core";
import { openProject, startApp } from "../e2e/app";

const OUT = path.resolve(import.meta.dirname, "screenshots");
const PIN_TABLE =
  "1\tVCC\tP\tsupply\n2\tGND\tP\tground\n3\tSCL\tI\tI2C clock\n4\tSDA\tI/O\tI2C data\n5\tALERT\tO\topen drain";
const mark = async (page: Page, id: string) => {
  await page.getByRole("textbox", { name: /Find by/ }).fill(id.split("/")[1]!);
  await page.getByTestId(`mark-${id}`).click();
};

interface Shot {
  name: string;
  project: string;
  station: string;
  dark?: boolean;
  /** What is done on the station before the picture. */
  go?(page: Page): Promise<void>;
}
const SHOTS: Shot[] = [
  {
    name: "parts",
    project: "Moss terrarium keeper",
    station: "parts",
    async go(page) {
      await mark(page, "module/bme280");
      await page.getByRole("button", { name: "Details of Display" }).click();
      await page.getByRole("button", { name: /^look again at the header of/ }).click();
      await page.getByRole("region", { name: /^Header of/ }).scrollIntoViewIfNeeded();
    },
  },
  {
    name: "own-part",
    project: "Rain-barrel gauge",
    station: "parts",
    async go(page) {
      await page.getByRole("tab", { name: "Own parts" }).click();
      await page.getByRole("button", { name: "Make an own part" }).click();
      await page.getByLabel("Name", { exact: true }).fill("Loudness sensor");
      await page.getByLabel(/Labels in printed order/).fill(PIN_TABLE);
      await page.getByRole("button", { name: "Read the pins" }).click();
      await page.getByTestId("pin-row-4").waitFor();
      await page.getByLabel("Supply range").fill("1.8 to 3.6 V");
      await page.evaluate(() => document.querySelector("main")!.scrollTo(0, 0));
    },
  },
  { name: "board", project: "Rain-barrel gauge", station: "board" },
  {
    name: "wires",
    project: "Moss terrarium keeper",
    station: "wiring",
    async go(page) {
      await page.getByRole("tab", { name: "Wires", exact: true }).click();
      await page.getByLabel("from", { exact: true }).fill("display sda");
      await page.getByLabel("to", { exact: true }).fill("GP3");
      await page.getByText(/Then:/).waitFor();
      await page.getByLabel("Filter by part, pin or net").click();
    },
  },
  { name: "pins", project: "Moss terrarium keeper", station: "pins" },
  { name: "power", project: "Beehive scale logger", station: "power" },
  {
    name: "levels",
    project: "Moss terrarium keeper",
    station: "power",
    go: (page) => page.getByRole("tab", { name: /^Levels/ }).click(),
  },
  {
    name: "wiring",
    project: "Beehive scale logger",
    station: "wiring",
    async go(page) {
      await page.getByTestId("loom").waitFor();
      await page.getByTestId("run-row").filter({ hasText: "SDA" }).first().getByRole("button").click();
      // The drawing goes to the wire.
      await page.waitForTimeout(600);
    },
  },
  {
    name: "breadboard",
    project: "Beehive scale logger",
    station: "wiring",
    async go(page) {
      await page.getByRole("tab", { name: "Breadboard" }).click();
      await page.getByTestId("board-sum").waitFor();
    },
  },
  {
    name: "solder",
    project: "Rain-barrel gauge",
    station: "wiring",
    async go(page) {
      await page.getByRole("tab", { name: "Solder build" }).click();
      await page.getByRole("button", { name: "It goes into a box" }).click();
      await page.getByTestId("panel-fits").waitFor();
    },
  },
  {
    name: "firmware",
    project: "Moss terrarium keeper",
    station: "firmware",
    async go(page) {
      await page.getByTestId("try-it").getByRole("button", { name: "Start" }).click();
      await page.waitForTimeout(3000);
    },
  },
  {
    name: "bench",
    project: "Rain-barrel gauge",
    station: "bench",
    async go(page) {
      await page.getByRole("button", { name: "No beep", exact: true }).click();
      await page.getByRole("button", { name: /^5V reaches/ }).click();
      await page.getByRole("button", { name: "No beep", exact: true }).click();
      await page.getByRole("button", { name: "Find out why" }).click();
      await page.getByRole("list", { name: "Suspects" }).waitFor();
    },
  },
  {
    name: "handout",
    project: "Rain-barrel gauge",
    station: "handout",
    async go(page) {
      await page.getByText("dangers named").waitFor();
    },
  },
  { name: "room", project: "Rain-barrel gauge", station: "handout", go: (page) => openRoom(page) },
  { name: "course", project: "Rain-barrel gauge", station: "handout", go: (page) => openCourse(page) },
  {
    name: "patterns",
    project: "Rain-barrel gauge",
    station: "brief",
    async go(page) {
      await page.goto("/patterns");
      await page.getByRole("button", { name: /^Cart that tells/ }).click();
      await page.getByText("Read the print on yours").waitFor();
    },
  },
  { name: "brief", project: "Moss terrarium keeper", station: "brief" },
  {
    name: "bench-sums",
    project: "Rain-barrel gauge",
    station: "power",
    dark: true,
    async go(page) {
      await page.goto("/bench-sums?sum=mosfet&load_A=0.54&load_V=5");
    },
  },
];

/** How far each bench of the pictured room is: done, and what is off or waits. */
const BENCHES = [9, 14, 11, 8, 12, 16, 7, 13, 10, 15, 5, 12, 9, 14, 11, 6, 13, 17];

/** Opens a room with benches at work, as a lesson has them. */
async function openRoom(page: Page) {
  const ask = async <T>(at: string, method: string, data?: unknown) =>
    (await page.evaluate(
      async ([path_, method_, text]) => {
        const r = await fetch(path_!, {
          method: method_!,
          ...(text && { body: text, headers: { "content-type": "application/json" } }),
        });
        return r.json() as Promise<unknown>;
      },
      [at, method, data === undefined ? "" : JSON.stringify(data)] as const,
    )) as T;
  const project = /\/p\/([^/]+)/.exec(page.url())![1]!;
  const { id } = await ask<{ id: string }>("/api/rooms", "POST", { project, benches: BENCHES.length });
  const room = await ask<{ benches: { code: string }[]; steps: { id: string }[] }>(`/api/rooms/${id}`, "GET");
  for (const [i, n] of BENCHES.entries()) {
    const events: object[] = room.steps.slice(0, n).map((s, k) => ({
      id: `event-${i}-${String(k).padStart(4, "0")}`,
      ago_ms: 60_000 * ((i % 5) + n - k),
      did: { kind: "tick", list: "wires", of: s.id, done: true },
    }));
    if (i % 8 === 2)
      events.push({
        id: `event-${i}-hand`,
        ago_ms: 100_000,
        did: { kind: "hand", up: true, why: "step 12 to be signed" },
      });
    if (i === 3 || i === 12)
      events.push({
        id: `event-${i}-reading`,
        ago_ms: 1000,
        did: { kind: "tick", list: "checks", of: "beep B1.5V M1.GND", done: false, reading: "beep" },
      });
    await ask(`/api/bench/${room.benches[i]!.code}`, "POST", { events, rev: 0 });
  }
  await page.goto(`/rooms/${id}`);
  await page.getByTestId("bench-4").click();
  await page.getByRole("list", { name: "Suspects" }).waitFor();
}

/** A course of three patterns. */
async function openCourse(page: Page) {
  await page.goto("/courses");
  await page.getByLabel("What is the course called?").fill("Light and motion, autumn");
  await page.getByRole("button", { name: "Begin a course" }).click();
  await page.waitForURL(/\/courses\/./);
  for (const name of ["Bell lamp for the workshop", "Whose turn is it", "Puppet with two arms"]) {
    await page.getByLabel("A lesson from a pattern").click();
    await page.getByRole("option", { name }).click();
    await page.getByRole("list", { name: "Lessons" }).getByText(name).waitFor();
  }
  await page.getByText("A bench needs").waitFor();
}

async function main() {
  const app = await startApp();
  try {
    const { page } = await app.session();
    await page.goto("/");
    await page.getByRole("link", { name: "Rain-barrel gauge" }).waitFor();
    await page.waitForFunction(() => !/^…$/m.test(document.querySelector("table")?.textContent ?? "…"));
    await page.getByText("Back up everything").waitFor();
    await page.waitForTimeout(2500);
    await page.screenshot({ path: path.join(OUT, "home.png") });
    for (const s of SHOTS) {
      await page.emulateMedia({ colorScheme: s.dark ? "dark" : "light" });
      await openProject(page, s.project, s.station);
      await s.go?.(page);
      await page.waitForTimeout(1200);
      await page.screenshot({ path: path.join(OUT, `${s.name}.png`) });
    }
  } finally {
    await app.stop();
  }
}
void main();
