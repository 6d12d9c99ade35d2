import type { Circuit } from "../../circuit";
import { fingerprint } from "../../project";
import type { State } from "../laid/types";
import type { Works } from "../laid/works";
import { answer, busOf } from "../reason/questions";

const OTHER = "BCDFGHJK";

/** What the bring-up program prints on a build: a line for the board, one a bus, one a part, and the sum. */
export function bringUpLines(c: Circuit, works: Works, s: State): string[] {
  return c.netlist.expanded.hosts.flatMap((host): string[] => {
    const mine = works.watched.filter((w) => w.host === host);
    if (!mine.length || works.console(s, host) === "silent") return [];
    const other = s.change.otherProgram === host;
    const id = other ? (fingerprint(c.project) === OTHER ? "KJHGFDCB" : OTHER) : fingerprint(c.project);
    const chip = c.netlist.instance(host)!.part.board!.chip;
    const head = `YL1 hello ${host} chip=${chip} plan=${id} info`;
    // A program of another plan looks for its parts at other pins: nothing that it says is of this build.
    if (other) return [head];
    const buses = [
      ...new Set(
        c.netlist.bindings.flatMap((b) =>
          b.need.kind === "i2c" && b.host === host ? (busOf(s.laid, host, b.hostPin) ?? []) : [],
        ),
      ),
    ];
    const scans = buses.map((bus) => {
      const found = answer(works, s, { kind: "scan", host, bus });
      const want = answer(works, works.sound, { kind: "scan", host, bus });
      return `YL1 scan ${host} bus=${bus} found=${found} want=${want} ${found === want ? "ok" : "fail"}`;
    });
    const lines = mine.map((w) => {
      const is = works.of(s, w.ref);
      return `YL1 part ${w.ref} is=${is} ${is === "works" ? "ok" : is === "unsure" ? "info" : "fail"}`;
    });
    const failed = lines.filter((l) => l.endsWith("fail")).length;
    const proven = lines.filter((l) => l.endsWith("ok")).length;
    const sum = `YL1 done parts=${mine.length} proven=${proven} failed=${failed} unproven=${mine.length - proven - failed} ${failed ? "fail" : "ok"}`;
    return [head, ...scans, ...lines, sum];
  });
}
