import type { Circuit } from "../../circuit";
import { keyOf, type Question } from "../reason/questions";
import type { CheckItem } from "./types";

/** Parts that a program works, by the board that does. */
export function workedRefs(c: Circuit): string[] {
  const refs = c.netlist.bindings.flatMap((b) => {
    const inst = c.netlist.instance(b.ref)!;
    const own = c.netlist.instance(inst.inserted?.by ?? b.ref);
    return own && !own.part.board && own.part.bringup?.driver ? [own.ref] : [];
  });
  return [...new Set(refs)];
}

/** What the bring-up program tells of the board and of each part, and what a person sees of them. */
export function bringUp(c: Circuit): CheckItem[] {
  const word = (q: Question, what: string, from: string, want: string, why: string): CheckItem => ({
    id: keyOf(q),
    when: "bring-up",
    what,
    from,
    to: "",
    low: null,
    high: null,
    word: want,
    unit: "word",
    why,
    q,
  });
  const hosts = c.netlist.expanded.hosts.filter((h) => c.netlist.bindings.some((b) => b.host === h));
  return [
    ...hosts.map((h) =>
      word(
        { kind: "plan", host: h },
        `${c.netlist.instance(h)!.label} runs the program of this plan`,
        h,
        "same",
        "a sheet and a program of different plans look for each other's pins",
      ),
    ),
    ...workedRefs(c).map((ref) =>
      word(
        { kind: "part", ref },
        `${c.netlist.instance(ref)!.label} works`,
        ref,
        "works",
        "the program says so, or asks what you see: that proves its wires at one go",
      ),
    ),
  ];
}
