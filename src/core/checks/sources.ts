import type { Circuit } from "../circuit";
import {
  inCold,
  lowestNeeded,
  pushes,
  rootOf,
  sourcesOn,
  supplyWires,
  type Push,
  type SourceAt,
} from "../circuit/power";
import { evaluate, formatV } from "../quantity";
import type { Net } from "../circuit/netlist";
import { airOf, nextRef, splitEnd, type BasicEdit } from "../project";
import { netById } from "./graph";
import { label, mA, round } from "./help";
import { ownSupplyFix } from "./supply-fixes";
import type { Finding, Fix, Rule } from "./types";

const SAME_V = 0.3;
/** Rails that differ by more than this are not the same rail. */
const CLASH_V = 0.5;
const typ = (s: SourceAt) => evaluate(s.source.V.typ, s.inst.vars);

/** Edits that put a Schottky diode into a source's plus wires, so that nothing flows back into it. */
function diodeEdits(c: Circuit, s: SourceAt, number: number): BasicEdit[] {
  const pins = s.inst.part.pins.filter((p) => p.role === "supply-out").map((p) => `${s.ref}.${p.label}`);
  const links = c.project.links.filter((l) => pins.includes(l.from) || pins.includes(l.to));
  const out = links[0] && (pins.includes(links[0].from) ? links[0].from : links[0].to);
  if (!out) return [];
  const first = nextRef(c.project, DIODE);
  const ref = first.replace(/\d+$/, (n) => String(Number(n) + number));
  return [
    { type: "addPart", part: DIODE, ref },
    { type: "addLink", link: { from: out, to: `${ref}.A` } },
    ...links.flatMap((l): BasicEdit[] => [
      { type: "removeLink", from: l.from, to: l.to },
      { type: "addLink", link: { from: `${ref}.K`, to: pins.includes(l.from) ? l.to : l.from } },
    ]),
  ];
}
const DIODE = "discrete/diode-1n5819";

/** A diode in each source that is pushed into; none where that is a plugged cable, since its wire can't be cut. */
function diodeFix(c: Circuit, into: SourceAt[]): Fix[] {
  const each = into.map((s, i) => diodeEdits(c, s, i));
  if (!c.catalogue.get(DIODE) || each.some((e) => !e.length)) return [];
  return [
    {
      id: "diode",
      label: `Put a Schottky diode behind ${into.map((s) => label(c, s.ref)).join(" and ")}`,
      edits: each.flat(),
    },
  ];
}

/** Takes the cable out of the plan: it is then only for uploading, with the other supply off. */
function unplugFix(c: Circuit, s: SourceAt | undefined): Fix[] {
  const link = s && c.project.links.find((l) => [l.from, l.to].some((e) => splitEnd(e).ref === s.ref && /USB/.test(e)));
  return link
    ? [
        {
          id: "unplug",
          label: "Take the cable out of the plan: plug it in only with the other supply off",
          edits: [{ type: "removeLink", from: link.from, to: link.to }],
        },
      ]
    : [];
}

/** Pairs of sources of which one or both can push into the other. */
function meetings(c: Circuit): { a: SourceAt; b: SourceAt; list: Push[] }[] {
  const pairs = new Map<string, Push[]>();
  for (const p of pushes(c.netlist)) {
    const key = [p.from.ref, p.into.ref].sort().join(" ");
    pairs.set(key, [...(pairs.get(key) ?? []), p]);
  }
  return [...pairs.values()].map((list) => ({ a: list[0]!.from, b: list[0]!.into, list }));
}
const clash = (m: { a: SourceAt; b: SourceAt; list: Push[] }) =>
  m.list.some((p) => p.joined) && Math.abs(typ(m.a) - typ(m.b)) > SAME_V;

const twoSources: Rule = {
  rule: "power.two-sources",
  says: "Two sources on one rail push against each other: a USB port gets current back, a cell is charged without a charger.",
  check: (c) =>
    meetings(c)
      .filter((m) => !clash(m))
      .map(({ list }): Finding => {
        const cell = list.find((p) => p.into.source.capacity_mAh !== undefined);
        const told = cell ?? list.find((p) => isPlug(p.into)) ?? list[0]!;
        const { from, into, arrives_V, meets_V } = told;
        const what = cell
          ? "charges it without any control: cells leak, swell or burn"
          : isPlug(into)
            ? "flows back into the USB port"
            : "flows back into it";
        return {
          rule: "power.two-sources",
          severity: cell ? "stop" : "risk",
          at: [from.ref, into.ref],
          message: `${label(c, from.ref)} can push up to ${formatV(arrives_V)} into ${label(c, into.ref)}, which may have ${formatV(meets_V)}: its current ${what}.${cell ? " Do not power this." : " Never have both on at once, or separate them."}`,
          evidence: { arrives_V: round(arrives_V), meets_V: round(meets_V) },
          fixes: [
            ...diodeFix(
              c,
              list.map((p) => p.into),
            ),
            ...unplugFix(c, list.flatMap((p) => [p.from, p.into]).find(isPlug)),
          ],
        };
      }),
};
const isPlug = (s: SourceAt) => s.inst.part.pins.some((p) => p.role === "cable");

/** Supply nets on which outputs of different voltages meet. */
export function clashingNets(c: Circuit): { net: Net; refs: string[]; lo: number; hi: number }[] {
  return c.netlist.nets.flatMap((net) => {
    if (net.kind !== "supply") return [];
    const outputs = net.nodes.flatMap((n) => {
      const inst = c.netlist.instance(n.ref);
      const k = inst?.part.converters.find((x) => x.to === n.supply && (x.kind === "linear" || x.kind === "switching"));
      return inst && k?.V ? [{ ref: n.ref, V: evaluate(k.V.typ, inst.vars) }] : [];
    });
    // A diode is no joint: what it lets through is judged as two sources.
    const passed = net.nodes.flatMap((n) => {
      const inst = c.netlist.instance(n.ref);
      const k = inst?.part.converters.find((x) => x.to === n.supply && (x.kind === "wire" || x.kind === "fuse"));
      const from = k && c.netlist.netOf(`${n.ref}:${k.from}`);
      return from && from !== net && from.V ? [{ ref: n.ref, V: from.V.typ }] : [];
    });
    const sources = sourcesOn(c.netlist, net).map((s) => ({ ref: s.ref, V: typ(s) }));
    const all = [...outputs, ...passed, ...sources];
    const [lo, hi] = [Math.min(...all.map((x) => x.V)), Math.max(...all.map((x) => x.V))];
    return all.length > 1 && hi - lo > CLASH_V ? [{ net, refs: [...new Set(all.map((x) => x.ref))], lo, hi }] : [];
  });
}

/** Rails of different voltage on one net, or a regulator's output joined to its input. */
const joinedRails: Rule = {
  rule: "power.short",
  says: "A supply must never be joined to ground, nor to a supply of another voltage.",
  check: (c) => {
    const found = (at: string[], what: string, V: [number, number]): Finding => ({
      rule: "power.short",
      severity: "stop",
      at,
      message: `${what} are joined: ${formatV(V[0])} and ${formatV(V[1])} on one rail. Do not power this.`,
      evidence: { first_V: round(V[0]), second_V: round(V[1]) },
      fixes: joinFix(c, at),
    });
    const rails = clashingNets(c);
    const names = (refs: string[]) =>
      refs.length > 1 ? refs.map((r) => label(c, r)).join(" and ") : `two rails of ${label(c, refs[0]!)}`;
    return [
      ...rails.map((x) => found(x.refs, names(x.refs), [x.lo, x.hi])),
      ...meetings(c)
        .filter((m) => clash(m) && !rails.some((r) => [m.a.ref, m.b.ref].every((x) => r.refs.includes(x))))
        .map(({ a, b }) => found([a.ref, b.ref], `${label(c, a.ref)} and ${label(c, b.ref)}`, [typ(a), typ(b)])),
    ];
  },
};

/** Wires between two supply pins of the named parts: one of them is too many. */
function joinFix(c: Circuit, refs: string[]): Fix[] {
  return c.project.links
    .filter((l) => {
      const ends = [l.from, l.to].map((e) => {
        const { ref, pin } = splitEnd(e);
        const def = c.netlist.instance(ref)?.part.pins.find((p) => p.label === pin || p.aliases?.includes(pin));
        return refs.includes(ref) && (def?.role === "supply-out" || def?.role === "supply-io") ? ref : null;
      });
      return ends.every((r) => r !== null);
    })
    .map((l) => ({
      id: `remove-${l.from}-${l.to}`,
      label: `Take out the wire from ${l.from} to ${l.to}`,
      edits: [{ type: "removeLink" as const, from: l.from, to: l.to }],
    }));
}

/** From here on a load is too much for a board's thin tracks and single header pin. */
const THROUGH_A = 0.5;

const throughBoard: Rule = {
  rule: "power.through-board",
  says: "A heavy load fed through a board's own pins heats its tracks and fuse and pulls its voltage down: feed it from the source.",
  check: (c) =>
    supplyWires(c.netlist, c.power).flatMap((w): Finding[] => {
      // The wire as the current flows: out of a board's pin into a load.
      const from = splitEnd(w.from.includes(":") ? `${w.from.split(":")[0]}.x` : w.from).ref;
      const to = splitEnd(w.to).ref;
      const board = c.netlist.instance(from)?.part;
      const load = c.netlist.instance(to)?.part;
      if (!board?.board || !board.id.startsWith("board/") || load?.board || w.peak_A <= THROUGH_A) return [];
      return [
        {
          rule: "power.through-board",
          severity: "risk",
          at: [w.to, w.from],
          message: `${label(c, to)} draws up to ${mA(w.peak_A)} through ${w.from} of ${label(c, from)}. Feed it straight from the source, and join the grounds.`,
          evidence: { peak_mA: round(w.peak_A * 1000, 0), advised_mA: THROUGH_A * 1000 },
          fixes: [...directFix(c, w.from, w.to), ...ownSupplyFix(c, to)],
        },
      ];
    }),
};

/** Moves a load's supply wire from the board's pin to the source that feeds the board, where it has a free outlet. */
function directFix(c: Circuit, from: string, to: string): Fix[] {
  const net = c.netlist.netOf(from);
  const root = rootOf(c.netlist, c.power, net.id);
  const load = c.netlist.instance(splitEnd(to).ref);
  const pin = root?.source.inst.part.pins.find((p) => p.role === "supply-out");
  const ground = root?.source.inst.part.pins.find((p) => p.role === "ground");
  const own = load?.part.pins.find((p) => p.label === splitEnd(to).pin);
  const s = own?.supply ? load?.part.supplies[own.supply] : undefined;
  if (!root || !pin || !load || !s || root.source.inst.part.pins.some((p) => p.role === "cable")) return [];
  const V = root.net.V!;
  if (V.min < evaluate(s.V.min, load.vars) || V.max > evaluate(s.V.max, load.vars)) return [];
  const loadGround = load.part.pins.find((p) => p.role === "ground");
  const edits: BasicEdit[] = [
    { type: "removeLink", from, to },
    { type: "addLink", link: { from: to, to: `${root.source.ref}.${pin.label}` } },
  ];
  if (loadGround && ground)
    edits.push({
      type: "addLink",
      link: { from: `${load.ref}.${loadGround.label}`, to: `${root.source.ref}.${ground.label}` },
    });
  return [{ id: "direct", label: `Feed ${label(c, load.ref)} straight from ${root.source.ref}.${pin.label}`, edits }];
}

const brownout: Rule = {
  rule: "power.brownout",
  says: "A battery's voltage sags by its inner resistance times the current: at the peak it must still be enough.",
  check: (c) =>
    c.power.limits.flatMap((l): Finding[] => {
      const net = netById(c, l.net);
      const s = net && sourcesOn(c.netlist, net)[0];
      const cold = airOf(c.project).min_C;
      const { times } = s?.source.chemistry ? inCold(s.source.chemistry, cold) : { times: 1 };
      const ohm = times * (s?.source.rint_ohm === undefined ? 0 : evaluate(s.source.rint_ohm, s.inst.vars));
      if (l.kind !== "source" || !net?.V || !s || !ohm || l.flow.peak > l.limit_A) return [];
      const need = lowestNeeded(c.netlist, c.power, l.net);
      const sag = l.flow.peak * ohm;
      // Where even the resting voltage is too low, the range or the drop-out speaks.
      if (!need.V || net.V.min < need.V || net.V.min - sag >= need.V) return [];
      return [
        {
          rule: "power.brownout",
          severity: "risk",
          at: [l.ref, ...(need.by ? [need.by] : [])],
          message: `At ${mA(l.flow.peak)} ${label(c, l.ref)} sags by ${formatV(sag)}${times > 1 ? ` at ${String(cold).replace("-", "−")} °C` : ""}: a nearly empty one gives ${formatV(net.V.min - sag)}, and ${need.by ? label(c, need.by) : "what hangs on it"} wants ${formatV(need.V)}. It restarts at the peak.`,
          evidence: {
            sag_V: round(sag),
            low_V: round(net.V.min - sag),
            wants_V: round(need.V),
            rint_ohm: round(ohm),
            air_C: cold,
          },
          fixes: l.loads
            .filter((x) => !c.netlist.instance(x.ref)?.part.board && x.flow.peak > 0.2)
            .slice(0, 1)
            .flatMap((x) => ownSupplyFix(c, x.ref)),
        },
      ];
    }),
};

const noSwitch: Rule = {
  rule: "power.no-switch",
  says: "A battery without a switch runs flat in the drawer.",
  check: (c) =>
    c.netlist.nets.flatMap((net) =>
      net.kind !== "supply"
        ? []
        : sourcesOn(c.netlist, net).flatMap((s): Finding[] => {
            if (!s.source.capacity_mAh || net.nodes.length + net.ends.length < 3) return [];
            const contact = c.netlist.elements.some((e) => e.kind === "contact" && (e.a === net.id || e.b === net.id));
            if (contact) return [];
            const plus = s.inst.part.pins.find((p) => p.role === "supply-out")?.label ?? "+";
            return [
              {
                rule: "power.no-switch",
                severity: "note",
                at: [s.ref],
                message: `${label(c, s.ref)} has no switch: it goes on being used when nobody does.`,
                evidence: { source: s.ref },
                fixes: switchFix(c, `${s.ref}.${plus}`),
              },
            ];
          }),
    ),
};

/** Puts a toggle into the plus wire of a battery. */
function switchFix(c: Circuit, plus: string): Fix[] {
  const links = c.project.links.filter((l) => l.from === plus || l.to === plus);
  if (!links.length || !c.catalogue.get("discrete/toggle")) return [];
  const ref = nextRef(c.project, "discrete/toggle");
  return [
    {
      id: "add-switch",
      label: `Put a switch behind ${plus}`,
      edits: [
        { type: "addPart", part: "discrete/toggle", ref, label: "Power", companions: { pullUp: null } },
        { type: "addLink", link: { from: plus, to: `${ref}.1` } },
        ...links.flatMap((l): BasicEdit[] => [
          { type: "removeLink", from: l.from, to: l.to },
          { type: "addLink", link: { from: `${ref}.2`, to: l.from === plus ? l.to : l.from } },
        ]),
      ],
    },
  ];
}

const polarity: Rule = {
  rule: "power.polarity",
  says: "Plugs and loose wires are not always what their colours say: measure plus and minus before anything is joined.",
  check: (c) =>
    c.netlist.nets.flatMap((net) =>
      net.kind !== "supply" || net.nodes.length < 2
        ? []
        : sourcesOn(c.netlist, net).flatMap((s): Finding[] => {
            if (s.inst.part.pins.some((p) => p.role === "cable")) return [];
            return [
              {
                rule: "power.polarity",
                severity: "note",
                at: [s.ref],
                message: `Check ${label(c, s.ref)} with a meter before it is joined: ${formatV(net.V?.typ ?? 0)}${s.source.plug ? `, ${s.source.plug}` : ""}.`,
                evidence: { wants_V: round(net.V?.typ ?? 0) },
                fixes: [],
              },
            ];
          }),
    ),
};

export const sourceRules: Rule[] = [twoSources, joinedRails, throughBoard, brownout, noSwitch, polarity];
