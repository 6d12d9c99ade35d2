import type { Circuit } from "../../circuit";
import { batteries } from "../../circuit/power";
import { airOf, type Sleep } from "../../project";
import { TARGETS } from "..";
import { isOnNetwork } from "../page";
import { driverParts } from "../pins";
import { ruled } from "../rules";
import { usbHostOf } from "../usb/host";
import { awakeNeeded, deafTo, sleepless, watchedOf } from ".";

/** What is to be known of one board's sleep. */
export interface SleepView {
  host: string;
  label: string;
  sleep: Sleep | null;
  /** Targets whose programs let it sleep. */
  targets: { id: string; name: string }[];
  /** Why there is none. */
  why: string | null;
  /** Seconds that a round must be awake, and the part that needs the most of them. */
  needs_s: number;
  needsBy: string | null;
  /** Parts that are not heard while it sleeps, by name. */
  deaf: { ref: string; label: string }[];
  /** Parts that keep it awake while a sentence tells them something. */
  watched: { ref: string; label: string }[];
  /** What its cells give on average, and for how long. */
  cells: { label: string; average_mA: number; hours: { min: number; max: number } }[];
}

/** Every board of a project, as far as sleep between readings goes. */
export function sleepView(c: Circuit): SleepView[] {
  return c.netlist.expanded.hosts.map((host): SleepView => {
    const inst = c.netlist.instance(host)!;
    const written = TARGETS.filter((t) => !t.without(c).some((w) => w.host === host));
    const targets = written.filter((t) => sleepless(inst.part, t.id) === null);
    const target = (targets[0] ?? written[0])?.id ?? "sketch";
    const parts = driverParts(c, host, target, (b) => b);
    const needs = awakeNeeded(parts);
    const on = new Set(c.power.limits.filter((l) => l.loads.some((x) => x.ref === host)).map((l) => l.ref));
    return {
      host,
      label: inst.label,
      sleep: inst.sleep ?? null,
      targets: targets.map(({ id, name }) => ({ id, name })),
      why: targets.length
        ? null
        : (written.map((t) => sleepless(inst.part, t.id)).find((w) => w !== null) ?? "no program is written for it"),
      needs_s: needs.s,
      needsBy: needs.by?.inst.label ?? null,
      deaf: [
        ...deafTo(parts).map((p) => ({ ref: p.inst.ref, label: p.inst.label })),
        ...(isOnNetwork(c, host) ? [{ ref: host, label: "who asks for its page" }] : []),
      ],
      watched: watchedOf(ruled(c.project, parts, usbHostOf(c, host, target)).rules.map((r) => r.resolved)).map(
        ({ part }) => ({ ref: part.inst.ref, label: part.inst.label }),
      ),
      cells: batteries(c.netlist, c.power, airOf(c.project).min_C)
        .filter((b) => on.has(b.battery.ref))
        .map((b) => ({ label: b.battery.label, average_mA: b.average_A * 1000, hours: b.hours })),
    };
  });
}
