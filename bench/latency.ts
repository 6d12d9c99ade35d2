/** Light requests while twelve plans of forty parts are made: `npx tsx bench/latency.ts`. The app must be built. */
import { bigProject } from "./forty";
import { send, serve, share } from "./serve";

const PLANS = 12;

const app = await serve();
const document = bigProject(40);
const made = (await (await send(`${app.url}/api/projects`, "POST", { document })).json()) as {
  id: string;
  version: number;
};
if (!made.id) throw new Error(JSON.stringify(made));
const began = performance.now();
let left = PLANS;
const plans = Array.from({ length: PLANS }, async () => {
  const r = await fetch(`${app.url}/api/projects/${made.id}/plan`);
  if (r.status !== 200) throw new Error(`${r.status} ${await r.text()}`);
  const bytes = (await r.arrayBuffer()).byteLength;
  left--;
  return bytes;
});
const times: Record<"reads" | "saves" | "looks", number[]> = { reads: [], saves: [], looks: [] };
const timed = async (what: keyof typeof times, ask: () => Promise<Response>) => {
  const t = performance.now();
  const body: unknown = await (await ask()).json();
  times[what].push(performance.now() - t);
  return body;
};
let base = made.version;
while (left) {
  await timed("reads", () => fetch(`${app.url}/api/projects/${made.id}`));
  const saved = await timed("saves", () =>
    send(`${app.url}/api/projects/${made.id}`, "PUT", {
      base,
      document: { ...document, title: `t${base}` },
      summary: "x",
    }),
  );
  base = (saved as { version: number }).version;
  if (base % 20 === 0) await timed("looks", () => fetch(`${app.url}/api/projects/${made.id}/glance`));
  await new Promise((r) => setTimeout(r, 20));
}
const [bytes] = await Promise.all(plans);
await app.stop();
console.log(
  `${PLANS} plans of ${document.parts.length} parts, ${Math.round(bytes! / 1000)} kB each, in ${((performance.now() - began) / 1000).toFixed(1)} s`,
);
for (const [name, list] of Object.entries(times))
  console.log(
    `${name}: ${list.length}, p50 ${share(list, 0.5).toFixed(1)} ms, p95 ${share(list, 0.95).toFixed(1)} ms, longest ${share(list, 1).toFixed(1)} ms`,
  );
