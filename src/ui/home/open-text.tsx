"use client";
import { useState } from "react";
import { OpenFile } from "@/ui/shared/open-file";
import { core } from "@/ui/state/core";

/** Larger pictures are brought down to this before they are looked at, pixels a side. */
const MOST_SIDE = 1600;
const MOST_BYTES = 30_000_000;

/** The text of the code in a picture; null where none is found. */
async function codeIn(file: File): Promise<string | null> {
  const [bitmap, { default: jsQR }] = await Promise.all([createImageBitmap(file), import("jsqr")]);
  const scale = Math.min(1, MOST_SIDE / Math.max(bitmap.width, bitmap.height));
  const [w, h] = [Math.max(1, Math.round(bitmap.width * scale)), Math.max(1, Math.round(bitmap.height * scale))];
  const canvas = document.createElement("canvas");
  canvas.width = w;
  canvas.height = h;
  const at = canvas.getContext("2d", { willReadFrequently: true })!;
  at.drawImage(bitmap, 0, 0, w, h);
  return jsQR(at.getImageData(0, 0, w, h).data, w, h)?.data ?? null;
}

/** Opens a plan from its text, typed or pasted, or from a picture of its code. */
export function OpenText({ open, fail }: { open(json: string): Promise<void>; fail(lines: string[]): void }) {
  const [text, setText] = useState("");
  const [busy, setBusy] = useState(false);
  const take = async (t: string) => {
    fail([]);
    const r = await core().unpacked(t);
    if (r.ok) await open(r.json);
    else fail(["The text was not opened:", r.message]);
  };
  const look = async (file: File | undefined) => {
    if (!file) return;
    fail([]);
    if (file.size > MOST_BYTES) return fail([`${file.name}: a picture has at most ${MOST_BYTES / 1e6} MB here.`]);
    setBusy(true);
    const found = await codeIn(file).catch(() => undefined);
    setBusy(false);
    if (found === undefined) return fail([`${file.name} can’t be read as a picture.`]);
    if (found === null)
      return fail([`In ${file.name} no code was found: photograph it straight, with white round it, and sharp.`]);
    await take(found);
  };
  return (
    <form
      className="mt-2 max-w-2xl"
      onSubmit={(e) => {
        e.preventDefault();
        if (text.trim()) void take(text);
      }}
    >
      <textarea
        aria-label="A plan as text"
        className="w-full font-mono text-sm"
        rows={3}
        maxLength={200_000}
        placeholder="YL1:…"
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <div className="flex flex-wrap gap-3">
        <button className="btn" disabled={!text.trim()}>
          Open this text
        </button>
        <OpenFile
          says={busy ? "Looking…" : "From a picture of its code…"}
          label="Picture of a plan's code"
          accept="image/*"
          open={look}
        />
      </div>
    </form>
  );
}
