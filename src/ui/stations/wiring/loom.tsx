"use client";
import { count } from "@/core/quantity/count";
import { useKept } from "@/ui/state/kept";
import { memo, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import { Undo2 } from "lucide-react";
import { SMALLEST_TEXT, type Loom as Geometry, type LoomBox, type LoomTag } from "@/core/build/loom/types";
import { isLaid, type RunRow } from "@/core/build/runsheet/row";
import type { Project } from "@/core/project";
import { saveFile, savePng } from "@/ui/shared/save-file";
import { core } from "@/ui/state/core";
import { useLit } from "@/ui/state/lit";
import { useProject } from "@/ui/state/project";
import { useInView, type Area, type InView } from "@/ui/shared/in-view";
import { Zoom } from "@/ui/shared/zoom";
import { lineOf, patternOf } from "@/ui/shared/wire-colours";
import { useCore } from "./use-core";
import { Joint, JointTold, useJoint, type JointState } from "./wires/joint";
import { Switch } from "@/ui/shared/switch";

const askLoom = (p: Project) => core().loom(p);
const GRID = 8;
const snap = (v: number) => Math.round(v / GRID) * GRID;

/** Left or right of the board, and how far down: across it, a part only changes sides. */
function placeAt(loom: Geometry, box: LoomBox, x: number, y: number) {
  const board = loom.boxes.find((b) => b.kind === "board");
  const middle = board ? board.x + board.w / 2 : loom.width / 2;
  return { side: x + box.w / 2 < middle ? ("left" as const) : ("right" as const), y: Math.max(0, y) };
}

function Tag({ tag, on }: { tag: LoomTag; on: boolean }) {
  const s = tag.side === "left" ? -1 : 1;
  const anchor = tag.side === "left" ? "end" : "start";
  if (!tag.flag)
    return (
      <text x={tag.x + s * 5} y={tag.y - tag.rise} fontSize={SMALLEST_TEXT} textAnchor={anchor} className="fill-ink">
        {tag.text}
      </text>
    );
  return (
    <g>
      <path
        d={`M${tag.x} ${tag.y}h${s * 10}m0 -5v10m${s * 2.5} -10v10`}
        fill="none"
        stroke={lineOf(tag.colour)}
        strokeWidth={on ? 3 : 1.6}
      />
      <text
        x={tag.x + s * 16}
        y={tag.y - tag.rise}
        fontSize={SMALLEST_TEXT}
        fontWeight={on ? 700 : 400}
        textAnchor={anchor}
        className="fill-ink"
      >
        {tag.text}
      </text>
    </g>
  );
}

interface BoxProps {
  box: LoomBox;
  on: boolean;
  /** Pins of this box that stand out, with blanks between. */
  ends: string;
  /** By so much, in drawing units. */
  move(dx: number, dy: number): void;
  scale(): number;
  joint: JointState;
  /** Words and marks too; out of view only what keys and hands reach. */
  full: boolean;
}

/** A light or a step redraws only the boxes that it touches. */
const sameBox = (a: BoxProps, b: BoxProps) =>
  a.box === b.box &&
  a.on === b.on &&
  a.full === b.full &&
  a.ends === b.ends &&
  a.joint.from === b.joint.from &&
  a.joint.to === b.joint.to &&
  a.joint.at === b.joint.at;

const Box = memo(function Box({ box, on, ends, move, scale, joint, full }: BoxProps) {
  const [drag, setDrag] = useState<{ x: number; y: number; dx: number; dy: number } | null>(null);
  const standOut = new Set(ends.split(" "));
  const mid = box.x + box.w / 2;
  const down = (e: PointerEvent<SVGRectElement>) => {
    e.stopPropagation();
    e.currentTarget.setPointerCapture(e.pointerId);
    setDrag({ x: e.clientX, y: e.clientY, dx: 0, dy: 0 });
  };
  const along = (e: PointerEvent<SVGRectElement>) =>
    drag && setDrag({ ...drag, dx: (e.clientX - drag.x) / scale(), dy: (e.clientY - drag.y) / scale() });
  const up = () => {
    if (drag && Math.hypot(drag.dx, drag.dy) > GRID / 2) move(snap(drag.dx), snap(drag.dy));
    setDrag(null);
  };
  const key = (e: KeyboardEvent) => {
    const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key];
    if (!step) return;
    e.preventDefault();
    // Sideways a part goes over to the other side of the board.
    const by = e.shiftKey ? GRID * 6 : GRID * 2;
    move(step[0]! * 5000, step[1]! * by);
  };
  return (
    <g transform={drag ? `translate(${drag.dx} ${drag.dy})` : undefined}>
      <rect
        x={box.x}
        y={box.y}
        width={box.w}
        height={box.h}
        className={`part cursor-grab outline-none focus-visible:stroke-accent focus-visible:stroke-[3px] ${on ? "fill-wash stroke-accent" : "fill-paper stroke-ink"}`}
        strokeWidth={on ? 2.5 : 1}
        strokeDasharray={box.kind === "companion" ? "4 2" : undefined}
        tabIndex={0}
        role="button"
        aria-label={`${box.ref} ${box.label || box.name}${box.fixed ? ", placed by hand" : ""}: arrow keys move it`}
        data-box={box.ref}
        data-place={box.ref}
        onPointerDown={down}
        onPointerMove={along}
        onPointerUp={up}
        onPointerCancel={() => setDrag(null)}
        onKeyDown={key}
      />
      <g className="pointer-events-none">
        {full && (
          <>
            <text
              x={mid}
              y={box.y + (box.inline ? 11 : 13)}
              fontSize={box.inline ? 8.5 : 11}
              fontWeight="700"
              textAnchor="middle"
              className="fill-ink"
            >
              {box.inline ? box.ref : box.title}
            </text>
            <text
              x={mid}
              y={box.y + (box.inline ? box.h - 4 : 24)}
              fontSize={SMALLEST_TEXT}
              textAnchor="middle"
              className={box.inline ? "fill-ink" : "fill-soft"}
            >
              {box.name}
            </text>
          </>
        )}
        {box.pins.map((p) => {
          const big = standOut.has(p.end);
          const r = big ? 5 : 2.6;
          const look = p.used ? "fill-ink stroke-ink" : "fill-sheet stroke-soft";
          return (
            <g key={p.end}>
              <Joint end={p.end} x={p.x} y={p.y} joint={joint} />
              {!full ? null : p.first ? (
                <rect x={p.x - r} y={p.y - r} width={2 * r} height={2 * r} className={look} />
              ) : (
                <circle cx={p.x} cy={p.y} r={r} className={look} />
              )}
              {full && p.label && (
                <text
                  x={p.x + (p.side === "left" ? 8 : -8)}
                  y={p.y + 3.5}
                  fontSize="9.5"
                  textAnchor={p.side === "left" ? "start" : "end"}
                  fontWeight={big ? 700 : 400}
                  className={p.used ? "fill-ink" : "fill-soft"}
                >
                  {p.label}
                </text>
              )}
            </g>
          );
        })}
      </g>
    </g>
  );
}, sameBox);

function Drawing({
  loom,
  row,
  plain,
  scale,
  joint,
  inView,
}: {
  loom: Geometry;
  row: RunRow | undefined;
  plain: boolean;
  scale(): number;
  joint: JointState;
  inView: InView;
}) {
  const { light, run } = useProject();
  const lit = useLit();
  const wanted = row && isLaid(row) ? row : undefined;
  const lights = (name: string, ends: string[]) => lit.has(name) || ends.some((e) => lit.has(e));
  const anyLit = loom.nets.some((n) => lights(n.name, n.ends));
  const isOn = (name: string, ends: string[]) => (anyLit ? lights(name, ends) : wanted ? name === wanted.net : true);
  const strong = anyLit || wanted !== undefined;
  const ends = new Set([...(wanted ? [wanted.from, wanted.to] : []), ...lit]);
  const lookAt = row && !isLaid(row) ? row.from : undefined;
  const names = new Map(loom.nets.map((n) => [n.id, n]));
  return (
    <>
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
      {loom.nets.map((n) => {
        const on = isOn(n.name, n.ends);
        return (
          <g
            key={n.id}
            opacity={on ? 1 : 0.3}
            onMouseEnter={() => light([n.name])}
            onMouseLeave={() => light([])}
            data-net={n.name}
            data-place={n.name}
          >
            {n.strands.map((s) => (
              <g key={s.colour} fill="none">
                <path d={s.path} stroke="transparent" strokeWidth="9" />
                <path
                  d={s.path}
                  stroke={plain ? "var(--ink)" : lineOf(s.colour)}
                  strokeDasharray={plain ? patternOf(s.colour) : undefined}
                  strokeWidth={on && strong ? 3.2 : 1.7}
                />
              </g>
            ))}
            {n.dots.map(([x, y], i) => (
              <circle key={i} cx={x} cy={y} r="2.8" fill={plain ? "var(--ink)" : lineOf(n.colour)} />
            ))}
          </g>
        );
      })}
      {loom.tags.map((t) => {
        const n = names.get(t.net);
        const left = t.side === "left" ? t.x - t.width : t.x;
        if (!inView.has({ x: left - TAIL, y: t.y - TAIL, w: t.width + 2 * TAIL, h: 2 * TAIL })) return null;
        return <Tag key={t.end} tag={t} on={strong && n !== undefined && isOn(n.name, n.ends) && ends.has(t.end)} />;
      })}
      {loom.boxes.map((b) => (
        <Box
          key={b.ref}
          box={b}
          on={lit.has(b.ref) || lookAt === b.ref}
          ends={b.pins.flatMap((p) => (ends.has(p.end) ? [p.end] : [])).join(" ")}
          scale={scale}
          joint={joint}
          full={inView.has(b)}
          move={(dx, dy) =>
            // From where it is by now: quick key presses add up.
            void run((p) => {
              const y = p.drawing?.loom[b.ref]?.y ?? b.y;
              return core().edit(p, { type: "moveBox", ref: b.ref, at: placeAt(loom, b, b.x + dx, y + dy) });
            })
          }
        />
      ))}
    </>
  );
}

/** How far a tag's words may stand from its pin, beyond their width. */
const TAIL = 30;
/** Pins up to which all of a drawing is drawn. */
const FEW_PINS = 150;
/** Room drawn round what the current step is about before it is known what is seen, units. */
const FIRST_REACH = 500;

/** Pixels a unit at which the smallest text of the drawing is ten pixels high. */
const LEAST = 10 / SMALLEST_TEXT;
/** Of a part that is looked at so much is brought into view, units. */
const LONGEST_LOOK = 320;
/** Room round what is looked at, units. */
const ROUND = 40;

/** What the current step is about: both ends of its wire with their names, or the part that it looks at; the board before any. */
function focusOf(loom: Geometry, row: RunRow | undefined): Area | null {
  const pins = new Map(loom.boxes.flatMap((b) => b.pins.map((p) => [p.end, p] as const)));
  const points = row && isLaid(row) ? [row.from, row.to].flatMap((e) => pins.get(e) ?? []) : [];
  const box = points.length
    ? undefined
    : (loom.boxes.find((b) => b.ref === row?.from) ?? loom.boxes.find((b) => b.kind === "board"));
  const xs = points.length ? points.map((p) => p.x) : box ? [box.x, box.x + box.w] : [];
  // Of a long board its head: all of it would be too small to read.
  const ys = points.length ? points.map((p) => p.y) : box ? [box.y, box.y + Math.min(box.h, LONGEST_LOOK)] : [];
  if (!xs.length) return null;
  const [x, y] = [Math.min(...xs) - ROUND, Math.min(...ys) - ROUND];
  return { x, y, w: Math.max(...xs) + ROUND - x, h: Math.max(...ys) + ROUND - y };
}

/** The loom: board in the middle, parts at its sides with pins in true order, the current wire lit. Zooms, pans, parts can be moved. */
export function Loom({ row }: { row: RunRow | undefined }) {
  const { project, edit } = useProject();
  const loom = useCore(askLoom);
  const [plain, setPlain] = useKept("loom in ink", false);
  const svg = useRef<SVGSVGElement | null>(null);
  const joint = useJoint();
  const focus = useMemo(() => loom && focusOf(loom, row), [loom, row]);
  const large = loom !== null && loom.boxes.reduce((n, b) => n + b.pins.length, 0) > FEW_PINS;
  const inView = useInView(large ? focus : null, FIRST_REACH, 2 / SMALLEST_TEXT);
  if (!loom) return <p className="p-6 text-soft">Drawing…</p>;
  const reachable = { ...joint, at: joint.at ?? loom.boxes[0]?.pins[0]?.end ?? null };
  const moved = Object.keys(project.drawing?.loom ?? {}).length;
  const scale = () => svg.current?.getScreenCTM()?.a ?? 1;
  const exported = (kind: "svg" | "png") =>
    void core()
      .svg(project, plain)
      .then((text) =>
        kind === "svg"
          ? saveFile("plan.svg", text, "image/svg+xml")
          : savePng("plan.png", text, loom.width, loom.height),
      );
  return (
    <>
      <Zoom
        focus={focus}
        least={LEAST}
        svg={svg}
        seen={large ? inView.seen : undefined}
        tools={
          <>
            <Switch className="mx-2" on={plain} turn={setPlain}>
              ink and patterns only
            </Switch>
            {moved > 0 && (
              <button
                className="btn inline-flex items-center gap-1"
                onClick={() => void edit({ type: "moveBox", at: null })}
              >
                <Undo2 size={16} aria-hidden /> Lay out all again
              </button>
            )}
            <span className="grow" />
            <button className="btn" onClick={() => exported("svg")}>
              Save SVG
            </button>
            <button className="btn" onClick={() => exported("png")}>
              Save PNG
            </button>
          </>
        }
      >
        <svg
          ref={svg}
          viewBox={`0 0 ${loom.width} ${loom.height}`}
          className="h-[calc(100dvh-17.5rem)] min-h-72 w-full font-mono"
          role="group"
          aria-label={`Loom drawing: ${count(loom.boxes.length, "part")}, ${count(loom.crossings, "crossing")} of wires`}
          data-testid="loom"
        >
          <Drawing loom={loom} row={row} plain={plain} scale={scale} joint={reachable} inView={inView} />
        </svg>
      </Zoom>
      <JointTold joint={joint} />
      <p className="pt-1 text-sm text-soft">
        Drag from pin to pin to join them, or press Enter on one and on the other. Square pin: pin 1. Double bar: the
        wire goes to the rail or splice that is named. Drag a part, or choose it with Tab and move it with the arrow
        keys.
      </p>
    </>
  );
}
