"use client";
import { useEffect, useState } from "react";
import type { Alternative } from "@/core/plan/assign";
import { columnsOf, Table } from "@/ui/shared/table";
import { Sheet } from "@/ui/shared/dialog";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";
import { Hidden } from "@/ui/shared/hidden";

const HOW_MANY = 5;

/** The best plans that really differ, side by side with the cheapest. */
export function Others({ close }: { close(): void }) {
  const { project, run } = useProject();
  const [list, setList] = useState<Alternative[] | null>(null);
  useEffect(() => {
    let gone = false;
    void core()
      .alternatives(project, HOW_MANY)
      .then((l) => !gone && setList(l));
    return () => {
      gone = true;
    };
  }, [project]);
  const take = (a: Alternative) => {
    void run((p) => (p === project ? core().take(a.project, "another plan") : Promise.resolve(null)));
    close();
  };
  return (
    <Sheet title="Other good plans" close={close} wide>
      <p className="mt-1 text-soft">
        The plans with the lowest price that differ in more than a swap of alike parts. Prices count hazards, rare pins
        spent, moved wires and the like.
      </p>
      {!list && <p className="mt-3">Looking…</p>}
      {list && (
        <Table
          label="Other plans"
          className="mt-3"
          rows={list}
          rowId={(a) => String(list.indexOf(a))}
          columns={columnsOf<Alternative>([
            { head: "Price", by: (a) => a.cost, show: (a) => `${a.cost}${a.more ? ` (+${a.more})` : ""}`, look: "num" },
            {
              head: "Differs from the cheapest",
              show: (a) =>
                a === list[0]
                  ? "the cheapest"
                  : a.differs.map((m) => `${m.need}: ${m.to} instead of ${m.from}`).join(", "),
            },
            {
              head: <Hidden>Take</Hidden>,
              look: "text-right",
              show: (a) => (
                <button className="btn" onClick={() => take(a)} aria-label={`Take it: plan ${list.indexOf(a) + 1}`}>
                  Take it
                </button>
              ),
            },
          ])}
        />
      )}
    </Sheet>
  );
}
