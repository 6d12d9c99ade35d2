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

/** The pin's name in the project: the label on the board, the endpoint behind another part. */
export const pinName = (view: Pick<LatticeView, "host">, c: Pick<LatticeColumn, "end" | "pin">) =>
  c.end.startsWith(`${view.host}.`) ? c.pin : c.end;

/**
 * One need of the lattice. Drawn again only when it changes or the mark enters or leaves it: a lattice of 60 × 70 has 4,200
 * crossings.
 */
export const Row = memo(function Row({
  view,
  r,
  ri,
  shown,
  top,
  mark,
  landing,
}: {
  view: LatticeView;
  r: LatticeRow;
  ri: number;
  shown: readonly Shown[];
  /** First row of its part. */
  top: boolean;
  /** The marked column, -1 when the mark is elsewhere. */
  mark: number;
  /** Endpoint where this need would land. */
  landing: string | null;
}) {
  const name = r.at && (r.at.startsWith(`${view.host}.`) ? r.at.slice(view.host.length + 1) : r.at);
  return (
    <tr className={top ? "top" : ""}>
      <th scope="row" className="sticky left-0 z-10 pr-3 text-left font-normal whitespace-nowrap">
        <span className="flex w-58 items-baseline">
          <span className={`w-28 shrink-0 truncate font-bold ${top ? "" : "opacity-0"}`}>{r.part}</span>
          <span className="num grow">{r.pin}</span>
          <span className={`num pl-3 ${r.at ? "text-accent" : r.idle ? "text-soft" : "font-bold text-fault"}`}>
            {name ?? (r.idle ? "optional" : "open")}
          </span>
        </span>
      </th>
      {shown.map(({ c, i, first }, k) => {
        const x = cellOf(view, r, i);
        const pin = pinName(view, c);
        return (
          <td
            key={c.end}
            role="gridcell"
            data-at={`${ri}-${k}`}
            data-cell={`${r.id}|${pin}`}
            data-state={x.state}
            tabIndex={mark === k ? 0 : -1}
            aria-label={`${r.part} ${r.pin}, pin ${pin}: ${STATES[x.state]}. ${x.why}`}
            className={`${first ? "edge" : ""} ${landing === c.end ? "landing" : ""}`}
          />
        );
      })}
    </tr>
  );
});
