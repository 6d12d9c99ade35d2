import type { Catalogue } from "../parts/catalogue";
import type { Project } from "../project";
import { cutWire, joinPoints, type Act } from "./acts";
import type { WireAsk } from "./ask-schema";
import { putBetween, takeOut } from "./between";
import { builtAt, builtOtherRow, builtSwapped, builtTurned } from "./built";

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
