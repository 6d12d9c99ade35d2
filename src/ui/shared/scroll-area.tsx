"use client";
import { ScrollArea as Radix } from "radix-ui";
import type { ReactNode } from "react";
import { pageNonce } from "./nonce";

const BAR = "flex touch-none bg-wash p-0.5 select-none";
const THUMB = "grow bg-soft";

/** A box with much in it, whose bar is seen wherever there is more: on a touch screen and on one that hides its own bars too. */
export function ScrollArea({
  label,
  children,
  className = "",
  viewport = "",
}: {
  /** What is in it, for those who come to it by keys. */
  label: string;
  children: ReactNode;
  className?: string;
  /** Classes with its greatest height. */
  viewport?: string;
}) {
  return (
    <Radix.Root type="auto" className={`relative overflow-hidden ${className}`}>
      <Radix.Viewport
        nonce={pageNonce()}
        className={`w-full ${viewport}`}
        tabIndex={0}
        role="region"
        aria-label={label}
      >
        {children}
      </Radix.Viewport>
      {(["vertical", "horizontal"] as const).map((o) => (
        <Radix.Scrollbar key={o} orientation={o} className={`${BAR} ${o === "vertical" ? "w-2.5" : "h-2.5 flex-col"}`}>
          <Radix.Thumb className={THUMB} />
        </Radix.Scrollbar>
      ))}
      <Radix.Corner />
    </Radix.Root>
  );
}
