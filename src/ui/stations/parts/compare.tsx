"use client";
import { useEffect, useState } from "react";
import type { Part } from "@/core/parts/catalogue";
import type { CompareRow } from "@/core/parts/catalogue";
import { Sheet } from "@/ui/shared/dialog";
import { core } from "@/ui/state/core";
import { Switch } from "@/ui/shared/switch";
import { Hidden } from "@/ui/shared/hidden";

/** Up to four parts side by side; rows that differ are the ones that decide. */
export function Compare({
  ids,
  own,
  add,
  drop,
  close,
}: {
  ids: string[];
  own: readonly Part[];
  add(id: string): void;
  drop(id: string): void;
  close(): void;
}) {
  const [table, setTable] = useState<{ names: string[]; rows: CompareRow[] } | null>(null);
  const [all, setAll] = useState(true);
  const key = ids.join();
  useEffect(() => {
    void core().compare(key.split(","), own).then(setTable);
  }, [key, own]);
  const rows = table?.rows.filter((r) => all || r.differs) ?? [];
  return (
    <Sheet title="Side by side" close={close} wide>
      {table && (
        <>
          <Switch className="mt-1 text-sm" on={!all} turn={(on) => setAll(!on)}>
            only what differs
          </Switch>
          <table className="plain mt-2" data-testid="compare">
            <thead>
              <tr>
                <th>
                  <Hidden>what</Hidden>
                </th>
                {table.names.map((n, i) => (
                  <th key={ids[i]} className="whitespace-normal! text-ink! font-bold!">
                    {n}
                    <span className="mt-1 flex gap-3 text-sm font-normal">
                      <button className="quiet" onClick={() => add(ids[i]!)}>
                        add
                      </button>
                      <button className="quiet" onClick={() => drop(ids[i]!)} aria-label={`Leave out ${n}`}>
                        leave out
                      </button>
                    </span>
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map((r) => (
                <tr key={r.what}>
                  <td className="text-soft">{r.what}</td>
                  {r.cells.map((c, i) => (
                    <td key={i} className={r.differs ? "" : "text-soft"}>
                      {c}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </Sheet>
  );
}
