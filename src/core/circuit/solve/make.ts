import type { NetElement } from "../netlist/types";
import type { Island } from "./islands";
import type { Driver, Scene } from "./model";
import type { Spread } from "./network";

/** Everything that an island's results may point at. */
export interface Cast {
  nets: string[];
  elements: NetElement[];
  drivers: Driver[];
  rails: string[];
}

export function castOf(scene: Scene, island: Island): Cast {
  const rails = new Set<string>();
  for (const e of island.elements)
    for (const id of [e.a, e.b, e.control]) if (id !== undefined && scene.held.has(id)) rails.add(id);
  return {
    nets: island.nets,
    elements: island.elements,
    drivers: island.nets.flatMap((id) => scene.drivers.get(id) ?? []),
    rails: [...rails],
  };
}

/** What an island is made of, as text, and how things are called in it: alike in every island of the same make. */
export interface Make {
  cast: Cast;
  text: string;
  place(net: string): number | undefined;
  spread(s: Spread): string;
}

/** What an island is made of, as text: places by number, values as they are, knobs by who shares them. */
export function makeOf(scene: Scene, cast: Cast): Make {
  const place = new Map([...cast.nets, ...cast.rails].map((id, i) => [id, i]));
  const knobs = new Map<string, number>();
  const knob = (k: string) => {
    if (!knobs.has(k)) knobs.set(k, knobs.size);
    return knobs.get(k)!;
  };
  const spread = (s: Spread) => `${s.min},${s.typ},${s.max},${knob(s.knob)}`;
  const parts = new Map<string, number>();
  const part = (ref: string) => {
    if (!parts.has(ref)) parts.set(ref, parts.size);
    return parts.get(ref)!;
  };
  const text = [
    cast.nets.length,
    ...cast.rails.map((id) => `${spread(scene.held.get(id)!)}${scene.heldNets.get(id)?.kind ?? ""}`),
    ...cast.elements.map((e) => {
      const at = `${place.get(e.a)}.${place.get(e.b)}.${e.control === undefined ? "" : place.get(e.control)}`;
      const def = e.def && e.kind !== "resistor" && e.kind !== "led" && e.kind !== "diode" ? JSON.stringify(e.def) : "";
      const track = e.def?.kind === "resistor" ? (e.def.track ?? "") : "";
      const volts = e.kind === "load" ? JSON.stringify(scene.netlist.instance(e.ref)!.vars) : "";
      return `${e.kind} ${part(e.ref)} ${at} ${e.ohm},${e.tolerance},${e.span?.min},${e.span?.max}${track} ${e.Vf?.min},${e.Vf?.typ},${e.Vf?.max} ${e.A?.typ},${e.A?.peak} ${def}${volts}`;
    }),
    ...cast.drivers.map(
      (d) =>
        `${place.get(d.net)} ${d.open}${d.host}${d.turns}${d.end.as} ${spread(d.high)} ${spread(d.high_ohm)} ${spread(d.low_ohm)} ${d.low_V}`,
    ),
  ].join("|");
  return { cast, text, place: (id) => place.get(id), spread };
}
