"use client";
import { useEffect, useState, type ReactNode, type RefObject } from "react";
import { useVirtualizer } from "@tanstack/react-virtual";
import { afterPaint } from "./after-paint";

/** Beyond so many rows only those in view are drawn. */
export const MANY_ROWS = 100;

export interface VirtualRows {
  /** Places of the rows to draw, in order. */
  shown: readonly number[];
  /** Heights that stand for what is not drawn before and after them. */
  before: number;
  after: number;
  /** Goes on every drawn row, with `data-index`: heights are measured as they are. */
  measure: ((node: Element | null) => void) | undefined;
  /** Brings a row into view, drawn or not. */
  show(index: number): void;
}

const all = (count: number) => Array.from({ length: count }, (_, i) => i);

/** What the rows really scroll in: a box that scrolls on wide screens only is passed over on narrow ones. */
function scrollerOf(node: HTMLElement): HTMLElement | null {
  const found = node.closest<HTMLElement>("[data-scrolls]");
  if (!found || getComputedStyle(found).overflowY !== "visible") return found;
  return found.parentElement && scrollerOf(found.parentElement);
}

/**
 * The rows of a long list or table that are in view; all of them when there are few. `list` is the element that holds the
 * rows; it scrolls itself, or stands in something marked `data-scrolls`.
 */
export function useVirtualRows(
  list: RefObject<HTMLElement | null>,
  count: number,
  estimate: number,
  {
    beyond = MANY_ROWS,
    overscan = 6,
    atOnce = 400,
    keyOf,
  }: {
    beyond?: number;
    overscan?: number;
    /** Height that is drawn at once, px, before the room is known: little where a row is much to draw. */
    atOnce?: number;
    keyOf?: (index: number) => string;
  } = {},
): VirtualRows {
  const [scroller, setScroller] = useState<HTMLElement | null>(null);
  const [margin, setMargin] = useState(0);
  const many = count > beyond;
  // After the first rows are on the screen: asking where they stand before would have all of it laid out twice.
  useEffect(
    () =>
      afterPaint(() => {
        const node = list.current;
        const found = node ? scrollerOf(node) : null;
        setScroller(found);
        if (!node || !found || found === node) return setMargin(0);
        setMargin(node.getBoundingClientRect().top - found.getBoundingClientRect().top + found.scrollTop);
      }),
    [list, many],
  );
  const rows = useVirtualizer({
    count: many ? count : 0,
    getScrollElement: () => scroller,
    estimateSize: () => estimate,
    overscan,
    scrollMargin: margin,
    ...(keyOf && { getItemKey: (i: number) => (i < count ? keyOf(i) : i) }),
    // Heights come from the browser's own reports once it has laid out: asking each row at once would lay out anew for each.
    measureElement: (_node, entry) => entry?.borderBoxSize[0]?.blockSize ?? estimate,
    initialRect: { width: 1000, height: atOnce },
  });
  if (!many)
    return {
      shown: all(count),
      before: 0,
      after: 0,
      measure: undefined,
      show: (i) =>
        list.current?.querySelector<HTMLElement>(`[data-index="${i}"]`)?.scrollIntoView({ block: "nearest" }),
    };
  const items = rows.getVirtualItems().filter((x) => x.index < count);
  const first = items[0];
  const end = items[items.length - 1];
  return {
    shown: items.map((x) => x.index),
    before: first ? first.start - margin : 0,
    after: end ? rows.getTotalSize() - (end.end - margin) : 0,
    measure: rows.measureElement,
    show: (i) => rows.scrollToIndex(i, { align: "auto" }),
  };
}

/** The rows in view with what stands for the others before and after them, in a list or in the body of a table. */
export function InView({
  rows,
  as: Tag = "li",
  children,
}: {
  rows: VirtualRows;
  as?: "li" | "tr";
  children(index: number): ReactNode;
}) {
  const gap = (px: number) =>
    px > 0 &&
    (Tag === "tr" ? (
      <tr aria-hidden>
        <td style={{ height: px, padding: 0 }} />
      </tr>
    ) : (
      <li aria-hidden style={{ height: px }} />
    ));
  return (
    <>
      {gap(rows.before)}
      {rows.shown.map(children)}
      {gap(rows.after)}
    </>
  );
}
