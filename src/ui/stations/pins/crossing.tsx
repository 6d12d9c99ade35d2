import type { LatticeCell, LatticeColumn, LatticeRow, LatticeView } from "@/core/plan/assign";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";
import { STATES } from "./states";

/** What a move would bring. */
export interface Ghost {
  says: string;
  ok: boolean;
  /** Need to the endpoint where it would land. */
  moved: Map<string, string>;
}

/** The marked crossing in words: what is wanted, what the pin is, what a move would bring, and the ways to act. */
export function Crossing({
  row,
  column,
  pin,
  cell,
  ghost,
  lock,
  move,
}: {
  view: LatticeView;
  row: LatticeRow;
  column: LatticeColumn;
  pin: string;
  cell: LatticeCell;
  ghost: Ghost | null;
  lock(): void;
  move(): void;
}) {
  const { run, project } = useProject();
  const { ref, pin: label } = row;
  const wanted = project.parts.find((p) => p.ref === ref)?.wanted?.includes(label) ?? false;
  const want = (on: boolean) => void run(async (p) => core().want(p, ref, label, on));
  return (
    <section
      aria-label="This crossing"
      className="mt-1 grid min-h-24 gap-x-8 border-t border-ink pt-2 lg:grid-cols-[1fr_auto]"
      data-testid="crossing"
    >
      <div>
        <p className="text-lg">
          <strong>{row.part}</strong> <span className="num">{row.pin}</span> on <span className="num">{pin}</span>:{" "}
          <strong>{STATES[cell.state]}</strong>
        </p>
        <p>
          It wants {row.wants}; {cell.why}.
        </p>
        <p className={ghost && !ghost.ok ? "text-fault" : "text-soft"} aria-live="polite">
          {ghost
            ? ghost.ok
              ? ghost.says
              : `Does not work: ${ghost.says}`
            : `${pin} can: ${column.can.join(", ") || "no signals"}`}
        </p>
      </div>
      <div className="flex flex-wrap items-start gap-2">
        {row.idle && (
          <button className="btn" onClick={() => want(true)}>
            Wire {row.id}, best pin
          </button>
        )}
        {wanted && (
          <button className="btn" onClick={() => want(false)}>
            Leave {row.id} free
          </button>
        )}
        {row.link && (
          <button className="btn" onClick={lock}>
            {row.locked ? "Unlock" : "Lock"} {row.id} <kbd className="font-mono text-sm text-soft">L</kbd>
          </button>
        )}
        {cell.state !== "chosen" && cell.state !== "locked" && (
          <button
            className="btn-main"
            disabled={cell.state === "cannot" || (ghost !== null && !ghost.ok)}
            onClick={move}
          >
            Move here
          </button>
        )}
      </div>
    </section>
  );
}
