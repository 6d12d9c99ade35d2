import type { Circuit } from "..";
import { realBaud, type RealBaud } from "../formulas";
import { findPin } from "../../parts/catalogue";
import type { Binding } from "../netlist";
import { busAt } from "./wires";

export interface UartLink {
  ref: string;
  label: string;
  host: string;
  bus: string | null;
  /** Every port of the chip that these pins could belong to; more than one where the chip routes freely. */
  ports: string[];
  baud: number;
  real: RealBaud;
  /** Share by which both ends may differ at worst: divider, chip clock, the part's own clock. */
  total: number;
  lines: { pin: string; hostPin: string; crossed: boolean; role: string }[];
  /** The line's other end is the bridge of the upload port. */
  console: boolean;
}

/** A part with a crystal of its own is on the spot to within this share; one without is seldom better than 1 %. */
const PART_CLOCK = 0.001;
const DEFAULT_BAUD = 9600;

/** The rate that a part is set to: the project's choice, else the part's usual one. */
function baudOf(c: Circuit, ref: string): number {
  const chosen = c.project.parts.find((p) => p.ref === ref)?.options?.baud;
  const option = c.netlist.instance(ref)?.part.options.find((o) => o.key === "baud");
  return Number(chosen ?? (option && "default" in option ? option.default : DEFAULT_BAUD)) || DEFAULT_BAUD;
}

/** Whether a host pin could take the other role but not this one: TX wired to TX. */
function wrongWay(c: Circuit, b: Binding): boolean {
  const pin = findPin(c.netlist.instance(b.host)!.part, b.hostPin);
  const roles = new Set(pin?.offers?.flatMap((o) => (o.kind === "uart" ? [o.role] : [])));
  const other = b.need.role === "rx" ? "tx" : "rx";
  return roles.has(other) && !roles.has(b.need.role as "rx" | "tx");
}

/** The ports that all of these pins can serve. */
function portsOf(c: Circuit, list: Binding[]): string[] {
  const each = list.map((b) =>
    (findPin(c.netlist.instance(b.host)!.part, b.hostPin)?.offers ?? []).flatMap((o) =>
      o.kind === "uart" && o.role === b.need.role ? [o.bus] : [],
    ),
  );
  return [...new Set((each[0] ?? []).filter((x) => each.every((l) => l.includes(x))))];
}

const memo = new WeakMap<Circuit["netlist"], UartLink[]>();

/** Every serial link between a part and a board: rate, what the chip's divider makes of it, and whether it is crossed. */
export function uartLinks(c: Circuit): UartLink[] {
  const known = memo.get(c.netlist);
  if (known) return known;
  const made = make(c);
  memo.set(c.netlist, made);
  return made;
}

function make(c: Circuit): UartLink[] {
  return [...c.netlist.expanded.instances.values()].flatMap((inst): UartLink[] => {
    if (inst.part.board || inst.inserted) return [];
    return inst.part.groups.flatMap((g): UartLink[] => {
      if (g.kind !== "uart") return [];
      const mine = c.netlist.bindings.filter((b) => b.ref === inst.ref && Object.values(g.pins).includes(b.pin));
      const first = mine[0];
      const board = first && c.netlist.instance(first.host)?.part.board;
      if (!first || !board) return [];
      const baud = baudOf(c, inst.ref);
      const real = realBaud(board.family, board.clock_Hz, baud);
      const hazards = mine.flatMap((b) => findPin(c.netlist.instance(b.host)!.part, b.hostPin)?.hazards ?? []);
      return [
        {
          ref: inst.ref,
          label: inst.label,
          host: first.host,
          bus: busAt(c, first.host, first.hostPin, "uart", first.need.role),
          ports: portsOf(c, mine),
          baud,
          real,
          total: Math.abs(real.error) + (board.clockTolerance ?? PART_CLOCK) + PART_CLOCK,
          lines: mine.map((b) => ({
            pin: b.pin,
            hostPin: b.hostPin,
            crossed: !wrongWay(c, b),
            role: b.need.role ?? "",
          })),
          console: hazards.some((h) => h.kind === "console"),
        },
      ];
    });
  });
}
