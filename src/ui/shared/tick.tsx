"use client";
import { Check } from "lucide-react";
import { Checkbox as Radix } from "radix-ui";
import { useAnswer } from "./answer";

/** A large box to tick: for a thumb at the bench. */
export function Tick({ checked, says, change }: { checked: boolean; says: string; change(v: boolean): void }) {
  const [now, setNow] = useAnswer(checked, change);
  return (
    <Radix.Root
      checked={now}
      aria-label={says}
      onCheckedChange={(on) => setNow(on === true)}
      className="inline-flex size-7 shrink-0 items-center justify-center rounded-[2px] border border-soft bg-sheet data-[state=checked]:border-accent data-[state=checked]:bg-accent"
    >
      <Radix.Indicator>
        <Check size={22} strokeWidth={3} className="text-accent-ink" aria-hidden />
      </Radix.Indicator>
    </Radix.Root>
  );
}
