/** What has to be true of a reading so that something comes of it, by the reading's word or name. */
export type Trip = { above: number; hysteresis?: number } | { below: number; hysteresis?: number } | { is: number };
export interface TripCase {
  /** Said by these words, a part of a regular expression; the last case of a thing says none: it holds where nothing is said. */
  said?: string;
  trips: Readonly<Record<string, Trip>>;
}

const above = (value: number, hysteresis = 0): Trip => ({ above: value, ...(hysteresis && { hysteresis }) });
const below = (value: number, hysteresis = 0): Trip => ({ below: value, ...(hysteresis && { hysteresis }) });
const yes: Trip = { is: 1 };
const no: Trip = { is: 0 };

const COLD =
  "cold|colder|cool enough|freez\\w*|frozen|drops?|below|under|less than|heat(?:er|ing|s|ed)?\\b|heat (?:mat|lamp|pad)|warm(?:s|ing)? (?:up|it)|keep\\w* (?:\\w+ ){0,3}?warm|incubat\\w*|brood\\w*|thermostat|radiator|ferment\\w*";
const DARK_OVER =
  "bright\\w*|sunny|sun ?shine|sun ?rise|dawn|morning|daylight|sun (?:shines|is)|too light|light enough|open(?:s|ed)? the (?:box|lid|drawer|card)|(?:hen|chicken|duck)\\w*|coop";
const EMPTY =
  "empty|low\\b|lower|refill\\w*|fill(?:s|ing)?\\b(?! (?:up )?with)|dry\\b|top(?:s|ping)? up|runs? out|too little|not enough";
const QUIET = "quiet|silent|silence";
const SHUT = "occupied|engaged|closes?\\b|closed|shut|locked";

/**
 * When each thing happens, as somebody means it who names no number: safe and common values, to be changed at the bench. Values
 * are in the units that people read (°C, %, lx, cm, mm, ppm, hPa, µg/m³, g as 1 = the earth's pull).
 */
export const TRIPS: Readonly<Record<string, readonly TripCase[]>> = {
  soil: [
    { said: "too wet|too much water|over ?water\\w*|drown\\w*", trips: { dry: below(20, 5), wet: above(80, 5) } },
    // The capacitive one says how dry it is, the prongs how wet.
    { trips: { dry: above(60, 5), wet: below(30, 5) } },
  ],
  temperature: [
    { said: "frost\\w*|freez(?:es|ing)\\b|below zero|ice\\b|icy", trips: { t: below(3, 1) } },
    { said: "incubat\\w*|hatch(?:ing)? eggs?", trips: { t: below(37.5, 0.2) } },
    { said: "freezer", trips: { t: above(-12, 1) } },
    { said: "fridge|refrigerator", trips: { t: above(8, 1) } },
    { said: COLD, trips: { t: below(18, 0.5) } },
    { trips: { t: above(26, 1) } },
  ],
  "liquid-temperature": [
    { said: "sous ?vide", trips: { t: below(60, 0.5) } },
    { said: "cool enough|drink\\w*", trips: { t: below(60, 2) } },
    { said: COLD, trips: { t: below(22, 0.5) } },
    { said: "aquarium|fish|axolotl|pond", trips: { t: above(27, 0.5) } },
    { trips: { t: above(40, 1) } },
  ],
  "very-hot": [{ said: COLD, trips: { t: below(150, 10) } }, { trips: { t: above(200, 10) } }],
  contactless: [{ trips: { seen: above(38, 0.3) } }],
  humidity: [
    {
      said: "dry|dries|too low|humidifier(?<!dehumidifier)|mist\\w*|spray\\w*|fog\\w*|below|under|drops?",
      trips: { rh: below(40, 3) },
    },
    { trips: { rh: above(65, 3) } },
  ],
  weather: [{ said: "storm\\w*|bad weather|rain", trips: { p: below(995, 2) } }, { trips: {} }],
  "light-level": [
    // Inside of something that is opened: any light of a room.
    {
      said: "cards?\\b|(?:music(?:al)?|jewell?ery|gift|treasure) box|drawer|lid",
      trips: { lux: above(30, 10), light: above(20, 5) },
    },
    { said: DARK_OVER, trips: { lux: above(1000, 200), light: above(60, 5) } },
    { trips: { lux: below(20, 10), light: below(30, 5) } },
  ],
  distance: [{ trips: { cm: below(30, 3), far: below(300, 30) } }],
  "water-level": [
    { said: EMPTY, trips: { cm: above(80, 3), wet: below(20, 5), pressed: no } },
    { trips: { cm: below(30, 3), wet: above(70, 5), pressed: yes } },
  ],
  rain: [
    { said: "not rain\\w*|no rain|stops? raining|hasn't rained|dry", trips: { wet: no } },
    { trips: { wet: yes } },
  ],
  motion: [{ said: "nobody|no one|empty|leaves?\\b|is left", trips: { moving: no } }, { trips: { moving: yes } }],
  // The magnet is at the contact, the lever is down, while it is shut.
  door: [{ said: SHUT, trips: { pressed: yes } }, { trips: { pressed: no } }],
  button: [{ trips: { pressed: yes, touched: yes } }],
  touch: [{ trips: { touched: yes } }],
  knob: [{ trips: { turned: above(50, 2), pressed: yes } }],
  weight: [{ said: EMPTY, trips: { pressed: below(10, 2) } }, { trips: { pressed: above(20, 3) } }],
  press: [
    { said: "empty|gets? up|out of bed|leaves?|free\\b", trips: { pressed: below(10, 2) } },
    { trips: { pressed: above(20, 3) } },
  ],
  loudness: [{ said: QUIET, trips: { sound: below(15, 3), loud: no } }, { trips: { sound: above(60, 10), loud: yes } }],
  gas: [{ trips: { gas: above(40, 5) } }],
  "air-quality": [{ trips: { co2: above(1000, 100) } }],
  dust: [{ trips: { "PM2.5": above(25, 5) } }],
  shake: [
    { said: "stopp?\\w*|done|finished|ready|over\\b", trips: { shaking: no } },
    { trips: { shaking: yes, z: above(1.5, 0.2) } },
  ],
  tilt: [{ trips: { tilted: yes, x: above(0.4, 0.1) } }],
  obstacle: [{ trips: { near: yes, cm: below(20, 2) } }],
  line: [{ trips: { ground: yes } }],
  flame: [{ said: "out\\b|goes out|is off", trips: { light: no } }, { trips: { light: yes } }],
  tag: [{ trips: { card: yes } }],
  // One key of sixteen: a code of several is for own code.
  code: [{ trips: { key: { is: 7 } } }],
  stick: [{ trips: { y: above(50, 10) } }],
  remote: [{ trips: { key: above(-1) } }],
  bend: [{ trips: { straight: below(50, 5) } }],
  colour: [{ trips: { near: above(100, 10) } }],
  "count-turns": [{ trips: { covered: yes, magnet: yes, pressed: yes } }],
  "count-people": [{ trips: { near: yes, moving: yes } }],
  "count-presses": [{ trips: { pressed: yes } }],
};
