/** Takes the pictures in docs/screenshots from the demo projects, on a built app. `npm run screenshots`. */
import path from "node:path";
import type { Page } from "playwright-core";
import { openProject, startApp } from "../e2e/app";

const OUT = path.resolve(import.meta.dirname, "screenshots");
const LIST = "2;red LED\n1;BME280 air sensor\n10;resistor 220 ohm\n1;ESP32 board\n1;soil moisture sensor\n1;breadboard";
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
    name: "parts-list",
    project: "Rain-barrel gauge",
    station: "parts",
    async go(page) {
      await page.getByRole("tab", { name: "Paste a list" }).click();
      await page.getByLabel("Parts list", { exact: true }).fill(LIST);
      await page.getByRole("button", { name: "Read it" }).click();
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
  {
    name: "part-page",
    project: "Rain-barrel gauge",
    station: "parts",
    async go(page) {
      await page.goto("/parts/module/mcp23017");
    },
  },
  { name: "board", project: "Rain-barrel gauge", station: "board" },
  {
    name: "saving-pins",
    project: "Signal box for a model railway",
    station: "board",
    async go(page) {
      await page.getByRole("tab", { name: "Saving pins" }).click();
      await page.getByTestId("way-grid").waitFor();
    },
  },
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
    name: "buses",
    project: "Beehive scale logger",
    station: "power",
    go: (page) => page.getByRole("tab", { name: /^Buses/ }).click(),
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

const BOARD = [
  { ref: "B1", part: "board/atmega328p-long", label: "Controller" },
  { ref: "S1", part: "supply/usb-port" },
];
const numbered = (part: string, letters: string, n: number, label: string) =>
  Array.from({ length: n }, (_, i) => ({ ref: `${letters}${i + 1}`, part, label: `${label} ${i + 1}` }));

/** One more of our own scenarios, for views that the demo projects have no need of. */
const EXTRA: Record<string, object[]> = {
  "Signal box for a model railway": [...BOARD, ...numbered("discrete/button", "SW", 12, "Point")],
};

async function main() {
  const app = await startApp();
  try {
    for (const [title, parts] of Object.entries(EXTRA))
      await fetch(`${app.url}/api/projects`, {
        method: "POST",
        headers: { "content-type": "application/json", origin: app.url },
        body: JSON.stringify({ document: { format: "young-lattice-project", version: 1, title, parts } }),
      });
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
