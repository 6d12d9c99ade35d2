"use client";
import { when } from "@/ui/shared/when";
import { useEffect, useState } from "react";
import { toast } from "sonner";
import type { Project } from "@/core/project";
import { core } from "@/ui/state/core";
import { http } from "@/ui/state/http";
import { useProject } from "@/ui/state/project";
import { Sheet } from "@/ui/shared/dialog";

interface Revision {
  version: number;
  summary: string;
  at: string;
}

/** Everything that was saved, newest first. Going back is an edit like any other: it can be undone. */
export function Versions({ close }: { close(): void }) {
  const { id, run, version } = useProject();
  const [list, setList] = useState<Revision[] | null>(null);
  useEffect(() => {
    void http<Revision[]>("GET", `/api/projects/${id}/revisions`).then((r) => r.status === 200 && setList(r.body));
  }, [id, version]);
  const back = (v: number) =>
    void run(async (p) => {
      const r = await http<{ document: Project }>("GET", `/api/projects/${id}/revisions/${v}`);
      if (r.status !== 200) {
        toast.error(r.body.message ?? "That version can't be read.");
        return null;
      }
      // What is ticked and measured on the bench does not go back with the plan.
      const document = { ...r.body.document, bench: p.bench };
      return { ...(await core().open(document)), says: `back to version ${v}` };
    }).then(close);
  return (
    <Sheet title="Versions" close={close}>
      <ul className="mt-2 border-t border-ink">
        {list?.map((r) => (
          <li key={r.version} className="flex items-center gap-3 border-b border-line py-1.5">
            <span className="num w-8 text-soft">{r.version}</span>
            <span className="grow">
              {r.summary || "saved"}
              <span className="block text-sm text-soft">{when(r.at)}</span>
            </span>
            {r.version === version ? (
              <span className="text-soft">this one</span>
            ) : (
              <button
                className="btn"
                onClick={() => back(r.version)}
                aria-label={`Go back to it: version ${r.version}`}
              >
                Go back to it
              </button>
            )}
          </li>
        ))}
      </ul>
    </Sheet>
  );
}
