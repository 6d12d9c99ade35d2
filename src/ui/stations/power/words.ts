import { count } from "@/core/quantity/count";
import { formatV } from "@/core/quantity/units";

/** Milliamperes with sensible digits. */
export const mA = (v: number) =>
  v >= 1000 ? `${(v / 1000).toFixed(2)} A` : `${v >= 100 ? Math.round(v) : v >= 10 ? v.toFixed(0) : v.toFixed(1)} mA`;
export const volts = (v: number) => formatV(v).replace("-", "−");
export const share = (x: number) => `${Math.round(x * 100)} %`;
/** Hours the way people count them: minutes, hours, days, months. */
export function howLong(hours: number): string {
  if (!Number.isFinite(hours)) return "for ever";
  if (hours < 1) return `${Math.round(hours * 60)} min`;
  if (hours < 48) return count(Number(hours.toFixed(hours < 10 ? 1 : 0)), "hour");
  if (hours < 24 * 60) return count(Math.round(hours / 24), "day");
  return count(Number((hours / 24 / 30.4).toFixed(1)), "month");
}
