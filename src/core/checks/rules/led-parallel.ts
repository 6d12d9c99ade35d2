import type { Circuit } from "../../circuit";
import type { NetElement } from "../../circuit/netlist";
import type { LedPath } from "../../circuit/solve";
import { splitEnd } from "../../project";
import { formatOhm } from "../../quantity";
import { label } from "../help";
import type { Found, Fix, Rule } from "../types";

/** The side of a light that no resistor stands at: where it ends, by net. */
function bareSide(c: Circuit, p: LedPath): string | null {
  const flow = c.solved.flows.get(p.element);
  if (!flow) return null;
  const has = (list: readonly NetElement[]) => list.some((e) => e.kind === "resistor");
  const side = has(flow.from.passed) ? p.low : has(flow.to.passed) ? p.high : null;
  return side && !(has(flow.from.passed) && has(flow.to.passed)) ? side.net.id : null;
}

/** So many lights in one part make a digit or a bar: several of them on common lines are lit in turn. */
const SCANNED = 7;

export const ledParallel: Rule = {
  rule: "led.parallel",
  says: "Lights side by side on one resistor share its current by chance: each needs its own.",
  check: (c) => {
    const groups = new Map<string, LedPath[]>();
    for (const p of c.leds) {
      const part = c.netlist.instance(p.ref)?.part;
      if (!p.I || p.I.typ <= 0 || !p.resistors.length || part?.addresses || bareSide(c, p) === null) continue;
      const digit = (part?.elements.filter((e) => e.kind === "led").length ?? 0) >= SCANNED;
      const key = `${[...p.resistors].sort().join()}${digit ? ` ${p.ref}` : ""}`;
      groups.set(key, [...(groups.get(key) ?? []), p]);
    }
    return [...groups.values()].flatMap((list): Found[] => {
      const rows = new Set(list.map((p) => p.row));
      if (rows.size < 2) return [];
      const refs = [...new Set(list.map((p) => p.ref))];
      const shared = c.netlist.elements.find((e) => e.kind === "resistor" && e.ref === list[0]!.resistors[0])!;
      const inst = c.netlist.instance(shared.ref);
      return [
        {
          rule: "led.parallel",
          severity: "risk",
          at: [...refs, shared.ref],
          message: `${rows.size} lights (${refs.map((r) => label(c, r)).join(", ")}) share one resistor${inst?.inserted ? "" : ` (${shared.ref})`}: the one with the lowest voltage takes most of the current${refs.length === 1 ? ", and brightness jumps with what is shown" : ""}.`,
          evidence: { lights: rows.size, R_ohm: shared.ohm ?? 0 },
          fixes: () => ownResistors(c, refs, shared),
        },
      ];
    });
  },
};

/** Takes the shared resistor out of the wires and gives every light one of its own. */
function ownResistors(c: Circuit, refs: string[], shared: NetElement): Fix[] {
  const pins = c.netlist.instance(shared.ref)?.part.pins.map((p) => `${shared.ref}.${p.label}`) ?? [];
  const links = c.project.links.filter((l) => pins.includes(l.from) || pins.includes(l.to));
  const far = (pin: string) =>
    links.filter((l) => l.from === pin || l.to === pin).map((l) => (l.from === pin ? l.to : l.from));
  const [one, two] = [far(pins[0] ?? ""), far(pins[1] ?? "")];
  const lightEnds = [...one, ...two].filter((e) => refs.includes(splitEnd(e).ref));
  const source = [...one, ...two].find((e) => !refs.includes(splitEnd(e).ref));
  if (!source || !lightEnds.length || c.netlist.instance(shared.ref)?.inserted) return [];
  const all = refs.every((r) => lightEnds.some((e) => splitEnd(e).ref === r)) ? lightEnds : [];
  if (!all.length) return [];
  return [
    {
      id: "own-resistors",
      label: `Give each light its own ${formatOhm(shared.ohm ?? 330)}`,
      edits: [
        { type: "removePart", ref: shared.ref },
        ...all.map((e) => ({ type: "addLink" as const, link: { from: e, to: source } })),
        ...refs.map((ref) => ({
          type: "setCompanion" as const,
          ref,
          key: "seriesResistor" as const,
          value: { ohm: shared.ohm ?? 330 },
        })),
      ],
    },
  ];
}
