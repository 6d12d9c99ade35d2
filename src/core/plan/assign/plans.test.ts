import { describe, expect, it } from "vitest";
import { assign } from ".";
import { findPin, type Offer, type Part, type Pin } from "../../parts/catalogue";
import { catalogue, make, USB } from "../../testing";
import { splitEnd, type Project } from "../../project";
import { randomProblem, seeded } from "./random";
import { feasible, solve } from "./solver";

/**
 * A rule checker that shares nothing with the solver: it reads the planned project and the definitions, and says what is
 * wrong in words. Buses, shared lines, addresses, one use a pin, timers, interrupt lines, pin sets.
 */
function wrongs(project: Project): string[] {
  const out: string[] = [];
  const def = (ref: string): Part => catalogue.get(project.parts.find((p) => p.ref === ref)!.part)!;
  const options = (ref: string) => project.parts.find((p) => p.ref === ref)!.options ?? {};
  const placed: { ref: string; pin: Pin; part: Part; host: Part; hostRef: string; at: Pin }[] = [];
  for (const { ref } of project.parts) {
    const part = def(ref);
    if (part.board) continue;
    for (const pin of part.pins) {
      if (!pin.need || pin.need.optional || pin.need.role === "onewire") continue;
      const ends = project.links.flatMap((l) =>
        l.from === `${ref}.${pin.label}` ? [l.to] : l.to === `${ref}.${pin.label}` ? [l.from] : [],
      );
      const home = ends.map(splitEnd).find((e) => findPin(def(e.ref), e.pin)?.offers?.length);
      if (!home) out.push(`${ref}.${pin.label} has no pin`);
      else
        placed.push({ ref, pin, part, host: def(home.ref), hostRef: home.ref, at: findPin(def(home.ref), home.pin)! });
    }
  }
  const offers = (p: (typeof placed)[number], kind: string) => p.at.offers!.filter((o) => o.kind === kind);
  const timers = (p: (typeof placed)[number]) => p.host.board?.timers ?? {};
  const drives = (p: (typeof placed)[number]) =>
    Object.keys(timers(p)).filter((t) => p.pin.need!.use && timers(p)[t]!.drives?.includes(p.pin.need!.use));
  const busOf = (o: Offer) => ("bus" in o ? o.bus : "");
  /** A serial line that the program times: an ordinary pin, and only where the console has the only whole port. */
  const consoles = (x: Pin) => x.hazards?.some((h) => h.kind === "console");
  const portless = (host: Part) =>
    !["rx", "tx"].every((role) =>
      host.pins.some((x) => !consoles(x) && x.offers?.some((o) => o.kind === "uart" && "role" in o && o.role === role)),
    );
  const timed = (p: (typeof placed)[number]) => {
    const d = p.at.offers!.find((o) => o.kind === "digital") as { in: boolean; out: boolean } | undefined;
    const able = p.pin.need!.role === "rx" ? d?.in : d?.out;
    return p.pin.need!.kind === "uart" && !offers(p, "uart").length && portless(p.host) && Boolean(able);
  };
  const users = new Map<string, (typeof placed)[number][]>();
  const busMembers = new Map<string, Set<string>>();
  const timerUse = new Map<string, { who: string; rate: string; slot: string | null; most: number }[]>();
  for (const p of placed) {
    const need = p.pin.need!;
    const id = `${p.ref}.${p.pin.label}`;
    const end = `${p.hostRef}.${p.at.label}`;
    users.set(end, [...(users.get(end) ?? []), p]);
    if (p.at.hazards?.some((h) => h.kind === "reserved" || h.kind === "reset"))
      out.push(`${id} on a pin that is not free`);
    const d = p.at.offers!.find((o) => o.kind === "digital") as { in: boolean; out: boolean } | undefined;
    const able: Record<string, boolean> = {
      "digital-out": Boolean(d?.out),
      "digital-in": Boolean(d?.in),
      "digital-io": Boolean(d?.in && d.out),
      pwm: drives(p).length ? Boolean(d?.out) : offers(p, "pwm").length > 0,
    };
    const ok = able[need.kind] ?? offers(p, need.kind).some((o) => !need.role || ("role" in o && o.role === need.role));
    if (!ok && !timed(p)) out.push(`${id} wants ${need.kind} ${need.role ?? ""}, ${end} has not`);
    if (need.kind === "pwm") {
      const rate = need.use === "servo" ? "50" : need.use === "tone" ? id : "any";
      const fixed = drives(p);
      const taken = fixed.length
        ? fixed.map((t) => ({ t, slot: null }))
        : offers(p, "pwm").map((o) => ({
            t: (o as { timer: string }).timer,
            slot: (o as { channel: string }).channel,
          }));
      if (taken.length === 1) {
        const t = `${p.hostRef}:${taken[0]!.t}`;
        const most = timers(p)[taken[0]!.t]?.frequencies ?? 1;
        timerUse.set(t, [...(timerUse.get(t) ?? []), { who: id, rate, slot: taken[0]!.slot, most }]);
      }
    }
  }
  for (const [end, list] of users) {
    const kinds = new Set(list.map((p) => `${p.pin.need!.kind}.${p.pin.need!.role}`));
    const shareable = list.every((p) => ["i2c", "spi"].includes(p.pin.need!.kind));
    if (list.length > 1 && !(shareable && kinds.size === 1))
      out.push(`${end} serves ${list.map((p) => p.ref).join(" and ")}`);
  }
  for (const { ref } of project.parts) {
    const part = def(ref);
    for (const g of part.groups) {
      if (!["i2c", "spi", "uart", "can"].includes(g.kind)) continue;
      const mine = placed.filter(
        (p) => p.ref === ref && Object.values(g.pins).includes(p.pin.label) && p.pin.need!.kind === g.kind,
      );
      const soft = mine.filter(timed);
      if (soft.length && soft.length < mine.length) out.push(`${ref} is timed by the program on one line only`);
      if (soft.length && new Set(placed.filter((p) => p.pin.need!.kind === "uart").map((p) => p.ref)).size > 1)
        out.push(`${ref} is timed by the program beside another serial part`);
      if (mine.length < 2 || soft.length) continue;
      const each = mine.map(
        (p) =>
          new Set(
            offers(p, g.kind)
              .filter((o) => "role" in o && o.role === p.pin.need!.role)
              .map((o) => `${p.hostRef}:${busOf(o)}`),
          ),
      );
      const common = [...each[0]!].filter((b) => each.every((s) => s.has(b)));
      if (!common.length) out.push(`${ref} ${g.kind} is on no common bus`);
      const sets = mine.map(
        (p) =>
          new Set(
            offers(p, g.kind)
              .filter((o) => common.includes(`${p.hostRef}:${busOf(o)}`) && "role" in o && o.role === p.pin.need!.role)
              .map((o) => ("set" in o ? (o.set ?? "") : "")),
          ),
      );
      if (common.length === 1 && !sets.reduce((a, s) => new Set([...a].filter((x) => s.has(x)))).size)
        out.push(`${ref} mixes pin sets of ${common[0]}`);
      const line = `${g.kind} ${mine.map((p) => `${p.hostRef}.${p.at.label}`).join()}`;
      if (g.kind === "uart" || g.kind === "can") {
        if (common.length === 1) {
          const b = `${g.kind} ${common[0]}`;
          busMembers.set(b, (busMembers.get(b) ?? new Set()).add(ref));
          if (busMembers.get(b)!.size > 1) out.push(`${common[0]} has ${[...busMembers.get(b)!].join(" and ")}`);
        }
      } else if (g.kind === "i2c" && g.address) {
        const key = `${line} ${String(options(ref).address ?? g.address)}`;
        busMembers.set(key, (busMembers.get(key) ?? new Set()).add(ref));
        if (busMembers.get(key)!.size > 1)
          out.push(`${[...busMembers.get(key)!].join(" and ")} share an address on ${line}`);
      }
    }
  }
  for (const [t, list] of timerUse) {
    const rates = new Set(list.map((x) => x.rate));
    if (rates.size > list[0]!.most) out.push(`${t} would run at ${[...rates].join(" and ")}`);
    const slots = list.flatMap((x) => (x.slot === null ? [] : [x.slot]));
    if (new Set(slots).size < slots.length) out.push(`${t}: one channel twice`);
  }
  return out;
}

const BOARDS = catalogue.parts.filter((p) => p.board && !p.id.startsWith("chip/")).map((p) => p.id);
const MODULES = catalogue.parts
  .filter((p) => !p.board && p.pins.some((x) => x.need) && !p.pins.some((x) => x.need?.role === "onewire"))
  .filter((p) => !p.id.startsWith("connector/"))
  .map((p) => p.id);

describe("plans of real parts on real boards", () => {
  it("break no rule, by a checker of its own, and are the same when planned again", () => {
    let planned = 0;
    let refused = 0;
    for (let seed = 1; seed <= 260; seed++) {
      const rnd = seeded(seed);
      const of = <T>(list: readonly T[]) => list[Math.floor(rnd() * list.length)]!;
      const count = 1 + Math.floor(rnd() * 9);
      const parts = Array.from({ length: count }, (_, i) => ({ ref: `X${i + 1}`, part: of(MODULES) }));
      const project = make([{ ref: "B1", part: of(BOARDS) }, USB, ...parts]);
      const a = assign(project, catalogue);
      if (a.status === "infeasible") {
        refused++;
        expect(a.core.length, `seed ${seed}`).toBeGreaterThan(0);
        expect(a.clash, `seed ${seed}`).toMatch(/\.$/);
        continue;
      }
      planned++;
      expect(wrongs(a.project), `seed ${seed}: ${parts.map((p) => p.part).join(", ")}`).toEqual([]);
      const again = assign(a.project, catalogue);
      expect(again.project.links, `seed ${seed}`).toEqual(a.project.links);
    }
    expect(planned).toBeGreaterThan(150);
    expect(refused).toBeGreaterThan(10);
  });
  it("the checker does see what is wrong", () => {
    const two = [
      { ref: "X1", part: "module/servo-small" },
      { ref: "X2", part: "discrete/led-red" },
    ];
    const p = make(
      [{ ref: "B1", part: "board/rp2040-forty" }, USB, ...two],
      [
        ["X1.SIG", "B1.GP0"],
        ["X2.A", "B1.GP0"],
      ],
    );
    expect(wrongs(p).join()).toContain("serves X1 and X2");
    const tones = make(
      [
        { ref: "B1", part: "board/rp2040-forty" },
        USB,
        { ref: "X1", part: "discrete/speaker" },
        { ref: "X2", part: "module/servo-small" },
      ],
      [
        ["X1.1", "B1.GP0"],
        ["X2.SIG", "B1.GP1"],
      ],
    );
    expect(wrongs(tones).join()).toContain("B1:slice0 would run at");
  });
});

describe("thousands of random problems", () => {
  it("a plan never breaks a rule, and none is missed where one exists", () => {
    let plans = 0;
    for (let seed = 5000; seed < 7000; seed++) {
      const p = randomProblem(seed, {
        pins: 8 + (seed % 12),
        parts: 2 + (seed % 5),
        timers: seed % 2 === 0,
        orders: seed % 3 === 0,
        remaps: seed % 5 < 2,
        channels: seed % 7 === 1,
      });
      const s = solve(p);
      expect(s !== null, `seed ${seed}`).toBe(feasible(p));
      if (!s) continue;
      plans++;
      const pick = s.choice.map((k, n) => ({ ...p.needs[n]!.choices[k]!, n }));
      for (const a of pick)
        for (const b of pick) {
          if (a.n >= b.n) continue;
          const [na, nb] = [p.needs[a.n]!, p.needs[b.n]!];
          const oneLine = na.share !== null && na.share === nb.share && a.bus === b.bus;
          if (oneLine !== (a.pin === b.pin) && (oneLine || a.pin === b.pin))
            throw new Error(`seed ${seed}: ${na.id} and ${nb.id}`);
          if (na.group !== null && na.group === nb.group && a.bus !== b.bus)
            throw new Error(`seed ${seed}: split group`);
          for (const u of a.uses)
            for (const v of b.uses) {
              if (u.resource !== v.resource) continue;
              if (u.slot !== null && u.slot === v.slot) throw new Error(`seed ${seed}: slot twice`);
              if (u.mode !== v.mode && p.resources[u.resource]!.modes === 1) throw new Error(`seed ${seed}: two modes`);
            }
        }
      for (const [x, y] of p.clashes) {
        const [bx, by] = [x, y].map((g) => pick.find((c) => p.needs[c.n]!.group === g)?.bus);
        if (bx && bx === by) throw new Error(`seed ${seed}: clash on ${bx}`);
      }
    }
    expect(plans).toBeGreaterThan(800);
  });
});
