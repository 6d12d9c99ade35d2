"use client";
import { sankey, sankeyLinkHorizontal, type SankeyLink, type SankeyNode } from "d3-sankey";
import { airOf } from "@/core/project/place";
import type { PowerView, RiverLink, RiverNode } from "@/workers/power-view";
import { useLit } from "@/ui/state/lit";
import { useProject } from "@/ui/state/project";
import { mA, share, volts } from "./words";

type Node = SankeyNode<RiverNode, RiverLink>;
type Link = SankeyLink<RiverNode, RiverLink>;

const WIDTH = 860;
const LEFT = 8;
const RIGHT = 236;
/** Streams thinner than this can't be seen. */
const THIN = 2;

/** Lays the flow out: sources left, loads right, widths by their peaks. */
function layOut(view: PowerView["river"]) {
  const loads = view.nodes.filter((n) => n.kind === "load").length;
  const height = Math.max(190, loads * 40 + 70);
  const most = Math.max(1, ...view.links.map((l) => l.peak_mA));
  const made = sankey<RiverNode, RiverLink>()
    .nodeId((n) => n.id)
    .nodeWidth(9)
    .nodePadding(31)
    .nodeSort(null)
    .extent([
      [LEFT, 40],
      [WIDTH - RIGHT, height - 22],
    ])({
    nodes: view.nodes.map((n) => ({ ...n })),
    links: view.links.map((l) => ({ ...l, source: l.from, target: l.to, value: Math.max(l.peak_mA, most * 0.012) })),
  });
  return { ...made, height };
}

function Stream({ link, lit }: { link: Link; lit: boolean }) {
  const d = sankeyLinkHorizontal<RiverNode, RiverLink>()(link) ?? "";
  const width = Math.max(THIN, link.width ?? 0);
  const inner = link.peak_mA > 0 ? Math.max(1, (width * link.typ_mA) / link.peak_mA) : 1;
  return (
    <g fill="none" className={lit ? "stroke-ink" : "stroke-accent"}>
      <path d={d} strokeWidth={width} strokeOpacity={0.25} />
      <path d={d} strokeWidth={inner} strokeOpacity={0.55} />
    </g>
  );
}

/** A source or regulator: its bar, and the banks that its limit leaves. */
function Gate({ node }: { node: Node }) {
  const [x0, x1, y0, y1] = [node.x0!, node.x1!, node.y0!, node.y1!];
  const over = node.limit_mA !== null && node.peak_mA > node.limit_mA * 1.0001;
  const k = (y1 - y0) / Math.max(node.peak_mA, 1e-6);
  const bank = node.limit_mA === null ? null : Math.min(node.limit_mA * k, y1 - y0 + 26);
  const mid = (y0 + y1) / 2;
  return (
    <g>
      <rect
        x={x0}
        y={y0}
        width={x1 - x0}
        height={Math.max(THIN, y1 - y0)}
        className={over ? "fill-stop" : node.kind === "load" ? "fill-soft" : "fill-ink"}
      />
      {bank !== null && (
        <path
          d={`M${x0 - 4} ${mid - bank / 2}H${x1 + 4}M${x0 - 4} ${mid + bank / 2}H${x1 + 4}`}
          className={over ? "stroke-stop" : "stroke-ink"}
          strokeWidth="2"
        />
      )}
    </g>
  );
}

function Words({ node }: { node: Node }) {
  const over = node.limit_mA !== null && node.peak_mA > node.limit_mA * 1.0001;
  const mid = (node.y0! + node.y1!) / 2;
  if (node.kind === "load")
    return (
      <text x={node.x1! + 8} y={mid} className="fill-ink" fontSize="13">
        <tspan dy="-1">{node.label.length > 24 ? `${node.label.slice(0, 23)}…` : node.label}</tspan>
        <tspan x={node.x1! + 8} dy="14" fontSize="12" className="num fill-soft">
          {mA(node.typ_mA)} · peak {mA(node.peak_mA)}
          {node.arrives && (
            <tspan className={node.arrives.short ? "fill-stop" : ""}> · {volts(node.arrives.typ)}</tspan>
          )}
        </tspan>
      </text>
    );
  // What flows upwards would run through the words: then they stand before the gate, where there is room for them.
  const rising = (node.sourceLinks ?? []).some((l) => (l.target as Node).y0! < node.y0! - 12);
  const before = rising && node.x0! > 160;
  const x = before ? node.x0! - 9 : node.x1! + 9;
  return (
    <g
      textAnchor={before ? "end" : "start"}
      fontSize="13"
      className="fill-ink"
      stroke="var(--sheet)"
      strokeWidth="3.5"
      style={{ paintOrder: "stroke" }}
    >
      <text x={x} y={node.y0! - 22}>
        <tspan fontWeight="700">{node.label.length > 20 ? `${node.label.slice(0, 19)}…` : node.label}</tspan>
        {node.V && <tspan className="num"> {volts(node.V.typ)}</tspan>}
      </text>
      <text
        x={x}
        y={node.y0! - 7}
        fontSize="12"
        fontWeight={over ? 700 : 400}
        className={`num ${over ? "fill-stop" : "fill-soft"}`}
      >
        {mA(node.peak_mA)}
        {node.limit_mA !== null && ` of ${mA(node.limit_mA)}${over ? ": over" : ""}`}
      </text>
      {node.heat && node.heat.W > 0.1 && (
        <text
          x={x}
          y={node.y1! + 15}
          fontSize="12"
          fontWeight={node.heat.C > 100 ? 700 : 400}
          className={node.heat.C > 100 ? "fill-stop" : "fill-soft"}
        >
          {node.heat.W.toFixed(2)} W, {Math.round(node.heat.C)} °C inside{node.heat.assumed ? " (case assumed)" : ""}
        </text>
      )}
    </g>
  );
}

/** Power as a river: from sources through regulators to loads; the dark core is the usual current, the pale banks the peak. */
export function River({ view }: { view: PowerView["river"] }) {
  const { light, project } = useProject();
  const lit = useLit();
  if (!view.links.length)
    return (
      <p className="mt-2">Nothing flows yet. Add a USB port or an adapter at Parts and let the pins be planned.</p>
    );
  const { nodes, links, height } = layOut(view);
  const says = view.nodes
    .filter((n) => n.kind !== "load")
    .map(
      (n) =>
        `${n.label} ${mA(n.peak_mA)}${n.limit_mA === null ? "" : ` of ${mA(n.limit_mA)}, ${share(n.peak_mA / n.limit_mA)}`}`,
    )
    .join("; ");
  return (
    <figure className="overflow-x-auto" tabIndex={0} aria-label="Flow of the supplies">
      <svg
        viewBox={`0 0 ${WIDTH} ${height}`}
        className="w-full min-w-[640px]"
        role="img"
        aria-label={`Flow at peak: ${says}`}
      >
        {links.map((l, i) => (
          <Stream key={i} link={l} lit={lit.has((l.target as Node).ref)} />
        ))}
        {nodes.map((n) => (
          <g key={n.id} data-place={n.ref} onMouseEnter={() => light([n.ref])} onMouseLeave={() => light([])}>
            <Gate node={n} />
            <Words node={n} />
          </g>
        ))}
      </svg>
      <figcaption className="text-sm text-soft">
        Width is current: dark the usual one, pale the peak. Bars across a gate are its limit; volts are what arrives.
        Heat is at the usual current in air of {airOf(project).max_C} °C.
      </figcaption>
    </figure>
  );
}
