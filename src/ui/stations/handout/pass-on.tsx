"use client";
import { useState } from "react";
import { toast } from "sonner";
import type { Drawing } from "@/core/drawing";
import { Download } from "@/ui/shared/download";
import { DrawingView } from "@/ui/shared/drawing";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";

/** The plan on one page, as a line of text, and as a code on the screen. */
export function PassOn() {
  const { project } = useProject();
  const [packed, setPacked] = useState<{ text: string; code: Drawing | null } | null>(null);
  const show = async () => setPacked(packed ? null : await core().packed(project));
  return (
    <li className="border-b border-line py-2">
      <div className="flex justify-between gap-4">
        <span>
          One page to pass on{" "}
          <span className="block text-sm text-soft">
            the plan’s text as a code to photograph, where it fits, with wires and remarks
          </span>
        </span>
        <span className="flex gap-2 self-center">
          <button className="btn" aria-expanded={packed !== null} onClick={() => void show()}>
            On the screen
          </button>
          <Download path="print?what=share">PDF</Download>
        </span>
      </div>
      {packed && (
        <div className="mt-2 flex flex-wrap items-start gap-4">
          {packed.code ? (
            <span className="as-printed block w-64 p-2">
              <DrawingView drawing={packed.code} says="The plan as a code of squares" className="w-full" />
            </span>
          ) : (
            <p className="text-risk">Too large for a code ({packed.text.length} letters): pass the file on.</p>
          )}
          <div className="min-w-0 grow basis-60">
            <p className="text-sm text-soft">
              Or as text: the first page opens it under “Open a plan as text”. Not in it: what was measured, the drawer.
            </p>
            <textarea
              readOnly
              aria-label="The plan as text"
              className="mt-1 w-full font-mono text-sm"
              rows={5}
              value={packed.text}
            />
            <button
              className="btn"
              onClick={() =>
                void navigator.clipboard.writeText(packed.text).then(
                  () => toast("The text is copied."),
                  () => toast.error("Mark the text and copy it by hand."),
                )
              }
            >
              Copy it
            </button>
          </div>
        </div>
      )}
    </li>
  );
}
