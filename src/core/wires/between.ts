import { circuitOf, type Circuit } from "../circuit";
import { findPin, withOptions, type Catalogue, type Part } from "../parts/catalogue";
import { nextRef, splitEnd, type BasicEdit, type Link, type Project } from "../project";
import { linkBetween, refuse, type Act } from "./acts";
import { pointOr } from "./points";

/** The two ends by which a part stands in a wire, the first towards where the current or the signal comes from. */
interface Ends {
  first: string;
  second: string;
  /** Which way round matters, in words; null when it does not. */
  turned: string | null;
  /** Further wires that the part wants: pin to what. */
  also: { pin: string; to: "ground" | "supply" }[];
}

/** A shunt meter's two terminals, and other passive pairs joined by a small resistor. */
function shuntOf(part: Part): [string, string] | null {
  const r = part.elements.find(
    (e) => e.kind === "resistor" && Number(e.ohm) <= 1 && [e.a, e.b].every((x) => findPin(part, x)?.role === "passive"),
  );
  return r && r.kind === "resistor" ? [r.a, r.b] : null;
}

/** How a part stands in a wire; null when it is none that does. */
function endsOf(part: Part): Ends | null {
  const polar = part.elements.find((e) => e.kind === "diode" || e.kind === "led");
  if (part.pins.length === 2 && part.pins.every((p) => p.role === "passive")) {
    if (polar && (polar.kind === "diode" || polar.kind === "led"))
      return { first: polar.a, second: polar.b, turned: `${polar.a} towards where the current comes from`, also: [] };
    return { first: part.pins[0]!.label, second: part.pins[1]!.label, turned: null, also: [] };
  }
  const shunt = shuntOf(part);
  if (shunt)
    return {
      first: shunt[0],
      second: shunt[1],
      turned: `${shunt[0]} towards the source, ${shunt[1]} towards the load`,
      also: [],
    };
  const channel = part.channels[0];
  if (channel)
    return {
      first: channel.in,
      second: channel.out,
      turned: channel.both ? null : `${channel.in} takes the signal, ${channel.out} gives it on`,
      also: [],
    };
  // A switch of three legs, or a relay's contact: common and the one that closes.
  const contact = part.elements.find((e) => e.kind === "contact" && e.closed !== "rest");
  if (contact?.kind === "contact") return { first: contact.a, second: contact.b, turned: null, also: [] };
  return null;
}

/** Which end of a wire the current or the signal comes from: a supply before what it feeds, an output before an input. */
function upstream(c: Circuit, a: string, b: string): [string, string] {
  const rank = (end: string) => {
    const { ref, pin } = splitEnd(end);
    const inst = c.netlist.instance(ref);
    const def = inst && findPin(inst.part, pin);
    const net = c.netlist.netOf(end);
    const as = net.ends.find((e) => e.ref === ref && e.pin === pin)?.as;
    if (def?.role === "supply-out" || as === "source") return 4;
    if (def?.role === "supply-io") return 3;
    if (as === "driver") return 2;
    if (def?.role === "ground") return -2;
    if (as === "receiver" || def?.role === "supply-in") return -1;
    return 0;
  };
  // At ground the current goes in, and it comes from the part.
  return rank(a) >= rank(b) ? [a, b] : [b, a];
}

/** A transistor as a switch in the wire of a board's pin to a load: gate or base by a resistor, the load on the switched side. */
function stage(c: Circuit, project: Project, part: Part, link: Link): Act {
  const t = part.elements.find((e) => e.kind === "bjt" || e.kind === "fet");
  if (!t || (t.kind !== "bjt" && t.kind !== "fet")) return refuse(`${part.name} does not stand in a wire.`);
  const isPin = (end: string) => {
    const inst = c.netlist.instance(splitEnd(end).ref);
    return inst !== undefined && Boolean(findPin(inst.part, splitEnd(end).pin)?.offers?.length);
  };
  const pin = [link.from, link.to].find(isPin);
  const load = pin === link.from ? link.to : link.from;
  if (!pin || isPin(load))
    return refuse(
      `A transistor stage stands between a pin of the board and what it switches; ${link.from} to ${link.to} is no such wire.`,
    );
  const host = c.netlist.instance(splitEnd(pin).ref)!;
  const ground = host.part.pins.find((p) => p.role === "ground")?.label;
  if (!ground) return refuse(`${host.ref} has no ground pin to return the current to.`);
  const [control, top, low] = t.kind === "bjt" ? [t.b, t.c, t.e] : [t.g, t.d, t.s];
  const q = nextRef(project, part.id);
  const r = nextRef(project, "discrete/resistor");
  const add = (ref: string, id: string, ohm?: number): BasicEdit => ({
    type: "addPart",
    part: id,
    ref,
    ...(ohm !== undefined && { options: { resistance_ohm: ohm } }),
  });
  const wire = (from: string, to: string): BasicEdit => ({
    type: "addLink",
    link: { from, to, by: "hand", locked: true },
  });
  const down = `R${Number(r.slice(1)) + 1}`;
  const edits: BasicEdit[] = [
    { type: "removeLink", from: link.from, to: link.to },
    add(q, part.id),
    add(r, "discrete/resistor", t.kind === "bjt" ? 1000 : 220),
    wire(`${r}.1`, pin),
    wire(`${r}.2`, `${q}.${control}`),
    wire(`${q}.${top}`, load),
    wire(`${q}.${low}`, `${host.ref}.${ground}`),
  ];
  if (t.kind === "fet")
    edits.push(
      add(down, "discrete/resistor", 10_000),
      wire(`${down}.1`, `${q}.${control}`),
      wire(`${down}.2`, `${host.ref}.${ground}`),
    );
  return {
    ok: true,
    edits,
    says: `${q} between ${pin} and ${load}: ${control} at the pin by a resistor, ${top} at the load, ${low} at ground. The load's other side goes to its supply.`,
  };
}

/**
 * Puts a part into a wire: the wire goes, and two new ones lead to the part and on. What has a direction stands the right way
 * round: a diode with the current, a buffer or isolator with the signal, a meter's plus towards the source, a transistor with its
 * gate at the board's pin.
 */
export function putBetween(
  project: Project,
  catalogue: Catalogue,
  from: string,
  to: string,
  partId: string,
  options: Record<string, string | number> = {},
): Act {
  const c = circuitOf(project, catalogue);
  const [a, b] = [pointOr(c, from), pointOr(c, to)];
  if (!a.ok) return refuse(a.why);
  if (!b.ok) return refuse(b.why);
  const link = linkBetween(project, a.end, b.end);
  if (!link) return refuse(`There is no wire from ${a.end} to ${b.end} to put something into.`);
  const raw = project.customParts.find((p) => p.id === partId) ?? catalogue.get(partId);
  if (!raw) return refuse(`There is no part ${partId} in the catalogue; "lattice parts" lists them.`);
  const part = withOptions(raw, options);
  if (part.elements.some((e) => e.kind === "bjt" || e.kind === "fet") && part.id.startsWith("discrete/"))
    return stage(c, project, part, link);
  const ends = endsOf(part);
  if (!ends)
    return refuse(
      `${part.name} has no two ends by which it could stand in a wire. Add it as a part, and join its pins.`,
    );
  const [up, down] = upstream(c, a.end, b.end);
  const ref = nextRef(project, partId);
  const keep = { ...(link.colour && { colour: link.colour }), ...(link.awg && { awg: link.awg }) };
  const wire = (x: string, y: string): BasicEdit => ({
    type: "addLink",
    link: { from: x, to: y, by: "hand", locked: true, ...keep },
  });
  return {
    ok: true,
    edits: [
      { type: "removeLink", from: link.from, to: link.to },
      { type: "addPart", part: partId, ref, ...(Object.keys(options).length && { options }) },
      wire(`${ref}.${ends.first}`, up),
      wire(`${ref}.${ends.second}`, down),
    ],
    says: `${ref} between ${up} and ${down}${ends.turned ? `: ${ends.turned}` : ""}`,
  };
}

/** Takes a part out; where it stood in a wire the gap is closed on wish: what hung on one end is joined with what hung on the other. */
export function takeOut(project: Project, catalogue: Catalogue, ref: string, close: boolean): Act {
  const c = circuitOf(project, catalogue);
  const inst = c.netlist.instance(ref);
  if (!inst || !project.parts.some((p) => p.ref === ref)) return refuse(`There is no part ${ref} in this project.`);
  const remove: BasicEdit = { type: "removePart", ref };
  if (!close) return { ok: true, edits: [remove], says: `${ref} taken out, its wires with it` };
  const ends = endsOf(inst.part);
  const at = (label: string) =>
    project.links.flatMap((l) => (l.from === `${ref}.${label}` ? [l.to] : l.to === `${ref}.${label}` ? [l.from] : []));
  const [one, two] = ends ? [at(ends.first), at(ends.second)] : [[], []];
  if (!one.length || !two.length)
    return refuse(`${ref} stands in no wire: there is no gap to close. Take it out without closing.`);
  const joins = two.flatMap((y) =>
    linkBetween(project, one[0]!, y)
      ? []
      : [{ type: "addLink" as const, link: { from: one[0]!, to: y, by: "hand" as const, locked: true } }],
  );
  const rest = one
    .slice(1)
    .map((x) => ({ type: "addLink" as const, link: { from: x, to: one[0]!, by: "hand" as const, locked: true } }));
  return {
    ok: true,
    edits: [remove, ...joins, ...rest],
    says: `${ref} taken out, ${one[0]} joined with ${two.join(", ")}`,
  };
}
