import { changed, type Case } from "../cases/build";
import { stage, IRLZ } from "../cases/currents";

/** A light that is always on beside a switched pump: it shares rail and ground with the transistor, and is not switched by it. */
const bystander = (flyback: object | null) => {
  const p = stage(flyback ? IRLZ : { ...IRLZ, flyback });
  return changed(
    p,
    { type: "addPart", part: "discrete/pump-5v", ref: "MT2", label: "Always on" },
    { type: "addLink", link: { from: "MT2.1", to: "S2.5V" } },
    { type: "addLink", link: { from: "MT2.2", to: "S2.GND" } },
  );
};

export const loadNoFlybackCases: Case[] = [
  {
    rule: "load.no-flyback",
    severity: "stop",
    says: "a switched pump without a diode",
    bad: () => stage({ ...IRLZ, flyback: null }),
    near: () => stage(IRLZ),
    fix: "flyback",
  },
  {
    rule: "load.no-flyback",
    severity: "stop",
    says: "the same beside a pump that is always on, which needs none",
    bad: () => bystander(null),
    near: () => bystander({}),
    fix: "flyback",
  },
];
