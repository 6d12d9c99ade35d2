import { count } from "../../quantity/count";
import type { Circuit } from "../../circuit";
import { houseRule } from "../../project";
import { isFinePitch } from "../solder/heights";
import { panelOf } from "../panel";
import { drillList, drillTools } from "../panel/drill";
import { laidNets } from "../runsheet/laid";
import { runSheet } from "../runsheet";

export interface Tool {
  name: string;
  why: string;
  kind: "tool" | "consumable";
}

/** What this plan needs besides its parts, each with the reason; nothing that it does not need. */
export function toolsFor(c: Circuit): Tool[] {
  const rows = runSheet(c);
  const { layout } = laidNets(c);
  const parts = [...c.netlist.expanded.instances.values()];
  const solder = rows.filter((r) => r.kind === "solder");
  const wires = rows.filter((r) => r.kind === "wire");
  const bare = wires.filter((r) => [r.endA, r.endB].includes("bare"));
  const cut = wires.filter((r) => (r.holeA && r.holeB) || [r.endA, r.endB].some((e) => e === "bare" || e === "screw"));
  const screws = parts.filter((i) => i.part.body.header?.kind === "screw");
  const legs = parts.filter((i) => i.part.body.header?.kind === "leads" && i.part.pins.length === 2);
  const splices = new Set(wires.flatMap((r) => [r.from, r.to].filter((e) => / (splice|bus strip)$/.test(e))));
  const fine = parts.filter(isFinePitch);
  const headers = parts.reduce(
    (s, i) => s + (i.part.body.solder === "headers" ? (i.part.body.header?.pins ?? 0) : 0),
    0,
  );
  const boards = layout ? layout.sizes.map((s) => `${s} points`) : ["as large as the parts need"];
  const soldered = layout === null && houseRule(c.project, "firstBuild") === "solder";
  const onBoard = !soldered && (layout !== null || (houseRule(c.project, "sharing") === "rails" && wires.length > 0));
  const list: [boolean, Tool["kind"], string, string][] = [
    [wires.length > 0, "tool", "Multimeter with beep", "every check before power is made with it"],
    [onBoard, "tool", `Breadboard: ${boards.join(" and ")}`, "everything stands on it or meets on its rails"],
    [
      soldered && wires.length > 0,
      "consumable",
      "Perfboard, bare wire for its buses",
      "this build is soldered at once: Solder build has its size",
    ],
    [
      solder.length > 0 || (soldered && wires.length > 0),
      "tool",
      "Soldering iron with a stand, goggles",
      `${soldered ? "everything is soldered" : `${solder.length} parts are soldered before wiring`}${c.project.brief.iron ? "" : ": none is at hand, so borrow one or have it done"}`,
    ],
    [solder.length > 0, "consumable", "Solder with flux, a damp sponge", "for the joints; air the room, wash hands"],
    [
      fine.length > 0,
      "tool",
      "Fine tip, tweezers, magnifier, flux",
      `${fine.map((i) => i.ref).join(", ")}: pads ${Math.min(...fine.map((i) => i.part.body.header!.pitch_mm))} mm apart are soldered onto an adapter board first`,
    ],
    [headers > 0, "consumable", `Pin headers, 2.54 mm, ${count(headers, "pin")}`, "boards and modules come without"],
    [
      cut.length > 0,
      "tool",
      "Wire cutter and stripper",
      cut.length === 1 ? "1 wire is cut to length" : `${cut.length} wires are cut to length`,
    ],
    [screws.length > 0, "tool", "Small screwdriver", "screw terminals"],
    [legs.length > 0, "tool", "Small pliers", "legs are bent to their holes, not at the body"],
    [
      splices.size > 0,
      "consumable",
      `Splice connectors or bus strip: ${[...splices].join(", ")}`,
      "where several wires of a net meet",
    ],
    [bare.length > 0, "consumable", "Heat-shrink tube or tape", "bare joints must not touch"],
    [
      parts.some((i) => i.part.body.solder === "wires"),
      "consumable",
      "Cable ties or hot glue",
      "soldered wires break where they bend",
    ],
    [
      !!c.project.box?.usbLead,
      "consumable",
      "Short USB lead with a round socket for a wall, 22 mm",
      "so that the box stays shut when it is programmed",
    ],
    [rows.some((r) => r.kind === "cable"), "tool", "USB data cable", "some cables only charge: try it first"],
    [
      parts.some((i) => i.part.id.startsWith("supply/li") || i.part.id.startsWith("supply/lipo")),
      "tool",
      "Charger for the lithium cell",
      "with protection; charging is watched",
    ],
  ];
  const panel = panelOf(c);
  const drills = panel ? drillTools(drillList(panel)) : [];
  return [
    ...list.flatMap(([needed, kind, name, why]) => (needed ? [{ kind, name, why }] : [])),
    ...drills.map((t) => ({ kind: "tool" as const, ...t })),
  ];
}
