import { answerBin, bin } from "../../../server/keeping";
import { guarded, jsonBody, reply } from "../reply";

export const dynamic = "force-dynamic";
export const GET = (r: Request) => guarded(r, () => reply({ status: 200, body: bin() }));
export const POST = (r: Request) => guarded(r, async () => reply(answerBin(await jsonBody(r))));
