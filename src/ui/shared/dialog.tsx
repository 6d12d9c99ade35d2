"use client";
import { Dialog as Radix } from "radix-ui";
import type { ReactNode } from "react";

/** A sheet over the page, closed with Escape or a click beside it. */
export function Sheet({
  title,
  close,
  wide,
  children,
}: {
  title: string;
  close(): void;
  wide?: boolean;
  children: ReactNode;
}) {
  return (
    <Radix.Root open onOpenChange={(o) => !o && close()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Radix.Content
          aria-describedby={undefined}
          className={`fixed left-1/2 z-50 -translate-x-1/2 overflow-auto border border-ink bg-sheet p-4 ${wide ? "top-[5vh] max-h-[90vh] w-[min(1180px,96vw)]" : "top-[12vh] max-h-[76vh] w-[min(600px,94vw)]"}`}
        >
          <Radix.Title className="text-lg font-bold">{title}</Radix.Title>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
