"use client";
import { useEffect, useState } from "react";
import { toast } from "sonner";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";

/** The ways to go on from the pattern that a project was begun from; each can be joined at a press, and taken back. */
export function Onward() {
  const { project, run } = useProject();
  const [ways, setWays] = useState<{ id: string; says: string }[]>([]);
  const [said, setSaid] = useState<string | null>(null);
  const { pattern } = project;
  useEffect(() => {
    if (pattern === undefined) return setWays([]);
    void core().onwardOf(pattern).then(setWays);
  }, [pattern]);
  if (!ways.length) return null;
  const join = (id: string) =>
    void run(async (p) => {
      const s = await core().joinOnward(p, id);
      if (s.clash) {
        toast.error(`Not joined: ${s.clash}`, { duration: 12_000 });
        return null;
      }
      setSaid(`${s.verdict}.${s.did.length ? ` Put in, so that the plan is sound: ${s.did.join("; ")}.` : ""}`);
      return s;
    });
  return (
    <section aria-label="Ways to go on" className="mt-4 border-t border-ink pt-2">
      <h2 className="text-lg">Go on from here</h2>
      <ul>
        {ways.map((w) => (
          <li key={w.id} className="flex items-center justify-between gap-4 border-b border-line py-1.5">
            <span>{w.says}</span>
            <button className="btn shrink-0" aria-label={`Join and plan: ${w.says}`} onClick={() => join(w.id)}>
              Join and plan
            </button>
          </li>
        ))}
      </ul>
      {said && (
        <p role="status" className="mt-2">
          {said}
        </p>
      )}
    </section>
  );
}
