import { get, remove, save } from "../../../../server/projects";
import { guarded, jsonBody, reply } from "../../reply";

type Params = { params: Promise<{ id: string }> };
export const dynamic = "force-dynamic";
export const GET = (r: Request, p: Params) => guarded(r, async () => reply(get((await p.params).id)));
export const PUT = (r: Request, p: Params) =>
  guarded(r, async () => reply(save((await p.params).id, await jsonBody(r))));
export const DELETE = (r: Request, p: Params) => guarded(r, async () => reply(remove((await p.params).id)));
