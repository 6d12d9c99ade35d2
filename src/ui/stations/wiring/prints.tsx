"use client";
import { useKept } from "@/ui/state/kept";
import { Download } from "@/ui/shared/download";
import { useProject } from "@/ui/state/project";
import { Radios } from "@/ui/shared/radios";
import { PRINTS } from "./print-list";

/** Prints: PDF files in true size where size matters. */
export function Prints() {
  const { view } = useProject();
  const [paper, setPaper] = useKept("paper", "a4");
  return (
    <div className="mt-3 max-w-3xl">
      <Radios
        label="Paper"
        inline
        value={paper}
        options={[
          { value: "a4", name: "A4" },
          { value: "letter", name: "Letter" },
        ]}
        onChange={setPaper}
      />
      {view.verdict.counts.stop > 0 && (
        <p className="mt-2 font-bold text-stop">Every print carries the stops on its first page.</p>
      )}
      <ul className="mt-2">
        {PRINTS.map((p) => (
          <li key={p.what} className="flex justify-between gap-4 border-b border-line py-2">
            <span>
              {p.name}
              <span className="block text-sm text-soft">{p.says}</span>
            </span>
            <Download path={`print?what=${p.what}&paper=${paper}`} testId={`print-${p.what}`}>
              PDF
            </Download>
          </li>
        ))}
      </ul>
    </div>
  );
}
