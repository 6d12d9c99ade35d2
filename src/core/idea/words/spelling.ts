import { distance } from "fastest-levenshtein";
import { CLASSES } from "./classes";
import { NOT_MISSPELT } from "./not-misspelt";

/** Words that the patterns are made of and that people misspell, beside those of the classes. */
const KEYWORDS =
  "accelerometer adjust airing alarm altitude analogue animation apartment aquarium automatic automatically balance barometer barrier battery beeper bluetooth brightness button buzzer calendar candle ceiling centimetre classroom climate colour compass controlled controller counter countdown curtain daylight degrees detect detector digital dimmer discover display distance doorbell electricity equipment feeder fountain freezer greenhouse heartbeat heater heating height humidity indicator infrared instrument internet irrigation joystick keyboard keypad letterbox machine mailbox measure melody message microphone moisture monitor morning motion movement music needle obstacle overflow password picture position potentiometer presence pressure propeller quality radiator rainbow record recorder reminder remember remote rotation sanitizer scoreboard security sensor sensitive servo siren smoke sound speaker speedometer stepper stopwatch sunrise sunset switch temperature terrarium thermometer thermostat thirsty timer traffic ultrasonic ventilation vibration visitor voltage warning watering weather website weight wheel window wireless";

/** What a misspelt word may have been meant as. */
export const SPELT: readonly string[] = [
  ...new Set([
    ...KEYWORDS.split(" "),
    ...Object.values(CLASSES).flatMap((c) =>
      c
        .split(",")
        .map((w) => w.trim().replace(/!$/, ""))
        .filter((w) => /^[a-z]{5,}$/.test(w)),
    ),
  ]),
];
/** The shortest word that is taken for misspelt, and from where on two letters may be wrong. */
const SHORTEST = 5;
const LONG = 8;

const right = new Set(SPELT);
const endings = ["", "s", "es", "ed", "d", "ing", "er", "ers", "'s"];
const known = (w: string): boolean =>
  NOT_MISSPELT.has(w) || endings.some((e) => w.endsWith(e) && right.has(w.slice(0, w.length - e.length)));
/** Two neighbours that changed places are one slip. */
const swapped = (a: string, b: string): boolean => {
  if (a.length !== b.length) return false;
  const i = [...a].findIndex((c, k) => c !== b[k]);
  return a[i] === b[i + 1] && a[i + 1] === b[i] && a.slice(i + 2) === b.slice(i + 2);
};

/** The one word of the table that another is a slip or two from. */
function closest(word: string): string | null {
  let best: string[] = [];
  let least = word.length >= LONG ? 2 : 1;
  for (const w of SPELT) {
    if (w[0] !== word[0] || Math.abs(w.length - word.length) > least) continue;
    const d = swapped(w, word) ? 1 : distance(w, word);
    if (d > least) continue;
    if (d < least) best = [];
    least = d;
    best.push(w);
  }
  return best.length === 1 ? best[0]! : null;
}

/** The one word that a word of no sense is close to; null where there is none, or several. */
export function meantWord(word: string): string | null {
  if (word.length < SHORTEST || known(word)) return null;
  const one = closest(word);
  if (one !== null || !word.endsWith("s")) return one;
  const several = closest(word.slice(0, -1));
  return several === null ? null : `${several}s`;
}
