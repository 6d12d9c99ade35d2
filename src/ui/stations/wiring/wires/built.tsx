"use client";
import { Fold } from "@/ui/shared/fold";
import { AskForm, AskPoint, AskSelect, useAskForm, type AskFields } from "./ask-form";
import { PartChoice } from "./part-choice";

const KINDS: { value: AskFields["do"]; name: string }[] = [
  { value: "swap", name: "two wires are swapped" },
  { value: "turn", name: "a plug sits the wrong way round" },
  { value: "other row", name: "a part's wires are in the other row" },
];

/** What was built differently: the plan follows, the program with it, and ticks of untouched wires stay. */
export function Built() {
  const ask = useAskForm({ start: { do: "swap" }, says: (did) => `The plan follows: ${did}.` });
  return (
    <Fold className="mt-4" heading title="It is built differently">
      <p className="text-sm text-soft">
        For one wire, say at its row where it really is. The plan, the program and the sheet follow what is built.
      </p>
      <AskForm of={ask} button="So it is built">
        <AskSelect name="do" label="What is so" options={KINDS} />
        {ask.fields.do === "swap" ? (
          <>
            <AskPoint name="from" label="one point" />
            <AskPoint name="to" label="the other" done={ask.send} />
          </>
        ) : (
          <PartChoice label="Part" />
        )}
      </AskForm>
    </Fold>
  );
}
