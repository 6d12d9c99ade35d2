/** Takes the pictures in docs/screenshots from the demo projects, on a built app. `npm run screenshots`. */
import path from "node:path";
import { openProject, startApp } from "../e2e/app";

const OUT = path.resolve(import.meta.dirname, "screenshots");
const SHOTS: { name: string; project: string; station: string; dark?: boolean }[] = [
  { name: "parts", project: "Moss terrarium keeper", station: "parts" },
  { name: "board", project: "Rain-barrel gauge", station: "board" },
  { name: "pins", project: "Moss terrarium keeper", station: "pins" },
  { name: "power", project: "Moss terrarium keeper", station: "power" },
  { name: "wiring", project: "Rain-barrel gauge", station: "wiring" },
  { name: "firmware", project: "Moss terrarium keeper", station: "firmware" },
  { name: "bench", project: "Rain-barrel gauge", station: "bench" },
  { name: "brief", project: "Moss terrarium keeper", station: "brief" },
  { name: "pins-dark", project: "Rain-barrel gauge", station: "pins", dark: true },
];

async function main() {
  const app = await startApp();
  try {
    const { page } = await app.session();
    await page.goto("/");
    await page.getByRole("link", { name: "Rain-barrel gauge" }).waitFor();
    await page.screenshot({ path: path.join(OUT, "home.png") });
    for (const s of SHOTS) {
      await page.emulateMedia({ colorScheme: s.dark ? "dark" : "light" });
      await openProject(page, s.project, s.station);
      await page.waitForTimeout(1200);
      await page.screenshot({ path: path.join(OUT, `${s.name}.png`) });
    }
  } finally {
    await app.stop();
  }
}
void main();
