import { tellRoom } from "../../../../../server/rooms";
import { guarded, jsonBody, reply } from "../../../reply";

type Params = { params: Promise<{ id: string }> };
export const dynamic = "force-dynamic";
export const POST = (r: Request, p: Params) =>
  guarded(r, async () => reply(tellRoom((await p.params).id, await jsonBody(r))));
