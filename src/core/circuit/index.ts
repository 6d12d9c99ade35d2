import type { Catalogue } from "../parts/catalogue";
import { buildNets, expand, type Netlist } from "./netlist";
import { nameNets } from "./netlist/build";
import { drawsOf, ledPaths, levelPairs, solveCircuit, type LedPath, type LevelVerdict, type Solved } from "./solve";
import { powerReport, resolveVoltages, type PowerReport } from "./power";
import type { Project } from "../project";

/** The whole electrical picture of a project: what every later stage reads. */
export interface Circuit {
  project: Project;
  catalogue: Catalogue;
  netlist: Netlist;
  /** Volts and amperes in every state: what the electrical rules read. */
  solved: Solved;
  power: PowerReport;
  levels: LevelVerdict[];
  leds: LedPath[];
}

/** Computes on first use and remembers: planning asks for nets and voltages many times, for levels hardly ever. */
function lazily<T>(work: () => T): () => T {
  let done: { value: T } | undefined;
  return () => (done ??= { value: work() }).value;
}

const memo = new WeakMap<Project, Circuit>();

/** project -> expand -> nets -> voltages -> levels, currents, power. Pure; memoised by the project's identity. */
export function circuitOf(project: Project, catalogue: Catalogue): Circuit {
  const known = memo.get(project);
  if (known && known.catalogue === catalogue) return known;
  const netlist = buildNets(expand(project, catalogue));
  const feeds = resolveVoltages(netlist);
  nameNets(netlist.nets, netlist.expanded, netlist.bindings);
  const solved = lazily(() => solveCircuit(netlist, feeds));
  const leds = lazily(() => ledPaths(netlist, solved()));
  const power = lazily(() => powerReport(netlist, feeds, drawsOf(netlist, solved())));
  const levels = lazily(() => levelPairs(netlist, solved()));
  const circuit: Circuit = {
    project,
    catalogue,
    netlist,
    get solved() {
      return solved();
    },
    get power() {
      return power();
    },
    get levels() {
      return levels();
    },
    get leds() {
      return leds();
    },
  };
  memo.set(project, circuit);
  return circuit;
}
