import { readRoom, removeRoom } from "../../../../server/rooms";
import { guarded, reply } from "../../reply";

type Params = { params: Promise<{ id: string }> };
export const dynamic = "force-dynamic";
/** All benches of a room, and all that one of them did (`?bench=3`); with their codes, so it takes the right to write. */
export const GET = (r: Request, p: Params) =>
  guarded(
    r,
    async () => {
      const bench = Number(new URL(r.url).searchParams.get("bench"));
      return reply(readRoom((await p.params).id, bench || undefined));
    },
    "PUT",
  );
export const DELETE = (r: Request, p: Params) => guarded(r, async () => reply(removeRoom((await p.params).id)));
