"use client";
import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  Filler,
  Legend,
  LinearScale,
  LineController,
  LineElement,
  LogarithmicScale,
  PointElement,
  ScatterController,
  Tooltip,
  type ChartData,
  type ChartOptions,
} from "chart.js";
import { useEffect, useState } from "react";
import { Chart as Canvas } from "react-chartjs-2";

Chart.register(
  BarController,
  BarElement,
  CategoryScale,
  Filler,
  Legend,
  LinearScale,
  LineController,
  LineElement,
  LogarithmicScale,
  PointElement,
  ScatterController,
  Tooltip,
);

// The type of the page, for ticks, titles, legends and tips.
Chart.defaults.font.family = '"Atkinson Hyperlegible Next", sans-serif';
Chart.defaults.font.size = 12;

const NAMES = ["ink", "soft", "line", "accent", "stop", "risk", "good", "wash", "note"] as const;
export type Paints = Record<(typeof NAMES)[number], string>;

const read = (): Paints => {
  const style = getComputedStyle(document.documentElement);
  return Object.fromEntries(NAMES.map((n) => [n, style.getPropertyValue(`--${n}`).trim()])) as Paints;
};

/** The page's own colours, read again when the theme changes. */
function usePaints(): Paints | null {
  const [paints, setPaints] = useState<Paints | null>(null);
  useEffect(() => {
    const now = () => setPaints(read());
    now();
    const seen = new MutationObserver(now);
    seen.observe(document.documentElement, { attributes: true, attributeFilter: ["data-theme"] });
    const dark = window.matchMedia("(prefers-color-scheme: dark)");
    dark.addEventListener("change", now);
    return () => {
      seen.disconnect();
      dark.removeEventListener("change", now);
    };
  }, []);
  return paints;
}

const still = () => window.matchMedia("(prefers-reduced-motion: reduce)").matches;

/** A chart in the page's hand: hairline axes, its type, its colours. `says` is what it shows, in words. */
export function PlainChart({
  type,
  says,
  height,
  data,
  options,
}: {
  type: "bar" | "line" | "scatter";
  says: string;
  height: number;
  data(p: Paints): ChartData<"bar" | "line" | "scatter", ({ x: number; y: number } | number | null)[]>;
  options?(p: Paints): ChartOptions;
}) {
  const paints = usePaints();
  if (!paints) return <div style={{ height }} />;
  const base: ChartOptions = {
    responsive: true,
    maintainAspectRatio: false,
    animation: still() ? false : { duration: 150 },
    plugins: { legend: { display: false } },
    color: paints.ink,
  };
  const own = options?.(paints) ?? {};
  const scales = Object.fromEntries(
    Object.entries(own.scales ?? {}).map(([k, s]) => [
      k,
      {
        ...s,
        grid: { color: paints.line, lineWidth: 0.6, ...s?.grid },
        border: { color: paints.ink },
        ticks: { color: paints.soft, ...(s?.ticks as object) },
        title: { display: true, color: paints.soft, ...(s as { title?: object })?.title },
      },
    ]),
  ) as ChartOptions["scales"];
  return (
    <div style={{ height }}>
      <Canvas
        aria-label={says}
        type={type}
        data={data(paints) as ChartData}
        options={{ ...base, ...own, plugins: { ...base.plugins, ...own.plugins }, ...(scales && { scales }) }}
      />
    </div>
  );
}
