"use client";
import { useEffect, useRef, useState } from "react";
import type { Act, Control, Shows } from "@/core/bench/trial";
import { Slider } from "@/ui/shared/slider";

/** A contact: held as long as it is pressed, by mouse, thumb, Space or Enter. */
function Contact({ label, hold }: { label: string; hold(down: boolean): void }) {
  const [down, setDown] = useState(false);
  const set = (v: boolean) => {
    if (v === down) return;
    setDown(v);
    hold(v);
  };
  return (
    <button
      className="btn touch-none select-none"
      aria-pressed={down}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        set(true);
      }}
      onPointerUp={() => set(false)}
      onPointerCancel={() => set(false)}
      onKeyDown={(e) => {
        if (e.key === " " || e.key === "Enter") {
          e.preventDefault();
          set(true);
        }
      }}
      onKeyUp={(e) => (e.key === " " || e.key === "Enter") && set(false)}
      onBlur={() => set(false)}
    >
      {label}
    </button>
  );
}

/** What a part feels, along its range. */
function Feels({ c, set }: { c: Extract<Control, { kind: "feels" }>; set(v: number): void }) {
  const [value, setValue] = useState(c.value);
  const name = `${c.label}: ${c.word}`;
  return (
    <div className="flex items-center gap-2">
      <span className="w-36 shrink-0 leading-tight">{name}</span>
      <Slider
        label={name}
        value={value}
        min={c.least}
        max={c.most}
        step={c.step}
        onChange={(v) => (setValue(v), set(v))}
      />
      <span className="num w-24 shrink-0 text-right text-sm">
        {Math.round(value * 100) / 100} {c.unit === "C" ? "°C" : c.unit}
      </span>
    </div>
  );
}

function Dots({ colours, says }: { colours: readonly string[]; says: string }) {
  return (
    <span role="img" aria-label={says} className="inline-flex flex-wrap gap-0.5 align-middle">
      {colours.map((c, i) => (
        <span key={i} className="size-3 rounded-full border border-line" style={{ background: c }} />
      ))}
    </span>
  );
}
const LIT = "var(--color-accent)";
const onOff = (lit: readonly boolean[]) => lit.map((on) => (on ? LIT : "transparent"));

function Shown({ s }: { s: Shows }) {
  switch (s.kind) {
    case "light": {
      const dimmed = s.lit && s.bright !== undefined && s.bright < 100;
      const says = s.lit ? (dimmed ? `lit at ${s.bright} %` : "lit") : "dark";
      const colour = dimmed ? `color-mix(in srgb, ${LIT} ${s.bright}%, transparent)` : s.lit ? LIT : "transparent";
      return (
        <>
          <Dots colours={[colour]} says={says} /> {says}
        </>
      );
    }
    case "strip": {
      const lit = s.colours.filter((c) => c !== "rgb(0, 0, 0)").length;
      return <Dots colours={s.colours} says={`${lit} of ${s.colours.length} lit`} />;
    }
    case "grid":
      return <Dots colours={onOff(s.lit)} says={`${s.lit.filter(Boolean).length} of ${s.lit.length} lit`} />;
    case "rows":
      return (
        <pre className="num mt-1 w-fit border border-line bg-wash px-2 py-1 text-sm leading-snug whitespace-pre!">
          {s.rows.join("\n")}
        </pre>
      );
    case "does":
      return <>{s.says}</>;
  }
}

/** Simulated parts at work: what they show and do, what can be done to them, and what the program prints. */
export function PartsAtWork({
  shows,
  controls,
  lines,
  act,
}: {
  shows: readonly Shows[];
  controls: readonly Control[];
  lines: readonly { at: number; line: string }[];
  act(a: Act): void;
}) {
  const log = useRef<HTMLPreElement>(null);
  useEffect(() => {
    log.current?.scrollTo({ top: log.current.scrollHeight });
  }, [lines]);
  return (
    <div className="mt-2 space-y-2">
      <ul className="space-y-1" aria-label="What the parts do">
        {shows.map((s) => (
          <li key={s.ref}>
            <span className="font-bold">{s.label}</span> <Shown s={s} />
          </li>
        ))}
      </ul>
      {controls.length > 0 && (
        <div className="space-y-1" role="group" aria-label="What you do">
          <div className="flex flex-wrap gap-2">
            {controls.map(
              (c) =>
                c.kind === "contact" && (
                  <Contact
                    key={`${c.ref} ${c.place ?? ""}`}
                    label={c.label}
                    hold={(down) => act({ ref: c.ref, down, place: c.place })}
                  />
                ),
            )}
          </div>
          {controls.map(
            (c) =>
              c.kind === "feels" && (
                <Feels
                  key={`${c.ref} ${c.quantity}`}
                  c={c}
                  set={(value) => act({ ref: c.ref, quantity: c.quantity, value })}
                />
              ),
          )}
        </div>
      )}
      <pre
        ref={log}
        role="log"
        aria-label="Console"
        tabIndex={0}
        className="num h-44 overflow-auto border border-line bg-wash p-2 text-sm leading-snug whitespace-pre!"
      >
        {lines.map((l) => `${(l.at / 1000).toFixed(1).padStart(6)}  ${l.line}\n`).join("")}
      </pre>
    </div>
  );
}
