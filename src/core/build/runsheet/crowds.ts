import type { Circuit } from "../../circuit";
import type { Net } from "../../circuit/netlist";
import { gaugeFor, JUMPER_A, supplyWires } from "../../circuit/power";
import type { Heavy } from "./types";

/** A part that feeds a net, and what all its light wires there carry together. */
interface Feed {
  ref: string;
  A: number;
  V: number;
}

/** From the contact to a bus strip beside it. */
const TO_STRIP_CM = 10;

/** What feeds a supply net, with the peak of everything that hangs there on wires that are light one by one. */
function feedsOf(c: Circuit, net: Net, heavy: ReadonlyMap<string, Heavy>): Feed[] {
  const light = supplyWires(c.netlist, c.power).filter(
    (w) => c.netlist.netOf(w.from) === net && !heavy.has([w.from, w.to].sort().join("~")),
  );
  const fed = new Set(light.map((w) => w.to));
  const out = new Map<string, Feed>();
  for (const w of light) {
    if (fed.has(w.from)) continue;
    const ref = w.from.split(/[.:]/)[0]!;
    const known = out.get(ref) ?? { ref, A: 0, V: net.V?.typ ?? 5 };
    out.set(ref, { ...known, A: known.A + w.peak_A });
  }
  return [...out.values()];
}

const memo = new WeakMap<Circuit, Map<string, Feed[]>>();

function allFeeds(c: Circuit, heavy: ReadonlyMap<string, Heavy>): Map<string, Feed[]> {
  const known = memo.get(c);
  if (known) return known;
  const out = new Map<string, Feed[]>();
  for (const net of c.netlist.nets) if (net.kind === "supply") out.set(net.id, feedsOf(c, net, heavy));
  // What goes out on the supplies of a part comes back on its ground.
  for (const net of c.netlist.nets) {
    if (net.kind !== "ground") continue;
    const back = new Map<string, Feed>();
    for (const f of [...out.values()].flat()) {
      if (!net.ends.some((e) => e.ref === f.ref)) continue;
      const sum = back.get(f.ref);
      back.set(f.ref, sum ? { ...sum, A: sum.A + f.A } : f);
    }
    out.set(net.id, [...back.values()]);
  }
  memo.set(c, out);
  return out;
}

/**
 * Light wires that are too much together: each is fine on a jumper, but the one wire from their source to the rail, the
 * rail itself, or the first link of a chain would carry all of them. By the part that feeds, what that one wire must be.
 */
export function crowdOf(c: Circuit, net: Net, heavy: ReadonlyMap<string, Heavy>): Map<string, Heavy> {
  const crowd = (allFeeds(c, heavy).get(net.id) ?? []).filter((f) => f.A > JUMPER_A);
  return new Map(
    crowd.map((f) => {
      const awg = gaugeFor(f.A, TO_STRIP_CM, f.V);
      return [f.ref, { awg, A: f.A, V: f.V, says: `${awg} AWG, up to ${f.A.toFixed(1)} A for all of them` }];
    }),
  );
}
