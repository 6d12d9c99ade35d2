"use client";
import { useEffect, useId, useRef } from "react";
import { useForm } from "react-hook-form";
import type { ZodMiniType } from "zod/mini";
import { Label } from "@/ui/shared/label";
import { draftKey, drafts } from "@/ui/state/drafts";

type Schemas = typeof import("./schemas");
const schemas = (): Promise<Schemas> => import("./schemas");

/**
 * A field that saves when it is left or on Enter, so that every keystroke is not a step to undo. What `schema` does not take
 * stays in the field with a sentence, and nothing is saved.
 */
export function SaveField<T>({
  id,
  label,
  hideLabel = false,
  value,
  schema,
  save,
  always = false,
  unit,
  area,
  numeric,
  disabled,
  placeholder,
  maxLength,
  className = "",
  fieldClass = "",
  autoFocus,
  left,
}: {
  id?: string;
  label: string;
  /** The label stands elsewhere on the screen: here it is only spoken. */
  hideLabel?: boolean;
  value: string;
  schema(s: Schemas): ZodMiniType<T, string>;
  save(v: T): void;
  /** Saves what stands there already as well: for a reading that is judged anew. */
  always?: boolean;
  unit?: string;
  area?: boolean;
  numeric?: boolean;
  disabled?: boolean;
  placeholder?: string;
  maxLength?: number;
  className?: string;
  fieldClass?: string;
  autoFocus?: boolean;
  /** Left with nothing wrong in it. */
  left?(): void;
}) {
  const own = useId();
  const name = id ?? own;
  const {
    register,
    handleSubmit,
    reset,
    setValue,
    formState: { errors },
  } = useForm<{ v: string }, unknown, { v: T }>({
    resolver: async (...asked) => {
      const s = await schemas();
      return s.oneField(schema(s))(...asked);
    },
    defaultValues: { v: value },
    reValidateMode: "onSubmit",
    shouldFocusError: false,
  });
  const stood = useRef<string | null>(null);
  useEffect(() => {
    const was = stood.current;
    stood.current = value;
    const typing = document.getElementById(name) as HTMLInputElement | null;
    // What is being typed stays when what stood there changes from outside.
    if (was !== null && typing === document.activeElement && typing?.value !== was) return;
    reset({ v: value });
    // What was typed when the page was closed is typed again.
    const draft = was === null ? drafts.get(draftKey(label), value) : null;
    if (draft !== null) setValue("v", draft, { shouldDirty: true });
  }, [reset, setValue, value, name, label]);
  const field = register("v", {
    onChange: (e: { target: { value: string } }) => drafts.put(draftKey(label), value, e.target.value),
  });
  const done = (raw: string) => {
    drafts.settle(draftKey(label));
    if (raw === value && !always) {
      reset({ v: value });
      return left?.();
    }
    void handleSubmit(({ v }) => {
      save(v);
      left?.();
    })();
  };
  const shared = {
    ...field,
    // What checks it is there before anything is left or entered.
    onFocus: () => void schemas(),
    id: name,
    disabled,
    placeholder,
    maxLength,
    autoFocus,
    className: fieldClass,
    "aria-invalid": errors.v !== undefined,
    ...(hideLabel && { "aria-label": label }),
    ...(errors.v && { "aria-describedby": `${name}-problem` }),
  };
  return (
    <span className={className}>
      {!hideLabel && (
        <Label className="text-soft" htmlFor={name}>
          {label}
        </Label>
      )}
      {area ? (
        <textarea
          rows={3}
          {...shared}
          onBlur={(e) => {
            void field.onBlur(e);
            done(e.target.value);
          }}
        />
      ) : (
        <input
          {...shared}
          inputMode={numeric ? "decimal" : undefined}
          onBlur={(e) => {
            void field.onBlur(e);
            done(e.target.value);
          }}
          onKeyDown={(e) => e.key === "Enter" && done(e.currentTarget.value)}
        />
      )}
      {unit && <span> {unit}</span>}
      {errors.v && (
        <span role="alert" id={`${name}-problem`} className="font-bold text-stop">
          {" "}
          {errors.v.message}
        </span>
      )}
    </span>
  );
}
