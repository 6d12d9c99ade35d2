"use client";
import { useId } from "react";
import { useFormContext, type FieldPath } from "react-hook-form";
import type { OwnDraft } from "@/core/parts/own";
import { Label } from "@/ui/shared/label";

/** A text of the draft with its label; what is wrong with it stands below. */
export function Field({
  name,
  label,
  hint,
  wrong,
  className,
  num = false,
  maxLength = 200,
}: {
  name: FieldPath<OwnDraft>;
  label: string;
  hint: string;
  wrong: string | undefined;
  className: string;
  num?: boolean;
  maxLength?: number;
}) {
  const { register } = useFormContext<OwnDraft>();
  const id = useId();
  return (
    <div className={className}>
      <Label className="block">
        <span className="text-sm text-soft">{label}</span>
        <input
          className={`w-full ${num ? "num" : ""}`}
          placeholder={hint}
          maxLength={maxLength}
          aria-invalid={wrong !== undefined}
          aria-describedby={wrong ? id : undefined}
          {...register(name)}
        />
      </Label>
      {wrong && (
        <p id={id} className="text-sm font-bold text-stop">
          {wrong}
        </p>
      )}
    </div>
  );
}
