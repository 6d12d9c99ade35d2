"use client";
import { useState } from "react";
import { Lock, LockOpen, Scissors } from "lucide-react";
import { toast } from "sonner";
import { BETWEEN_PARTS } from "@/core/wires/often";
import type { HandWire } from "@/core/wires";
import { SaveField } from "@/ui/shared/save-field";
import { Toggle } from "@/ui/shared/picks";
import { Swatch } from "@/ui/shared/wire-colours";
import { core } from "@/ui/state/core";
import { useActions, useProject } from "@/ui/state/project";
import { AskForm, AskPoint, AskSelect, useAskForm } from "./ask-form";
import { Select } from "@/ui/shared/select";

const MADE: Record<HandWire["by"], string> = { plan: "planned", hand: "by hand", fix: "by a fix", unsaid: "as given" };
const GAUGES = [18, 20, 22, 24, 26, 28, 30];

function Length({ w, wire }: { w: HandWire; wire: string }) {
  const { edit } = useActions();
  return (
    <SaveField
      label={`Length of ${wire} in centimetres`}
      hideLabel
      numeric
      fieldClass={`num w-16 ${w.own.cm ? "font-bold" : ""}`}
      value={String(w.cm ?? "")}
      schema={(s) => s.centimetres}
      save={(cm) => void edit({ type: "setLink", from: w.from, to: w.to, cm })}
    />
  );
}

/** A part put into the wire. */
function Between({ w, close }: { w: HandWire; close(): void }) {
  const ask = useAskForm({
    start: { do: "between", from: w.from, to: w.to },
    says: (did) => `${did}.`,
    after: close,
  });
  return (
    <AskForm of={ask} button="Put in" leave={close}>
      <AskSelect
        name="part"
        label="Put in between"
        empty="choose a part"
        options={BETWEEN_PARTS.map((p) => ({ value: p.id, name: p.name }))}
      />
    </AskForm>
  );
}

/** Where the wire really is. */
function Really({ w, close }: { w: HandWire; close(): void }) {
  const ask = useAskForm({ start: { do: "really", from: w.from, to: w.to }, says: (did) => `${did}.`, after: close });
  return (
    <AskForm of={ask} button="It is there" leave={close}>
      <AskPoint name="really" label={`${w.to} is planned; the wire from ${w.from} is really at`} done={ask.send} />
    </AskForm>
  );
}

const MORE = { between: Between, really: Really };

/** One wire of the table: edited in place, cut with Delete. */
export function WireRow({
  w,
  colours,
  index,
  measure,
}: {
  w: HandWire;
  colours: readonly string[];
  index: number;
  measure: ((node: Element | null) => void) | undefined;
}) {
  const { run, edit, light } = useProject();
  const [more, setMore] = useState<"between" | "really" | null>(null);
  const More = more && MORE[more];
  const wire = `${w.from} to ${w.to}`;
  const cut = () =>
    void run((p) => core().doWire(p, { do: "cut", from: w.from, to: w.to })).then((s) => s && toast(`Cut ${wire}.`));
  const set = (x: object) => void edit({ type: "setLink", from: w.from, to: w.to, ...x });
  return (
    <>
      <tr
        ref={measure}
        data-index={index}
        tabIndex={0}
        data-testid={`wire-${w.from}-${w.to}`}
        aria-label={`Wire ${wire}`}
        onMouseEnter={() => light([w.from, w.to, w.net])}
        onMouseLeave={() => light([])}
        onKeyDown={(e) => {
          if (e.key === "Delete" && e.target === e.currentTarget) cut();
        }}
      >
        <td className="num">
          {w.from}
          {w.fromLabel && <span className="block text-sm text-soft">{w.fromLabel}</span>}
        </td>
        <td className="num">
          {w.to}
          {w.toLabel && <span className="block text-sm text-soft">{w.toLabel}</span>}
        </td>
        <td>
          <strong>{w.net}</strong>
          {w.why && <span className="block text-sm text-soft">{w.why}</span>}
        </td>
        <td>{MADE[w.by]}</td>
        <td>
          <Toggle
            className="quiet inline-flex items-center gap-1"
            label={`${wire}: ${w.locked ? "kept where it is" : "free to move"}`}
            on={w.locked}
            turn={(locked) => void edit({ type: "lock", from: w.from, to: w.to, locked })}
          >
            {w.locked ? <Lock size={15} aria-hidden /> : <LockOpen size={15} aria-hidden />}
            {w.locked ? "kept" : "free"}
          </Toggle>
        </td>
        <td>{w.cable ? "cable" : <Length w={w} wire={wire} />}</td>
        <td>
          {!w.cable && (
            <Select
              label={`Gauge of ${wire}`}
              bold={!!w.own.awg}
              value={w.awg ? String(w.awg) : ""}
              options={[
                { value: "", name: "as usual" },
                ...[...new Set([...GAUGES, ...(w.awg ? [w.awg] : [])])].map((g) => ({
                  value: String(g),
                  name: `${g} AWG`,
                })),
              ]}
              onChange={(v) => set({ awg: v ? Number(v) : null })}
            />
          )}
        </td>
        <td>
          {!w.cable && (
            <span className="inline-flex items-center gap-1">
              <Swatch colour={w.colour} />
              <Select
                label={`Colour of ${wire}`}
                bold={!!w.own.colour}
                value={w.own.colour ? w.colour : ""}
                options={[
                  { value: "", name: w.own.colour ? "as its net" : w.colour },
                  ...[...new Set([...colours, ...(w.own.colour ? [w.colour] : [])])].map((c) => ({
                    value: c,
                    name: c,
                  })),
                ]}
                onChange={(v) => set({ colour: v || null })}
              />
            </span>
          )}
        </td>
        <td className="space-x-3 whitespace-nowrap">
          <button
            className="quiet"
            aria-expanded={more === "between"}
            aria-label={`put in: ${wire}`}
            onClick={() => setMore(more === "between" ? null : "between")}
          >
            put in
          </button>
          <button
            className="quiet"
            aria-expanded={more === "really"}
            aria-label={`is elsewhere: ${wire}`}
            onClick={() => setMore(more === "really" ? null : "really")}
          >
            is elsewhere
          </button>
          <button className="quiet" aria-label={`Cut ${wire}`} onClick={cut}>
            <Scissors size={15} aria-hidden />
          </button>
        </td>
      </tr>
      {More && (
        <tr>
          <td colSpan={9} className="!p-0">
            <div className="bg-wash px-2 py-2">
              <More w={w} close={() => setMore(null)} />
            </div>
          </td>
        </tr>
      )}
    </>
  );
}
