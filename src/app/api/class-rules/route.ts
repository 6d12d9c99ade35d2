import { getClassRules, putClassRules } from "../../../server/class-rules";
import { guarded, jsonBody, reply } from "../reply";

export const dynamic = "force-dynamic";
export const GET = (r: Request) => guarded(r, () => reply({ status: 200, body: { settled: getClassRules() } }));
export const PUT = (r: Request) => guarded(r, async () => reply(putClassRules(await jsonBody(r))));
