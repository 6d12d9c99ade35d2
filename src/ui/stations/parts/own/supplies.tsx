"use client";
import { useFieldArray, useFormContext } from "react-hook-form";
import type { OwnDraft } from "@/core/parts/own";
import { blankSupply } from "@/core/parts/own/roles";
import { FeedsEditor } from "./beside";
import { Field } from "./field";
import { Tick } from "./rows";
import { Hidden } from "@/ui/shared/hidden";

const POWER = [
  ["V", "Supply range", "2.7 to 5.5 V"],
  ["idle", "Idle current", "2 µA"],
  ["typ", "Typical current", "5 mA"],
  ["peak", "Largest current", "12 mA"],
  ["absMax", "Absolute maximum", "6 V"],
] as const;
const LEVELS = [
  ["VIH", "VIH: a high from", "0.7*VDD"],
  ["VIL", "VIL: a low up to", "0.3*VDD"],
  ["VOH", "VOH: drives at least", "VDD-0.4"],
  ["VOL", "VOL: drives at most", "0.4 V"],
  ["top", "Most on a signal pin", "VDD+0.3"],
  ["pin_mA", "Current of a pin", "4 mA"],
] as const;

/** What the part is fed with, and the thresholds of its signals, as the data sheet prints them. */
export function SuppliesEditor({ problem }: { problem(field: string): string | undefined }) {
  const { control } = useFormContext<OwnDraft>();
  const { fields, append, remove } = useFieldArray({ control, name: "supplies" });
  const row = (i: number, key: string, list: typeof POWER | typeof LEVELS) => (
    <div className="flex flex-wrap gap-x-4 gap-y-2">
      {list.map(([field, label, hint]) => (
        <Field
          key={field}
          name={`supplies.${i}.${field}`}
          label={label}
          hint={hint}
          wrong={problem(`supplies/${key}/${field}`)}
          num
          maxLength={60}
          className="w-36"
        />
      ))}
    </div>
  );
  return (
    <>
      {fields.map((s, i) => (
        <fieldset key={s.id} className={i ? "mt-3 border-t border-line pt-2" : ""}>
          <legend>
            <Hidden>Supply {s.key}</Hidden>
          </legend>
          {fields.length > 1 && (
            <p className="mb-1 flex items-baseline gap-3 font-bold">
              Supply “{s.key}”
              <button className="quiet text-sm font-normal text-soft" onClick={() => remove(i)}>
                take it out
              </button>
            </p>
          )}
          {row(i, s.key, POWER)}
          <div className="mt-1">
            <Tick name={`supplies.${i}.forLoads`}>motors, coils, heaters or many lights hang on it</Tick>
          </div>
          <p className="mt-2 text-soft">Signal levels of the pins at this supply</p>
          {row(i, s.key, LEVELS)}
        </fieldset>
      ))}
      {fields.length < 4 && (
        <button
          className="quiet mt-2 text-sm"
          onClick={() => {
            const names = ["main", "load", "second", "third", "fourth"];
            append(blankSupply(names.find((n) => !fields.some((s) => s.key === n))!), { shouldFocus: false });
          }}
        >
          it has another supply (a load supply, a second side, an inner one behind a regulator)
        </button>
      )}
      <FeedsEditor problem={problem} />
    </>
  );
}
