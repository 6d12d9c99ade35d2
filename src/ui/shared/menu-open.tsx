"use client";
import { ContextMenu as Context, DropdownMenu as Dropdown } from "radix-ui";
import { useEffect, useRef, type RefObject } from "react";

export interface MenuItem {
  name: string;
  says?: string;
  go(): void;
}

const BOX = "z-50 min-w-44 border border-ink bg-sheet py-1 text-ink shadow-[3px_3px_0_var(--line)]";
const ITEM = "cursor-pointer px-3 py-1 outline-none data-[highlighted]:bg-wash max-sm:py-2";

/** The items of a menu, as those of either kind. */
const rows = (Item: typeof Dropdown.Item | typeof Context.Item, items: readonly MenuItem[]) =>
  items.map((i) => (
    <Item key={i.name} className={ITEM} onSelect={i.go}>
      {i.name}
      {i.says && <span className="block text-sm text-soft">{i.says}</span>}
    </Item>
  ));

/** An open menu under its button, which stands in the page before this script does. */
export function MenuUnder({
  label,
  items,
  button,
  home,
  close,
}: {
  label: string;
  items: readonly MenuItem[];
  button: RefObject<HTMLButtonElement | null>;
  home: HTMLElement | null;
  close(): void;
}) {
  return (
    <Dropdown.Root modal={false} open onOpenChange={(open) => !open && close()}>
      <Dropdown.Trigger asChild>
        <span className="pointer-events-none absolute inset-0" aria-hidden aria-label={label} />
      </Dropdown.Trigger>
      <Dropdown.Portal container={home}>
        <Dropdown.Content
          className={BOX}
          align="end"
          sideOffset={4}
          collisionPadding={8}
          // A press on the button closes it by the button's own doing.
          onInteractOutside={(e) => button.current?.contains(e.target as Node) && e.preventDefault()}
          onEscapeKeyDown={() => button.current?.focus()}
        >
          {rows(Dropdown.Item, items)}
        </Dropdown.Content>
      </Dropdown.Portal>
    </Dropdown.Root>
  );
}

/** An open menu at a point of the page, given by what was pressed there. */
export function MenuAt({
  title,
  items,
  x,
  y,
  home,
  close,
}: {
  title: string;
  items: readonly MenuItem[];
  x: number;
  y: number;
  home: HTMLElement | null;
  close(): void;
}) {
  const point = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    point.current?.dispatchEvent(
      new MouseEvent("contextmenu", { bubbles: true, cancelable: true, clientX: x, clientY: y }),
    );
  }, [x, y]);
  return (
    <Context.Root modal={false} onOpenChange={(open) => !open && close()}>
      <Context.Trigger asChild>
        <span ref={point} className="fixed" style={{ left: x, top: y }} aria-hidden />
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
