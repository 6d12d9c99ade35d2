import { NextResponse } from "next/server";
import type { ReadableStream as WebStream } from "node:stream/web";
import { answerCopy, backupFile, receive } from "../../../server/keeping";
import { guarded, jsonBody, reply, wantType } from "../reply";

export const dynamic = "force-dynamic";
export const runtime = "nodejs";

/** Everything in one file. It holds all that everybody did: who may not write may not take it. */
export const GET = (r: Request) =>
  guarded(
    r,
    async () => {
      const { name, bytes, stream } = await backupFile();
      return new NextResponse(stream as unknown as BodyInit, {
        headers: {
          "content-type": "application/vnd.sqlite3",
          "content-length": String(bytes),
          "content-disposition": `attachment; filename="${name}"`,
        },
      });
    },
    "POST",
  );

/** A backup comes in; what restoring it would do goes back. */
export const POST = (r: Request) =>
  guarded(r, async () => {
    wantType(r, "application/octet-stream");
    return reply(await receive(r.body as unknown as WebStream | null));
  });

/** Restores what came in, or forgets it. */
export const PUT = (r: Request) => guarded(r, async () => reply(await answerCopy(await jsonBody(r))));
