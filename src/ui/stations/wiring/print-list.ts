/** What can be printed, as PDF files in true size where size matters. Adding one is a line here and one at the server. */
export const PRINTS = [
  {
    what: "plan",
    name: "Printed plan",
    says: "verdict and cautions, drawings, run sheet with boxes, checks, pin table, lists, uploading; made for black and white",
  },
  {
    what: "learner",
    name: "Hand-out for learners",
    says: "the same with what each part does, why each step comes when it does, and questions with room to write",
  },
  { what: "answers", name: "Answers", says: "to those questions, computed from this plan; a page of its own" },
  { what: "underlay", name: "Breadboard 1:1", says: "to lie beside the real one, with a bar that checks the printer" },
  { what: "panel", name: "Drill template 1:1", says: "the walls of the box with centre marks and hole sizes" },
  {
    what: "plugboard",
    name: "Plug-on board 1:1",
    says: "both sides of a board to solder that plugs onto the header, and its steps with boxes",
  },
  {
    what: "labels",
    name: "Tags to cut out",
    says: "two for each wire that leaves the breadboard, one for each module, the names of buttons and lights",
  },
] as const;
