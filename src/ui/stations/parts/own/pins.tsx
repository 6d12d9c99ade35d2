"use client";
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from "@dnd-kit/core";
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from "@dnd-kit/sortable";
import { useState } from "react";
import { useFieldArray, useFormContext, useWatch } from "react-hook-form";
import type { DraftPin, OwnDraft } from "@/core/parts/own";
import { core } from "@/ui/state/core";
import { blankPin } from "@/core/parts/own/roles";
import { PinRow } from "./pin-row";
import { Label } from "@/ui/shared/label";
import { Hidden } from "@/ui/shared/hidden";

type ListName = "pins" | `variants.${number}.pins`;

const moved = <T,>(list: readonly T[], from: number, to: number): T[] => {
  const next = [...list];
  next.splice(to, 0, ...next.splice(from, 1));
  return next;
};

/** Pins pasted in one go. */
function Paste({ many, add }: { many: boolean; add(pins: DraftPin[]): void }) {
  const { getValues } = useFormContext<OwnDraft>();
  const board = useWatch<OwnDraft, "base">({ name: "base" })?.board !== undefined;
  const [text, setText] = useState("");
  const [problem, setProblem] = useState("");
  const read = async () => {
    const base = getValues("base");
    // A board's labels are looked up among those of the board whose chip it has.
    const r = await core().ownPins(text, base?.board ? base : undefined);
    if (!r.ok) return setProblem(r.message);
    setProblem("");
    setText("");
    const supply = getValues("supplies.0.key") ?? "main";
    add(
      r.pins.map((p) => ({
        ...blankPin(p.label, p.role, p.supply ?? supply, p.says),
        ...(p.from && { from: p.from }),
      })),
    );
  };
  return (
    <div>
      <Label className="block">
        <span className="text-soft">
          {board
            ? "Labels in printed order: the left row from the top down, then the right one; each finds its pin of the chip"
            : "Labels in printed order, or the pin table from the data sheet (number, name, type, description)"}
        </span>
        <textarea
          className="w-full font-mono text-sm"
          rows={many ? 2 : 5}
          value={text}
          placeholder={board ? "3V3 EN 36 39 34 …" : "VCC, GND, SDA, SCL"}
          onChange={(e) => setText(e.target.value)}
        />
      </Label>
      <button className="btn" disabled={!text.trim()} onClick={() => void read()}>
        {many ? "Add these pins" : "Read the pins"}
      </button>
      {problem && (
        <p role="alert" className="font-bold text-stop">
          {problem}
        </p>
      )}
    </div>
  );
}

/** The pins of an own part: pasted in one go, then put right one by one, and in their order by drag, keys or buttons. */
export function PinsEditor({
  name,
  fixedLabels = false,
  problemAt,
}: {
  name: ListName;
  /** In a variant the labels are those of the first kind. */
  fixedLabels?: boolean;
  problemAt(index: number): string | undefined;
}) {
  const { control, getValues, setValue } = useFormContext<OwnDraft>();
  const list = useFieldArray({ control, name });
  const supplies = useWatch({ control, name: "supplies" }).map((s) => s.key);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  // The other kinds have the same pins, in the same order.
  const others = (change: (pins: DraftPin[]) => DraftPin[]) =>
    getValues("variants").forEach((v, i) => setValue(`variants.${i}.pins`, change(v.pins)));
  const move = (from: number, to: number) => {
    list.move(from, to);
    others((pins) => moved(pins, from, to));
  };
  const drop = ({ active, over }: DragEndEvent) => {
    const at = (id: unknown) => list.fields.findIndex((f) => f.id === id);
    if (over && active.id !== over.id) move(at(active.id), at(over.id));
  };
  const spoken = (id: unknown) => {
    const i = list.fields.findIndex((f) => f.id === id);
    return `pin ${i + 1}, ${getValues(`${name}.${i}.label`)}`;
  };
  const rows = (
    <tbody>
      {list.fields.map((p, i) => (
        <PinRow
          key={p.id}
          id={p.id}
          list={name}
          i={i}
          last={i === list.fields.length - 1}
          supplies={supplies}
          fixed={fixedLabels ? p.label : null}
          wrong={problemAt(i)}
          rename={(label) => others((pins) => pins.map((q, k) => (k === i ? { ...q, label } : q)))}
          move={(by) => move(i, i + by)}
          remove={() => {
            list.remove(i);
            others((pins) => pins.filter((_, k) => k !== i));
          }}
        />
      ))}
    </tbody>
  );
  return (
    <>
      {!fixedLabels && (
        <Paste
          many={list.fields.length > 0}
          add={(pins) => {
            list.append(pins, { shouldFocus: false });
            others((old) => [...old, ...pins.map((p) => ({ ...p }))]);
          }}
        />
      )}
      {list.fields.length > 0 && (
        <table className="plain mt-2 max-w-3xl" aria-label="Pins">
          <thead>
            <tr>
              <th>pin</th>
              <th>label</th>
              <th>it is</th>
              {supplies.length > 1 && <th>supply</th>}
              <th className="w-16 whitespace-normal!">may stay free</th>
              <th>note</th>
              {!fixedLabels && (
                <th>
                  <Hidden>order</Hidden>
                </th>
              )}
            </tr>
          </thead>
          {fixedLabels ? (
            rows
          ) : (
            <DndContext
              id={name}
              sensors={sensors}
              collisionDetection={closestCenter}
              onDragEnd={drop}
              accessibility={{
                // In the page and not in the table, where a text has no place.
                container: document.body,
                screenReaderInstructions: {
                  draggable:
                    "Space lifts the pin, arrow keys move it, Space puts it down, Escape leaves it where it was.",
                },
                announcements: {
                  onDragStart: ({ active }) => `Lifted ${spoken(active.id)}.`,
                  onDragOver: ({ active, over }) =>
                    over ? `${spoken(active.id)}: over ${spoken(over.id)}.` : undefined,
                  onDragEnd: ({ active, over }) =>
                    over ? `Put ${spoken(active.id)} where ${spoken(over.id)} was.` : undefined,
                  onDragCancel: ({ active }) => `Left ${spoken(active.id)} where it was.`,
                },
              }}
            >
              <SortableContext items={list.fields.map((f) => f.id)} strategy={verticalListSortingStrategy}>
                {rows}
              </SortableContext>
            </DndContext>
          )}
        </table>
      )}
    </>
  );
}
