import { beforeAll, describe, expect, it } from "vitest";
import { summarise } from "../../core/parts/catalogue";
import { circuitOf } from "../../core/circuit";
import { BOARD5, catalogue as shipped, make, USB } from "../../core/testing";
import { api } from "../api";
import { usePartSource } from "../loading";

beforeAll(() =>
  usePartSource({
    summaries: async () => shipped.parts.map((p) => summarise(p)),
    details: async ({ ids, boards }) =>
      boards ? shipped.parts.filter((p) => p.board) : (ids ?? []).flatMap((id) => shipped.get(id) ?? []),
  }),
);

const signs = () => make([BOARD5, USB, ...[1, 2].map((i) => ({ ref: `M${i}`, part: "module/lcd1602-i2c" }))]);

describe("planning in the worker", () => {
  it("plans with the price by reason, and the difference from the saved plan", async () => {
    const p = make([BOARD5, USB, { ref: "D1", part: "discrete/led-red" }]);
    const s = await api.plan(p, 1);
    expect(s).toMatchObject({ status: "optimal", clash: null });
    expect(s.costBy.reduce((n, x) => n + x.cost, 0)).toBe(s.cost);
    expect(s.view.diff).toBeNull();
    const kept = await api.edit(s.project, { type: "savePlan", at: "2026-01-02T03:04:05Z" });
    expect(kept.view.diff).toEqual([]);
    const moved = await api.move(kept.project, "D1.A", "B1.D12");
    expect(moved.ok && moved.step.view.diff).toEqual([
      { need: "D1.A", from: expect.stringMatching(/^B1\./), to: "B1.D12" },
    ]);
  });
  it("remedies come ready to be taken, from definitions that are fetched when asked for", async () => {
    const clash = await api.plan(signs());
    expect(clash.clash).toContain("0x27");
    expect(clash.project).toEqual(signs());
    const list = await api.remedies(signs(), 2);
    const mux = list.find((r) => r.id === "add-tca9548a-1")!;
    const taken = await api.take(mux.project, mux.label);
    expect(taken.says).toBe(mux.label);
    expect(taken.view.open).toBe(0);
    expect(taken.view.verdict.words).toBe("Ready to wire");
  });
  it("boards and remedies are shown as they come, best first each time", async () => {
    const boards: number[] = [];
    const all = await api.boards(signs(), 0, (list) => boards.push(list.length));
    expect(boards.length).toBeGreaterThan(2);
    expect([...boards].sort((a, b) => a - b)).toEqual(boards);
    expect(boards.at(-1)).toBeLessThan(all.length);
    const seen: string[][] = [];
    const list = await api.remedies(signs(), 0, (sofar) => seen.push(sofar.map((r) => r.id)));
    const order = list.map((r) => r.id);
    for (const ids of seen) expect(ids).toEqual(order.filter((id) => ids.includes(id)));
  });
  it("work that nobody waits for is given up", async () => {
    const all = api.boards(signs(), 77);
    api.drop(77);
    expect(await all).toEqual([]);
    expect((await api.boards(signs(), 78)).length).toBeGreaterThan(20);
  });
  it("alike parts, the sums for them, and one of the ways put in", async () => {
    const p = make([
      BOARD5,
      USB,
      ...Array.from({ length: 8 }, (_, i) => ({ ref: `SW${i + 1}`, part: "discrete/button" })),
    ]);
    const { groups, V, pin_A } = await api.alike(p);
    expect(groups).toMatchObject([{ want: "keys", refs: { length: 8 } }]);
    expect([V, pin_A]).toEqual([5, 0.02]);
    expect(api.savings(groups[0]!.ask).map((s) => s.id)).toContain("grid");
    const r = await api.save(p, groups[0]!, "grid-diodes");
    if (!r.ok) throw new Error(r.why);
    expect(r.step.view.addresses[0]!.rows).toHaveLength(8);
    expect(r.step.view.bom.find((b) => b.part === "discrete/diode-1n4148")).toMatchObject({ quantity: 8 });
    expect(await api.save(p, groups[0]!, "ladder")).toMatchObject({ ok: false });
  });
  it("a part hung on another board is planned there; an optional pin is wired on wish", async () => {
    const p = make([BOARD5, { ref: "B2", part: "board/rp2040-forty" }, USB, { ref: "M1", part: "module/mpu6050" }]);
    const planned = (await api.plan(p)).project;
    const s = await api.host(planned, "M1", "B2");
    const host = (q: typeof planned, pin: string) =>
      circuitOf(q, shipped).netlist.bindings.find((b) => b.ref === "M1" && b.pin === pin)?.host;
    expect(host(planned, "SDA")).toBe("B1");
    expect(host(s.project, "SDA")).toBe("B2");
    expect(s.view.parts.find((x) => x.ref === "M1")).toMatchObject({ host: "B2", software: [] });
    const w = await api.want(s.project, "M1", "INT", true);
    expect(w.project.links.find((l) => l.from === "M1.INT")!.to).toMatch(/^B2\./);
    expect((await api.alternatives(w.project, 3)).length).toBeGreaterThan(0);
  });
});
