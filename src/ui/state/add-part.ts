"use client";
import { useCallback } from "react";
import { toast } from "sonner";
import { count } from "@/core/quantity/count";
import type { Part } from "@/core/parts/catalogue";
import { core } from "./core";
import { useActions } from "./project";

export interface AddAsked {
  quantity?: number;
  label?: string;
  options?: Record<string, string | number>;
  /** The definition, when it is one of the person's own. */
  own?: Part | undefined;
}

/** Adds a part with what it needs around it, planned; what does not fit, or was left open because it would harm, is told. */
export function useAddPart(added?: (refs: readonly string[]) => void) {
  const { run } = useActions();
  return useCallback(
    (id: string, more: AddAsked = {}) =>
      run(async (p) => {
        const s = await core().add(p, id, more.label ?? "", {
          quantity: more.quantity ?? 1,
          ...(more.options && Object.keys(more.options).length && { options: more.options }),
          ...(more.own && { own: more.own }),
        });
        added?.(s.refs);
        const wires = s.project.links.length - p.links.length;
        const who = s.refs.length > 1 ? `${s.refs[0]} to ${s.refs.at(-1)}` : s.ref;
        if (s.clash) toast.error(`${who} in the list, but the pins do not fit: ${s.clash}`, { duration: 12_000 });
        else if (s.leftOpen) toast.warning(`${who} added. ${s.leftOpen}`, { duration: 20_000 });
        else toast(`${who} added${wires > 0 ? `: ${count(wires, "wire")} planned` : ""}.`);
        return s;
      }),
    [run, added],
  );
}
