import type { Circuit } from "../../circuit";
import type { Element } from "../../parts/catalogue";
import type { Net } from "../../circuit/netlist";
import { formatV } from "../../quantity";
import type { BasicEdit } from "../../project";
import { elementsAt, netById, otherEnd } from "../graph";
import { label, round } from "../help";
import { switchesOf } from "../loads";
import type { Found, Fix, Rule, Severity } from "../types";
import { blockers, swappedSupplies } from "../reversed";

/** Exchanges the wires of two pins of a part. */
function swapPins(c: Circuit, ref: string, a: string, b: string): Fix[] {
  const ends = [`${ref}.${a}`, `${ref}.${b}`];
  const other = (e: string) => (e === ends[0] ? ends[1]! : ends[0]!);
  const links = c.project.links.filter((l) => ends.includes(l.from) || ends.includes(l.to));
  if (!links.length || !c.project.parts.some((p) => p.ref === ref)) return [];
  const turned = (e: string) => (ends.includes(e) ? other(e) : e);
  return [
    {
      id: "turn-round",
      label: `Turn ${label(c, ref)} round: exchange ${a} and ${b}`,
      edits: [
        ...links.map((l): BasicEdit => ({ type: "removeLink", from: l.from, to: l.to })),
        ...links.map((l): BasicEdit => ({ type: "addLink", link: { ...l, from: turned(l.from), to: turned(l.to) } })),
      ],
    },
  ];
}

const found = (
  c: Circuit,
  severity: Severity,
  ref: string,
  pins: [string, string],
  message: string,
  evidence: Found["evidence"] = {},
): Found => ({
  rule: "part.reversed",
  severity,
  at: [`${ref}.${pins[0]}`, `${ref}.${pins[1]}`],
  message,
  evidence: { part: ref, ...evidence },
  fixes: () => swapPins(c, ref, pins[0], pins[1]),
});

const pinOn = (c: Circuit, ref: string, net: Net | undefined) => net?.ends.find((e) => e.ref === ref)?.pin ?? "";

/** Lights whose cathode faces the plus. */
const lights = (c: Circuit): Found[] =>
  c.leds.flatMap((p): Found[] => {
    const led = p.element;
    const atGround = p.high.kind === "rail" && p.high.net.kind === "ground";
    const atPlus = p.low.kind === "pin" || (p.low.kind === "rail" && p.low.net.kind === "supply");
    // Anode at a pin, cathode at a supply that is as high as the pin: in no state is there anything to light it.
    const dark = p.high.kind === "pin" && p.low.kind === "rail" && p.low.net.kind === "supply" && p.I?.typ === 0;
    if ((!atGround || !atPlus) && !dark) return [];
    const [a, k] = [pinOn(c, p.ref, netById(c, led.a)), pinOn(c, p.ref, netById(c, led.b))];
    return [
      found(
        c,
        "fault",
        p.ref,
        [a || "A", k || "K"],
        `${label(c, p.ref)} is the wrong way round: its anode (long leg) leads to ${dark ? "the pin" : "ground"} and its cathode to the plus. It stays dark.`,
      ),
    ];
  });

/** Electrolytic capacitors with the plus leg at the lower voltage. */
const capacitors = (c: Circuit): Found[] =>
  [...c.netlist.expanded.instances.values()].flatMap((inst) =>
    inst.part.elements.flatMap((el: Element): Found[] => {
      if (el.kind !== "capacitor" || !el.polar) return [];
      const [plus, minus] = [c.netlist.netOf(`${inst.ref}.${el.a}`), c.netlist.netOf(`${inst.ref}.${el.b}`)];
      const V = (minus?.V?.typ ?? 0) - (plus?.V?.typ ?? 0);
      if (!plus?.V || !minus?.V || V < 0.5) return [];
      return [
        found(
          c,
          "stop",
          inst.ref,
          [el.a, el.b],
          `${label(c, inst.ref)} is the wrong way round: its minus stripe sits at ${formatV(V)} above its plus leg. It can burst. Do not power this.`,
          { reverse_V: round(V) },
        ),
      ];
    }),
  );

/** Diodes across a switched load that would short the supply, and diodes straight across a supply. */
const diodes = (c: Circuit): Found[] =>
  c.netlist.elements.flatMap((el): Found[] => {
    if (el.kind !== "diode") return [];
    const [a, k] = [netById(c, el.a), netById(c, el.b)];
    const across = a?.kind === "supply" && a.V && k?.kind === "ground";
    const sw = switchesOf(c).find((s) => s.el.a === el.b || s.el.b === el.a);
    const load = sw && elementsAt(c, el.a).some((x) => x.kind === "load" && otherEnd(x, el.a) === el.b);
    // Low-side switch: the anode belongs to the switched node, so an anode at the supply conducts as soon as it closes.
    const wrong = load && ((sw.el.a === el.b && a?.kind === "supply") || (sw.el.b === el.a && k?.kind === "ground"));
    if (!across && !wrong) return [];
    const pins: [string, string] = [pinOn(c, el.ref, a) || "A", pinOn(c, el.ref, k) || "K"];
    return [
      found(
        c,
        "stop",
        el.ref,
        pins,
        `${label(c, el.ref)} is the wrong way round: its anode is at the plus, so it shorts the supply${load ? " when the load is switched on" : ""}. The ring marks the cathode, which belongs to the plus. Do not power this.`,
      ),
    ];
  });

const blocked = (c: Circuit): Found[] =>
  blockers(c).map(({ el, a, k }) =>
    found(
      c,
      "fault",
      el.ref,
      [pinOn(c, el.ref, a), pinOn(c, el.ref, k)],
      `${label(c, el.ref)} in the supply's wire faces the wrong way: its ring (cathode) must point away from the source. Nothing gets through.`,
    ),
  );

const supplies = (c: Circuit): Found[] => {
  const all = swappedSupplies(c);
  // When a source and a part are swapped against each other, the part with fewer wires is the one to turn.
  const wires = (ref: string) =>
    c.project.links.filter((l) => [l.from, l.to].some((e) => e.startsWith(`${ref}.`))).length;
  const least = Math.min(...all.map((x) => wires(x.ref)));
  return all
    .filter((x) => wires(x.ref) === least)
    .slice(0, 1)
    .map((x) =>
      found(
        c,
        "stop",
        x.ref,
        [x.plus, x.minus],
        `${label(c, x.ref)} has plus and minus exchanged: ${x.plus} is at ground and ${x.minus} at a supply. Do not power this.`,
      ),
    );
};

export const partReversed: Rule = {
  rule: "part.reversed",
  says: "Lights, diodes, electrolytic capacitors, supplies and modules have a plus and a minus; the wrong way round they stay dead or die.",
  check: (c) => [...supplies(c), ...capacitors(c), ...diodes(c), ...blocked(c), ...lights(c)],
};
