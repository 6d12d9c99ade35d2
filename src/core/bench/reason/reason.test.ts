import { describe, expect, it } from "vitest";
import { buildNets, expand } from "../../circuit/netlist";
import { resolveVoltages } from "../../circuit/power";
import { circuitOf, type Circuit } from "../../circuit";
import { splitEnd } from "../../project";
import { catalogue, planned } from "../../testing";
import { FAULT_KINDS, type Fault } from "../faults";
import { both } from "../laid/change";
import { stateOf } from "../laid/state";
import { checklist } from "../steps";
import { BENCHES } from "./cases";
import { bound, find } from "./finding";
import { labelOf, likelihood } from "./likely";
import { isPowered, isTold, type Observation } from "./questions";
import { reasonOf } from "./reason";

const ALL = process.env.ALL === "1";
const reasons = Object.entries(BENCHES).map(([name, p]) => [name, circuitOf(p(), catalogue)] as const);

describe("a fault is the netlist with a few wires changed", () => {
  it.each(reasons)("%s: joined and fed as the netlist of the changed wires is", (_, c) => {
    const r = reasonOf(c);
    let compared = 0;
    for (const h of r.singles) {
      const change = h.faults[0]?.change ?? {};
      if (Object.keys(change).some((k) => k !== "cut" && k !== "join")) continue;
      const e = expand(c.project, catalogue);
      const cut = new Set(change.cut ?? []);
      const kept = e.wires.filter((_w, i) => !cut.has(i));
      const added = (change.join ?? []).map(([a, b]) => ({
        from: splitEnd(a),
        to: splitEnd(b),
        locked: false,
        cable: false,
        inserted: false,
      }));
      const n = buildNets({ ...e, wires: [...kept, ...added] });
      resolveVoltages(n);
      const first = new Map<string, number>();
      for (const [t, name] of r.laid.terminals.entries()) {
        const id = n.netOf(name)?.id;
        if (id === undefined) continue;
        const root = h.state.root(t);
        const was = first.get(id);
        if (was === undefined) first.set(id, root);
        else expect(root, `${h.faults[0]?.id}: ${name}`).toBe(was);
        compared++;
      }
      expect(new Set(first.values()).size, h.faults[0]?.id).toBe(first.size);
      // Volts, as long as nothing is shorted: then sources give up, which the plan's netlist does not know.
      if (r.works.hurts(h.state)) continue;
      // Nor does it know a part whose ground wire lies on a supply: there it takes all of it for ground.
      if (n.nets.some((x) => x.kind === "ground" && x.nodes.some((y) => y.supply))) continue;
      for (const x of r.laid.supplies) {
        const net = n.netOf(r.laid.terminals[x.node]!);
        const held = h.state.held.get(h.state.root(x.node));
        // Fed against a ground that is not joined to its own, a part has no volts here; the netlist only sees the plus.
        if (!held || net.kind !== "supply" || held.domain !== h.state.root(x.ground)) continue;
        expect(held.V.typ, `${h.faults[0]?.id}: ${x.ref}`).toBeCloseTo(net.V?.typ ?? NaN, 6);
      }
    }
    expect(compared).toBeGreaterThan(100);
  });
});

describe("suspects", () => {
  it("a sound build works, hurts nothing, and reads what the checklist expects", () => {
    for (const [name, c] of reasons) {
      const r = reasonOf(c);
      expect(r.works.hurts(r.sound), name).toBe(false);
      for (const w of r.works.watched) expect(r.works.of(r.sound, w.ref), `${name} ${w.ref}`).toBe("works");
      for (const i of checklist(c)) {
        const a = i.q && r.shows(r.singles[0]!, i.q);
        if (a === undefined || a === null) continue;
        if (i.word !== null) expect(a, `${name}: ${i.what}`).toBe(i.word);
        else {
          expect(typeof a, `${name}: ${i.what}`).toBe("number");
          expect(a as number, `${name}: ${i.what}`).toBeGreaterThanOrEqual((i.low ?? -Infinity) - 1e-6);
          expect(a as number, `${name}: ${i.what}`).toBeLessThanOrEqual((i.high ?? Infinity) + 1e-6);
        }
      }
    }
  });

  it("each line of a part with several is seen: a colour that is missing, a row of keys", () => {
    const r = reasonOf(reasons.find(([name]) => name.startsWith("a light of three colours"))![1]);
    for (const ref of ["LED1", "M1"]) {
      // Resistors in its wires are named after it.
      const mine = (end: string) => end.startsWith(`${ref}.`) || new RegExp(`^R\\w*${ref}(x\\d)?\\.`).test(end);
      const wires = r.singles.filter((h) => h.faults[0]?.kind === "open-wire" && h.faults[0].at.some(mine));
      expect(wires.length, ref).toBeGreaterThan(3);
      for (const h of wires) expect(r.works.of(h.state, ref), h.faults[0]!.id).toBe("no");
    }
  });

  it("every kind of fault is there on some project", () => {
    const there = new Set(reasons.flatMap(([, c]) => reasonOf(c).singles.map((h) => h.faults[0]?.kind)));
    expect(FAULT_KINDS.map((k) => k.id).filter((k) => !there.has(k))).toEqual([]);
  });

  it.each(reasons)("%s: shares are Bayes over all faults, worked out by hand", (_, c) => {
    const r = reasonOf(c);
    // What a fault in the middle of the list shows to six questions from all over.
    const hidden = r.singles[Math.floor(r.singles.length / 2)]!;
    const seen: Observation[] = [1, 3, 5, 7, 11, 13].flatMap((k) => {
      const q = r.questions[Math.floor((k * r.questions.length) / 14)]!;
      const a = r.shows(hidden, q);
      return a === null ? [] : [{ q, seen: a }];
    });
    const weights = r.singles.map((h) => seen.reduce((w, o) => w * likelihood(o, r.shows(h, o.q)), h.weight));
    const sum = weights.reduce((a, b) => a + b, 0);
    const j = r.judge(seen);
    if (j.pairs) return;
    for (const s of j.suspects) {
      const i = r.singles.findIndex((h) => h.faults[0]?.id === s.faults[0]?.id);
      expect(s.share).toBeCloseTo(weights[i]! / sum, 9);
    }
  });

  it("what is measured next tells more per effort than anything else, tried out one by one", () => {
    const r = reasonOf(reasons[0]![1]);
    const j = r.judge([]);
    const total = r.singles.reduce((s, h) => s + h.weight, 0);
    const effort: Record<string, number> = {
      beep: 1,
      ohm: 1.3,
      volt: 1.1,
      part: 0.4,
      console: 0.2,
      plan: 0.2,
      scan: 0.2,
      sight: 0.5,
      upload: 0.6,
    };
    const H = (ps: number[]) => -ps.reduce((s, p) => s + (p > 0 ? p * Math.log2(p) : 0), 0);
    const prior = H(r.singles.map((h) => h.weight / total));
    const gain = (q: (typeof r.questions)[number]) => {
      const answers = new Map<string, number[]>();
      for (const h of r.singles) {
        const l = labelOf(r.shows(h, q));
        answers.set(l, [...(answers.get(l) ?? []), h.weight / total]);
      }
      // What stays unknown after each answer, on average.
      const after = [...answers.values()].reduce((s, ps) => {
        const p = ps.reduce((a, b) => a + b, 0);
        return s + p * H(ps.map((x) => x / p));
      }, 0);
      return (prior - after) / effort[q.kind]!;
    };
    const best = Math.max(...r.questions.filter((q) => j.danger <= 0.05 || !isPowered(q)).map(gain));
    expect(gain(j.next!.q)).toBeCloseTo(best, 9);
  });

  it("nothing is powered while what may be wrong could destroy something", () => {
    const r = reasonOf(reasons[1]![1]);
    const j = r.judge([{ q: { kind: "console", host: "B1" }, seen: "silent" }], { wrong: true });
    expect(j.danger).toBeGreaterThan(0.05);
    expect(isPowered(j.next!.q)).toBe(false);
  });
});

describe("every single fault is found", () => {
  it.each(reasons)("%s: first, never ruled out, close to the fewest measurements there can be", (name, c) => {
    const r = reasonOf(c);
    const none = r.signature(r.singles[0]!);
    const seen = r.singles.slice(1).filter((h) => r.signature(h) !== none);
    const unseen = r.singles.slice(1).filter((h) => r.signature(h) === none);
    // Only what changes nothing that anybody can measure stays unseen: a small capacitor that is dead.
    expect(unseen.map((h) => h.faults[0]!.kind).filter((k) => k !== "dead-part" && k !== "capacitor")).toEqual([]);
    const some = ALL || seen.length < 60 ? seen : seen.filter((_, i) => i % 3 === name.length % 3);
    let [led, weight] = [0, 0];
    for (const h of some) {
      const f = find(r, h, { wrong: true });
      expect(f.first, `${h.faults[0]!.id} after ${f.asked.length}`).toBe(true);
      led += f.led * h.weight;
      weight += h.weight;
    }
    expect(led / weight).toBeLessThanOrEqual(1.3 * bound(r, seen));
  });

  it.each([
    ["open-wire M2.SDA", "stuck-contact SW1 closed"],
    ["open-wire RM3.", "swapped M1.SCL M1.SDA"],
    ["dead-part M1", "open-wire SW1"],
  ])("two faults at once are told as a pair: %s and %s", (...ids) => {
    const r = reasonOf(reasons[1]![1]);
    const [a, b] = ids.map((s) => r.singles.find((h) => h.faults[0]?.id.startsWith(s))!.faults[0]!) as [Fault, Fault];
    const hidden = { faults: [a, b], weight: 1, state: stateOf(r.laid, both(a.change, b.change)) };
    const seen: Observation[] = r.questions.flatMap((q) => {
      const shown = r.shows(hidden, q);
      return isTold(q) && shown !== null ? [{ q, seen: shown }] : [];
    });
    for (let step = 0; step < 25; step++) {
      const next = r.judge(seen, { wrong: true }).next;
      if (!next) break;
      seen.push({ q: next.q, seen: r.shows(hidden, next.q) ?? "" });
    }
    const j = r.judge(seen, { wrong: true });
    expect(j.pairs).toBe(true);
    const told = j.suspects
      .filter((s) => s.share > 0.5 * j.suspects[0]!.share)
      .map((s) =>
        s.faults
          .map((f) => f.id)
          .sort()
          .join(),
      );
    expect(told).toContain([a.id, b.id].sort().join());
  });
});

describe("uploading that fails", () => {
  const bare = (): Circuit =>
    circuitOf(
      planned([
        { ref: "B1", part: "chip/attiny85-dip8" },
        { ref: "S1", part: "supply/aa-3" },
        { ref: "M9", part: "module/avr-programmer" },
        { ref: "LED1", part: "discrete/led-red" },
      ]),
      catalogue,
    );
  it("each wire of a programmer that is open or swapped makes the chip silent to it, and is found", () => {
    const c = bare();
    const r = reasonOf(c);
    expect(r.shows(r.singles[0]!, { kind: "upload", host: "B1" })).toBe("ok");
    const wires = r.singles.filter(
      (h) => /^(open-wire|swapped)/.test(h.faults[0]?.id ?? "") && h.faults[0]!.at.some((a) => a.startsWith("M9.")),
    );
    expect(wires.length).toBeGreaterThan(6);
    for (const h of wires) {
      const id = h.faults[0]!.id;
      expect(r.shows(h, { kind: "upload", host: "B1" }), id).toBe("no answer");
      expect(find(r, h, { wrong: true }).first, id).toBe(true);
    }
  });
  it.each([
    ["no port", /only charges|no driver|cable/i],
    ["busy", /Another program holds the port/],
    ["wrong chip", /Another board/],
    ["no answer", /bootloader|Another port/],
  ])("the tool says %s: suspects that explain it", (says, who) => {
    const r = reasonOf(reasons[0]![1]);
    const j = r.judge([{ q: { kind: "upload", host: "B1" }, seen: says }], { wrong: true });
    expect(j.suspects[0]!.faults[0]!.says).toMatch(who);
  });
});

describe("before power", () => {
  it.each(reasons)("%s: what could destroy something shows in a check, with far fewer checks than wires", (_, c) => {
    const r = reasonOf(c);
    const list = checklist(c).filter((i) => i.when !== "bring-up" && i.q);
    const first = list.filter((i) => i.when === "before power");
    const none = r.singles[0]!;
    const missed = r.singles.filter(
      (h) => r.works.hurts(h.state) && !first.some((i) => labelOf(r.shows(h, i.q!)) !== labelOf(r.shows(none, i.q!))),
    );
    // What a source does by itself is measured at its own terminals, with nothing joined to it.
    const alone = missed.filter(
      (h) => !list.some((i) => i.q!.kind === "volt" && labelOf(r.shows(h, i.q!)) !== labelOf(r.shows(none, i.q!))),
    );
    expect(alone.map((h) => h.faults[0]!.id)).toEqual([]);
    expect(missed.length).toBeLessThanOrEqual(2);
  });
});
