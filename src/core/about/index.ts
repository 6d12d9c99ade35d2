/** What a place of the build is, what it does here, and what would happen without it: for whoever points at it. */
import type { Circuit } from "../circuit";
import type { Instance, Net } from "../circuit/netlist";
import { findPin, type Pin } from "../parts/catalogue";
import { pinWhat, spreadWords } from "../parts/catalogue/describe";
import { splitEnd } from "../project";
import { label, mA } from "../checks/help";
import { formatV } from "../quantity";
import { WITHOUT_COMPANION, WITHOUT_ROLE, withoutNeed } from "./without";

export interface About {
  /** The place as it was asked for, or its printed name. */
  place: string;
  title: string;
  /** What it is, whatever it is used for. */
  what: string;
  /** What it does in this build. */
  here: string[];
  /** What would happen without it. */
  without: string;
  /** The part whose page says more; null for nets. */
  part: string | null;
}

const MOST = 6;
const few = (list: readonly string[]) =>
  list.length > MOST ? `${list.slice(0, MOST).join(", ")} and ${list.length - MOST} more` : list.join(", ");
const sentence = (text: string) => {
  const t = text.trim().replace(/[.;]$/, "");
  return t ? `${t.charAt(0).toUpperCase()}${t.slice(1)}.` : "";
};
const without = (says: string) => `Without it ${says}.`;

function netWords(c: Circuit, net: Net): string {
  if (net.kind === "ground") return "a ground: zero volts, and every current's way back";
  if (net.kind === "supply")
    return net.V
      ? `a supply of ${formatV(net.V.typ)}${net.V.max - net.V.min > 0.005 ? `, at worst ${formatV(net.V.min)} to ${formatV(net.V.max)}` : ""}`
      : "a supply that nothing feeds yet";
  if (net.kind === "bus-line") return "a line of a bus: the same wire visits every part on it";
  return c.levels.some((l) => l.net === net && l.analog) ? "a signal that is measured in volts" : "a signal";
}

const partsOn = (c: Circuit, net: Net) => [
  ...new Set(net.ends.flatMap((e) => (c.netlist.instance(e.ref) ? [e.ref] : []))),
];

function aboutNet(c: Circuit, net: Net): About {
  const refs = partsOn(c, net);
  const rail = c.power.rails.find((r) => r.net === net.id);
  const fed = refs.filter((ref) =>
    c.netlist
      .instance(ref)!
      .part.pins.some((p) => p.role === "supply-in" && net.ends.some((e) => e.ref === ref && e.pin === p.label)),
  );
  const bound = c.netlist.bindings.find((b) => net.ends.some((e) => e.ref === b.ref && e.pin === b.pin));
  const lost =
    net.kind === "ground"
      ? `the current of ${few(refs)} finds no way back: they stay dead, or are fed through their signal pins`
      : net.kind === "supply"
        ? fed.length
          ? `these are off: ${few(fed)}`
          : "nothing changes: it feeds nothing"
        : bound
          ? withoutNeed(bound.need)
          : WITHOUT_ROLE.signal;
  return {
    place: net.name,
    title: net.name,
    what: sentence(netWords(c, net)),
    here: [
      sentence(`joins ${few(net.ends.map((e) => `${e.ref}.${e.pin}`))}`),
      ...(rail && rail.flow.peak > 1e-5
        ? [sentence(`${mA(rail.flow.typ)} are drawn from it usually, ${mA(rail.flow.peak)} at the peak`)]
        : []),
    ],
    without: without(lost),
    part: null,
  };
}

/** What a signal does between a part and its board, from the part's side. */
function signalHere(c: Circuit, ref: string, pin: string): string[] {
  const b = c.netlist.bindings.find((x) => x.ref === ref && x.pin === pin);
  if (b)
    return [
      sentence(
        `goes to ${b.host}.${b.hostPin}${b.direct ? "" : ", not straight: something stands between"}${b.chainedAfter ? `, by way of ${b.chainedAfter}` : ""}`,
      ),
    ];
  return c.netlist.bindings
    .filter((x) => x.host === ref && x.hostPin === pin)
    .slice(0, MOST)
    .map((x) =>
      sentence(`serves ${x.ref}.${x.pin} (${x.need.kind}${x.need.role ? ` ${x.need.role.toUpperCase()}` : ""})`),
    );
}

/** The worst levels that meet at a pin. */
function levelsHere(c: Circuit, ref: string, pin: string): string[] {
  const at = (e: { ref: string; pin: string }) => e.ref === ref && e.pin === pin;
  const heard = c.levels.find((l) => at(l.receiver) && !l.analog);
  if (heard)
    return [
      sentence(
        `at worst a high of ${formatV(heard.high_V)} arrives, and it takes for high what is above ${formatV(heard.VIH)}; low is ${formatV(heard.low_V)}, below ${formatV(heard.VIL)} counts`,
      ),
    ];
  const spoken = c.levels.find((l) => at(l.driver) && !l.analog);
  return spoken
    ? [sentence(`drives at least ${formatV(spoken.high_V)} for high and at most ${formatV(spoken.low_V)} for low`)]
    : [];
}

function lostWithout(c: Circuit, inst: Instance, pin: Pin): string {
  if (inst.inserted) return WITHOUT_COMPANION[inst.inserted.key];
  const used = c.netlist.netOf(`${inst.ref}.${pin.label}`).ends.length > 1;
  const asks = pin.need ? !pin.need.optional : pin.role === "ground" || (pin.role === "supply-in" && !pin.optional);
  if (!used && (!asks || inst.part.board)) return "nothing changes: this plan does not use it";
  if (pin.need) return withoutNeed(pin.need);
  const served = c.netlist.bindings.filter((b) => b.host === inst.ref && b.hostPin === pin.label);
  const refs = [...new Set(served.map((b) => b.ref))];
  if (refs.length) return `${few(refs)} ${refs.length === 1 ? "loses" : "lose"} it: ${withoutNeed(served[0]!.need)}`;
  if (inst.part.board && pin.role === "signal") return "nothing changes: no part uses it here";
  return WITHOUT_ROLE[pin.role];
}

function aboutPin(c: Circuit, inst: Instance, pin: Pin): About {
  const end = `${inst.ref}.${pin.label}`;
  const net = c.netlist.netOf(end);
  const others = net.ends.filter((e) => !(e.ref === inst.ref && e.pin === pin.label)).map((e) => `${e.ref}.${e.pin}`);
  const joined = others.length
    ? sentence(`by ${net.name} it is joined with ${few(others)}`)
    : "No wire goes to it in this plan.";
  const volts =
    net.kind === "supply" && net.V ? [sentence(`${formatV(net.V.min)} to ${formatV(net.V.max)} stand here`)] : [];
  const offers = inst.part.board && pin.hazards?.length ? [sentence(`mind: ${pin.hazards[0]!.says}`)] : [];
  return {
    place: end,
    title: `${label(c, inst.ref)}, pin ${pin.label}`,
    what: [pinWhat(inst.part, pin), pin.says ?? ""].map(sentence).filter(Boolean).join(" "),
    here: [...signalHere(c, inst.ref, pin.label), joined, ...volts, ...levelsHere(c, inst.ref, pin.label), ...offers],
    without: without(lostWithout(c, inst, pin)),
    part: inst.part.id,
  };
}

/** What a part hangs on and takes. */
function partHere(c: Circuit, inst: Instance): string[] {
  if (inst.inserted) return [sentence(`put in beside ${inst.inserted.by}, because ${inst.inserted.because}`)];
  const bound = c.netlist.bindings.filter((b) => b.ref === inst.ref);
  const guests = c.netlist.bindings.filter((b) => b.host === inst.ref);
  const rails = [
    ...new Set(
      inst.part.pins
        .filter((p) => p.role === "supply-in")
        .map((p) => c.netlist.netOf(`${inst.ref}.${p.label}`))
        .filter((n) => n.ends.length > 1)
        .map((n) => n.name),
    ),
  ];
  const own = [...c.power.own.values()].flat().filter((x) => x.ref === inst.ref);
  const peak = own.reduce((s, x) => s + x.flow.peak, 0);
  const limit = c.power.limits.find((l) => l.ref === inst.ref && l.kind === "source");
  return [
    ...(bound.length
      ? [
          sentence(
            `talks to ${[...new Set(bound.map((b) => b.host))].join(" and ")} over ${few(bound.map((b) => `${b.pin} at ${b.hostPin}`))}`,
          ),
        ]
      : []),
    ...(guests.length
      ? [sentence(`runs the program; on its pins hang ${few([...new Set(guests.map((b) => b.ref))])}`)]
      : []),
    ...(rails.length ? [sentence(`lives on ${rails.join(" and ")}`)] : []),
    ...(peak > 1e-5 ? [sentence(`takes up to ${mA(peak)}`)] : []),
    ...(limit ? [sentence(`gives ${mA(limit.flow.peak)} of the ${mA(limit.limit_A)} that it can`)] : []),
  ];
}

function aboutPart(c: Circuit, inst: Instance): About {
  const feeds = c.power.limits.find((l) => l.ref === inst.ref && l.kind === "source");
  const supply = Object.values(inst.part.supplies).find((s) => s.V);
  const lost = inst.inserted
    ? WITHOUT_COMPANION[inst.inserted.key]
    : inst.part.board
      ? "nothing runs: the program lives on it"
      : feeds
        ? `these have no power: ${few(feeds.loads.map((l) => l.label)) || "nothing yet"}`
        : "nothing in this build does that";
  const here = partHere(c, inst);
  return {
    place: inst.ref,
    title: label(c, inst.ref),
    what: sentence(
      `${inst.part.name}: ${inst.part.does}${supply && !inst.inserted ? `; made for ${spreadWords(supply.V, inst.part)}` : ""}`,
    ),
    here: here.length ? here : ["Nothing is wired to it yet."],
    without: without(lost),
    part: inst.part.id,
  };
}

/**
 * What a place is (`REF`, `REF.PIN` or a net's name), what it does in this circuit, and what would happen without it; null
 * where there is no such place. Volts and amperes are the worst case's, as the rules see them.
 */
export function about(c: Circuit, place: string): About | null {
  const { ref, pin } = splitEnd(place);
  const inst = c.netlist.instance(pin && ref ? ref : place);
  if (inst && ref && place.includes(".")) {
    const found = findPin(inst.part, pin);
    if (found) return aboutPin(c, inst, found);
  }
  const whole = c.netlist.instance(place);
  if (whole) return aboutPart(c, whole);
  const net = c.netlist.nets.find((n) => n.name === place && n.ends.length);
  return net ? aboutNet(c, net) : null;
}
