import type { Circuit } from "../../circuit";
import { heightOf } from "../solder/heights";
import type { At } from "../solder/carrier";
import type { Seating } from "./headers";
import type { PlugBoard } from "./types";

export interface PlugStep {
  title: string;
  why: string;
  rows: string[];
}

const place = (a: At) => `${a.row}/${a.column}`;
const plural = (n: number, one: string) => `${n} ${one}${n === 1 ? "" : "s"}`;

const STRIPS: Record<Seating, { what: string; how: string }> = {
  above: {
    what: "strip with sockets above and long pins",
    how: "from the side with the parts, long pins through. Plug them into the board's sockets while you solder, so that they stand straight.",
  },
  pins: {
    what: "double socket strip",
    how: "from the back, its pins coming up to the side with the parts, on a board whose holes are plated through. Wires to them come up through the hole beside.",
  },
  below: {
    what: "socket strip",
    how: "from the side with the parts. Leave the board plugged in while you solder the first and the last pin of each, so that they stand straight, and take it out for the rest.",
  },
  socket: {
    what: "chip socket",
    how: "its notch towards row 1. The chip goes in last, when the supply has been measured.",
  },
};

/** Seatings in which the new board lies over the other one, with its joints downwards. */
const OVER: ReadonlySet<Seating> = new Set(["above", "pins"]);
const TAPE =
  "insulating tape on everything of metal that stands up below it: USB socket, programming pins, cans; joints come close to them";

/** Runs of header pins without a gap: how long each strip is and where its first pin goes. */
function stripsOf(b: PlugBoard): { n: number; from: At }[] {
  const out: { n: number; from: At; last: At }[] = [];
  for (const h of [...b.header].sort((p, q) => p.at.column - q.at.column || p.at.row - q.at.row)) {
    const run = out.at(-1);
    if (run && run.last.column === h.at.column && run.last.row === h.at.row - 1) {
      run.n++;
      run.last = h.at;
    } else out.push({ n: 1, from: h.at, last: h.at });
  }
  return out;
}

function stripRows(b: PlugBoard): string[] {
  const runs = stripsOf(b);
  if (b.seating === "pins" || b.seating === "socket")
    return [`${STRIPS[b.seating].what} of ${plural(b.header.length, "pin")}, first pin in ${place(runs[0]!.from)}`];
  return runs.map((r) => `${STRIPS[b.seating].what} of ${plural(r.n, "pin")}, from ${place(r.from)} down`);
}

function wireRows(b: PlugBoard): string[] {
  const words = (w: PlugBoard["wires"][number]) => {
    const [a, z] = [place(w.a), place(w.b)];
    const up = w.through ? `, up through ${place(w.through.at)} to ${w.through.end === "a" ? a : z}` : "";
    const how = w.bare ? "bare, a drop of solder" : `${w.colour}, cut ${w.cut_mm} mm`;
    return `${a} – ${z}${up}: ${w.net}, ${how}${w.heavy ? `, ${w.heavy.says}` : ""}`;
  };
  const order = (w: PlugBoard["wires"][number]) => (w.bare ? "" : w.colour);
  return [...b.wires]
    .sort(
      (p, q) =>
        (order(p) < order(q) ? -1 : order(p) > order(q) ? 1 : 0) || p.a.row - q.a.row || p.a.column - q.a.column,
    )
    .map(words);
}

/**
 * Each supply on the header against each ground: no beep before anything is plugged in. Two supplies may meet through a shunt or a
 * fuse, two grounds through a part, so these pairs say nothing.
 */
function quietRows(c: Circuit, b: PlugBoard): string[] {
  const on = b.header.flatMap((h) => {
    if (!h.pin || !h.wired) return [];
    const net = c.netlist.netOf(`${b.host}.${h.pin}`);
    return net.kind === "supply" || net.kind === "ground" ? [{ ...h, pin: h.pin, net }] : [];
  });
  const first = new Map(on.map((h) => [h.net.id, h] as const).reverse());
  const of = (kind: string) => [...first.values()].filter((h) => h.net.kind === kind);
  return of("supply").flatMap((p) =>
    of("ground").map(
      (q) =>
        `${p.pin} at ${place(p.at)} and ${q.pin} at ${place(q.at)}: no beep, a short chirp is a capacitor (${p.net.name}, ${q.net.name})`,
    ),
  );
}

/** How the board is made, in the order of the bench: holes are named row/column, counted from the upper left of the parts' side. */
export function plugSteps(c: Circuit, b: PlugBoard): PlugStep[] {
  const height = (ref: string) => {
    const inst = c.netlist.instance(ref);
    return (inst && heightOf(inst)?.mm) ?? 0;
  };
  const parts = b.parts
    .filter((p) => !p.leads)
    .sort((p, q) => height(p.ref) - height(q.ref) || (p.ref < q.ref ? -1 : 1));
  const leads = b.parts.filter((p) => p.leads);
  const steps: PlugStep[] = [
    {
      title: `Cut the board to ${b.columns} × ${b.rows} holes, and mark the corner of row 1 and column 1 on both sides`,
      why: "On the back, column 1 is on the right: most mistakes are made there.",
      rows: b.cuts.map(
        (r) =>
          `cut away rows ${Math.max(1, Math.ceil(r.y1))} to ${Math.floor(r.y2)} in columns ${Math.ceil(r.x1)} to ${Math.min(b.columns, Math.floor(r.x2))}: there wires go into sockets of ${b.hostName} that no hole meets. Lead the others round it`,
      ),
    },
    {
      title: "Parts, low ones first",
      why: "Each with its legs in row/column; bend two legs a little so that it stays while you turn the board over.",
      rows: parts.map(
        (p) =>
          `${p.name}: ${p.pins
            .filter((x) => x.pin)
            .map((x) => `${x.pin} ${place(x.at)}`)
            .join(", ")}`,
      ),
    },
    {
      title: `For ${b.hostName}`,
      why: `Put in ${STRIPS[b.seating].how}`,
      rows: [...stripRows(b), ...(OVER.has(b.seating) ? [TAPE] : [])],
    },
    {
      title: "Wires on the back, from hole to hole, one colour after the other",
      why: "Insulated, straight over the joints; stripped 4 mm at each end, laid against the leg and soldered with it.",
      rows: wireRows(b),
    },
    {
      title: "Wires that leave the board, last",
      why: "Fix them to the board with a tie or a knot before the joint: a pull must not reach the solder.",
      rows: leads.flatMap((p) => p.pins.map((x) => `${place(x.at)}: ${p.name}, ${x.pin}`)),
    },
    {
      title: "Wires that never come to this board",
      why: "From part to part, as the run sheet has them.",
      rows: b.direct.map((d) => `${d.from} to ${d.to}: ${d.net}, ${d.awg} AWG`),
    },
    {
      title: "Measure before anything is plugged in",
      why: "The meter set to beep, one probe on each place. A beep is a bridge of solder: look between those two.",
      rows: quietRows(c, b),
    },
  ];
  return steps.filter((s, i) => i === 0 || s.rows.length > 0);
}
