"use client";
import { zodResolver } from "@hookform/resolvers/zod";
import { useMemo, type ReactNode, type RefObject } from "react";
import { Controller, FormProvider, useForm, useFormContext, useWatch } from "react-hook-form";
import { z } from "zod";
import type { WireAsk } from "@/core/wires";
import { WireAskSchema } from "@/core/wires/ask-schema";
import { Select } from "@/ui/shared/select";
import { PointField } from "@/ui/shared/point-field";
import { Consequence } from "./told";
import { useAct } from "./use-told";
import { Label } from "@/ui/shared/label";

/** Everything that a form about wires may ask for; each has the few that it needs. */
export interface AskFields {
  do: WireAsk["do"];
  from: string;
  to: string;
  really: string;
  part: string;
  ref: string;
  close: boolean;
}
const EMPTY: AskFields = { do: "join", from: "", to: "", really: "", part: "", ref: "", close: true };

const itself = (f: AskFields): object => f;

/** A form about wires: what it asks for is told while it is filled in, and done when it is sent. */
export function useAskForm({
  start,
  ask: askOf = itself,
  says,
  next,
  after,
}: {
  start: Partial<AskFields>;
  /** What the fields ask for, where they are not the ask as they stand. */
  ask?(f: AskFields): object;
  says(did: string): string;
  /** As it is sent, before the fields are empty: where the next one begins. */
  next?(): void;
  /** When it is done. */
  after?(): void;
}) {
  const schema = useMemo(() => z.any().transform(askOf).pipe(WireAskSchema), [askOf]);
  const form = useForm<AskFields>({ defaultValues: { ...EMPTY, ...start }, resolver: zodResolver(schema) as never });
  const fields = useWatch({ control: form.control }) as AskFields;
  const ask = schema.safeParse(fields).data ?? null;
  const { told, go } = useAct(ask, says);
  // Field by field: after a reset the form does not know its fields until it is drawn again, and can't focus one.
  const put = (f: AskFields) => {
    for (const [name, value] of Object.entries(f)) form.setValue(name as keyof AskFields, value);
  };
  const send = form.handleSubmit(async () => {
    if (!told?.ok) return;
    // Emptied as it is sent, so that the next can be typed at once; put back if it was not done and nothing was typed.
    const blank = { ...EMPTY, ...start };
    const sent = form.getValues();
    next?.();
    put(blank);
    if (await go()) after?.();
    else if (JSON.stringify(form.getValues()) === JSON.stringify(blank)) put(sent);
  });
  return { form, fields, told, send: () => void send() };
}

/** The form around its fields: the button that does it, and what it would bring. */
export function AskForm({
  of: { form, told, send },
  button,
  says = true,
  leave,
  children,
}: {
  of: ReturnType<typeof useAskForm>;
  button: string;
  /** Whether what would be done is said in a sentence of its own. */
  says?: boolean;
  leave?: () => void;
  children: ReactNode;
}) {
  return (
    <FormProvider {...form}>
      <form
        className="mt-2 flex flex-wrap items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          send();
        }}
      >
        {children}
        <button className="btn-main" disabled={!told?.ok}>
          {button}
        </button>
        {leave && (
          <button type="button" className="btn" onClick={leave}>
            Leave it
          </button>
        )}
      </form>
      {says && told?.ok && <p className="mt-1">{told.says}.</p>}
      <Consequence told={told} />
    </FormProvider>
  );
}

/** A point of the circuit as a field of such a form. */
export function AskPoint({
  name,
  label,
  done,
  input,
}: {
  name: "from" | "to" | "really";
  input?: RefObject<HTMLInputElement | null>;
  label: string;
  /** What Enter does; sending the form when absent. */
  done?: () => void;
}) {
  const { control } = useFormContext<AskFields>();
  return (
    <Controller
      control={control}
      name={name}
      render={({ field }) => (
        <PointField
          label={label}
          value={field.value}
          set={field.onChange}
          {...(input && { input })}
          {...(done && { done })}
        />
      )}
    />
  );
}

/** A choice as a field of such a form. */
export function AskSelect({
  name,
  label,
  options,
  empty,
}: {
  name: "do" | "to" | "part" | "ref";
  label: string;
  options: readonly { value: string; name: string }[];
  empty?: string;
}) {
  const { control } = useFormContext<AskFields>();
  return (
    <Controller
      control={control}
      name={name}
      render={({ field }) => (
        <Label className="text-sm">
          {label}
          <Select
            label={label}
            className="flex!"
            value={field.value}
            options={options}
            onChange={field.onChange}
            {...(empty !== undefined && { empty })}
          />
        </Label>
      )}
    />
  );
}
