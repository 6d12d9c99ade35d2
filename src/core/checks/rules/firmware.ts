import { gaps, type Gap } from "../../firmware/gaps";
import { crowded, fullness, type Room } from "../../firmware/memory/room";
import { rulesView } from "../../firmware/rules/view";
import { refsOf } from "../../project";
import { label } from "../help";
import type { Found, Rule, Severity } from "../types";

const rule = (id: Rule["rule"], kind: Gap["kind"], severity: Severity, says: string, then: string): Rule => ({
  rule: id,
  says,
  check: (c) =>
    gaps(c)
      .filter((g) => g.kind === kind)
      .map((g): Found => ({
        rule: id,
        severity,
        at: [g.ref, g.host],
        message: `No program of ours can work ${label(c, g.ref)} on ${g.host}: ${g.why}. ${then}`,
        evidence: { ram_kB: c.netlist.instance(g.host)!.part.board!.ram_kB },
        fixes: [],
      })),
});

const kB = (bytes: number) => Number((bytes / 1024).toFixed(1));

/** A whole program that is too large for its chip. */
const tooLarge = (r: Room): Found => {
  const sure = fullness(r) === "full";
  const flash = r.flash.used / r.flash.of > r.ram.used / r.ram.of;
  const { used, of } = flash ? r.flash : r.ram;
  return {
    rule: "firmware.memory",
    severity: sure ? "fault" : "risk",
    at: [r.host],
    message: `The program for ${r.host} takes about ${kB(used)} kB of ${flash ? "flash" : "working memory"}, and ${kB(of)} kB are free for it: ${sure ? "it will not fit" : "it may not fit, the compiler will tell"}. Use a board with more memory, or fewer parts on this one.`,
    evidence: { program_kB: kB(used), free_kB: kB(of) },
    fixes: [],
  };
};

const ofParts = rule(
  "firmware.memory",
  "memory",
  "fault",
  "What a program must hold has to fit into the chip's memory.",
  "Use a board with more memory, or less of the part.",
);
export const firmwareMemory: Rule = {
  ...ofParts,
  check: (c) => [...ofParts.check(c), ...crowded(c).map(tooLarge)],
};

export const firmwareCapability = rule(
  "firmware.capability",
  "capability",
  "note",
  "A part that our programs can't work on its board is named: it is wired and checked, its code is yours.",
  "It is wired and checked all the same; another board works it, or code of your own between the marks.",
);

export const firmwareRule: Rule = {
  rule: "firmware.rule",
  says: "A sentence about what happens when is followed by the program, or it is told why not.",
  check: (c) =>
    // What is suggested is made from what the parts can do.
    !c.project.rules?.length
      ? []
      : rulesView(c)
          .rules.flatMap((r, i) => (r.why === null ? [] : [{ ...r, sentence: i + 1 }]))
          .map((r): Found => ({
            rule: "firmware.rule",
            severity: "risk",
            at: refsOf(r.rule),
            message: `No program follows "${r.says}": ${r.why}. Change the sentence at Firmware, or take it out.`,
            evidence: { sentence: r.sentence },
            fixes: [],
          })),
};
