"use client";
import type { ReactNode } from "react";
import { Tabs as Radix } from "radix-ui";

/** Views, one at a time: a line of names, the view chosen below. Arrow keys go along, as in any list of tabs. `beside`: at the end of the line. */
export function Tabs<T extends string>({
  label,
  tabs,
  tab,
  go,
  beside,
  children,
}: {
  label: string;
  tabs: readonly { id: T; name: string; count?: number | undefined }[];
  tab: T;
  go(t: T): void;
  beside?: ReactNode;
  children: ReactNode;
}) {
  return (
    <Radix.Root value={tab} onValueChange={(t) => go(t as T)}>
      <div className="mt-2 flex flex-wrap items-end justify-between gap-x-5 gap-y-2 border-b border-line">
        <Radix.List aria-label={label} className="flex flex-wrap gap-x-5">
          {tabs.map((t) => (
            <Radix.Trigger
              key={t.id}
              value={t.id}
              className="-mb-px border-b-2 border-transparent px-1 py-1 text-soft hover:text-ink data-[state=active]:border-accent data-[state=active]:font-bold data-[state=active]:text-ink"
            >
              {t.name}
              {t.count ? <span className="num ml-1 text-sm font-normal">{t.count}</span> : null}
            </Radix.Trigger>
          ))}
        </Radix.List>
        {beside}
      </div>
      {tabs.map((t) => (
        // Only the view that is open has content; the others keep their place, so that each name leads somewhere.
        <Radix.Content key={t.id} value={t.id} forceMount hidden={t.id !== tab} tabIndex={-1} className="outline-none">
          {t.id === tab && children}
        </Radix.Content>
      ))}
    </Radix.Root>
  );
}
