import { NUMBER_WORDS, numberOf } from "../../quantity";
/** What people call parts that no chip number names, the more particular first. One id is meant; several are asked about. */
const CALLED: readonly [RegExp, readonly string[]][] = [
  // Cells: the count of cells is part of the name, not a count of holders.
  [
    /\b(4|four)\s*(?:x|×)?\s*AA\b(?!A)|\bAA\b(?!A).*\((4|four)\)|\b6\s*V\s+(?:AA\b|battery (?:holder|box|case))/i,
    ["supply/aa-4"],
  ],
  [/\b(3|three)\s*(?:x|×)?\s*AA\b(?!A)|\bAA\b(?!A).*\((3|three)\)/i, ["supply/aa-3"]],
  [
    /\bAA\b(?!A).*\b(holder|box|case|batter|cells?)|\b(holder|box|case)\b.*\bAA\b(?!A)/i,
    ["supply/aa-4", "supply/aa-3"],
  ],
  [
    /\b9\s*-?\s*V(?:olts?)?\b.*\b(batter\w*|block|clip|snap)|\b(batter\w*|block)\b.*\b9\s*V(?:olts?)?\b|\bPP3\b|\b6LR61\b/i,
    ["supply/battery-9v"],
  ],
  [/\b18650\b/i, ["supply/li-ion-1s"]],
  [/\bli-?po(ly)?\b/i, ["supply/lipo-1s"]],
  [/\b12\s*-?\s*V(?:olts?)?\b.*\b(adapter|adaptor|power supply|wall wart|psu|supply)\b/i, ["supply/adapter-12v-2a"]],
  [/\b9\s*-?\s*V(?:olts?)?\b.*\b(adapter|adaptor|power supply|wall wart|psu|supply)\b/i, ["supply/adapter-9v-1a"]],
  [/\b5\s*-?\s*V(?:olts?)?\b.*\b10\s*A\b.*\b(adapter|adaptor|power supply|psu|supply)\b/i, ["supply/adapter-5v-10a"]],
  [/\b5\s*-?\s*V(?:olts?)?\b.*\b(adapter|adaptor|wall wart)\b/i, ["supply/adapter-5v-2a"]],
  [/\b(usb|phone)\s+(wall\s+)?charger\b/i, ["supply/usb-charger"]],
  // Contacts
  [/\breed\b/i, ["discrete/reed"]],
  [/\b(limit|micro|end)\s*-?\s*switch(es)?\b/i, ["discrete/limit-switch"]],
  [/\bfoot\s*-?\s*switch(es)?\b/i, ["discrete/footswitch"]],
  [/\bbutton modules?\b/i, ["module/button-module"]],
  [
    /\b(momentary|tact(ile)?)\b|\bpush\s*-?\s*(buttons?|switch(es)?)\b|^\W*(\d+\s*mm\s+)?(arcade\s+|small\s+|round\s+|big\s+)?(push)?buttons?\W*$/i,
    ["discrete/button"],
  ],
  [/\bslide\s*-?\s*switch(es)?\b/i, ["discrete/slide-switch"]],
  [/\bfloat\s*-?\s*switch(es)?\b/i, ["discrete/float-switch"]],
  [/\b(latching|toggles?|rockers?|slide|spst|spdt)\b(?!.*\brelay)|\bon\s*[/-]?\s*off\s+switch/i, ["discrete/toggle"]],
  // Knobs and what varies
  [/\b(potentiometers?|pots?|trim\s*-?\s*pots?|trimmers?|poti)\b/i, ["discrete/potentiometer"]],
  [/^\W*knobs?\W*$/i, ["discrete/potentiometer", "module/encoder"]],
  [/\b(photo\s*-?\s*resistors?|light[ -]dependent resistors?|photocells?)\b|^\W*ldrs?\W*$/i, ["discrete/ldr"]],
  [/\b(thermistors?|ntc)\b/i, ["discrete/thermistor-10k"]],
  // Lights
  [/\b(ir|infra\s*-?\s*red)\s+leds?\b|\bleds?\s+(ir|infra\s*-?\s*red)\b/i, ["discrete/led-ir"]],
  [/\b(ws28\w+|addressable|smart)\b.*\bstrips?\b|\bstrips?\b.*\b(ws28\w+|addressable)\b/i, ["module/ws2812b-strip"]],
  // Things that move and sound
  [/\b(micro|mini|small|9\s*g)\b.*\bservos?\b|\bservos?\b.*\b(micro|mini|small)\b/i, ["module/servo-small"]],
  [/\bspeakers?\b/i, ["discrete/speaker"]],
  [
    /\b(2|two|dual)\s*-?\s*(channel|ch|way)\b.*\brelays?\b|\brelays?\b.*\b(2|two)\s*-?\s*(channel|ch)\b/i,
    ["module/relay-2"],
  ],
  [
    /\b(1|one|single)\s*-?\s*(channel|ch|way)\b.*\brelays?\b|\brelays?\b.*\b(1|one)\s*-?\s*(channel|ch)\b/i,
    ["module/relay-1"],
  ],
  [
    /\b(4|four)\s*-?\s*(channel|ch|way)\b.*\brelays?\b|\brelays?\b.*\b(4|four)\s*-?\s*(channel|ch)\b/i,
    ["module/relay-4"],
  ],
  [
    /\b(8|eight)\s*-?\s*(channel|ch|way)\b.*\brelays?\b|\brelays?\b.*\b(8|eight)\s*-?\s*(channel|ch)\b/i,
    ["module/relay-8"],
  ],
  [/\b(waterproof|jsn)\b.*\b(ultrasonic|sr04t?)\b/i, ["module/ultrasonic-waterproof"]],
  [/\b(coin|button)\s*-?\s*cells?\b|\bcr2032\b/i, ["supply/coin-cell"]],
  [/\bpower\s*-?\s*banks?\b/i, ["supply/power-bank"]],
  // Displays
  [
    /\b(20\s*[x×]\s*4|2004)\b.*\b(i2c|lcd|display)\b|\b(i2c|lcd|display)\b.*\b(20\s*[x×]\s*4|2004)\b/i,
    ["module/lcd2004-i2c"],
  ],
  [/\b(16\s*[x×]\s*2|1602)\b.*\bi2c\b|\bi2c\b.*\b(16\s*[x×]\s*2|1602)\b/i, ["module/lcd1602-i2c"]],
];

/** The parts that a line names in everyday words; empty when it names none of these. */
export const calledIds = (text: string): readonly string[] => CALLED.find(([re]) => re.test(text))?.[1] ?? [];

const UNITS: readonly [RegExp, string][] = [
  [/\b(\d+(?:[.,]\d+)?)\s*(?:kil(?=ohm)|kilo|k)\s*-?\s*(?:ohms?|Ω|Ω)/gi, "$1k ohm"],
  [/\b(\d+(?:[.,]\d+)?)\s*(?:meg(?=ohm)|mega?|M)\s*-?\s*(?:ohms?|Ω|Ω)/gi, "$1M ohm"],
  [/\b(\d+(?:[.,]\d+)?)\s*micro\s*-?\s*farads?\b/gi, "$1uF"],
  [/\b(\d+(?:[.,]\d+)?)\s*nano\s*-?\s*farads?\b/gi, "$1nF"],
  [/\b(\d+(?:[.,]\d+)?)\s*pico\s*-?\s*farads?\b/gi, "$1pF"],
  [/\b(\d+(?:[.,]\d+)?)\s*-?\s*volts?\b/gi, "$1V"],
];

/** Units written out, as their signs: `10 kilohm` becomes `10k ohm`, `9 volt` becomes `9V`. */
export const inSigns = (text: string): string => UNITS.reduce((t, [re, by]) => t.replace(re, by), text);

/** A count written out in front: `two 10k resistors`, `a buzzer`. */
export function countInWords(text: string): { quantity: number; rest: string } | null {
  const m = new RegExp(`^\\s*(${NUMBER_WORDS}|an?)\\s+(.+)$`, "i").exec(text);
  if (!m) return null;
  const word = m[1]!.toLowerCase();
  return { quantity: /^an?$/.test(word) ? 1 : numberOf(word), rest: m[2]!.trim() };
}
