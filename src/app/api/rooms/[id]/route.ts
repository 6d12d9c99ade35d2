import { readRoom, removeRoom } from "../../../../server/rooms";
import { guarded, reply } from "../../reply";

type Params = { params: Promise<{ id: string }> };
export const dynamic = "force-dynamic";
/** All benches of a room; with their codes, so it takes the right to write. */
export const GET = (r: Request, p: Params) => guarded(r, async () => reply(readRoom((await p.params).id)), "PUT");
export const DELETE = (r: Request, p: Params) => guarded(r, async () => reply(removeRoom((await p.params).id)));
