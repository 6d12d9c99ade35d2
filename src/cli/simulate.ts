import { busWaves } from "../core/bench/captures/bus-waves";
import { writeVcd } from "../core/bench/captures/write-vcd";
import { simulatedBench } from "../core/bench/simulated/bench";
import { triable, type Act } from "../core/bench/trial";
import { circuitOf } from "../core/circuit";
import { faultNamed } from "./faults";
import { catalogue, EXIT, loadFile, note, print, printJson, Unusable, writeFileWhole } from "./io";

/** Longer than anybody watches, seconds. */
const MOST_S = 3600;

interface Deed {
  at: number;
  act: Act;
  says: string;
}

/** `SW1@2` or `SW1@2-2.5`: held from then until then, a fifth of a second when nothing is said. */
function presses(text: string): Deed[] {
  const m = /^([A-Za-z]+\d+)(?:\.(\d+))?@([\d.]+)(?:-([\d.]+))?$/.exec(text);
  const [from, to] = [Number(m?.[3]), Number(m?.[4] ?? Number(m?.[3]) + 0.2)];
  if (!m || !(from >= 0) || !(to > from))
    throw new Unusable(`--press ${text}: a contact and seconds are needed, as in SW1@2 or SW1@2-2.5`);
  const place = m[2] === undefined ? undefined : Number(m[2]) - 1;
  return [
    { at: from * 1000, act: { ref: m[1]!, down: true, place }, says: text },
    { at: to * 1000, act: { ref: m[1]!, down: false, place }, says: text },
  ];
}

/** `M1.t_C=3.5` or `M1.t_C=3.5@4`: what a part feels, from the start or from a second on. */
function settings(text: string): Deed[] {
  const m = /^([A-Za-z]+\d+)\.(\w+)=(-?[\d.]+)(?:@([\d.]+))?$/.exec(text);
  if (!m || !Number.isFinite(Number(m[3])) || !(Number(m[4] ?? 0) >= 0))
    throw new Unusable(
      `--set ${text}: a part, what it feels and a number are needed, as in M1.t_C=3.5 or M1.t_C=3.5@4`,
    );
  return [{ at: Number(m[4] ?? 0) * 1000, act: { ref: m[1]!, quantity: m[2]!, value: Number(m[3]) }, says: text }];
}

/** Runs the starter of a plan on a bench of models: what it prints, and what its parts do at the end. */
export async function simulateCommand(
  file: string,
  o: {
    seconds?: string;
    board?: string;
    press?: string[];
    set?: string[];
    fault?: string;
    vcd?: string;
    json?: boolean;
  },
): Promise<number> {
  const c = circuitOf(loadFile(file), catalogue);
  const seconds = Number(o.seconds ?? 10);
  if (!(seconds > 0 && seconds <= MOST_S))
    throw new Unusable(`--seconds ${o.seconds}: a number above 0 and up to ${MOST_S} is needed`);
  const boards = triable(c).map((b) => b.host);
  const host = o.board ?? boards[0];
  const change = o.fault === undefined ? {} : faultNamed(c, o.fault).change;
  const trial = host === undefined || !boards.includes(host) ? null : simulatedBench(c, change, host);
  if (!trial)
    throw new Unusable(
      o.board !== undefined && boards.length
        ? `--board ${o.board}: no program is tried there; boards here: ${boards.join(", ")}`
        : `${file}: no board here has a sketch or a MicroPython program that could be tried`,
    );
  const deeds = [...(o.press ?? []).flatMap(presses), ...(o.set ?? []).flatMap(settings)].sort((a, b) => a.at - b.at);
  const said = [];
  for (const d of deeds) {
    if (d.at > seconds * 1000) throw new Unusable(`${d.says}: that is after the end, at ${seconds} s`);
    said.push(...trial.run(d.at).said);
    const why = trial.act(d.act);
    if (why) throw new Unusable(`${d.says}: ${why}`);
  }
  const end = trial.run(seconds * 1000);
  if (o.vcd !== undefined)
    await writeFileWhole(o.vcd, writeVcd(c.project.title, trial.driven, seconds * 1000, busWaves(c, trial.messages)));
  said.push(...end.said);
  for (const label of trial.left) note(`left out here: ${label}`);
  if (o.json) printJson({ board: host, said, shows: end.shows });
  else {
    for (const s of said) print(`${(s.at / 1000).toFixed(2).padStart(7)}  ${s.line}`);
    for (const s of end.shows) {
      const is =
        s.kind === "light"
          ? s.lit
            ? `lit${s.bright !== undefined && s.bright < 100 ? ` at ${s.bright} %` : ""}`
            : "dark"
          : s.kind === "rows"
            ? s.rows.map((r) => `[${r}]`).join(" ")
            : s.kind === "strip"
              ? `${s.colours.filter((x) => x !== "rgb(0, 0, 0)").length} of ${s.colours.length} lights lit`
              : s.kind === "grid"
                ? `${s.lit.filter(Boolean).length} of ${s.lit.length} lights lit`
                : s.says;
      print(`${s.ref} ${s.label}: ${is}`);
    }
  }
  return EXIT.fine;
}
