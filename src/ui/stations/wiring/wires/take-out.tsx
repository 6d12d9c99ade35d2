"use client";
import { Controller } from "react-hook-form";
import { Checkbox } from "@/ui/shared/checkbox";
import { Fold } from "@/ui/shared/fold";
import { AskForm, useAskForm } from "./ask-form";
import { PartChoice } from "./part-choice";

/** Takes a part out of its wires: the gap is closed, or stays. */
export function TakeOut() {
  const ask = useAskForm({ start: { do: "take out" }, says: (did) => `${did}.` });
  return (
    <Fold className="mt-4" heading title="Take a part out of its wires">
      <AskForm of={ask} button="Take it out">
        <PartChoice label="Part that goes" />
        <Controller
          control={ask.form.control}
          name="close"
          render={({ field }) => (
            <Checkbox checked={field.value} onChange={field.onChange}>
              close the gap: join what hung on its two ends
            </Checkbox>
          )}
        />
      </AskForm>
    </Fold>
  );
}
