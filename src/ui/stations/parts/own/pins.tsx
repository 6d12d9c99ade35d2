"use client";
import { ArrowDown, ArrowUp, Trash2 } from "lucide-react";
import { useState } from "react";
import type { DraftPin } from "@/core/parts/own";
import { OWN_ROLES, type OwnRole } from "@/core/parts/own/roles";
import { core } from "@/ui/state/core";
import { Checkbox } from "@/ui/shared/checkbox";
import { Select } from "@/ui/shared/select";

const ROLES = Object.entries(OWN_ROLES) as [OwnRole, string][];

/** The pins of an own part: pasted in one go, then put right one by one. */
export function PinsEditor({
  pins,
  supplies,
  set,
  fixedLabels,
  problemAt,
}: {
  pins: DraftPin[];
  supplies: string[];
  set(pins: DraftPin[]): void;
  /** In a variant the labels are those of the first kind. */
  fixedLabels?: boolean;
  problemAt(index: number): string | undefined;
}) {
  const [text, setText] = useState("");
  const [problem, setProblem] = useState("");
  const read = async () => {
    const r = await core().ownPins(text);
    if (!r.ok) return setProblem(r.message);
    setProblem("");
    setText("");
    set([
      ...pins,
      ...r.pins.map((p) => ({
        label: p.label,
        role: p.role,
        says: p.says,
        supply: supplies[0] ?? "main",
        optional: false,
      })),
    ]);
  };
  const change = (i: number, part: Partial<DraftPin>) => set(pins.map((p, k) => (k === i ? { ...p, ...part } : p)));
  const move = (i: number, by: number) => {
    const next = [...pins];
    const [p] = next.splice(i, 1);
    next.splice(i + by, 0, p!);
    set(next);
  };
  return (
    <>
      {!fixedLabels && (
        <div>
          <label className="block">
            <span className="text-soft">
              Labels in printed order, or the pin table from the data sheet (number, name, type, description)
            </span>
            <textarea
              className="w-full font-mono text-sm"
              rows={pins.length ? 2 : 5}
              value={text}
              placeholder={"VCC, GND, SDA, SCL"}
              onChange={(e) => setText(e.target.value)}
            />
          </label>
          <button className="btn" disabled={!text.trim()} onClick={() => void read()}>
            {pins.length ? "Add these pins" : "Read the pins"}
          </button>
          {problem && (
            <p role="alert" className="font-bold text-stop">
              {problem}
            </p>
          )}
        </div>
      )}
      {pins.length > 0 && (
        <table className="plain mt-2 max-w-3xl" aria-label="Pins">
          <thead>
            <tr>
              <th>pin</th>
              <th>label</th>
              <th>it is</th>
              {supplies.length > 1 && <th>supply</th>}
              <th>may stay free</th>
              <th>note</th>
              {!fixedLabels && (
                <th>
                  <span className="sr-only">order</span>
                </th>
              )}
            </tr>
          </thead>
          <tbody>
            {pins.map((p, i) => {
              const wrong = problemAt(i);
              return (
                <tr key={i} data-testid={`pin-row-${i}`}>
                  <td className="num">{i + 1}</td>
                  <td>
                    <input
                      aria-label={`Label of pin ${i + 1}`}
                      className="num w-24"
                      value={p.label}
                      maxLength={20}
                      disabled={fixedLabels}
                      aria-invalid={wrong !== undefined}
                      onChange={(e) => change(i, { label: e.target.value })}
                    />
                    {wrong && <span className="block max-w-40 text-sm font-bold text-stop">{wrong}</span>}
                  </td>
                  <td>
                    <Select<OwnRole>
                      label={`Role of pin ${i + 1}`}
                      className="max-w-52"
                      value={p.role}
                      options={ROLES.filter(([r]) => r !== "kept" || p.role === "kept").map(([value, name]) => ({
                        value,
                        name,
                      }))}
                      onChange={(role) => change(i, { role })}
                    />
                  </td>
                  {supplies.length > 1 && (
                    <td>
                      <Select
                        label={`Supply of pin ${i + 1}`}
                        value={p.supply}
                        options={supplies.map((s) => ({ value: s, name: s }))}
                        onChange={(supply) => change(i, { supply })}
                      />
                    </td>
                  )}
                  <td>
                    <Checkbox
                      label={`Pin ${i + 1} may stay free`}
                      checked={p.optional}
                      onChange={(optional) => change(i, { optional })}
                    />
                  </td>
                  <td>
                    <input
                      aria-label={`Note on pin ${i + 1}`}
                      className="w-full min-w-24"
                      value={p.says}
                      maxLength={200}
                      onChange={(e) => change(i, { says: e.target.value })}
                    />
                  </td>
                  {!fixedLabels && (
                    <td className="whitespace-nowrap">
                      <button
                        className="px-1"
                        disabled={i === 0}
                        aria-label={`Pin ${i + 1} up`}
                        onClick={() => move(i, -1)}
                      >
                        <ArrowUp size={14} aria-hidden />
                      </button>
                      <button
                        className="px-1"
                        disabled={i === pins.length - 1}
                        aria-label={`Pin ${i + 1} down`}
                        onClick={() => move(i, 1)}
                      >
                        <ArrowDown size={14} aria-hidden />
                      </button>
                      <button
                        className="px-1"
                        aria-label={`Take pin ${i + 1} out`}
                        onClick={() => set(pins.filter((_, k) => k !== i))}
                      >
                        <Trash2 size={14} aria-hidden />
                      </button>
                    </td>
                  )}
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
    </>
  );
}
