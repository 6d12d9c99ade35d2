import type { Circuit } from "../circuit";
import type { Instance } from "../circuit/netlist";
import type { LevelVerdict } from "../circuit/solve";
import { nextRef, type BasicEdit } from "../project";
import { evaluate } from "../quantity";
import { isTwoWay, label, linkOf } from "./help";
import { moveSupply, outletsFor, ownSupply } from "./supply-fixes";
import type { Fix } from "./types";

/** Buffers that change a level on the way: `up` to 5 V with inputs that 3.3 V reaches, `down` with inputs that 5 V may enter. */
const BUFFERS = {
  up: { part: "module/buffer-74ahct125", name: "74AHCT125", V: [4.5, 5.5] },
  down: { part: "module/buffer-74hc4050", name: "74HC4050", V: [2.9, 3.6] },
} as const;
type Direction = keyof typeof BUFFERS;

/** Supplies whose nominal values are closer than this need no change of level. */
const APART_V = 0.5;
/** What a lightly loaded gate's output stays below its supply, volts, with room to spare. */
const GATE_DROP_V = 0.2;

interface Line {
  pin: string;
  hostPin: string;
  /** Into the part, or out of it. */
  way: "in" | "out";
  direction: Direction;
  v: LevelVerdict;
}

/** Which direction would mend a pair; null when it is sound, or when no buffer helps. */
function wants(v: LevelVerdict, thin_V: number): Direction | null {
  if (v.analog || v.driver.how !== "push-pull") return null;
  const apart = v.receiver.V.typ - v.driver.V.typ;
  if (v.highest_V > v.ceiling + 1e-9) return apart < -APART_V ? "down" : null;
  if (v.marginHigh < thin_V) return apart > APART_V ? "up" : null;
  return null;
}

/** Every wire straight between a part and its board whose levels don't fit, the worst pair of each. */
function troubled(c: Circuit, part: Instance, host: Instance, thin_V: number): Line[] {
  const out = new Map<string, Line>();
  for (const v of c.levels) {
    const way =
      v.receiver.ref === part.ref && v.driver.ref === host.ref
        ? "in"
        : v.driver.ref === part.ref && v.receiver.ref === host.ref
          ? "out"
          : null;
    const direction = way && wants(v, thin_V);
    if (!way || !direction) continue;
    const [pin, hostPin] = way === "in" ? [v.receiver.pin, v.driver.pin] : [v.driver.pin, v.receiver.pin];
    const need = part.part.pins.find((p) => p.label === pin)?.need;
    const link = linkOf(c, part.ref, pin, host.ref);
    if (!link || (need && isTwoWay(need))) continue;
    if (![link.from, link.to].includes(`${host.ref}.${hostPin}`)) continue;
    const known = out.get(pin);
    if (!known || v.marginHigh < known.v.marginHigh) out.set(pin, { pin, hostPin, way, direction, v });
  }
  return [...out.values()];
}

/** Places that could feed a buffer: where the part is fed, and what the board gives; the receiver's side first. */
function feeds(c: Circuit, part: Instance, host: Instance, way: Line["way"]): string[] {
  const inlets = part.part.pins.filter((p) => p.role === "supply-in").map((p) => `${part.ref}.${p.label}`);
  const far = c.project.links.flatMap((l) =>
    inlets.includes(l.from) ? [l.to] : inlets.includes(l.to) ? [l.from] : [],
  );
  const outlets = host.part.pins
    .filter((p) => p.role === "supply-out" || p.role === "supply-io")
    .map((p) => `${host.ref}.${p.label}`);
  return way === "in" ? [...far, ...outlets] : [...outlets, ...far];
}

interface Feed {
  end: string;
  /** Edits that bring the part to the same outlet, where only that lets both agree. */
  also: BasicEdit[];
}

/** A feed at which the buffer works, reaches every receiver and harms none. */
function feedFor(c: Circuit, part: Instance, host: Instance, lines: Line[]): Feed | undefined {
  const { direction, way } = lines[0]!;
  const [least, most] = BUFFERS[direction].V;
  const end = feeds(c, part, host, way).find((end) => {
    const net = c.netlist.netOf(end);
    const { V } = net;
    // On the receiver's own rail the output never leaves what the receiver takes.
    const harmless = (l: Line) => net.id === l.v.receiver.supplyNet || V!.max <= l.v.ceiling + 1e-9;
    return (
      V !== null &&
      V.min >= least - 1e-9 &&
      V.max <= most + 1e-9 &&
      lines.every((l) => harmless(l) && V.min - GATE_DROP_V >= l.v.VIH)
    );
  });
  if (end) return { end, also: [] };
  // A rail behind a board's diode is too low for the buffer: both go to the source itself.
  if (direction !== "up" || way !== "in") return undefined;
  const supply = Object.values(part.part.supplies).find((x) => !x.source && !x.forLoads)?.V;
  const [low, high] = supply ? [evaluate(supply.min, part.vars), evaluate(supply.max, part.vars)] : [0, 0];
  const better = outletsFor(c, host, Math.max(least, low), Math.min(most, high))[0];
  if (better) return { end: better, also: moveSupply(c, part, better) };
  const own = ownSupply(c, part.ref);
  return own ? { end: own.end, also: own.edits } : undefined;
}

/** A data-out that shares its line is let through only while its part is selected. */
function gateOf(c: Circuit, part: Instance, host: Instance, line: Line): string | null {
  const spi = part.part.groups.find((g) => g.kind === "spi" && g.pins.miso === line.pin);
  const link = spi?.pins.cs && linkOf(c, part.ref, spi.pins.cs, host.ref);
  if (!link) return null;
  return link.from.startsWith(`${host.ref}.`) ? link.from : link.to;
}

const chunks = <T>(list: T[], n: number): T[][] =>
  Array.from({ length: Math.ceil(list.length / n) }, (_, i) => list.slice(i * n, (i + 1) * n));

/** One buffer with its supply, its gates in the wires, and what stays unused tied to ground. */
function bufferEdits(
  c: Circuit,
  ref: string,
  part: Instance,
  host: Instance,
  lines: Line[],
  feed: string,
): BasicEdit[] {
  const { part: id } = BUFFERS[lines[0]!.direction];
  const def = c.catalogue.get(id)!;
  const ground = `${host.ref}.${host.part.pins.find((p) => p.role === "ground")!.label}`;
  const add = (from: string, to: string): BasicEdit => ({ type: "addLink", link: { from, to } });
  const edits: BasicEdit[] = [
    {
      type: "addPart",
      part: id,
      ref,
      label: `Levels of ${part.label}`.slice(0, 60),
      companions: { decoupling: { F: 1e-7 } },
    },
    add(`${ref}.VCC`, feed),
    add(`${ref}.GND`, ground),
  ];
  for (const [i, channel] of def.channels.entries()) {
    const line = lines[i];
    const gate = line && gateOf(c, part, host, line);
    if (channel.enable) edits.push(add(`${ref}.${channel.enable}`, gate ?? ground));
    if (!line) {
      edits.push(add(`${ref}.${channel.in}`, ground));
      continue;
    }
    const [near, far] = [`${part.ref}.${line.pin}`, `${host.ref}.${line.hostPin}`];
    edits.push({ type: "removeLink", from: near, to: far });
    edits.push(add(far, `${ref}.${line.way === "in" ? channel.in : channel.out}`));
    edits.push(add(`${ref}.${line.way === "in" ? channel.out : channel.in}`, near));
  }
  return edits;
}

/**
 * A fix for all wires between a part and its board whose levels don't fit: as many buffers as their number and directions
 * ask for, fed where they reach the receiver. One for the whole part, so that mending one wire does not undo another.
 */
export function translatorFix(c: Circuit, v: LevelVerdict, thin_V: number): Fix[] {
  const refs = [v.driver.ref, v.receiver.ref];
  const part = refs.map((r) => c.netlist.instance(r)).find((i) => i && !i.inserted && !i.part.board);
  const host = part?.host ? c.netlist.instance(part.host) : undefined;
  if (!part || !host || !refs.includes(host.ref) || !c.project.parts.some((p) => p.ref === part.ref)) return [];
  const lines = troubled(c, part, host, thin_V);
  const taken = new Set<string>();
  const edits: BasicEdit[] = [];
  const words: string[] = [];
  for (const direction of ["down", "up"] as const)
    for (const way of ["in", "out"] as const) {
      const mine = lines.filter((l) => l.direction === direction && l.way === way);
      const { part: id, name } = BUFFERS[direction];
      const def = c.catalogue.get(id);
      const feed = mine.length ? feedFor(c, part, host, mine) : undefined;
      if (!feed || !def) continue;
      edits.push(...feed.also);
      for (const list of chunks(mine, def.channels.length)) {
        let ref = nextRef(c.project, id);
        while (taken.has(ref)) ref = ref.replace(/\d+$/, (n) => String(Number(n) + 1));
        taken.add(ref);
        edits.push(...bufferEdits(c, ref, part, host, list, feed.end));
        words.push(
          `${list.map((l) => l.pin).join(", ")} through a ${name} at ${feed.end}${feed.also.length ? ", and feed it there too" : ""}`,
        );
      }
    }
  return edits.length
    ? [{ id: "buffers", label: `Change the levels of ${label(c, part.ref)}: ${words.join("; ")}`, edits }]
    : [];
}
