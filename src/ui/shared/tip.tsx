"use client";
import type { ReactElement, ReactNode } from "react";
import { Tooltip } from "radix-ui";

const BUBBLE = "z-50 max-w-80 border border-ink bg-sheet px-2 py-1 text-sm text-ink shadow-[3px_3px_0_var(--line)]";

/** A few words about a control, on hover and on focus. Never the only place of anything that is needed. */
export function Tip({
  says,
  children,
  side = "bottom",
}: {
  says: ReactNode;
  children: ReactElement;
  side?: "top" | "bottom" | "left" | "right";
}) {
  return (
    <Tooltip.Root>
      <Tooltip.Trigger asChild>{children}</Tooltip.Trigger>
      <Tooltip.Portal>
        <Tooltip.Content side={side} sideOffset={4} collisionPadding={8} className={BUBBLE}>
          {says}
        </Tooltip.Content>
      </Tooltip.Portal>
    </Tooltip.Root>
  );
}

/** Round the whole app, once: how long all tips wait. */
export function Tips({ children }: { children: ReactNode }) {
  return (
    <Tooltip.Provider delayDuration={350} skipDelayDuration={200}>
      {children}
    </Tooltip.Provider>
  );
}
