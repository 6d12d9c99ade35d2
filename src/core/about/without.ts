import type { Need, Pin } from "../parts/catalogue";
import type { CompanionKey } from "../project";

/** What would happen to a part if one of its pins had no wire, by what the pin is for. */
export const WITHOUT_ROLE: Record<Pin["role"], string> = {
  ground: "its current finds no way back: it stays dead, or is fed through its signal pins, which can damage it",
  "supply-in": "it is off, and any signal that reaches it would feed it through an input, which can damage it",
  "supply-out": "whatever hangs on it gets no power",
  "supply-io": "it is off, or what hangs on it is",
  signal: "nothing is told or heard over it",
  passive: "no current flows through it: it might as well not be there",
  cable: "what is plugged in here stays apart",
  reference: "what is measured against it has no fixed scale",
  nc: "nothing changes: it is not used",
};

/** What would happen without a signal's wire, by what the part needs there; `*` where the role does not matter. */
export const WITHOUT_NEED: Record<Need["kind"], Record<string, string>> = {
  i2c: {
    sda: "no data passes: the board does not find the part on the bus",
    scl: "no clock comes: the part takes no bit, and the board does not find it",
  },
  spi: {
    sck: "no clock comes: the part never takes a bit",
    mosi: "the part hears nothing and does nothing",
    miso: "the board sends but reads all zeros or all ones",
    cs: "the part does not know when it is meant: it stays silent or listens to what is for others",
  },
  uart: {
    tx: "what the board says does not arrive",
    rx: "the board hears nothing of it",
    cts: "one side talks on while the other can't listen",
    rts: "one side talks on while the other can't listen",
    "*": "nothing is said or heard",
  },
  i2s: {
    sck: "no clock comes: not a bit is told",
    ws: "it does not know when its turn is: it tells nothing, or noise",
    "*": "silence, or noise",
  },
  bridge: {
    "e+": "the bridge has no feed: whatever its load, nothing is told",
    "e-": "the bridge has no feed: whatever its load, nothing is told",
    "*": "the amplifier's input floats: it tells noise, or always its end",
  },
  can: { "*": "the board hears and says nothing on this bus" },
  adc: { "*": "the board's input floats and reads noise" },
  "digital-in": { "*": "the board's input floats: it reads one or zero by chance" },
  interrupt: { "*": "the board misses every edge" },
  "digital-out": { "*": "nobody tells the part what to do" },
  "digital-io": { "*": "nothing passes either way" },
  pwm: { "*": "nobody tells the part how much: it stays off or does as it likes" },
  dac: { "*": "no voltage comes to steer it" },
  program: { "*": "it can't be programmed" },
};

/** What would happen without a loose part that was put in beside another, by what it is there for. */
export const WITHOUT_COMPANION: Record<CompanionKey, string> = {
  seriesResistor: "nothing holds the current back: the pin or the part takes more than it stands",
  pullUp: "the line has nothing that brings it up: it floats, and what is read is chance",
  pullDown: "the line has nothing that brings it down: it floats, and what is read is chance",
  decoupling: "short gulps of current make the supply dip, and the part stumbles now and then",
  bulkCapacitor: "the supply sags at every start, and the board may begin anew",
  driver: "the pin has to carry the load's current itself, and is damaged",
  flyback: "the coil's kick at switching off goes into the switch, and kills it sooner or later",
  divider: "the full voltage reaches an input that does not stand it",
  shifter: "the levels do not fit: a high is missed, or an input gets more than it stands",
  filter: "every bounce of the contact counts as a press",
  termination: "edges echo along the line, and bits are misread",
};

export function withoutNeed(need: Pick<Need, "kind" | "role">): string {
  const by = WITHOUT_NEED[need.kind];
  return (need.role && by[need.role]) || by["*"] || WITHOUT_ROLE.signal;
}
