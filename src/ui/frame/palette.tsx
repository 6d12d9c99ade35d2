"use client";
import { Command } from "cmdk";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { TERMS, type Term } from "@/core/glossary";
import { STATIONS } from "@/ui/stations/list";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";
import { Sheet } from "@/ui/shared/dialog";

const item = "flex cursor-pointer gap-3 px-2 py-1.5 data-[selected=true]:bg-wash";

/** Everything that can be reached or done, by typing a few letters of it. */
export function Palette({ close }: { close(): void }) {
  const s = useProject();
  const router = useRouter();
  const go = (station: string, light: string[] = []) => {
    router.push(`/p/${s.id}/${station}`);
    s.light(light);
    close();
  };
  const [word, setWord] = useState<Term | null>(null);
  const nets = [...new Set(s.view.nets)];
  return (
    <Sheet title="Find or do" close={close}>
      <Command label="Find or do" className="mt-2">
        <Command.Input autoFocus placeholder="station, part, pin, net, fix, word…" className="w-full" />
        {word && (
          <p className="mt-2 border-l-4 border-accent pl-3" role="status" data-testid="word">
            <strong>{word.term}:</strong> {word.gloss}
          </p>
        )}
        <Command.List className="mt-2 max-h-[50vh] overflow-auto">
          <Command.Empty className="p-2 text-soft">Nothing by that name.</Command.Empty>
          <Command.Group heading="Stations">
            {STATIONS.map((st) => (
              <Command.Item key={st.id} className={item} onSelect={() => go(st.id)}>
                {st.name}
              </Command.Item>
            ))}
          </Command.Group>
          <Command.Group heading="Do">
            <Command.Item className={item} onSelect={() => void s.run(async (p) => core().plan(p)).then(close)}>
              Plan all open pins
            </Command.Item>
            <Command.Item
              className={item}
              value="join two points wire by hand"
              onSelect={() => (router.push(`/p/${s.id}/wiring?show=wires`), close())}
            >
              Join two points
            </Command.Item>
            {s.canUndo && (
              <Command.Item className={item} onSelect={() => (s.undo(), close())}>
                Undo: {s.canUndo}
              </Command.Item>
            )}
            <Command.Item
              className={item}
              onSelect={() => (window.location.assign(`/api/projects/${s.id}/plan`), close())}
            >
              Download the whole plan
            </Command.Item>
            <Command.Item className={item} onSelect={() => (window.location.assign("/bench-sums"), close())}>
              Bench sums
            </Command.Item>
            {s.view.findings.flatMap((f) =>
              f.fixes.map((x) => (
                <Command.Item
                  key={`${f.rule}${f.at.join()}${x.id}`}
                  className={item}
                  onSelect={() => void s.edit({ type: "batch", edits: x.edits }).then(close)}
                >
                  Fix {f.rule}: {x.label}
                </Command.Item>
              )),
            )}
          </Command.Group>
          <Command.Group heading="Words">
            {TERMS.map((t) => (
              <Command.Item
                key={t.term}
                value={`word ${t.term} ${(t.also ?? []).join(" ")}`}
                className={item}
                onSelect={() => setWord(t)}
              >
                <span className="min-w-32">{t.term}</span> <span className="truncate text-soft">{t.gloss}</span>
              </Command.Item>
            ))}
          </Command.Group>
          <Command.Group heading="Parts">
            {s.view.parts.map((p) => (
              <Command.Item
                key={p.ref}
                value={`${p.ref} ${p.label} ${p.name}`}
                className={item}
                onSelect={() => go("parts", [p.ref])}
              >
                <span className="num">{p.ref}</span> {p.label} <span className="text-soft">{p.name}</span>
              </Command.Item>
            ))}
          </Command.Group>
          <Command.Group heading="Pins">
            {s.view.lattices.flatMap((l) =>
              l.rows.map((r) => (
                <Command.Item
                  key={r.id}
                  value={`pin ${r.id} ${r.part} ${r.at ?? ""}`}
                  className={item}
                  onSelect={() => go("pins", [r.id])}
                >
                  <span className="num">{r.id}</span> {r.part} {r.at && `on ${r.at}`}
                </Command.Item>
              )),
            )}
          </Command.Group>
          <Command.Group heading="Nets">
            {nets.map((n) => (
              <Command.Item key={n} value={`net ${n}`} className={item} onSelect={() => go("wiring", [n])}>
                {n}
              </Command.Item>
            ))}
          </Command.Group>
        </Command.List>
      </Command>
    </Sheet>
  );
}
