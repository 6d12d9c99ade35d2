"use client";
import { useEffect, useState } from "react";
import type { ChosenPrint } from "@/core/parts/catalogue";
import { HeaderDrawing } from "@/ui/shared/header-drawing";
import { later } from "@/ui/shared/later";
import { PRINT_SURE } from "@/ui/shared/print-sure";
import { core } from "@/ui/state/core";
import { useOwnParts } from "@/ui/state/own-parts";
import { useProject } from "@/ui/state/project";

const OwnOrder = later(() => import("./order").then((m) => m.OwnOrder));

type Known = NonNullable<Awaited<ReturnType<ReturnType<typeof core>["prints"]>>>;

/** The print check: the headers that such a part is sold with, drawn; the person says which one theirs is. */
export function PrintCheck({
  id,
  of,
  chosen,
  save,
}: {
  /** The part's id. */
  id: string;
  /** Whose header it is, for those who don't see the line above. */
  of: string;
  chosen: ChosenPrint | undefined;
  save(print: ChosenPrint): void;
}) {
  const { own } = useOwnParts();
  const { project } = useProject();
  const [known, setKnown] = useState<Known | null>(null);
  const [other, setOther] = useState(false);
  useEffect(() => {
    let gone = false;
    void core()
      .prints(id, [...project.customParts, ...own])
      .then((k) => !gone && setKnown(k));
    return () => {
      gone = true;
    };
    // Only what the id stands for matters here.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [id]);
  if (!known) return null;
  const now = chosen && "id" in chosen ? chosen.id : null;
  return (
    <section aria-label={`Header of ${of}`} className="mt-2 border-l-4 border-line pl-3">
      <p>
        <strong>Look at yours.</strong> Hold it with the print up and the header as drawn. What stands beside its pins?
      </p>
      <ul className="mt-1 flex flex-col gap-y-2">
        {known.prints.map((p) => (
          <li key={p.id} className="flex items-center gap-x-4 max-sm:flex-wrap" data-testid={`print-${p.id}`}>
            <HeaderDrawing headers={p.headers} name={`Header ${p.text}`} small plain />
            <div className="max-w-60">
              <p className="text-sm">
                {p.says}
                <span className="text-soft">, {PRINT_SURE[p.certainty]}</span>
              </p>
              <button
                className="btn mt-1"
                aria-pressed={now === p.id}
                aria-label={`Mine reads like this: ${p.text}`}
                onClick={() => save({ id: p.id })}
              >
                Mine reads like this
              </button>
            </div>
          </li>
        ))}
      </ul>
      {other ? (
        <OwnOrder id={id} known={known} chosen={chosen} save={save} />
      ) : (
        <button className="quiet mt-2" onClick={() => setOther(true)}>
          None of these: put its labels in order
        </button>
      )}
    </section>
  );
}
