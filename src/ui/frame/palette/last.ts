/** What was done last through the palette, newest first; kept in this browser. Names of actions only. */
const KEY = "lattice-last-actions";
const MOST = 6;

export function lastActions(): string[] {
  try {
    const list: unknown = JSON.parse(localStorage.getItem(KEY) ?? "[]");
    return Array.isArray(list) ? list.filter((x): x is string => typeof x === "string").slice(0, MOST) : [];
  } catch {
    return [];
  }
}

export function wasDone(id: string) {
  const list = [id, ...lastActions().filter((x) => x !== id)].slice(0, MOST);
  try {
    localStorage.setItem(KEY, JSON.stringify(list));
  } catch {
    // A browser that keeps nothing just has no list.
  }
}
