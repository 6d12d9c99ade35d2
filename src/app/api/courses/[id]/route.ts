import { readCourse, removeCourse, saveCourse } from "../../../../server/courses";
import { guarded, jsonBody, reply } from "../../reply";

type Params = { params: Promise<{ id: string }> };
export const dynamic = "force-dynamic";
export const GET = (r: Request, p: Params) => guarded(r, async () => reply(readCourse((await p.params).id)));
export const PUT = (r: Request, p: Params) =>
  guarded(r, async () => reply(saveCourse((await p.params).id, await jsonBody(r))));
export const DELETE = (r: Request, p: Params) => guarded(r, async () => reply(removeCourse((await p.params).id)));
