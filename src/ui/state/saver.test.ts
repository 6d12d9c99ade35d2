import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { emptyProject, mergeProjects, type Project } from "../../core/project";
import type { Step } from "../../workers/step";
import type { Kept } from "./edit-log";
import { makeSaver, type Asked, type SaveState } from "./saver";

/** A server as ours: versions, saves that are known by their ids, and stale ones refused. */
function server(first: Project) {
  const versions: { document: Project; summary: string }[] = [{ document: first, summary: "made" }];
  const known = new Map<string, number>();
  const s = {
    up: true,
    /** The next answer gets lost on its way. */
    loseAnswer: false,
    versions,
    now: () => ({ version: versions.length, document: versions.at(-1)!.document }),
    put(b: { base: number; document: Project; summary: string; saveId: string; side?: Project }) {
      if (!s.up) return { status: 0, body: { message: "does not answer" } };
      const lost = s.loseAnswer;
      s.loseAnswer = false;
      const answer = () => {
        const was = known.get(b.saveId);
        if (was !== undefined) return { status: 200, body: { version: was } };
        if (b.base !== versions.length) return { status: 409, body: s.now() };
        if (b.side) versions.push({ document: b.side, summary: "side" });
        versions.push({ document: b.document, summary: b.summary });
        known.set(b.saveId, versions.length);
        return { status: 200, body: { version: versions.length } };
      };
      const a = answer();
      return lost ? { status: 0, body: { message: "does not answer" } } : a;
    },
  };
  return s;
}

const project = (title: string, goal = ""): Project => ({
  ...emptyProject(title),
  brief: { ...emptyProject(title).brief, goal },
});

/** A page of a project: what it shows, says and has written down. `log` outlives it. */
function page(s: ReturnType<typeof server>, log: Map<string, Kept>, tab: string) {
  let shown: Project | null = null;
  let queue: Promise<unknown> = Promise.resolve();
  let ids = 0;
  const p = {
    state: "saved" as SaveState,
    asked: null as Asked | null,
    past: [] as string[],
    told: [] as string[],
    shown: () => shown!,
    closed: false,
  };
  const step = (x: Project) => ({ project: x, view: {}, says: "" }) as unknown as Step;
  const saver = makeSaver({
    put: (b) => Promise.resolve(s.put(structuredClone(b)) as never),
    get: () =>
      Promise.resolve((s.up ? { status: 200, body: structuredClone(s.now()) } : { status: 0, body: {} }) as never),
    log: {
      put: (k) => Promise.resolve(void log.set(tab, { ...structuredClone(k), id: "p", tab, at: log.size })),
      saved: (id) => Promise.resolve(void (log.get(tab)?.saveId === id && log.delete(tab))),
      drop: (k) => Promise.resolve(void (log.get(k.tab)?.saveId === k.saveId && log.delete(k.tab))),
      left: () => Promise.resolve([...log.values()]),
    },
    merge: (mine, before, theirs, picks) => {
      const m = mergeProjects(before, mine, theirs, picks);
      const open = m.clashes.some((c) => !(c.key in picks));
      return Promise.resolve({
        step: open ? null : step(m.project),
        clashes: m.clashes,
        notes: m.notes,
        problem: null,
      });
    },
    open: (x) => Promise.resolve(step(x)),
    latest: () => shown,
    queued: (work) => {
      const job = queue.then(work);
      queue = job.catch(() => undefined);
      return job;
    },
    show(st, says) {
      shown = st.project;
      if (says) p.past.push(says);
    },
    state: (x) => void (p.state = x),
    ask: (a) => void (p.asked = a),
    tell: (_k, t) => void p.told.push(t),
    saved: () => undefined,
    newId: () => `${tab}-${ids++}`,
    same: (a, b) => JSON.stringify(a) === JSON.stringify(b),
  });
  return {
    ...p,
    get: () => p,
    saver,
    edit(change: (x: Project) => Project) {
      shown = change(shown!);
      saver.changed(shown, "an edit");
    },
  };
}
const settle = async (ms = 0) => void (await vi.advanceTimersByTimeAsync(ms));
const goal =
  (g: string) =>
  (x: Project): Project => ({ ...x, brief: { ...x.brief, goal: g } });
const title =
  (t: string) =>
  (x: Project): Project => ({ ...x, title: t });

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

describe("a page that keeps every change", () => {
  it("says saved only when the server has said so, and leaves nothing written down", async () => {
    const [s, log] = [server(project("A")), new Map<string, Kept>()];
    const a = page(s, log, "a");
    await a.saver.open();
    expect(a.get().state).toBe("saved");
    a.edit(title("B"));
    expect(a.get().state).toBe("unsaved");
    expect(log.get("a")).toMatchObject({ base: 1, document: { title: "B" } });
    await settle(400);
    expect(a.get().state).toBe("saved");
    expect(log.size).toBe(0);
    expect(s.now().document.title).toBe("B");
  });
  it("a server that is away: it is tried again until it is back; nothing is lost meanwhile", async () => {
    const [s, log] = [server(project("A")), new Map<string, Kept>()];
    const a = page(s, log, "a");
    await a.saver.open();
    s.up = false;
    a.edit(title("B"));
    await settle(400);
    expect(a.get().state).toBe("failed");
    a.edit(goal("g"));
    await settle(5000);
    expect([a.get().state, log.size]).toEqual(["failed", 1]);
    s.up = true;
    await settle(4100);
    expect(a.get().state).toBe("saved");
    expect(s.now().document).toMatchObject({ title: "B", brief: { goal: "g" } });
  });
  it("an answer that got lost is not taken for somebody else's change", async () => {
    const [s, log] = [server(project("A")), new Map<string, Kept>()];
    const a = page(s, log, "a");
    await a.saver.open();
    s.loseAnswer = true;
    a.edit(title("B"));
    await settle(400);
    expect(a.get().state).toBe("failed");
    await settle(4100);
    expect([a.get().state, s.versions.length, a.get().asked]).toEqual(["saved", 2, null]);
    // The same with more typed meanwhile.
    s.loseAnswer = true;
    a.edit(title("C"));
    await settle(400);
    a.edit(title("D"));
    await settle(5000);
    expect([a.get().state, s.now().document.title, a.get().asked]).toEqual(["saved", "D", null]);
  });
  it("a page that was closed before the server heard: the change is there at the next opening, in any tab", async () => {
    const [s, log] = [server(project("A")), new Map<string, Kept>()];
    const a = page(s, log, "a");
    await a.saver.open();
    a.edit(title("B"));
    // Closed at once: its timers never come.
    vi.clearAllTimers();
    expect(s.now().document.title).toBe("A");
    const b = page(s, log, "b");
    expect(await b.saver.open()).toBeNull();
    expect(b.shown().title).toBe("B");
    expect([s.now().document.title, log.size, b.get().state]).toEqual(["B", 0, "saved"]);
    expect(b.get().told.join()).toContain("is back");
  });
  it("closed while one save was on its way and another was written down: both are there, whether the first had come or not", async () => {
    for (const came of [true, false]) {
      const [s, log] = [server(project("A")), new Map<string, Kept>()];
      const a = page(s, log, "a");
      await a.saver.open();
      if (came) s.loseAnswer = true;
      else s.up = false;
      a.edit(title("B"));
      await settle(400);
      a.edit(title("C"));
      vi.clearAllTimers();
      s.up = true;
      expect(s.now().document.title).toBe(came ? "B" : "A");
      const b = page(s, log, "b");
      await b.saver.open();
      await settle(1000);
      expect([s.now().document.title, b.get().asked, log.size]).toEqual(["C", null, 0]);
    }
  });
  it("and where somebody else has saved since, both are there", async () => {
    const [s, log] = [server(project("A")), new Map<string, Kept>()];
    const a = page(s, log, "a");
    await a.saver.open();
    a.edit(title("B"));
    vi.clearAllTimers();
    s.put({ base: 1, document: goal("theirs")(project("A")), summary: "x", saveId: "elsewhere" });
    const b = page(s, log, "b");
    await b.saver.open();
    await settle(1000);
    expect(s.now().document).toMatchObject({ title: "B", brief: { goal: "theirs" } });
    expect(b.shown()).toEqual(s.now().document);
    expect(log.size).toBe(0);
    // Its own side is a version as well.
    expect(s.versions.map((v) => [v.document.title, v.document.brief.goal])).toContainEqual(["B", ""]);
  });
});

describe("two pages of one project", () => {
  const two = async () => {
    const [s, log] = [server(project("A")), new Map<string, Kept>()];
    const [a, b] = [page(s, log, "a"), page(s, log, "b")];
    await a.saver.open();
    await b.saver.open();
    return { s, log, a, b };
  };
  it("put different changes together by themselves; undo has a step for it", async () => {
    const { s, a, b } = await two();
    a.edit(title("B"));
    await settle(400);
    b.edit(goal("g"));
    await settle(2000);
    expect(s.now().document).toMatchObject({ title: "B", brief: { goal: "g" } });
    expect(b.shown()).toEqual(s.now().document);
    expect(b.get().past).toEqual(["put together with a change made elsewhere"]);
    expect([b.get().state, b.get().asked]).toEqual(["saved", null]);
    await a.saver.follow();
    expect(a.shown()).toEqual(s.now().document);
    expect(a.get().past).toEqual(["a change made elsewhere"]);
  });
  it("ask where both changed the same, and keep what is done meanwhile; both sides stay as versions", async () => {
    const { s, a, b } = await two();
    a.edit(title("Theirs"));
    await settle(400);
    b.edit(title("Mine"));
    await settle(2000);
    expect(b.get().state).toBe("stale");
    expect(b.get().asked!.clashes.map((c) => [c.mine, c.theirs])).toEqual([["Mine", "Theirs"]]);
    expect(s.now().document.title).toBe("Theirs");
    b.edit(goal("on"));
    await settle(2000);
    expect(b.get().state).toBe("stale");
    await b.saver.answer({ title: "mine" });
    await settle(1000);
    expect(b.get().asked).toBeNull();
    expect(s.now().document).toMatchObject({ title: "Mine", brief: { goal: "on" } });
    expect(s.versions.map((v) => v.document.title)).toEqual(["A", "Theirs", "Mine", "Mine"]);
    expect(b.get().state).toBe("saved");
  });
  it("theirs can be taken instead, and mine comes back by undo", async () => {
    const { a, b, log } = await two();
    a.edit(title("Theirs"));
    await settle(400);
    b.edit(title("Mine"));
    await settle(2000);
    await b.saver.takeTheirs();
    expect([b.shown().title, b.get().state, b.get().asked]).toEqual(["Theirs", "saved", null]);
    expect(b.get().past).toEqual(["the newer version shown"]);
    expect(log.has("b")).toBe(false);
  });
  it("does not follow over what is not saved yet", async () => {
    const { s, a, b } = await two();
    b.edit(goal("typing"));
    a.edit(title("B"));
    await a.saver.flush();
    await b.saver.follow();
    expect(b.shown()).toMatchObject({ title: "A", brief: { goal: "typing" } });
    await settle(3000);
    expect(s.now().document).toMatchObject({ title: "B", brief: { goal: "typing" } });
  });
  it("fifty rounds of two people at once lose nothing", async () => {
    const { s, a, b } = await two();
    for (let i = 0; i < 50; i++) {
      a.edit((x) => ({ ...x, drawer: { ...x.drawer, parts: { ...x.drawer.parts, [`a${i}`]: i } } }));
      b.edit((x) => ({ ...x, drawer: { ...x.drawer, parts: { ...x.drawer.parts, [`b${i}`]: i } } }));
      if (i % 7 === 0) s.loseAnswer = true;
      await settle(i % 3 ? 100 : 700);
    }
    await settle(20_000);
    await a.saver.follow();
    await b.saver.follow();
    expect(Object.keys(s.now().document.drawer.parts)).toHaveLength(100);
    expect(a.shown()).toEqual(s.now().document);
    expect(b.shown()).toEqual(s.now().document);
    expect([a.get().state, b.get().state]).toEqual(["saved", "saved"]);
  });
});
