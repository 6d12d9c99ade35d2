"use client";
import { Controller, useFormContext } from "react-hook-form";
import { Select } from "@/ui/shared/select";
import { useProject } from "@/ui/state/project";
import type { AskFields } from "./ask-form";

/** A part of the project, but a board, as a field of a form about wires. */
export function PartChoice({ label }: { label: string }) {
  const { view } = useProject();
  const { control } = useFormContext<AskFields>();
  const parts = view.parts.filter((p) => !p.isHost);
  return (
    <Controller
      control={control}
      name="ref"
      render={({ field }) => (
        <label className="text-sm">
          {label}
          <Select
            label={label}
            className="flex!"
            value={field.value}
            options={parts.map((p) => ({ value: p.ref, name: `${p.ref} ${p.label === p.ref ? p.name : p.label}` }))}
            onChange={field.onChange}
          />
        </label>
      )}
    />
  );
}
