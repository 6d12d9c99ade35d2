"use client";
import { useProject } from "@/ui/state/project";

/** Shown when another tab or person has saved this project since it was opened here. Nothing is lost either way. */
export function StaleNotice() {
  const s = useProject();
  if (!s.theirs) return null;
  return (
    <div role="alert" className="flex flex-wrap items-center gap-3 border-b border-ink bg-wash px-4 py-2">
      <p className="grow">
        <strong>This project was changed somewhere else since it was opened here.</strong> Your changes in this tab are
        not saved, and not lost: look at the newer version, or keep yours as a project of its own.
      </p>
      <button className="btn" onClick={() => void s.keepMineAsCopy()}>
        Keep mine as a copy
      </button>
      <button className="btn-main" onClick={() => void s.takeTheirs()}>
        Show the newer version
      </button>
    </div>
  );
}
