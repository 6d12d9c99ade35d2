import { gzipSync } from "node:zlib";
import { startApp } from "../e2e/app";

/** Compressed bytes of script that the browser really fetches for the first page and for a project's first station, in kB. */
export async function weigh(): Promise<[string, number][]> {
  const app = await startApp();
  const out: [string, number][] = [];
  try {
    for (const name of ["the first page", "a project's parts station"]) {
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
      await page.goto("/");
      await page.getByRole("link", { name: "Rain-barrel gauge" }).waitFor();
      if (name !== "the first page") {
        await page.getByRole("link", { name: "Rain-barrel gauge" }).click();
        await page.getByTestId("verdict").waitFor();
      }
      await Promise.all(seen);
      out.push([name, bytes / 1000]);
      await context.close();
    }
  } finally {
    await app.stop();
  }
  return out;
}
