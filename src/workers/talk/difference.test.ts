import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { apply, difference } from "./difference";

const named = fc.record({ id: fc.constantFrom("a", "b", "c", "d", "e"), n: fc.integer(), more: fc.jsonValue() });
const value = fc.oneof(
  fc.jsonValue({ maxDepth: 4 }),
  fc.array(named),
  fc.record({ list: fc.array(named), says: fc.string() }),
);

describe("a value and what became of it", () => {
  it("gives any value from any other", () => {
    fc.assert(
      fc.property(value, value, (a, b) => {
        const copy = structuredClone(a);
        const sent = structuredClone(difference(a, b));
        expect(apply(a, sent)).toEqual(b);
        // The old value is not touched.
        expect(a).toEqual(copy);
      }),
      { numRuns: 500 },
    );
  });

  it("says nothing of equal values", () => {
    fc.assert(
      fc.property(value, (a) => {
        expect(difference(a, structuredClone(a))).toBeNull();
      }),
    );
  });

  it("keeps what did not change as the very same object, wherever it now stands", () => {
    const before = {
      rows: [
        { id: "a", at: { x: 1 } },
        { id: "b", at: { x: 2 } },
        { id: "c", at: { x: 3 } },
      ],
      says: ["one"],
    };
    const after = structuredClone(before);
    after.rows.reverse();
    after.rows[0]!.at.x = 9;
    const got = apply(before, difference(before, after)) as typeof before;
    expect(got).toEqual(after);
    expect(got.rows[2]).toBe(before.rows[0]);
    expect(got.rows[1]).toBe(before.rows[1]);
    expect(got.says).toBe(before.says);
    expect(got.rows[0]).not.toBe(before.rows[2]);
  });

  it("sends a small change as something small", () => {
    const rows = Array.from({ length: 200 }, (_, i) => ({ id: `row ${i}`, says: "a sentence of some length", n: i }));
    const after = rows.map((r) => (r.n === 17 ? { ...r, n: 18 } : r));
    expect(JSON.stringify(difference(rows, after)).length).toBeLessThan(JSON.stringify(rows).length / 10);
  });

  it("sends what was added to a long list, not its places", () => {
    const says = Array.from({ length: 5000 }, (_, i) => `sentence ${i}`);
    expect(JSON.stringify(difference(says, [...says, "one more"])).length).toBeLessThan(60);
  });

  it("takes keys that mean something to the language as keys", () => {
    const hostile = JSON.parse('{"__proto__": {"polluted": 1}, "constructor": 2}') as object;
    const got = apply({}, difference({}, hostile)) as object;
    expect(Object.keys(got).sort()).toEqual(["__proto__", "constructor"]);
    expect(({} as Record<string, unknown>).polluted).toBeUndefined();
  });
});
