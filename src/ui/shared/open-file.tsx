"use client";
import { useRef } from "react";

/** A button that lets the person choose a file; the same file can be chosen again afterwards. */
export function OpenFile(o: {
  says: string;
  label: string;
  accept: string;
  open: (file: File | undefined) => Promise<unknown>;
}) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <button type="button" className="btn" onClick={() => input.current?.click()}>
        {o.says}
      </button>
      <input
        ref={input}
        type="file"
        accept={o.accept}
        className="sr-only"
        tabIndex={-1}
        aria-label={o.label}
        onChange={(e) => void o.open(e.target.files?.[0]).then(() => input.current && (input.current.value = ""))}
      />
    </>
  );
}

/** What is wrong with something that was read: the sentence first, then the places. */
export function Problems({ lines }: { lines: readonly string[] }) {
  if (!lines.length) return null;
  return (
    <div role="alert" className="mt-3 border-l-4 border-stop pl-3">
      {lines.map((line, i) => (
        <p key={i} className={i ? "font-mono text-sm" : "font-bold"}>
          {line}
        </p>
      ))}
    </div>
  );
}
