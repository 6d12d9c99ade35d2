"use client";
import type { ReactNode } from "react";
import { Check } from "lucide-react";
import { Checkbox as Radix } from "radix-ui";
import { Label } from "@/ui/shared/label";
import { useInBrowser } from "@/ui/shared/in-browser";

const BOX =
  "inline-flex h-[17px] w-[17px] shrink-0 items-center justify-center rounded-[2px] border border-soft bg-sheet data-[state=checked]:border-accent data-[state=checked]:bg-accent disabled:border-line disabled:opacity-70";

/** A box to tick, with what it says beside it; `label` names a box that stands alone. */
export function Checkbox({
  checked,
  onChange,
  children,
  label,
  disabled,
  className = "",
  testId,
}: {
  checked: boolean;
  onChange(on: boolean): void;
  children?: ReactNode;
  label?: string;
  disabled?: boolean;
  className?: string;
  testId?: string;
}) {
  const inBrowser = useInBrowser();
  const box = !inBrowser ? (
    <span className={BOX} />
  ) : (
    <Radix.Root
      checked={checked}
      onCheckedChange={(on) => onChange(on === true)}
      aria-label={label}
      data-testid={testId}
      {...(disabled !== undefined && { disabled })}
      className={BOX}
    >
      <Radix.Indicator>
        <Check size={14} strokeWidth={3} className="text-accent-ink" aria-hidden />
      </Radix.Indicator>
    </Radix.Root>
  );
  if (!children) return box;
  return (
    <Label className={`inline-flex items-center gap-2 ${className}`}>
      {box}
      {children}
    </Label>
  );
}
