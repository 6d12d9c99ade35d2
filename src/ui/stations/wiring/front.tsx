"use client";
import { Printer } from "lucide-react";
import type { Panel } from "@/core/build/panel";
import { drillList } from "@/core/build/panel/drill";
import { wallSize } from "@/core/build/panel/wall";
import type { Project } from "@/core/project";
import { WALLS, type Wall } from "@/core/project/choices";
import { Checkbox } from "@/ui/shared/checkbox";
import { Download } from "@/ui/shared/download";
import { DrawingView } from "@/ui/shared/drawing";
import { SaveField } from "@/ui/shared/save-field";
import { Select } from "@/ui/shared/select";
import { core } from "@/ui/state/core";
import { useLit } from "@/ui/state/lit";
import { useProject } from "@/ui/state/project";
import { useCore } from "./use-core";

const ask = (p: Project) => core().panel(p);
const SIDES = [
  ["w_mm", "wide", 20, 1000],
  ["h_mm", "high", 20, 1000],
  ["d_mm", "deep inside", 5, 500],
  ["corner_mm", "corner radius", 0, 100],
] as const;
const WALL_OPTIONS = WALLS.map((value) => ({ value, name: value }));

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
  return (
    <SaveField
      label={says}
      className="inline-flex items-center gap-2"
      fieldClass="num w-20"
      numeric
      unit="mm"
      value={String(value)}
      schema={(s) => s.numberIn(says, least, most, "mm")}
      save={(mm) => mm !== value && change(mm)}
    />
  );
}

function wallSays(p: Panel, wall: Wall) {
  const n = p.parts.filter((x) => x.wall === wall).length;
  return `${wall} with ${n} ${n === 1 ? "part" : "parts"}`;
}

/** Where a part begins that moves to another wall. */
function middleOf(p: Parameters<typeof wallSize>[0], wall: Wall) {
  const { w, h } = wallSize(p, wall);
  return { x: Math.round(w / 2), y: Math.round(h / 2) };
}

/** The walls of the box: what goes through them, whether it fits, and the template to drill by. */
export function Front() {
  const { project, edit, light } = useProject();
  const lit = useLit();
  const shown = useCore(ask);
  const { box } = project;
  if (!box)
    return (
      <button className="btn mt-3" onClick={() => void edit({ type: "setBox", box: {} })}>
        It goes into a box
      </button>
    );
  return (
    <section className="mt-4 border-t border-ink pt-2" aria-label="Box">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <h2 className="font-bold">Box</h2>
        {SIDES.map(([key, says, least, most]) => (
          <Length
            key={key}
            says={says}
            value={box[key] ?? 0}
            least={least}
            most={most}
            change={(v) => void edit({ type: "setBox", box: { [key]: v } })}
          />
        ))}
        <Checkbox checked={!!box.usbLead} onChange={(on) => void edit({ type: "setBox", box: { usbLead: on } })}>
          USB lead to a wall
        </Checkbox>
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
          <div className="flex flex-col gap-3">
            {shown.walls.map((w) => (
              <DrawingView
                key={w.wall}
                drawing={w.drawing}
                says={wallSays(shown.panel, w.wall)}
                lit={lit}
                className="max-h-80 w-full border border-line bg-sheet"
              />
            ))}
          </div>
          <div>
            {shown.panel.trouble.length ? (
              <ul className="border-l-4 border-fault pl-3" data-testid="panel-trouble">
                {shown.panel.trouble.map((t) => (
                  <li key={t}>{t}</li>
                ))}
              </ul>
            ) : (
              <p data-testid="panel-fits">Everything fits its wall and the depth behind it.</p>
            )}
            {!shown.panel.parts.length && (
              <p className="text-soft">
                None of the parts goes through a wall. Lights, switches, knobs, displays, sockets and echo sensors do.
              </p>
            )}
            {shown.panel.parts.length > 0 && (
              <ol className="mt-2 list-decimal pl-6 text-sm" aria-label="Holes in the order of drilling">
                {drillList(shown.panel).map((r) => (
                  <li key={`${r.wall} ${r.ref} ${r.x_mm} ${r.y_mm}`}>
                    {r.part}, {r.wall}: <span className="num">{r.x_mm}</span> mm from left,{" "}
                    <span className="num">{r.y_mm}</span> mm from top: {r.how}
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
                  <Select
                    label={`Wall of ${p.name}`}
                    value={p.wall}
                    options={WALL_OPTIONS}
                    onChange={(wall) =>
                      void edit({ type: "moveOnPanel", ref: p.ref, at: { ...middleOf(shown.panel, wall), wall } })
                    }
                  />
                  {(["x", "y"] as const).map((axis) => (
                    <Length
                      key={axis}
                      says={axis === "x" ? "from left" : "from top"}
                      value={Number(p[axis].toFixed(1))}
                      least={0}
                      most={1000}
                      change={(v) =>
                        void edit({ type: "moveOnPanel", ref: p.ref, at: { x: p.x, y: p.y, wall: p.wall, [axis]: v } })
                      }
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
