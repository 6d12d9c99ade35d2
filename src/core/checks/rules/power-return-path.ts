import type { Circuit } from "../../circuit";
import type { Net } from "../../circuit/netlist";
import { rootOf, type SourceAt } from "../../circuit/power";
import { label } from "../help";
import type { Found, Rule } from "../types";

const NOTHING_A = 1e-6;

/** The ground net of a source; null where it has none. */
function groundOf(c: Circuit, s: SourceAt): { net: Net; end: string } | null {
  const pin = s.inst.part.pins.find((p) => p.role === "ground" && (p.domain ?? "gnd") === s.supply.domain);
  return pin ? { net: c.netlist.netOf(`${s.ref}.${pin.label}`), end: `${s.ref}.${pin.label}` } : null;
}

/** A pin of a ground net to join to: a board's first, then any. */
function pinOf(c: Circuit, net: Net): string | null {
  const grounds = net.ends.filter((e) => e.def.role === "ground");
  const home = grounds.find((e) => c.netlist.instance(e.ref)?.part.board) ?? grounds[0];
  return home ? `${home.ref}.${home.pin}` : null;
}

interface Use {
  ref: string;
  source: SourceAt;
  home: { net: Net; end: string };
  back: Net;
}

/** Currents that come from one source and go to the ground of another. */
function strays(c: Circuit): Use[] {
  const use = (ref: string, rail: string, back: Net | undefined): Use[] => {
    const source = rootOf(c.netlist, c.power, rail)?.source;
    const home = source && groundOf(c, source);
    if (!source || !home || !back || back === home.net || source.ref === ref) return [];
    const held = c.solved.scene.heldNets;
    return held.has(back.id) && held.has(home.net.id) ? [{ ref, source, home, back }] : [];
  };
  const parts = [...c.netlist.expanded.instances.values()].flatMap((inst) =>
    Object.entries(inst.part.supplies).flatMap(([key, s]) => {
      const net = c.netlist.netOf(`${inst.ref}:${key}`);
      if (inst.inserted || s.source || !net.V || net.kind !== "supply") return [];
      const back = c.netlist.netOf(`${inst.ref}:ground:${s.domain}`) as Net | undefined;
      return back && back.ends.length + back.nodes.length > 2 ? use(inst.ref, net.id, back) : [];
    }),
  );
  const loads = [...c.solved.flows.values()].flatMap((f) => {
    if (!["load", "led"].includes(f.element.kind) || f.element.module || f.A.typ < NOTHING_A) return [];
    const [from, to] = [f.from.end, f.to.end];
    if (from.kind !== "rail" || to.kind !== "rail" || to.net.kind !== "ground") return [];
    return use(f.element.ref, from.net.id, to.net);
  });
  return [...parts, ...loads];
}

/** The current of a source has to come back to that very source: two grounds that are not joined carry nothing. */
export const returnPath: Rule = {
  rule: "power.ground-not-common",
  says: "Two parts that exchange signals must share ground, or a high has no meaning; and current must return to the source it came from.",
  check: (c) => {
    const groups = new Map<string, Use[]>();
    for (const u of strays(c)) {
      const key = `${u.source.ref} ${u.back.id}`;
      groups.set(key, [...(groups.get(key) ?? []), u]);
    }
    return [...groups.values()].map((list): Found => {
      const { source, home, back } = list[0]!;
      const refs = [...new Set(list.map((u) => u.ref))];
      const to = pinOf(c, back);
      const apart = c.project.isolated.flat().some((m) => m.split(".")[0] === source.ref);
      return {
        rule: "power.ground-not-common",
        severity: "fault",
        at: [home.end, ...(to ? [to] : []), ...refs.slice(0, 3)],
        message: `${refs.map((r) => label(c, r)).join(" and ")} ${refs.length > 1 ? "take" : "takes"} current from ${label(c, source.ref)}, but ${refs.length > 1 ? "their" : "its"} ground is not joined with ${home.end}: nothing can flow back, so ${refs.length > 1 ? "they stay" : "it stays"} dead or runs through signal pins.`,
        evidence: { from: source.ref, returns_to: to ?? back.name },
        fixes:
          to && !apart
            ? [
                {
                  id: "join-grounds",
                  label: `Join ${home.end} and ${to}`,
                  edits: [{ type: "addLink", link: { from: home.end, to } }],
                },
              ]
            : [],
      };
    });
  },
};
