"use client";
import { useCallback, useEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import { toast } from "sonner";
import type { CellState, LatticeColumn, LatticeRow, LatticeView } from "@/core/assign";
import { StationTitle } from "@/ui/shared/title";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";

/** Every state of a crossing has a shape, a word and a tone. */
const STATES: Record<CellState, { word: string; tone: string; draw: React.ReactNode }> = {
  chosen: { word: "wired here", tone: "text-accent", draw: <circle cx="9" cy="9" r="6" fill="currentColor" /> },
  locked: {
    word: "wired and locked",
    tone: "text-accent",
    draw: (
      <>
        <circle cx="9" cy="9" r="6" fill="currentColor" />
        <path d="M3 1.5h12M3 16.5h12" stroke="currentColor" strokeWidth="2" />
      </>
    ),
  },
  fits: {
    word: "would fit",
    tone: "text-ink",
    draw: <circle cx="9" cy="9" r="3" fill="none" stroke="currentColor" strokeWidth="1.3" />,
  },
  caution: {
    word: "fits, with a caution",
    tone: "text-risk",
    draw: <path d="M9 5v5M9 12v1.5" stroke="currentColor" strokeWidth="2" />,
  },
  taken: {
    word: "in use by another",
    tone: "text-soft",
    draw: <path d="M6 9h6" stroke="currentColor" strokeWidth="1.5" />,
  },
  cannot: {
    word: "cannot",
    tone: "text-line",
    draw: <path d="M7.5 7.5l3 3M10.5 7.5l-3 3" stroke="currentColor" strokeWidth="1" />,
  },
};

const Glyph = ({ state }: { state: CellState }) => (
  <svg width="18" height="18" viewBox="0 0 18 18" aria-hidden className={STATES[state].tone}>
    {STATES[state].draw}
  </svg>
);

interface Spot {
  row: number;
  col: number;
}

/** The board's headers as seen from the top, above the columns they belong to. */
function HeaderDrawing({ view, columns }: { view: LatticeView; columns: LatticeColumn[] }) {
  return (
    <tr>
      <td className="sticky left-0 z-10 bg-sheet" />
      {view.headers.map((h) => {
        const n = columns.filter((c) => c.header === h.id).length;
        return n ? (
          <th
            key={h.id}
            colSpan={n}
            scope="colgroup"
            className="border-l-2 border-ink pb-1 pl-1 text-left align-bottom text-sm font-normal"
          >
            {/* No width of its own: the columns decide. */}
            <span className="block w-0 whitespace-nowrap">
              <svg width="16" height="12" viewBox="0 0 16 12" className="mr-1 inline" aria-hidden>
                <rect x="0.5" y="2.5" width="8" height="7" fill="none" stroke="currentColor" />
                <path d="M10 6h5M13 3.5 15.5 6 13 8.5" fill="none" stroke="currentColor" />
              </svg>
              <strong>{h.side}</strong>, USB end first
            </span>
          </th>
        ) : null;
      })}
    </tr>
  );
}

function Lattice({ view }: { view: LatticeView }) {
  const s = useProject();
  const { run, edit, light, lit } = s;
  const [fold, setFold] = useState(true);
  const [spot, setSpot] = useState<Spot>(() => ({
    row: 0,
    col: Math.max(
      0,
      view.columns.filter((c) => c.signal).findIndex((c) => c.pin === view.rows[0]?.at),
    ),
  }));
  const [drag, setDrag] = useState<number | null>(null);
  const [ghost, setGhost] = useState<{ at: string; says: string; ok: boolean; moved: Map<string, string> } | null>(
    null,
  );
  const grid = useRef<HTMLTableElement>(null);
  const shown = useMemo(
    () => view.columns.map((c, i) => ({ c, i })).filter(({ c }) => !fold || c.signal),
    [view.columns, fold],
  );
  const row: LatticeRow | undefined = view.rows[spot.row];
  const col = shown[Math.min(spot.col, shown.length - 1)];
  const cell = row && col ? row.cells[col.i] : undefined;

  const ask = useRef(0);
  const preview = useCallback(
    (r: LatticeRow, pin: string) => {
      const n = ++ask.current;
      const at = `${r.id}|${pin}`;
      void core()
        .ghost(s.project, r.id, pin)
        .then(
          (g) =>
            n === ask.current &&
            setGhost({ at, says: g.says, ok: g.ok, moved: new Map(g.moved.map((m) => [m.need, m.to])) }),
        );
    },
    [s.project],
  );
  useEffect(() => {
    const state = cell?.state;
    ask.current++;
    setGhost(null);
    if (row && col && (state === "fits" || state === "caution" || state === "taken")) preview(row, col.c.pin);
  }, [row, col, cell?.state, preview]);
  useEffect(() => {
    light(row && col ? [row.id, `${view.host}.${col.c.pin}`] : []);
    return () => light([]);
  }, [row, col, view.host, light]);

  const focus = (next: Spot) => {
    setSpot(next);
    grid.current?.querySelector<HTMLElement>(`[data-at="${next.row}-${next.col}"]`)?.focus();
  };
  const move = (r: LatticeRow, pin: string) =>
    void run(async (p) => {
      const m = await core().move(p, r.id, pin);
      if (!m.ok) {
        toast.error(m.why);
        return null;
      }
      if (m.moved.length > 1) toast(`Moved together: ${m.moved.join(", ")}`);
      return m.step;
    });
  const lock = (r: LatticeRow) =>
    r.link && void edit({ type: "lock", from: r.link.from, to: r.link.to, locked: !r.locked });

  const press = (e: KeyboardEvent) => {
    const last = shown.length - 1;
    const steps: Record<string, Spot> = {
      ArrowRight: { row: spot.row, col: Math.min(last, spot.col + 1) },
      ArrowLeft: { row: spot.row, col: Math.max(0, spot.col - 1) },
      ArrowDown: { row: Math.min(view.rows.length - 1, spot.row + 1), col: spot.col },
      ArrowUp: { row: Math.max(0, spot.row - 1), col: spot.col },
      Home: { row: spot.row, col: 0 },
      End: { row: spot.row, col: last },
    };
    const next = steps[e.key];
    if (next) {
      e.preventDefault();
      focus(next);
    } else if (e.key === "Enter" && row && col) {
      e.preventDefault();
      if (cell && !["chosen", "locked", "cannot"].includes(cell.state)) move(row, col.c.pin);
      else if (cell?.state === "cannot") toast(cell.why);
    } else if (e.key.toLowerCase() === "l" && row) {
      e.preventDefault();
      lock(row);
    }
  };
  const spotOf = (e: PointerEvent): Spot | null => {
    const at = (e.target as HTMLElement).closest<HTMLElement>("[data-at]")?.dataset.at?.split("-").map(Number);
    return at ? { row: at[0]!, col: at[1]! } : null;
  };
  const down = (e: PointerEvent) => {
    const p = spotOf(e);
    if (!p) return;
    const state = view.rows[p.row]!.cells[shown[p.col]!.i]!.state;
    if (state === "chosen" || state === "locked") setDrag(p.row);
  };
  const over = (e: PointerEvent) => {
    const p = spotOf(e);
    if (p && (p.row !== spot.row || p.col !== spot.col) && (drag === null || p.row === drag)) setSpot(p);
  };
  const up = (e: PointerEvent) => {
    const p = spotOf(e);
    const from = drag;
    setDrag(null);
    if (!p || (from !== null && p.row !== from)) return;
    const r = view.rows[p.row]!;
    const c = shown[p.col]!;
    const state = r.cells[c.i]!.state;
    // A click shows the crossing; only a drag, Enter or the button moves the wire.
    if (from !== null && !["chosen", "locked", "cannot"].includes(state)) move(r, c.c.pin);
    else setSpot(p);
  };

  const parts = [...new Set(view.rows.map((r) => r.ref))];
  return (
    <>
      <div className="mt-2 flex flex-wrap items-center gap-x-5 gap-y-1 text-sm">
        {(Object.keys(STATES) as CellState[]).map((k) => (
          <span key={k} className="inline-flex items-center gap-1">
            <Glyph state={k} /> {STATES[k].word}
          </span>
        ))}
        <label className="ml-auto inline-flex items-center gap-1.5">
          <input type="checkbox" checked={fold} onChange={(e) => setFold(e.target.checked)} /> only signal pins
        </label>
      </div>
      <div className="mt-1 overflow-x-auto pb-2">
        <table
          ref={grid}
          role="grid"
          aria-label={`Needs against pins of ${view.hostName}`}
          className="border-collapse select-none"
          onKeyDown={press}
          onPointerDown={down}
          onPointerOver={over}
          onPointerUp={up}
          onPointerLeave={() => setDrag(null)}
        >
          <thead>
            <HeaderDrawing view={view} columns={shown.map((x) => x.c)} />
            <tr>
              <th scope="col" className="sticky left-0 z-10 bg-sheet pr-3 text-left align-bottom font-normal text-soft">
                need
              </th>
              {shown.map(({ c }, k) => (
                <th
                  key={c.pin}
                  scope="col"
                  className={`h-20 w-6 border-b border-ink align-bottom font-mono text-sm font-normal ${c.header !== shown[k - 1]?.c.header ? "border-l-2 border-l-ink" : ""} ${k === spot.col || lit.has(`${view.host}.${c.pin}`) ? "bg-wash font-bold" : ""} ${c.signal ? "" : "text-soft"}`}
                >
                  {c.hazards.length > 0 && (
                    <span className="block font-bold text-risk" title={c.hazards.join("; ")}>
                      !
                    </span>
                  )}
                  <span className="inline-block rotate-180 whitespace-nowrap [writing-mode:vertical-rl]">{c.pin}</span>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {view.rows.map((r, ri) => (
              <tr key={r.id} className={ri === spot.row ? "bg-wash" : ""}>
                <th
                  scope="row"
                  className={`sticky left-0 z-10 border-b border-line pr-3 text-left font-normal whitespace-nowrap ${ri === spot.row ? "bg-wash" : "bg-sheet"} ${r.ref !== view.rows[ri - 1]?.ref ? "border-t border-t-ink" : ""}`}
                >
                  <span
                    className={`inline-block w-28 truncate align-bottom font-bold ${r.ref !== view.rows[ri - 1]?.ref ? "" : "opacity-0"}`}
                  >
                    {r.part}
                  </span>
                  <span className="num">{r.pin}</span>
                  <span className="num float-right pl-3 text-accent">{r.at ?? "open"}</span>
                </th>
                {shown.map(({ c, i }, k) => {
                  const x = r.cells[i]!;
                  const here = ri === spot.row && k === spot.col;
                  const landing = ghost?.ok && ghost.moved.get(r.id) === c.pin;
                  return (
                    <td
                      key={c.pin}
                      role="gridcell"
                      data-at={`${ri}-${k}`}
                      data-cell={`${r.id}|${c.pin}`}
                      data-state={x.state}
                      tabIndex={here ? 0 : -1}
                      aria-label={`${r.part} ${r.pin}, pin ${c.pin}: ${STATES[x.state].word}. ${x.why}`}
                      onFocus={() => (spot.row !== ri || spot.col !== k) && setSpot({ row: ri, col: k })}
                      className={`h-7 w-6 cursor-pointer border-b border-line p-0 text-center ${r.ref !== view.rows[ri - 1]?.ref ? "border-t border-t-ink" : ""} ${c.header !== shown[k - 1]?.c.header ? "border-l-2 border-l-ink" : ""} ${k === spot.col ? "bg-wash" : ""} ${landing ? "outline-2 -outline-offset-2 outline-accent outline-dashed" : ""}`}
                    >
                      <span className="inline-flex justify-center align-middle">
                        <Glyph state={x.state} />
                      </span>
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {row && col && cell && (
        <section
          aria-label="This crossing"
          className="mt-1 grid min-h-24 gap-x-8 border-t border-ink pt-2 lg:grid-cols-[1fr_auto]"
          data-testid="crossing"
        >
          <div>
            <p className="text-lg">
              <strong>{row.part}</strong> <span className="num">{row.pin}</span> on{" "}
              <span className="num">{col.c.pin}</span>: <strong>{STATES[cell.state].word}</strong>
            </p>
            <p>
              It wants {row.wants}; {cell.why}.
            </p>
            <p className={ghost && !ghost.ok ? "text-fault" : "text-soft"} aria-live="polite">
              {ghost
                ? ghost.ok
                  ? ghost.says
                  : `Does not work: ${ghost.says}`
                : `${col.c.pin} can: ${col.c.can.join(", ") || "no signals"}`}
            </p>
          </div>
          <div className="flex items-start gap-2">
            {row.link && (
              <button className="btn" onClick={() => lock(row)}>
                {row.locked ? "Unlock" : "Lock"} {row.id} <kbd className="font-mono text-sm text-soft">L</kbd>
              </button>
            )}
            {cell.state !== "chosen" && cell.state !== "locked" && (
              <button
                className="btn-main"
                disabled={cell.state === "cannot" || (ghost !== null && !ghost.ok)}
                onClick={() => move(row, col.c.pin)}
              >
                Move here
              </button>
            )}
          </div>
        </section>
      )}
      <section aria-label="Left over" className="mt-3 border-t border-ink pt-2">
        <h2 className="font-bold">Still free, by what the pin can do</h2>
        <dl className="mt-1 grid grid-cols-[auto_auto_1fr] gap-x-4 text-sm">
          {view.spare.map((x) => (
            <div key={x.can} className="contents">
              <dt>{x.can.length < 5 && x.can !== "touch" ? x.can.toUpperCase() : x.can}</dt>
              <dd className="num text-right">{x.pins.length}</dd>
              <dd className="num truncate text-soft">
                {x.can !== "digital" && x.pins.length === view.spare[0]?.pins.length
                  ? "any of these"
                  : x.pins.join(" ")}
              </dd>
            </div>
          ))}
        </dl>
      </section>
      <p className="sr-only">{parts.length} parts</p>
    </>
  );
}

/** Why the open pins can't all be planned, kept in sight until they can. */
function Clash() {
  const { view, project } = useProject();
  const [clash, setClash] = useState<{ says: string; core: { need: string; wants: string }[] } | null>(null);
  const open = view.open;
  useEffect(() => {
    let gone = false;
    setClash(null);
    if (open)
      void core()
        .plan(project)
        .then((r) => !gone && r.clash && setClash({ says: r.clash, core: r.core }));
    return () => {
      gone = true;
    };
  }, [open, project]);
  if (!clash) return null;
  return (
    <div role="alert" className="mt-3 border-l-4 border-fault pl-3" data-testid="clash">
      <p>
        <strong>No plan fits.</strong> {clash.says}
      </p>
      <p className="text-sm text-soft">
        The smallest set that clashes: {clash.core.map((n) => n.need).join(", ")}. Take one of them out, set another
        address, unlock a wire, or choose another board.
      </p>
    </div>
  );
}

/** Pins: the lattice of needs and pins, with plan, move and lock. */
export function Pins() {
  const { view, run } = useProject();
  const plan = () =>
    void run(async (p) => {
      const r = await core().plan(p);
      if (r.clash) toast.error(r.clash, { duration: 15_000 });
      else toast(`Planned in ${r.ms.toFixed(0)} ms, proven optimal, cost ${r.cost}.`);
      return r.clash ? null : r;
    });
  return (
    <>
      <StationTitle
        name="Pins"
        says={view.open ? `${view.open} pins are open.` : "Every need has its pin. Move one to see what follows."}
      >
        <button className="btn-main" onClick={plan} disabled={!view.lattices.length}>
          {view.open ? "Plan open pins" : "Plan again"}
        </button>
      </StationTitle>
      <Clash />
      {view.lattices.map((l) =>
        l.rows.length ? (
          <Lattice key={l.host} view={l} />
        ) : (
          <p key={l.host} className="mt-4">
            The board is there; no part asks for a pin yet. Add one at Parts.
          </p>
        ),
      )}
      {!view.lattices.length && (
        <p className="mt-4">No board yet. Choose one at Board: each is tried with your parts list.</p>
      )}
    </>
  );
}
