"use client";
import { count } from "@/core/quantity/count";
import { columnsOf, Table } from "@/ui/shared/table";
import { useKept } from "@/ui/state/kept";
import { useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import { Printer, RotateCw } from "lucide-react";
import type { Project } from "@/core/project";
import type { BreadboardView, HeldPart } from "@/workers/breadboard-view";
import { SIZE_IDS, SIZES, type SizeId } from "@/core/build/breadboard/sizes";
import type { Spot } from "@/core/build/breadboard/spots";
import { DrawingView } from "@/ui/shared/drawing";
import { Download } from "@/ui/shared/download";
import { Zoom } from "@/ui/shared/zoom";
import { core } from "@/ui/state/core";
import { useLit } from "@/ui/state/lit";
import { useProject } from "@/ui/state/project";
import { useCore } from "./use-core";
import { Checkbox } from "@/ui/shared/checkbox";
import { Switch } from "@/ui/shared/switch";
import { Select } from "@/ui/shared/select";

const ask = (p: Project) => core().breadboard(p);

/** The spot some rows down and some columns across; a strip jumps to the other half, others go column by column. */
function shifted(part: HeldPart, rows: number, columns: number): Spot {
  const { spot } = part;
  const row = Math.max(1, spot.row + rows);
  const to = spot.to && { ...spot.to, row: Math.max(1, spot.to.row + rows) };
  const base: Spot = { ...spot, row, ...(to && { to }) };
  if (!columns) return base;
  if (part.kind === "strip") return { ...base, half: columns < 0 ? "left" : "right" };
  const all = "abcdefghij";
  const letter = spot.letter ?? (part.kind === "straddle" ? "e" : spot.half === "left" ? "d" : "g");
  const next = all[Math.min(9, Math.max(0, all.indexOf(letter) + columns))]!;
  if (part.kind === "straddle") return all.indexOf(next) < 5 ? { ...base, letter: next } : base;
  const half = all.indexOf(next) < 5 ? ("left" as const) : ("right" as const);
  if (to && to.half === spot.half) return { ...base, half, letter: next, to: { ...to, half, letter: next } };
  return to ? base : { ...base, half, letter: next };
}

/** Takes hold of a part: with the mouse by holes, or with the arrow keys; R turns it round. */
function Handle({
  part,
  unit,
  move,
  light,
}: {
  part: HeldPart;
  unit(): number;
  /** What becomes of its spot, from where it is by now. */
  move(to: (p: HeldPart) => Spot): void;
  light(refs: string[]): void;
}) {
  const [drag, setDrag] = useState<{ x: number; y: number; dx: number; dy: number } | null>(null);
  const { area } = part;
  const steps = drag ? [Math.round(drag.dx), Math.round(drag.dy)] : [0, 0];
  const key = (e: KeyboardEvent) => {
    const to = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[e.key];
    if (to) {
      e.preventDefault();
      move((p) => shifted(p, to[0]! * (e.shiftKey ? 5 : 1), to[1]!));
    } else if ((e.key === "r" || e.key === "R") && part.kind !== "strip" && part.kind !== "bridge")
      move((p) => ({ ...p.spot, turn: !p.spot.turn }));
  };
  return (
    <g
      transform={drag ? `translate(${steps[0]} ${steps[1]})` : undefined}
      tabIndex={0}
      role="button"
      aria-label={`${part.ref} ${part.label}: ${part.holes}. Arrow keys move it`}
      data-part={part.ref}
      className="part cursor-grab outline-none [&:focus-visible>rect]:stroke-accent"
      onPointerDown={(e: PointerEvent<SVGGElement>) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        setDrag({ x: e.clientX, y: e.clientY, dx: 0, dy: 0 });
      }}
      onPointerMove={(e) =>
        drag && setDrag({ ...drag, dx: (e.clientX - drag.x) / unit(), dy: (e.clientY - drag.y) / unit() })
      }
      onPointerUp={() => {
        if (steps[0] || steps[1]) {
          // Across the trench a strip changes halves; a small sideways slip of it means nothing.
          const columns = part.kind === "strip" ? (Math.abs(steps[0]!) > 5 ? steps[0]! : 0) : steps[0]!;
          move((p) => shifted(p, steps[1]!, columns));
        }
        setDrag(null);
      }}
      onPointerCancel={() => setDrag(null)}
      onKeyDown={key}
      onMouseEnter={() => light([part.ref])}
      onMouseLeave={() => light([])}
    >
      <rect
        x={area.x1}
        y={area.y1}
        width={area.x2 - area.x1}
        height={area.y2 - area.y1}
        fill="transparent"
        stroke={drag ? "var(--accent)" : undefined}
        className={drag ? undefined : "stroke-transparent"}
        strokeWidth="0.2"
      />
    </g>
  );
}

function Boards({ view, change }: { view: BreadboardView; change(b: SizeId[]): void }) {
  return (
    <fieldset className="mt-3">
      <legend className="font-bold">Breadboards</legend>
      {view.sizes.map((s, i) => (
        <div key={i} className="mt-1 flex items-center gap-2">
          <Select
            label={`Breadboard ${i + 1}`}
            value={s}
            options={SIZE_IDS.map((id) => ({ value: id, name: `${SIZES[id].points} points` }))}
            onChange={(v) => change(view.sizes.map((x, k) => (k === i ? v : x)))}
          />
          {view.sizes.length > 1 && (
            <button className="btn" onClick={() => change(view.sizes.filter((_, k) => k !== i))}>
              Take away
            </button>
          )}
        </div>
      ))}
      {view.sizes.length < 6 && (
        <button className="btn mt-1" onClick={() => change([...view.sizes, "830"])}>
          One more
        </button>
      )}
    </fieldset>
  );
}

/** Rows that are shown below the last used one. */
const BELOW = 3;

const cm = (mm: number) => `${(mm / 10).toFixed(1)} cm`;

const HOLE_COLUMNS = columnsOf<BreadboardView["wires"][number]>([
  { head: "net", by: (w) => w.net, show: (w) => w.net },
  { head: "from", by: (w) => w.holeA ?? w.from, show: (w) => w.holeA ?? w.from, look: "num" },
  { head: "to", by: (w) => w.holeB ?? w.to, show: (w) => w.holeB ?? w.to, look: "num" },
  { head: "length", by: (w) => w.mm ?? 0, show: (w) => (w.mm ? cm(w.mm) : "lead"), look: "num" },
]);

/** Breadboard: parts at their holes, wires from hole to hole, moved by hand with what follows from it at once. */
export function Breadboard() {
  const { project, edit, run, light } = useProject();
  const lit = useLit();
  const view = useCore(ask);
  const svg = useRef<SVGSVGElement | null>(null);
  const [busy, setBusy] = useState(false);
  const [whole, setWhole] = useKept("all rows", false);
  if (!view) return <p className="p-6 text-soft">Placing the parts…</p>;
  const unit = () => svg.current?.getScreenCTM()?.a ?? 1;
  const taken = (at: Record<string, Spot>) => ({
    type: "setBreadboard" as const,
    breadboard: { boards: view.sizes, at, ...(project.breadboard?.split !== undefined && { split: view.split }) },
  });
  const spots = Object.fromEntries(view.parts.map((p) => [p.ref, p.spot]));
  // The first move takes the proposal over; quick key presses add up, since each starts from where the part is by then.
  const move = (part: HeldPart, to: (p: HeldPart) => Spot) =>
    void run((p) => {
      const spot = to({ ...part, spot: p.breadboard?.at[part.ref] ?? part.spot });
      return core().edit(
        p,
        p.breadboard ? { type: "moveOnBoard", ref: part.ref, spot } : taken({ ...spots, [part.ref]: spot }),
      );
    });
  const again = async (boards: SizeId[] | null, held: string[]) => {
    setBusy(true);
    await run((p) => core().placeParts(p, boards, held));
    setBusy(false);
  };
  // Used rows first: what lies below is empty, and would only make the rest small.
  const height = Math.min(view.drawing.height, view.usedTo + BELOW - view.drawing.y);
  const shown = whole ? view.drawing : { ...view.drawing, height };
  if (!view.parts.length)
    return (
      <p className="mt-4 max-w-2xl">
        Nothing of this project sits on a breadboard yet.{" "}
        {view.beside.length ? "Its parts all hang on leads." : "Add a board and parts first."}
      </p>
    );
  return (
    <div className="mt-2 grid gap-x-6 gap-y-4 lg:grid-cols-[1fr_340px]">
      <section aria-label="Breadboard drawing" className="min-w-0">
        <Zoom>
          <DrawingView
            drawing={shown}
            says={`Breadboard with ${count(view.parts.length, "part")} and ${count(view.jumpers, "jumper")}`}
            lit={lit}
            svg={svg}
            className="h-[calc(100dvh-15.5rem)] min-h-72 w-full"
          >
            {view.parts.map((p) => (
              <Handle key={p.ref} part={p} unit={unit} light={light} move={(to) => move(p, to)} />
            ))}
          </DrawingView>
        </Zoom>
        <p className="flex flex-wrap gap-x-4 pt-1 text-sm text-soft">
          <span>Drag a part, or choose it with Tab and move it with the arrow keys; R turns it round.</span>
          {height < view.drawing.height && (
            <Switch on={whole} turn={setWhole}>
              all rows
            </Switch>
          )}
        </p>
      </section>
      <section aria-label="Placement" className="lg:max-h-[calc(100dvh-13rem)] lg:overflow-auto">
        <p className="text-lg" data-testid="board-sum">
          <span className="num">{view.jumpers}</span> jumpers, <span className="num">{cm(view.wire_mm)}</span> of wire
          {view.best && (view.best.wire_mm < view.wire_mm || view.best.jumpers < view.jumpers) && (
            <span className="block text-sm text-soft">
              the best found: <span className="num">{view.best.jumpers}</span> jumpers,{" "}
              <span className="num">{cm(view.best.wire_mm)}</span>
            </span>
          )}
        </p>
        {view.stored ? (
          <p className="text-sm text-soft">The run sheet follows this placement, hole by hole.</p>
        ) : (
          <p className="text-sm text-soft">This is the shortest wiring found. The run sheet does not follow it yet.</p>
        )}
        {view.trouble.length > 0 && (
          <ul className="mt-2 border-l-4 border-fault pl-3" data-testid="board-trouble">
            {view.trouble.map((t) => (
              <li key={t.says}>{t.says}</li>
            ))}
          </ul>
        )}
        <div className="mt-2 flex flex-wrap gap-2">
          {!view.stored && (
            <button className="btn-main" onClick={() => void edit(taken(spots))}>
              Build it like this
            </button>
          )}
          {view.stored && (
            <>
              <button className="btn" disabled={busy} onClick={() => void again(view.sizes, [])}>
                <RotateCw size={16} className="mr-1 inline" aria-hidden />
                {busy ? "Placing…" : "Find the shortest again"}
              </button>
              <button className="btn" onClick={() => void edit({ type: "setBreadboard", breadboard: null })}>
                Without a breadboard
              </button>
            </>
          )}
          <Download path="print?what=underlay">
            <Printer size={16} className="mr-1 inline" aria-hidden />
            Underlay 1:1 (PDF)
          </Download>
        </div>
        <Boards view={view} change={(b) => void again(b, [])} />
        {view.sizes.includes("830") && view.stored && (
          <Checkbox
            className="mt-2 items-start!"
            checked={view.split}
            onChange={(split) => void edit({ type: "setBreadboard", breadboard: { ...project.breadboard!, split } })}
          >
            <span>
              The rails of the large board are broken in the middle
              <span className="block text-sm text-soft">
                Measure: does the first hole of a rail beep with the last?
              </span>
            </span>
          </Checkbox>
        )}
        {view.beside.length > 0 && (
          <>
            <h2 className="mt-3 font-bold">Beside the breadboard, on leads</h2>
            <ul className="text-sm">
              {view.beside.map((b) => (
                <li key={b.ref}>
                  <span className="num">{b.ref}</span> {b.label === b.ref ? "" : b.label}: {b.why}
                </li>
              ))}
            </ul>
          </>
        )}
        <h2 className="mt-3 font-bold">Wires, hole to hole</h2>
        <Table
          label="Wires, hole to hole"
          className="text-sm"
          rows={view.wires}
          rowId={(w) => `${w.from}${w.holeA}${w.to}${w.holeB}`}
          row={(w) => ({ onMouseEnter: () => light([w.net]), onMouseLeave: () => light([]) })}
          columns={HOLE_COLUMNS}
        />
      </section>
    </div>
  );
}
