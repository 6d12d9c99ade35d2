import { memo } from "react";
import { isLaid, type RunRow } from "@/core/build/runsheet/row";
import { Place } from "@/ui/shared/place";
import { Tick } from "@/ui/shared/tick";
import { Elsewhere } from "./wires/elsewhere";
import { Swatch } from "@/ui/shared/wire-colours";
import { Label } from "@/ui/shared/label";

/** A rail or a splice says everything by its name. */
const isPlace = (words: string) => /(rail \([+−]\)|splice|bus strip|bus wire|island|row)( \d+)?$/.test(words);
export const isWork = (r: RunRow) => r.kind === "look" || r.kind === "solder" || r.kind === "turn";
export const wireWords = (r: RunRow) =>
  r.kind === "cable"
    ? "cable"
    : r.kind === "leg"
      ? "its own leg, no wire"
      : `${r.length_cm} cm, ${r.endA} to ${r.endB}${r.awg && r.awg < 26 ? `, ${r.awg} AWG` : ""}`;

/** One step of the run sheet: a large tick, what goes where, and, when it is the current one, why and what to check. */
export const Row = memo(function Row({
  row,
  on,
  done,
  pick,
  tick,
}: {
  row: RunRow;
  on: boolean;
  done: boolean;
  pick(id: string): void;
  tick(id: string, v: boolean): void;
}) {
  return (
    <div className={`flex flex-wrap items-stretch border-b border-line ${on ? "bg-wash" : ""}`} data-testid="run-row">
      <Label className="flex w-12 shrink-0 items-center justify-center">
        <Tick checked={done} says={`Step ${row.step} done`} change={(v) => tick(row.id, v)} />
      </Label>
      <button
        className={`min-w-0 flex-1 py-1.5 pr-2 text-left ${done ? "text-soft" : ""}`}
        onClick={() => pick(row.id)}
        aria-pressed={on}
      >
        <span className="num mr-2 text-soft">{row.step}</span>
        {isWork(row) ? (
          row.note
        ) : (
          <>
            {row.colour && (
              <span className="mr-2 inline-flex items-center gap-1">
                <Swatch colour={row.colour} />
                {row.colour}
              </span>
            )}
            <strong data-place={row.net}>{row.net}</strong>
            <span className="block">
              <span className="num" data-place={row.from}>
                {row.from}
              </span>{" "}
              <span className="text-soft">to</span>{" "}
              <span className="num" data-place={row.to}>
                {row.to}
              </span>
              <span className="num float-right text-sm text-soft">{wireWords(row)}</span>
            </span>
            <span className="block text-sm text-soft">
              {[row.fromWords, row.toWords].filter((w) => !isPlace(w)).join(" → ")}
            </span>
          </>
        )}
        {on && (
          <span className="mt-1 block text-sm" data-testid="run-why">
            {row.note && !isWork(row) && <span className="block">{row.note}.</span>}
            <span className="block">
              <strong>Now, because</strong> {row.why.charAt(0).toLowerCase() + row.why.slice(1)}
            </span>
            <span className="block">
              <strong>Before going on:</strong> {row.check.charAt(0).toLowerCase() + row.check.slice(1)}
            </span>
          </span>
        )}
      </button>
      {on && !isWork(row) && (
        <p className="flex w-full flex-wrap gap-x-4 pb-1 pl-12 text-sm text-soft">
          What is it?
          {[row.net, row.from, row.to]
            .filter((p) => p && !isPlace(p))
            .map((p) => (
              <Place key={p} of={p} className="num underline" />
            ))}
        </p>
      )}
      {on && isLaid(row) && <Elsewhere row={row} />}
    </div>
  );
});
