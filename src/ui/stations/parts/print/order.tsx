"use client";
import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors } from "@dnd-kit/core";
import { rectSortingStrategy, SortableContext, sortableKeyboardCoordinates, useSortable } from "@dnd-kit/sortable";
import { useEffect, useRef, useState } from "react";
import type { ChosenPrint, HeaderRow } from "@/core/parts/catalogue";
import { HeaderDrawing } from "@/ui/shared/header-drawing";
import { Label } from "@/ui/shared/label";
import { Select } from "@/ui/shared/select";
import { core } from "@/ui/state/core";
import { useOwnParts } from "@/ui/state/own-parts";
import { useProject } from "@/ui/state/project";

type Known = NonNullable<Awaited<ReturnType<ReturnType<typeof core>["prints"]>>>;
interface Judged {
  problems: string[];
  unknown: string[];
  headers: HeaderRow[];
}

const NOTHING = "nothing";
const ROW_BREAK = "|";

/** One label, moved by drag or with the keyboard: Space lifts it, arrows move it, Space puts it down. */
function Chip({ id, label, at }: { id: string; label: string; at: string }) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id });
  return (
    <li
      ref={setNodeRef}
      style={{
        ...(transform && { transform: `translate(${Math.round(transform.x)}px, ${Math.round(transform.y)}px)` }),
        transition,
      }}
      className={isDragging ? "relative z-10" : ""}
    >
      <button
        className="num cursor-grab touch-none border border-line bg-sheet px-2 py-1 hover:border-ink"
        {...attributes}
        {...listeners}
        aria-label={`${label}, ${at}: move it`}
      >
        {label === ROW_BREAK ? "second row" : label}
      </button>
    </li>
  );
}

/** A header that nobody knows: its labels typed in order, put right by drag or keys, unknown ones explained. */
export function OwnOrder({
  id,
  known,
  chosen,
  save,
}: {
  id: string;
  known: Known;
  chosen: ChosenPrint | undefined;
  save(print: ChosenPrint): void;
}) {
  const { own } = useOwnParts();
  const { project } = useProject();
  const before = chosen && !("id" in chosen) ? chosen : undefined;
  const [text, setText] = useState(
    before ? before.rows.map((r) => r.join(" ")).join(` ${ROW_BREAK} `) : (known.prints[0]?.text ?? ""),
  );
  const [apart, setApart] = useState(before?.rowPitch_mm ? String(before.rowPitch_mm) : "");
  const [edge, setEdge] = useState<"bottom" | "top">(before?.edge ?? known.edge);
  const [names, setNames] = useState<Record<string, string | null>>(before?.names ?? {});
  const [judged, setJudged] = useState<Judged | null>(null);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  // Two grounds of one row are two pins of the plan: the second is GND.2 there.
  const seen: Record<string, number> = {};
  const labels = text
    .replaceAll(ROW_BREAK, ` ${ROW_BREAK} `)
    .split(/[\s,;]+/)
    .filter(Boolean)
    .map((l) => {
      if (l === ROW_BREAK) return l;
      seen[l] = (seen[l] ?? 0) + 1;
      const again = `${l}.${seen[l]}`;
      return seen[l]! > 1 && known.pins.some((p) => p.label === again) ? again : l;
    });
  const rows: string[][] = [[]];
  for (const l of labels) {
    if (l === ROW_BREAK) rows.push([]);
    else rows.at(-1)!.push(l);
  }
  const mm = Number(apart.replace(",", "."));
  const print: ChosenPrint = {
    rows,
    ...(rows.length === 1 && { edge }),
    ...(rows.length > 1 && mm >= 2 && mm <= 80 && { rowPitch_mm: mm }),
    ...(Object.keys(names).length && { names }),
  };
  const asked = JSON.stringify(print);
  const latest = useRef("");
  useEffect(() => {
    latest.current = asked;
    void core()
      .printRead(id, [...project.customParts, ...own], JSON.parse(asked) as ChosenPrint)
      .then((j) => latest.current === asked && setJudged(j));
    // What was typed decides; the lists of own parts do not change while somebody types.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [id, asked]);
  // What is asked above need not be said below.
  const asks = new Set((judged?.unknown ?? []).filter((l) => names[l] === undefined));
  const open = judged?.problems.filter((p) => ![...asks].some((l) => p.startsWith(`"${l}" is no pin`))) ?? [];
  const ids = labels.map((l, i) => `${i} ${l}`);
  const place = (i: number) => `${i + 1} of ${labels.length}`;
  return (
    <div className="mt-2" data-testid="own-order">
      <Label className="block">
        <span className="text-soft">
          Its labels as they stand, from left to right, print upright. Two rows: the left one from the top, then |, then
          the right one.
        </span>
        <input
          className="num w-full"
          value={text}
          maxLength={600}
          spellCheck={false}
          onChange={(e) => setText(e.target.value)}
        />
      </Label>
      <DndContext
        id={`order ${id}`}
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={({ active, over }) => {
          if (!over || active.id === over.id) return;
          const next = [...labels];
          next.splice(ids.indexOf(String(over.id)), 0, ...next.splice(ids.indexOf(String(active.id)), 1));
          setText(next.map((l) => (l === ROW_BREAK ? l : l.replace(/\.\d+$/, ""))).join(" "));
        }}
        accessibility={{
          container: document.body,
          screenReaderInstructions: {
            draggable: "Space lifts the label, arrow keys move it, Space puts it down, Escape leaves it where it was.",
          },
        }}
      >
        <SortableContext items={ids} strategy={rectSortingStrategy}>
          <ul className="mt-2 flex flex-wrap gap-1" aria-label="Labels in order">
            {labels.map((l, i) => (
              <Chip key={ids[i]} id={ids[i]!} label={l} at={place(i)} />
            ))}
          </ul>
        </SortableContext>
      </DndContext>
      {rows.length === 1 && (
        <div className="mt-2 flex flex-wrap items-center gap-2">
          <span className="text-soft">Held like that, the header is at</span>
          <Select<"bottom" | "top">
            label="Where the header is"
            value={edge}
            options={[
              { value: "bottom", name: "the edge towards you" },
              { value: "top", name: "the edge away from you" },
            ]}
            onChange={setEdge}
          />
        </div>
      )}
      {rows.length > 1 && (
        <Label className="mt-2 flex items-center gap-2">
          <span className="text-soft">The two rows are apart by</span>
          <input className="num w-20" value={apart} inputMode="decimal" onChange={(e) => setApart(e.target.value)} />
          <span className="text-soft">mm, middle to middle (measure; empty: it hangs on leads)</span>
        </Label>
      )}
      {[...new Set([...(judged?.unknown ?? []), ...Object.keys(names)])]
        .filter((l) => labels.includes(l))
        .map((l) => (
          <div key={l} className="mt-2 flex flex-wrap items-center gap-2">
            <span>
              <strong className="num">{l}</strong> is not known here. It is
            </span>
            <Select
              label={`What ${l} is`}
              value={names[l] === undefined ? "" : (names[l] ?? NOTHING)}
              empty="choose"
              options={[
                { value: NOTHING, name: "something that stays open" },
                ...known.pins.map((p) => ({ value: p.label, name: p.says })),
              ]}
              onChange={(v) => setNames({ ...names, [l]: v === NOTHING ? null : v })}
            />
          </div>
        ))}
      {open.map((p) => (
        <p key={p} role="status" className="text-risk">
          {p}
        </p>
      ))}
      {judged && judged.headers.length > 0 && !judged.problems.length && (
        <HeaderDrawing headers={judged.headers} name="Your header" small plain />
      )}
      <button className="btn mt-2" disabled={!judged || judged.problems.length > 0} onClick={() => save(print)}>
        Mine reads like this, in this order
      </button>
    </div>
  );
}
