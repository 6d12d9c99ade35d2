"use client";
import type { Part, PartDescription } from "@/core/parts/catalogue";
import { columnsOf, Table } from "@/ui/shared/table";

type Measure = Part["measures"][number];
type Pin = PartDescription["pins"][number];
type Supply = PartDescription["supplies"][number];
type Levels = PartDescription["thresholds"][number];

const MEASURES = columnsOf<Measure>([
  { head: "measures", by: (m) => m.what, show: (m) => m.what },
  { head: "range", show: (m) => m.range },
  { head: "accuracy", show: (m) => m.accuracy ?? "" },
  { head: "smallest step", show: (m) => m.resolution ?? "" },
]);

/** What a part measures, how far and how well. */
export function Measures({ list }: { list: Measure[] }) {
  return <Table label="What it measures" className="mt-3" rows={list} rowId={(m) => m.what} columns={MEASURES} />;
}

/** Every pin as it is printed, what it is and what to mind. */
export function PinTable({ pins }: { pins: Pin[] }) {
  return (
    <Table
      label="Pins"
      tableId="pin-table"
      rows={pins}
      rowId={(p) => `${p.header}${p.index} ${p.label}`}
      columns={columnsOf<Pin>([
        { head: "no.", by: (p) => p.index, show: (p) => (p.index ? `${p.header}${p.index}` : ""), look: "num" },
        { head: "label", by: (p) => p.label, show: (p) => p.label, look: "num font-bold" },
        {
          head: "also printed",
          show: (p) => p.aliases.join(", "),
          look: "num text-sm whitespace-normal! text-soft",
        },
        {
          head: "what it is",
          by: (p) => p.what,
          show: (p) => (
            <>
              {p.what}
              {p.says && <span className="block text-sm text-soft">{p.says}</span>}
            </>
          ),
        },
        pins.some((p) => p.can.length) && { head: "can do", show: (p) => p.can.join(", "), look: "text-sm" },
        pins.some((p) => p.hazards.length) && {
          head: "mind",
          by: (p) => -p.hazards.length,
          show: (p) => p.hazards.join("; "),
          look: "text-sm text-risk",
        },
      ])}
    />
  );
}

const SUPPLIES = columnsOf<Supply>([
  { head: "supply", show: (s) => s.name, look: "font-bold" },
  { head: "takes", show: (s) => s.V, look: "num whitespace-normal!" },
  { head: "current", show: (s) => s.mA, look: "num whitespace-normal!" },
  { head: "absolute maximum", show: (s) => s.absMax && `never over ${s.absMax}`, look: "num whitespace-normal!" },
]);

export function Supplies({ list }: { list: Supply[] }) {
  return <Table label="Supply" rows={list} rowId={(s) => s.name} columns={SUPPLIES} />;
}

const LEVELS = columnsOf<Levels["rows"][number]>([
  { head: "level", show: (r) => r.what },
  { head: "rule", show: (r) => r.rule.replace(/(?<![A-Za-z])V(?![A-Za-z])/g, "VDD"), look: "num" },
  { head: "in volts", show: (r) => r.at, look: "num" },
  { head: "from", show: (r) => r.sure ?? "", look: "text-sm text-soft whitespace-normal!" },
]);

export function Thresholds({ of }: { of: Levels }) {
  return (
    <div>
      <Table label={`Levels, ${of.name}`} rows={of.rows} rowId={(r) => r.what} columns={LEVELS} />
      {of.points.length > 0 && (
        <p className="mt-1 text-sm text-soft">Its data sheet names, for outputs: at {of.points.join("; at ")}.</p>
      )}
    </div>
  );
}
