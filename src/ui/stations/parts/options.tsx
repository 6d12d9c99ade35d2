"use client";
import type { PartOption } from "@/core/parts/catalogue";
import { SaveField } from "@/ui/shared/save-field";
import { Select } from "@/ui/shared/select";
import { Label } from "@/ui/shared/label";

export type PlainOption = Exclude<PartOption, { kind: "pins" }>;

/** One option of a part: a list to choose from, or a number inside its limits. */
export function OptionField({
  id,
  option,
  value,
  save,
}: {
  id: string;
  option: PlainOption;
  value: string | number;
  save(value: string | number): void;
}) {
  if (option.kind === "choice")
    return (
      <Label className="mr-5 inline-flex items-center gap-2 text-sm" htmlFor={id}>
        <span className="text-soft">{option.label}</span>
        <Select
          id={id}
          className="max-w-72"
          value={String(value).toLowerCase()}
          options={option.choices.map((c) => ({ value: c.value.toLowerCase(), name: c.label }))}
          onChange={save}
        />
      </Label>
    );
  return (
    <SaveField
      id={id}
      label={option.label}
      value={String(value)}
      schema={(s) => s.numberIn(option.label, option.min, option.max, option.unit)}
      save={(n) => n !== value && save(n)}
      unit={option.unit}
      numeric
      className="mr-5 inline-flex items-center gap-2 text-sm"
      fieldClass="num w-20"
    />
  );
}
