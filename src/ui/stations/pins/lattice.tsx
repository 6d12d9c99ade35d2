"use client";
import { useKept } from "@/ui/state/kept";
import {
  memo,
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type PointerEvent,
  type RefObject,
} from "react";
import { toast } from "sonner";
import type { LatticeRow, LatticeView } from "@/core/plan/assign";
import { cellOf } from "@/core/plan/assign/cell";
import { core } from "@/ui/state/core";
import { useLit } from "@/ui/state/lit";
import { useProject } from "@/ui/state/project";
import { Crossing, type Ghost } from "./crossing";
import { LeftOver } from "./left-over";
import { pinName, Row, type Range, type Shown } from "./row";
import { Legend } from "./states";
import { Select } from "@/ui/shared/select";
import { Fold } from "@/ui/shared/fold";
import { InView, useVirtualRows } from "@/ui/shared/virtual";
import { Label } from "@/ui/shared/label";
import { afterPaint } from "@/ui/shared/after-paint";

interface Spot {
  row: number;
  col: number;
}

const FOLDS = [
  { id: "useful", name: "pins that these parts can use" },
  { id: "signal", name: "all signal pins" },
  { id: "all", name: "the whole header" },
] as const;
type Fold = (typeof FOLDS)[number]["id"];

/** The board's headers as seen from the top, above the columns they belong to. */
function Headers({ view, shown }: { view: LatticeView; shown: readonly Shown[] }) {
  return (
    <tr>
      <td className="sticky left-0 z-10" />
      {view.headers.map((h) => {
        const n = shown.filter(({ c }) => c.header === h.id).length;
        return n ? (
          <th
            key={h.id}
            colSpan={n}
            scope="colgroup"
            className="edge pb-1 pl-1 text-left align-bottom text-sm font-normal"
          >
            {/* No width of its own: the columns decide. */}
            <span className="block w-0 whitespace-nowrap">
              {h.side === "behind" ? (
                <>
                  behind <strong>{h.says}</strong>
                </>
              ) : (
                <>
                  <svg width="16" height="12" viewBox="0 0 16 12" className="mr-1 inline" aria-hidden>
                    <rect x="0.5" y="2.5" width="8" height="7" fill="none" stroke="currentColor" />
                    <path d="M10 6h5M13 3.5 15.5 6 13 8.5" fill="none" stroke="currentColor" />
                  </svg>
                  <strong>{h.side}</strong>, {h.from.replace(/^the /, "")} first
                </>
              )}
            </span>
          </th>
        ) : null;
      })}
    </tr>
  );
}

/** The pins above their columns, lit from elsewhere too: drawn apart, so that a light does not redraw the lattice. */
const Heads = memo(function Heads({ shown, range, at }: { shown: readonly Shown[]; range: Range; at: number }) {
  const lit = useLit();
  return (
    <tr>
      <th scope="col" className="sticky left-0 z-10 pr-3 text-left align-bottom font-normal text-soft">
        need
      </th>
      {range.from > 0 && <td colSpan={range.from} aria-hidden />}
      {shown.slice(range.from, range.to).map(({ c, first }, n) => {
        const k = range.from + n;
        return (
          <th
            key={c.end}
            scope="col"
            data-column={k}
            data-place={c.end}
            className={`h-20 w-6 align-bottom font-mono text-sm font-normal ${first ? "edge" : ""} ${k === at || lit.has(c.end) ? "font-bold" : ""} ${c.signal ? "" : "text-soft"}`}
          >
            {c.hazards.length > 0 && <span className="block font-bold text-risk">!</span>}
            <span className="inline-block rotate-180 whitespace-nowrap [writing-mode:vertical-rl]">{c.pin}</span>
            <i className="pad" data-first={c.index === 1} data-used={c.usedBy.length > 0} aria-hidden />
          </th>
        );
      })}
      {range.to < shown.length && <td colSpan={shown.length - range.to} aria-hidden />}
    </tr>
  );
});

/** So many crossings are drawn at once; of a larger lattice only the rows in view. */
const MOST_CELLS = 300;
const ROW_PX = 29;
/** Widths that are known need no look at every cell. */
const NEED_PX = 232;
const PIN_PX = 24;
/** Columns are brought in by so many, this far ahead. */
const COLUMN_STEP = 8;

/** The columns in view of a wide lattice, all of a small one, as a range that changes by steps. */
function useColumnsInView(box: RefObject<HTMLElement | null>, count: number, all: boolean): Range {
  // How wide the box is, is known once it is laid out.
  const [range, setRange] = useState<Range>({ from: 0, to: 4 * COLUMN_STEP });
  useEffect(() => {
    const node = box.current;
    if (!node || all) return;
    const look = () => {
      const first = Math.floor(node.scrollLeft / PIN_PX / COLUMN_STEP) * COLUMN_STEP;
      const from = Math.max(0, first - COLUMN_STEP);
      const seen = Math.ceil((node.clientWidth - NEED_PX) / PIN_PX);
      const to = (Math.ceil((first + seen) / COLUMN_STEP) + 1) * COLUMN_STEP;
      setRange((was) => (was.from === from && was.to === to ? was : { from, to }));
    };
    node.addEventListener("scroll", look, { passive: true });
    // Tells of the first size too, when the box is laid out.
    const size = new ResizeObserver(look);
    size.observe(node);
    return () => {
      node.removeEventListener("scroll", look);
      size.disconnect();
    };
  }, [box, all]);
  return useMemo(
    () => (all ? { from: 0, to: count } : { from: Math.min(range.from, count), to: Math.min(range.to, count) }),
    [all, count, range],
  );
}
const STILL = new Set(["chosen", "locked", "cannot"]);

/** The lattice of one board: needs down the side, pins across the top, moved by dragging or by keys. */
export function Lattice({ view }: { view: LatticeView }) {
  const { run, edit, light, project } = useProject();
  const [fold, setFold] = useKept<Fold>("pins shown", "useful");
  const shown = useMemo<Shown[]>(() => {
    const list = view.columns
      .map((c, i) => ({ c, i }))
      .filter(({ c }) => fold === "all" || (fold === "signal" ? c.signal : c.useful));
    return list.map((x, k) => ({ ...x, first: x.c.header !== list[k - 1]?.c.header }));
  }, [view.columns, fold]);
  const [spot, setSpot] = useState<Spot>(() => ({
    row: 0,
    col: Math.max(
      0,
      shown.findIndex(({ c }) => c.end === view.rows[0]?.at),
    ),
  }));
  const [drag, setDrag] = useState<number | null>(null);
  const [ghost, setGhost] = useState<Ghost | null>(null);
  const grid = useRef<HTMLTableElement>(null);
  const band = useRef<HTMLDivElement>(null);
  const beam = useRef<HTMLDivElement>(null);
  const ring = useRef<HTMLDivElement>(null);
  const body = useRef<HTMLTableSectionElement>(null);
  const rows = useVirtualRows(body, view.rows.length, ROW_PX, {
    beyond: Math.floor(MOST_CELLS / Math.max(1, shown.length)),
    overscan: 3,
    atOnce: 4 * ROW_PX,
    keyOf: (i) => view.rows[i]!.id,
  });
  const box = useRef<HTMLDivElement>(null);
  const range = useColumnsInView(box, shown.length, view.rows.length * shown.length <= MOST_CELLS);
  const row: LatticeRow | undefined = view.rows[Math.min(spot.row, view.rows.length - 1)];
  const at = Math.min(spot.col, shown.length - 1);
  const col = shown[at];
  const cell = row && col ? cellOf(view, row, col.i) : undefined;
  const state = cell?.state;

  const firstDrawn = rows.shown[0];
  // The marked column and row are bands of their own that slide over the table: colouring its cells would paint all of it
  // anew.
  // On the screen first, then marked; once it is there, at once.
  const drawn = useRef(false);
  useEffect(() => {
    const place = () => {
      const head = grid.current?.querySelector<HTMLElement>(`[data-column="${at}"]`);
      if (!band.current || !beam.current || !ring.current || !grid.current) return;
      const line = grid.current.querySelector<HTMLElement>(`tr[data-index="${spot.row}"]`);
      band.current.hidden = !head;
      beam.current.hidden = !line;
      ring.current.hidden = !head || !line;
      if (head) {
        band.current.style.transform = `translateX(${head.offsetLeft}px)`;
        band.current.style.width = `${head.offsetWidth}px`;
        band.current.style.height = `${grid.current.offsetHeight}px`;
      }
      if (line) {
        beam.current.style.transform = `translateY(${line.offsetTop}px)`;
        beam.current.style.width = `${grid.current.offsetWidth}px`;
        beam.current.style.height = `${line.offsetHeight}px`;
      }
      if (!head || !line) return;
      // The ring is drawn over the table as well: an outline at the cell itself would have the whole table painted again.
      ring.current.style.transform = `translate(${head.offsetLeft}px, ${line.offsetTop}px)`;
      ring.current.style.width = `${head.offsetWidth}px`;
      ring.current.style.height = `${line.offsetHeight}px`;
    };
    if (drawn.current) return place();
    return afterPaint(() => {
      drawn.current = true;
      place();
    });
  }, [at, spot.row, shown, range, view, firstDrawn]);

  const ask = useRef(0);
  useEffect(() => {
    const n = ++ask.current;
    setGhost(null);
    if (!row || !col || !state || STILL.has(state)) return;
    // Sweeping over a row asks for nothing: only where the pointer rests is the consequence worked out.
    const wait = setTimeout(
      () =>
        void core()
          .ghost(project, row.id, col.c.end)
          .then(
            (g) =>
              n === ask.current &&
              setGhost({ says: g.says, ok: g.ok, moved: new Map(g.moved.map((m) => [m.need, m.to])) }),
          ),
      60,
    );
    return () => clearTimeout(wait);
  }, [row, col, state, project]);
  // The other views light up where the mark rests, not at every step of a sweep.
  useEffect(() => {
    const rest = setTimeout(() => light(row && col ? [row.id, col.c.end] : []), 90);
    return () => clearTimeout(rest);
  }, [row, col, light]);
  useEffect(() => () => light([]), [light]);

  const cellAt = (s: Spot) => grid.current?.querySelector<HTMLElement>(`[data-at="${s.row}-${s.col}"]`);
  // Keys may lead to a row that is not drawn yet: it is brought in, then it takes the focus.
  const wanted = useRef<Spot | null>(null);
  const focus = (next: Spot) => {
    setSpot(next);
    const there = cellAt(next);
    if (there) return there.focus({ preventScroll: false });
    wanted.current = next;
    rows.show(next.row);
    const x = next.col * PIN_PX;
    const seen = box.current ? box.current.clientWidth - NEED_PX : 0;
    if (box.current && (x < box.current.scrollLeft || x + PIN_PX > box.current.scrollLeft + seen))
      box.current.scrollLeft = x < box.current.scrollLeft ? x : x + PIN_PX - seen;
  };
  useEffect(() => {
    const there = wanted.current && cellAt(wanted.current);
    if (!there) return;
    wanted.current = null;
    there.focus();
  });
  const move = useCallback(
    (r: LatticeRow, end: string) =>
      void run(async (p) => {
        const m = await core().move(p, r.id, end);
        if (!m.ok) {
          toast.error(m.why);
          return null;
        }
        if (m.moved.length > 1) toast(`Moved together: ${m.moved.join(", ")}`);
        return m.step;
      }),
    [run],
  );
  const lock = (r: LatticeRow) =>
    r.link && void edit({ type: "lock", from: r.link.from, to: r.link.to, locked: !r.locked });

  const press = (e: KeyboardEvent) => {
    const last = shown.length - 1;
    const steps: Record<string, Spot> = {
      ArrowRight: { row: spot.row, col: Math.min(last, at + 1) },
      ArrowLeft: { row: spot.row, col: Math.max(0, at - 1) },
      ArrowDown: { row: Math.min(view.rows.length - 1, spot.row + 1), col: at },
      ArrowUp: { row: Math.max(0, spot.row - 1), col: at },
      Home: { row: spot.row, col: 0 },
      End: { row: spot.row, col: last },
      PageDown: { row: Math.min(view.rows.length - 1, spot.row + 10), col: at },
      PageUp: { row: Math.max(0, spot.row - 10), col: at },
    };
    const next = steps[e.key];
    if (next) {
      e.preventDefault();
      focus(next);
    } else if (e.key === "Enter" && row && col) {
      e.preventDefault();
      if (cell && !STILL.has(cell.state)) move(row, col.c.end);
      else if (cell?.state === "cannot") toast(cell.why);
    } else if (e.key.toLowerCase() === "l" && row && !e.ctrlKey && !e.metaKey) {
      e.preventDefault();
      lock(row);
    }
  };
  const spotOf = (e: { target: EventTarget }): Spot | null => {
    const found = (e.target as HTMLElement).closest<HTMLElement>("[data-at]")?.dataset.at?.split("-").map(Number);
    return found ? { row: found[0]!, col: found[1]! } : null;
  };
  const stateAt = (s: Spot) => cellOf(view, view.rows[s.row]!, shown[s.col]!.i).state;
  const down = (e: PointerEvent) => {
    const p = spotOf(e);
    if (p && ["chosen", "locked"].includes(stateAt(p))) setDrag(p.row);
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
    // A click shows the crossing; only a drag, Enter or the button moves the wire.
    if (from !== null && !STILL.has(stateAt(p))) move(view.rows[p.row]!, shown[p.col]!.c.end);
    else setSpot(p);
  };

  return (
    <>
      <div className="mt-2 flex flex-wrap items-center justify-between gap-x-5 gap-y-1 text-sm">
        <Legend />
        <Label className="inline-flex items-center gap-1.5">
          show
          <Select<Fold>
            label="Pins shown"
            value={fold}
            options={FOLDS.map((f) => ({ value: f.id, name: f.name }))}
            onChange={setFold}
          />
        </Label>
      </div>
      <div
        ref={box}
        data-scrolls
        className="lattice-box relative mt-1 max-h-[max(18rem,calc(100dvh-18.5rem))] overflow-auto overscroll-contain pb-2"
      >
        <div ref={band} className="lattice-band" aria-hidden />
        <div ref={beam} className="lattice-band" aria-hidden />
        <div ref={ring} className="lattice-ring" aria-hidden />
        <table
          ref={grid}
          role="grid"
          aria-label={`Needs against pins of ${view.hostName}`}
          aria-rowcount={view.rows.length}
          aria-colcount={shown.length}
          className="lattice table-fixed border-separate border-spacing-0 select-none"
          style={{ width: NEED_PX + PIN_PX * shown.length }}
          onKeyDown={press}
          onFocus={(e) => {
            const p = spotOf(e);
            if (p && (p.row !== spot.row || p.col !== at)) setSpot(p);
          }}
          onPointerDown={down}
          onPointerOver={over}
          onPointerUp={up}
          onPointerLeave={() => setDrag(null)}
        >
          <colgroup>
            <col style={{ width: NEED_PX }} />
            {shown.map(({ c }) => (
              <col key={c.end} style={{ width: PIN_PX }} />
            ))}
          </colgroup>
          <thead className="sticky top-0 z-20">
            <Headers view={view} shown={shown} />
            <Heads shown={shown} range={range} at={at} />
          </thead>
          <tbody ref={body}>
            <InView rows={rows} as="tr">
              {(ri) => {
                const r = view.rows[ri]!;
                return (
                  <Row
                    key={r.id}
                    view={view}
                    r={r}
                    ri={ri}
                    shown={shown}
                    range={range}
                    top={r.ref !== view.rows[ri - 1]?.ref}
                    mark={r === row ? at : -1}
                    landing={(ghost?.ok && ghost.moved.get(r.id)) || null}
                    measure={rows.measure}
                  />
                );
              }}
            </InView>
          </tbody>
        </table>
      </div>
      {row && col && cell && (
        <Crossing
          view={view}
          row={row}
          column={col.c}
          pin={pinName(view, col.c)}
          cell={cell}
          ghost={ghost}
          lock={() => lock(row)}
          move={() => move(row, col.c.end)}
        />
      )}
      <LeftOver view={view} />
    </>
  );
}
