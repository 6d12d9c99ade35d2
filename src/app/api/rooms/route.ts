import { openRoom, roomsOf } from "../../../server/rooms";
import { guarded, jsonBody, reply } from "../reply";

export const dynamic = "force-dynamic";
/** Rooms of a project: `?project=ID`. What the benches do is not for the class to read: it takes the right to write. */
export const GET = (r: Request) =>
  guarded(r, () => reply(roomsOf(new URL(r.url).searchParams.get("project") ?? "")), "PUT");
export const POST = (r: Request) => guarded(r, async () => reply(openRoom(await jsonBody(r))));
