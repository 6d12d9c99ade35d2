import { evaluate } from "../../quantity";
import type { Catalogue, Part } from "../../parts/catalogue";
import type { Netlist } from "../netlist";
import type { PowerReport } from "./tree";

/** A supply that could feed what this project's source feeds now, with its reasons. */
export interface SupplyAdvice {
  part: string;
  name: string;
  owned: number;
  limit_mA: number;
  V: { min: number; typ: number; max: number };
  /** Share of its limit that the peaks take. */
  share: number;
  fits: boolean;
  why: string;
}

const ROOM = 0.8;

/** A supply's output as its options stand when new. */
function output(part: Part) {
  const entry = Object.entries(part.supplies).find(([, s]) => s.source);
  if (!entry) return null;
  const vars = Object.fromEntries(part.options.flatMap((o) => (o.kind === "number" ? [[o.key, o.default]] : [])));
  const source = entry[1].source!;
  const value = (x: number | string) => evaluate(x, vars);
  return {
    V: { min: value(source.V.min), typ: value(source.V.typ), max: value(source.V.max) },
    limit_A: value(source.limit_mA) / 1000,
  };
}

/**
 * Which of the known supplies would hold what hangs on a source of this project: the same voltage within 10 %, and peaks
 * under 80 % of its limit. What the person owns comes first, then the smallest that fits.
 */
export function adviseSupplies(n: Netlist, power: PowerReport, catalogue: Catalogue, limitId: string): SupplyAdvice[] {
  const limit = power.limits.find((l) => l.id === limitId);
  const V = n.nets.find((x) => x.id === limit?.net)?.V;
  if (!limit || !V) return [];
  const usb = n.instance(limit.ref)?.part.pins.some((p) => p.role === "cable") ?? false;
  return catalogue.ids
    .filter((id) => id.startsWith("supply/"))
    .flatMap((id): SupplyAdvice[] => {
      const part = catalogue.get(id);
      const out = part && output(part);
      if (!part || !out || id === "supply/bench" || Math.abs(out.V.typ - V.typ) > V.typ * 0.1) return [];
      const share = limit.flow.peak / out.limit_A;
      const plug = usb && !part.pins.some((p) => p.role === "cable");
      const fits = share <= ROOM;
      return [
        {
          part: id,
          name: part.name,
          owned: n.expanded.project.drawer.parts[id] ?? 0,
          limit_mA: out.limit_A * 1000,
          V: out.V,
          share,
          fits,
          why: fits
            ? `the peaks take ${Math.round(share * 100)} % of what it gives${plug ? "; it has no USB plug, so it goes to the 5 V pin" : ""}`
            : share > 1
              ? `the peaks are ${share.toFixed(1)} times what it gives`
              : `the peaks take ${Math.round(share * 100)} % of what it gives: too little room`,
        },
      ];
    })
    .sort(
      (a, b) => Number(b.fits) - Number(a.fits) || Number(b.owned > 0) - Number(a.owned > 0) || a.limit_mA - b.limit_mA,
    );
}
