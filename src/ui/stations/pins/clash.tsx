"use client";
import Link from "next/link";
import { useEffect, useRef, useState } from "react";
import { toast } from "sonner";
import type { Remedy } from "@/core/plan/advice";
import { asItComes } from "@/ui/state/as-it-comes";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";
import { nextJob } from "./job";

const buys = (r: Remedy) =>
  r.adds.map((a) => `${a.count} × ${a.name}${a.owned >= a.count ? " (in your drawer)" : ""}`).join(", ");

function brings(r: Remedy): string {
  const out = [
    r.adds.length ? `adds ${buys(r)}` : "nothing to buy",
    r.kind === "board"
      ? "every signal wire is planned anew"
      : r.moves
        ? `${r.moves} ${r.moves === 1 ? "wire moves" : "wires move"}`
        : "no wire moves",
    ...(r.stops ? [`brings ${r.stops} stop${r.stops === 1 ? "" : "s"}`] : []),
    ...(r.faults ? [`brings ${r.faults} fault${r.faults === 1 ? "" : "s"}`] : []),
  ];
  return out.join("; ");
}

/** Why the open pins can't all be planned, and what would help: each remedy was tried, and is one press away. */
export function Clash() {
  const { id, view, project, run } = useProject();
  const [clash, setClash] = useState<{ says: string; core: { need: string; wants: string }[] } | null>(null);
  const [helps, setHelps] = useState<Remedy[] | null>(null);
  const [done, setDone] = useState(false);
  const job = useRef(0);
  const open = view.open;
  useEffect(() => {
    let gone = false;
    setClash(null);
    setHelps(null);
    setDone(false);
    if (!open) return;
    const mine = (job.current = nextJob());
    void (async () => {
      const r = await core().plan(project, mine);
      if (gone || r.status !== "infeasible" || !r.clash) return;
      setClash({ says: r.clash, core: r.core });
      const show = (list: Remedy[]) => {
        if (!gone) setHelps(list);
      };
      await asItComes((sofar) => core().remedies(project, mine, sofar), show);
      if (!gone) setDone(true);
    })();
    return () => {
      gone = true;
      void core().drop(mine);
    };
  }, [open, project]);
  if (!clash) return null;
  const take = (r: Remedy) =>
    void run(async (p) => {
      // The list was worked out for this very project; a newer one gets a list of its own.
      if (p !== project) return null;
      const s = await core().take(r.project, r.label);
      toast(`${r.label}: everything fits.`);
      return s;
    });
  return (
    <section aria-label="Nothing fits" className="mt-3 border-l-4 border-fault pl-3" data-testid="clash">
      <div role="alert">
        <p>
          <strong>No plan fits.</strong> {clash.says}
        </p>
        <p className="text-sm text-soft">
          The smallest set that clashes: {clash.core.map((n) => n.need).join(", ")}. Without any one of them the rest
          fits.
        </p>
      </div>
      <h2 className="mt-2 font-bold">What would help</h2>
      {!done && (
        <p className="text-soft" role="status">
          Trying straps, extra chips and other boards…
        </p>
      )}
      <p className="text-sm text-soft">
        Many alike lights, keys or sensors?{" "}
        <Link className="quiet text-ink" href={`/p/${id}/board`}>
          Saving pins
        </Link>
        , at Board, weighs grids and chips against each other.
      </p>
      {done && helps?.length === 0 && (
        <p>
          Nothing that was tried is enough by itself. Take one of the clashing parts out, or split the work over two
          boards.
        </p>
      )}
      <ul>
        {helps?.map((r) => (
          <li
            key={r.id}
            className="grid grid-cols-[1fr_auto] gap-x-4 border-b border-line py-1.5"
            data-testid={`remedy-${r.id}`}
          >
            <span>
              <strong>{r.label}</strong>
              <span className="block text-sm text-soft">
                {r.says}. <span className={r.stops + r.faults ? "font-bold text-fault" : "text-ink"}>{brings(r)}</span>
              </span>
            </span>
            <button className="btn self-start" onClick={() => take(r)} aria-label={`Do it: ${r.label}`}>
              Do it
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
