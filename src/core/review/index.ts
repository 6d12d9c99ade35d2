import { findings } from "../checks";
import type { Circuit } from "../circuit";
import type { Remark, RemarkAt } from "../project";

export interface RemarkView {
  remark: Remark;
  /** What it is about, in words. */
  about: string;
  /** Places to light. */
  places: string[];
  /** It is about something that the plan no longer has. */
  gone: boolean;
}

const nameOf = (c: Circuit, ref: string) => {
  const i = c.netlist.instance(ref);
  return i ? `${i.label} (${ref})` : ref;
};
const isThere = (c: Circuit, end: string): boolean => {
  const [ref, ...pin] = end.split(".");
  const i = c.netlist.instance(ref!);
  return i !== undefined && i.part.pins.some((p) => p.label === pin.join("."));
};
const sameAt = (a: readonly string[], b: readonly string[]) => a.length === b.length && a.every((x, i) => x === b[i]);

type Told = Omit<RemarkView, "remark">;
const TELL: { [K in RemarkAt["kind"]]: (c: Circuit, at: Extract<RemarkAt, { kind: K }>) => Told } = {
  plan: () => ({ about: "the whole plan", places: [], gone: false }),
  part: (c, at) => ({
    about: at.pin === undefined ? nameOf(c, at.ref) : `${nameOf(c, at.ref)}, pin ${at.pin}`,
    places: [at.pin === undefined ? at.ref : `${at.ref}.${at.pin}`],
    gone: at.pin === undefined ? !c.netlist.instance(at.ref) : !isThere(c, `${at.ref}.${at.pin}`),
  }),
  wire: (c, at) => ({
    about: `the wire from ${at.from} to ${at.to}`,
    places: [at.from, at.to],
    gone: !c.project.links.some(
      (l) => (l.from === at.from && l.to === at.to) || (l.from === at.to && l.to === at.from),
    ),
  }),
  net: (c, at) => ({
    about: `everything that is ${at.name}`,
    places: [at.name],
    gone: !c.netlist.nets.some((n) => n.name === at.name),
  }),
  finding: (c, at) => {
    const f = findings(c).find((x) => x.rule === at.rule && sameAt(x.at, at.at));
    return { about: f ? `the finding “${f.message}”` : `a finding at ${at.at.join(", ")}`, places: at.at, gone: !f };
  },
};

/** The remarks of a plan with what each is about, open ones first; one about something that is gone says so and is kept. */
export function remarksOf(c: Circuit): RemarkView[] {
  const list = (c.project.remarks ?? []).map((remark): RemarkView => {
    const tell = TELL[remark.at.kind] as (c: Circuit, at: RemarkAt) => Told;
    return { remark, ...tell(c, remark.at) };
  });
  return [...list.filter((r) => !r.remark.done), ...list.filter((r) => r.remark.done)];
}

/** What a place on a drawing or in a list is to a remark: a part, a pin, or a net. */
export function remarkAt(c: Circuit, place: string): RemarkAt {
  const [ref, ...pin] = place.split(".");
  if (c.netlist.instance(ref!))
    return pin.length ? { kind: "part", ref: ref!, pin: pin.join(".") } : { kind: "part", ref: ref! };
  return c.netlist.nets.some((n) => n.name === place) ? { kind: "net", name: place } : { kind: "plan" };
}

/** Everything that a remark can be about, by kind, with the words that it is chosen by. */
export function remarkPlaces(c: Circuit): { says: string; at: RemarkAt }[] {
  return [
    { says: "the whole plan", at: { kind: "plan" } },
    ...c.project.parts.map((p) => ({ says: nameOf(c, p.ref), at: { kind: "part" as const, ref: p.ref } })),
    ...c.project.links.map((l) => ({
      says: `wire ${l.from} to ${l.to}`,
      at: { kind: "wire" as const, from: l.from, to: l.to },
    })),
    ...findings(c).map((f) => ({
      says: `${f.severity}: ${f.message.slice(0, 90)}`,
      at: { kind: "finding" as const, rule: f.rule, at: f.at },
    })),
  ];
}
