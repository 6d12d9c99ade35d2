/**
 * Thirty benches and a teacher on one machine, at the pace of a lesson: each bench asks for news every 2.5 to 3 seconds and does a
 * step every half minute, the teacher's page looks every 1.5 seconds. Prints how long answers take, how busy the server is, and how
 * much goes over the network. `npx tsx bench/room.ts [benches] [seconds]`, on a built app.
 */
import { execFileSync } from "node:child_process";
import { startApp } from "../e2e/app";

const [benches, seconds] = [Number(process.argv[2] ?? 30), Number(process.argv[3] ?? 60)];
const sleep = (ms: number) => new Promise((done) => setTimeout(done, ms));
const p = (list: number[], share: number) => [...list].sort((a, b) => a - b)[Math.floor(list.length * share)] ?? 0;

async function main() {
  const app = await startApp();
  const sizes: number[] = [];
  const ask = async <T>(path: string, method = "GET", data?: unknown): Promise<{ body: T; ms: number }> => {
    const t = performance.now();
    const r = await fetch(`${app.url}${path}`, {
      method,
      headers: { "content-type": "application/json", origin: app.url },
      ...(data !== undefined && { body: JSON.stringify(data) }),
    });
    const text = await r.text();
    sizes.push(text.length);
    return { body: JSON.parse(text) as T, ms: performance.now() - t };
  };
  const list = (await ask<{ id: string; title: string }[]>("/api/projects")).body;
  const project = list.find((x) => x.title.startsWith("Beehive"))!.id;
  const { id } = (await ask<{ id: string }>("/api/rooms", "POST", { project, benches })).body;
  type Room = { steps: { id: string }[]; benches: { code: string }[] };
  const room = (await ask<Room>(`/api/rooms/${id}`)).body;
  const end = performance.now() + seconds * 1000;
  const talks: number[] = [];
  const looks: number[] = [];
  let n = 0;
  const bench = async (code: string) => {
    let step = 0;
    let next = performance.now() + Math.random() * 30_000;
    await sleep(Math.random() * 2500);
    while (performance.now() < end) {
      const events: object[] = [];
      if (performance.now() > next && step < room.steps.length) {
        events.push({
          id: `event-${n++}-000`,
          ago_ms: 0,
          did: { kind: "tick", list: "wires", of: room.steps[step++]!.id, done: true },
        });
        next += 30_000;
      }
      talks.push((await ask(`/api/bench/${code}`, "POST", { events, rev: 0 })).ms);
      await sleep(2500 + Math.random() * 500);
    }
  };
  const teacher = async () => {
    while (performance.now() < end) {
      looks.push((await ask(`/api/rooms/${id}?bench=1`)).ms);
      await sleep(1500);
    }
  };
  const port = new URL(app.url).port;
  const pid = execFileSync(
    "sh",
    ["-c", `ss -ltnp 2>/dev/null | grep ':${port} ' | grep -o 'pid=[0-9]*' | head -1 | cut -d= -f2`],
    { encoding: "utf8" },
  ).trim();
  const cpu = () =>
    pid
      ? execFileSync("sh", ["-c", `cut -d' ' -f14,15 /proc/${pid}/stat`], { encoding: "utf8" })
          .trim()
          .split(" ")
          .reduce((s, x) => s + Number(x), 0) / 100
      : NaN;
  const before = cpu();
  sizes.length = 0;
  await Promise.all([...room.benches.map((b) => bench(b.code)), teacher()]);
  const busy = ((cpu() - before) / seconds) * 100;
  console.log(
    `${benches} benches, ${seconds} s: ${talks.length} talks, median ${p(talks, 0.5).toFixed(1)} ms, p95 ${p(talks, 0.95).toFixed(1)} ms, worst ${p(talks, 0.999).toFixed(1)} ms; teacher median ${p(looks, 0.5).toFixed(1)} ms, p95 ${p(looks, 0.95).toFixed(1)} ms; server ${busy.toFixed(1)} % of one processor; ${(sizes.reduce((a, b) => a + b, 0) / seconds / 1000).toFixed(1)} kB/s of answers`,
  );
  await app.stop();
}
void main();
