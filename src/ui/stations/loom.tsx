"use client";
import type { Loom as Geometry } from "@/core/wiring/loom";
import type { RunRow } from "@/core/wiring/runsheet";
import { useProject } from "@/ui/state/project";

const STROKE: Record<string, string> = {
  black: "var(--ink)",
  red: "#c0392b",
  orange: "#cf6a12",
  yellow: "#b59500",
  green: "#2f8a42",
  blue: "#2f6ac4",
  violet: "#8a4cab",
  grey: "#8b877f",
  white: "#a89f8d",
  brown: "#8a572b",
};

/** The loom: board in the middle, parts at its sides with pins in true order, one lane a net, the current wire lit. */
export function Loom({ loom, row }: { loom: Geometry; row: RunRow | undefined }) {
  const { lit, light } = useProject();
  const lights = (n: Geometry["nets"][number]) => lit.has(n.name) || n.ends.some((e) => lit.has(e));
  const wanted = row && row.kind !== "look" ? row : undefined;
  const anyLit = loom.nets.some(lights);
  const isOn = (n: Geometry["nets"][number]) => (anyLit ? lights(n) : wanted ? n.name === wanted.net : true);
  const ends = new Set(wanted ? [wanted.from, wanted.to] : []);
  const lookAt = row?.kind === "look" ? row.from : undefined;
  return (
    <svg
      viewBox={`0 0 ${loom.width} ${loom.height}`}
      className="max-h-[calc(100dvh-11rem)] w-full font-mono"
      role="img"
      aria-label="Loom drawing: parts beside the board, wires as lanes"
    >
      {loom.cables.map((c) => (
        <path
          key={c.from}
          d={c.path}
          fill="none"
          className="stroke-soft"
          strokeWidth={ends.has(c.from) ? 7 : 4}
          strokeLinejoin="round"
          opacity="0.6"
        />
      ))}
      {loom.nets.map((n) => (
        <g key={n.id} opacity={isOn(n) ? 1 : 0.28} onMouseEnter={() => light([n.name])} onMouseLeave={() => light([])}>
          <path d={n.path} fill="none" stroke="transparent" strokeWidth="8" />
          <path
            d={n.path}
            fill="none"
            stroke={STROKE[n.colour] ?? "var(--ink)"}
            strokeWidth={isOn(n) && (anyLit || wanted) ? 3.2 : 1.7}
          />
          {n.dots.map(([x, y], i) => (
            <circle key={i} cx={x} cy={y} r="2.6" fill={STROKE[n.colour] ?? "var(--ink)"} />
          ))}
          <text
            x={n.tag[0] + 3}
            y={n.tag[1]}
            fontSize="8"
            transform={`rotate(-90 ${n.tag[0] + 3} ${n.tag[1]})`}
            textAnchor="middle"
            className="fill-ink"
            stroke="var(--sheet)"
            strokeWidth="3"
            paintOrder="stroke"
          >
            {n.name}
          </text>
        </g>
      ))}
      {loom.boxes.map((b) => (
        <g key={b.ref}>
          <rect
            x={b.x}
            y={b.y}
            width={b.w}
            height={b.h}
            className={lit.has(b.ref) || lookAt === b.ref ? "fill-wash stroke-accent" : "fill-paper stroke-ink"}
            strokeWidth={lookAt === b.ref ? 2.5 : 1}
            strokeDasharray={b.kind === "companion" ? "4 2" : undefined}
          />
          <text x={b.x + b.w / 2} y={b.y + 13} fontSize="11" fontWeight="700" textAnchor="middle" className="fill-ink">
            {`${b.ref} ${b.label === b.ref ? "" : b.label}`.trim().slice(0, 22)}
          </text>
          <text x={b.x + b.w / 2} y={b.y + 24} fontSize="7.5" textAnchor="middle" className="fill-soft">
            {b.name.slice(0, 29)}
          </text>
          {b.pins.map((p) => (
            <g key={p.end}>
              <circle
                cx={p.x}
                cy={p.y}
                r={ends.has(p.end) || lit.has(p.end) ? 5 : 2.6}
                className={p.used ? "fill-ink stroke-ink" : "fill-sheet stroke-soft"}
              />
              <text
                x={p.x + (p.side === "left" ? 8 : -8)}
                y={p.y + 3.5}
                fontSize="9.5"
                textAnchor={p.side === "left" ? "start" : "end"}
                fontWeight={ends.has(p.end) ? 700 : 400}
                className={p.used ? "fill-ink" : "fill-soft"}
              >
                {p.label}
              </text>
            </g>
          ))}
        </g>
      ))}
    </svg>
  );
}
