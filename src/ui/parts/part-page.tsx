import { count } from "@/core/quantity/count";
import Link from "next/link";
import type { ReactNode } from "react";
import { flashWords } from "@/core/parts/catalogue/flash";
import type { Part, PartDescription, PartSummary } from "@/core/parts/catalogue";
import type { Beside } from "@/core/parts/own/nearest";
import { talkWords } from "@/core/parts/catalogue/talks";
import { HeaderDrawing } from "@/ui/shared/header-drawing";
import { PRINT_SURE } from "@/ui/shared/print-sure";
import { Measures, PinTable, Supplies, Thresholds } from "./tables";

const CERTAINTY: Record<Part["certainty"], string> = {
  high: "from data sheets, checked",
  medium: "sellers differ; the worse value is taken",
  low: "little is published; taken on the safe side",
};

function Block({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="mt-6" aria-label={title}>
      <h2 className="border-b border-ink text-lg">{title}</h2>
      {children}
    </section>
  );
}

const words = (camel: string) => camel.replace(/([A-Z])/g, " $1").toLowerCase();

/** A part's own page: what it is in plain words, its header, pins, thresholds, what it needs, sources, where it is used. */
export function PartPage({
  part,
  own,
  beside,
  summary,
  description,
  usedIn,
}: {
  part: Part;
  own: boolean;
  /** For an own part: the catalogue's that it is most like. */
  beside: Beside | null;
  summary: PartSummary;
  description: PartDescription;
  usedIn: { id: string; title: string; refs: number }[];
}) {
  const { board } = part;
  const facts: [string, string][] = [
    ["runs at", summary.volts.map((v) => v.replace("v", " V")).join(", ")],
    ["talks by", summary.talks.map(talkWords).join(", ")],
    [board ? "offers" : "takes", summary.pins ? count(summary.pins, "board pin") : ""],
    ["size", `${part.body.mm[0]} × ${part.body.mm[1]} mm`],
    ["soldering", part.body.solder],
    [
      "header",
      part.body.header ? `${part.body.header.pins} × ${part.body.header.kind}, ${part.body.header.pitch_mm} mm` : "",
    ],
    ["chip", board ? `${board.chip}, ${board.clock_Hz / 1e6} MHz, ${flashWords(board)}, ${board.ram_kB} kB RAM` : ""],
    ["USB", board ? board.usb.says : ""],
    ["radio", board?.radio.join(", ") ?? ""],
  ];
  // A long row of pins needs the whole width to be read.
  const long = description.headers.some((h) => (h.side === "top" || h.side === "bottom") && h.pins.length > 14);
  return (
    <main className="mx-auto max-w-5xl px-6 py-8">
      <p className="text-sm text-soft">
        <Link className="quiet" href="/">
          all projects
        </Link>{" "}
        · <span className="num">{part.id}</span>
        {own && <span className="ml-2 text-accent">own part</span>}
      </p>
      <h1 className="mt-1 text-3xl">{part.name}</h1>
      <p className="text-lg text-soft">{part.does}.</p>
      {own && (
        <div className="mt-2 border-l-4 border-risk pl-3" data-testid="beside">
          <strong>These data did not come with the catalogue.</strong> Hold them against the data sheet before power.
          {beside && (
            <>
              {" "}
              It is much like <Link href={`/parts/${beside.id}`}>{beside.name}</Link>
              {beside.differs.length ? ", and says other things:" : ", and says the same."}
              <ul className="mt-1 text-sm">
                {beside.differs.map((d) => (
                  <li key={d.path}>
                    <span className="num">{d.path}</span>: {d.own} here, {d.shipped} there
                  </li>
                ))}
              </ul>
            </>
          )}
        </div>
      )}
      {part.cautions.map((c) => (
        <p key={c} className="mt-2 border-l-4 border-stop pl-3">
          <strong className="text-stop">Take care:</strong> {c}
        </p>
      ))}
      <div className={`mt-4 grid gap-x-10 gap-y-4 ${long ? "" : "md:grid-cols-[auto_1fr]"}`}>
        <div className={long ? "" : "max-w-md"}>
          <HeaderDrawing headers={description.headers} name={part.name} />
          {part.body.orientation && <p className="mt-1 max-w-sm">{part.body.orientation}</p>}
        </div>
        <div>
          <dl className="grid grid-cols-[auto_1fr] gap-x-4">
            {facts
              .filter(([, v]) => v)
              .map(([k, v]) => (
                <div key={k} className="contents">
                  <dt className="text-soft">{k}</dt>
                  <dd>{v}</dd>
                </div>
              ))}
            <dt className="text-soft">data</dt>
            <dd>
              certainty{" "}
              <strong className={part.certainty === "high" ? "text-good" : "text-risk"}>{part.certainty}</strong>:{" "}
              {CERTAINTY[part.certainty]}
            </dd>
          </dl>
          {part.measures.length > 0 && <Measures list={part.measures} />}
          {part.notes.map((n) => (
            <p key={n} className="mt-2">
              {n}
            </p>
          ))}
        </div>
      </div>
      {description.prints.length > 0 && (
        <Block title={description.prints.length > 1 ? "Headers it is sold with" : "Its header"}>
          {description.prints.length > 1 && (
            <p className="text-soft">
              Look at yours and say so in the project: until then its pins are named by their labels alone.
            </p>
          )}
          <ul className="mt-1 flex flex-wrap gap-x-8 gap-y-3" data-testid="prints">
            {description.prints.map((p) => (
              <li key={p.id}>
                {description.prints.length > 1 && (
                  <HeaderDrawing headers={p.headers} name={`Header ${p.text}`} small plain />
                )}
                <p className="max-w-64 text-sm">
                  <span className="num">{p.text}</span>: {p.says}
                  <span className="text-soft">, {PRINT_SURE[p.certainty]}</span>
                </p>
              </li>
            ))}
          </ul>
        </Block>
      )}
      <Block title="Pins">
        <PinTable pins={description.pins} />
      </Block>
      {description.supplies.length > 0 && (
        <Block title="Supply">
          <Supplies list={description.supplies} />
          {part.converters.map((c, i) => (
            <p key={i} className="text-sm text-soft">
              Inside: {c.says}, up to {c.limit_mA} mA.
            </p>
          ))}
          {description.facts.map((f) => (
            <p key={f} className="text-sm text-soft">
              {f}
            </p>
          ))}
        </Block>
      )}
      {description.thresholds.length > 0 && (
        <Block title="Signal levels">
          <div className="grid gap-x-10 md:grid-cols-2">
            {description.thresholds.map((t) => (
              <Thresholds key={t.name} of={t} />
            ))}
          </div>
        </Block>
      )}
      {part.gates.length > 0 && (
        <Block title="What lets it work">
          <ul>
            {part.gates.map((g, i) => (
              <li key={i}>
                It {g.says} only while <span className="num">{g.pin}</span> is {g.open}.
              </li>
            ))}
          </ul>
        </Block>
      )}
      {part.companions.length > 0 && (
        <Block title="What stands around it">
          <ul>
            {part.companions.map((c, i) => (
              <li key={i} className="mt-1">
                <strong>{words(c.key)}</strong> at <span className="num">{[c.pin, ...(c.also ?? [])].join(", ")}</span>,{" "}
                {c.needed}: {c.because}.
              </li>
            ))}
          </ul>
        </Block>
      )}
      {board && (
        <Block title="Uploading">
          <ol className="list-decimal pl-6">
            {board.upload.map((u) => (
              <li key={u}>{u}</li>
            ))}
          </ol>
        </Block>
      )}
      <Block title="Sources">
        <ul>
          {part.sources.map((s) => (
            <li key={s.title}>
              {s.title}: {s.where}
            </li>
          ))}
        </ul>
      </Block>
      <Block title="Where it is used">
        {usedIn.length ? (
          <ul data-testid="used-in">
            {usedIn.map((u) => (
              <li key={u.id}>
                <Link className="quiet" href={`/p/${u.id}/parts`}>
                  {u.title}
                </Link>{" "}
                <span className="text-soft">{u.refs === 1 ? "once" : `${u.refs} times`}</span>
              </li>
            ))}
          </ul>
        ) : (
          <p className="text-soft">In none of your projects yet.</p>
        )}
      </Block>
    </main>
  );
}
