"use client";
import { Fragment, useState, type ComponentProps, type ReactNode } from "react";
import { ArrowDown, ArrowUp, ChevronRight } from "lucide-react";
import {
  getCoreRowModel,
  getSortedRowModel,
  useReactTable,
  type ColumnDef,
  type Row as TableRow,
  type SortingState,
} from "@tanstack/react-table";
import { inOrder } from "./order";
import { Hidden } from "@/ui/shared/hidden";

/** What a column's cells look like, beside what they hold. */
export interface ColumnLook<T = unknown> {
  className?: string | ((row: T) => string);
}

/** A column, said in short: what stands above it, what it shows, and what it sorts by, if it does. */
export interface Col<T> {
  head: ReactNode;
  show(row: T): ReactNode;
  by?(row: T): string | number;
  look?: string | ((row: T) => string);
}

/** Columns for a table from what is said of them in short; `false` for one that is not there this time. */
export const columnsOf = <T,>(list: readonly (Col<T> | false)[]): ColumnDef<T>[] =>
  list.flatMap((c, i) =>
    c
      ? {
          id: String(i),
          header: () => c.head,
          enableSorting: c.by !== undefined,
          ...(c.by && { accessorFn: c.by }),
          cell: ({ row }) => c.show(row.original),
          ...(c.look !== undefined && { meta: { className: c.look } satisfies ColumnLook<T> }),
        }
      : [],
  );

/**
 * What a column draws, called and not mounted: a column that is stated anew at every drawing would be a new component each
 * time, its buttons taken out and put in again under a press.
 */
function drawn<C>(draw: unknown, context: C): ReactNode {
  return typeof draw === "function" ? (draw as (c: C) => ReactNode)(context) : (draw as ReactNode);
}

/** Of a column's look, what holds for its head too: how wide, and to which side. */
const headLook = (look: string) =>
  look
    .split(" ")
    .filter((c) => /^(text-right|min-w-|w-)/.test(c))
    .join(" ");

/** Rows by what a column holds. */
export const byOrder = <T,>(a: TableRow<T>, b: TableRow<T>, column: string): number =>
  inOrder(a.getValue(column), b.getValue(column));

export const sortWord = { asc: "ascending", desc: "descending" } as const;

/**
 * A table that sorts by its heads (a third press brings the given order back), and whose rows open for details: one line each
 * until then. `open`: what stands below a row; none: rows do not open.
 */
export function Table<T>({
  label,
  columns,
  rows,
  rowId,
  testId,
  open,
  row,
  tableId,
  className = "",
}: {
  label: string;
  columns: ColumnDef<T>[];
  rows: T[];
  rowId(row: T): string;
  testId?(row: T): string;
  open?: { says(row: T): string; show(row: T): ReactNode };
  /** What a row does besides: lights up, is picked. */
  row?(row: T): ComponentProps<"tr">;
  tableId?: string;
  className?: string;
}) {
  const [sorting, setSorting] = useState<SortingState>([]);
  const [shown, setShown] = useState<ReadonlySet<string>>(new Set());
  const table = useReactTable({
    data: rows,
    columns,
    defaultColumn: { sortingFn: byOrder },
    state: { sorting },
    onSortingChange: setSorting,
    // Rows that are stated anew at every drawing must not set anything back, or it would be drawn for ever.
    autoResetAll: false,
    getRowId: rowId,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
  });
  const look = (meta: unknown, of?: T) => {
    const c = (meta as ColumnLook<T> | undefined)?.className ?? "";
    return typeof c === "string" ? c : of === undefined ? "" : c(of);
  };
  const turn = (id: string) =>
    setShown((s) => {
      const next = new Set(s);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  return (
    <div className="overflow-x-auto">
      <table className={`plain ${className}`} aria-label={label} data-testid={tableId}>
        <thead>
          <tr>
            {open && (
              <th className="w-6">
                <Hidden>Details</Hidden>
              </th>
            )}
            {table.getFlatHeaders().map((h) => {
              const by = h.column.getIsSorted();
              const head = drawn(h.column.columnDef.header, h.getContext());
              return (
                <th
                  key={h.id}
                  className={headLook(look(h.column.columnDef.meta))}
                  aria-sort={by ? sortWord[by] : undefined}
                >
                  {h.column.getCanSort() ? (
                    <button
                      className="inline-flex items-center gap-1 hover:text-ink"
                      onClick={h.column.getToggleSortingHandler()}
                    >
                      {head}
                      {by === "asc" && <ArrowUp size={14} aria-hidden />}
                      {by === "desc" && <ArrowDown size={14} aria-hidden />}
                    </button>
                  ) : (
                    head
                  )}
                </th>
              );
            })}
          </tr>
        </thead>
        <tbody>
          {table.getRowModel().rows.map((r) => (
            <Fragment key={r.id}>
              <tr data-testid={testId?.(r.original)} {...row?.(r.original)}>
                {open && (
                  <td>
                    <button
                      aria-expanded={shown.has(r.id)}
                      aria-label={open.says(r.original)}
                      className="p-0.5"
                      onClick={() => turn(r.id)}
                    >
                      <ChevronRight size={16} aria-hidden className={shown.has(r.id) ? "rotate-90" : ""} />
                    </button>
                  </td>
                )}
                {r.getVisibleCells().map((cell) => (
                  <td key={cell.id} className={look(cell.column.columnDef.meta, r.original)}>
                    {drawn(cell.column.columnDef.cell, cell.getContext())}
                  </td>
                ))}
              </tr>
              {open && shown.has(r.id) && (
                <tr>
                  <td />
                  <td colSpan={r.getVisibleCells().length}>{open.show(r.original)}</td>
                </tr>
              )}
            </Fragment>
          ))}
        </tbody>
      </table>
    </div>
  );
}
