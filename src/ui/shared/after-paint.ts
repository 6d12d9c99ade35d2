import { useEffect, useState } from "react";

/**
 * Runs once what was drawn is on the screen: asking where things stand before that would have all of it laid out twice. Answers
 * how to call it off.
 */
export function afterPaint(work: () => void): () => void {
  let wait: ReturnType<typeof setTimeout> | undefined;
  const frame = requestAnimationFrame(() => {
    wait = setTimeout(work, 0);
  });
  return () => {
    cancelAnimationFrame(frame);
    clearTimeout(wait);
  };
}

/** False until the rest is on the screen: for what stands beside it and takes its time. */
export function useDrawn(): boolean {
  const [drawn, setDrawn] = useState(false);
  useEffect(() => afterPaint(() => setDrawn(true)), []);
  return drawn;
}
