"use client";
import { useState } from "react";
import { Printer } from "lucide-react";
import { drillList } from "@/core/build/panel/drill";
import type { Project } from "@/core/project";
import { Download } from "@/ui/shared/download";
import { DrawingView } from "@/ui/shared/drawing";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";
import { useCore } from "./use-core";

const ask = (p: Project) => core().panel(p);
const SIDES = [
  ["w_mm", "wide", 20, 1000],
  ["h_mm", "high", 20, 1000],
  ["d_mm", "deep inside", 5, 500],
] as const;

/** A length that is taken over when it is complete, and refused in words when it can't be. */
function Length({
  says,
  value,
  least,
  most,
  change,
}: {
  says: string;
  value: number;
  least: number;
  most: number;
  change(v: number): void;
}) {
  const [text, setText] = useState<string | null>(null);
  const number = text === null ? value : Number(text.replace(",", "."));
  const good = Number.isFinite(number) && number >= least && number <= most && text !== "";
  const done = () => {
    if (text !== null && good && number !== value) change(number);
    if (good) setText(null);
  };
  return (
    <label className="inline-flex items-center gap-2">
      {says}
      <input
        className="num w-20"
        inputMode="decimal"
        aria-invalid={!good}
        value={text ?? String(value)}
        onChange={(e) => setText(e.target.value)}
        onBlur={done}
        onKeyDown={(e) => e.key === "Enter" && done()}
      />
      {good ? "mm" : <span className="text-fault">{`${least} to ${most} mm`}</span>}
    </label>
  );
}

/** The front of the box: what goes through it, whether it fits, and the template to drill by. */
export function Front() {
  const { project, edit, lit, light } = useProject();
  const shown = useCore(ask);
  const { box } = project;
  if (!box)
    return (
      <button className="btn mt-3" onClick={() => void edit({ type: "setBox", box: {} })}>
        It goes into a box
      </button>
    );
  return (
    <section className="mt-4 border-t border-ink pt-2" aria-label="Front of the box">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <h2 className="font-bold">Front of the box</h2>
        {SIDES.map(([key, says, least, most]) => (
          <Length
            key={key}
            says={says}
            value={box[key]}
            least={least}
            most={most}
            change={(v) => void edit({ type: "setBox", box: { [key]: v } })}
          />
        ))}
        <Download path="print?what=panel">
          <Printer size={16} className="mr-1 inline" aria-hidden />
          Drill template 1:1 (PDF)
        </Download>
        <button className="btn" onClick={() => void edit({ type: "setBox", box: null })}>
          No box
        </button>
      </div>
      {shown && (
        <div className="mt-2 grid gap-x-8 gap-y-3 lg:grid-cols-[1fr_1fr]">
          <DrawingView
            drawing={shown.drawing}
            says={`Front with ${shown.panel.parts.length} parts`}
            lit={lit}
            className="max-h-80 w-full border border-line bg-sheet"
          />
          <div>
            {shown.panel.trouble.length ? (
              <ul className="border-l-4 border-fault pl-3" data-testid="panel-trouble">
                {shown.panel.trouble.map((t) => (
                  <li key={t}>{t}</li>
                ))}
              </ul>
            ) : (
              <p data-testid="panel-fits">Everything fits the front and the depth.</p>
            )}
            {!shown.panel.parts.length && (
              <p className="text-soft">
                None of the parts goes through the front. Lights, switches, knobs, displays and echo sensors do.
              </p>
            )}
            {shown.panel.parts.length > 0 && (
              <ol className="mt-2 list-decimal pl-6 text-sm" aria-label="Holes in the order of drilling">
                {drillList(shown.panel).map((r) => (
                  <li key={`${r.ref} ${r.x_mm} ${r.y_mm}`}>
                    {r.part}, <span className="num">{r.x_mm}</span> mm from left, <span className="num">{r.y_mm}</span>{" "}
                    mm from top: {r.how}
                  </li>
                ))}
              </ol>
            )}
            <ul className="mt-2">
              {shown.panel.parts.map((p) => (
                <li
                  key={p.ref}
                  className="flex flex-wrap items-center gap-x-4 border-b border-line py-1"
                  onMouseEnter={() => light([p.ref])}
                  onMouseLeave={() => light([])}
                >
                  <span className="w-32">{p.name}</span>
                  {(["x", "y"] as const).map((axis) => (
                    <Length
                      key={axis}
                      says={axis === "x" ? "from left" : "from top"}
                      value={Number(p[axis].toFixed(1))}
                      least={0}
                      most={1000}
                      change={(v) => void edit({ type: "moveOnPanel", ref: p.ref, at: { x: p.x, y: p.y, [axis]: v } })}
                    />
                  ))}
                  {p.byHand && (
                    <button className="btn" onClick={() => void edit({ type: "moveOnPanel", ref: p.ref, at: null })}>
                      Arrange again
                    </button>
                  )}
                  <span className="block w-full text-sm text-soft">{p.cutout.says}</span>
                </li>
              ))}
            </ul>
          </div>
        </div>
      )}
    </section>
  );
}
