"use client";
import { useRef, type ReactNode } from "react";
import { TransformComponent, TransformWrapper, type ReactZoomPanPinchRef } from "react-zoom-pan-pinch";
import { Maximize, Minus, Plus } from "lucide-react";

/** A drawing that can be enlarged and pushed about: wheel, pinch, drag, or the buttons. What is called `part` keeps its own drags. */
export function Zoom({ tools, children }: { tools?: ReactNode; children: ReactNode }) {
  const view = useRef<ReactZoomPanPinchRef | null>(null);
  return (
    <TransformWrapper
      ref={view}
      minScale={0.5}
      maxScale={8}
      doubleClick={{ disabled: true }}
      panning={{ excluded: ["part"] }}
      wheel={{ step: 0.15 }}
    >
      <div className="flex flex-wrap items-center gap-1 pb-1" role="toolbar" aria-label="Drawing">
        <button className="btn" aria-label="Larger" onClick={() => view.current?.zoomIn()}>
          <Plus size={16} aria-hidden />
        </button>
        <button className="btn" aria-label="Smaller" onClick={() => view.current?.zoomOut()}>
          <Minus size={16} aria-hidden />
        </button>
        <button className="btn" aria-label="Whole drawing" onClick={() => view.current?.resetTransform()}>
          <Maximize size={16} aria-hidden />
        </button>
        {tools}
      </div>
      <TransformComponent wrapperClass="!w-full border border-line bg-sheet" contentClass="!w-full">
        {children}
      </TransformComponent>
    </TransformWrapper>
  );
}
