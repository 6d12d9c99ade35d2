"use client";
import { useEffect, useState } from "react";
import type { ProbePart } from "@/core/bench/station/probes";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";

const STEP = 46;
const TOP = 36;
const TONE = { red: "var(--stop)", black: "var(--ink)" } as const;

/** One part's pins in printed order, with the probes on theirs: a pointed line from above, and its name in words. */
function PartRow({ part }: { part: ProbePart }) {
  return part.rows.map((row, k) => {
    const width = row.pins.length * STEP + 24;
    return (
      <svg
        key={k}
        role="img"
        aria-label={`${part.label}: ${part.words.join("; ")}`}
        viewBox={`0 0 ${width} 112`}
        width={width}
        height={112}
        className="max-w-full"
      >
        <rect x={2} y={TOP + 8} width={width - 4} height={62} className="fill-wash stroke-line" rx={2} />
        {row.pins.map((p, i) => {
          const x = 12 + STEP / 2 + i * STEP;
          const tone = p.probe && TONE[p.probe];
          return (
            <g key={i}>
              {tone && (
                <>
                  <path d={`M${x} ${TOP + 18} L${x - 5} ${TOP - 4} L${x + 5} ${TOP - 4} Z`} fill={tone} />
                  <text x={x} y={TOP - 10} textAnchor="middle" fontSize={13} fontWeight={700} fill={tone}>
                    {p.probe}
                  </text>
                </>
              )}
              {p.n === 1 ? (
                <rect
                  x={x - 6}
                  y={TOP + 18}
                  width={12}
                  height={12}
                  className="fill-sheet stroke-ink"
                  strokeWidth={1.5}
                />
              ) : (
                <circle cx={x} cy={TOP + 24} r={6} className="fill-sheet stroke-ink" strokeWidth={1.5} />
              )}
              {tone && <circle cx={x} cy={TOP + 24} r={3.5} fill={tone} />}
              <text
                x={x}
                y={TOP + 48}
                textAnchor="middle"
                fontSize={p.label.length > 5 ? 10 : 12}
                fontWeight={tone ? 700 : 400}
                className="fill-ink font-mono"
              >
                {p.label.length > 7 ? `${p.label.slice(0, 6)}…` : p.label}
              </text>
              <text x={x} y={TOP + 62} textAnchor="middle" fontSize={10} className="fill-soft font-mono">
                {p.n}
              </text>
            </g>
          );
        })}
        {row.before && (
          <text x={6} y={TOP + 28} fontSize={12} className="fill-soft">
            …
          </text>
        )}
        {row.after && (
          <text x={width - 16} y={TOP + 28} fontSize={12} className="fill-soft">
            …
          </text>
        )}
      </svg>
    );
  });
}

/** Where the two probes go, drawn at the parts. */
export function Probes({ from, to }: { from: string; to: string }) {
  const { project } = useProject();
  const [parts, setParts] = useState<ProbePart[]>([]);
  useEffect(() => {
    let gone = false;
    void core()
      .probes(project, from, to)
      .then((p) => !gone && setParts(p));
    return () => {
      gone = true;
    };
  }, [project, from, to]);
  return (
    <div className="mt-2 flex min-h-36 flex-wrap gap-x-8 gap-y-2" data-testid="probes">
      {parts
        .filter((p) => p.rows.length)
        .map((p) => (
          <figure key={p.ref} className="min-w-0">
            <PartRow part={p} />
            <figcaption className="text-sm leading-tight">
              <span className="font-bold">
                {p.label} <span className="num font-normal text-soft">{p.ref}</span>
              </span>
              <span className="block text-soft">{p.words.join("; ")}</span>
            </figcaption>
          </figure>
        ))}
    </div>
  );
}
