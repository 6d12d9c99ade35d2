"use client";
import { useState, type ReactNode } from "react";
import { ChevronRight } from "lucide-react";
import { Collapsible } from "radix-ui";

/** Something that is folded away until it is wanted. What is folded is not drawn. */
export function Fold({
  title,
  open = false,
  children,
  className = "",
  heading = false,
  testId,
}: {
  title: ReactNode;
  open?: boolean;
  children: ReactNode;
  className?: string;
  heading?: boolean;
  testId?: string;
}) {
  const [now, setNow] = useState(open);
  return (
    <Collapsible.Root open={now} onOpenChange={setNow} className={className} data-testid={testId}>
      <Collapsible.Trigger
        className={`group inline-flex items-start gap-1 text-left hover:underline ${heading ? "text-lg font-bold" : "text-soft"}`}
      >
        <ChevronRight
          size={heading ? 20 : 16}
          aria-hidden
          className={`shrink-0 transition-transform group-data-[state=open]:rotate-90 ${heading ? "mt-1" : "mt-[3px]"}`}
        />
        <span>{title}</span>
      </Collapsible.Trigger>
      <Collapsible.Content>{children}</Collapsible.Content>
    </Collapsible.Root>
  );
}
