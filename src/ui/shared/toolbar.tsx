"use client";
import { Toolbar as Radix } from "radix-ui";
import type { ReactNode } from "react";

/** Tools in a row, one stop for Tab; arrow keys go from one to the next. What is no tool of it stands after them. */
export function Toolbar({ label, children, beside }: { label: string; children: ReactNode; beside?: ReactNode }) {
  return (
    <div className="flex flex-wrap items-center gap-1 pb-1">
      <Radix.Root aria-label={label} className="flex items-center gap-1">
        {children}
      </Radix.Root>
      {beside}
    </div>
  );
}

export function Tool({ label, use, children }: { label: string; use(): void; children: ReactNode }) {
  return (
    <Radix.Button className="btn" aria-label={label} onClick={use}>
      {children}
    </Radix.Button>
  );
}
