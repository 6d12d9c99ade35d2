import type { ReactNode } from "react";

/** Head of a station: its name, one line on what it answers, and its main action. */
export function StationTitle({ name, says, children }: { name: string; says: ReactNode; children?: ReactNode }) {
  return (
    <header className="flex flex-wrap items-end justify-between gap-x-6 gap-y-2 border-b border-ink pb-2">
      <div>
        <h1 className="text-2xl leading-tight">{name}</h1>
        <p className="text-soft">{says}</p>
      </div>
      {children && <div className="flex flex-wrap gap-2">{children}</div>}
    </header>
  );
}
