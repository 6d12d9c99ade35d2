import { roomDocument } from "../../../../../server/rooms";
import { guarded, reply } from "../../../reply";

type Params = { params: Promise<{ id: string }> };
export const dynamic = "force-dynamic";
/** The plan as the benches of a room have it. */
export const GET = (r: Request, p: Params) => guarded(r, async () => reply(roomDocument((await p.params).id)), "PUT");
