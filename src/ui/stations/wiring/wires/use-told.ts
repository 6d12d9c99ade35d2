"use client";
import { useEffect, useState } from "react";
import { toast } from "sonner";
import type { WireAsk } from "@/core/wires";
import type { Told } from "@/workers/api";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";

const AFTER_MS = 120;

/** What an ask would bring in the project as it is: told anew with every change of either. */
export function useTold(ask: WireAsk | null): Told | null {
  const { project } = useProject();
  const key = ask ? JSON.stringify(ask) : "";
  const [told, setTold] = useState<{ key: string; told: Told } | null>(null);
  useEffect(() => {
    if (!key) return;
    let gone = false;
    const timer = setTimeout(
      () =>
        void core()
          .tellWire(project, JSON.parse(key) as WireAsk)
          .then((t) => !gone && setTold({ key, told: t })),
      AFTER_MS,
    );
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [project, key]);
  return told && told.key === key ? told.told : null;
}

/** An ask with what it would bring, and the act itself: done once told, said in a message. `go` tells whether it was done. */
export function useAct(ask: WireAsk | null, says: (did: string) => string) {
  const { run } = useProject();
  const told = useTold(ask);
  const go = async (): Promise<boolean> => {
    if (!ask || !told?.ok) return false;
    const step = await run((p) => core().doWire(p, ask));
    if (step) toast(says(told.says));
    return step !== null;
  };
  return { told, go };
}
