"use client";
import { useEffect, useId, useState, type KeyboardEvent, type Ref } from "react";
import type { Suggestion } from "@/core/wires";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";
import { Label } from "@/ui/shared/label";

/** A field for a point of the circuit: takes what people say (`display sda`, `5V rail`, `GP4`), with suggestions in printed order. */
export function PointField({
  label,
  value,
  set,
  done,
  input,
}: {
  label: string;
  value: string;
  set(text: string): void;
  done?: () => void;
  input?: Ref<HTMLInputElement>;
}) {
  const { project } = useProject();
  const id = useId();
  const [list, setList] = useState<Suggestion[]>([]);
  const [open, setOpen] = useState(false);
  const [at, setAt] = useState(-1);
  useEffect(() => {
    let gone = false;
    if (open)
      void core()
        .suggest(project, value)
        .then((l) => !gone && setList(l));
    return () => {
      gone = true;
    };
  }, [project, value, open]);
  const shown = open && value.trim() !== "" && !(list.length === 1 && list[0]!.end === value);
  const take = (s: Suggestion) => {
    set(s.end);
    setOpen(false);
    setAt(-1);
  };
  const key = (e: KeyboardEvent) => {
    const step = e.key === "ArrowDown" ? 1 : e.key === "ArrowUp" ? -1 : 0;
    if (step && shown && list.length) {
      e.preventDefault();
      setAt((i) => (i + step + list.length) % list.length);
    } else if (e.key === "Enter") {
      e.preventDefault();
      const s = shown ? list[at] : undefined;
      if (s) take(s);
      else {
        setOpen(false);
        done?.();
      }
    } else if (e.key === "Escape" && shown) {
      e.stopPropagation();
      setOpen(false);
    }
  };
  return (
    <div className="relative min-w-0 grow">
      <Label htmlFor={id} className="block text-sm">
        {label}
      </Label>
      <input
        id={id}
        ref={input}
        role="combobox"
        aria-expanded={shown}
        aria-controls={`${id}-list`}
        aria-autocomplete="list"
        {...(at >= 0 && { "aria-activedescendant": `${id}-${at}` })}
        autoComplete="off"
        spellCheck={false}
        maxLength={80}
        className="w-full"
        placeholder="M1.SDA, display sda, ground…"
        value={value}
        onChange={(e) => {
          set(e.target.value);
          setOpen(true);
          setAt(-1);
        }}
        onFocus={() => setOpen(true)}
        onBlur={() => setOpen(false)}
        onKeyDown={key}
      />
      <ul
        id={`${id}-list`}
        role="listbox"
        aria-label="Suggestions"
        hidden={!shown}
        className="absolute z-20 mt-px max-h-72 w-full min-w-64 overflow-auto border border-ink bg-sheet"
      >
        {list.map((s, i) => (
          <li
            key={s.end}
            id={`${id}-${i}`}
            role="option"
            aria-selected={i === at}
            className={`cursor-pointer px-2 py-1 ${i === at ? "bg-wash" : ""}`}
            onMouseDown={(e) => {
              e.preventDefault();
              take(s);
            }}
          >
            <span className="num font-bold">{s.end}</span> <span className="text-soft">{s.label}</span>
            {s.says && <span className="block text-sm text-soft">{s.says}</span>}
          </li>
        ))}
        {!list.length && <li className="px-2 py-1 text-soft">No point by that name.</li>}
      </ul>
    </div>
  );
}
