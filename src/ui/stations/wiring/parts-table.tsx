"use client";
import { kitPart } from "@/core/build/lists/kit";
import { useProject } from "@/ui/state/project";

/** Parts to lay out, for one bench or for all of them: how many, spares, what to buy, what may be taken instead. */
export function PartsTable() {
  const { view, project } = useProject();
  const n = project.kit?.benches ?? 1;
  return (
    <table className="plain">
      <thead>
        <tr>
          <th>a bench</th>
          {n > 1 && <th>for {n}</th>}
          <th>spares</th>
          <th>to buy</th>
          <th>part</th>
          <th>where</th>
        </tr>
      </thead>
      <tbody>
        {view.bom
          .filter((b) => b.part !== "wire")
          .map((b) => {
            const t = kitPart(b, project.kit);
            return (
              <tr key={b.part + b.name + b.value} data-testid={`list-${b.part}`}>
                <td className="num">{b.quantity}</td>
                {n > 1 && <td className="num">{t.together}</td>}
                <td className="num">{t.spares || ""}</td>
                <td className="num">{t.buy || <span className="text-good">have it</span>}</td>
                <td className="whitespace-normal!">
                  {b.name} {b.value}
                  {b.note && <span className="block text-sm text-soft">{b.note}</span>}
                  {b.instead.map((x) => (
                    <span key={x} className="block text-sm text-soft">
                      instead: {x}
                    </span>
                  ))}
                </td>
                <td className="num whitespace-normal!">{b.refs.join(" ")}</td>
              </tr>
            );
          })}
      </tbody>
    </table>
  );
}
