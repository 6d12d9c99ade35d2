import { NextResponse } from "next/server";
import { courseZip } from "../../../../../server/courses";
import { guarded } from "../../../reply";

type Params = { params: Promise<{ id: string }> };
export const dynamic = "force-dynamic";
/** Everything of a course as a ZIP; `?paper=a4|letter`. */
export const GET = (r: Request, p: Params) =>
  guarded(r, async () => {
    const result = await courseZip((await p.params).id, new URL(r.url).searchParams.get("paper"), r.signal);
    if (!result.ok) return NextResponse.json({ message: result.message }, { status: result.status });
    return new NextResponse(result.data as Uint8Array<ArrayBuffer>, {
      headers: { "content-type": "application/zip", "content-disposition": `attachment; filename="${result.name}"` },
    });
  });
