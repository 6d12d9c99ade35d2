"use client";
import { createContext, useContext, useId, useState, type ReactNode } from "react";
import { ChevronRight } from "lucide-react";
import { Accordion, Collapsible } from "radix-ui";

const Among = createContext(false);

/** Folds that belong together: the arrow keys go from one's title to the next, and each opens for itself. */
export function Folds({ children }: { children: ReactNode }) {
  return (
    <Accordion.Root type="multiple">
      <Among value>{children}</Among>
    </Accordion.Root>
  );
}

const trigger = (heading: boolean) =>
  `group inline-flex items-start gap-1 text-left hover:underline ${heading ? "text-lg font-bold" : "text-soft"}`;

function Title({ heading, children }: { heading: boolean; children: ReactNode }) {
  return (
    <>
      <ChevronRight
        size={heading ? 20 : 16}
        aria-hidden
        className={`shrink-0 transition-transform group-data-[state=open]:rotate-90 ${heading ? "mt-1" : "mt-[3px]"}`}
      />
      <span>{children}</span>
    </>
  );
}

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
  const id = useId();
  if (useContext(Among))
    return (
      <Accordion.Item value={id} className={className} data-testid={testId}>
        <Accordion.Header asChild>
          <h2 className="m-0 text-[length:inherit]">
            <Accordion.Trigger className={trigger(heading)}>
              <Title heading={heading}>{title}</Title>
            </Accordion.Trigger>
          </h2>
        </Accordion.Header>
        <Accordion.Content>
          {/* A fold within is one by itself. */}
          <Among value={false}>{children}</Among>
        </Accordion.Content>
      </Accordion.Item>
    );
  return (
    <Collapsible.Root open={now} onOpenChange={setNow} className={className} data-testid={testId}>
      <Collapsible.Trigger className={trigger(heading)}>
        <Title heading={heading}>{title}</Title>
      </Collapsible.Trigger>
      <Collapsible.Content>{children}</Collapsible.Content>
    </Collapsible.Root>
  );
}
