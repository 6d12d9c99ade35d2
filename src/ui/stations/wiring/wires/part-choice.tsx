"use client";
import { useProject } from "@/ui/state/project";
import { AskSelect } from "./ask-form";

/** A part of the project, but a board, as a field of a form about wires. */
export function PartChoice({ label }: { label: string }) {
  const { view } = useProject();
  const parts = view.parts.filter((p) => !p.isHost);
  return (
    <AskSelect
      name="ref"
      label={label}
      options={parts.map((p) => ({ value: p.ref, name: `${p.ref} ${p.label === p.ref ? p.name : p.label}` }))}
    />
  );
}
