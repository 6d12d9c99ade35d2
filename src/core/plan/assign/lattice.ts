import type { Circuit } from "../../circuit";
import { type Offer, type Pin, type Part } from "../../parts/catalogue";
import { splitEnd } from "../../project";
import { waysToServe, type HostFacts } from "./capability";
import { LETTER, type LatticeCell } from "./cell";
import { effectiveNeed, extenders, hostFacts, problemOf, tooSlow } from "./collect";
import { openPins } from "./hookups";
import { endOf } from "./problem";
import { needWords, whyChosen } from "./words";

export interface LatticeColumn {
  /** Endpoint, `B1.GP4` or `U1.PA0`. */
  end: string;
  /** What is printed at the pin. */
  pin: string;
  header: string;
  side: string;
  index: number;
  can: string[];
  hazards: string[];
  usedBy: string[];
  signal: boolean;
  /** Some need of the project can use it. */
  useful: boolean;
}
export interface LatticeRow {
  id: string;
  ref: string;
  part: string;
  pin: string;
  wants: string;
  /** Endpoint of the pin that it is on. */
  at: string | null;
  locked: boolean;
  /** It may stay free, and nobody asked for it. */
  idle: boolean;
  /** The link of the project that holds this need, when there is one. */
  link: { from: string; to: string } | null;
  /** One letter a column: see `cellOf`. */
  states: string;
  /** Index into the view's sentences, one a column. */
  why: number[];
}
/** What is still free, by what it is good for. */
export interface LeftOver {
  can: string;
  name: string;
  pins: string[];
  /** What a later part would find, in words. */
  says: string;
}
export interface LatticeView {
  host: string;
  hostName: string;
  /** `from`: the end that every header is counted from. */
  headers: { id: string; side: string; says: string; from: string }[];
  columns: LatticeColumn[];
  rows: LatticeRow[];
  says: string[];
  spare: LeftOver[];
}

const busWords = (o: { bus: string; role: string }) => `${o.bus} ${o.role.toUpperCase()}`;
const CAN: Record<Offer["kind"], (o: never) => string> = {
  digital: () => "digital",
  pwm: (o: { timer: string; channel: string }) => `PWM (${o.timer} ${o.channel})`,
  adc: () => "analogue in",
  dac: () => "analogue out",
  interrupt: () => "interrupt",
  i2c: busWords,
  spi: busWords,
  uart: busWords,
  can: busWords,
  i2s: busWords,
  bridge: (o: { role: string }) => `bridge ${o.role.toUpperCase()}`,
  touch: () => "touch",
  program: () => "programming",
};
const words = (o: Offer) => CAN[o.kind](o as never);

const hazardous = new Set(["console", "strapping", "bootlog", "onboard", "programming"]);

interface Ask {
  need: Parameters<typeof waysToServe>[1];
  at: boolean;
  locked: boolean;
  usedBy: string[];
  standing: string;
  facts: HostFacts;
  /** Why it can't sit on this part's pins at all. */
  slow: string | null;
}

function cell(pin: Pin, label: string, a: Ask): LatticeCell {
  const ways = waysToServe(pin, a.need, a.facts);
  const ok = ways.find((w) => w.ok);
  const bad = ways.find((w) => !w.ok);
  const hazard = pin.hazards?.find((h) => hazardous.has(h.kind));
  const caution = hazard ? `; mind: ${hazard.says}` : "";
  if (a.at && ok && !a.locked && a.standing) return { state: "chosen", why: a.standing };
  if (a.at)
    return {
      state: a.locked ? "locked" : "chosen",
      why: `planned here${a.locked ? " and locked" : ""}${bad && !bad.ok ? `, but ${bad.why}` : caution}`,
    };
  if (!ok) return { state: "cannot", why: bad && !bad.ok ? bad.why : `${label} can't serve` };
  if (a.slow) return { state: "cannot", why: `${label} ${a.slow}` };
  if (a.usedBy.length)
    return { state: "taken", why: `${label} could serve, but ${a.usedBy.join(" and ")} is there${caution}` };
  const by = ok.ok && ok.bus ? (ok.software ? " in software" : ` by ${ok.bus}`) : "";
  return hazard
    ? { state: "caution", why: `${label} would fit${by}${caution}` }
    : { state: "fits", why: `${label} would fit${by}` };
}

const LEFT: [kind: string, name: string, one: string, more: string][] = [
  ["digital", "digital", "a button or a light", "buttons, lights and switches"],
  ["adc", "analogue in", "one more analogue sensor", "analogue sensors"],
  ["pwm", "PWM", "one dimmed light or servo", "dimmed lights and servos"],
  ["interrupt", "interrupt", "one counted or watched input", "counted or watched inputs"],
  ["i2c", "I2C", "", ""],
  ["spi", "SPI", "", ""],
  ["uart", "serial (UART)", "", ""],
  ["can", "CAN", "", ""],
  ["bridge", "bridge amplifier", "", ""],
  ["i2s", "sound (I2S)", "", ""],
  ["dac", "analogue out", "one real voltage out", "real voltages out"],
  ["touch", "touch", "one touch surface", "touch surfaces"],
];

/** Bus instances that have nobody on them and all lines free, and those that are in use and open to more. */
function busLeft(kind: string, free: Pin[], all: Pin[], open: ReadonlySet<string>): string {
  const roles: Record<string, string[]> = {
    i2c: ["sda", "scl"],
    spi: ["sck", "mosi"],
    uart: ["tx", "rx"],
    can: ["tx", "rx"],
    i2s: ["sck", "ws"],
    bridge: ["e+", "e-", "s+", "s-"],
  };
  const buses = [
    ...new Set(all.flatMap((p) => (p.offers ?? []).flatMap((o) => ("bus" in o && o.kind === kind ? [o.bus] : [])))),
  ];
  const whole = buses.filter(
    (b) =>
      !open.has(b) &&
      roles[kind]!.every((r) =>
        free.some((p) => p.offers!.some((o) => "bus" in o && o.kind === kind && o.bus === b && o.role === r)),
      ),
  );
  const used = buses.filter((b) => open.has(b));
  const shared = kind === "i2c" || kind === "spi";
  return [
    ...(shared && used.length ? [`${used.join(", ")} takes more parts`] : []),
    whole.length
      ? `${whole.join(", ")} ${whole.length === 1 ? "is" : "are"} free`
      : shared && used.length
        ? ""
        : "none is free",
  ]
    .filter(Boolean)
    .join("; ");
}

/** The lattice of a host: every need against every pin in header order, judged and explained. */
export function latticeView(c: Circuit, host: string): LatticeView {
  const { netlist, project } = c;
  const inst = netlist.instance(host)!;
  const board = inst.part.board!;
  const more = extenders(netlist, host);
  const pins = [
    ...board.headers.flatMap((h) =>
      inst.part.pins
        .filter((p) => p.at?.header === h.id)
        .sort((a, b) => a.at!.index - b.at!.index)
        .map((def) => ({ of: inst, def, header: h.id, side: h.side as string, index: def.at!.index })),
    ),
    ...more.flatMap((of) =>
      of.part.pins
        .filter((p) => p.offers?.length)
        .map((def, i) => ({ of, def, header: of.ref, side: "behind", index: i + 1 })),
    ),
  ];
  const users = new Map<string, string[]>();
  for (const b of netlist.bindings) {
    const end = `${b.host}.${b.hostPin}`;
    users.set(end, [...(users.get(end) ?? []), `${b.ref}.${b.pin}`]);
  }
  const problem = problemOf(c, host);
  const byId = new Map(problem.needs.map((n) => [n.id, n]));
  /** Why a need stands on its pin, in the planner's own words. */
  const standing = (id: string): string => {
    const n = byId.get(id);
    const choice = n?.choices.findIndex((x) => endOf(problem, x.pin) === n.present) ?? -1;
    if (!n || choice < 0) return "";
    const sharing = problem.needs.filter((m) => m !== n && n.share && m.share === n.share && m.present === n.present);
    return whyChosen(problem, n, choice, [...new Set(sharing.map((m) => m.ref))], true);
  };
  const says: string[] = [];
  const known = new Map<string, number>();
  const sentence = (text: string) => {
    const there = known.get(text);
    if (there !== undefined) return there;
    known.set(text, says.length);
    return says.push(text) - 1;
  };
  const refs = new Set([host, ...more.map((m) => m.ref)]);
  const useful = new Array<boolean>(pins.length).fill(false);
  const rows: LatticeRow[] = [];
  for (const i of netlist.expanded.instances.values()) {
    if (i.host !== host || i.inserted || i.part.board) continue;
    for (const p of i.part.pins) {
      if (!p.need) continue;
      const id = `${i.ref}.${p.label}`;
      const bound = netlist.bindings.find((b) => b.ref === i.ref && b.pin === p.label && refs.has(b.host));
      const at = bound ? `${bound.host}.${bound.hostPin}` : null;
      const link =
        project.links.find(
          (l) => [l.from, l.to].includes(id) && [l.from, l.to].some((e) => refs.has(splitEnd(e).ref)),
        ) ?? null;
      const need = effectiveNeed(netlist, i.ref, p);
      const why = bound ? standing(id) : "";
      const group = i.part.groups.find((g) => Object.values(g.pins).includes(p.label) && g.kind === need.kind)?.id;
      const facts = new Map(
        [...refs].map((r) => [r, hostFacts(project, netlist, r, i.ref, r === host ? group : undefined)]),
      );
      const slow = new Map([inst, ...more].map((m) => [m.ref, tooSlow(m, host, i.ref, need)]));
      let states = "";
      const reasons: number[] = [];
      pins.forEach((q, k) => {
        const end = `${q.of.ref}.${q.def.label}`;
        const label = q.of === inst ? q.def.label : end;
        const x = cell(q.def, label, {
          need,
          at: at === end,
          locked: link?.locked ?? false,
          usedBy: (users.get(end) ?? []).filter((u) => u !== id),
          standing: why,
          facts: facts.get(q.of.ref)!,
          slow: slow.get(q.of.ref)!,
        });
        states += LETTER[x.state];
        reasons.push(sentence(x.why));
        if (x.state !== "cannot") useful[k] = true;
      });
      rows.push({
        id,
        ref: i.ref,
        part: p.called ? `${i.label}, ${p.called}` : i.label,
        pin: p.label,
        wants: needWords({ need }),
        at,
        locked: link?.locked ?? false,
        idle: !at && (p.need.optional ?? false) && !byId.has(id),
        link: link && { from: link.from, to: link.to },
        states,
        why: reasons,
      });
    }
  }
  const columns = pins.map((p, k): LatticeColumn => {
    const end = `${p.of.ref}.${p.def.label}`;
    return {
      end,
      pin: p.def.label,
      header: p.header,
      side: p.side,
      index: p.index,
      can: p.def.offers?.map(words) ?? [],
      hazards: p.def.hazards?.map((h) => h.says) ?? [],
      usedBy: users.get(end) ?? [],
      signal: Boolean(p.def.offers?.length),
      useful: useful[k]! || (users.get(end) ?? []).length > 0,
    };
  });
  return {
    host,
    hostName: inst.part.name,
    headers: [
      ...board.headers.map(({ id, side, says: s }) => ({
        id,
        side,
        says: s,
        from: board.countedFrom ?? "the USB end",
      })),
      ...more.map((m) => ({ id: m.ref, side: "behind", says: m.label, from: "pin 1" })),
    ],
    columns,
    rows,
    says,
    spare: leftOver(pins, users, problem),
  };
}

type Place = { of: { ref: string }; def: Pin };

function leftOver(
  pins: Place[],
  users: ReadonlyMap<string, string[]>,
  problem: ReturnType<typeof problemOf>,
): LeftOver[] {
  const barred = (p: Pin) => p.hazards?.some((h) => h.kind === "reserved" || h.kind === "reset");
  const all = pins.filter((p) => p.def.offers?.length && !barred(p.def));
  const free = all.filter((p) => !users.has(`${p.of.ref}.${p.def.label}`));
  const label = (p: Place) => (p.of.ref === problem.host ? p.def.label : `${p.of.ref}.${p.def.label}`);
  const open = new Set(
    problem.needs.flatMap((n) =>
      n.choices.filter((c) => endOf(problem, c.pin) === n.present).flatMap((c) => (c.bus ? [c.bus] : [])),
    ),
  );
  const own = (list: Place[]) => list.filter((p) => p.of.ref === problem.host).map((p) => p.def);
  return LEFT.flatMap(([can, name, one, more]): LeftOver[] => {
    const has = (p: Place) => p.def.offers!.some((o) => o.kind === can);
    if (!all.some(has)) return [];
    const list = free.filter(has);
    const says = one
      ? list.length === 0
        ? "none left"
        : `room for ${list.length === 1 ? one : `${list.length} ${more}`}`
      : busLeft(can, own(free), own(all), open);
    return [{ can, name, pins: list.map(label), says }];
  });
}

/**
 * What stays free on a host by capability, from the pins that a plan left over: the short form of a lattice's strip, at none of
 * its cost. `spare` as the plan tells it.
 */
export function leftByKind(
  part: Part,
  host: string,
  spare: readonly { host: string; pin: string; can: readonly string[] }[],
): Pick<LeftOver, "can" | "name" | "pins">[] {
  const barred = new Set(
    part.pins.filter((p) => p.hazards?.some((h) => h.kind === "reserved" || h.kind === "reset")).map((p) => p.label),
  );
  return LEFT.flatMap(([can, name]) =>
    part.pins.some((p) => !barred.has(p.label) && p.offers?.some((o) => o.kind === can))
      ? [
          {
            can,
            name,
            pins: spare
              .filter((s) => s.can.includes(can) && !(s.host === host && barred.has(s.pin)))
              .map((s) => (s.host === host ? s.pin : `${s.host}.${s.pin}`)),
          },
        ]
      : [],
  );
}

/** How many signal needs of the project have no pin yet. */
export const openNeeds = (c: Circuit) =>
  [...c.netlist.expanded.instances.values()]
    .filter((i) => !i.inserted && !i.part.board && i.host)
    .reduce((s, i) => s + openPins(c.project, c.netlist, i).filter((p) => p.need).length, 0);
