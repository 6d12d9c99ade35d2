"use client";
import { useKept } from "@/ui/state/kept";
import { Download } from "@/ui/shared/download";
import { useProject } from "@/ui/state/project";
import { Radios } from "@/ui/shared/radios";

const PRINTS = [
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

/** Prints: PDF files in true size where size matters. */
export function Prints() {
  const { view } = useProject();
  const [paper, setPaper] = useKept("paper", "a4");
  return (
    <div className="mt-3 max-w-3xl">
      <Radios
        label="Paper"
        inline
        value={paper}
        options={[
          { value: "a4", name: "A4" },
          { value: "letter", name: "Letter" },
        ]}
        onChange={setPaper}
      />
      {view.verdict.counts.stop > 0 && (
        <p className="mt-2 font-bold text-stop">Every print carries the stops on its first page.</p>
      )}
      <ul className="mt-2">
        {PRINTS.map((p) => (
          <li key={p.what} className="flex justify-between gap-4 border-b border-line py-2">
            <span>
              {p.name}
              <span className="block text-sm text-soft">{p.says}</span>
            </span>
            <Download path={`print?what=${p.what}&paper=${paper}`} testId={`print-${p.what}`}>
              PDF
            </Download>
          </li>
        ))}
      </ul>
    </div>
  );
}
