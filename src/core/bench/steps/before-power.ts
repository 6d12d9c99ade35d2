import type { Circuit } from "../../circuit";
import { separateGrounds, type Net } from "../../circuit/netlist";
import { findPin } from "../../parts/catalogue";
import { splitEnd } from "../../project";
import { besideOf } from "../faults/around";
import { keyOf, type Question } from "../reason/questions";
import type { CheckItem } from "./types";

/** Ends of a net that somebody can put a probe on and that have a wire. */
function wiredEnds(c: Circuit): (net: Net) => string[] {
  const touched = new Set(
    c.netlist.wires.flatMap((w) => (w.cable ? [] : [`${w.from.ref}.${w.from.pin}`, `${w.to.ref}.${w.to.pin}`])),
  );
  return (net) => net.ends.map((e) => `${e.ref}.${e.pin}`).filter((e) => touched.has(e));
}

const isRoot = (c: Circuit, end: string) => {
  const part = c.netlist.instance(splitEnd(end).ref)!.part;
  return part.board !== undefined || Object.values(part.supplies).some((s) => s.source);
};

/** Where a net comes from: the board's or the source's own pin, or its first end. */
const hubOf = (c: Circuit, ends: readonly string[]) => ends.find((e) => isRoot(c, e)) ?? ends[0];

/** The ground pin that belongs to a supply end. */
export function groundOfEnd(c: Circuit, end: string): string | undefined {
  const { ref, pin } = splitEnd(end);
  const part = c.netlist.instance(ref)?.part;
  const key = part && findPin(part, pin)?.supply;
  const domain = (key && part.supplies[key]?.domain) || "gnd";
  const ground = part?.pins.find((p) => p.role === "ground" && (p.domain ?? "gnd") === domain);
  return ground && `${ref}.${ground.label}`;
}

const item = (q: Question, beeps: boolean, what: string, why: string): CheckItem => {
  const [from, to] = "a" in q ? [q.a, q.b] : ["", ""];
  return {
    id: keyOf(q),
    when: "before power",
    what,
    from,
    to,
    low: null,
    high: null,
    word: beeps ? "beep" : "open",
    unit: "beep",
    why,
    q,
  };
};

/** The name of a net at its supply: with a ground of its own when there are several. */
function shorts(c: Circuit, ends: (n: Net) => string[]): CheckItem[] {
  return c.netlist.nets.flatMap((n): CheckItem[] => {
    if (n.kind !== "supply" || !n.V) return [];
    const here = ends(n);
    const at = hubOf(c, here);
    const ground = at && groundOfEnd(c, at);
    if (!at || !ground || c.netlist.netOf(ground) === n) return [];
    // At the far end of the ground, so that its own wires are measured too.
    const far = ends(c.netlist.netOf(ground)).find((e) => splitEnd(e).ref !== splitEnd(at).ref) ?? ground;
    return [
      item(
        { kind: "beep", a: at, b: far },
        false,
        `${n.name} does not touch ${c.netlist.netOf(far).name}`,
        "a short here burns wires or the supply; a capacitor may beep for a moment while it charges",
      ),
    ];
  });
}

function railsApart(c: Circuit, ends: (n: Net) => string[]): CheckItem[] {
  const rails = c.netlist.nets.filter((n) => n.kind === "supply" && n.V && ends(n).length);
  return rails.flatMap((a, i) =>
    rails.slice(i + 1).flatMap((b): CheckItem[] => {
      const [x, y] = [hubOf(c, ends(a)), hubOf(c, ends(b))];
      if (!x || !y) return [];
      // A diode, a fuse or a switch between them joins them on purpose.
      const joined = c.netlist.elements.some((e) => (e.a === a.id && e.b === b.id) || (e.a === b.id && e.b === a.id));
      if (joined) return [];
      return [
        item(
          { kind: "beep", a: x, b: y },
          false,
          `${a.name} does not touch ${b.name}`,
          "two supplies that touch push into each other, and the lower one's parts get too much",
        ),
      ];
    }),
  );
}

/** Supply and ground at every part: two leaves of a net at once, each wire only once. */
function feeds(c: Circuit, ends: (n: Net) => string[]): CheckItem[] {
  return c.netlist.nets.flatMap((n): CheckItem[] => {
    if (n.kind !== "supply" && n.kind !== "ground") return [];
    const here = ends(n);
    const hub = hubOf(c, here);
    if (!hub || here.length < 2) return [];
    const leaves = [
      ...new Map(here.filter((e) => e !== hub && !isRoot(c, e)).map((e) => [splitEnd(e).ref, e])).values(),
    ];
    const roots = here.filter((e) => e !== hub && isRoot(c, e) && splitEnd(e).ref !== splitEnd(hub).ref);
    const list = [...leaves, ...roots];
    const out: CheckItem[] = [];
    for (let i = 0; i < list.length; i += 2) {
      const [a, b] = [list[i]!, list[i + 1] ?? hub];
      out.push(
        item(
          { kind: "beep", a: b, b: a },
          true,
          `${n.name} reaches ${splitEnd(a).ref}${list[i + 1] ? ` and ${splitEnd(b).ref}` : ""}`,
          n.kind === "ground"
            ? "without its ground a part is fed through its signals, which it may not survive"
            : "two wires at one go, from part to part",
        ),
      );
    }
    return out;
  });
}

/** Grounds that are kept apart on purpose: nothing may beep through, and nothing is measured across. */
function barriers(c: Circuit, ends: (n: Net) => string[]): CheckItem[] {
  const apart = separateGrounds(c.netlist);
  const list = c.netlist.nets.filter((n) => apart.has(n.id) && ends(n).length);
  return list
    .slice(1)
    .map((n) =>
      item(
        { kind: "beep", a: hubOf(c, ends(list[0]!))!, b: hubOf(c, ends(n))! },
        false,
        `${list[0]!.name} and ${n.name} stay apart`,
        "the isolation is there to protect somebody: a single wire across it takes that away",
      ),
    );
}

/**
 * A rail beside a signal on a header or in a row: one hole off, or a bridge of solder, and an output works against the supply.
 * One check a pair of nets is enough.
 */
function neighbours(c: Circuit, ends: (n: Net) => string[]): CheckItem[] {
  const seen = new Set<string>();
  return c.netlist.nets.flatMap((n): CheckItem[] => {
    if (n.kind !== "supply" || !n.V) return [];
    return ends(n).flatMap((rail) =>
      besideOf(c, rail).flatMap((end): CheckItem[] => {
        const net = c.netlist.netOf(end);
        const wired = net && (net.kind === "signal" || net.kind === "bus-line") && ends(net).length > 0;
        if (!wired || !drives(c, net) || seen.has(`${n.id} ${net.id}`)) return [];
        seen.add(`${n.id} ${net.id}`);
        // At the signal's far end: a wire that is one hole off is found too, not only a bridge.
        const far = ends(net).find((e) => splitEnd(e).ref !== splitEnd(end).ref) ?? end;
        return [
          item(
            { kind: "beep", a: rail, b: far },
            false,
            `${n.name} does not touch its neighbour ${end}`,
            "side by side: a bridge here sets an output against the supply",
          ),
        ];
      }),
    );
  });
}

/** Whether a pin on a net works against what it touches: an output, or one that may be. A resistor between keeps it safe. */
const drives = (c: Circuit, net: Net) =>
  net.ends.some((e) => e.as === "driver" || (e.as === "both" && c.netlist.level(e.ref, e.pin)?.output === "push-pull"));

/** Signals of parts that no program can prove: they are beeped, wire by wire. */
function unproven(c: Circuit): CheckItem[] {
  return c.netlist.bindings.flatMap((b): CheckItem[] => {
    const inst = c.netlist.instance(b.ref)!;
    if (!b.direct || inst.part.bringup?.driver || inst.inserted) return [];
    const q: Question = { kind: "beep", a: `${b.host}.${b.hostPin}`, b: `${b.ref}.${b.pin}` };
    return [
      item(q, true, `${b.ref}.${b.pin} reaches ${b.hostPin}`, "no program proves this part: its wires are measured"),
    ];
  });
}

/** Contacts of a part that are each beeped; a grid of more is pressed through in bring-up. */
const MOST_CONTACTS = 2;

function contacts(c: Circuit): CheckItem[] {
  return c.netlist.elements.flatMap((e): CheckItem[] => {
    const inst = c.netlist.instance(e.ref)!;
    if (e.kind !== "contact" || e.def?.kind !== "contact" || inst.part.supplies.main) return [];
    if (inst.part.elements.filter((x) => x.kind === "contact").length > MOST_CONTACTS) return [];
    const rests = e.def.closed === "rest";
    const q: Question = { kind: "beep", a: `${e.ref}.${e.def.a}`, b: `${e.ref}.${e.def.b}` };
    return [
      item(
        q,
        rests,
        `${inst.label} ${rests ? "beeps until it is pressed" : "beeps only while pressed"}`,
        rests ? "the contact opens when it is worked" : "open at rest; a key turned by a quarter beeps all the time",
      ),
    ];
  });
}

/** Before anything is plugged in: first what could do harm, then what feeds each part. */
export function beforePower(c: Circuit): CheckItem[] {
  const ends = wiredEnds(c);
  return [
    ...shorts(c, ends),
    ...railsApart(c, ends),
    ...barriers(c, ends),
    ...neighbours(c, ends),
    ...feeds(c, ends),
    ...contacts(c),
    ...unproven(c),
  ];
}
