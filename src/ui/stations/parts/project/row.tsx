"use client";
import { ChevronRight, X } from "lucide-react";
import { lazy, memo, Suspense, useRef, useState } from "react";
import { later } from "@/ui/shared/later";
import { Place } from "@/ui/shared/place";
import { useIsLit } from "@/ui/state/lit";
import { useActions } from "@/ui/state/project";
import type { PartView, View } from "@/workers/view";
import { Hidden } from "@/ui/shared/hidden";

const Details = later(() => import("./details").then((m) => m.Details));
const loadField = () => import("@/ui/shared/save-field");
const SaveField = lazy(() => loadField().then((m) => ({ default: m.SaveField<string> })));

/** What a line has room for: options that were chosen, and what stands around the part. */
function summary(part: PartView): string {
  const chosen = part.options
    .filter((o) => String(o.value).toLowerCase() !== String(o.default).toLowerCase())
    .map((o) =>
      o.kind === "choice"
        ? (o.choices.find((c) => c.value.toLowerCase() === String(o.value).toLowerCase())?.label ?? String(o.value))
        : `${o.label.toLowerCase()} ${o.value}${o.unit ? ` ${o.unit}` : ""}`,
    );
  const around = part.companions.map((c) => `with ${c.says}`);
  return [...chosen, ...around].join(", ");
}

/** A part's own name: words until somebody presses them, then a field. */
function Name({ part }: { part: PartView }) {
  const { edit } = useActions();
  const [editing, setEditing] = useState(false);
  const button = useRef<HTMLButtonElement>(null);
  const named = part.label !== part.ref;
  const words = (
    <button
      ref={button}
      className={`w-full cursor-text truncate border border-transparent px-1.5 text-left hover:border-line ${named ? "font-bold" : "text-soft"}`}
      aria-label={`Name of ${part.ref}: ${named ? part.label : "name it"}`}
      onPointerEnter={loadField}
      onFocus={loadField}
      onClick={() => setEditing(true)}
    >
      {named ? part.label : "name it"}
    </button>
  );
  if (!editing) return words;
  return (
    <Suspense fallback={words}>
      <SaveField
        label={`Name of ${part.ref}`}
        hideLabel
        autoFocus
        value={named ? part.label : ""}
        placeholder="name it"
        maxLength={60}
        schema={(s) => s.textUpTo(60)}
        save={(text) => void edit({ type: "setLabel", ref: part.ref, label: text })}
        left={() => {
          // Entered, not left for something else: the keyboard goes on from here.
          const stays = document.activeElement?.closest(`[data-testid="part-${part.ref}"]`);
          setEditing(false);
          if (stays) requestAnimationFrame(() => button.current?.focus());
        }}
        fieldClass="w-full font-bold"
      />
    </Suspense>
  );
}

/** One part of the project: a line until it is opened. Drawn again only when the part itself changes. */
export const PartRow = memo(function PartRow({
  part,
  hosts,
  open,
  turn,
  index,
  measure,
}: {
  part: PartView;
  hosts: View["hosts"];
  open: boolean;
  turn(ref: string, open: boolean): void;
  index: number;
  measure?: ((node: Element | null) => void) | undefined;
}) {
  const { edit } = useActions();
  const on = useIsLit((lit) => [...lit].some((x) => x === part.ref || x.startsWith(`${part.ref}.`)));
  return (
    <li
      ref={measure}
      data-index={index}
      className={`border-b border-line ${on ? "bg-wash" : ""}`}
      data-testid={`part-${part.ref}`}
    >
      <div className="grid min-h-9 max-sm:min-h-11 grid-cols-[1.5rem_2.8rem_minmax(5rem,9rem)_minmax(0,1fr)_auto] items-center gap-x-1">
        <button
          className="p-1"
          aria-expanded={open}
          aria-label={`Details of ${part.label}`}
          onClick={() => turn(part.ref, !open)}
        >
          <ChevronRight size={16} aria-hidden className={open ? "rotate-90" : ""} />
        </button>
        <Place of={part.ref} className="num text-left text-soft" />
        <Name part={part} />
        <span className="truncate text-soft" data-place={part.ref}>
          {part.own && <span className="mr-1 text-sm text-accent">own</span>}
          {part.cautions.length > 0 && (
            <strong className="mr-1 text-stop">
              <span aria-hidden>!</span>
              <Hidden>take care: </Hidden>
            </strong>
          )}
          {part.print?.doubtful && <span className="mr-1 text-sm text-risk">header?</span>}
          {part.name}
          {!open && summary(part) && <span className="text-ink">, {summary(part)}</span>}
        </span>
        <button
          className="p-1 text-soft hover:text-stop"
          aria-label={`Remove ${part.label}`}
          onClick={() => void edit({ type: "removePart", ref: part.ref })}
        >
          <X size={16} aria-hidden />
        </button>
      </div>
      {open && <Details part={part} hosts={hosts} />}
    </li>
  );
});
