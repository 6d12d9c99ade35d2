import { sourcesOn } from "../../circuit/power";
import type { Asked } from "./types";
import type { Circuit } from "../../circuit";

/** What everybody is asked before the power goes on, whatever the lesson is about. */
export function supplyQuestions(c: Circuit): Asked[] {
  const fed = c.netlist.nets.filter((n) => n.kind === "supply" && sourcesOn(c.netlist, n).length > 0);
  return [
    {
      id: "never",
      ask: "Which two points must never beep together before the power goes on, and why?",
      answer: "Supply and ground. If they beep they are joined: wires or the supply would burn.",
    },
    ...(fed.length > 1
      ? [
          {
            id: "shared",
            ask: `Here are ${fed.length} supplies. What do they still have to share, so that signals mean the same to both?`,
            answer: c.project.isolated.length
              ? "Nothing, here: they are kept apart on purpose, and an isolator carries the signals."
              : "Ground, unless the plan keeps them isolated on purpose.",
          },
        ]
      : []),
  ];
}
