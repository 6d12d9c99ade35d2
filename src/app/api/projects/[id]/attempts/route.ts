import { addAttempt, attempts, clearAttempts } from "../../../../../server/attempts";
import { guarded, jsonBody, reply } from "../../../reply";

type Params = { params: Promise<{ id: string }> };
export const dynamic = "force-dynamic";
export const GET = (r: Request, p: Params) => guarded(r, async () => reply(attempts((await p.params).id)));
export const POST = (r: Request, p: Params) =>
  guarded(r, async () => reply(addAttempt((await p.params).id, await jsonBody(r))));
export const DELETE = (r: Request, p: Params) => guarded(r, async () => reply(clearAttempts((await p.params).id)));
