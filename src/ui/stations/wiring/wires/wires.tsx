"use client";
import {
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  useReactTable,
  type ColumnDef,
  type FilterFn,
  type SortingState,
} from "@tanstack/react-table";
import { useRef } from "react";
import { byOrder, sortWord } from "@/ui/shared/table";
import { InView, useVirtualRows } from "@/ui/shared/virtual";
import { useKept } from "@/ui/state/kept";
import { useSearchParams } from "next/navigation";
import type { HandWire } from "@/core/wires";
import type { Project } from "@/core/project";
import { USUAL_COLOURS } from "@/core/build/colours";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";
import { useCore } from "../use-core";
import { Built } from "./built";
import { Given } from "./given";
import { Join } from "./join";
import { TakeOut } from "./take-out";
import { WireRow } from "./wire-row";
import { Folds } from "@/ui/shared/fold";
import { Label } from "@/ui/shared/label";

const ask = (p: Project) => core().wireTable(p);

const COLUMNS: ColumnDef<HandWire>[] = [
  { accessorKey: "from", header: "from" },
  { accessorKey: "to", header: "to" },
  { accessorKey: "net", header: "net, for" },
  { accessorKey: "by", header: "made" },
  { id: "locked", accessorFn: (w) => Number(w.locked), header: "kept" },
  { id: "cm", accessorFn: (w) => w.cm ?? -1, header: "cm" },
  { id: "awg", accessorFn: (w) => w.awg ?? -1, header: "gauge" },
  { accessorKey: "colour", header: "colour" },
];
const ROW_PX = 48;
const byWords: FilterFn<HandWire> = (row, _column, filter: string) => {
  const w = row.original;
  const text = `${w.from} ${w.to} ${w.fromLabel} ${w.toLabel} ${w.net} ${w.why}`.toLowerCase();
  return filter
    .toLowerCase()
    .split(/\s+/)
    .every((x) => text.includes(x));
};
const NONE: HandWire[] = [];

/** Every wire in one table, made, changed and cut by hand. */
export function Wires() {
  const { project } = useProject();
  const list = useCore(ask);
  const start = useSearchParams().get("from") ?? "";
  const [sorting, setSorting] = useKept<SortingState>("wires sorted", []);
  const [filter, setFilter] = useKept("wires filter", "");
  const table = useReactTable({
    data: list ?? NONE,
    columns: COLUMNS,
    defaultColumn: { sortingFn: byOrder },
    state: { sorting, globalFilter: filter.trim() },
    onSortingChange: setSorting,
    globalFilterFn: byWords,
    getColumnCanGlobalFilter: () => true,
    getRowId: (w) => `${w.from} ${w.to}`,
    getCoreRowModel: getCoreRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
    getSortedRowModel: getSortedRowModel(),
  });
  const { rows } = table.getRowModel();
  const body = useRef<HTMLTableSectionElement>(null);
  const inView = useVirtualRows(body, rows.length, ROW_PX, { keyOf: (i) => rows[i]!.id });
  const colours = project.houseRules.wireColours ?? USUAL_COLOURS;
  return (
    <>
      <Join start={start} />
      <section aria-label="All wires" className="mt-4">
        <div className="flex flex-wrap items-end justify-between gap-3">
          <h2 className="text-lg">
            All wires <span className="num text-sm font-normal">{list?.length ?? 0}</span>
          </h2>
          <Label className="text-sm">
            Filter by part, pin or net{" "}
            <input value={filter} maxLength={60} onChange={(e) => setFilter(e.target.value)} />
          </Label>
        </div>
        {list && !list.length ? (
          <p className="mt-1">No wire yet. Join two points above, or let the pins be planned.</p>
        ) : (
          <table className="plain w-full">
            <thead>
              <tr>
                {table.getFlatHeaders().map((h) => {
                  const by = h.column.getIsSorted();
                  return (
                    <th key={h.id} aria-sort={by ? sortWord[by] : "none"}>
                      <button className="quiet font-bold" onClick={h.column.getToggleSortingHandler()}>
                        {h.column.columnDef.header as string}
                        {by && <span aria-hidden>{by === "desc" ? " ↓" : " ↑"}</span>}
                      </button>
                    </th>
                  );
                })}
                <th>change</th>
              </tr>
            </thead>
            <tbody ref={body}>
              <InView rows={inView} as="tr">
                {(i) => {
                  const r = rows[i]!;
                  return <WireRow key={r.id} w={r.original} colours={colours} index={i} measure={inView.measure} />;
                }}
              </InView>
            </tbody>
          </table>
        )}
        {list && list.length > 0 && !rows.length && <p className="text-soft">No wire fits the filter.</p>}
        <p className="mt-1 text-sm text-soft">
          Delete cuts the chosen row. Bold: said of this wire alone; otherwise length and gauge are its part&apos;s, the
          colour its net&apos;s.
        </p>
      </section>
      <Folds>
        <TakeOut />
        <Built />
        <Given />
      </Folds>
    </>
  );
}
