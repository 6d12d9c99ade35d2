"use client";
import { ContextMenu as Context, DropdownMenu as Dropdown } from "radix-ui";
import { useState, type ReactNode } from "react";

export interface MenuItem {
  name: string;
  says?: string;
  go(): void;
}

const BOX = "z-50 min-w-44 border border-ink bg-sheet py-1 text-ink shadow-[3px_3px_0_var(--line)]";
const ITEM = "cursor-pointer px-3 py-1 outline-none data-[highlighted]:bg-wash max-sm:py-2";

/** A menu hangs in the part of the page that it belongs to, so that a screen reader does not find it outside of all of them. */
const landmarkOf = (el: Element | null) => el?.closest<HTMLElement>("main, header, nav, aside") ?? null;

/** The items of a menu, as those of either kind. */
const rows = (Item: typeof Dropdown.Item | typeof Context.Item, items: readonly MenuItem[]) =>
  items.map((i) => (
    <Item key={i.name} className={ITEM} onSelect={i.go}>
      {i.name}
      {i.says && <span className="block text-sm text-soft">{i.says}</span>}
    </Item>
  ));

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
  const [home, setHome] = useState<HTMLElement | null>(null);
  return (
    <Dropdown.Root modal={false}>
      <Dropdown.Trigger ref={(el) => setHome(landmarkOf(el))} className={className} aria-label={label}>
        {children}
      </Dropdown.Trigger>
      <Dropdown.Portal container={home}>
        <Dropdown.Content className={BOX} align="end" sideOffset={4} collisionPadding={8}>
          {rows(Dropdown.Item, items)}
        </Dropdown.Content>
      </Dropdown.Portal>
    </Dropdown.Root>
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
  const [home, setHome] = useState<HTMLElement | null>(null);
  return (
    <Context.Root modal={false}>
      <Context.Trigger
        asChild
        onContextMenuCapture={(e) => {
          // Before the menu hears of it.
          setHome(landmarkOf(e.target as Element));
          if (!ask(e.target as Element)) e.stopPropagation();
        }}
      >
        {children}
      </Context.Trigger>
      <Context.Portal container={home}>
        <Context.Content className={BOX} collisionPadding={8}>
          <Context.Label className="num px-3 pb-1 font-bold">{title}</Context.Label>
          {rows(Context.Item, items)}
        </Context.Content>
      </Context.Portal>
    </Context.Root>
  );
}
