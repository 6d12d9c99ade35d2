"use client";

/** What is typed and not yet left or entered, by field: it comes back when the page does. Kept with each keystroke. */
interface Draft {
  /** What stood there when typing began: over something else it is not put. */
  over: string;
  text: string;
}
const PREFIX = "lattice-draft ";
/** A text longer than this belongs into a file. */
const MOST_CHARS = 200_000;

/** An edit is worked out and written down in less, ms. */
const SETTLES_MS = 1500;

/** A field's name among all: where it stands, and what it is called. */
export const draftKey = (label: string): string => `${PREFIX}${location.pathname} ${label}`;

/** None of these throws: where nothing can be kept, nothing comes back. */
export const drafts = {
  put(key: string, over: string, text: string): void {
    try {
      if (text === over || text.length > MOST_CHARS) localStorage.removeItem(key);
      else localStorage.setItem(key, JSON.stringify({ over, text } satisfies Draft));
    } catch {
      // Full, or not allowed.
    }
  },
  /** It was left or entered: it goes once the change that it made is written down, unless somebody types on. */
  settle(key: string): void {
    try {
      const now = localStorage.getItem(key);
      if (now === null) return;
      setTimeout(() => {
        if (localStorage.getItem(key) === now) localStorage.removeItem(key);
      }, SETTLES_MS);
    } catch {
      // As above.
    }
  },
  /** What was being typed over this very text; null when there is nothing. */
  get(key: string, over: string): string | null {
    try {
      const d = JSON.parse(localStorage.getItem(key) ?? "null") as Draft | null;
      return d && d.over === over && typeof d.text === "string" ? d.text : null;
    } catch {
      return null;
    }
  },
};
