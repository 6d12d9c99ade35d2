"use client";
import { X } from "lucide-react";
import dynamic from "next/dynamic";
import { useEffect, useState } from "react";
import type { RulesView } from "@/core/firmware/rules/view";
import type { Rule } from "@/core/project/rules";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";

const NewRule = dynamic(() => import("./rule-form").then((m) => m.NewRule));

/** What the programs do when: sentences that a person adds and takes out. */
export function Rules() {
  const { project, edit } = useProject();
  const [view, setView] = useState<RulesView | null>(null);
  const [adding, setAdding] = useState(false);
  useEffect(() => {
    let gone = false;
    void core()
      .rules(project)
      .then((v) => !gone && setView(v));
    return () => {
      gone = true;
    };
  }, [project]);
  if (!view || (!view.outputs.length && !view.rules.length)) return null;
  const list = view.rules.map((r) => r.rule);
  const set = (rules: Rule[] | undefined) => void edit({ type: "setRules", ...(rules && { rules }) });
  return (
    <section aria-label="What happens when" className="mb-4 border-b border-line pb-3" data-testid="rules">
      <h2 className="font-bold">What happens when</h2>
      <p className="text-sm text-soft">
        {!view.suggested
          ? "Your sentences, in the program as they stand here. The last one that holds decides."
          : view.rules.length
            ? "Suggested from your parts, and in the program already. Add your own or take some out: then only yours count."
            : "Say here what your parts shall do; the program follows."}{" "}
        {!view.suggested && (
          <button className="quiet" onClick={() => set(undefined)}>
            Back to what is suggested
          </button>
        )}
      </p>
      <ul className="mt-1">
        {view.rules.map((r, i) => (
          <li key={i} className="flex items-baseline gap-2">
            <span>
              {r.says}
              {r.why && <span className="text-risk"> Not in the program: {r.why}.</span>}
            </span>
            <button
              className="quiet"
              aria-label={`Take out: ${r.says}`}
              onClick={() => set(list.filter((_, k) => k !== i))}
            >
              <X size={14} aria-hidden />
            </button>
          </li>
        ))}
        {!view.rules.length && (
          <li className="text-soft">
            {view.suggested
              ? "Nothing yet: the program does something simple with your parts by itself."
              : "Nothing: lights blink, everything else rests."}
          </li>
        )}
      </ul>
      {adding ? (
        <NewRule view={view} add={(rule) => set([...list, rule])} />
      ) : (
        <button className="btn mt-2" onClick={() => setAdding(true)}>
          Add a sentence
        </button>
      )}
    </section>
  );
}
