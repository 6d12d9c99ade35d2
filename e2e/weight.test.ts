import { describe, expect, it } from "vitest";
import { weigh } from "../bench/page-weight";

/** Compressed script that a page needs before it can be used, kB. */
const MOST_KB = 250;

describe("scripts", () => {
  it("no page loads the computation, or what is only looked at later, before it can be used", async () => {
    const weights = await weigh(200);
    expect(weights).toHaveLength(14);
    for (const w of weights) {
      expect(w.first_kB, w.page).toBeGreaterThan(100);
      expect(w.first_kB, w.page).toBeLessThan(MOST_KB);
    }
  });
});
