import { NextResponse } from "next/server";
import { proveText } from "@/server/prove";
import { guarded, reply, wantType } from "../reply";

export const runtime = "nodejs";

/** Another solver's answer to a model of pins, for plans that take long in the page. */
export const POST = (request: Request): Promise<NextResponse> =>
  guarded(request, async () => {
    wantType(request, "text/plain");
    return reply(await proveText(request));
  });
