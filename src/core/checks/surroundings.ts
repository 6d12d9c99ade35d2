import type { Circuit } from "../circuit";
import type { Instance } from "../netlist";
import { sourcesOn } from "../power";
import { airOf, houseRule, PLACES } from "../project";
import { solderWork } from "../wiring/runsheet/words";
import { label } from "./help";
import type { Finding, Rule } from "./types";

/** What protected lithium cells are made for: data sheets of such cells, "Charge temperature", "Discharge temperature". */
const CHARGE_C = { min: 0, max: 45 };
const USE_C = { min: -20, max: 60 };

const C = (degrees: number) => `${String(degrees).replace("-", "−")} °C`;

const sourcesOfAll = (c: Circuit) =>
  c.netlist.nets.flatMap((net) => (net.kind === "supply" ? sourcesOn(c.netlist, net).map((s) => ({ ...s, net })) : []));

const cell: Rule = {
  rule: "power.cell-temperature",
  says: "A lithium cell is charged between 0 and 45 °C and used up to 60 °C: outside it is spoilt for good, or swells.",
  check: (c) => {
    const air = airOf(c.project);
    const hot = air.max_C > USE_C.max;
    if (!hot && air.min_C >= CHARGE_C.min && air.max_C <= CHARGE_C.max) return [];
    return sourcesOfAll(c)
      .filter((s) => s.source.chemistry === "lithium")
      .map((s): Finding => {
        const charger = s.net.nodes.find((n) => c.netlist.instance(n.ref)?.part.tags.includes("charger"));
        const { short } = PLACES[c.project.brief.place];
        return {
          rule: "power.cell-temperature",
          severity: hot || charger ? "risk" : "note",
          at: [s.ref, ...(charger ? [charger.ref] : [])],
          message: `Where this lives (${short}) the air is between ${C(air.min_C)} and ${C(air.max_C)}. ${label(c, s.ref)} ${hot ? `must stay below ${C(USE_C.max)}: shade it, or take AA cells. It is charged` : "is charged"} between ${CHARGE_C.min} and ${C(CHARGE_C.max)} only${charger ? `: not by ${label(c, charger.ref)} where it lives, but indoors and watched` : ", so indoors and watched"}.`,
          evidence: { coldest_C: air.min_C, warmest_C: air.max_C, used_to_C: USE_C.max, charged_from_C: CHARGE_C.min },
          fixes: [],
        };
      });
  },
};

/** Whether somebody must solder at a part before it can be wired. */
const wantsIron = (i: Instance) =>
  !i.inserted && ((i.part.board && !i.part.board.headersSoldered) || solderWork(i) !== null);

const solder: Rule = {
  rule: "part.solder",
  says: "Without a soldering iron, only what comes with its headers or wires on can be used.",
  check: (c) => {
    if (c.project.brief.iron) return [];
    const parts = [...c.netlist.expanded.instances.values()].filter(wantsIron);
    const out: Finding[] = [];
    if (parts.length)
      out.push({
        rule: "part.solder",
        severity: "risk",
        at: parts.map((i) => i.ref),
        message: `No soldering iron is at hand, and ${parts.map((i) => label(c, i.ref)).join(", ")} usually ${parts.length > 1 ? "come" : "comes"} with headers or wires loose: ask for ${parts.length > 1 ? "them" : "it"} soldered, or have it done. Headers that are only pushed through make no contact.`,
        evidence: { parts: parts.length },
        fixes: [],
      });
    const host = c.netlist.expanded.hosts[0];
    if (houseRule(c.project, "firstBuild") === "solder" && host)
      out.push({
        rule: "part.solder",
        severity: "risk",
        at: [host],
        message: "The first build shall be soldered, but no soldering iron is at hand.",
        evidence: { firstBuild: "solder" },
        fixes: [
          {
            id: "breadboard",
            label: "Build it on a breadboard first",
            edits: [{ type: "setHouseRules", rules: { firstBuild: "breadboard" } }],
          },
        ],
      });
    return out;
  },
};

export const surroundingRules: Rule[] = [cell, solder];
