"use client";
import { useAnswer } from "./answer";

/** A large tick target. */
export function Tick({ checked, says, change }: { checked: boolean; says: string; change(v: boolean): void }) {
  const [now, setNow] = useAnswer(checked, change);
  return (
    <input
      type="checkbox"
      className="size-7 accent-[var(--accent)]"
      checked={now}
      aria-label={says}
      onChange={(e) => setNow(e.target.checked)}
    />
  );
}
