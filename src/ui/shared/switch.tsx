"use client";
import type { ReactNode } from "react";
import { Switch as Radix } from "radix-ui";
import { Label } from "@/ui/shared/label";

/** A way of looking at something, on or off, at once. What is part of the project is a box to tick (`Checkbox`). */
export function Switch({
  on,
  turn,
  children,
  className = "",
}: {
  on: boolean;
  turn(on: boolean): void;
  children: ReactNode;
  className?: string;
}) {
  return (
    <Label className={`inline-flex items-center gap-2 ${className}`}>
      <Radix.Root
        checked={on}
        onCheckedChange={turn}
        className="inline-flex h-[17px] w-[30px] shrink-0 items-center rounded-[2px] border border-soft bg-sheet px-px data-[state=checked]:border-accent data-[state=checked]:bg-accent"
      >
        <Radix.Thumb className="h-[11px] w-[11px] rounded-[1px] bg-soft transition-transform data-[state=checked]:translate-x-[15px] data-[state=checked]:bg-accent-ink motion-reduce:transition-none" />
      </Radix.Root>
      {children}
    </Label>
  );
}
