"use client";
import { count } from "@/core/quantity/count";
import { zodResolver } from "@hookform/resolvers/zod";
import { X } from "lucide-react";
import Link from "next/link";
import { useForm } from "react-hook-form";
import * as z from "zod/mini";
import { trimmed, wholeIn } from "@/ui/shared/schemas";
import { useEffect, useState } from "react";
import type { Part, PartDescription } from "@/core/parts/catalogue";
import { talkWords } from "@/core/parts/catalogue/talks";
import { core } from "@/ui/state/core";
import { HeaderDrawing } from "@/ui/shared/header-drawing";
import type { Hit } from "./find";
import { OptionField, type PlainOption } from "./options";
import { Checkbox } from "@/ui/shared/checkbox";
import { Label } from "@/ui/shared/label";

interface Loaded {
  part: Part;
  description: PartDescription;
}

const HowMany = z.object({ quantity: wholeIn("How many", 1, 50), label: trimmed });
type Asked = z.input<typeof HowMany>;
const FRESH: Asked = { quantity: "1", label: "" };

/** The part that is marked in the list: what it is, and adding it with a number, a name and its options. */
export function Marked({
  hit,
  own,
  owned,
  compared,
  add,
  compare,
  keep,
  copy,
  change,
  close,
}: {
  hit: Hit;
  own: readonly Part[];
  owned: number;
  compared: boolean;
  add(more: { quantity: number; label: string; options: Record<string, string | number> }): void;
  compare(on: boolean): void;
  keep(count: number): void;
  copy(): void;
  change: (() => void) | null;
  close(): void;
}) {
  const [loaded, setLoaded] = useState<Loaded | null>(null);
  const {
    register,
    handleSubmit,
    reset,
    watch,
    formState: { errors },
  } = useForm<Asked, unknown, z.infer<typeof HowMany>>({
    resolver: zodResolver(HowMany),
    mode: "onChange",
    defaultValues: FRESH,
  });
  const [options, setOptions] = useState<Record<string, string | number>>({});
  useEffect(() => {
    let gone = false;
    setOptions({});
    reset(FRESH);
    void core()
      .describe(hit.id, own)
      .then((d) => !gone && setLoaded(d));
    return () => {
      gone = true;
    };
  }, [hit.id, own, reset]);
  const many = Number(watch("quantity"));
  const good = !errors.quantity;
  const here = loaded?.part.id === hit.id ? loaded : null;
  const facts = [
    hit.talks.map(talkWords).join(", "),
    hit.volts.map((v) => v.replace("v", " V")).join(", "),
    hit.kind === "board" || hit.kind === "chip"
      ? count(hit.pins, "pin")
      : hit.pins
        ? `takes ${count(hit.pins, "pin")}`
        : "",
    hit.solder === "none" ? "no soldering" : `solder ${hit.solder}`,
    `data certainty ${hit.certainty}`,
  ].filter(Boolean);
  return (
    <section aria-label="Marked part" className="mt-3 border border-ink p-3" data-testid="marked">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 className="text-lg">{hit.name}</h2>
        <span className="flex gap-3 text-sm">
          <Link className="quiet" href={`/parts/${hit.id}`} data-testid="part-page">
            its page
          </Link>
          <button className="quiet" onClick={copy}>
            copy as own
          </button>
          {change && (
            <button className="quiet" onClick={change}>
              change
            </button>
          )}
          <button aria-label="Close" className="text-soft hover:text-ink" onClick={close}>
            <X size={16} aria-hidden />
          </button>
        </span>
      </div>
      <p className="text-soft">
        {hit.does}. {facts.join(" · ")}
      </p>
      {here && here.part.pins.length <= 20 && !here.part.board && (
        <HeaderDrawing headers={here.description.headers} name={hit.name} small />
      )}
      {here && here.part.options.some((o) => o.kind !== "pins") && (
        <div className="mt-1 flex flex-wrap gap-y-1">
          {here.part.options.map((o) =>
            o.kind === "pins" ? null : (
              <OptionField
                key={o.key}
                id={`new-${o.key}`}
                option={o as PlainOption}
                value={options[o.key] ?? o.default}
                save={(v) => setOptions({ ...options, [o.key]: v })}
              />
            ),
          )}
        </div>
      )}
      <form
        className="mt-2 flex flex-wrap items-center gap-x-3 gap-y-2"
        onSubmit={(e) => void handleSubmit((asked) => add({ ...asked, options }))(e)}
      >
        <Label className="text-sm">
          <span className="text-soft">How many</span>{" "}
          <input className="num w-14" inputMode="numeric" aria-invalid={!good} {...register("quantity")} />
        </Label>
        <Label className="grow text-sm">
          <span className="text-soft">Name</span>{" "}
          <input className="w-40" maxLength={55} placeholder="as you call it" {...register("label")} />
        </Label>
        <button className="btn-main" disabled={!good} data-testid="add-marked">
          {many > 1 && good ? `Add ${many}` : "Add"}
        </button>
      </form>
      {!good && (
        <p role="alert" className="text-sm font-bold text-stop">
          {errors.quantity?.message}
        </p>
      )}
      <div className="mt-2 flex flex-wrap items-center gap-x-5 text-sm">
        <Checkbox checked={compared} onChange={compare}>
          compare
        </Checkbox>
        <span className="inline-flex items-center gap-2">
          in my drawer
          <button
            className="btn px-2!"
            aria-label="One fewer in the drawer"
            disabled={!owned}
            onClick={() => keep(owned - 1)}
          >
            −
          </button>
          <span className="num" data-testid="owned">
            {owned}
          </span>
          <button className="btn px-2!" aria-label="One more in the drawer" onClick={() => keep(owned + 1)}>
            +
          </button>
        </span>
      </div>
    </section>
  );
}
