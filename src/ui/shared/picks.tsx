"use client";
import { Toggle as RadixToggle, ToggleGroup } from "radix-ui";
import type { ReactNode } from "react";

export interface Pick<T extends string> {
  value: T;
  name: ReactNode;
}

/** One of a list, one below the other; arrow keys go through it. */
export function Picks<T extends string>({
  label,
  value,
  picks,
  pick,
  className = "",
}: {
  label: string;
  value: T | undefined;
  picks: readonly Pick<T>[];
  pick(v: T): void;
  /** Of one entry. */
  className?: string;
}) {
  return (
    <ToggleGroup.Root
      type="single"
      orientation="vertical"
      aria-label={label}
      value={value ?? ""}
      // One is always picked: a press on it leaves it so.
      onValueChange={(v) => v && pick(v as T)}
      className="flex flex-col"
    >
      {picks.map((p) => (
        <ToggleGroup.Item
          key={p.value}
          value={p.value}
          className={`w-full text-left hover:bg-wash data-[state=on]:bg-wash data-[state=on]:font-bold ${className}`}
        >
          {p.name}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}

/** Something that is so or not, as a button that says which. */
export function Toggle({
  label,
  on,
  turn,
  children,
  className = "",
}: {
  label: string;
  on: boolean;
  turn(on: boolean): void;
  children: ReactNode;
  className?: string;
}) {
  return (
    <RadixToggle.Root aria-label={label} pressed={on} onPressedChange={turn} className={className}>
      {children}
    </RadixToggle.Root>
  );
}
