import { z } from "zod";
import { FixedRulesSchema, HouseRulesSchema, type Project } from "../core/project";
import { getSetting, setSetting } from "../db/projects";
import type { Outcome } from "./outcome";
import { database } from "./store";

/** What a class has settled for all its new projects: the rules, and which of them nobody changes. */
const ClassRulesSchema = z.strictObject({ rules: HouseRulesSchema, fixed: FixedRulesSchema });
export type ClassRules = z.infer<typeof ClassRulesSchema>;

/** Null where nothing is settled; a damaged entry counts as nothing. */
export function getClassRules(): ClassRules | null {
  const text = getSetting(database(), "class-rules");
  if (!text) return null;
  try {
    const parsed = ClassRulesSchema.safeParse(JSON.parse(text));
    return parsed.success ? parsed.data : null;
  } catch {
    return null;
  }
}

/** Settles rules for new projects of this machine; null lets them be free. */
export function putClassRules(input: unknown): Outcome<{ settled: ClassRules | null }> {
  const parsed = z.union([ClassRulesSchema, z.null()]).safeParse(input);
  if (!parsed.success)
    return {
      status: 400,
      body: { message: "Settled rules are the rules, the name of the class, and which of them stay." },
    };
  setSetting(database(), "class-rules", parsed.data ? JSON.stringify(parsed.data) : "");
  return { status: 200, body: { settled: parsed.data } };
}

/** A new project with what the class has settled; what it asks for beside that is kept. */
export function withClassRules(p: Project): Project {
  const settled = getClassRules();
  if (!settled) return p;
  return { ...p, houseRules: { ...p.houseRules, ...settled.rules }, fixedRules: settled.fixed };
}
