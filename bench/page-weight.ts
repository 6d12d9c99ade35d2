import { startApp } from "../e2e/app";
import { STATIONS } from "../src/ui/stations/list";

/** Compressed script of a page, kB: what it fetches until it can be used, and what follows on its own while it is looked at. */
export interface Weight {
  page: string;
  first_kB: number;
  all_kB: number;
}

const USABLE = { home: 'a[href^="/p/"]', station: "main h1" };

async function told<T>(url: string, path: string, data?: object): Promise<T> {
  const r = await fetch(`${url}${path}`, {
    ...(data && { method: "POST", body: JSON.stringify(data) }),
    headers: { "content-type": "application/json", origin: url },
  });
  if (!r.ok) throw new Error(`${path}: ${r.status} ${await r.text()}`);
  return (await r.json()) as T;
}

/**
 * Weighs what the browser really fetches for the first page, for a link to each station, and for the
 * pages of a class, opened cold, and what follows while
 * it is only looked at for `looked_ms`.
 */
export async function weigh(looked_ms: number): Promise<Weight[]> {
  const app = await startApp();
  const out: Weight[] = [];
  try {
    const list = (await (await fetch(`${app.url}/api/projects`)).json()) as { id: string; title: string }[];
    const { id } = list.find((p) => p.title === "Rain-barrel gauge")!;
    const { id: room } = await told<{ id: string }>(app.url, "/api/rooms", { project: id, benches: 2 });
    const { benches } = await told<{ benches: { code: string }[] }>(app.url, `/api/rooms/${room}`);
    const pages: [string, string][] = [
      ["the first page", "/"],
      ...STATIONS.map((s): [string, string] => [s.name, `/p/${id}/${s.id}`]),
      ["the patterns", "/patterns"],
      ["the courses", "/courses"],
      ["a room", `/rooms/${room}`],
      ["a bench of it", `/bench/${benches[0]!.code}`],
    ];
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
