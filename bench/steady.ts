/** Kills in the midst of saves, and many clients at once: `npx tsx bench/steady.ts [kills] [seconds]`. The app must be built. */
import { dataFolder, send, serve, share } from "./serve";

const KILLS = Number(process.argv[2] ?? 20);
const SECONDS = Number(process.argv[3] ?? 30);
const CLIENTS = 30;

interface Stored {
  id: string;
  version: number;
  document: { title: string };
}

/** Saves as fast as they are acknowledged until the server is gone; the last acknowledged version and its title. */
async function kills() {
  const data = dataFolder();
  let acknowledged = 0;
  let lost = 0;
  let at: { id: string; version: number; title: string } | null = null;
  for (let k = 0; k < KILLS; k++) {
    const app = await serve(data);
    if (!at) {
      const made = (await (await send(`${app.url}/api/projects`, "POST", { title: "Kept" })).json()) as Stored;
      at = { id: made.id, version: made.version, title: "Kept" };
    }
    const now = (await (await fetch(`${app.url}/api/projects/${at.id}`)).json()) as Stored;
    // A save that was on its way may be there or not; one that was acknowledged must be.
    if (now.version < at.version || (now.version === at.version && now.document.title !== at.title)) lost++;
    at = { id: at.id, version: now.version, title: now.document.title };
    let gone = false;
    setTimeout(() => void app.kill().then(() => (gone = true)), 200 + Math.random() * 900);
    while (!gone) {
      const title: string = `Save ${at.version + 1} of kill ${k}`;
      const r = await send(`${app.url}/api/projects/${at.id}`, "PUT", {
        base: at.version,
        document: { ...now.document, title },
        summary: title,
      }).catch(() => null);
      if (r?.status !== 200) continue;
      const body = (await r.json().catch(() => null)) as { version: number } | null;
      if (!body) continue;
      acknowledged++;
      at = { id: at.id, version: body.version, title };
    }
  }
  const app = await serve(data);
  const end = (await (await fetch(`${app.url}/api/projects/${at!.id}`)).json()) as Stored;
  if (end.version < at!.version) lost++;
  await app.stop();
  console.log(`${KILLS} kills, ${acknowledged} acknowledged saves, ${lost} lost`);
}

/** Each client has a project of its own and reads, saves, lists in turn. */
async function clients() {
  const app = await serve();
  const times: number[] = [];
  let errors = 0;
  const until = Date.now() + SECONDS * 1000;
  const timed = async (ask: () => Promise<Response>) => {
    const t = performance.now();
    const r = await ask();
    const body: unknown = await r.json();
    times.push(performance.now() - t);
    if (!r.ok) errors++;
    return body;
  };
  await Promise.all(
    Array.from({ length: CLIENTS }, async (_, i) => {
      let p = (await timed(() => send(`${app.url}/api/projects`, "POST", { title: `Bench ${i}` }))) as Stored;
      while (Date.now() < until) {
        p = (await timed(() => fetch(`${app.url}/api/projects/${p.id}`))) as Stored;
        const { version } = (await timed(() =>
          send(`${app.url}/api/projects/${p.id}`, "PUT", { base: p.version, document: p.document, summary: "x" }),
        )) as Stored;
        if (version !== p.version + 1) errors++;
        if (Math.random() < 0.2) await timed(() => fetch(`${app.url}/api/projects`));
      }
    }),
  );
  await app.stop();
  console.log(
    `${CLIENTS} clients for ${SECONDS} s: ${times.length} requests, ${errors} errors, p50 ${share(times, 0.5).toFixed(0)} ms, p99 ${share(times, 0.99).toFixed(0)} ms`,
  );
}

await kills();
await clients();
