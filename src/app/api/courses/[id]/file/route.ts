import { courseFile } from "../../../../../server/courses";
import { guarded, reply } from "../../../reply";

type Params = { params: Promise<{ id: string }> };
export const dynamic = "force-dynamic";
/** A course with the projects of its lessons. */
export const GET = (r: Request, p: Params) => guarded(r, async () => reply(courseFile((await p.params).id)));
