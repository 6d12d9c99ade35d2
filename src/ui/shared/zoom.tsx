"use client";
import { useCallback, useEffect, useRef, type ReactNode, type RefObject } from "react";
import { TransformComponent, TransformWrapper, type ReactZoomPanPinchRef } from "react-zoom-pan-pinch";
import { Maximize, Minus, Plus } from "lucide-react";
import { afterPaint } from "./after-paint";
import type { Area } from "./in-view";
import { Tool, Toolbar } from "./toolbar";

/**
 * Brings an area of the drawing into the middle of its frame, at a size at which its smallest text can be read, or smaller where
 * the area would not fit. A size that a person has chosen is kept when it is larger. `least`: pixels a drawing unit.
 */
function bring(ref: ReactZoomPanPinchRef, svg: SVGSVGElement, area: Area, least: number) {
  const frame = ref.instance.wrapperComponent;
  const m = svg.getScreenCTM();
  if (!frame || !m || !m.a) return;
  const now = ref.instance.state.scale;
  const unit = m.a / now;
  const box = frame.getBoundingClientRect();
  const most = Math.min(box.width / (area.w * unit), box.height / (area.h * unit));
  const scale = Math.max(1, Math.min(8, most, Math.max(least / unit, now)));
  // Where the area's middle lies in the content at scale 1, from what is on the screen now.
  const content = ref.instance.contentComponent!.getBoundingClientRect();
  const at = (v: number, origin: number, edge: number) => (v * m.a + origin - edge) / now;
  const [x, y] = [at(area.x + area.w / 2, m.e, content.left), at(area.y + area.h / 2, m.f, content.top)];
  // The drawing's own edges stay at the frame's: no empty half.
  const clamp = (middle: number, size: number, room: number) =>
    Math.min(0, Math.max(room - size * scale, room / 2 - middle * scale));
  ref.setTransform(clamp(x, content.width / now, box.width), clamp(y, content.height / now, box.height), scale, 200);
}

/** What of the drawing is seen in its frame, in the drawing's units, and how many pixels one of them has. */
function seenOf(ref: ReactZoomPanPinchRef, svg: SVGSVGElement): [Area, number] | null {
  const box = ref.instance.wrapperComponent?.getBoundingClientRect();
  const m = svg.getScreenCTM();
  if (!box || !m?.a) return null;
  return [{ x: (box.left - m.e) / m.a, y: (box.top - m.f) / m.a, w: box.width / m.a, h: box.height / m.a }, m.a];
}

/** A drawing that can be enlarged and pushed about: wheel, pinch, drag, or the buttons. What is called `part` keeps its own drags. */
export function Zoom({
  tools,
  children,
  focus,
  least,
  svg,
  seen,
}: {
  tools?: ReactNode;
  children: ReactNode;
  /** What comes into view by itself, whenever it changes. */
  focus?: Area | null;
  least?: number;
  svg?: RefObject<SVGSVGElement | null>;
  /** Is told what of `svg` is seen, and in how many pixels a unit, whenever that changes. */
  seen?: ((area: Area, pixels: number) => void) | undefined;
}) {
  const view = useRef<ReactZoomPanPinchRef | null>(null);
  const asked = focus ? [focus.x, focus.y, focus.w, focus.h].map(Math.round).join() : "";
  useEffect(() => {
    if (!asked || !least) return;
    const [x, y, w, h] = asked.split(",").map(Number) as [number, number, number, number];
    // After the drawing has its size.
    const later = requestAnimationFrame(() => {
      if (view.current && svg?.current) bring(view.current, svg.current, { x, y, w, h }, least);
    });
    return () => cancelAnimationFrame(later);
  }, [asked, least, svg]);
  // Once a frame at most, when the drawing stands where it was moved to.
  const waiting = useRef<(() => void) | null>(null);
  const tell = useCallback(() => {
    if (!seen || waiting.current) return;
    waiting.current = afterPaint(() => {
      waiting.current = null;
      const area = view.current && svg?.current && seenOf(view.current, svg.current);
      if (area) seen(...area);
    });
  }, [seen, svg]);
  // A drawing that was drawn anew may have another size, and so may the window.
  useEffect(tell);
  useEffect(() => {
    window.addEventListener("resize", tell);
    return () => {
      window.removeEventListener("resize", tell);
      waiting.current?.();
      waiting.current = null;
    };
  }, [tell]);
  return (
    <TransformWrapper
      ref={view}
      onTransform={tell}
      minScale={0.5}
      maxScale={8}
      doubleClick={{ disabled: true }}
      panning={{ excluded: ["part"] }}
      wheel={{ step: 0.15 }}
    >
      <Toolbar label="Drawing" beside={tools}>
        <Tool label="Larger" use={() => view.current?.zoomIn()}>
          <Plus size={16} aria-hidden />
        </Tool>
        <Tool label="Smaller" use={() => view.current?.zoomOut()}>
          <Minus size={16} aria-hidden />
        </Tool>
        <Tool label="Whole drawing" use={() => view.current?.resetTransform()}>
          <Maximize size={16} aria-hidden />
        </Tool>
      </Toolbar>
      <TransformComponent wrapperClass="!w-full border border-line bg-sheet" contentClass="!w-full">
        {children}
      </TransformComponent>
    </TransformWrapper>
  );
}
