import type { Circuit } from "../../circuit";
import type { Net } from "../../circuit/netlist";
import { findPin } from "../../parts/catalogue";
import { splitEnd } from "../../project";
import type { Capture, Channel } from "./types";

/** A channel of a capture and the net of the plan that it is a probe of. */
export interface Matched {
  channel: Channel;
  net: Net;
}
export interface Match {
  matched: readonly Matched[];
  /** Channels that no net answers to. */
  unmatched: readonly string[];
  problems: readonly string[];
}

const plain = (s: string) => s.toUpperCase().replace(/[^A-Z0-9]/g, "");

/** What a net may be called on an analyser: its name, its pins with and without their parts. */
function namesOf(net: Net): string[] {
  return [net.name, ...net.ends.flatMap((e) => [`${e.ref}.${e.pin}`, ...(e.def.offers?.length ? [e.pin] : [])])].map(
    plain,
  );
}

/** Which channel is which net: by name, or as somebody says (`D0` → `M1.SDA`). Nothing is guessed where two fit. */
export function matchChannels(c: Circuit, capture: Capture, map: ReadonlyMap<string, string> = new Map()): Match {
  const nets = c.netlist.nets.filter((n) => n.kind === "signal" || n.kind === "bus-line");
  const by = new Map<string, Set<Net>>();
  for (const n of nets) for (const name of namesOf(n)) by.set(name, (by.get(name) ?? new Set()).add(n));
  const matched: Matched[] = [];
  const unmatched: string[] = [];
  const problems: string[] = [];
  for (const name of map.keys())
    if (!capture.channels.some((x) => x.name === name))
      problems.push(
        `there is no channel "${name}"; there are ${capture.channels
          .map((x) => x.name)
          .join(", ")
          .slice(0, 200)}`,
      );
  for (const channel of capture.channels) {
    const said = map.get(channel.name);
    if (said !== undefined) {
      const { ref, pin } = splitEnd(said);
      const part = c.netlist.instance(ref)?.part;
      const own = part && findPin(part, pin) ? c.netlist.netOf(`${ref}.${findPin(part, pin)!.label}`) : undefined;
      const net = own ?? [...(by.get(plain(said)) ?? [])][0];
      if (net) matched.push({ channel, net });
      else problems.push(`"${said}" is no pin and no net of this plan`);
      continue;
    }
    const fit = by.get(plain(channel.name));
    if (fit?.size === 1) matched.push({ channel, net: [...fit][0]! });
    else unmatched.push(channel.name);
  }
  return { matched, unmatched, problems };
}
