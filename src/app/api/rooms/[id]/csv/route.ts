import { NextResponse } from "next/server";
import { roomCsv } from "../../../../../server/rooms";
import { guarded, reply } from "../../../reply";

type Params = { params: Promise<{ id: string }> };
export const dynamic = "force-dynamic";
/** Everything that was done in a room, as a table. */
export const GET = (r: Request, p: Params) =>
  guarded(
    r,
    async () => {
      const o = roomCsv((await p.params).id);
      if (o.status !== 200) return reply(o);
      return new NextResponse((o.body as { csv: string }).csv, {
        headers: {
          "content-type": "text/csv; charset=utf-8",
          "content-disposition": 'attachment; filename="room.csv"',
        },
      });
    },
    "PUT",
  );
