"use client";
import { useEffect, useState } from "react";
import { toast } from "sonner";
import { HOUSE_RULES, type HouseRuleKey } from "@/core/project/choices";
import { Label } from "@/ui/shared/label";
import { http } from "@/ui/state/http";
import { useProject } from "@/ui/state/project";

const KEYS = Object.keys(HOUSE_RULES) as HouseRuleKey[];

/** Settles the house rules for a class: in this project, and in all that begin on this machine from now on. */
export function Settle() {
  const { project, edit } = useProject();
  const [by, setBy] = useState(project.fixedRules?.by ?? "");
  const [machine, setMachine] = useState<string | null>(null);
  useEffect(() => {
    void http<{ settled: { fixed: { by: string } } | null }>("GET", "/api/class-rules").then((r) => {
      if (r.status === 200) setMachine(r.body.settled?.fixed.by ?? null);
    });
  }, []);
  const put = async (settled: object | null) => {
    const r = await http<{ settled: { fixed: { by: string } } | null }>("PUT", "/api/class-rules", settled);
    if (r.status !== 200) return toast.error(r.body.message ?? "Not settled.");
    setMachine(r.body.settled?.fixed.by ?? null);
    toast(
      settled ? "New projects on this machine begin with these rules." : "New projects choose for themselves again.",
    );
  };
  const fixed = { by: by.trim(), keys: KEYS };
  return (
    <section aria-label="Settled rules" className="mt-4 border-t border-line pt-2">
      {project.fixedRules ? (
        <p>
          Settled by <strong>{project.fixedRules.by}</strong>: the rules above stay as they are.{" "}
          <button className="quiet" onClick={() => void edit({ type: "fixHouseRules", fixed: null })}>
            Let them be changed
          </button>
        </p>
      ) : (
        <div className="flex flex-wrap items-end gap-3">
          <Label>
            <span className="block text-soft">Settle these rules for a class</span>
            <input value={by} maxLength={60} placeholder="Class 7b" onChange={(e) => setBy(e.target.value)} />
          </Label>
          <button className="btn" disabled={!fixed.by} onClick={() => void edit({ type: "fixHouseRules", fixed })}>
            In this project
          </button>
          <button className="btn" disabled={!fixed.by} onClick={() => void put({ rules: project.houseRules, fixed })}>
            In all new projects
          </button>
        </div>
      )}
      {machine !== null && (
        <p className="mt-1 text-sm text-soft">
          New projects on this machine begin with the rules of {machine}.{" "}
          <button className="quiet" onClick={() => void put(null)}>
            no longer
          </button>
        </p>
      )}
    </section>
  );
}
