import type { Circuit } from "../circuit";
import { TARGETS, targetById } from ".";
import { driverOf, leftOut } from "./drivers";
import { driverParts } from "./pins";
import { proofOf } from "./proof";
import { ruled, type Ruled } from "./rules";
import { told } from "./rules/resolve";
import { usbHostOf } from "./usb/host";
import type { DriverPart, Proof } from "./types";

/** What a program does with one part: how often it is worked, how it is proven, or why it is left out. */
export interface Does {
  host: string;
  ref: string;
  label: string;
  /** In the starter, in a sentence. */
  starter: string;
  /** In the bring-up, in a sentence. */
  proof: string;
  worked: boolean;
}

const PROOF: { [K in Proof["kind"]]: (q: Extract<Proof, { kind: K }>) => string } = {
  test: () => "proves itself",
  seen: (q) => `you are asked: ${q.question}`,
  watch: (q) => `proven when it changes: ${q.act}`,
  unproven: (q) => `can't be proven: ${q.why}`,
};
const proofWords = (q: Proof) => (PROOF[q.kind] as (q: Proof) => string)(q);

const showsIn = (p: DriverPart, target: string) =>
  Boolean(driverOf(p)?.[target === "sketch" ? "sketch" : "micropython"]?.show?.(p));
/** On a wire of several the program knows them by the order of their codes only. */
const toldApart = (p: DriverPart) =>
  p.mates
    ? `; one of ${p.mates.count} on a wire, told apart by the order of their codes: warm this one by hand, and if another one's reading rises, change their labels`
    : "";

/** What rules tell a part, or nothing. */
const sentencesOf = (p: DriverPart, rules: Ruled): string =>
  rules.rules
    .filter((r) => told(r.resolved).some((a) => a.part === p))
    .map((r) => r.says)
    .join(" ")
    .replace(/\.$/, "");

function starterWords(p: DriverPart, all: DriverPart[], target: string, rules: Ruled): string {
  const code = driverOf(p)?.[target === "sketch" ? "sketch" : "micropython"];
  const task = code?.task?.(p, all);
  const shown = code?.show?.(p) ? ", told once a second" : "";
  if (driverOf(p)?.takes?.(p)) {
    const mine = sentencesOf(p, rules);
    if (mine) return mine;
    if (driverOf(p)?.text?.(p) && all.some((q) => q !== p && code?.show !== undefined && showsIn(q, target)))
      return "shows what the other parts say";
    if (!driverOf(p)?.lively) return "put to rest: no rule tells it anything";
  }
  if (!task) return "put to rest and left there";
  return "turn" in task
    ? `asked in turns, taken back when it was gone${shown}${toldApart(p)}`
    : `worked every ${task.every_ms} ms${shown}`;
}

/** A plain program asks nobody: only what its own reading proves is proven. */
const provesItself = (p: DriverPart) => driverOf(p)?.id === p.inst.part.id && proofOf(p).kind === "test";

/** What the programs of a target do with every part of the boards that it fits, in the order of the plan. */
export function does(c: Circuit, target: string): Does[] {
  const t = targetById(target) ?? TARGETS[0]!;
  const without = new Set(t.without(c).map((w) => w.host));
  return c.netlist.expanded.hosts
    .filter((host) => !without.has(host))
    .flatMap((host) => {
      const parts = driverParts(c, host, t.id, (b) => b);
      const rules = ruled(c.project, parts, usbHostOf(c, host, t.id));
      return parts.map((p): Does => {
        const why = (leftOut(p) ?? t.leaves?.(p))?.why ?? null;
        const row = { host, ref: p.ref, label: p.inst.label };
        if (why !== null) return { ...row, worked: false, starter: `left out: ${why}`, proof: "" };
        const plain = t.id === "avr-c";
        return {
          ...row,
          worked: true,
          starter: plain
            ? (c.project.rules && sentencesOf(p, rules)) || "worked in the main loop"
            : starterWords(p, parts, t.id, rules),
          proof: plain && !provesItself(p) ? "shown or told, for you to judge" : proofWords(proofOf(p)),
        };
      });
    });
}
