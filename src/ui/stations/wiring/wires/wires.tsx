"use client";
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

const ask = (p: Project) => core().wireTable(p);

type Column = "from" | "to" | "net" | "by" | "locked" | "cm" | "awg" | "colour";
const COLUMNS: { id: Column; name: string }[] = [
  { id: "from", name: "from" },
  { id: "to", name: "to" },
  { id: "net", name: "net, for" },
  { id: "by", name: "made" },
  { id: "locked", name: "kept" },
  { id: "cm", name: "cm" },
  { id: "awg", name: "gauge" },
  { id: "colour", name: "colour" },
];

const compare = (a: HandWire, b: HandWire, by: Column) => {
  const [x, y] = [a[by], b[by]];
  return typeof x === "string" && typeof y === "string"
    ? x.localeCompare(y, "en", { numeric: true })
    : Number(x ?? -1) - Number(y ?? -1);
};

/** Every wire in one table, made, changed and cut by hand. */
export function Wires() {
  const { project } = useProject();
  const list = useCore(ask);
  const start = useSearchParams().get("from") ?? "";
  const [sort, setSort] = useKept<{ by: Column; down: boolean } | null>("wires sort", null);
  const [filter, setFilter] = useKept("wires filter", "");
  const words = filter.toLowerCase().split(/\s+/).filter(Boolean);
  const text = (w: HandWire) => `${w.from} ${w.to} ${w.fromLabel} ${w.toLabel} ${w.net} ${w.why}`.toLowerCase();
  const shown = (list ?? []).filter((w) => words.every((x) => text(w).includes(x)));
  const rows = sort ? [...shown].sort((a, b) => compare(a, b, sort.by) * (sort.down ? -1 : 1)) : shown;
  const colours = project.houseRules.wireColours ?? USUAL_COLOURS;
  return (
    <>
      <Join start={start} />
      <section aria-label="All wires" className="mt-4">
        <div className="flex flex-wrap items-end justify-between gap-3">
          <h2 className="text-lg">
            All wires <span className="num text-sm font-normal">{list?.length ?? 0}</span>
          </h2>
          <label className="text-sm">
            Filter by part, pin or net{" "}
            <input value={filter} maxLength={60} onChange={(e) => setFilter(e.target.value)} />
          </label>
        </div>
        {list && !list.length ? (
          <p className="mt-1">No wire yet. Join two points above, or let the pins be planned.</p>
        ) : (
          <table className="plain w-full">
            <thead>
              <tr>
                {COLUMNS.map((c) => (
                  <th key={c.id} aria-sort={sort?.by === c.id ? (sort.down ? "descending" : "ascending") : "none"}>
                    <button
                      className="quiet font-bold"
                      onClick={() =>
                        setSort((s) =>
                          s?.by === c.id ? (s.down ? null : { by: c.id, down: true }) : { by: c.id, down: false },
                        )
                      }
                    >
                      {c.name}
                      {sort?.by === c.id && <span aria-hidden>{sort.down ? " ↓" : " ↑"}</span>}
                    </button>
                  </th>
                ))}
                <th>change</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((w) => (
                <WireRow key={`${w.from} ${w.to}`} w={w} colours={colours} />
              ))}
            </tbody>
          </table>
        )}
        {list && list.length > 0 && !rows.length && <p className="text-soft">No wire fits the filter.</p>}
        <p className="mt-1 text-sm text-soft">
          Delete cuts the chosen row. Bold: said of this wire alone; otherwise length and gauge are its part&apos;s, the
          colour its net&apos;s.
        </p>
      </section>
      <TakeOut />
      <Built />
      <Given />
    </>
  );
}
