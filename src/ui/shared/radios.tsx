"use client";
import type { ReactNode } from "react";
import { RadioGroup as Radix } from "radix-ui";
import { Label } from "@/ui/shared/label";

/** One of a few, all in sight. `label` names the group where no heading of its own does (`labelledBy`). */
export function Radios<T extends string>({
  label,
  labelledBy,
  value,
  options,
  onChange,
  inline,
  className = "",
}: {
  label?: string;
  labelledBy?: string;
  value: T | undefined;
  options: readonly { value: T; name: ReactNode; disabled?: boolean; testId?: string }[];
  onChange(v: T): void;
  inline?: boolean;
  className?: string;
}) {
  return (
    <Radix.Root
      aria-label={label}
      aria-labelledby={labelledBy}
      value={value ?? null}
      onValueChange={(v) => onChange(v as T)}
      className={`${inline ? "flex flex-wrap gap-x-5 gap-y-1" : "flex flex-col gap-1"} ${className}`}
    >
      {options.map((o) => (
        <Label
          key={o.value}
          data-testid={o.testId}
          className={`${inline ? "inline-flex" : "flex"} items-start gap-2 ${o.disabled ? "text-soft" : ""}`}
        >
          <Radix.Item
            value={o.value}
            {...(o.disabled && { disabled: true })}
            className="mt-[3px] inline-flex h-[15px] w-[15px] shrink-0 items-center justify-center rounded-full border border-soft bg-sheet data-[state=checked]:border-accent disabled:border-line"
          >
            <Radix.Indicator className="block h-[7px] w-[7px] rounded-full bg-accent" />
          </Radix.Item>
          <span>{o.name}</span>
        </Label>
      ))}
    </Radix.Root>
  );
}
