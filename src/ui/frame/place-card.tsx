"use client";
import Link from "next/link";
import { Popover } from "radix-ui";
import { useEffect, useRef, useState } from "react";
import type { About } from "@/core/about";
import { Glossed } from "@/ui/shared/glossed";
import { core } from "@/ui/state/core";
import { useActions } from "@/ui/state/project";

const OPEN_AFTER_MS = 350;
const CLOSE_AFTER_MS = 180;

const placeOf = (t: EventTarget | null) => (t instanceof Element ? t.closest<HTMLElement>("[data-place]") : null);

let ask: ((el: HTMLElement) => void) | null = null;
/** Opens the card for an element that carries `data-place`, for whoever was asked by other means than pointing. */
export const showCard = (el: HTMLElement) => ask?.(el);

/** What is shown: the place, and the element that it was pointed at on. */
interface Shown {
  place: string;
  anchor: Element;
  about: About;
}

/**
 * The one card that says what a pin, wire, rail or part is, what it does here and what would happen without it. It opens for
 * whatever carries `data-place`: on hover, on focus by keys, on a tap; Escape closes it.
 */
export function PlaceCard() {
  const { now } = useActions();
  const [shown, setShown] = useState<Shown | null>(null);
  const anchor = useRef<Element | null>(null);
  const inside = useRef<HTMLDivElement>(null);
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const asked = useRef(0);
  const open = useRef<Shown | null>(null);
  open.current = shown;

  useEffect(() => {
    const close = () => {
      clearTimeout(timer.current);
      asked.current++;
      setShown(null);
    };
    const show = async (el: HTMLElement) => {
      // Not over a menu that somebody chooses from.
      if (document.querySelector('[role="menu"]')) return;
      const place = el.dataset.place!;
      const mine = ++asked.current;
      const about = await core().about(now(), place);
      if (mine !== asked.current || !about || !el.isConnected) return;
      anchor.current = el;
      setShown({ place, anchor: el, about });
    };
    ask = (el) => void show(el);
    const later = (work: () => void, ms: number) => {
      clearTimeout(timer.current);
      timer.current = setTimeout(work, ms);
    };
    const over = (e: PointerEvent) => {
      // A finger taps; and who holds a button down is dragging something.
      if (e.pointerType === "touch" || e.buttons) return;
      if (inside.current?.contains(e.target as Node)) return clearTimeout(timer.current);
      const el = placeOf(e.target);
      if (el) later(() => void show(el), open.current ? 120 : OPEN_AFTER_MS);
      else if (open.current) later(close, CLOSE_AFTER_MS);
      else clearTimeout(timer.current);
    };
    const focus = (e: FocusEvent) => {
      const el = placeOf(e.target);
      if (el && el === e.target && el.matches(":focus-visible")) later(() => void show(el), OPEN_AFTER_MS);
      else if (open.current && !inside.current?.contains(e.target as Node)) close();
    };
    const click = (e: MouseEvent) => {
      const el = placeOf(e.target);
      if (el instanceof HTMLButtonElement) {
        clearTimeout(timer.current);
        void show(el);
      } else if (open.current && !inside.current?.contains(e.target as Node)) close();
    };
    const key = (e: KeyboardEvent) => {
      if (e.key !== "Escape" || !open.current) return;
      e.stopPropagation();
      close();
    };
    document.addEventListener("pointerover", over);
    document.addEventListener("focusin", focus);
    document.addEventListener("click", click);
    document.addEventListener("keydown", key, true);
    document.addEventListener("scroll", close, true);
    document.addEventListener("contextmenu", close);
    return () => {
      ask = null;
      clearTimeout(timer.current);
      document.removeEventListener("pointerover", over);
      document.removeEventListener("focusin", focus);
      document.removeEventListener("click", click);
      document.removeEventListener("keydown", key, true);
      document.removeEventListener("scroll", close, true);
      document.removeEventListener("contextmenu", close);
    };
  }, [now]);

  if (!shown) return null;
  const { about } = shown;
  return (
    <Popover.Root open modal={false}>
      <Popover.Anchor virtualRef={anchor as React.RefObject<Element>} />
      <Popover.Portal>
        <Popover.Content
          ref={inside}
          role="status"
          aria-label={about.title}
          align="start"
          sideOffset={4}
          collisionPadding={8}
          onOpenAutoFocus={(e) => e.preventDefault()}
          onCloseAutoFocus={(e) => e.preventDefault()}
          data-testid="place-card"
          className="z-50 max-w-96 border border-ink bg-sheet px-3 py-2 text-sm text-ink shadow-[3px_3px_0_var(--line)]"
        >
          <strong className="text-base">{about.title}</strong>
          <p>
            <Glossed text={about.what} />
          </p>
          <ul className="mt-1 border-l-2 border-accent pl-2">
            {about.here.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
          <p className="mt-1 font-bold">{about.without}</p>
          {about.part && (
            <Link className="quiet" href={`/parts/${about.part}`}>
              its page
            </Link>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
