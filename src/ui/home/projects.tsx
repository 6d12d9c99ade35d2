"use client";
import { useMemo, useState } from "react";
import Link from "next/link";
import type { ColumnDef } from "@tanstack/react-table";
import type { Glance } from "@/core/glance";
import { STATIONS } from "@/ui/stations/list";
import { Table } from "@/ui/shared/table";
import { when } from "@/ui/shared/when";
import { useGlances } from "./glance";
import { Hidden } from "@/ui/shared/hidden";

export interface Row {
  id: string;
  title: string;
  version: number;
  updated_at: string;
}
/** So many are shown and looked at on one page. */
const SHOWN = 60;

const LEVEL: Record<Glance["verdict"]["level"], { rank: number; className: string }> = {
  stop: { rank: 0, className: "text-stop font-bold" },
  fault: { rank: 1, className: "text-fault font-bold" },
  wrong: { rank: 2, className: "text-fault font-bold" },
  open: { rank: 3, className: "" },
  empty: { rank: 4, className: "text-soft" },
  risk: { rank: 5, className: "text-risk" },
  ready: { rank: 6, className: "text-good font-bold" },
  works: { rank: 7, className: "text-good font-bold" },
};
const share = ([n, all]: [number, number]) => (all ? n / all : -1);
const nameOf = (id: string) => STATIONS.find((s) => s.id === id)?.name ?? id;

const columns = (
  glances: ReadonlyMap<string, Glance>,
  o: { copy(r: Row): void; remove(r: Row): void },
): ColumnDef<Row>[] => [
  {
    header: "Project",
    accessorKey: "title",
    cell: ({ row: { original: r } }) => (
      <Link href={`/p/${r.id}/parts`} className="text-lg hover:text-accent">
        {r.title}
      </Link>
    ),
  },
  {
    header: "How it stands",
    accessorFn: (r) => {
      const g = glances.get(r.id);
      return g ? LEVEL[g.verdict.level].rank : 9;
    },
    cell: ({ row: { original: r } }) => {
      const g = glances.get(r.id);
      return g ? <span className={LEVEL[g.verdict.level].className}>{g.verdict.words}</span> : "…";
    },
  },
  {
    header: "Goes on at",
    accessorFn: (r) => STATIONS.findIndex((s) => s.id === glances.get(r.id)?.at),
    cell: ({ row: { original: r } }) => {
      const g = glances.get(r.id);
      return g ? (
        <Link className="quiet" href={`/p/${r.id}/${g.at}`}>
          {nameOf(g.at)}
        </Link>
      ) : (
        ""
      );
    },
  },
  {
    header: "Parts",
    accessorFn: (r) => glances.get(r.id)?.parts ?? -1,
    meta: { className: "num text-right" },
    cell: ({ row: { original: r } }) => glances.get(r.id)?.parts ?? "",
  },
  ...(["wired", "checked"] as const).map((key): ColumnDef<Row> => ({
    id: key,
    header: key === "wired" ? "Wired" : "Checked",
    accessorFn: (r) => share(glances.get(r.id)?.[key] ?? [0, 0]),
    meta: { className: "num text-right" },
    cell: ({ row: { original: r } }) => {
      const [n, all] = glances.get(r.id)?.[key] ?? [0, 0];
      return all ? `${Math.floor((n / all) * 100)} %` : "";
    },
  })),
  {
    header: "Changed",
    accessorKey: "updated_at",
    sortDescFirst: true,
    cell: ({ row: { original: r } }) => (
      <span className="text-sm whitespace-nowrap text-soft">{when(r.updated_at)}</span>
    ),
  },
  {
    id: "do",
    header: () => <Hidden>Do</Hidden>,
    enableSorting: false,
    meta: { className: "text-right whitespace-nowrap" },
    cell: ({ row: { original: r } }) => (
      <span className="space-x-3 text-sm text-soft">
        <button className="quiet" onClick={() => o.copy(r)} aria-label={`Duplicate ${r.title}`}>
          duplicate
        </button>
        <button className="quiet" onClick={() => o.remove(r)} aria-label={`Delete ${r.title}`}>
          delete
        </button>
      </span>
    ),
  },
];

/** All projects of this machine: how each stands and how far it got; sorted by any column, narrowed by words. */
export function Projects({ rows, copy, remove }: { rows: Row[] | null; copy(r: Row): void; remove(r: Row): void }) {
  const [filter, setFilter] = useState("");
  const wanted = useMemo(
    () => (rows ?? []).filter((r) => r.title.toLowerCase().includes(filter.trim().toLowerCase())),
    [rows, filter],
  );
  const [page, setPage] = useState(0);
  const pages = Math.max(1, Math.ceil(wanted.length / SHOWN));
  const at = Math.min(page, pages - 1);
  const shown = useMemo(() => wanted.slice(at * SHOWN, (at + 1) * SHOWN), [wanted, at]);
  const glances = useGlances(shown);
  return (
    <>
      <div className="mt-8 flex items-end justify-between border-b border-ink pb-1">
        <h2 className="text-xl">Projects</h2>
        {(rows?.length ?? 0) > 2 && (
          <input
            aria-label="Filter projects"
            placeholder="filter"
            value={filter}
            onChange={(e) => {
              setFilter(e.target.value);
              setPage(0);
            }}
          />
        )}
      </div>
      {rows?.length === 0 ? (
        <p className="py-4 text-soft">No projects yet. Give one a name above: the first parts take a minute.</p>
      ) : (
        <Table label="Projects" columns={columns(glances, { copy, remove })} rows={shown} rowId={(r) => r.id} />
      )}
      {rows !== null && rows.length > 0 && !wanted.length && <p className="py-3">No project has that in its name.</p>}
      {pages > 1 && (
        <nav aria-label="Pages of projects" className="mt-2 flex flex-wrap items-center gap-3">
          <button className="btn" disabled={at === 0} onClick={() => setPage(at - 1)}>
            Later changed
          </button>
          <span className="num text-soft" role="status">
            {at * SHOWN + 1} to {Math.min(wanted.length, (at + 1) * SHOWN)} of {wanted.length}
          </span>
          <button className="btn" disabled={at === pages - 1} onClick={() => setPage(at + 1)}>
            Earlier changed
          </button>
        </nav>
      )}
    </>
  );
}
