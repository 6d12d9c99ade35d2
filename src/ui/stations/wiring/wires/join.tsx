"use client";
import { useEffect, useRef } from "react";
import { AskForm, AskPoint, useAskForm } from "./ask-form";

/** Joins two points by a wire; the consequence is told before it is made. */
export function Join({ start = "" }: { start?: string }) {
  const from = useRef<HTMLInputElement>(null);
  const to = useRef<HTMLInputElement>(null);
  const ask = useAskForm({
    start: { do: "join" },
    says: (did) => `Joined ${did}.`,
    next: () => from.current?.focus(),
  });
  const { form, send } = ask;
  useEffect(() => form.setValue("from", start), [form, start]);
  return (
    <section aria-label="Join two points" className="mt-3">
      <h2 className="text-lg">Join two points</h2>
      <AskForm of={ask} button="Join" says={false}>
        <AskPoint name="from" label="from" input={from} done={() => to.current?.focus()} />
        <AskPoint name="to" label="to" input={to} done={send} />
      </AskForm>
    </section>
  );
}
