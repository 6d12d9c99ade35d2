import { useEffect, useRef, useState } from "react";

/** So long an own change is waited for before the project's value counts again. */
const WAIT_MS = 1500;

/**
 * A control's value that answers at once while its edit is on its way, and follows the project when that changes. Answers
 * to earlier moves of a quick hand do not pull the control back: only the last move's own answer, or silence, does.
 */
export function useAnswer<T>(value: T, save: (v: T) => void): [T, (v: T) => void] {
  // By content: an equal list in a new array is no change.
  const key = JSON.stringify(value);
  const [now, setNow] = useState(value);
  const sent = useRef<string | null>(null);
  const there = useRef(key);
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  useEffect(() => {
    there.current = key;
    if (sent.current !== null && sent.current !== key) return;
    sent.current = null;
    setNow(JSON.parse(key) as T);
  }, [key]);
  useEffect(() => () => clearTimeout(timer.current), []);
  return [
    now,
    (v) => {
      sent.current = JSON.stringify(v);
      clearTimeout(timer.current);
      timer.current = setTimeout(() => {
        sent.current = null;
        setNow(JSON.parse(there.current) as T);
      }, WAIT_MS);
      setNow(v);
      save(v);
    },
  ];
}
