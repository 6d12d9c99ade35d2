"use client";
import type { BomRow } from "@/core/build";
import { kitPart } from "@/core/build/lists/kit";
import { columnsOf, Table } from "@/ui/shared/table";
import { useProject } from "@/ui/state/project";

/** Parts to lay out, for one bench or for all of them: how many, spares, what to buy, what may be taken instead. */
export function PartsTable() {
  const { view, project } = useProject();
  const n = project.kit?.benches ?? 1;
  const kit = (b: BomRow) => kitPart(b, project.kit);
  return (
    <Table
      label="Parts to have"
      rows={view.bom.filter((b) => b.part !== "wire")}
      rowId={(b) => b.part + b.name + b.value}
      testId={(b) => `list-${b.part}`}
      columns={columnsOf<BomRow>([
        { head: "a bench", by: (b) => b.quantity, show: (b) => b.quantity, look: "num" },
        n > 1 && { head: `for ${n}`, by: (b) => kit(b).together, show: (b) => kit(b).together, look: "num" },
        { head: "spares", by: (b) => kit(b).spares, show: (b) => kit(b).spares || "", look: "num" },
        {
          head: "to buy",
          by: (b) => kit(b).buy,
          show: (b) => kit(b).buy || <span className="text-good">have it</span>,
          look: "num",
        },
        {
          head: "part",
          by: (b) => b.name,
          look: "whitespace-normal!",
          show: (b) => (
            <>
              {b.name} {b.value}
              {[...(b.note ? [b.note] : []), ...b.instead.map((x) => `instead: ${x}`)].map((says) => (
                <span key={says} className="block text-sm text-soft">
                  {says}
                </span>
              ))}
            </>
          ),
        },
        { head: "where", by: (b) => b.refs.join(" "), show: (b) => b.refs.join(" "), look: "num whitespace-normal!" },
      ])}
    />
  );
}
