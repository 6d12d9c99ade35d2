"use client";
import type { PowerView } from "@/workers/power-view";
import { columnsOf, Table } from "@/ui/shared/table";
import { PlainChart } from "@/ui/shared/chart";
import { useAnswer } from "@/ui/shared/answer";
import { useProject } from "@/ui/state/project";
import { River } from "./river";
import { OptionSlider } from "./slider";
import { Ways } from "./ways";
import { span } from "@/core/quantity/span";
import { howLong, mA, share, volts } from "./words";
import { Checkbox } from "@/ui/shared/checkbox";
import { Fold } from "@/ui/shared/fold";

function Budget() {
  const { view } = useProject();
  const rows = view.limits.filter((l) => l.limit_mA > 0);
  const names = rows.map((l) => `${l.label.slice(0, 16)} ${l.rail}`);
  const of = (v: number, l: (typeof rows)[number]) => Number(((v / l.limit_mA) * 100).toFixed(1));
  if (!rows.length) return null;
  return (
    <section aria-label="Budget by rail">
      <h2 className="text-lg">Budget by rail</h2>
      <PlainChart
        type="bar"
        height={Math.max(110, rows.length * 44 + 46)}
        says={rows.map((l, i) => `${names[i]}: ${share(l.peak_mA / l.limit_mA)} of its limit at peak`).join("; ")}
        data={(p) => ({
          labels: names,
          datasets: [
            { label: "usual", data: rows.map((l) => of(l.typ_mA, l)), backgroundColor: p.accent, barThickness: 9 },
            {
              label: "peak",
              data: rows.map((l) => of(l.peak_mA, l)),
              backgroundColor: rows.map((l) => (l.peak_mA > l.limit_mA ? p.stop : `${p.accent}66`)),
              barThickness: 9,
            },
          ],
        })}
        options={() => ({
          indexAxis: "y",
          scales: {
            x: {
              min: 0,
              suggestedMax: 100,
              title: { display: true, text: "% of the limit (upper usual, lower peak)" },
            },
            y: { title: { display: false } },
          },
        })}
      />
    </section>
  );
}

function Life({ b }: { b: PowerView["batteries"][number] }) {
  const says = `${b.label}: ${howLong(b.hours.min)} to ${howLong(b.hours.max)} at ${mA(b.average_mA)} on average`;
  return (
    <section aria-label={`Battery ${b.label}`} className="mt-4">
      <h2 className="text-lg">{b.label} lasts</h2>
      <p>
        <strong className="num text-2xl">{howLong(b.hours.min)}</strong> to{" "}
        <strong className="num text-2xl">{howLong(b.hours.max)}</strong>
      </p>
      <p className="text-sm text-soft">
        {Math.round(b.capacity_mAh)} mAh at {mA(b.average_mA)} on average, {share(b.usable)} of it usable before{" "}
        {volts(b.cutoff_V)}
        {b.cutoffBy ? `, which ${b.cutoffBy} needs` : ", where it counts as empty"}. The lower figure is a worn one at
        peak load and {String(b.coldest_C).replace("-", "−")} °C, the upper a fresh one in a room. At peak it sags by{" "}
        {volts(b.sag_V)}
        {b.coldSag_V > b.sag_V * 1.01 ? `, cold by ${volts(b.coldSag_V)}` : ""}.
      </p>
      {b.sleeps ? (
        <p className="text-sm">
          {b.sleeps.ref} is awake for {span(b.sleeps.sleep.awake_s)} of every {span(b.sleeps.sleep.every_s)}, as chosen
          at Firmware.
        </p>
      ) : (
        <OptionSlider part={b.ref} option="duty" name="awake" value={b.duty} />
      )}
      <PlainChart
        type="line"
        height={170}
        says={says}
        data={(p) => ({
          datasets: [
            {
              label: "idle",
              data: b.points.map((x) => ({ x: x.used * 100, y: x.rest_V })),
              borderColor: p.accent,
              borderWidth: 2,
              pointRadius: 0,
            },
            {
              label: "at peak",
              data: b.points.map((x) => ({ x: x.used * 100, y: x.peak_V })),
              borderColor: p.soft,
              borderDash: [5, 3],
              borderWidth: 1.5,
              pointRadius: 0,
            },
            {
              label: "needed",
              data: [
                { x: 0, y: b.cutoff_V },
                { x: 100, y: b.cutoff_V },
              ],
              borderColor: p.stop,
              borderWidth: 1.5,
              pointRadius: 0,
            },
          ],
        })}
        options={() => ({
          parsing: false,
          plugins: { legend: { display: true, position: "bottom", labels: { boxWidth: 18, boxHeight: 2 } } },
          scales: {
            x: { type: "linear", min: 0, max: 100, title: { display: true, text: "% used" } },
            y: { title: { display: true, text: "volts" } },
          },
        })}
      />
    </section>
  );
}

function Strip({ s }: { s: PowerView["brightness"][number] }) {
  const { edit } = useProject();
  const now = s.points[Math.round(s.now * 20)] ?? s.points[0]!;
  return (
    <section aria-label={`Brightness of ${s.label}`} className="mt-4">
      <h2 className="text-lg">{s.label}: brightness against current</h2>
      <OptionSlider part={s.ref} option="brightness" name="brightness cap" value={s.now} />
      {s.cap !== null && s.now > s.cap && (
        <p className="mt-1">
          {s.at} holds up to {share(s.cap)}.{" "}
          <button
            className="btn"
            onClick={() => void edit({ type: "setOption", ref: s.ref, key: "brightness", value: s.cap! })}
          >
            Cap at {share(s.cap)}
          </button>
        </p>
      )}
      <PlainChart
        type="line"
        height={160}
        says={`${s.label}: ${mA(now.mA)} through ${s.at} at ${share(s.now)}, limit ${mA(s.limit_mA)}`}
        data={(p) => ({
          datasets: [
            {
              label: "peak",
              data: s.points.map((x) => ({ x: x.b * 100, y: x.mA })),
              borderColor: p.accent,
              borderWidth: 2,
              pointRadius: 0,
            },
            {
              label: "limit",
              data: [
                { x: 0, y: s.limit_mA },
                { x: 100, y: s.limit_mA },
              ],
              borderColor: p.stop,
              borderWidth: 1.5,
              pointRadius: 0,
            },
            {
              label: "now",
              data: [{ x: s.now * 100, y: now.mA }],
              borderColor: p.ink,
              backgroundColor: p.ink,
              pointRadius: 4,
              showLine: false,
            },
          ],
        })}
        options={() => ({
          parsing: false,
          scales: {
            x: { type: "linear", min: 0, max: 100, title: { display: true, text: "% brightness" } },
            y: { min: 0, title: { display: true, text: "mA" } },
          },
        })}
      />
    </section>
  );
}

const WIRE_COLUMNS = columnsOf<PowerView["wires"][number]>([
  { head: "from", by: (w) => w.from, show: (w) => w.from, look: "num" },
  { head: "to", by: (w) => w.to, show: (w) => w.to, look: "num" },
  { head: "usual", by: (w) => w.typ_mA, show: (w) => mA(w.typ_mA), look: "num" },
  {
    head: "peak",
    by: (w) => w.peak_mA,
    show: (w) => mA(w.peak_mA),
    look: (w) => `num ${w.peak_mA > w.limit_mA ? "font-bold text-stop" : ""}`,
  },
  {
    head: "wire",
    by: (w) => w.awg,
    show: (w) => `${w.awg} AWG, ${w.cm} cm${w.chosen ? "" : w.peak_mA > 1000 ? ", no jumper" : ""}`,
    look: "num",
  },
  { head: "lost", by: (w) => w.drop_V, show: (w) => volts(w.drop_V), look: "num" },
]);

function Wires({ list }: { list: PowerView["wires"] }) {
  const shown = list.filter((w) => w.peak_mA >= 5).slice(0, 14);
  if (!shown.length) return null;
  return (
    <section aria-label="Supply wires" className="mt-4">
      <h2 className="text-lg">Supply wires</h2>
      <Table label="Supply wires" rows={shown} rowId={(w) => `${w.from}${w.to}`} columns={WIRE_COLUMNS} />
    </section>
  );
}

function Advice({ list }: { list: PowerView["advice"] }) {
  const rows = list.filter((a) => a.list.length > 1);
  if (!rows.length) return null;
  return (
    <Fold className="mt-4" heading title="Which supply would do">
      {rows.map((a) => (
        <div key={a.id} className="mt-2">
          <p>
            Instead of {a.label}, which gives {mA(a.limit_mA)} for peaks of {mA(a.peak_mA)}:
          </p>
          <ul>
            {a.list.map((s) => (
              <li key={s.part} className={s.fits ? "" : "text-soft"}>
                <strong>{s.name}</strong>
                {s.owned > 0 && ` (in the drawer: ${s.owned})`}: {s.why}
              </li>
            ))}
          </ul>
        </div>
      ))}
    </Fold>
  );
}

/** Which parts share a ground, and whether the grounds that are apart shall stay so. */
function Grounds({ power }: { power: PowerView }) {
  const { edit } = useProject();
  const { grounds, apart } = power;
  const [kept, keep] = useAnswer(
    apart.length > 0,
    (on) =>
      void edit({
        type: "batch",
        edits: [
          { type: "setIsolated", isolated: on ? grounds.map((g) => g.map((m) => m.id)) : [] },
          { type: "setHouseRules", rules: { grounds: on ? "isolated" : "joined" } },
        ],
      }),
  );
  if (grounds.length < 2 && !apart.length) return null;
  const lists = apart.length ? apart : grounds.map((g) => g.map((m) => m.label));
  return (
    <section aria-label="Grounds" className="mt-4">
      <h2 className="text-lg">Grounds</h2>
      <p className="text-sm text-soft">
        {grounds.length < 2
          ? "These were stated to stay apart, and a wire joins them now."
          : "No wire joins these: each list shares a ground of its own."}
      </p>
      <ul className="list-disc pl-5">
        {lists.map((g) => (
          <li key={g.join()}>{g.join(", ")}</li>
        ))}
      </ul>
      <Checkbox className="mt-1" checked={kept} onChange={keep}>
        Keep them apart: a wire between them is a stop, and no plan joins them
      </Checkbox>
    </section>
  );
}

/** The flow, the budget, batteries, strips, wires and which supply would do. */
export function Supplies({ power }: { power: PowerView }) {
  return (
    <>
      <section aria-label="Flow">
        <River view={power.river} />
      </section>
      <div className="mt-4 grid gap-x-8 gap-y-2 xl:grid-cols-2">
        <Budget />
        <div className="-mt-4">
          {power.brightness.map((s) => (
            <Strip key={s.ref} s={s} />
          ))}
          {power.batteries.map((b) => (
            <Life key={b.ref} b={b} />
          ))}
        </div>
      </div>
      <Ways list={power.ways} />
      <Wires list={power.wires} />
      <Grounds power={power} />
      <Advice list={power.advice} />
    </>
  );
}
