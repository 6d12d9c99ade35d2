"use client";
import type { Project } from "@/core/project";
import type { CutRow } from "@/core/build/lists/cuts";
import type { Remark } from "@/core/build/solder";
import { columnsOf, Table } from "@/ui/shared/table";
import { Coloured } from "@/ui/shared/wire-colours";
import { core } from "@/ui/state/core";
import { Carrier } from "./carrier";
import { Front } from "./front";
import { useCore } from "./use-core";

const ask = (p: Project) => core().solder(p);

function Remarks({ title, rows }: { title: string; rows: Remark[] }) {
  if (!rows.length) return null;
  return (
    <section className="mt-4">
      <h2 className="font-bold">{title}</h2>
      <ul>
        {rows.map((r) => (
          <li key={r.what + r.why} className="border-b border-line py-1">
            {r.what}
            <span className="block text-sm text-soft">{r.why}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The same circuit soldered to keep: carrier, order, what to cut, what to hold, what to keep clear. */
const CUT_COLUMNS = columnsOf<CutRow>([
  { head: "number", by: (r) => r.quantity, show: (r) => r.quantity, look: "num" },
  { head: "colour", by: (r) => r.colour, show: (r) => <Coloured colour={r.colour} /> },
  { head: "cut", by: (r) => r.cut_cm, show: (r) => `${r.cut_cm} cm`, look: "num" },
  { head: "gauge", by: (r) => r.awg, show: (r) => `${r.awg} AWG`, look: "num" },
  { head: "for", show: (r) => r.nets.join(", "), look: "whitespace-normal!" },
]);

export function Solder() {
  const b = useCore(ask);
  if (!b) return <p className="p-6 text-soft">Counting joints…</p>;
  if (!b.order.length) return <p className="mt-4">Nothing to solder yet: add a board and parts first.</p>;
  const joints = b.joints.reduce((s, j) => s + j.n, 0);
  return (
    <div className="mt-3">
      <p className="text-lg" data-testid="solder-sum">
        {b.carrier.kind === "perfboard" ? (
          <>
            Perfboard of at least <span className="num">{b.carrier.holes.join(" × ")}</span> holes (
            <span className="num">{b.carrier.mm.join(" × ")} mm</span>)
          </>
        ) : (
          "No carrier needed"
        )}
        , <span className="num">{joints}</span> joints,{" "}
        <span className="num">{b.cuts.reduce((s, r) => s + r.quantity, 0)}</span> wires to cut.
        <span className="block text-sm text-soft">
          {b.carrier.why}. Joints: {b.joints.map((j) => `${j.n} ${j.what}`).join(", ")}.
        </span>
      </p>
      <p className="mt-1 border-l-4 border-risk pl-3">
        Take care: the tip burns, leads fly when they are cut, fumes want fresh air. Goggles, a stand for the iron,
        hands washed after. Test everything on a breadboard first, and again before the box is closed.
      </p>
      <Front />
      <Carrier needed={b.carrier.kind === "perfboard"} />
      <div className="mt-3 grid gap-x-8 gap-y-4 xl:grid-cols-2">
        <div>
          <h2 className="font-bold">Order: low parts first</h2>
          <ol>
            {b.order.map((g, i) => (
              <li key={g.group} className="border-b border-line py-1">
                <span className="num text-soft">{i + 1}</span> {g.group}: {g.parts.join("; ")}
                <span className="block text-sm text-soft">{g.why}</span>
              </li>
            ))}
          </ol>
          <Remarks title="Hold against pulling" rows={b.strain} />
          <Remarks title="Keep clear" rows={b.clear} />
        </div>
        <div>
          <h2 className="font-bold">Cut list, slack and stripped ends included</h2>
          <Table label="Cut list" rows={b.cuts} rowId={(r) => `${r.colour}${r.awg}${r.cut_cm}`} columns={CUT_COLUMNS} />
          {b.connectors.length > 0 && (
            <>
              <h2 className="mt-4 font-bold">Strips and connectors that match</h2>
              <ul>
                {b.connectors.map((x, i) => (
                  <li key={i} className="border-b border-line py-1">
                    {x.of}: {x.what}
                  </li>
                ))}
              </ul>
            </>
          )}
        </div>
      </div>
    </div>
  );
}
