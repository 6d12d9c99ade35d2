"use client";
import { useEffect, useState } from "react";
import type { PartOption } from "@/core/parts/catalogue";
import { Select } from "@/ui/shared/select";

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
  const [text, setText] = useState(String(value));
  const [problem, setProblem] = useState("");
  useEffect(() => setText(String(value)), [value]);
  if (option.kind === "choice")
    return (
      <label className="mr-5 inline-flex items-center gap-2 text-sm" htmlFor={id}>
        <span className="text-soft">{option.label}</span>
        <Select
          id={id}
          className="max-w-72"
          value={String(value).toLowerCase()}
          options={option.choices.map((c) => ({ value: c.value.toLowerCase(), name: c.label }))}
          onChange={save}
        />
      </label>
    );
  const done = () => {
    const n = Number(text.replace(",", "."));
    if (!Number.isFinite(n) || n < option.min || n > option.max)
      return setProblem(`${option.label} takes ${option.min} to ${option.max} ${option.unit}`.trim());
    setProblem("");
    if (n !== value) save(n);
  };
  return (
    <label className="mr-5 inline-flex items-center gap-2 text-sm" htmlFor={id}>
      <span className="text-soft">{option.label}</span>
      <input
        id={id}
        inputMode="decimal"
        className="num w-20"
        value={text}
        aria-invalid={problem !== ""}
        onChange={(e) => setText(e.target.value)}
        onBlur={done}
        onKeyDown={(e) => e.key === "Enter" && done()}
      />
      {option.unit}
      {problem && (
        <span role="alert" className="font-bold text-stop">
          {problem}
        </span>
      )}
    </label>
  );
}
