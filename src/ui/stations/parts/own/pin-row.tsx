"use client";
import { useSortable } from "@dnd-kit/sortable";
import { ArrowDown, ArrowUp, GripVertical, Trash2 } from "lucide-react";
import { Controller, useFormContext, useWatch } from "react-hook-form";
import type { OwnDraft } from "@/core/parts/own";
import { OWN_ROLES, OWN_TIES, type OwnRole } from "@/core/parts/own/roles";
import { Checkbox } from "@/ui/shared/checkbox";
import { Fold } from "@/ui/shared/fold";
import { Select } from "@/ui/shared/select";
import { choices, Pick, PickPin, Tick } from "./rows";

const ROLES = Object.entries(OWN_ROLES) as [OwnRole, string][];

/** What else there is to say of a pin: where it always goes, and that it must not be left open. */
function More({ i }: { i: number }) {
  const { control } = useFormContext<OwnDraft>();
  const { tie, floats, rests } = useWatch({ control, name: `pins.${i}` });
  const said = tie !== "" || floats || rests !== "";
  return (
    <Fold title={<span className="text-sm">{said ? "strap and rest: set" : "strap, rest"}</span>} className="mt-1">
      <div className="flex flex-wrap items-end gap-x-3 gap-y-1 py-1">
        <Pick name={`pins.${i}.tie`} label="It goes" options={choices(OWN_TIES, tie === "kept")} className="w-48" />
        {tie === "own-pin" && <PickPin name={`pins.${i}.tiePin`} label="To pin" />}
        <Tick name={`pins.${i}.floats`}>must not be left open</Tick>
        <Pick
          name={`pins.${i}.rests`}
          label="Left open, the part holds it"
          className="w-44"
          options={[
            { value: "", name: "nowhere" },
            { value: "high", name: "high" },
            { value: "low", name: "low" },
          ]}
        />
      </div>
    </Fold>
  );
}

/** One pin of an own part. */
export function PinRow({
  id,
  list,
  i,
  last,
  supplies,
  fixed,
  wrong,
  rename,
  move,
  remove,
}: {
  id: string;
  list: "pins" | `variants.${number}.pins`;
  i: number;
  last: boolean;
  supplies: readonly string[];
  /** The label, where label and order are those of the first kind. */
  fixed: string | null;
  wrong: string | undefined;
  rename(label: string): void;
  move(by: number): void;
  remove(): void;
}) {
  const { control, register } = useFormContext<OwnDraft>();
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id,
    disabled: fixed !== null,
  });
  return (
    <tr
      ref={setNodeRef}
      data-testid={`pin-row-${i}`}
      className={isDragging ? "relative z-10 bg-wash" : ""}
      style={{ ...(transform && { transform: `translateY(${transform.y}px)` }), transition }}
    >
      <td className="num whitespace-nowrap">
        {fixed === null && (
          <button
            ref={setActivatorNodeRef}
            className="cursor-grab touch-none px-0.5 align-middle text-soft"
            {...attributes}
            {...listeners}
            aria-label={`Move pin ${i + 1}`}
          >
            <GripVertical size={14} aria-hidden />
          </button>
        )}
        {i + 1}
      </td>
      <td>
        {fixed !== null ? (
          <span className="num">{fixed}</span>
        ) : (
          <input
            aria-label={`Label of pin ${i + 1}`}
            className="num w-24"
            maxLength={20}
            aria-invalid={wrong !== undefined}
            {...register(`${list}.${i}.label`, {
              onChange: (e: { target: { value: string } }) => rename(e.target.value),
            })}
          />
        )}
        {wrong && <span className="block max-w-40 text-sm font-bold text-stop">{wrong}</span>}
      </td>
      <td>
        <Controller
          control={control}
          name={`${list}.${i}.role`}
          render={({ field }) => (
            <Select<OwnRole>
              label={`Role of pin ${i + 1}`}
              className="max-w-44"
              value={field.value}
              options={ROLES.filter(([r]) => r !== "kept" || field.value === "kept").map(([value, name]) => ({
                value,
                name,
              }))}
              onChange={field.onChange}
            />
          )}
        />
      </td>
      {supplies.length > 1 && (
        <td>
          <Controller
            control={control}
            name={`${list}.${i}.supply`}
            render={({ field }) => (
              <Select
                label={`Supply of pin ${i + 1}`}
                value={field.value}
                options={supplies.map((s) => ({ value: s, name: s }))}
                onChange={field.onChange}
              />
            )}
          />
        </td>
      )}
      <td>
        <Controller
          control={control}
          name={`${list}.${i}.optional`}
          render={({ field }) => (
            <Checkbox label={`Pin ${i + 1} may stay free`} checked={field.value} onChange={field.onChange} />
          )}
        />
      </td>
      <td>
        <input
          aria-label={`Note on pin ${i + 1}`}
          className="w-full min-w-24"
          maxLength={200}
          {...register(`${list}.${i}.says`)}
        />
        {fixed === null && <More i={i} />}
      </td>
      {fixed === null && (
        <td className="whitespace-nowrap">
          <button className="px-1" disabled={i === 0} aria-label={`Pin ${i + 1} up`} onClick={() => move(-1)}>
            <ArrowUp size={14} aria-hidden />
          </button>
          <button className="px-1" disabled={last} aria-label={`Pin ${i + 1} down`} onClick={() => move(1)}>
            <ArrowDown size={14} aria-hidden />
          </button>
          <button className="px-1" aria-label={`Take pin ${i + 1} out`} onClick={remove}>
            <Trash2 size={14} aria-hidden />
          </button>
        </td>
      )}
    </tr>
  );
}
