"use client";
import { useEffect, useState } from "react";
import { toast } from "sonner";
import type { Project } from "@/core/project";
import { apply, difference } from "@/workers/talk/difference";
import { useProject } from "@/ui/state/project";

/** What the worker makes of the project; the last answer stays on view while the next is on its way. `ask` must be stable. */
export function useCore<T>(ask: (p: Project) => Promise<T>): T | null {
  const { project } = useProject();
  const [value, setValue] = useState<T | null>(null);
  useEffect(() => {
    let gone = false;
    ask(project).then(
      // What did not change stays the very same object, so that its drawing stays too.
      (v) => !gone && setValue((was) => (was ? (apply(was, difference(was, v)) as T) : v)),
      (e: unknown) => !gone && toast.error(e instanceof Error ? e.message : String(e), { id: "core" }),
    );
    return () => {
      gone = true;
    };
  }, [project, ask]);
  return value;
}
