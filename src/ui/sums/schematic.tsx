import type { Drawing, Item, Point } from "@/core/sums/drawing";

const U = 26;
const at = ([x, y]: Point) => [x * U, y * U] as const;

/** The body of a two-legged part drawn along the x axis, its middle at the origin, `L` long. */
function Body({ kind }: { kind: Extract<Item, { from: Point }>["kind"] }) {
  switch (kind) {
    case "resistor":
    case "sensor":
      return (
        <g>
          <rect x={-18} y={-6.5} width={36} height={13} className="fill-sheet" />
          {kind === "sensor" && <path d="M-13 14L13 -14M6 -14H13V-7" fill="none" />}
        </g>
      );
    case "capacitor":
      return (
        <g>
          <rect x={-4} y={-12} width={8} height={24} className="fill-sheet" stroke="none" />
          <path d="M-4 -12V12M4 -12V12" strokeWidth="2.2" />
        </g>
      );
    case "led":
    case "diode":
      return (
        <g>
          <path d="M-9 -9L9 0L-9 9Z" className="fill-sheet" />
          <path d="M9 -9V9" strokeWidth="2.2" />
          {kind === "led" && <path d="M-3 -12L3 -19M0 -19H3V-16M5 -12L11 -19M8 -19H11V-16" fill="none" />}
        </g>
      );
    case "contact":
      return (
        <g>
          <rect x={-14} y={-4} width={28} height={8} className="fill-sheet" stroke="none" />
          <circle cx={-14} cy={0} r={2.6} className="fill-sheet" />
          <circle cx={14} cy={0} r={2.6} className="fill-sheet" />
          <path d="M-12 -1.5L13 -12" />
        </g>
      );
    case "coil":
      return <rect x={-18} y={-8} width={36} height={16} className="fill-ink" fillOpacity={0.28} />;
  }
}

function Two({ item }: { item: Extract<Item, { from: Point }> }) {
  const [x1, y1] = at(item.from);
  const [x2, y2] = at(item.to);
  const upright = x1 === x2;
  const [mx, my] = [(x1 + x2) / 2, (y1 + y2) / 2];
  const turn = (Math.atan2(y2 - y1, x2 - x1) * 180) / Math.PI;
  return (
    <g>
      <path d={`M${x1} ${y1}L${x2} ${y2}`} />
      <g transform={`translate(${mx} ${my}) rotate(${turn})`}>
        <Body kind={item.kind} />
      </g>
      <g stroke="none" className="fill-ink" fontSize="12.5">
        <text
          x={upright ? mx + 15 : mx}
          y={upright ? my - 2 : my - (item.kind === "led" ? 25 : 17)}
          textAnchor={upright ? "start" : "middle"}
          className="fill-soft"
        >
          {item.name}
        </text>
        <text
          x={upright ? mx + 15 : mx}
          y={upright ? my + 13 : my + 25}
          textAnchor={upright ? "start" : "middle"}
          fontWeight="700"
          className="num"
        >
          {item.value}
        </text>
      </g>
    </g>
  );
}

function Transistor({ item }: { item: Extract<Item, { kind: "npn" | "nmos" }> }) {
  const [x, y] = at(item.at);
  return (
    <g>
      <circle cx={x - 3} cy={y} r={18} className="fill-sheet" />
      {item.kind === "npn" ? (
        <path
          d={`M${x - U} ${y}H${x - 9}M${x - 9} ${y - 11}V${y + 11}M${x - 9} ${y - 5}L${x} ${y - 13}V${y - U}M${x - 9} ${y + 5}L${x} ${y + 13}V${y + U}M${x - 1} ${y + 6}L${x} ${y + 13}L${x - 7} ${y + 12}`}
          fill="none"
        />
      ) : (
        <path
          d={`M${x - U} ${y}H${x - 13}M${x - 13} ${y - 10}V${y + 10}M${x - 8} ${y - 11}V${y + 11}M${x - 8} ${y - 8}H${x}V${y - U}M${x - 8} ${y + 8}H${x}V${y + U}M${x - 8} ${y}H${x}V${y + 8}M${x - 4} ${y - 3}L${x - 8} ${y}L${x - 4} ${y + 3}`}
          fill="none"
        />
      )}
      <text x={x + 20} y={y + 4} stroke="none" fontSize="12.5" className="fill-soft">
        {item.name}
      </text>
    </g>
  );
}

function Mark({ item }: { item: Item }) {
  switch (item.kind) {
    case "wire":
      return <path d={`M${item.points.map((p) => at(p).join(" ")).join("L")}`} fill="none" />;
    case "dot": {
      const [x, y] = at(item.at);
      return <circle cx={x} cy={y} r={3} className="fill-ink" stroke="none" />;
    }
    case "rail": {
      const [x, y] = at(item.at);
      return (
        <g>
          <path d={`M${x - 11} ${y}H${x + 11}`} strokeWidth="2.4" />
          <text
            x={x}
            y={y - 7}
            textAnchor="middle"
            stroke="none"
            fontSize="12.5"
            fontWeight="700"
            className="num fill-ink"
          >
            {item.name}
          </text>
        </g>
      );
    }
    case "ground": {
      const [x, y] = at(item.at);
      return (
        <path
          d={`M${x} ${y}V${y + 7}M${x - 11} ${y + 7}H${x + 11}M${x - 7} ${y + 11}H${x + 7}M${x - 3} ${y + 15}H${x + 3}`}
        />
      );
    }
    case "pin": {
      const [x, y] = at(item.at);
      const left = item.side === "left";
      return (
        <g>
          <path d={left ? `M${x} ${y}l-8 -7h-10v14h10z` : `M${x} ${y}l8 -7h10v14h-10z`} className="fill-wash" />
          <text
            x={left ? x - 22 : x + 22}
            y={y + 4.5}
            textAnchor={left ? "end" : "start"}
            stroke="none"
            fontSize="12.5"
            className="fill-ink"
          >
            {item.name}
          </text>
        </g>
      );
    }
    case "note": {
      const [x, y] = at(item.at);
      return (
        <g>
          <path d={`M${x} ${y - 70}V${y + 70}`} strokeDasharray="4 4" />
          <text x={x + 5} y={y - 58} stroke="none" fontSize="12" className="fill-soft">
            {item.name}
          </text>
        </g>
      );
    }
    case "npn":
    case "nmos":
      return <Transistor item={item} />;
    default:
      return <Two item={item} />;
  }
}

/** A hook-up as a small line drawing with its values. */
export function Schematic({ drawing }: { drawing: Drawing }) {
  const pad = 52;
  const [w, h] = [drawing.width * U, drawing.height * U];
  return (
    <svg
      viewBox={`${-pad} -8 ${w + 2 * pad} ${h + 18}`}
      className="w-full max-w-md bg-sheet stroke-ink"
      strokeWidth="1.4"
      strokeLinejoin="round"
      role="img"
      aria-label={drawing.says}
    >
      {drawing.items.map((item, i) => (
        <Mark key={i} item={item} />
      ))}
    </svg>
  );
}
