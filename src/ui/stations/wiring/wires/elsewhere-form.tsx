"use client";
import { useCallback } from "react";
import type { RunRow } from "@/core/build/runsheet/row";
import { AskForm, AskPoint, AskSelect, useAskForm, type AskFields } from "./ask-form";

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
      <AskSelect
        name="to"
        label="The end that is elsewhere"
        options={[row.to, row.from].map((end) => ({ value: end, name: end }))}
      />
      <AskPoint name="really" label="it is really at" />
    </AskForm>
  );
}
