"use client";
import type { ReactNode } from "react";
import { Trash2 } from "lucide-react";
import { Controller, useFieldArray, useFormContext, useWatch, type FieldPath } from "react-hook-form";
import type { OwnDraft } from "@/core/parts/own";
import { Checkbox } from "@/ui/shared/checkbox";
import { Label } from "@/ui/shared/label";
import { Select } from "@/ui/shared/select";

type ListName = "feeds" | "companions" | "channels" | "gates" | "straps";

/** A list of small rows of the draft: each with its fields, what is wrong with it below, and a way to take it out. */
export function Rows<N extends ListName>({
  name,
  what,
  add,
  blank,
  problem,
  children,
}: {
  name: N;
  /** One of them, in words: "Resistor or capacitor". */
  what: string;
  /** What the button says that adds one. */
  add: string;
  blank(): OwnDraft[N][number];
  problem(field: string): string | undefined;
  children(at: `${N}.${number}`, i: number, row: OwnDraft[N][number]): ReactNode;
}) {
  const { control } = useFormContext<OwnDraft>();
  const list = useFieldArray({ control, name });
  const rows = useWatch({ control, name }) as OwnDraft[N];
  return (
    <div>
      {list.fields.map((f, i) => (
        <fieldset key={f.id} className="mt-2" aria-label={`${what} ${i + 1}`}>
          <div className="flex flex-wrap items-end gap-x-3 gap-y-2">
            {rows[i] && children(`${name}.${i}`, i, rows[i])}
            <button className="mb-1 px-1" aria-label={`Take out: ${what} ${i + 1}`} onClick={() => list.remove(i)}>
              <Trash2 size={14} aria-hidden />
            </button>
          </div>
          {problem(`${name}/${i}`) && <p className="text-sm font-bold text-stop">{problem(`${name}/${i}`)}</p>}
        </fieldset>
      ))}
      <button className="quiet mt-2 text-sm" onClick={() => list.append(blank() as never, { shouldFocus: false })}>
        {add}
      </button>
    </div>
  );
}

/** One of several in a row. */
export function Pick<T extends string>({
  name,
  label,
  options,
  className = "w-44",
}: {
  name: FieldPath<OwnDraft>;
  label: string;
  options: readonly { value: T; name: string }[];
  className?: string;
}) {
  const { control } = useFormContext<OwnDraft>();
  return (
    <Controller
      control={control}
      name={name}
      render={({ field }) => (
        <Label className={`block ${className}`}>
          <span className="text-sm text-soft">{label}</span>
          <Select<T>
            label={label}
            className="w-full"
            value={field.value as T}
            options={options}
            onChange={field.onChange}
          />
        </Label>
      )}
    />
  );
}

/** One of the part's pins in a row. */
export function PickPin({ name, label, none }: { name: FieldPath<OwnDraft>; label: string; none?: string }) {
  const { control } = useFormContext<OwnDraft>();
  const pins = useWatch({ control, name: "pins" });
  const labels = [...new Set(pins.map((p) => p.label).filter(Boolean))];
  return (
    <Pick
      name={name}
      label={label}
      className="w-28"
      options={[
        ...(none === undefined ? [] : [{ value: "", name: none }]),
        ...labels.map((l) => ({ value: l, name: l })),
      ]}
    />
  );
}

/** A yes or no in a row. */
export function Tick({ name, children }: { name: FieldPath<OwnDraft>; children: ReactNode }) {
  const { control } = useFormContext<OwnDraft>();
  return (
    <Controller
      control={control}
      name={name}
      render={({ field }) => (
        <Checkbox className="mb-1" checked={field.value === true} onChange={field.onChange}>
          {children}
        </Checkbox>
      )}
    />
  );
}

/** The entries of a table as choices. */
export const choices = <K extends string>(table: Record<K, string | { name: string }>, kept: boolean) =>
  (Object.entries(table) as [K, string | { name: string }][])
    .filter(([k]) => k !== "kept" || kept)
    .map(([value, x]) => ({ value, name: typeof x === "string" ? x : x.name }));
