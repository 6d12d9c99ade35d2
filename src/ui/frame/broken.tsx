"use client";

/** A view that failed: what happened, what is safe, and the ways on. */
export function Broken({ error, again }: { error: Error; again(): void }) {
  return (
    <main className="mx-auto max-w-2xl p-8" role="alert">
      <h1 className="text-2xl">This view failed</h1>
      <p className="mt-2">
        Something in the page went wrong while it was drawn. What the top bar called saved is on disk; the last change
        may be missing.
      </p>
      <p className="mt-2 font-mono text-sm text-soft">{error.message}</p>
      <p className="mt-4 flex gap-3">
        <button className="btn-main" onClick={again}>
          Draw it again
        </button>
        <button className="btn" onClick={() => window.location.reload()}>
          Load the page anew
        </button>
        <a className="btn" href="/">
          All projects
        </a>
      </p>
    </main>
  );
}
