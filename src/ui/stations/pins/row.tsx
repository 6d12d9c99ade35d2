import { memo } from "react";
import type { LatticeColumn, LatticeRow, LatticeView } from "@/core/plan/assign";
import { cellOf } from "@/core/plan/assign/cell";
import { STATES } from "./states";

/** A column with its place in the view's list of all pins. */
export interface Shown {
  c: LatticeColumn;
  i: number;
  /** Begins a header. */
  first: boolean;
}

/** The columns that are drawn: from the first, before the second. */
export interface Range {
  from: number;
  to: number;
}

/** The pin's name in the project: the label on the board, the endpoint behind another part. */
export const pinName = (view: Pick<LatticeView, "host">, c: Pick<LatticeColumn, "end" | "pin">) =>
  c.end.startsWith(`${view.host}.`) ? c.pin : c.end;

function LatticeRowView({
  view,
  r,
  ri,
  shown,
  range,
  top,
  mark,
  landing,
  measure,
}: {
  view: LatticeView;
  r: LatticeRow;
  ri: number;
  shown: readonly Shown[];
  range: Range;
  /** First row of its part. */
  top: boolean;
  /** The marked column, -1 when the mark is elsewhere. */
  mark: number;
  /** Endpoint where this need would land. */
  landing: string | null;
  measure: ((node: Element | null) => void) | undefined;
}) {
  const name = r.at && (r.at.startsWith(`${view.host}.`) ? r.at.slice(view.host.length + 1) : r.at);
  return (
    <tr ref={measure} data-index={ri} className={top ? "top" : ""}>
      <th scope="row" className="sticky left-0 z-10 pr-2 text-left font-normal whitespace-nowrap">
        <span className="flex w-56 items-baseline">
          <span className={`w-28 shrink-0 truncate font-bold ${top ? "" : "opacity-0"}`} data-place={r.ref}>
            {r.part}
          </span>
          <span className="num grow" data-place={r.id}>
            {r.pin}
          </span>
          <span
            className={`pl-3 ${r.at ? "num text-accent" : r.idle ? "text-sm text-soft" : "num font-bold text-fault"}`}
          >
            {name ?? (r.idle ? "optional" : "open")}
          </span>
        </span>
      </th>
      {range.from > 0 && <td colSpan={range.from} aria-hidden />}
      {shown.slice(range.from, range.to).map(({ c, i, first }, n) => {
        const k = range.from + n;
        const x = cellOf(view, r, i);
        const pin = pinName(view, c);
        return (
          <td
            key={c.end}
            role="gridcell"
            aria-colindex={k + 1}
            data-at={`${ri}-${k}`}
            data-cell={`${r.id}|${pin}`}
            data-state={x.state}
            tabIndex={mark === k ? 0 : -1}
            aria-label={`${r.part} ${r.pin}, pin ${pin}: ${STATES[x.state]}. ${x.why}`}
            className={`${first ? "edge" : ""} ${landing === c.end ? "landing" : ""}`}
          />
        );
      })}
      {range.to < shown.length && <td colSpan={shown.length - range.to} aria-hidden />}
    </tr>
  );
}

type Props = Parameters<typeof LatticeRowView>[0];
/** Sentences are only added to the view's list, until it begins anew, shorter: a row that did not change reads the same ones. */
const same = (a: Props, b: Props) =>
  a.view.says.length <= b.view.says.length &&
  a.r === b.r &&
  a.view.host === b.view.host &&
  a.ri === b.ri &&
  a.shown === b.shown &&
  a.range === b.range &&
  a.top === b.top &&
  a.mark === b.mark &&
  a.landing === b.landing &&
  a.measure === b.measure;

/**
 * One need of the lattice. Drawn again only when it changes or the mark enters or leaves it: a lattice of 60 × 70 has 4,200
 * crossings.
 */
export const Row = memo(LatticeRowView, same);
