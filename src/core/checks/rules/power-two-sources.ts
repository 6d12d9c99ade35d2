import type { Circuit } from "../../circuit";
import type { SourceAt } from "../../circuit/power";
import { formatV } from "../../quantity";
import { nextRef, splitEnd, type BasicEdit } from "../../project";
import { label, round } from "../help";
import type { Found, Fix, Rule } from "../types";
import { meetings, clash } from "../sources";

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

export const powerTwoSources: Rule = {
  rule: "power.two-sources",
  says: "Two sources on one rail push against each other: a USB port gets current back, a cell is charged without a charger.",
  check: (c) =>
    meetings(c)
      .filter((m) => !clash(m))
      .map(({ list }): Found => {
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
