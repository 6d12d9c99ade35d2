import type { FaultKind, Weighted } from "../types";
import { named, standing, wiredPins } from "../around";

export const stuckContact: FaultKind = {
  id: "stuck-contact",
  name: "a contact that sticks",
  often: 0.5,
  because: "a key turned by a quarter joins the legs that are always joined",
  minutes: 2,
  find: (laid) =>
    standing(laid).flatMap((inst): Weighted[] => {
      const contacts = inst.part.elements.filter((e) => e.kind === "contact");
      if (contacts.length !== 1 || inst.part.supplies.main || wiredPins(laid, inst.ref).length < 2) return [];
      const who = named(laid, inst.ref);
      return [
        {
          id: `${inst.ref} closed`,
          at: [inst.ref],
          says: `${who} is always closed`,
          mend: "A key with four legs: turn it by a quarter. Otherwise take another one.",
          change: { stuck: [{ ref: inst.ref, closed: true }] },
        },
        {
          id: `${inst.ref} open`,
          at: [inst.ref],
          says: `${who} never closes`,
          mend: "Press it while measuring across it; take another one if nothing closes.",
          times: 0.5,
          change: { stuck: [{ ref: inst.ref, closed: false }] },
        },
      ];
    }),
};
