import type { Circuit } from "../circuit";
import { logicSupplyPin, type Instance } from "../circuit/netlist";
import type { LevelVerdict } from "../circuit/solve";
import { farOf, linksAt, nextRef, type BasicEdit } from "../project";
import { elementsAt, netById } from "./graph";
import { isTwoWay, label, owner } from "./help";
import { outletsFor } from "./supply-fixes";
import type { Fix } from "./types";

const SHIFTER = "module/shifter-bss138-4";
/** Above this a rail counts as the high side. */
const LOW_MAX_V = 3.7;
/** Lines of modules with a regulator of 2.8 V take 3.3 V; those of 1.8 V do not see it as a high that they can pull. */
const REGULATED_V = 2.5;

/** The highest voltage that a part brings to the line: of its own supplies where its pull-ups go there, else of its pins. */
function railOf(c: Circuit, i: Instance): number {
  const host = i.part.board && logicSupplyPin(i.part);
  if (host) return c.netlist.netOf(`${i.ref}.${host}`).V?.max ?? 0;
  const lines = linesOf(i).map((p) => c.netlist.netOf(`${i.ref}.${p}`).id);
  const pulled = lines.flatMap((line) =>
    elementsAt(c, line).flatMap((e) => {
      if (e.kind !== "resistor" || (line !== e.a && line !== e.b)) return [];
      if (c.netlist.instance(owner(c, e.ref)) !== i) return [];
      const far = netById(c, e.a === line ? e.b : e.a);
      return (far?.kind === "supply" && far.V?.max) || [];
    }),
  );
  const own = linesOf(i).flatMap((p) => {
    const level = c.netlist.level(i.ref, p);
    return (level && c.netlist.netOf(`${i.ref}:${level.supply}`).V?.max) ?? [];
  });
  return Math.max(0, ...(pulled.length ? pulled : own));
}

const farEnds = (c: Circuit, end: string) => linksAt(c.project, end).map((l) => farOf(l, end));

/** The lines that both ends use in turn: both of an I2C bus, or the one of a sensor that answers where it was asked. */
function linesOf(i: Instance): string[] {
  const bus = i.part.groups.find((g) => g.kind === "i2c" && g.pins.sda && g.pins.scl);
  if (bus) return [bus.pins.sda!, bus.pins.scl!];
  const alone = i.part.pins.filter((p) => p.need && isTwoWay(p.need));
  return alone.length === 1 ? [alone[0]!.label] : [];
}
/** What could feed the shifter's side of a part: what feeds the part, or where it has a regulator, the board's outlet like it. */
function feedOf(c: Circuit, i: Instance): string | undefined {
  const rail = railOf(c, i);
  const near = (end: string) => Math.abs((c.netlist.netOf(end).V?.max ?? 0) - rail) < 0.3;
  const own = i.part.pins.filter((p) => p.role === "supply-in").flatMap((p) => farEnds(c, `${i.ref}.${p.label}`));
  const host = i.host ? c.netlist.instance(i.host) : undefined;
  if (own.some(near) || !host) return own.find(near);
  // A module with a regulator of 2.8 V takes 3.3 V at its lines.
  return (
    outletsFor(c, host, rail - 0.5, rail + 0.3)[0] ??
    (rail > REGULATED_V && rail < LOW_MAX_V ? outletsFor(c, host, 2.9, 3.6)[0] : undefined)
  );
}

/** Parts of the bus on the other side of the voltage gap than the board, all fed alike and each wired straight to it. */
function movers(c: Circuit, nets: string[], host: Instance): Instance[] {
  const high = railOf(c, host) > LOW_MAX_V;
  const list = [...c.netlist.expanded.instances.values()].filter(
    (i) =>
      !i.inserted &&
      !i.part.board &&
      i.host === host.ref &&
      linesOf(i).some((p) => nets.includes(c.netlist.netOf(`${i.ref}.${p}`).id)) &&
      // A line that has no wire yet gets one later; what goes anywhere else than to the board is not ours to move.
      linesOf(i).every((p) => farEnds(c, `${i.ref}.${p}`).every((e) => e.startsWith(`${host.ref}.`))) &&
      linesOf(i).every((p) => farEnds(c, `${i.ref}.${p}`).length <= 1) &&
      railOf(c, i) > LOW_MAX_V !== high,
  );
  const feed = list[0] && feedOf(c, list[0]);
  const rail = feed && c.netlist.netOf(feed);
  const same = (i: Instance) => linesOf(i).length === linesOf(list[0]!).length;
  return rail ? list.filter((i) => same(i) && feedOf(c, i) && c.netlist.netOf(feedOf(c, i)!) === rail) : [];
}

/**
 * Puts a two-way shifter between a board and the parts of its open-drain bus that work at another voltage: their lines go to
 * their side of it, the other side to where they went before.
 */
export function twoWayFix(c: Circuit, v: LevelVerdict): Fix[] {
  const hosts = new Set(
    [v.driver.ref, v.receiver.ref].flatMap((r) => {
      const i = c.netlist.instance(r);
      return i?.part.board ? [i.ref] : i?.host ? [i.host] : [];
    }),
  );
  const host = c.netlist.instance([...hosts][0] ?? "");
  const ground = host?.part.pins.find((p) => p.role === "ground")?.label;
  const logic = host && logicSupplyPin(host.part);
  if (!host || !ground || !logic || !c.catalogue.get(SHIFTER)) return [];
  const list = movers(c, [v.driver.net, v.receiver.net], host);
  if (!list.length) return [];
  const [theirs, its] = railOf(c, host) > LOW_MAX_V ? ["LV", "HV"] : ["HV", "LV"];
  const ref = nextRef(c.project, SHIFTER);
  const add = (from: string, to: string): BasicEdit => ({ type: "addLink", link: { from, to } });
  return [
    {
      id: "shifter",
      label: `Put a two-way level shifter between ${list.map((i) => label(c, i.ref)).join(", ")} and the board`,
      edits: [
        { type: "addPart", part: SHIFTER, ref },
        add(`${ref}.${theirs}`, feedOf(c, list[0]!)!),
        add(`${ref}.${its}`, `${host.ref}.${logic}`),
        add(`${ref}.GND`, `${host.ref}.${ground}`),
        ...linesOf(list[0]!).flatMap((_line, k): BasicEdit[] => {
          const ends = list.map((i) => `${i.ref}.${linesOf(i)[k]}`).filter((end) => farEnds(c, end).length);
          if (!ends.length) return [];
          return [
            ...ends.flatMap((end): BasicEdit[] => [
              { type: "removeLink", from: end, to: farEnds(c, end)[0]! },
              add(end, `${ref}.${theirs}${k + 1}`),
            ]),
            add(`${ref}.${its}${k + 1}`, farEnds(c, ends[0]!)[0]!),
          ];
        }),
      ],
    },
  ];
}
