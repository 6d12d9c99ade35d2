import { describe, expect, it } from "vitest";
import { problemsOf, writeLp } from "../core/plan/assign";
import { catalogue, make } from "../core/testing";
import { proveText } from "./prove";

const small = () =>
  problemsOf(
    make([
      { ref: "B1", part: "board/rp2040-forty" },
      { ref: "M1", part: "module/bme280" },
      { ref: "SW1", part: "discrete/button" },
    ]),
    catalogue,
  ).problems[0]!;

describe("models of pins over the app's server", () => {
  it("are answered; anything else is refused in a sentence", async () => {
    const post = (body: string) => proveText(new Request("http://localhost/api/prove", { method: "POST", body }));
    expect((await post(writeLp(small()))).body).toMatchObject({ says: "plan" });
    expect(await post("hello")).toMatchObject({ status: 400 });
    expect(await post(`\\ x\n${"y".repeat(4_000_001)}`)).toMatchObject({ status: 413 });
    expect((await post("\\ x\nMinimize\n obj: garbage >>> here\nEnd\n")).body).toEqual({ says: "unknown" });
  });
});
