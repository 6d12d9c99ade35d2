import { circuitOf } from "./src/core/circuit";
import { TARGETS } from "./src/core/firmware";
import { driverOf, leftOut } from "./src/core/firmware/drivers";
import { driverParts } from "./src/core/firmware/pins";
import { assign } from "./src/core/plan/assign";
import { catalogue, make, USB } from "./src/core/testing";
const hosts = catalogue.parts.filter((p) => p.board);
const parts = catalogue.parts.filter((p) => !p.board && p.bringup);
let D = 0, T = 0; const miss = new Map<string, string[]>();
for (const h of hosts) {
  let d = 0, t = 0;
  for (const q of parts) {
    const a = assign(make([{ ref: "B1", part: h.id }, USB, { ref: "M1", part: q.id }]), catalogue);
    if (a.status === "infeasible") continue;
    const c = circuitOf(a.project, catalogue);
    let why = "no program part"; let ok = false, any = false;
    for (const tg of TARGETS) {
      if (tg.without(c).length) continue;
      for (const p of driverParts(c, "B1", tg.id, (b) => b)) { any = true;
        const l = leftOut(p) ?? tg.leaves?.(p) ?? null;
        if (l === null && driverOf(p) && driverOf(p)!.id !== "generic") ok = true; else if (!ok) why = l?.why ?? ("generic " + driverOf(p)?.id);
      }
    }
    if (!any && a.status !== "optimal") continue;
    t++; if (ok) d++; else { const k = q.id; miss.set(k, [...(miss.get(k) ?? []), h.id.split("/")[1] + ": " + why]); }
  }
  D += d; T += t;
  console.log(h.id, d + "/" + t);
}
console.log(D, T, (100 * D / T).toFixed(1));
for (const [k, l] of [...miss].sort((a, b) => b[1].length - a[1].length)) console.log(k, l.length, [...new Set(l.map((x) => x.split(": ").slice(1).join(": ")))].join(" | ").slice(0, 200));
