import { pinWords } from "../../build";
import type { Circuit } from "../../circuit";
import type { LedPath } from "../../circuit/solve";
import { reasonOf } from "../../bench/reason";
import { at, endWords, nameOf, type Asked, type Asker } from "./types";

type End = LedPath["high"];
const stopWords = (c: Circuit, e: End) =>
  e.kind === "pin" ? `${nameOf(c, e.end.ref)}'s pin ${e.end.pin}` : e.kind === "rail" ? e.net.name : "an open end";

/** The way of the current through a light. */
const ways = (c: Circuit, level: "7-11" | "11-14" | "14+"): Asked[] =>
  c.leds
    .filter((l) => l.I && l.high.kind !== "open" && l.low.kind !== "open")
    .slice(0, 2)
    .map((l) => {
      const name = nameOf(c, l.ref);
      const stops = [stopWords(c, l.high), ...l.resistors, name, stopWords(c, l.low)];
      const end = l.low.kind === "rail" && l.low.net.kind === "ground" ? ", and through ground back to the supply" : "";
      return {
        id: `way ${l.ref}`,
        ask: at(
          level,
          `Follow the way of the current with your finger, from where it leaves the board until it is back. Through what does it go to light ${name}?`,
          `The current that lights ${name} leaves at ${stops[0]} and comes back. Name everything that it goes through, in order.`,
          `Write down the closed loop of the current that lights ${name}, part by part, with the pin where it leaves and the one where it returns. In what order may the resistor and the light stand?`,
        ),
        answer: `${stops.join(", ")}${end}.${level === "14+" ? " In either order: in a loop the current is the same everywhere." : ""}`,
      };
    });

/** What stops when one wire is pulled: as the bench works it out. */
function pulled(c: Circuit, level: "7-11" | "11-14" | "14+"): Asked[] {
  const r = reasonOf(c);
  const parts = r.questions.filter((q) => q.kind === "part");
  const sound = r.singles[0]!;
  const list = r.singles.slice(1).flatMap((h) => {
    const f = h.faults[0]!;
    if (f.kind !== "open-wire" || !f.at.some((x) => x.includes(".") && c.netlist.netOf(x)?.kind === "ground"))
      return [];
    const dead = parts.filter((q) => r.shows(h, q) !== r.shows(sound, q));
    return [{ f, dead: dead.flatMap((q) => (q.kind === "part" ? [nameOf(c, q.ref)] : [])) }];
  });
  const best = list.sort((a, b) => b.dead.length - a.dead.length)[0];
  if (!best) return [];
  const where = best.f.at
    .filter((x) => x.includes("."))
    .map((x) => endWords(c, x))
    .join(" and ");
  return [
    {
      id: `pulled ${best.f.id}`,
      ask: at(
        level,
        `Somebody pulls out the ground wire between ${where}. What stops working?`,
        `The ground wire between ${where} comes off. Which parts stop, and why do the others go on?`,
        `The ground wire between ${where} breaks. Foretell which parts fail, and what a meter would show at the broken end.`,
      ),
      answer: best.dead.length
        ? `${best.dead.join(", ")}. ${at(level, "Their current has no way back.", "Their loop is no longer closed; the others have a ground wire of their own.", "Their loop is open; the loose end floats, so the meter shows no steady value.")}`
        : "Nothing: there is another way for the current.",
    },
  ];
}

const places = (c: Circuit): Asked[] =>
  c.netlist.bindings
    .filter((b) => b.direct)
    .slice(0, 2)
    .map((b) => {
      const [part, host] = [c.netlist.instance(b.ref)!, c.netlist.instance(b.host)!];
      return {
        id: `place ${b.ref}.${b.pin}`,
        ask: `Where on the board is the pin that ${part.label} uses for ${b.pin}? Count it off before you look at its print.`,
        answer: `${b.hostPin}: ${pinWords(host, b.hostPin)}.`,
      };
    });

export const circuit: Asker = {
  aim: "circuit",
  ask: (c, level) => [...ways(c, level), ...pulled(c, level), ...places(c)],
};
