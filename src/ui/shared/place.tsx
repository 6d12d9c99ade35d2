import type { ReactNode } from "react";

/**
 * A pin, wire, rail or part that says on demand what it is: on hover, on focus, on a tap. The card itself is one for the whole
 * page (see the frame): whatever carries `data-place` has it, drawings too.
 */
export function Place({ of, children, className = "" }: { of: string; children?: ReactNode; className?: string }) {
  return (
    <button type="button" data-place={of} className={`place ${className}`}>
      {children ?? of}
    </button>
  );
}
