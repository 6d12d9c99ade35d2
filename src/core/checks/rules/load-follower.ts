import type { Circuit } from "../../circuit";
import { formatV } from "../../quantity";
import { splitEnd, type BasicEdit } from "../../project";
import { label, round } from "../help";
import type { Found, Fix, Rule } from "../types";
import { type SwitchAt, type LoadAt, switchesOf, isFollower } from "../loads";

export const loadFollower: Rule = {
  rule: "load.follower",
  says: "A load at the emitter or source only gets the base or gate voltage less what the transistor needs itself.",
  check: (c) =>
    switchesOf(c).flatMap((s) =>
      s.loads.flatMap((l): Found[] => {
        if (!isFollower(c, s, l) || !s.gate) return [];
        const [top, low] = l.el.a === s.el.b ? [l.el.a, l.el.b] : [l.el.b, l.el.a];
        const reaches = Math.max(0, s.gate.drive.on(top, low).min);
        const drive_V = s.gate.drive.driver.high.min;
        if (reaches >= l.V.min) return [];
        return [
          {
            rule: "load.follower",
            severity: "fault",
            at: [s.el.ref, l.el.ref],
            message: `${label(c, l.el.ref)} hangs at the ${s.def.kind === "bjt" ? "emitter" : "source"} of ${label(c, s.el.ref)} and gets ${formatV(reaches)} only (${formatV(drive_V)} less ${formatV(drive_V - reaches)}); it wants ${formatV(l.V.min)}. Put it between the supply and the ${s.def.kind === "bjt" ? "collector" : "drain"}.`,
            evidence: { reaches_V: round(reaches), wants_V: round(l.V.min), drive_V: round(drive_V) },
            fixes: () => followerFix(c, s, l),
          },
        ];
      }),
    ),
};

/** Swaps ends: the load between supply and collector, the emitter to ground. */
function followerFix(c: Circuit, s: SwitchAt, l: LoadAt): Fix[] {
  const [top, low] = s.def.kind === "bjt" ? [s.def.c, s.def.e] : [s.def.d, s.def.s];
  const ends = (ref: string, pin: string) =>
    c.project.links.filter((x) => x.from === `${ref}.${pin}` || x.to === `${ref}.${pin}`);
  const t = s.el.ref;
  const hot = ends(t, top).map((x) => (splitEnd(x.from).ref === t ? x.to : x.from))[0];
  const load = c.netlist.instance(l.el.ref)?.part.pins.filter((p) => p.role === "passive") ?? [];
  const atGround = load.find((p) => c.netlist.netOf(`${l.el.ref}.${p.label}`).kind === "ground");
  const atLow = load.find((p) => c.netlist.netOf(`${l.el.ref}.${p.label}`).id === s.el.b);
  const cold =
    atGround && ends(l.el.ref, atGround.label).map((x) => (splitEnd(x.from).ref === l.el.ref ? x.to : x.from))[0];
  if (!hot || !cold || !atGround || !atLow) return [];
  const gone = [...ends(t, top), ...ends(t, low), ...ends(l.el.ref, atGround.label), ...ends(l.el.ref, atLow.label)];
  const unique = [...new Map(gone.map((x) => [`${x.from}|${x.to}`, x])).values()];
  return [
    {
      id: "low-side",
      label: `Put ${label(c, l.el.ref)} between ${hot} and ${t}.${top}, ${t}.${low} to ground`,
      edits: [
        ...unique.map((x): BasicEdit => ({ type: "removeLink", from: x.from, to: x.to })),
        { type: "addLink", link: { from: `${l.el.ref}.${atGround.label}`, to: hot } },
        { type: "addLink", link: { from: `${l.el.ref}.${atLow.label}`, to: `${t}.${top}` } },
        { type: "addLink", link: { from: `${t}.${low}`, to: cold } },
      ],
    },
  ];
}
