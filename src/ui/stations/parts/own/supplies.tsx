"use client";
import type { DraftSupply } from "@/core/parts/own";
import { blankSupply } from "@/core/parts/own/roles";

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

function Fields({
  list,
  supply,
  set,
  problem,
}: {
  list: readonly (readonly [keyof DraftSupply, string, string])[];
  supply: DraftSupply;
  set(s: DraftSupply): void;
  problem(field: string): string | undefined;
}) {
  return (
    <div className="flex flex-wrap gap-x-4 gap-y-2">
      {list.map(([key, label, hint]) => {
        const wrong = problem(`supplies/${supply.key}/${key}`);
        const id = `wrong-${supply.key}-${key}`;
        return (
          <div key={key} className="w-36">
            <label className="block">
              <span className="text-sm text-soft">{label}</span>
              <input
                className="num w-full"
                value={supply[key]}
                placeholder={hint}
                maxLength={60}
                aria-invalid={wrong !== undefined}
                aria-describedby={wrong ? id : undefined}
                onChange={(e) => set({ ...supply, [key]: e.target.value })}
              />
            </label>
            {wrong && (
              <p id={id} className="text-sm font-bold text-stop">
                {wrong}
              </p>
            )}
          </div>
        );
      })}
    </div>
  );
}

/** What the part is fed with, and the thresholds of its signals, as the data sheet prints them. */
export function SuppliesEditor({
  supplies,
  set,
  problem,
}: {
  supplies: DraftSupply[];
  set(s: DraftSupply[]): void;
  problem(field: string): string | undefined;
}) {
  return (
    <>
      {supplies.map((s, i) => (
        <fieldset key={i} className={i ? "mt-3 border-t border-line pt-2" : ""}>
          <legend className="sr-only">Supply {s.key}</legend>
          {supplies.length > 1 && (
            <p className="mb-1 flex items-baseline gap-3 font-bold">
              Supply “{s.key}”
              <button
                className="quiet text-sm font-normal text-soft"
                onClick={() => set(supplies.filter((_, k) => k !== i))}
              >
                take it out
              </button>
            </p>
          )}
          <Fields
            list={POWER}
            supply={s}
            set={(x) => set(supplies.map((y, k) => (k === i ? x : y)))}
            problem={problem}
          />
          <p className="mt-2 text-soft">Signal levels of the pins at this supply</p>
          <Fields
            list={LEVELS}
            supply={s}
            set={(x) => set(supplies.map((y, k) => (k === i ? x : y)))}
            problem={problem}
          />
        </fieldset>
      ))}
      {supplies.length < 4 && (
        <button
          className="quiet mt-2 text-sm"
          onClick={() => {
            const names = ["main", "load", "second", "third", "fourth"];
            set([...supplies, blankSupply(names.find((n) => !supplies.some((s) => s.key === n))!)]);
          }}
        >
          it has another supply (a load supply, a second side)
        </button>
      )}
    </>
  );
}
