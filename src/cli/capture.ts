import { createReadStream, statSync } from "node:fs";
import { compareCapture, matchChannels, readerFor, type Capture, type CaptureReader } from "../core/bench/captures";
import { circuitOf } from "../core/circuit";
import { catalogue, EXIT, loadFile, note, print, printJson, Unusable } from "./io";

const MOST_BYTES = 2_000_000_000;
const STEP_BYTES = 20_000_000;

/** `D0=M1.SDA`: a channel and the point that its probe is at. */
function mapOf(list: readonly string[]): Map<string, string> {
  return new Map(
    list.map((text) => {
      const at = text.indexOf("=");
      if (at < 1 || at === text.length - 1)
        throw new Unusable(`--map ${text}: a channel and a point are needed, as in D0=M1.SDA`);
      return [text.slice(0, at), text.slice(at + 1)] as const;
    }),
  );
}

/** Reads a file piece by piece, telling how far it is. */
async function read(file: string): Promise<Capture> {
  let size = 0;
  try {
    size = statSync(file).size;
  } catch (e) {
    throw new Unusable(`${file}: can't be read (${(e as NodeJS.ErrnoException).code})`);
  }
  if (size > MOST_BYTES) throw new Unusable(`${file}: larger than 2 GB; take a shorter capture`);
  let reader: CaptureReader | null = null;
  let [done, told] = [0, 0];
  for await (const piece of createReadStream(file, { encoding: "utf8", highWaterMark: 1 << 20 })) {
    const text = piece as string;
    reader ??= readerFor(text);
    const why = reader.push(text);
    if (why) throw new Unusable(`${file}: ${why}`);
    done += text.length;
    if (done - told >= STEP_BYTES) {
      told = done;
      note(`${Math.round((100 * done) / size)} % read`);
    }
  }
  const end = (reader ?? readerFor("")).end();
  if (!end.ok) throw new Unusable(`${file}: ${end.why}`);
  return end.capture;
}

/** Holds a logic analyser's capture (VCD or CSV) against the plan. */
export async function captureCommand(
  file: string,
  capture: string,
  o: { map?: string[]; json?: boolean },
): Promise<number> {
  const c = circuitOf(loadFile(file), catalogue);
  const taken = await read(capture);
  const match = matchChannels(c, taken, mapOf(o.map ?? []));
  for (const p of match.problems) note(`${capture}: ${p}`);
  const list = compareCapture(c, match);
  if (o.json)
    printJson({
      span_s: taken.span,
      says: taken.says,
      channels: match.matched.map((m) => ({ channel: m.channel.name, net: m.net.name, changes: m.channel.at.length })),
      unmatched: match.unmatched,
      compared: list,
    });
  else {
    for (const s of taken.says) print(s);
    for (const m of match.matched) print(`${m.channel.name} is ${m.net.name}: ${m.channel.at.length} changes`);
    if (match.unmatched.length)
      print(`No net is called ${match.unmatched.join(", ")}: say which with --map ${match.unmatched[0]}=M1.SDA`);
    for (const x of list)
      print(`${x.ok === null ? "     " : x.ok ? "as planned " : "NOT as planned "}${x.about}: ${x.says}`);
    if (!list.length) print("No bus or line of the plan has all its channels here: nothing to compare.");
  }
  return list.some((x) => x.ok === false) ? EXIT.findings : EXIT.fine;
}
