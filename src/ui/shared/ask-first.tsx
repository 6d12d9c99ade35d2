"use client";
import { AlertDialog as Radix } from "radix-ui";
import type { ReactNode } from "react";

/** Asks before something that nothing brings back. `children` is the button that leads to it. */
export function AskFirst({
  title,
  says,
  yes,
  no = "Keep it",
  go,
  children,
}: {
  title: string;
  says: string;
  yes: string;
  no?: string;
  go(): void;
  children: ReactNode;
}) {
  return (
    <Radix.Root>
      <Radix.Trigger asChild>{children}</Radix.Trigger>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Radix.Content className="fixed top-[20vh] left-1/2 z-50 w-[min(460px,94vw)] -translate-x-1/2 border border-ink bg-sheet p-4">
          <Radix.Title className="text-lg font-bold">{title}</Radix.Title>
          <Radix.Description className="mt-1">{says}</Radix.Description>
          <div className="mt-3 flex flex-wrap gap-3">
            <Radix.Cancel className="btn">{no}</Radix.Cancel>
            <Radix.Action className="btn text-stop" onClick={go}>
              {yes}
            </Radix.Action>
          </div>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
