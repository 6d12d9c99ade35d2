import { enterBench, talk } from "../../../../server/rooms";
import { guarded, jsonBody, reply } from "../../reply";

type Params = { params: Promise<{ code: string }> };
export const dynamic = "force-dynamic";
export const GET = (r: Request, p: Params) => guarded(r, async () => reply(enterBench((await p.params).code)));
/** A bench writes with its code alone, and only about itself: it takes the right to read, and the code. */
export const POST = (r: Request, p: Params) =>
  guarded(r, async () => reply(talk((await p.params).code, await jsonBody(r))), "GET");
