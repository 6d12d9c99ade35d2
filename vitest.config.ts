import { defineConfig } from "vitest/config";
import path from "node:path";

const alias = { "@": path.resolve(import.meta.dirname, "src") };

export default defineConfig({
  test: {
    maxWorkers: "100%",
    projects: [
      {
        resolve: { alias },
        // Generous times: they only bound a hang. A busy machine must not fail a test that asserts no time.
        test: {
          name: "unit",
          include: ["src/**/*.test.ts"],
          environment: "node",
          testTimeout: 90_000,
          hookTimeout: 90_000,
          // The catalogue and what is made of it are read once by each process, not once by each file.
          isolate: false,
        },
      },
      {
        resolve: { alias },
        test: {
          name: "verify",
          include: ["verify/**/*.test.ts"],
          environment: "node",
          testTimeout: 240_000,
          isolate: false,
        },
      },
      {
        resolve: { alias },
        test: {
          name: "e2e",
          include: ["e2e/**/*.test.ts"],
          environment: "node",
          testTimeout: 240_000,
          hookTimeout: 240_000,
          // What a page says is waited for: it comes when the worker has answered.
          expect: { poll: { timeout: 20_000 } },
          fileParallelism: false,
        },
      },
    ],
  },
});
