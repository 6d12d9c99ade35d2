import { getDrawer, putDrawer } from "../../../server/drawer";
import { guarded, jsonBody, reply } from "../reply";

export const dynamic = "force-dynamic";
export const GET = (r: Request) => guarded(r, () => reply({ status: 200, body: getDrawer() }));
export const PUT = (r: Request) => guarded(r, async () => reply(putDrawer(await jsonBody(r))));
