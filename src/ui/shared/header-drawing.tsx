import type { HeaderRow } from "@/core/parts/catalogue";

const STEP = 26;
const EDGE = 14;
const LABEL = 62;

/** A hole: ground is filled, a supply has a plus in it, so that nobody needs to read to see them exchanged. */
function Hole({
  x,
  y,
  square,
  power,
}: {
  x: number;
  y: number;
  square: boolean;
  power?: "supply" | "ground" | undefined;
}) {
  const look = `${power === "ground" ? "fill-ink" : "fill-sheet"} stroke-ink`;
  return (
    <>
      {square ? (
        <rect x={x - 5} y={y - 5} width={10} height={10} className={look} strokeWidth={1.5} />
      ) : (
        <circle cx={x} cy={y} r={5} className={look} strokeWidth={1.5} />
      )}
      {power === "supply" && <path d={`M${x - 3} ${y}h6M${x} ${y - 3}v6`} className="stroke-ink" strokeWidth={1.5} />}
    </>
  );
}

/** Labels turned upwards over a row of pins; the first pin is a square, as on boards. */
function Row({ pins, y, up, x0 }: { pins: HeaderRow["pins"]; y: number; up: boolean; x0: number }) {
  return pins.map((p, i) => {
    const x = x0 + i * STEP;
    return (
      <g key={`${p.label}${p.index}`}>
        <Hole x={x} y={y} square={p.index === 1} power={p.power} />
        <text
          transform={`translate(${x + 4} ${up ? y - 12 : y + 12}) rotate(${up ? -90 : 90})`}
          textAnchor="start"
          fontSize={12}
          dy={up ? 0 : 8}
          className="fill-ink font-mono"
        >
          {p.label}
        </text>
      </g>
    );
  });
}

function Column({ pins, x, left }: { pins: HeaderRow["pins"]; x: number; left: boolean }) {
  return pins.map((p, i) => {
    const y = EDGE + 8 + i * 18;
    return (
      <g key={`${p.label}${p.index}`}>
        <Hole x={x} y={y} square={p.index === 1 && left} power={p.power} />
        <text
          x={left ? x - 18 : x + 18}
          y={y + 4}
          textAnchor={left ? "end" : "start"}
          fontSize={12}
          className="fill-ink font-mono"
        >
          {p.label}
        </text>
      </g>
    );
  });
}

/** The part as seen from the top: its pins in printed order, the first one square. Two long rows stand upright. */
export function HeaderDrawing({
  headers,
  name,
  small,
  plain,
}: {
  headers: HeaderRow[];
  name: string;
  small?: boolean;
  /** Without the line below: it stands where that is said already. */
  plain?: boolean;
}) {
  const caption = plain ? null : (
    <figcaption className="text-sm text-soft">
      Seen from the top. The square is pin 1, a filled hole is ground, a plus is a supply.
    </figcaption>
  );
  const upright = headers.some((h) => h.side === "left" || h.side === "right");
  const words = `${name}, seen from the top: ${headers.map((h) => `${h.side} ${h.pins.map((p) => p.label).join(", ")}`).join("; ")}`;
  if (upright) {
    const left = headers.filter((h) => h.side === "left").flatMap((h) => h.pins);
    const right = headers.filter((h) => h.side === "right").flatMap((h) => h.pins);
    const others = headers.filter((h) => h.side === "top" || h.side === "bottom");
    const rows = Math.max(left.length, right.length, 1);
    const [w, h] = [2 * LABEL + 120, rows * 18 + 2 * EDGE];
    return (
      <figure>
        <svg viewBox={`0 0 ${w} ${h}`} role="img" aria-label={words} width={w} className="h-auto max-w-full">
          <rect x={LABEL + 6} y={2} width={108} height={h - 4} className="fill-paper stroke-ink" />
          <path d={`M${LABEL + 46} 2a14 14 0 0 0 28 0`} className="fill-none stroke-ink" />
          <Column pins={left} x={LABEL + 18} left />
          <Column pins={right} x={LABEL + 102} left={false} />
        </svg>
        {others.map((o, i) => (
          <p key={i} className="num text-sm text-soft">
            {o.says || o.side}: {o.pins.map((p) => p.label).join(" ")}
          </p>
        ))}
        {caption}
      </figure>
    );
  }
  const bottom = headers.filter((h) => h.side === "bottom").flatMap((h) => h.pins);
  const top = headers.filter((h) => h.side === "top").flatMap((h) => h.pins);
  const most = Math.max(bottom.length, top.length, 2);
  const longest = Math.max(...[...bottom, ...top].map((p) => p.label.length), 3);
  const label = longest * 7.4 + 16;
  const w = Math.max(most * STEP + 2 * EDGE, 120);
  const body = small ? 36 : 56;
  const above = top.length ? label : 4;
  const h = above + body + label;
  const start = (n: number) => (w - (n - 1) * STEP) / 2;
  return (
    <figure className={small ? "mt-1" : ""}>
      <svg viewBox={`0 0 ${w} ${h}`} role="img" aria-label={words} width={w} className="h-auto max-w-full">
        <rect x={4} y={above} width={w - 8} height={body} className="fill-paper stroke-ink" />
        <Row pins={top} y={above + 10} up x0={start(top.length)} />
        <Row pins={bottom} y={above + body - 10} up={false} x0={start(bottom.length)} />
      </svg>
      {caption}
    </figure>
  );
}
