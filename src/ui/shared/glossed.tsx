"use client";
import { useRef, useState } from "react";
import { HoverCard } from "radix-ui";
import { inPieces, type Term } from "@/core/glossary";

const DELAY_MS = 300;

/** A word of the field with what it means: on hover, on focus with Enter, on a tap. */
function Word({ text, term }: { text: string; term: Term }) {
  const [open, setOpen] = useState(false);
  // When it was closed: a hover or focus that was still waiting then does not open it again.
  const shut = useRef(0);
  const close = () => {
    shut.current = performance.now();
    setOpen(false);
  };
  return (
    <HoverCard.Root
      open={open}
      onOpenChange={(on) => {
        if (!on) close();
        else if (performance.now() - shut.current > DELAY_MS + 100) setOpen(true);
      }}
      openDelay={DELAY_MS}
      closeDelay={120}
    >
      <HoverCard.Trigger asChild>
        <button
          type="button"
          className="cursor-help underline decoration-dotted decoration-1 underline-offset-3"
          aria-expanded={open}
          aria-description={term.gloss}
          onClick={() => setOpen(true)}
          onKeyDown={(e) => {
            if (e.key !== "Escape" || !open) return;
            e.stopPropagation();
            close();
          }}
          onBlur={close}
        >
          {text}
        </button>
      </HoverCard.Trigger>
      <HoverCard.Portal>
        <HoverCard.Content
          sideOffset={4}
          collisionPadding={8}
          data-testid="gloss"
          role="status"
          className="z-50 max-w-80 border border-ink bg-sheet px-3 py-2 text-sm text-ink shadow-[3px_3px_0_var(--line)]"
        >
          <strong>{term.term}</strong>
          <span className="block">{term.gloss}</span>
        </HoverCard.Content>
      </HoverCard.Portal>
    </HoverCard.Root>
  );
}

/** A text whose words of the field say on demand what they mean, each at its first mention. */
export function Glossed({ text }: { text: string }) {
  return inPieces(text).map((p, i) => (p.term ? <Word key={i} text={p.text} term={p.term} /> : p.text));
}
