import { gzipSync } from "node:zlib";
import { startApp } from "../e2e/app";
import { STATIONS } from "../src/ui/stations/list";

/** Compressed bytes of script that the browser really fetches for the first page and for a link to each station, in kB. */
export async function weigh(): Promise<[string, number][]> {
  const app = await startApp();
  const out: [string, number][] = [];
  try {
    const list = (await (await fetch(`${app.url}/api/projects`)).json()) as { id: string; title: string }[];
    const { id } = list.find((p) => p.title === "Rain-barrel gauge")!;
    const pages = [["the first page", "/"], ...STATIONS.map((s) => [s.name, `/p/${id}/${s.id}`])] as [string, string][];
    for (const [name, path] of pages) {
      const { page, context } = await app.session();
      let bytes = 0;
      const seen: Promise<void>[] = [];
      page.on("response", (r) => {
        // The worker's script is the computation; it is loaded beside the page, not before it.
        if (r.request().resourceType() !== "script" || r.request().serviceWorker()) return;
        seen.push(
          r.body().then(
            (b) => void (bytes += gzipSync(b).length),
            () => undefined,
          ),
        );
      });
      await page.goto(path);
      if (path === "/") await page.getByRole("link", { name: "Rain-barrel gauge" }).waitFor();
      else await page.locator("main h1").waitFor();
      await Promise.all(seen);
      out.push([name, bytes / 1000]);
      await context.close();
    }
  } finally {
    await app.stop();
  }
  return out;
}
