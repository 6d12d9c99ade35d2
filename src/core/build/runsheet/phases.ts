/** The order in which it is safe to build: nothing carries power until the last row. */
export const PHASES = [
  { id: "prepare", title: "Unplug and clear", why: "Wire only with every supply unplugged." },
  {
    id: "solder",
    title: "Mechanical and solder work",
    why: "Heat and force first. Goggles against cut leads, fresh air against fumes, a stand for the hot iron.",
  },
  {
    id: "place",
    title: "Parts, each the right way round",
    why: "A part that is turned round is the costliest mistake.",
  },
  { id: "ground", title: "Grounds", why: "Ground first: every part shares it." },
  { id: "supply", title: "Supplies, not yet connected", why: "Supply wires go to rails that nothing feeds yet." },
  { id: "bus", title: "Buses", why: "Shared lines: the same wires visit every part." },
  { id: "signal", title: "Signals", why: "One wire for each pin of the plan." },
  { id: "load", title: "Loads", why: "Motors, coils and lamps last: they pull at everything else." },
  { id: "source", title: "Sources, last", why: "Plug in only when the checks before power are done." },
] as const;
export type PhaseId = (typeof PHASES)[number]["id"];
export const phaseById = (id: PhaseId) => PHASES.find((p) => p.id === id)!;
