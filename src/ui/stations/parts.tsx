"use client";
import { useEffect, useRef, useState } from "react";
import { toast } from "sonner";
import type { PartSummary } from "@/workers/api";
import type { PartView } from "@/workers/view";
import { StationTitle } from "@/ui/shared/title";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";

function OptionField({ part, option }: { part: PartView; option: PartView["options"][number] }) {
  const { edit } = useProject();
  const [text, setText] = useState(String(option.value));
  const [problem, setProblem] = useState("");
  useEffect(() => setText(String(option.value)), [option.value]);
  const id = `${part.ref}-${option.key}`;
  const set = (value: string | number) => void edit({ type: "setOption", ref: part.ref, key: option.key, value });
  if (option.kind === "choice")
    return (
      <label className="mr-5 inline-flex items-center gap-2 text-sm" htmlFor={id}>
        <span className="text-soft">{option.label}</span>
        <select id={id} value={String(option.value)} onChange={(e) => set(e.target.value)}>
          {option.choices.map((c) => (
            <option key={c.value} value={c.value}>
              {c.label}
            </option>
          ))}
        </select>
      </label>
    );
  const done = () => {
    const value = Number(text.replace(",", "."));
    if (!Number.isFinite(value) || value < option.min || value > option.max)
      return setProblem(`${option.label} takes ${option.min} to ${option.max} ${option.unit}`.trim());
    setProblem("");
    if (value !== option.value) set(value);
  };
  return (
    <label className="mr-5 inline-flex items-center gap-2 text-sm" htmlFor={id}>
      <span className="text-soft">{option.label}</span>
      <input
        id={id}
        inputMode="decimal"
        className="num w-20"
        value={text}
        aria-invalid={problem !== ""}
        onChange={(e) => setText(e.target.value)}
        onBlur={done}
        onKeyDown={(e) => e.key === "Enter" && done()}
      />
      {option.unit}
      {problem && (
        <span role="alert" className="font-bold text-stop">
          {problem}
        </span>
      )}
    </label>
  );
}

function Label({ part }: { part: PartView }) {
  const { edit } = useProject();
  const [text, setText] = useState(part.label);
  useEffect(() => setText(part.label), [part.label]);
  const done = () => text.trim() !== part.label && void edit({ type: "setLabel", ref: part.ref, label: text.trim() });
  return (
    <input
      aria-label={`Name of ${part.ref}`}
      className="-ml-2 w-full border-transparent! bg-transparent! font-bold hover:border-line! focus:border-soft!"
      value={text}
      maxLength={60}
      onChange={(e) => setText(e.target.value)}
      onBlur={done}
      onKeyDown={(e) => e.key === "Enter" && done()}
    />
  );
}

function Row({ part }: { part: PartView }) {
  const { edit, lit } = useProject();
  return (
    <li
      className={`border-b border-line py-2 ${[...lit].some((x) => x === part.ref || x.startsWith(`${part.ref}.`)) ? "bg-wash" : ""}`}
      data-testid={`part-${part.ref}`}
    >
      <div className="grid grid-cols-[2.5rem_minmax(9rem,12rem)_1fr_auto] items-baseline gap-x-3">
        <span className="num text-soft">{part.ref}</span>
        <Label part={part} />
        <span className="min-w-0 grow text-soft">{part.name}</span>
        <button
          className="quiet text-sm text-soft"
          aria-label={`Remove ${part.label}`}
          onClick={() => void edit({ type: "removePart", ref: part.ref })}
        >
          remove
        </button>
      </div>
      <div className="ml-13">
        {part.options.length > 0 && (
          <div className="flex flex-wrap gap-y-1">
            {part.options.map((o) => (
              <OptionField key={o.key} part={part} option={o} />
            ))}
          </div>
        )}
        {part.companions.map((c, i) => (
          <p key={i} className="text-sm">
            with {c.says} <span className="text-soft">because {c.because}</span>
          </p>
        ))}
        {part.notes.length > 0 && (
          <details className="text-sm">
            <summary className="cursor-pointer text-soft">
              {part.certainty === "high" ? (
                "about the numbers"
              ) : (
                <span className="text-risk">sellers differ: data certainty {part.certainty}</span>
              )}
            </summary>
            {part.notes.map((n) => (
              <p key={n}>{n}</p>
            ))}
          </details>
        )}
        {part.cautions.map((c) => (
          <p key={c} className="text-sm">
            <strong className="text-stop">Take care:</strong> {c}
          </p>
        ))}
      </div>
    </li>
  );
}

/** Parts: find what is in the drawer, add it, and see what else it needs and why. */
export function Parts() {
  const { view, run, project } = useProject();
  const [query, setQuery] = useState("");
  const [hits, setHits] = useState<PartSummary[]>([]);
  const [at, setAt] = useState(0);
  const asked = useRef(0);
  useEffect(() => {
    const n = ++asked.current;
    void core()
      .search(query)
      .then((list) => n === asked.current && (setHits(list), setAt(0)));
  }, [query]);
  const add = (hit: PartSummary) =>
    void run(async (p) => {
      const s = await core().add(p, hit.id, "");
      const wires = s.project.links.length - p.links.length;
      if (s.clash) toast.error(`${s.ref} is in the list, but its pins do not fit: ${s.clash}`, { duration: 12_000 });
      else toast(`${s.ref} added${wires > 0 ? `: ${wires} wires planned` : ""}.`);
      return s;
    });
  return (
    <>
      <StationTitle
        name="Parts"
        says="What is in the drawer. What a part needs around it comes along, with the reason."
      />
      <div className="mt-3 grid gap-x-8 gap-y-4 xl:grid-cols-[300px_1fr]">
        <section aria-label="Catalogue">
          <label>
            <span className="text-soft">Find by what it does, chip, bus or voltage</span>
            <input
              className="w-full"
              value={query}
              placeholder="temperature i2c"
              role="combobox"
              aria-expanded
              aria-controls="catalogue"
              aria-activedescendant={hits[at] ? `hit-${at}` : undefined}
              onChange={(e) => setQuery(e.target.value)}
              onKeyDown={(e) => {
                if (e.key === "ArrowDown" || e.key === "ArrowUp") {
                  e.preventDefault();
                  setAt((i) => Math.max(0, Math.min(hits.length - 1, i + (e.key === "ArrowDown" ? 1 : -1))));
                }
                if (e.key === "Enter" && hits[at]) add(hits[at]);
              }}
            />
          </label>
          <ul id="catalogue" role="listbox" aria-label="Catalogue parts" className="mt-2 border-t border-ink">
            {hits.map((h, i) => (
              <li
                key={h.id}
                id={`hit-${i}`}
                role="option"
                aria-selected={i === at}
                className={`cursor-pointer border-b border-line px-1 py-1.5 hover:bg-wash ${i === at ? "bg-wash" : ""}`}
                onClick={() => add(h)}
                data-testid={`add-${h.id}`}
              >
                <span className="block">{h.name}</span>
                <span className="block text-sm leading-tight text-soft">{h.does}</span>
              </li>
            ))}
            {hits.length === 0 && (
              <li className="py-2 text-soft">No part by that name. Try what it does: “distance”, “light”, “button”.</li>
            )}
          </ul>
          <p className="mt-1 text-sm text-soft">Enter or a click adds the marked part.</p>
        </section>
        <section aria-label="Parts of this project">
          <h2 className="text-lg">In this project</h2>
          <ul className="border-t border-ink">
            {view.parts.map((p) => (
              <Row key={p.ref} part={p} />
            ))}
          </ul>
          {project.parts.length === 0 && (
            <p className="mt-3 max-w-md">
              Nothing yet. A first try: type <em>board</em> and press Enter, then <em>usb</em>, then <em>red</em>. That
              is a lamp on a pin, planned and checked.
            </p>
          )}
        </section>
      </div>
    </>
  );
}
