import { proxy, type ProxyMarked } from "comlink";

/**
 * Shows what the worker has so far, then the whole. What it has so far travels by a port of its own, so the last of it may
 * arrive after the whole: then it is dropped.
 */
export async function asItComes<T>(
  work: (sofar: ((t: T) => void) & ProxyMarked) => Promise<T>,
  show: (t: T) => void,
): Promise<void> {
  let whole = false;
  const all = await work(
    proxy((t: T) => {
      if (!whole) show(t);
    }),
  );
  whole = true;
  show(all);
}
