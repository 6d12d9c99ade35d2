"use client";
import { useKept } from "@/ui/state/kept";
import type { At, CarrierPlan } from "@/core/build/solder";
import type { Project } from "@/core/project";
import { Tabs } from "@/ui/shared/tabs";
import { core } from "@/ui/state/core";
import { Plug } from "./plug";
import { useCore } from "./use-core";

const ask = (p: Project) => core().carriers(p);

const KINDS = [
  { id: "strips", name: "Stripboard" },
  { id: "plain", name: "Board without strips" },
  { id: "plug", name: "Plug-on board" },
] as const;
type Kind = (typeof KINDS)[number]["id"];

/** Screen units from hole to hole. */
const STEP = 12;
const x = (column: number) => (column + 0.5) * STEP;
const y = (row: number) => (row + 0.5) * STEP;

/** Runs of rows as people read them out: 1 to 20, 24. */
function runs(rows: readonly number[]): string {
  const out: [number, number][] = [];
  for (const r of [...rows].sort((a, b) => a - b)) {
    const last = out.at(-1);
    if (last && last[1] === r - 1) last[1] = r;
    else out.push([r, r]);
  }
  return out.map(([a, b]) => (a === b ? `${a}` : b === a + 1 ? `${a}, ${b}` : `${a} to ${b}`)).join(", ");
}

const where = (a: At | null, otherwise = "") => (a ? `${a.row}/${a.column}` : otherwise);

/** The board from the side with the parts. Drawn here and not by a library: holes, strips and cuts are the heart of the job. */
function Picture({ plan, kind }: { plan: CarrierPlan; kind: Kind }) {
  const strips = kind === "strips";
  return (
    <svg
      viewBox={`0 0 ${x(plan.columns + 1)} ${y(plan.rows + 1)}`}
      className="w-full max-w-[560px] border border-line"
      role="img"
      aria-label={`Board ${plan.board + 1}: ${plan.columns} by ${plan.rows} holes, seen from the side with the parts`}
    >
      {plan.pieces
        .filter((p) => strips || p.from !== p.to)
        .map((p) => (
          <line
            key={`${p.row} ${p.from}`}
            x1={x(p.from)}
            x2={x(p.to)}
            y1={y(p.row)}
            y2={y(p.row)}
            className="stroke-line"
            strokeWidth={strips ? 7 : 3}
            strokeLinecap="round"
          />
        ))}
      {plan.rails.map((r) => (
        <line
          key={`${r.column} ${r.net}`}
          x1={x(r.column)}
          x2={x(r.column)}
          y1={y(r.rows[0]!)}
          y2={y(r.rows.at(-1)!)}
          className="stroke-soft"
          strokeWidth={2}
        />
      ))}
      {strips &&
        plan.cuts.map((c) => (
          <path
            key={`${c.row} ${c.column}`}
            d={`M${x(c.column) - 3} ${y(c.row) - 3}l6 6m0 -6l-6 6`}
            className="stroke-fault"
            strokeWidth={1.5}
          />
        ))}
      {plan.wires.map((w, i) =>
        w.a && w.b ? (
          <line
            key={i}
            x1={x(w.a.column)}
            y1={y(w.a.row)}
            x2={x(w.b.column)}
            y2={y(w.b.row)}
            className="stroke-accent"
            strokeWidth={1.5}
          />
        ) : null,
      )}
      {plan.wires.flatMap((w, i) =>
        [w.a, w.b].map((a, k) =>
          a ? <circle key={`${i} ${k}`} cx={x(a.column)} cy={y(a.row)} r={2.5} className="fill-accent" /> : null,
        ),
      )}
      {plan.parts.map((p) => (
        <g key={p.ref}>
          {p.pins.map((pin) => (
            <rect
              key={pin.pin}
              x={x(pin.at.column) - 2.5}
              y={y(pin.at.row) - 2.5}
              width={5}
              height={5}
              className="fill-ink"
            />
          ))}
          <text
            x={x(p.pins[0]!.at.column) + 5}
            y={y(p.pins[0]!.at.row) - 3}
            fontSize={9}
            className="fill-ink font-bold"
          >
            {p.ref}
          </text>
        </g>
      ))}
      {Array.from({ length: Math.floor(plan.rows / 5) }, (_, i) => (i + 1) * 5).map((row) => (
        <text key={row} x={1} y={y(row) + 3} fontSize={8} className="num fill-soft">
          {row}
        </text>
      ))}
    </svg>
  );
}

function Steps({ plan, kind }: { plan: CarrierPlan; kind: Kind }) {
  const byColumn = new Map<number, number[]>();
  for (const c of plan.cuts) byColumn.set(c.column, [...(byColumn.get(c.column) ?? []), c.row]);
  const joined = plan.pieces.filter((p) => p.from !== p.to);
  return (
    <ol className="list-decimal pl-6">
      {kind === "strips" ? (
        <li className="border-b border-line py-1">
          Cut the strips first, <span className="num">{plan.cuts.length}</span>{" "}
          {plan.cuts.length === 1 ? "cut" : "cuts"} with a 3 mm drill turned by hand, and look through each against a
          light.
          {[...byColumn]
            .sort(([a], [b]) => a - b)
            .map(([column, rows]) => (
              <span key={column} className="block text-sm">
                Column <span className="num">{column}</span>: rows <span className="num">{runs(rows)}</span>
              </span>
            ))}
        </li>
      ) : (
        <li className="border-b border-line py-1">
          Join on the back with bare wire, <span className="num">{joined.length}</span>{" "}
          {joined.length === 1 ? "piece" : "pieces"}.
          {joined.map((p) => (
            <span key={`${p.row} ${p.from}`} className="block text-sm">
              Row <span className="num">{p.row}</span>, columns{" "}
              <span className="num">
                {p.from} to {p.to}
              </span>
              : {p.net}
            </span>
          ))}
        </li>
      )}
      {plan.rails.length > 0 && (
        <li className="border-b border-line py-1">
          Bare wires down the board in place of rails, laid before the parts and soldered only at these rows.
          {plan.rails.map((r) => (
            <span key={`${r.column} ${r.net}`} className="block text-sm">
              {r.net}, column <span className="num">{r.column}</span>: rows <span className="num">{runs(r.rows)}</span>
            </span>
          ))}
        </li>
      )}
      <li className="border-b border-line py-1">
        Wires from hole to hole, insulated: row/column to row/column.
        <span className="block columns-2 text-sm">
          {plan.wires.map((w, i) => (
            <span key={i} className="block">
              <span className="num">
                {where(w.a, w.from)} – {where(w.b, w.to)}
              </span>{" "}
              {w.net}
            </span>
          ))}
        </span>
      </li>
      <li className="border-b border-line py-1">
        Parts, low ones first, each with its first leg in:
        <span className="block columns-2 text-sm">
          {plan.parts.map((p) => (
            <span key={p.ref} className="block">
              {p.ref}.{p.pins[0]!.pin} <span className="num">{where(p.pins[0]!.at)}</span>
            </span>
          ))}
        </span>
      </li>
    </ol>
  );
}

/** The placement of the breadboard, copied onto strips or plain holes. */
function AsPlaced({ plans, kind }: { plans: CarrierPlan[]; kind: Kind }) {
  const trouble = plans.flatMap((p) => p.trouble);
  return (
    <>
      {trouble.length ? (
        <ul className="mt-2 border-l-4 border-fault pl-3">
          {trouble.slice(0, 6).map((t) => (
            <li key={t}>{t}</li>
          ))}
        </ul>
      ) : (
        <p className="mt-2" data-testid="carrier-proven">
          Followed over the copper, hole by hole: every net is joined, and nothing else. Rows and parts stand as on the
          breadboard, so that one can be copied from the other.
        </p>
      )}
      {plans.map((p) => (
        <div key={p.board} className="mt-3 grid gap-x-8 gap-y-3 xl:grid-cols-2">
          <div>
            <p className="pb-1">
              {plans.length > 1 ? `Board ${p.board + 1}: ` : ""}
              <span className="num">
                {p.columns} × {p.rows}
              </span>{" "}
              holes, <span className="num">{p.mm.join(" × ")} mm</span>, seen from the side with the parts. Row and
              column are counted from the upper left there
              {kind === "strips" ? "; the cuts are on the other side, where column 1 is on the right" : ""}.
            </p>
            <Picture plan={p} kind={kind} />
          </div>
          <Steps plan={p} kind={kind} />
        </div>
      ))}
    </>
  );
}

/** The placement as boards to solder, or a board for the header: what lies where, and that it was followed from hole to hole. */
export function Carrier({ needed }: { needed: boolean }) {
  const plans = useCore(ask);
  const [kind, setKind] = useKept<Kind>("carrier", "strips");
  if (!plans) return <p className="mt-4 text-soft">Laying out the board…</p>;
  if (!plans.length) return null;
  return (
    <section className="mt-5" aria-label="Board to solder, hole by hole">
      <h2 className="font-bold">
        {needed ? "Board to solder, hole by hole" : "A board all the same? Then hole by hole"}
      </h2>
      <Tabs<Kind> label="Kind of board" tabs={KINDS} tab={kind} go={setKind}>
        {kind === "plug" ? <Plug /> : <AsPlaced plans={plans} kind={kind} />}
      </Tabs>
    </section>
  );
}
