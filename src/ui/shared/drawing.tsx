import type { ReactNode, Ref } from "react";
import { patternOf, type Drawing, type Paint, type Shape } from "@/core/drawing";
import { lineOf } from "@/ui/shared/wire-colours";

const VAR: Record<Exclude<Paint, object>, string> = {
  ink: "var(--ink)",
  soft: "var(--soft)",
  line: "var(--line)",
  paper: "var(--sheet)",
  wash: "var(--wash)",
};

function look(s: Shape, plain: boolean, lit: ReadonlySet<string>) {
  const paint = (p: Paint | undefined) =>
    p === undefined ? "none" : typeof p === "string" ? VAR[p] : plain ? VAR.ink : lineOf(p.wire);
  const on = s.of !== undefined && lit.has(s.of);
  const width = (s.width ?? 1) * (on && typeof s.stroke === "object" ? 2 : 1);
  const wire = typeof s.stroke === "object" && plain ? patternOf(s.stroke.wire).map((x) => x * width) : [];
  const dash = s.dash ?? wire;
  return {
    fill: on && s.kind === "rect" ? VAR.wash : s.kind === "text" ? paint(s.fill ?? "ink") : paint(s.fill),
    ...(s.stroke && { stroke: paint(s.stroke), strokeWidth: width }),
    ...(dash.length > 0 && { strokeDasharray: dash.join(" ") }),
    ...(s.opacity !== undefined && { opacity: s.opacity }),
  };
}

function One({ s, plain, lit }: { s: Shape; plain: boolean; lit: ReadonlySet<string> }) {
  const style = { ...look(s, plain, lit), ...(s.of !== undefined && { "data-place": s.of }) };
  if (s.kind === "path") return <path d={s.d} {...style} />;
  if (s.kind === "rect") return <rect x={s.x} y={s.y} width={s.w} height={s.h} {...style} />;
  if (s.kind === "circle") return <circle cx={s.x} cy={s.y} r={s.r} {...style} />;
  return (
    <text
      x={s.x}
      y={s.y}
      fontSize={s.size}
      textAnchor={s.anchor ?? "start"}
      fontWeight={s.bold ? 700 : 400}
      transform={s.turn ? `rotate(${s.turn} ${s.x} ${s.y})` : undefined}
      {...style}
    >
      {s.text}
    </text>
  );
}

const NOTHING: ReadonlySet<string> = new Set();

/** A drawing of the core on the screen, in the colours of the theme; what lies over it is handed in. */
export function DrawingView({
  drawing,
  says,
  plain = false,
  lit = NOTHING,
  className,
  svg,
  children,
}: {
  drawing: Drawing;
  says: string;
  plain?: boolean;
  lit?: ReadonlySet<string>;
  className?: string;
  svg?: Ref<SVGSVGElement>;
  children?: ReactNode;
}) {
  return (
    <svg
      ref={svg}
      viewBox={`${drawing.x} ${drawing.y} ${drawing.width} ${drawing.height}`}
      className={`font-mono ${className ?? ""}`}
      role={children ? "group" : "img"}
      aria-label={says}
    >
      {drawing.shapes.map((s, i) => (
        <One key={i} s={s} plain={plain} lit={lit} />
      ))}
      {children}
    </svg>
  );
}
