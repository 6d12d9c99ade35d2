/** The prints of a lesson, as they are fetched one by one. Adding one is a line here and one at the server. */
export const LESSON_PRINTS = [
  {
    what: "sheets",
    name: "Learner sheets",
    says: "questions to foretell, the drawing, each step with a box, who signed, the fault of the bench",
  },
  {
    what: "teacher",
    name: "Teacher’s pages",
    says: "time, risk note, checkpoints, answers, the key to the faults, what to lay out",
  },
  { what: "slides", name: "Slides", says: "lying pages for the wall, one step each, the step’s wire lit" },
  { what: "kits", name: "Kit labels", says: "a card for the box of each bench, to tick out and back" },
  {
    what: "paper",
    name: "On paper",
    says: "five minutes with a pencil before anything is plugged: parts without wires, then the plan",
  },
] as const;
