/** Views of a station, one at a time: a line of names under the title. Arrow keys go along, as in any list of tabs. */
export function Tabs<T extends string>({
  label,
  tabs,
  tab,
  go,
}: {
  label: string;
  tabs: readonly { id: T; name: string; count?: number | undefined }[];
  tab: T;
  go(t: T): void;
}) {
  return (
    <div className="mt-2 flex flex-wrap gap-x-5 border-b border-line" role="tablist" aria-label={label}>
      {tabs.map((t, i) => (
        <button
          key={t.id}
          role="tab"
          aria-selected={tab === t.id}
          className={`-mb-px border-b-2 px-1 py-1 ${tab === t.id ? "border-accent font-bold" : "border-transparent text-soft hover:text-ink"}`}
          onClick={() => go(t.id)}
          onKeyDown={(e) => {
            const step = e.key === "ArrowRight" ? 1 : e.key === "ArrowLeft" ? -1 : 0;
            const next = step ? tabs[(i + step + tabs.length) % tabs.length] : undefined;
            if (!next) return;
            go(next.id);
            const all = e.currentTarget.parentElement?.querySelectorAll<HTMLElement>('[role="tab"]');
            all?.[tabs.indexOf(next)]?.focus();
          }}
        >
          {t.name}
          {t.count ? <span className="num ml-1 text-sm font-normal">{t.count}</span> : null}
        </button>
      ))}
    </div>
  );
}
