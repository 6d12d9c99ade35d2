"use client";
import { afterwards } from "@/ui/shared/later";
import { Download } from "@/ui/shared/download";
import { saveFile } from "@/ui/shared/save-file";
import { StationTitle } from "@/ui/shared/title";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";
import { PartsTable } from "../wiring/parts-table";
import { PassOn } from "./pass-on";

const LessonPack = afterwards(() => import("./lesson").then((m) => m.LessonPack));

/** Hand-out: the plan as files in open formats, and the parts list. */
export function Handout() {
  const { view, project } = useProject();
  return (
    <>
      <StationTitle name="Hand-out" says="The plan as files that open anywhere, and a lesson on it." />
      <ul className="mt-3 max-w-2xl">
        <li className="flex justify-between gap-4 border-b border-line py-2">
          <span>
            Everything in one ZIP{" "}
            <span className="block text-sm text-soft">
              printed plan (PDF), drawing, wire, parts and check lists (CSV), programs, project file
            </span>
          </span>
          <Download main path="plan" testId="download-plan">
            Download
          </Download>
        </li>
        <li className="flex justify-between gap-4 border-b border-line py-2">
          <span>
            Project file{" "}
            <span className="block text-sm text-soft">to pass on or to keep; opens again from the first page</span>
          </span>
          <button
            className="btn self-center"
            onClick={() =>
              void core()
                .write(project)
                .then((t) => saveFile("project.lattice.json", t, "application/json"))
            }
          >
            Save
          </button>
        </li>
        <PassOn />
      </ul>
      <LessonPack />
      <h2 className="mt-5 border-t border-ink pt-2 text-lg">Parts to lay out</h2>
      <div className="max-w-3xl">
        <PartsTable />
        <p className="mt-1 text-sm text-soft">
          Benches, spares, wires and tools: Wiring, Lists. Prints: Wiring, Prints and tags.
        </p>
      </div>
      <h2 className="mt-5 text-lg">Take care</h2>
      <ul className="max-w-2xl list-disc pl-5">
        {view.cautions.map((c) => (
          <li key={c}>{c}</li>
        ))}
      </ul>
    </>
  );
}
