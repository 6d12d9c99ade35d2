import type { Catalogue } from "../parts/catalogue";
import type { Project } from "../project";
import { cutWire, joinPoints, type Act } from "./acts";
import { putBetween, takeOut } from "./between";
import { builtAt, builtOtherRow, builtSwapped, builtTurned } from "./built";

/** Something to be done to wires, as plain data: what a form, a drag or a key press asks for. */
export type WireAsk =
  | { do: "join"; from: string; to: string }
  | { do: "cut"; from: string; to: string }
  | { do: "swap"; from: string; to: string }
  | { do: "between"; from: string; to: string; part: string }
  | { do: "take out"; ref: string; close: boolean }
  | { do: "really"; from: string; to: string; really: string }
  | { do: "turn"; ref: string }
  | { do: "other row"; ref: string };

type Doers = { [K in WireAsk["do"]]: (p: Project, c: Catalogue, a: Extract<WireAsk, { do: K }>) => Act };

const DOERS: Doers = {
  join: (p, c, a) => joinPoints(p, c, a.from, a.to),
  cut: (p, c, a) => cutWire(p, c, a.from, a.to),
  swap: (p, c, a) => builtSwapped(p, c, a.from, a.to),
  between: (p, c, a) => putBetween(p, c, a.from, a.to, a.part),
  "take out": (p, c, a) => takeOut(p, c, a.ref, a.close),
  really: (p, c, a) => builtAt(p, c, a.from, a.to, a.really),
  turn: (p, c, a) => builtTurned(p, c, a.ref),
  "other row": (p, c, a) => builtOtherRow(p, c, a.ref),
};

/** The edits that an ask comes to, or why it can't be done. */
export const actOf = (project: Project, catalogue: Catalogue, ask: WireAsk): Act =>
  (DOERS[ask.do] as (p: Project, c: Catalogue, a: WireAsk) => Act)(project, catalogue, ask);
