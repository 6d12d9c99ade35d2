import type { LatticeView } from "@/core/plan/assign";

/** What a later part would still find, by what the pins can do. */
export function LeftOver({ view }: { view: LatticeView }) {
  const free = view.spare.find((x) => x.can === "digital")?.pins.length ?? 0;
  return (
    <section aria-label="Left over" className="mt-3 border-t border-ink pt-2">
      <h2 className="font-bold">
        Left over for a later part: {free} {free === 1 ? "pin" : "pins"}
      </h2>
      <dl className="mt-1 grid grid-cols-[auto_auto_auto_1fr] gap-x-4 text-sm">
        {view.spare.map((x) => (
          <div key={x.can} className="contents">
            <dt>{x.name}</dt>
            <dd className="num text-right">{x.pins.length}</dd>
            <dd className={x.pins.length ? "" : "font-bold"}>{x.says}</dd>
            <dd className="num truncate text-soft">
              {x.can !== "digital" && x.pins.length > 6 && x.pins.length === free ? "any of these" : x.pins.join(" ")}
            </dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
