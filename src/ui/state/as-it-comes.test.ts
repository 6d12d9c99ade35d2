import { describe, expect, it } from "vitest";
import { asItComes } from "./as-it-comes";

describe("what comes bit by bit", () => {
  it("is shown as it comes, and what arrives after the whole is dropped", async () => {
    const shown: number[] = [];
    let late!: (n: number) => void;
    await asItComes<number>(
      async (sofar) => {
        late = sofar;
        sofar(1);
        sofar(2);
        return 3;
      },
      (n) => shown.push(n),
    );
    late(2);
    expect(shown).toEqual([1, 2, 3]);
  });
});
