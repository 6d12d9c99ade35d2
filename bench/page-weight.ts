import { startApp } from "../e2e/app";
import { STATIONS } from "../src/ui/stations/list";

/** Compressed script of a page, kB: what it fetches until it can be used, and what follows on its own while it is looked at. */
export interface Weight {
  page: string;
  first_kB: number;
  all_kB: number;
}

const USABLE = { home: 'a[href^="/p/"]', station: "main h1" };

/**
 * Weighs what the browser really fetches for the first page and for a link to each station, opened cold, and what follows while
 * it is only looked at for `looked_ms`.
 */
export async function weigh(looked_ms: number): Promise<Weight[]> {
  const app = await startApp();
  const out: Weight[] = [];
  try {
    const list = (await (await fetch(`${app.url}/api/projects`)).json()) as { id: string; title: string }[];
    const { id } = list.find((p) => p.title === "Rain-barrel gauge")!;
    const pages = [["the first page", "/"], ...STATIONS.map((s) => [s.name, `/p/${id}/${s.id}`])] as [string, string][];
    for (const [name, path] of pages) {
      const { page, context } = await app.session();
      // When the page can be used, by its own clock: what is asked for later is not waited for by anybody.
      await page.addInitScript(
        (what) => {
          new MutationObserver((_, seen) => {
            if (!document.querySelector(what)) return;
            (window as unknown as { usable: number }).usable = performance.now();
            seen.disconnect();
          }).observe(document, { childList: true, subtree: true });
        },
        USABLE[path === "/" ? "home" : "station"],
      );
      await page.goto(path);
      await page.waitForFunction(() => "usable" in window);
      await page.waitForTimeout(looked_ms);
      // The worker's script is the computation; it is loaded beside the page, by itself.
      const scripts = await page.evaluate(() => {
        const { usable } = window as unknown as { usable: number };
        return (performance.getEntriesByType("resource") as PerformanceResourceTiming[])
          .filter((r) => r.initiatorType === "script" || (r.initiatorType === "link" && r.name.endsWith(".js")))
          .map((r) => ({ first: r.startTime <= usable, kB: r.encodedBodySize / 1000 }));
      });
      const sum = (of: typeof scripts) => of.reduce((n, x) => n + x.kB, 0);
      out.push({ page: name, first_kB: sum(scripts.filter((x) => x.first)), all_kB: sum(scripts) });
      await context.close();
    }
  } finally {
    await app.stop();
  }
  return out;
}
