import type { StationId } from "./list";

/** What keys do at each station, beyond those that work everywhere. */
export const STATION_KEYS: Record<StationId, readonly (readonly [keys: string, says: string])[]> = {
  brief: [
    ["arrows", "in a question: the next choice"],
    ["Enter", "in a field: save it; leaving it saves too"],
  ],
  parts: [
    ["Arrow down, up", "in the search: mark the next or the last part found"],
    ["Enter", "in the search: add the marked part, or the first"],
    ["Space", "on a part's line: open or close its details"],
  ],
  board: [
    ["Enter", "on a head: sort by it; again turns the order"],
    ["Space", "on a board's line: open or close its details"],
  ],
  pins: [
    ["arrows", "from crossing to crossing; reasons are read out"],
    ["Enter", "move the wire to this pin"],
    ["L", "lock or unlock the wire of this row"],
    ["Home, End", "first and last pin of the row"],
    ["Page Up, Page Down", "ten rows up or down"],
  ],
  power: [
    ["arrows", "on a slider: a little more or less; Page Up and Page Down: a lot"],
    ["Enter", "on a pair of levels: show it on the ladder"],
  ],
  wiring: [
    ["Space", "on a box: tick the step off"],
    ["Enter", "on a step: show it in the drawing, with why and what to check"],
    ["arrows", "on a part of the loom: move it; on a pin: to the next pin"],
    ["Enter", "on a pin of the loom, then on another: join them"],
  ],
  firmware: [["Tab", "through the pins of the program; each lights its place in the lattice"]],
  bench: [
    ["Space", "on a box: tick the check off"],
    ["Enter", "in a reading: judge it"],
  ],
  handout: [["Enter", "on a file: save it"]],
};
