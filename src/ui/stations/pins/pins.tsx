"use client";
import { useState } from "react";
import { toast } from "sonner";
import { later } from "@/ui/shared/later";
import { StationTitle } from "@/ui/shared/title";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";
import { nextJob } from "./job";
import { Lattice } from "./lattice";

/** Only where pins are open. */
const Clash = later(() => import("./clash").then((m) => m.Clash));
const Others = later(() => import("./others").then((m) => m.Others));
const Diff = later(() => import("./diff").then((m) => m.Diff));

const priceWords = (by: { reason: string; cost: number }[]) =>
  by.length ? ` (${by.map((x) => `${x.reason} ${x.cost}`).join(", ")})` : "";

/** Pins: the lattice of needs and pins, with plan, move and lock. */
export function Pins() {
  const { view, run } = useProject();
  const [busy, setBusy] = useState<number | null>(null);
  const [others, setOthers] = useState(false);
  const plan = () => {
    const job = nextJob();
    setBusy(job);
    void run(async (p) => {
      const r = await core().plan(p, job);
      if (r.status === "stopped") toast("Stopped; nothing was changed.");
      else if (r.clash) toast.error(r.clash, { duration: 15_000 });
      else if (r.leftOpen) toast.warning(r.leftOpen, { duration: 20_000 });
      else
        toast(
          `Planned in ${r.ms.toFixed(0)} ms, ${r.status === "optimal" ? "proven optimal" : "stopped before it was proven the best"}, price ${r.cost}${priceWords(r.costBy)}.${r.added.length ? ` Put in: ${r.added.join("; ")}.` : ""}`,
        );
      return r.clash ? null : r;
    }).finally(() => setBusy(null));
  };
  return (
    <>
      <StationTitle
        name="Pins"
        says={view.open ? `${view.open} pins are open.` : "Every need has its pin. Move one to see what follows."}
      >
        {busy !== null && (
          <button className="btn" onClick={() => void core().drop(busy)}>
            Stop
          </button>
        )}
        <button className="btn" onClick={() => setOthers(true)} disabled={!view.lattices.length || view.open > 0}>
          Other plans…
        </button>
        <button className="btn-main" onClick={plan} disabled={!view.lattices.length || busy !== null}>
          {view.open ? "Plan open pins" : "Plan again"}
        </button>
      </StationTitle>
      <Diff />
      {view.open > 0 && <Clash />}
      {view.lattices.map((l) => (
        <div key={l.host}>
          {view.lattices.length > 1 && (
            <h2 className="mt-4 text-lg">
              {l.host}: {l.hostName}
            </h2>
          )}
          {l.rows.length ? (
            <Lattice view={l} />
          ) : (
            <p className="mt-4">The board is there; no part asks for a pin yet. Add one at Parts.</p>
          )}
        </div>
      ))}
      {!view.lattices.length && (
        <p className="mt-4">No board yet. Choose one at Board: each is tried with your parts list.</p>
      )}
      {others && <Others close={() => setOthers(false)} />}
    </>
  );
}
