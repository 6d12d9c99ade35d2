"use client";
import { useEffect, useState } from "react";
import type { RuleEffect } from "@/core/house";
import { RULES, schoolOf } from "@/core/house/rules";
import { DrawingView } from "@/ui/shared/drawing";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";
import type { Question } from "./rules";

/** All schools of a house rule beside each other: a picture, what it costs and buys, who holds it, and what it would change here. */
export function Schools({ rule }: { rule: Question }) {
  const { project } = useProject();
  const [effects, setEffects] = useState<RuleEffect[]>([]);
  useEffect(() => {
    let gone = false;
    void core()
      .ruleEffects(project, rule.key)
      .then((e) => {
        if (!gone) setEffects(e);
      });
    return () => {
      gone = true;
    };
  }, [project, rule.key]);
  return (
    <div className="mt-1 mb-2">
      <p className="text-sm">{RULES[rule.key].why}</p>
      {rule.choices.map(({ value, says }) => {
        const school = schoolOf(rule.key, value);
        const effect = effects.find((e) => e.value === value);
        return (
          <div key={value} className="mt-2 border-t border-line pt-2 text-sm">
            <DrawingView drawing={school.picture()} says={`Picture: ${says}`} className="w-64 max-w-full" />
            <dl>
              <dt className="font-bold">{says.split(":")[0]}</dt>
              <dd>
                <span className="text-soft">costs</span> {school.costs}
              </dd>
              <dd>
                <span className="text-soft">buys</span> {school.buys}
              </dd>
              <dd>
                <span className="text-soft">held by</span> {school.who}
              </dd>
              {effect && (
                <dd>
                  <span className="text-soft">in this plan</span> <strong>{effect.says}</strong>
                </dd>
              )}
            </dl>
          </div>
        );
      })}
    </div>
  );
}
