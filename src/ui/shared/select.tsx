"use client";
import type { ReactNode } from "react";
import { Check, ChevronDown } from "lucide-react";
import { Select as Radix } from "radix-ui";
import { useInBrowser } from "./in-browser";
import { pageNonce } from "./nonce";

export interface Option<T extends string> {
  value: T;
  name: ReactNode;
  disabled?: boolean;
}

/** Stands for the empty value, which Radix keeps for itself. */
const NONE = " ";
const inside = (v: string) => (v === "" ? NONE : v);

/** One of several, folded up. `label` is what it is called for those who don't see it; `empty` stands there while nothing is chosen. */
export function Select<T extends string>({
  label,
  id,
  value,
  options,
  onChange,
  disabled,
  empty = "choose",
  className = "",
  bold,
}: {
  label?: string;
  id?: string;
  value: T;
  options: readonly Option<T>[];
  onChange(v: T): void;
  disabled?: boolean;
  empty?: string;
  className?: string;
  bold?: boolean;
}) {
  const known = options.some((o) => o.value === value);
  const look = `inline-flex items-center justify-between gap-2 rounded-[2px] border border-soft bg-sheet px-2 py-[3px] text-left hover:bg-wash disabled:text-soft disabled:hover:bg-sheet ${bold ? "font-bold" : ""} ${className}`;
  if (!useInBrowser())
    return (
      <button type="button" id={id} aria-label={label} data-value={value} disabled={disabled} className={look}>
        <span className="min-w-0 truncate">{options.find((o) => o.value === value)?.name ?? empty}</span>
        <ChevronDown size={14} aria-hidden />
      </button>
    );
  return (
    <Radix.Root
      value={known ? inside(value) : ""}
      onValueChange={(v) => onChange((v === NONE ? "" : v) as T)}
      {...(disabled !== undefined && { disabled })}
    >
      <Radix.Trigger id={id} aria-label={label} data-value={value} className={look}>
        <span className="min-w-0 truncate">
          <Radix.Value placeholder={empty} />
        </span>
        <Radix.Icon>
          <ChevronDown size={14} aria-hidden />
        </Radix.Icon>
      </Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          position="popper"
          sideOffset={2}
          className="z-50 max-h-[min(24rem,var(--radix-select-content-available-height))] max-w-[min(28rem,96vw)] min-w-[var(--radix-select-trigger-width)] overflow-hidden border border-ink bg-sheet shadow-[3px_3px_0_var(--line)]"
        >
          <Radix.ScrollUpButton className="px-2 text-center text-soft">▴</Radix.ScrollUpButton>
          <Radix.Viewport nonce={pageNonce()}>
            {options.map((o) => (
              <Radix.Item
                key={o.value}
                value={inside(o.value)}
                data-value={o.value}
                {...(o.disabled && { disabled: true })}
                className="flex cursor-pointer items-center justify-between gap-4 px-2 py-1 outline-none data-[disabled]:text-soft data-[highlighted]:bg-wash data-[state=checked]:font-bold"
              >
                <Radix.ItemText>{o.name}</Radix.ItemText>
                <Radix.ItemIndicator>
                  <Check size={14} aria-hidden />
                </Radix.ItemIndicator>
              </Radix.Item>
            ))}
          </Radix.Viewport>
          <Radix.ScrollDownButton className="px-2 text-center text-soft">▾</Radix.ScrollDownButton>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
