import type { Severity } from "@/core/checks";

/** Every grade has a shape and a word as well as its colour. */
const MARK: Record<Severity, { path: string; tone: string; word: string }> = {
  stop: { path: "M1 1h10v10H1z", tone: "text-stop", word: "stop" },
  fault: { path: "M6 0.5 11.5 11H0.5z", tone: "text-fault", word: "fault" },
  risk: { path: "M6 0 12 6 6 12 0 6z", tone: "text-risk", word: "risk" },
  note: { path: "M6 1a5 5 0 1 0 0.01 0z", tone: "text-note", word: "note" },
};

export function SeverityMark({ severity, word = true }: { severity: Severity; word?: boolean }) {
  const m = MARK[severity];
  return (
    <span className={`inline-flex items-center gap-1.5 font-bold ${m.tone}`}>
      <svg width="12" height="12" viewBox="0 0 12 12" aria-hidden>
        <path d={m.path} fill={severity === "note" ? "none" : "currentColor"} stroke="currentColor" strokeWidth="1.5" />
      </svg>
      {word && m.word}
    </span>
  );
}
