"use client";
import { useEffect, useState } from "react";
import { toast } from "sonner";
import type { Project } from "@/core/project";
import { useProject } from "@/ui/state/project";

/** What the worker makes of the project; the last answer stays on view while the next is on its way. `ask` must be stable. */
export function useCore<T>(ask: (p: Project) => Promise<T>): T | null {
  const { project } = useProject();
  const [value, setValue] = useState<T | null>(null);
  useEffect(() => {
    let gone = false;
    ask(project).then(
      (v) => !gone && setValue(v),
      (e: unknown) => !gone && toast.error(e instanceof Error ? e.message : String(e), { id: "core" }),
    );
    return () => {
      gone = true;
    };
  }, [project, ask]);
  return value;
}
