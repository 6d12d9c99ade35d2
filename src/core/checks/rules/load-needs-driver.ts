import type { Circuit } from "../../circuit";
import { fetStage } from "../../circuit/formulas";
import type { Instance } from "../../circuit/netlist";
import { outputOf } from "../../parts/catalogue";
import { evaluate, type Triple } from "../../quantity";
import { nextRef, splitEnd, type BasicEdit } from "../../project";
import { isRail, netById } from "../graph";
import { label, mA, round } from "../help";
import type { Found, Fix, Rule } from "../types";
import { type LoadAt, fetFor, loadsOf } from "../loads";

/** The board pins on either side of a load. */
const pinsAt = (c: Circuit, l: LoadAt) =>
  [l.el.a, l.el.b].flatMap((id) =>
    isRail(netById(c, id))
      ? []
      : (netById(c, id)?.ends ?? []).filter((e) => e.def.offers?.length && c.netlist.instance(e.ref)?.part.board),
  );

/** From here on a load gets a supply of its own rather than the board's. */
const HEAVY_A = 0.3;

/** Where a load is fed from: an outlet that is there, or an adapter of its own for it, with the edits that this takes. */
function feedFor(c: Circuit, l: LoadAt, host: string): { to: string; words: string; edits: BasicEdit[] } | null {
  const there = outletFor(c, l);
  const own = there !== null && c.netlist.instance(splitEnd(there).ref)?.part.id.startsWith("supply/");
  if (there && (own || l.A.peak <= HEAVY_A)) return { to: there, words: there, edits: [] };
  const [part, pin] = l.V.min <= 5 && l.V.max >= 5 ? ["supply/adapter-5v-2a", "5V"] : ["supply/adapter-12v-2a", "12V"];
  const ground = c.netlist.instance(host)?.part.pins.find((p) => p.role === "ground")?.label;
  if (!ground || !c.catalogue.get(part) || l.A.peak > 2 || (pin === "12V" && (l.V.min > 12 || l.V.max < 12)))
    return null;
  const ref = nextRef(c.project, part);
  return {
    to: `${ref}.${pin}`,
    words: `a ${pin.replace("V", " V")} adapter of its own`,
    edits: [
      { type: "addPart", part, ref },
      { type: "addLink", link: { from: `${ref}.GND`, to: `${host}.${ground}` } },
    ],
  };
}

/** An outlet for a load: a board's or a supply's pin whose voltage lies in the load's range. */
function outletFor(c: Circuit, l: LoadAt): string | null {
  const ok = (V: Triple | null) => V && V.typ >= l.V.min && V.typ <= Math.max(l.V.max, l.V.typ * 1.1);
  const linked = new Set(c.project.links.flatMap((x) => [x.from, x.to]));
  // A USB port has one socket: with the cable in it there is no bare lead.
  const plugged = (i: Instance) =>
    !i.part.board && i.part.pins.some((p) => p.role === "cable" && linked.has(`${i.ref}.${p.label}`));
  const all = [...c.netlist.expanded.instances.values()].filter((i) => !i.inserted && !plugged(i));
  const out = all.flatMap((i) =>
    i.part.pins
      .filter(
        (p) => (p.role === "supply-out" || p.role === "supply-io") && ok(c.netlist.netOf(`${i.ref}.${p.label}`).V),
      )
      .map((p) => ({
        end: `${i.ref}.${p.label}`,
        own: i.part.id.startsWith("supply/"),
        V: c.netlist.netOf(`${i.ref}.${p.label}`).V!,
      })),
  );
  const far = (V: Triple) => Math.abs(V.typ - l.V.typ);
  return [...out].sort((x, y) => far(x.V) - far(y.V) || Number(y.own) - Number(x.own))[0]?.end ?? null;
}

function driverFix(c: Circuit, l: LoadAt, host: string): Fix[] {
  const inst = c.netlist.instance(host)!;
  const pins = pinsAt(c, l);
  const V = c.netlist.netOf(`${host}:${inst.part.board!.logicSupply}`).V;
  const level = pins[0] && c.netlist.level(pins[0].ref, pins[0].pin);
  if (!V || !level || pins.length !== 1 || !c.project.parts.some((p) => p.ref === l.el.ref)) return [];
  const high = (volts: number) => evaluate(outputOf(level, "VOH") ?? "V", { ...inst.vars, V: volts, I: 0 });
  const drive = { min: high(V.min), typ: high(V.typ), max: V.max };
  const part = fetFor(c, drive, l.A.peak, l.V.max);
  const def = part ? c.catalogue.get(part)?.elements.find((e) => e.kind === "fet") : undefined;
  const stage =
    def?.kind === "fet"
      ? fetStage({ V: drive, on: def.on, load_A: l.A.peak, pin_A: (level.pin_mA?.recommended ?? 8) / 1000 })
      : null;
  const feed = feedFor(c, l, host);
  if (!part || !stage || !feed) return [];
  // The load's other pin goes to the supply: the transistor then switches the ground side.
  const other = c.netlist
    .instance(l.el.ref)!
    .part.pins.find(
      (p) =>
        p.role === "passive" &&
        c.netlist.netOf(`${l.el.ref}.${p.label}`) !== c.netlist.netOf(`${pins[0]!.ref}.${pins[0]!.pin}`),
    );
  if (!other) return [];
  const end = `${l.el.ref}.${other.label}`;
  const edits: BasicEdit[] = [
    ...c.project.links
      .filter((x) => x.from === end || x.to === end)
      .map((x): BasicEdit => ({ type: "removeLink", from: x.from, to: x.to })),
    ...feed.edits,
    { type: "addLink", link: { from: end, to: feed.to } },
    { type: "setCompanion", ref: l.el.ref, key: "driver", value: { part, ohm: [stage.gate_ohm, stage.pull_ohm] } },
  ];
  if (l.el.inductive)
    edits.push({ type: "setCompanion", ref: l.el.ref, key: "flyback", value: { part: "discrete/diode-1n4007" } });
  return [
    {
      id: "driver",
      label: `Switch ${label(c, l.el.ref)} with a MOSFET, ${stage.gate_ohm} Ω at its gate, fed from ${feed.words}${l.el.inductive ? ", with a flyback diode" : ""}`,
      edits,
    },
  ];
}

export const loadNeedsDriver: Rule = {
  rule: "load.needs-driver",
  says: "A pin gives a few milliamperes and stands no kick from a coil: motors, coils and lamps need a transistor or driver.",
  check: (c) =>
    loadsOf(c).flatMap((l): Found[] => {
      const pin = pinsAt(c, l)[0];
      if (!pin) return [];
      const limit = c.netlist.level(pin.ref, pin.pin)?.pin_mA;
      if (!l.el.inductive && l.A.peak * 1000 <= (limit?.recommended ?? 8)) return [];
      return [
        {
          rule: "load.needs-driver",
          severity: "stop",
          at: [l.el.ref, `${pin.ref}.${pin.pin}`],
          message: `${label(c, l.el.ref)} draws up to ${mA(l.A.peak)}${l.el.inductive ? " and is a coil" : ""}; ${pin.ref}.${pin.pin} may give ${limit?.recommended ?? 8} mA. It needs a transistor or driver in between. Do not power this.`,
          evidence: { peak_mA: round(l.A.peak * 1000, 1), pin_mA: limit?.recommended ?? 8 },
          fixes: () => driverFix(c, l, pin.ref),
        },
      ];
    }),
};
