import type { Circuit } from "../../circuit";
import type { Instance } from "../../circuit/netlist";
import { label } from "../help";
import { adapterFix, logicSupplyFix } from "../supply-fixes";
import { blockedNets } from "../reversed";
import type { Found, Fix, Rule } from "../types";
import { isLinked, wireFix } from "../power";

const addUsb = (c: Circuit, inst: Instance): Fix[] => {
  const socket = inst.part.pins.find((p) => p.role === "cable");
  if (!socket || c.project.parts.some((p) => p.part.startsWith("supply/"))) return [];
  return [
    {
      id: "usb-port",
      label: "Feed the board from a USB port",
      edits: [
        { type: "addPart", part: "supply/usb-port", ref: "S1" },
        { type: "addLink", link: { from: "S1.USB", to: `${inst.ref}.${socket.label}` } },
      ],
    },
  ];
};

export const powerNoSupply: Rule = {
  rule: "power.no-supply",
  says: "Every part that draws current needs its supply pin on a rail that something feeds.",
  check: (c) => {
    const out: Found[] = [];
    const deadNets = blockedNets(c);
    const blocked = (node: string) => deadNets.has(c.netlist.netOf(node).id);
    for (const inst of c.netlist.expanded.instances.values()) {
      if (!inst.part.board && !isLinked(c, inst)) continue;
      // A supply whose pins may all stay free, and do, is not missed.
      const idle = (k: string) => {
        const pins = inst.part.pins.filter((p) => p.supply === k);
        return (
          pins.length > 0 && pins.every((p) => p.optional && c.netlist.netOf(`${inst.ref}.${p.label}`).ends.length < 2)
        );
      };
      // What is fed at a pin of its own needs it, whether or not its data says how much it draws.
      const hasInlet = (k: string) =>
        !inst.part.board && inst.part.pins.some((p) => p.role === "supply-in" && p.supply === k);
      const dead = Object.entries(inst.part.supplies).find(
        ([k, s]) =>
          !s.source &&
          (s.mA || hasInlet(k)) &&
          !c.netlist.netOf(`${inst.ref}:${k}`).V &&
          !blocked(`${inst.ref}:${k}`) &&
          !idle(k),
      );
      if (!dead) continue;
      const pin = inst.part.pins.find((p) => p.role.startsWith("supply-") && p.supply === dead[0]);
      // A chip with one of several supply pins open is not dead, but what hangs on that pin is.
      const fed = Object.keys(inst.part.supplies).some((k) => c.netlist.netOf(`${inst.ref}:${k}`).V);
      // A board's signal pin gives a few milliamperes, and those only while the program says so.
      const signal = pin && c.netlist.netOf(`${inst.ref}.${pin.label}`).ends.find((e) => e.def.offers);
      out.push({
        rule: "power.no-supply",
        severity: "fault",
        at: [pin ? `${inst.ref}.${pin.label}` : inst.ref],
        message: `Nothing feeds ${fed && inst.part.board && pin ? `${pin.label} of ` : ""}${label(c, inst.ref)}: ${inst.part.board && !fed ? "the board has no supply" : signal ? `${pin.label} hangs on ${signal.ref}.${signal.pin}, a signal pin and no supply` : `${pin?.label ?? dead[0]} is on no rail that a source reaches`}.`,
        evidence: { supply: dead[0] },
        fixes: [
          ...(signal ? logicSupplyFix(c, inst.ref) : []),
          ...addUsb(c, inst),
          ...wireFix(c, inst.ref, `Wire ${label(c, inst.ref)}'s supply and ground`),
          ...(inst.part.board || signal ? [] : adapterFix(c, inst, dead[0])),
        ],
      });
    }
    return out;
  },
};
