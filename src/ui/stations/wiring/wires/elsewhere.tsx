"use client";
import { useState } from "react";
import type { RunRow } from "@/core/build/runsheet/row";
import { useProject } from "@/ui/state/project";
import { later } from "@/ui/shared/later";

const Form = later(() => import("./elsewhere-form").then((m) => m.ElsewhereForm));

/** At a step of the run sheet: the wire is really somewhere else. Plan, program and sheet follow; other ticks stay. */
export function Elsewhere({ row }: { row: RunRow }) {
  const { project } = useProject();
  const [open, setOpen] = useState(false);
  const link = project.links.some(
    (l) => (l.from === row.from && l.to === row.to) || (l.from === row.to && l.to === row.from),
  );
  if (!link) return null;
  return (
    <div className="basis-full pb-2 pl-12">
      {open ? (
        <Form row={row} close={() => setOpen(false)} />
      ) : (
        <button className="quiet text-sm" onClick={() => setOpen(true)}>
          it is wired differently
        </button>
      )}
    </div>
  );
}
