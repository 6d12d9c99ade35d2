/** Small builders that the tests share. Not used by the product. */
import { assign } from "./plan/assign";
import type { Part } from "./parts/catalogue";
import { shippedCatalogue } from "./parts/catalogue/shipped";
import { findings, type Finding } from "./checks";
import { circuitOf } from "./circuit";
import { applyEdit, loadProject, type Project } from "./project";

export const catalogue = shippedCatalogue();

export const BOARD5 = { ref: "B1", part: "board/atmega328p-long" };
export const BOARD3 = { ref: "B1", part: "board/rp2040-forty" };
export const USB = { ref: "S1", part: "supply/usb-port" };
export const CABLE: [string, string] = ["S1.USB", "B1.USB"];

/** A bench with one of everything that the wiring tests look at. */
export const BENCH = [
  USB,
  { ref: "S2", part: "supply/adapter-5v-2a" },
  { ref: "M1", part: "module/bme280", label: "Air", wire_cm: 40 },
  { ref: "M2", part: "module/ssd1306-i2c", label: "Display" },
  { ref: "M3", part: "module/ws2812b-strip", label: "Light", options: { pixels: 10 } },
  { ref: "M4", part: "module/hc-sr04", label: "Echo" },
  { ref: "SW1", part: "discrete/button", label: "Button" },
  { ref: "D1", part: "discrete/led-red", label: "Lamp" },
];

/** A pump on a supply of its own behind a planned transistor at D7. */
export const fountain = (): Project =>
  make(
    [
      BOARD5,
      USB,
      { ref: "S2", part: "supply/adapter-5v-2a" },
      {
        ref: "MT1",
        part: "discrete/pump-5v",
        label: "Fountain",
        companions: {
          driver: { part: "discrete/nmos-irlz44n", ohm: [330, 10_000] },
          flyback: { part: "discrete/diode-1n4007" },
        },
      },
    ],
    [CABLE, ["MT1.1", "B1.D7"], ["MT1.2", "S2.5V"], ["S2.GND", "B1.GND"]],
  );

/** The header of a part as its commonest print has it, looked at; `print: undefined` leaves it unread. */
function read(p: object, own: readonly Part[]): object {
  const { print, ...rest } = p as { part?: string; print?: unknown };
  if ("print" in p) return print === undefined ? rest : p;
  const part = own.find((x) => x.id === rest.part) ?? catalogue.get(rest.part ?? "");
  const first = part?.body.prints?.[0];
  return first ? { ...p, print: { id: first.id } } : p;
}

/** A valid project from parts and links; throws with the problems when it is not. Headers count as looked at. */
export function make(parts: object[], links: [string, string][] = [], rest: object = {}): Project {
  const result = loadProject(
    {
      format: "young-lattice-project",
      version: 1,
      title: "test",
      parts: parts.map((p) => read(p, (rest as { customParts?: Part[] }).customParts ?? [])),
      links: links.map(([from, to]) => ({ from, to })),
      ...rest,
    },
    catalogue,
  );
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.project;
}

export const planned = (parts: object[], rest: object = {}) => assign(make(parts, [], rest), catalogue).project;
/** The project with every header looked at, as its commonest print has it. */
export const looked = (p: Project): Project => ({
  ...p,
  parts: p.parts.map((x) => read(x, p.customParts) as Project["parts"][number]),
});
export const check = (p: Project) => findings(circuitOf(p, catalogue));
export const rules = (p: Project, floor: Finding["severity"] = "risk") =>
  check(p)
    .filter(
      (f) => ["stop", "fault", "risk", "note"].indexOf(f.severity) <= ["stop", "fault", "risk", "note"].indexOf(floor),
    )
    .map((f) => `${f.severity} ${f.rule}`);
export const find = (p: Project, rule: string) => check(p).find((f) => f.rule === rule);

/** The project after the named fix of the first finding of a rule. */
export function fixed(p: Project, rule: string, fix: string): Project {
  const f = find(p, rule);
  const chosen = f?.fixes.find((x) => x.id.startsWith(fix));
  if (!chosen) throw new Error(`${rule} has no fix ${fix}: ${JSON.stringify(f?.fixes.map((x) => x.id))}`);
  return chosen.edits.reduce((q, e) => applyEdit(q, e, catalogue), p);
}

/** What is joined with what, for builders that must share nothing with the code they check. */
export class Metal {
  private readonly to = new Map<string, string>();
  root(x: string): string {
    const up = this.to.get(x);
    return up === undefined || up === x ? x : this.root(up);
  }
  join(a: string, b: string) {
    this.to.set(this.root(a), this.root(b));
  }
}
