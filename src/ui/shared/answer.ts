import { useEffect, useState } from "react";

/** A control's value that answers at once while its edit is on its way, and follows the project when that changes. */
export function useAnswer<T>(value: T, save: (v: T) => void): [T, (v: T) => void] {
  const key = JSON.stringify(value);
  const [now, setNow] = useState(value);
  // By content: an equal list in a new array is no change.
  useEffect(() => setNow(JSON.parse(key) as T), [key]);
  return [
    now,
    (v) => {
      setNow(v);
      save(v);
    },
  ];
}
