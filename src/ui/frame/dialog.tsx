"use client";
import { Dialog as Radix } from "radix-ui";
import type { ReactNode } from "react";

/** A sheet over the page, closed with Escape or a click beside it. */
export function Sheet({ title, close, children }: { title: string; close(): void; children: ReactNode }) {
  return (
    <Radix.Root open onOpenChange={(o) => !o && close()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 bg-black/40" />
        <Radix.Content
          aria-describedby={undefined}
          className="fixed top-[12vh] left-1/2 max-h-[76vh] w-[min(600px,94vw)] -translate-x-1/2 overflow-auto border border-ink bg-sheet p-4"
        >
          <Radix.Title className="text-lg font-bold">{title}</Radix.Title>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
