/** Light requests while twelve plans of forty parts are made: `npx tsx bench/latency.ts`. The app must be built. */
import { spawn } from "node:child_process";
import fs from "node:fs";
import net from "node:net";
import os from "node:os";
import path from "node:path";
import { bigProject } from "./forty";

const ROOT = path.resolve(import.meta.dirname, "..");
const PLANS = 12;

const freePort = () =>
  new Promise<number>((done) => {
    const s = net.createServer().listen(0, "127.0.0.1", () => {
      const { port } = s.address() as net.AddressInfo;
      s.close(() => done(port));
    });
  });

async function main() {
  const port = await freePort();
  const data = fs.mkdtempSync(path.join(os.tmpdir(), "lattice-latency-"));
  const server = spawn(
    process.execPath,
    [path.join(ROOT, "node_modules/next/dist/bin/next"), "start", "-H", "127.0.0.1", "-p", String(port)],
    { cwd: ROOT, env: { ...process.env, LATTICE_DATA: data, NODE_ENV: "production" }, stdio: "ignore" },
  );
  const url = `http://127.0.0.1:${port}`;
  try {
    for (;;) {
      const up = await fetch(`${url}/api/projects`).then(
        (r) => r.ok,
        () => false,
      );
      if (up) break;
      await new Promise((r) => setTimeout(r, 100));
    }
    const document = bigProject(40);
    const made = (await fetch(`${url}/api/projects`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ document }),
    }).then((r) => r.json())) as { id: string; version: number };
    if (!made.id) throw new Error(JSON.stringify(made));
    const began = performance.now();
    let left = PLANS;
    const plans = Array.from({ length: PLANS }, async () => {
      const r = await fetch(`${url}/api/projects/${made.id}/plan`);
      if (r.status !== 200) throw new Error(`${r.status} ${await r.text()}`);
      const bytes = (await r.arrayBuffer()).byteLength;
      left--;
      return bytes;
    });
    const reads: number[] = [];
    const saves: number[] = [];
    let base = made.version;
    while (left) {
      let t = performance.now();
      await fetch(`${url}/api/projects/${made.id}`).then((r) => r.arrayBuffer());
      reads.push(performance.now() - t);
      t = performance.now();
      const saved = (await fetch(`${url}/api/projects/${made.id}`, {
        method: "PUT",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ base, document: { ...document, title: `t${base}` }, summary: "x" }),
      }).then((r) => r.json())) as { version: number };
      base = saved.version;
      saves.push(performance.now() - t);
      await new Promise((r) => setTimeout(r, 20));
    }
    const bytes = await Promise.all(plans);
    const at = (list: number[], p: number) =>
      [...list].sort((a, b) => a - b)[Math.floor((list.length - 1) * p)]!.toFixed(1);
    console.log(
      `${PLANS} plans of ${document.parts.length} parts, ${Math.round(bytes[0]! / 1000)} kB each, in ${((performance.now() - began) / 1000).toFixed(1)} s`,
    );
    for (const [name, list] of [
      ["reads", reads],
      ["saves", saves],
    ] as const)
      console.log(
        `${name}: ${list.length}, p50 ${at(list, 0.5)} ms, p95 ${at(list, 0.95)} ms, longest ${at(list, 1)} ms`,
      );
  } finally {
    server.kill();
    fs.rmSync(data, { recursive: true, force: true });
  }
}
void main();
