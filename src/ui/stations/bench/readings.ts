"use client";
import { useMemo } from "react";
import type { CheckItem } from "@/core/bench";
import { core } from "@/ui/state/core";
import { useActions, useProject } from "@/ui/state/project";

export interface Judged {
  ok: boolean;
  says: string;
}

/** Readings of the project's bench, and how one is stored: judged first, so that what is no reading changes nothing. */
export function useReadings() {
  const { project, view } = useProject();
  const { edit } = useActions();
  const entries = useMemo(
    () => new Map(project.bench.filter((b) => b.list === "checks").map((b) => [b.id, b])),
    [project.bench],
  );
  const store = (item: CheckItem, done: boolean, reading: string) =>
    edit({
      type: "tick",
      list: "checks",
      id: item.id,
      done,
      at: new Date().toISOString(),
      ...(reading && { reading }),
    });
  const answer = async (item: CheckItem, text: string): Promise<Judged> => {
    // What the program shows counts for the plan that it was written from.
    const full = item.unit === "word" ? `${text} ${view.fingerprint}` : text;
    const v = await core().reading(project, item, full);
    if (v.ok || !/is not a reading|says nothing about this/.test(v.says)) await store(item, v.ok, full);
    return v;
  };
  /** A check of the list as it stands: nothing yet, as it should be, or off. */
  const stateOf = (item: CheckItem): "open" | "good" | "off" => {
    const e = entries.get(item.id);
    if (!e || (!e.done && !e.reading)) return "open";
    const plan = / ([A-Z]{8})$/.exec(e.reading ?? "")?.[1];
    if (plan && plan !== view.fingerprint) return "open";
    return e.done ? "good" : "off";
  };
  return { entries, answer, store, stateOf };
}
