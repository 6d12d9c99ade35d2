"use client";
import { useState } from "react";
import { Lock, LockOpen, Scissors } from "lucide-react";
import { toast } from "sonner";
import { BETWEEN_PARTS } from "@/core/wires/often";
import type { HandWire, WireAsk } from "@/core/wires";
import { SaveField } from "@/ui/shared/save-field";
import { Swatch } from "@/ui/shared/wire-colours";
import { core } from "@/ui/state/core";
import { useActions, useProject } from "@/ui/state/project";
import { PointField } from "./point-field";
import { Consequence } from "./told";
import { useAct } from "./use-told";
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

/** What is done with one wire: a part put into it, or where it really is. */
function More({ w, what, close }: { w: HandWire; what: "between" | "really"; close(): void }) {
  const [part, setPart] = useState("");
  const [really, setReally] = useState("");
  const ask: WireAsk | null =
    what === "between"
      ? part
        ? { do: "between", from: w.from, to: w.to, part }
        : null
      : really.trim()
        ? { do: "really", from: w.from, to: w.to, really }
        : null;
  const { told, go } = useAct(ask, (did) => `${did}.`, close);
  return (
    <div className="bg-wash px-2 py-2">
      <div className="flex flex-wrap items-end gap-3">
        {what === "between" ? (
          <label className="text-sm">
            Put in between
            <Select
              label="Put in between"
              className="flex!"
              value={part}
              empty="choose a part"
              options={BETWEEN_PARTS.map((p) => ({ value: p.id, name: p.name }))}
              onChange={setPart}
            />
          </label>
        ) : (
          <PointField
            label={`${w.to} is planned; the wire from ${w.from} is really at`}
            value={really}
            set={setReally}
            done={go}
          />
        )}
        <button className="btn-main" disabled={!told?.ok} onClick={go}>
          {what === "between" ? "Put in" : "It is there"}
        </button>
        <button className="btn" onClick={close}>
          Leave it
        </button>
      </div>
      {told?.ok && <p className="mt-1">{told.says}.</p>}
      <Consequence told={told} />
    </div>
  );
}

/** One wire of the table: edited in place, cut with Delete. */
export function WireRow({ w, colours }: { w: HandWire; colours: readonly string[] }) {
  const { run, edit, light } = useProject();
  const [more, setMore] = useState<"between" | "really" | null>(null);
  const wire = `${w.from} to ${w.to}`;
  const cut = () =>
    void run((p) => core().doWire(p, { do: "cut", from: w.from, to: w.to })).then((s) => s && toast(`Cut ${wire}.`));
  const set = (x: object) => void edit({ type: "setLink", from: w.from, to: w.to, ...x });
  return (
    <>
      <tr
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
          <button
            className="quiet inline-flex items-center gap-1"
            aria-pressed={w.locked}
            aria-label={`${wire}: ${w.locked ? "kept where it is" : "free to move"}`}
            onClick={() => void edit({ type: "lock", from: w.from, to: w.to, locked: !w.locked })}
          >
            {w.locked ? <Lock size={15} aria-hidden /> : <LockOpen size={15} aria-hidden />}
            {w.locked ? "kept" : "free"}
          </button>
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
      {more && (
        <tr>
          <td colSpan={9} className="!p-0">
            <More w={w} what={more} close={() => setMore(null)} />
          </td>
        </tr>
      )}
    </>
  );
}
