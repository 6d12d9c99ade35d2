/** The built app on a port and data folder of its own, for benches that ask it from outside. */
import { spawn, type ChildProcess } from "node:child_process";
import fs from "node:fs";
import net from "node:net";
import os from "node:os";
import path from "node:path";

const ROOT = path.resolve(import.meta.dirname, "..");

const freePort = () =>
  new Promise<number>((done) => {
    const s = net.createServer().listen(0, "127.0.0.1", () => {
      const { port } = s.address() as net.AddressInfo;
      s.close(() => done(port));
    });
  });

export interface Served {
  url: string;
  /** Ends it as a crash would. */
  kill(): Promise<void>;
  /** Ends it and throws its data away. */
  stop(): Promise<void>;
}

export const dataFolder = (): string => fs.mkdtempSync(path.join(os.tmpdir(), "lattice-bench-"));

export async function serve(data = dataFolder()): Promise<Served> {
  const port = await freePort();
  const server: ChildProcess = spawn(
    process.execPath,
    [path.join(ROOT, "node_modules/next/dist/bin/next"), "start", "-H", "127.0.0.1", "-p", String(port)],
    { cwd: ROOT, env: { ...process.env, LATTICE_DATA: data, NODE_ENV: "production" }, stdio: "ignore", detached: true },
  );
  const ended = new Promise<void>((done) => server.once("exit", () => done()));
  const url = `http://127.0.0.1:${port}`;
  for (;;) {
    const up = await fetch(`${url}/api/projects`).then(
      (r) => r.ok,
      () => false,
    );
    if (up) break;
    await new Promise((r) => setTimeout(r, 50));
  }
  // The server may have children of its own: all of them at once.
  const kill = async () => {
    process.kill(-server.pid!, "SIGKILL");
    await ended;
  };
  return {
    url,
    kill,
    async stop() {
      await kill();
      fs.rmSync(data, { recursive: true, force: true });
    },
  };
}

export const send = (url: string, method: string, body: unknown): Promise<Response> =>
  fetch(url, { method, headers: { "content-type": "application/json" }, body: JSON.stringify(body) });

/** A share of a list of times: `p95(list)` is `share(list, 0.95)`. */
export const share = (list: readonly number[], p: number): number =>
  [...list].sort((a, b) => a - b)[Math.floor((list.length - 1) * p)] ?? NaN;
