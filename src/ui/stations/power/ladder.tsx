"use client";
import type { LevelView } from "@/workers/view";
import { volts as V } from "./words";

/** Volts upward: what the driver guarantees as bars, what the receiver asks as marks, the ceiling as a hatched top. */
export function Ladder({ v }: { v: LevelView }) {
  const top = Math.max(v.highest_V, v.ceiling) + 0.6;
  const y = (volts: number) => 210 - (volts / top) * 195;
  const mark = (volts: number, text: string, side: "l" | "r", bad = false) => (
    <g className={bad ? "fill-stop stroke-stop" : "fill-ink stroke-ink"}>
      <path d={side === "l" ? `M70 ${y(volts)}H130` : `M190 ${y(volts)}H250`} strokeWidth="1.5" />
      <text
        x={side === "l" ? 66 : 254}
        // Beside its mark, but never on the ground line.
        y={Math.min(y(volts) + 4, y(0) - 4)}
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
