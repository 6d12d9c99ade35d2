import { DrawerSchema, emptyDrawer, type Drawer } from "../core/project";
import { getSetting, setSetting } from "../db/projects";
import type { Outcome } from "./outcome";
import { database } from "./store";

/** The person's drawer, which new projects start with. A damaged entry reads as an empty one. */
export function getDrawer(): Drawer {
  const text = getSetting(database(), "drawer");
  if (!text) return emptyDrawer();
  try {
    const parsed = DrawerSchema.safeParse(JSON.parse(text));
    return parsed.success ? parsed.data : emptyDrawer();
  } catch {
    return emptyDrawer();
  }
}

export function putDrawer(input: unknown): Outcome<Drawer> {
  const parsed = DrawerSchema.safeParse(input);
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    return { status: 400, body: { message: `The drawer was not saved: ${issue.path.join("/")}: ${issue.message}` } };
  }
  setSetting(database(), "drawer", JSON.stringify(parsed.data));
  return { status: 200, body: parsed.data };
}
