"use client";
import { useEffect, useState } from "react";
import { toast } from "sonner";
import type { Hints, Offer, OfferedWay, Reading } from "@/core/idea";
import type { Proposal } from "@/workers/api";
import { CountField } from "@/ui/shared/count-field";
import { Radios } from "@/ui/shared/radios";
import { Select } from "@/ui/shared/select";
import { Label } from "@/ui/shared/label";
import { core } from "@/ui/state/core";
import { useKept } from "@/ui/state/kept";
import { useProject } from "@/ui/state/project";

type Verbs = Awaited<ReturnType<ReturnType<typeof core>["ideaThings"]>>;

const HINT_WORDS: Record<keyof Hints, string> = {
  outdoors: "lives outside",
  battery: "runs on cells",
  noIron: "nothing to solder",
  cheap: "cheap",
  exact: "exact",
};
const MOST_LETTERS = 2000;

/** One way with what speaks for it and against it. */
function WayWords({ way, first }: { way: OfferedWay; first: boolean }) {
  return (
    <span className="block">
      <span className={first ? "font-bold" : ""}>
        {way.parts.map((p) => p.name).join(" and ") || "the board itself"}
      </span>
      {way.owned && <span className="ml-2 text-sm text-accent">in your drawer</span>}
      <span className="block text-sm text-soft">
        {way.pros.filter((x) => x !== "in your drawer").join("; ")}
        {way.cons.length > 0 && <span className="text-risk"> · {way.cons.join("; ")}</span>}
      </span>
    </span>
  );
}

/** Two or three ways for one thing, of which one is taken. */
function Ways({
  offer,
  by,
  taken,
  many,
  take,
  count,
  remove,
}: {
  offer: Offer;
  by: string | undefined;
  taken: string;
  /** So many of them; null: it is one. */
  many: number | null;
  take(way: string): void;
  count(many: number): void;
  remove(): void;
}) {
  return (
    <section className="mt-3 border-t border-line pt-2" aria-label={`${offer.verb}: ${offer.name}`}>
      <p className="flex flex-wrap items-baseline gap-x-3">
        <span id={`way-${offer.thing}`} className="flex items-baseline gap-x-3">
          <span className="text-soft">{offer.verb}</span> <strong>{offer.name}</strong>
        </span>
        {by && <span className="text-sm text-soft">from “{by}”</span>}
        {many !== null && <CountField says="how many" value={many} least={1} most={offer.most} change={count} />}
        <button className="quiet ml-auto text-sm text-soft" aria-label={`Leave out: ${offer.name}`} onClick={remove}>
          leave out
        </button>
      </p>
      <Radios
        labelledBy={`way-${offer.thing}`}
        value={taken}
        options={offer.ways.map((w, i) => ({ value: w.id, name: <WayWords way={w} first={i === 0} /> }))}
        onChange={take}
      />
    </section>
  );
}

/** From an idea to a parts list: in own words or by verbs; ways for each thing with what decides; then the project, planned. */
export function Idea() {
  const { project, run } = useProject();
  const [typed, setTyped] = useKept<string | null>("idea text", null);
  const [reading, setReading] = useKept<Reading | null>("idea reading", null);
  const [things, setThings] = useKept<string[]>("idea things", []);
  const [taken, setTaken] = useKept<Record<string, string>>("idea ways", {});
  const [counts, setCounts] = useKept<Record<string, number>>("idea counts", {});
  const [board, setBoard] = useKept<string>("idea board", "");
  const [verbs, setVerbs] = useState<Verbs>([]);
  const [proposal, setProposal] = useState<Proposal | null>(null);
  const [done, setDone] = useState<Pick<
    Awaited<ReturnType<ReturnType<typeof core>["ideaBuild"]>>,
    "verdict" | "did" | "does" | "short"
  > | null>(null);
  useEffect(() => {
    void core().ideaThings().then(setVerbs);
  }, []);
  const hints = reading?.hints ?? {};
  const asked = JSON.stringify([things, hints]);
  useEffect(() => {
    let gone = false;
    const [list, said] = JSON.parse(asked) as [string[], Hints];
    if (!list.length) return setProposal(null);
    void core()
      .ideaOffers(project, list, said)
      .then((p) => {
        if (!gone) setProposal(p);
      });
    return () => {
      gone = true;
    };
  }, [asked, project]);
  // Who named the project by what it should do has said it already.
  const text = typed ?? (project.brief.goal || project.title);
  const propose = async () => {
    const r = await core().ideaRead(text);
    setDone(null);
    setReading(r);
    setCounts({});
    setThings([...new Set([...r.wishes.map((w) => w.thing)])]);
  };
  const wishOf = (thing: string) => reading?.wishes.find((w) => w.thing === thing);
  const manyOf = (o: Offer) => Math.min(counts[o.thing] ?? wishOf(o.thing)?.many ?? o.usual, o.most);
  const wayOf = (o: Offer) => (o.ways.some((w) => w.id === taken[o.thing]) ? taken[o.thing]! : o.ways[0]!.id);
  const chosen = proposal?.offers.map((o) => o.verb) ?? [];
  const feels = chosen.some((v) => v === "sense" || v === "count");
  const whole = reading?.half === "act" ? chosen.some((v) => v !== "sense" && v !== "count") : feels;
  const boardTaken = proposal?.boards.some((b) => b.part === board) ? board : (proposal?.boards[0]?.part ?? "");
  const build = () => {
    if (!proposal) return;
    const choices = proposal.offers.map((o) => ({
      thing: o.thing,
      way: wayOf(o),
      many: manyOf(o),
      places: wishOf(o.thing)?.places ?? [],
    }));
    void run(async (p) => {
      // A name that nobody had read is no goal.
      const goal = reading ? text : (typed ?? project.brief.goal);
      const s = await core().ideaBuild(p, choices, hints, goal, boardTaken || undefined);
      if (s.clash) toast.error(`The parts do not fit: ${s.clash}`, { duration: 12_000 });
      else toast(`${s.verdict}. The parts are in the list, wired in the plan; undo takes them back.`);
      setDone(s);
      setThings([]);
      setReading(null);
      setTyped(null);
      return s;
    });
  };
  return (
    <section aria-label="From an idea to parts" className="mt-4 border-t border-ink pt-2">
      <h2 className="text-lg">From an idea to parts</h2>
      <Label className="mt-1 block">
        <span className="text-soft">Say what it should sense and do, in your own words</span>
        <textarea
          className="w-full"
          rows={2}
          maxLength={MOST_LETTERS}
          value={text}
          placeholder="tell me when the plants are dry, show it, keep a record"
          onChange={(e) => setTyped(e.target.value)}
        />
      </Label>
      <div className="mt-1 flex flex-wrap items-center gap-2">
        <button className="btn-main" disabled={!text.trim()} onClick={() => void propose()}>
          Propose parts
        </button>
        <span className="text-soft">or choose:</span>
        {verbs.map((v) => (
          <Select<string>
            key={v.verb}
            label={v.asks}
            value=""
            empty={v.name}
            options={v.things.map((t) => ({ value: t.id, name: t.name, disabled: things.includes(t.id) }))}
            onChange={(id) => {
              setDone(null);
              setThings([...things, id]);
            }}
          />
        ))}
      </div>
      {reading && Object.keys(reading.hints).length > 0 && (
        <p className="mt-2 text-sm text-soft">
          Heard as well: {(Object.keys(reading.hints) as (keyof Hints)[]).map((h) => HINT_WORDS[h]).join(", ")}.
        </p>
      )}
      {reading && reading.slips.length > 0 && (
        <p className="mt-1 text-sm text-soft">
          Read as: {reading.slips.map((s) => `“${s.by}” as “${s.as}”`).join(", ")}.
        </p>
      )}
      {reading?.beyond.map((b) => (
        <p key={b.says} className="mt-1 text-sm text-risk">
          “{b.by}”: {b.says}.
        </p>
      ))}
      {reading && reading.unread.length > 0 && (
        <p className="mt-1 text-sm text-risk">
          Not understood: {reading.unread.map((t) => `“${t}”`).join(", ")}. Choose it from the verbs, or say it in other
          words.
        </p>
      )}
      {reading && !things.length && (
        <p role="status" className="mt-2">
          Nothing in it that the table knows. Choose from the verbs: what should it sense, show, move or switch?
        </p>
      )}
      {proposal?.offers.map((o) => (
        <Ways
          key={o.thing}
          offer={o}
          by={wishOf(o.thing)?.by}
          taken={wayOf(o)}
          many={o.most > 1 ? manyOf(o) : null}
          count={(n) => setCounts({ ...counts, [o.thing]: n })}
          take={(way) => setTaken({ ...taken, [o.thing]: way })}
          remove={() => setThings(things.filter((t) => t !== o.thing))}
        />
      ))}
      {reading?.half && things.length > 0 && !whole && (
        <p role="status" className="mt-3 border-t border-line pt-2">
          {reading.half === "act"
            ? "And what should come of it? Choose above what it shows, lights, sounds, moves, switches, logs or sends; without, its readings are at the computer."
            : "And what should make it begin? Choose above what it senses or counts, the time of day too; without, it waits for your own code."}
        </p>
      )}
      {proposal && proposal.boards.length > 0 && (
        <section className="mt-3 border-t border-line pt-2" aria-label="The board">
          <p id="way-board">
            <span className="mr-3 text-soft">with</span>
            <strong>a board</strong>
          </p>
          <Radios
            labelledBy="way-board"
            value={boardTaken}
            options={proposal.boards.map((b, i) => ({
              value: b.part,
              name: (
                <span className="block">
                  <span className={i === 0 ? "font-bold" : ""}>{b.name}</span>
                  <span className="block text-sm text-soft">{b.pros.join("; ")}</span>
                </span>
              ),
            }))}
            onChange={setBoard}
          />
        </section>
      )}
      {proposal && proposal.offers.length > 0 && (
        <button className="btn-main mt-3" onClick={build}>
          Take these parts and plan them
        </button>
      )}
      {done && (
        <p role="status" className="mt-3">
          <strong>{done.verdict}.</strong>
          {done.did.length > 0 && ` Put in, so that the plan is sound: ${done.did.join("; ")}.`}
        </p>
      )}
      {done && done.does.length > 0 && (
        <section className="mt-2" aria-label="What it does">
          <p>Its program does this; numbers and sentences are changed at Firmware:</p>
          <ul className="ml-5 list-disc">
            {done.does.map((d, i) => (
              <li key={i}>{d}</li>
            ))}
          </ul>
          {done.short.map((s) => (
            <p key={s} className="mt-1 text-sm text-risk">
              {s}.
            </p>
          ))}
        </section>
      )}
    </section>
  );
}
