"use client";
import { useEffect, useState } from "react";
import type { PowerView } from "@/workers/power-view";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";

/** The station's numbers for the project as it is; the last ones stay on view while the next are on their way. */
export function usePower(): PowerView | null {
  const { project } = useProject();
  const [view, setView] = useState<PowerView | null>(null);
  useEffect(() => {
    let gone = false;
    void core()
      .power(project)
      .then((v) => {
        if (!gone) setView(v);
      });
    return () => {
      gone = true;
    };
  }, [project]);
  return view;
}
