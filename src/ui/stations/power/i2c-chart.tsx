"use client";
import type { PowerView } from "@/workers/power-view";
import { PlainChart } from "@/ui/shared/chart";

const RISE = Math.log(0.7 / 0.3);

/** Rise time against bus capacitance for the pull-ups that are there, what is allowed, and where this bus stands. */
export function I2cChart({ b }: { b: PowerView["i2c"][number] }) {
  const most = Math.max(400, Math.ceil((b.C_pF * 1.3) / 100) * 100);
  const steps = Array.from({ length: 26 }, (_, i) => (i / 25) * most);
  const rise = (ohm: number, pF: number) => RISE * ohm * pF * 1e-3;
  const there = Number.isFinite(b.ohm);
  return (
    <PlainChart
      type="line"
      height={200}
      says={
        there
          ? `Rise time ${Math.round(b.rise_ns)} ns at ${Math.round(b.C_pF)} pF, ${b.rise_max_ns} ns allowed`
          : "No pull-up: the lines never rise"
      }
      data={(p) => ({
        datasets: [
          ...(there
            ? [
                {
                  label: "these pull-ups",
                  data: steps.map((c) => ({ x: c, y: rise(b.ohm, c) })),
                  borderColor: p.accent,
                  borderWidth: 2,
                  pointRadius: 0,
                },
                {
                  label: "this bus",
                  data: [{ x: b.C_pF, y: b.rise_ns }],
                  borderColor: p.ink,
                  backgroundColor: p.ink,
                  pointRadius: 5,
                  showLine: false,
                },
              ]
            : []),
          {
            label: "strongest allowed",
            data: steps.map((c) => ({ x: c, y: rise(b.min_ohm, c) })),
            borderColor: p.soft,
            borderDash: [4, 3],
            borderWidth: 1,
            pointRadius: 0,
          },
          {
            label: `allowed at ${b.clock_Hz / 1000} kHz`,
            data: [
              { x: 0, y: b.rise_max_ns },
              { x: most, y: b.rise_max_ns },
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
          x: { type: "linear", min: 0, max: most, title: { display: true, text: "pF on a line" } },
          y: { min: 0, suggestedMax: b.rise_max_ns * 1.4, title: { display: true, text: "rise time, ns" } },
        },
      })}
    />
  );
}
