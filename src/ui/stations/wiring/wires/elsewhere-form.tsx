"use client";
import { useCallback } from "react";
import { Controller } from "react-hook-form";
import type { RunRow } from "@/core/build/runsheet/row";
import { Select } from "@/ui/shared/select";
import { AskForm, AskPoint, useAskForm, type AskFields } from "./ask-form";

/** Which end of a planned wire is elsewhere, and where. */
export function ElsewhereForm({ row, close }: { row: RunRow; close(): void }) {
  // `to` is the end that is elsewhere; the other one stays.
  const asked = useCallback(
    (f: AskFields) => ({ ...f, from: f.to === row.to ? row.from : row.to }),
    [row.from, row.to],
  );
  const ask = useAskForm({
    start: { do: "really", to: row.to },
    ask: asked,
    says: (did) => `The plan follows: ${did}.`,
    after: close,
  });
  return (
    <AskForm of={ask} button="It is there" leave={close}>
      <Controller
        control={ask.form.control}
        name="to"
        render={({ field }) => (
          <label className="text-sm">
            The end that is elsewhere
            <Select
              label="The end that is elsewhere"
              className="flex!"
              value={field.value}
              options={[row.to, row.from].map((end) => ({ value: end, name: end }))}
              onChange={field.onChange}
            />
          </label>
        )}
      />
      <AskPoint name="really" label="it is really at" />
    </AskForm>
  );
}
