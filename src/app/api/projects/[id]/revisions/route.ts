import { revisions } from "../../../../../server/projects";
import { guarded, reply } from "../../../reply";

type Params = { params: Promise<{ id: string }> };
export const dynamic = "force-dynamic";
export const GET = (r: Request, p: Params) => guarded(r, async () => reply(revisions((await p.params).id)));
