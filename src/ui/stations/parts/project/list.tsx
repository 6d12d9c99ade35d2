"use client";
import { useCallback, useEffect, useRef } from "react";
import { InView, useVirtualRows } from "@/ui/shared/virtual";
import { useKept } from "@/ui/state/kept";
import { useProject } from "@/ui/state/project";
import { PartRow } from "./row";

const LINE_PX = 37;

/** The parts of this project, one line each until opened; what was added last stands open. */
export function ProjectList({ added }: { added: readonly string[] }) {
  const { view, project } = useProject();
  const { parts, hosts } = view;
  const [opened, setOpened] = useKept<Record<string, boolean>>("opened parts", {});
  const list = useRef<HTMLUListElement>(null);
  const rows = useVirtualRows(list, parts.length, LINE_PX, { beyond: 40, keyOf: (i) => parts[i]!.ref });
  const turn = useCallback((ref: string, open: boolean) => setOpened((now) => ({ ...now, [ref]: open })), [setOpened]);
  const last = added.at(-1);
  const at = last === undefined ? -1 : parts.findIndex((p) => p.ref === last);
  const shown = useRef<string | undefined>(undefined);
  useEffect(() => {
    if (at < 0 || shown.current === last) return;
    shown.current = last;
    rows.show(at);
  });
  return (
    <section aria-label="Parts of this project" className="min-w-0">
      <h2 className="text-lg">
        In this project{" "}
        {parts.length > 0 && (
          <span className="text-base font-normal text-soft">
            {parts.length === 1 ? "1 part" : `${parts.length} parts`}
          </span>
        )}
      </h2>
      <ul ref={list} className="border-t border-ink">
        <InView rows={rows}>
          {(i) => {
            const p = parts[i]!;
            return (
              <PartRow
                key={p.ref}
                part={p}
                hosts={hosts}
                open={opened[p.ref] ?? added.includes(p.ref)}
                turn={turn}
                index={i}
                measure={rows.measure}
              />
            );
          }}
        </InView>
      </ul>
      {project.parts.length === 0 && (
        <p className="mt-3 max-w-md">
          Nothing yet. A first try: type <em>board</em> and press Enter, then <em>usb port</em>, then <em>red led</em>.
          That is a lamp on a pin, planned and checked. Or paste a parts list.
        </p>
      )}
    </section>
  );
}
