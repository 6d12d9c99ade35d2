import { fastestHz } from "./fastest";
import type { Circuit } from "..";
import type { Net } from "../netlist";
import { askedClock, busAt, wireOf } from "./wires";

export interface SpiMember {
  ref: string;
  label: string;
  group: string;
  mode: number;
  max_Hz: number;
  /** The clock that this part is run at: its own limit, its leads, and what the person asked for. */
  clock_Hz: number;
  cm: number;
  cs: string | null;
  csNet: Net | null;
  mosi: string | null;
  miso: string | null;
  /** Keeps driving the data line when it is not selected. */
  holds: boolean;
}
export interface SpiBus {
  id: string;
  host: string | null;
  bus: string | null;
  sck: Net;
  members: SpiMember[];
  asked_Hz: number | null;
  /** One clock that suits all of them. */
  common_Hz: number;
  /** True when transactions must set the mode, since the parts want different ones. */
  switchesMode: boolean;
}

/** What loose leads carry cleanly: up to so many centimetres so many hertz. */
const LEADS: [cm: number, Hz: number][] = [
  [15, 8_000_000],
  [30, 4_000_000],
  [Infinity, 1_000_000],
];
/** The clock that leads of this length carry, hertz. */
export const leadClock = (cm: number) => LEADS.find(([most]) => cm <= most)![1];
const UNSTATED_HZ = 4_000_000;

const memo = new WeakMap<Circuit["netlist"], SpiBus[]>();

/** Every SPI bus by its clock line: modes, clocks, selects and data-out behaviour of its parts. */
export function spiBuses(c: Circuit): SpiBus[] {
  const known = memo.get(c.netlist);
  if (known) return known;
  const made = make(c);
  memo.set(c.netlist, made);
  return made;
}

function make(c: Circuit): SpiBus[] {
  const lines = new Map<Net, SpiMember[]>();
  for (const inst of c.netlist.expanded.instances.values())
    for (const g of inst.part.groups) {
      const { sck, mosi, miso, cs } = g.pins;
      if (g.kind !== "spi" || !sck || inst.part.board) continue;
      const net = c.netlist.netOf(`${inst.ref}.${sck}`);
      if (net.ends.length < 2) continue;
      const cm = wireOf(c, inst.ref);
      const max_Hz = fastestHz(c.netlist, inst, g, sck) ?? UNSTATED_HZ;
      lines.set(net, [
        ...(lines.get(net) ?? []),
        {
          ref: inst.ref,
          label: inst.label,
          group: g.id,
          mode: g.mode ?? 0,
          max_Hz,
          clock_Hz: Math.min(max_Hz, leadClock(cm)),
          cm,
          cs: cs ?? null,
          csNet: cs ? c.netlist.netOf(`${inst.ref}.${cs}`) : null,
          mosi: mosi ?? null,
          miso: miso ?? null,
          holds: g.holdsData ?? false,
        },
      ]);
    }
  return [...lines].map(([sck, members]): SpiBus => {
    const b = c.netlist.bindings.find(
      (x) => x.need.kind === "spi" && x.need.role === "sck" && members.some((m) => m.ref === x.ref),
    );
    const host = b?.host ?? null;
    const bus = b ? busAt(c, b.host, b.hostPin, "spi", "sck") : null;
    const asked_Hz = askedClock(c, host, bus);
    const run = members.map((m) => ({ ...m, clock_Hz: asked_Hz ?? m.clock_Hz }));
    return {
      id: `${host ?? members[0]!.ref}:${bus ?? sck.name}`,
      host,
      bus,
      sck,
      members: run,
      asked_Hz,
      common_Hz: Math.min(...run.map((m) => Math.min(m.max_Hz, leadClock(m.cm)))),
      switchesMode: new Set(run.map((m) => m.mode)).size > 1,
    };
  });
}
