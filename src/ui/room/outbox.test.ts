import { describe, expect, it } from "vitest";
import { FREE, type Control, type Did } from "@/core/room";
import { makeOutbox, type Answer } from "./outbox";

const tick = (of: string): Did => ({ kind: "tick", list: "wires", of, done: true });

/** A teacher's machine that can be out of reach, and answers lost on the way. */
function server() {
  const seen = new Map<string, { at: number; did: Did }>();
  const s = {
    up: true,
    lose: false,
    gone: false,
    control: FREE as Control,
    posts: 0,
    now: 1_000_000,
    seen,
    async post(b: { events: { id: string; ago_ms: number; did: Did }[]; rev: number }): Promise<Answer> {
      s.posts++;
      if (s.gone) return { ok: false, gone: true, says: "over" };
      if (!s.up) return { ok: false, gone: false, says: "no network" };
      for (const e of b.events) if (!seen.has(e.id)) seen.set(e.id, { at: s.now - e.ago_ms, did: e.did });
      if (s.lose) return { ok: false, gone: false, says: "lost" };
      const hand = [...seen.values()].reduce((h, e) => (e.did.kind === "hand" ? e.did.up : h), false);
      return {
        ok: true,
        heard: { got: b.events.map((e) => e.id), control: s.control.rev === b.rev ? null : s.control, hand },
      };
    },
  };
  return s;
}
function bench(s: ReturnType<typeof server>, kept = { text: null as string | null }, skew = 0) {
  let n = 0;
  let changes = 0;
  let over = "";
  const box = makeOutbox({
    post: s.post,
    storage: { get: () => kept.text, set: (t) => void (kept.text = t) },
    control: FREE,
    hand: false,
    now: () => s.now + skew,
    newId: () => `event-${Math.random()}-${n++}`,
    changed: () => changes++,
    over: (t) => void (over = t),
  });
  return { box, kept, changes: () => changes, over: () => over };
}

describe("what a bench has to tell", () => {
  it("is told in order, once, and what is told back is heard", async () => {
    const s = server();
    const b = bench(s);
    b.box.push(tick("a"));
    b.box.push(tick("b"));
    s.control = { ...FREE, rev: 3, frozen: true };
    await b.box.talk();
    expect([...s.seen.values()].map((e) => (e.did.kind === "tick" ? e.did.of : ""))).toEqual(["a", "b"]);
    expect(b.box.waiting()).toBe(0);
    expect(b.box.control()).toEqual(s.control);
  });
  it("waits without a network, over a reload of the page, and is put where it belongs whatever the bench's clock says", async () => {
    const s = server();
    const first = bench(s, undefined, 7_000_000);
    s.up = false;
    first.box.push(tick("a"));
    await first.box.talk();
    expect([first.box.linked(), first.box.waiting()]).toEqual([false, 1]);
    s.now += 60_000;
    const again = bench(s, first.kept, 7_000_000);
    again.box.push(tick("b"));
    s.now += 30_000;
    s.up = true;
    await again.box.talk();
    expect([again.box.linked(), again.box.waiting()]).toEqual([true, 0]);
    expect([...s.seen.values()].map((e) => s.now - e.at)).toEqual([90_000, 30_000]);
  });
  it("an answer that is lost on the way makes nothing twice", async () => {
    const s = server();
    const b = bench(s);
    s.lose = true;
    b.box.push(tick("a"));
    await b.box.talk();
    expect([s.seen.size, b.box.waiting()]).toEqual([1, 1]);
    s.lose = false;
    await b.box.talk();
    expect([s.seen.size, b.box.waiting()]).toEqual([1, 0]);
  });
  it("much is told in parts, and only one talks at a time", async () => {
    const s = server();
    const b = bench(s);
    for (let i = 0; i < 250; i++) b.box.push(tick(`w${i}`));
    await Promise.all([b.box.talk(), b.box.talk()]);
    expect([s.seen.size, s.posts]).toEqual([250, 3]);
  });
  it("a hand is put down by the teacher; a room that is gone is said; a damaged store is none", async () => {
    const s = server();
    const b = bench(s, { text: "{" });
    b.box.push({ kind: "hand", up: true, why: "help" });
    await b.box.talk();
    expect(b.box.hand()).toBe(true);
    s.seen.set("seen", { at: s.now, did: { kind: "hand", up: false, why: "seen" } });
    await b.box.talk();
    expect(b.box.hand()).toBe(false);
    s.gone = true;
    await b.box.talk();
    expect(b.over()).toBe("over");
  });
});
