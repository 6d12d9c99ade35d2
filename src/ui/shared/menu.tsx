"use client";
import { lazy, Suspense, useRef, useState, type ReactNode } from "react";
import type { MenuItem } from "./menu-open";

export type { MenuItem };

/** The menus themselves are fetched when somebody is about to open one. */
const load = () => import("./menu-open");
const Under = lazy(() => load().then((m) => ({ default: m.MenuUnder })));
const At = lazy(() => load().then((m) => ({ default: m.MenuAt })));

/** A menu hangs in the part of the page that it belongs to, so that a screen reader does not find it outside of all of them. */
const landmarkOf = (el: Element | null) => el?.closest<HTMLElement>("main, header, nav, aside") ?? null;

/** What can be done with something, behind one button. */
export function Menu({
  label,
  items,
  children,
  className = "btn",
}: {
  label: string;
  items: readonly MenuItem[];
  children: ReactNode;
  className?: string;
}) {
  const [open, setOpen] = useState(false);
  const button = useRef<HTMLButtonElement>(null);
  return (
    <span className="relative inline-flex">
      <button
        ref={button}
        className={className}
        aria-label={label}
        aria-haspopup="menu"
        aria-expanded={open}
        onPointerEnter={load}
        onFocus={load}
        onClick={() => setOpen(!open)}
        onKeyDown={(e) => {
          if (e.key !== "ArrowDown") return;
          e.preventDefault();
          setOpen(true);
        }}
      >
        {children}
      </button>
      {open && (
        <Suspense>
          <Under
            label={label}
            items={items}
            button={button}
            home={landmarkOf(button.current)}
            close={() => setOpen(false)}
          />
        </Suspense>
      )}
    </span>
  );
}

/**
 * The same on a press of the second mouse button or the menu key, over whatever `ask` knows something for; over all else the
 * browser's own menu comes.
 */
export function MenuOver({
  title,
  items,
  ask,
  children,
}: {
  title: string;
  items: readonly MenuItem[];
  /** Told what was pointed at; false: nothing of ours. */
  ask(at: Element): boolean;
  children: ReactNode;
}) {
  const [at, setAt] = useState<{ x: number; y: number; home: HTMLElement | null; nth: number } | null>(null);
  return (
    <>
      <div
        className="contents"
        onContextMenu={(e) => {
          if (!ask(e.target as Element)) return;
          e.preventDefault();
          const { clientX: x, clientY: y } = e;
          setAt((was) => ({ x, y, home: landmarkOf(e.target as Element), nth: (was?.nth ?? 0) + 1 }));
        }}
      >
        {children}
      </div>
      {at && (
        <Suspense>
          <At key={at.nth} title={title} items={items} x={at.x} y={at.y} home={at.home} close={() => setAt(null)} />
        </Suspense>
      )}
    </>
  );
}
