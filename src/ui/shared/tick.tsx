"use client";
import { useEffect, useState } from "react";

/** A large tick target that answers at once, while the edit is still on its way. */
export function Tick({ checked, says, change }: { checked: boolean; says: string; change(v: boolean): void }) {
  const [now, setNow] = useState(checked);
  useEffect(() => setNow(checked), [checked]);
  return (
    <input
      type="checkbox"
      className="size-7 accent-[var(--accent)]"
      checked={now}
      aria-label={says}
      onChange={(e) => {
        setNow(e.target.checked);
        change(e.target.checked);
      }}
    />
  );
}
