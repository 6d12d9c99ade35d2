"use client";
import { useState } from "react";
import type { LevelView, LimitView } from "@/workers/view";
import { useAnswer } from "@/ui/shared/answer";
import { StationTitle } from "@/ui/shared/title";
import { useProject } from "@/ui/state/project";

const mA = (v: number) => `${v >= 100 ? Math.round(v) : v.toFixed(1)} mA`;
const V = (v: number) => `${v.toFixed(2)} V`;

/** One source or regulator: typical and peak flow against its limit, as a level in a channel. */
function Channel({ limit }: { limit: LimitView }) {
  const scale = 100 / Math.max(limit.limit_mA * 1.15, limit.peak_mA);
  const over = limit.peak_mA > limit.limit_mA;
  return (
    <li className="border-b border-line py-2">
      <div className="flex flex-wrap justify-between gap-x-4">
        <span>
          <strong>{limit.label}</strong> <span className="text-soft">{limit.says}</span>
        </span>
        <span className={`num ${over ? "font-bold text-stop" : ""}`}>
          typical {mA(limit.typ_mA)} · peak {mA(limit.peak_mA)} of {mA(limit.limit_mA)}
        </span>
      </div>
      <svg
        viewBox="0 0 100 7"
        preserveAspectRatio="none"
        className="mt-1 h-4 w-full"
        role="img"
        aria-label={`${mA(limit.peak_mA)} at peak, limit ${mA(limit.limit_mA)}`}
      >
        <rect
          x="0"
          y="1"
          width={limit.peak_mA * scale}
          height="5"
          className={over ? "fill-stop opacity-50" : "fill-accent opacity-35"}
        />
        <rect x="0" y="1" width={limit.typ_mA * scale} height="5" className={over ? "fill-stop" : "fill-accent"} />
        <path
          d={`M${limit.limit_mA * scale} 0V7`}
          className="stroke-ink"
          strokeWidth="2.5"
          vectorEffect="non-scaling-stroke"
        />
      </svg>
      <p className="text-sm text-soft">
        {limit.loads
          .filter((l) => l.peak_mA > 0.05)
          .slice(0, 6)
          .map((l) => `${l.label} ${mA(l.peak_mA)}`)
          .join(" · ") || "nothing drawn"}
      </p>
    </li>
  );
}

/** Volts upward: what the driver guarantees as bars, what the receiver asks as marks, the ceiling as a hatched top. */
function Ladder({ v }: { v: LevelView }) {
  const top = Math.max(v.highest_V, v.ceiling) + 0.6;
  const y = (volts: number) => 210 - (volts / top) * 195;
  const mark = (volts: number, text: string, side: "l" | "r", bad = false) => (
    <g className={bad ? "fill-stop stroke-stop" : "fill-ink stroke-ink"}>
      <path d={side === "l" ? `M70 ${y(volts)}H130` : `M190 ${y(volts)}H250`} strokeWidth="1.5" />
      <text
        x={side === "l" ? 66 : 254}
        y={y(volts) + 4}
        textAnchor={side === "l" ? "end" : "start"}
        stroke="none"
        fontSize="11.5"
      >
        {text}
      </text>
    </g>
  );
  const tall = (a: number, b: number) => Math.max(2, y(b) - y(a));
  return (
    <svg
      viewBox="-34 0 394 240"
      className="w-full max-w-md font-mono"
      role="img"
      aria-label={`${v.driver} to ${v.receiver}: high ${V(v.high_V)} against ${V(v.VIH)}, low ${V(v.low_V)} against ${V(v.VIL)}, highest ${V(v.highest_V)} against ${V(v.ceiling)}`}
    >
      <path d={`M160 ${y(0)}V${y(top)}`} className="stroke-line" />
      <path d={`M190 ${y(v.ceiling)}H250V${y(top)}H190Z`} className="fill-stop opacity-20" />
      <rect
        x="70"
        y={y(v.highest_V)}
        width="60"
        height={tall(v.highest_V, v.high_V)}
        className="fill-accent opacity-60"
      />
      <rect x="70" y={y(v.low_V)} width="60" height={tall(v.low_V, 0)} className="fill-accent opacity-60" />
      <rect
        x="190"
        y={y(v.ceiling)}
        width="60"
        height={tall(v.ceiling, v.analog ? 0 : v.VIH)}
        className="fill-good opacity-25"
      />
      {!v.analog && <rect x="190" y={y(v.VIL)} width="60" height={tall(v.VIL, 0)} className="fill-good opacity-25" />}
      {mark(v.highest_V, `up to ${V(v.highest_V)}`, "l", v.highest_V > v.ceiling)}
      {Math.abs(v.highest_V - v.high_V) > 0.12 && mark(v.high_V, V(v.high_V), "l", v.marginHigh < 0)}
      {mark(v.low_V, V(v.low_V), "l", v.marginLow < 0)}
      {mark(v.ceiling, `most ${V(v.ceiling)}`, "r", v.highest_V > v.ceiling)}
      {!v.analog && mark(v.VIH, `VIH ${V(v.VIH)}`, "r", v.marginHigh < 0)}
      {!v.analog && mark(v.VIL, `VIL ${V(v.VIL)}`, "r", v.marginLow < 0)}
      <path d={`M20 ${y(0)}H340`} className="stroke-ink" />
      <text x="100" y="232" textAnchor="middle" fontSize="12" className="fill-ink">
        {v.driver}
      </text>
      <text x="220" y="232" textAnchor="middle" fontSize="12" className="fill-ink">
        {v.receiver}
      </text>
    </svg>
  );
}

function BrightnessOf({ strip }: { strip: { ref: string; label: string; value: number } }) {
  const { edit } = useProject();
  const [now, setNow] = useAnswer(
    Math.round(strip.value * 100),
    (v) => void edit({ type: "setOption", ref: strip.ref, key: "brightness", value: v / 100 }),
  );
  return (
    <label className="mt-2 flex items-center gap-3">
      <span>{strip.label} brightness cap</span>
      <input
        type="range"
        min={0}
        max={100}
        value={now}
        className="grow p-0 accent-[var(--accent)]"
        onChange={(e) => setNow(Number(e.target.value))}
      />
      <span className="num w-12 text-right">{now} %</span>
    </label>
  );
}

/** Live brightness of every strip in the project. */
function Brightness() {
  const { view } = useProject();
  return view.parts.flatMap((p) => {
    const o = p.options.find((x) => x.key === "brightness");
    return o ? [<BrightnessOf key={p.ref} strip={{ ref: p.ref, label: p.label, value: Number(o.value) }} />] : [];
  });
}

/** Power and levels: the supply budget, and every driver against every receiver. */
export function Power() {
  const { view, lit } = useProject();
  const [picked, setPicked] = useState<string | null>(null);
  const worst = [...view.levels].sort(
    (a, b) =>
      Math.min(a.marginHigh, a.marginLow, a.ceiling - a.highest_V) -
      Math.min(b.marginHigh, b.marginLow, b.ceiling - b.highest_V),
  );
  const shown = view.levels.find((v) => v.id === picked) ?? worst[0];
  return (
    <>
      <StationTitle
        name="Power and levels"
        says="Worst case everywhere: lowest supply, highest load, widest tolerance."
      />
      <section className="mt-3" aria-label="Supply budget">
        <h2 className="text-lg">Supply budget</h2>
        <ul className="border-t border-ink">
          {view.limits.map((l) => (
            <Channel key={l.id} limit={l} />
          ))}
        </ul>
        {!view.limits.length && (
          <p className="mt-2">Nothing feeds this project yet. Add a USB port or an adapter at Parts.</p>
        )}
        <Brightness />
      </section>
      <section className="mt-5 grid gap-x-8 2xl:grid-cols-[1fr_400px]" aria-label="Levels">
        <div>
          <h2 className="text-lg">Levels</h2>
          <table className="plain">
            <thead>
              <tr>
                <th>net</th>
                <th>from</th>
                <th>to</th>
                <th>high margin</th>
                <th>low margin</th>
                <th>under ceiling</th>
              </tr>
            </thead>
            <tbody>
              {view.levels.map((v) => {
                const room = v.ceiling - v.highest_V;
                const shownMargin = (m: number) => (Number.isFinite(m) ? V(m) : "–");
                const tone = (m: number) => (m < 0 ? "font-bold text-stop" : m < 0.2 ? "text-risk" : "");
                const on = v.id === shown?.id;
                return (
                  <tr
                    key={v.id}
                    className={`cursor-pointer ${on || lit.has(v.driver) || lit.has(v.receiver) ? "bg-wash" : ""}`}
                    onClick={() => setPicked(v.id)}
                  >
                    <td>
                      <button className="quiet text-left" aria-pressed={on} onClick={() => setPicked(v.id)}>
                        {v.net}
                      </button>
                    </td>
                    <td className="num">{v.driver}</td>
                    <td className="num">{v.receiver}</td>
                    <td className={`num ${tone(v.marginHigh)}`}>{v.analog ? "analogue" : shownMargin(v.marginHigh)}</td>
                    <td className={`num ${tone(v.marginLow)}`}>{v.analog ? "" : shownMargin(v.marginLow)}</td>
                    <td className={`num ${room < 0 ? "font-bold text-stop" : ""}`}>{V(room)}</td>
                  </tr>
                );
              })}
            </tbody>
          </table>
          {!view.levels.length && <p className="mt-2">No driver meets a receiver yet.</p>}
        </div>
        {shown && (
          <figure className="max-2xl:order-first">
            <figcaption>
              <strong>{shown.net}</strong>: what {shown.driver} guarantees
              {shown.how === "pull-up" ? " (by its pull-up)" : shown.how === "contact" ? " (through its contact)" : ""},
              left; what {shown.receiver} needs, right.
            </figcaption>
            <Ladder v={shown} />
          </figure>
        )}
      </section>
    </>
  );
}
