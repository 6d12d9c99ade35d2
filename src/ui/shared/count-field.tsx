"use client";
import { useState } from "react";
import { Label } from "@/ui/shared/label";

/** A whole number between bounds: taken when it is left or confirmed, brought within its bounds then. */
export function CountField({
  says,
  value,
  least,
  most,
  change,
}: {
  says: string;
  value: number;
  least: number;
  most: number;
  change(n: number): void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const take = () => {
    const n = Math.round(Number(typed));
    if (typed !== null && typed.trim() && Number.isFinite(n)) {
      const now = Math.min(most, Math.max(least, n));
      if (now !== value) change(now);
    }
    setTyped(null);
  };
  return (
    <Label className="inline-flex items-center gap-2">
      {says}
      <input
        type="number"
        className="num w-20"
        min={least}
        max={most}
        value={typed ?? value}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={take}
        onKeyDown={(e) => {
          if (e.key === "Enter") take();
        }}
      />
    </Label>
  );
}
